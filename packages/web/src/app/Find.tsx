import { Box } from '@mui/material';
import { useState, type ComponentProps } from 'react';
import type { FindBox } from './FindBox.js';
import { FIND_HINT, findPlace } from './find-place.js';
import { FIND_BOX_ID } from './keys.js';

/**
 * Finds a unit by its tag, its place or what it is. Its list is a good part of the interface library and is fetched
 * when the box takes the focus; until it is there the box takes what is typed, and hands it on.
 */
export function Find() {
  const [list, setList] = useState<{ readonly Box: typeof FindBox; readonly hasFocus: boolean }>();
  const [typed, setTyped] = useState('');
  if (list) return <list.Box typedBefore={typed} hasFocus={list.hasFocus} />;
  const fetchList = () =>
    void import('./FindBox.js').then(
      (part) => setList({ Box: part.FindBox, hasFocus: document.activeElement?.id === FIND_BOX_ID }),
      // Without a connection and without the file, the next time it takes the focus tries again.
      () => undefined,
    );
  return (
    <Box
      component="input"
      id={FIND_BOX_ID}
      type="text"
      role="combobox"
      aria-label="Find a unit"
      aria-expanded={false}
      aria-haspopup="listbox"
      aria-autocomplete="list"
      autoComplete="off"
      placeholder={FIND_HINT}
      value={typed}
      onChange={((event) => setTyped(event.target.value)) as ComponentProps<'input'>['onChange']}
      onFocus={fetchList}
      sx={{
        ...findPlace,
        minWidth: 0,
        height: 34,
        px: '14px',
        border: 1,
        borderColor: 'strongRule',
        borderRadius: 1,
        bgcolor: 'background.paper',
        color: 'text.primary',
        font: 'inherit',
        fontSize: '0.88rem',
        '&::placeholder': { color: 'text.secondary', opacity: 1 },
      }}
    />
  );
}
