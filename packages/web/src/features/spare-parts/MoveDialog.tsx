import { TextField, Typography } from '@mui/material';
import { MovePart, type PartView } from '@entretien/contracts';
import { readNumber } from '@entretien/core/quantities';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { currentInstantText } from '../../data/clock.js';
import { sentenceOf } from '../../data/api.js';
import { usePost } from '../../data/queries.js';
import { FormDialog } from '../../components/FormDialog.js';

/** What the van holds now, as counted: the difference is put on record. */
export function MoveDialog({ part, onClose }: { readonly part: PartView; readonly onClose: () => void }) {
  const [text, setText] = useState('');
  const [id] = useState(() => newId());
  const [movedAt] = useState(() => currentInstantText());
  const post = usePost<MovePart, PartView>(MovePart, `/parts/${part.id}/moves`);
  const read = readNumber(text);
  const isReadable = read.ok && read.value >= 0 && read.value <= 100_000;
  const change = isReadable ? read.value - part.inVan : 0;
  return (
    <FormDialog
      title={part.name}
      submit="Save the count"
      canSubmit={isReadable && change !== 0}
      isSending={post.isPending}
      problem={post.error ? sentenceOf(post.error) : null}
      onSubmit={() => post.mutate({ id, movedAt, count: change }, { onSuccess: onClose })}
      onClose={onClose}
    >
      <TextField
        label="In the van now"
        value={text}
        onChange={(event) => setText(event.target.value)}
        autoFocus
        error={text !== '' && !isReadable}
        helperText={text !== '' && !isReadable ? 'A number from 0 to 100,000.' : `Stock: ${part.inVan}`}
        slotProps={{ htmlInput: { inputMode: 'decimal', maxLength: 12 } }}
      />
      {isReadable && change !== 0 && (
        <Typography variant="body2">
          {change > 0 ? `${change} more` : `${-change} fewer`} than the stock shows.
        </Typography>
      )}
    </FormDialog>
  );
}
