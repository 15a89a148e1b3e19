import { Autocomplete, Box, TextField } from '@mui/material';
import { useState } from 'react';
import { useFleet } from '../../data/queries.js';
import type { BenchAddress } from './use-bench.js';

/** The unit that a bench starts from and saves to; none is fine. */
export function CompressorPicker({ address }: { readonly address: BenchAddress }) {
  const [isAsked, setIsAsked] = useState(false);
  const { units } = useFleet({ all: isAsked });
  const { unit, setText } = address;
  const chosen = unit
    ? (units.find(({ compressorId }) => compressorId === unit.id) ?? {
        compressorId: unit.id,
        tag: unit.tag,
        siteName: '',
        description: '',
      })
    : null;
  return (
    <Autocomplete
      options={units as readonly NonNullable<typeof chosen>[]}
      value={chosen}
      onFocus={() => setIsAsked(true)}
      onChange={(_event, next) => setText('unit', next?.compressorId ?? '')}
      isOptionEqualToValue={(a, b) => a.compressorId === b.compressorId}
      getOptionLabel={({ tag, siteName }) => `${tag} ${siteName}`.trim()}
      getOptionKey={({ compressorId }) => compressorId}
      autoHighlight
      noOptionsText="No unit like that"
      size="small"
      renderOption={(props, option) => {
        const { key, ...rest } = props as typeof props & { key: string };
        return (
          <Box component="li" key={key} {...rest} sx={{ gap: 1 }}>
            <strong>{option.tag}</strong>
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {option.description}
            </Box>
          </Box>
        );
      }}
      renderInput={(parameters) => <TextField {...parameters} label="Unit" placeholder="none" />}
    />
  );
}
