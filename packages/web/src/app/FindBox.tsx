import { Autocomplete, Box, TextField } from '@mui/material';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useFleet } from '../data/queries.js';
import { FIND_BOX_ID } from './keys.js';

/** Finds a unit by its tag, its place or what it is. */
export function FindBox() {
  const [isAsked, setIsAsked] = useState(false);
  const { units } = useFleet({ all: isAsked });
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  return (
    <Autocomplete
      id={FIND_BOX_ID}
      options={units}
      onFocus={() => setIsAsked(true)}
      value={null}
      inputValue={typed}
      onInputChange={(_event, text) => setTyped(text)}
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
        // On a phone it takes what the mark of the house leaves.
        width: { xs: 150, sm: 180, md: 220 },
        flex: { xs: 1, sm: 'none' },
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
        <TextField {...parameters} placeholder="Find a unit  ( / )" aria-label="Find a unit" />
      )}
    />
  );
}
