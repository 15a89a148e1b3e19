import { Autocomplete, Box, TextField } from '@mui/material';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useFleet } from '../data/queries.js';
import { FIND_HINT, findPlace } from './find-place.js';
import { FIND_BOX_ID } from './keys.js';

/** The list under the box where a unit is found, with what was typed before it came. */
export function FindBox({
  typedBefore,
  hasFocus,
}: {
  readonly typedBefore: string;
  readonly hasFocus: boolean;
}) {
  const { units } = useFleet({ all: true });
  const navigate = useNavigate();
  const [typed, setTyped] = useState(typedBefore);
  const [isOpen, setOpen] = useState(hasFocus && typedBefore !== '');
  return (
    <Autocomplete
      id={FIND_BOX_ID}
      options={units}
      open={isOpen}
      onOpen={() => setOpen(true)}
      onClose={() => setOpen(false)}
      value={null}
      inputValue={typed}
      // The box would begin by emptying itself: nothing is chosen in it yet.
      onInputChange={(_event, text, reason) => reason !== 'reset' && setTyped(text)}
      onChange={(_event, unit) => {
        setTyped('');
        if (unit) void navigate(`/units/${unit.compressorId}`);
      }}
      getOptionLabel={(unit) => `${unit.tag} ${unit.siteName} ${unit.description}`}
      getOptionKey={(unit) => unit.compressorId}
      blurOnSelect
      clearOnBlur
      autoHighlight
      noOptionsText="No unit like that"
      forcePopupIcon={false}
      size="small"
      sx={{
        ...findPlace,
        '& .MuiInputBase-root': { py: 0, fontSize: '0.88rem', minHeight: 34 },
      }}
      slotProps={{ popper: { sx: { minWidth: 280 } } }}
      renderOption={(props, unit) => {
        const { key, ...rest } = props as typeof props & { key: string };
        return (
          <Box component="li" key={key} {...rest} sx={{ gap: 1 }}>
            <strong>{unit.tag}</strong>
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {unit.siteName}
            </Box>
          </Box>
        );
      }}
      renderInput={(parameters) => (
        <TextField {...parameters} autoFocus={hasFocus} placeholder={FIND_HINT} aria-label="Find a unit" />
      )}
    />
  );
}
