import { Autocomplete, Box, Button, Stack, TextField, Typography } from '@mui/material';
import type { CompressorView, PartView, RepairView } from '@entretien/contracts';
import { needsReason } from '@entretien/core/parts';
import { readNumber } from '@entretien/core/quantities';
import { useState } from 'react';
import { ProblemLine } from '../../components/ProblemLine.js';
import { useAdd, useFactOnce } from './use-entry.js';
import { useParts } from '../../data/queries.js';

interface PartUsedProps {
  readonly repair: RepairView;
  readonly unit: CompressorView;
}

/** A part that was used: one of the catalogue goes out of the van; any other is called by its name. */
export function PartUsed({ repair, unit }: PartUsedProps) {
  const { data: parts = [] } = useParts();
  const [part, setPart] = useState<PartView | string | null>(null);
  const [typed, setTyped] = useState('');
  const [count, setCount] = useState('1');
  const [reason, setReason] = useState('');
  const fact = useFactOnce();
  const add = useAdd(repair);
  const fitting = parts.filter(
    (one) => !one.isRetired && (one.fits.length === 0 || one.fits.includes(unit.id)),
  );
  const read = readNumber(count);
  const isCount = read.ok && read.value > 0 && read.value <= 1000;
  const name = typed.trim();
  // Typed over, it is no longer the part that was chosen.
  const known = part !== null && typeof part === 'object' && part.name === name ? part : null;
  const wantsReason = known !== null && needsReason(known, unit, unit.id);
  const canSend = name !== '' && isCount && (!wantsReason || reason.trim() !== '');
  const send = () =>
    add.mutate(
      {
        ...fact.made(),
        kind: 'part',
        text: name,
        count: read.ok ? read.value : 1,
        ...(known ? { part: known.id } : {}),
        ...(wantsReason ? { reason: reason.trim() } : {}),
      },
      {
        onSuccess: () => {
          setPart(null);
          setTyped('');
          setCount('1');
          setReason('');
          fact.forget();
        },
      },
    );
  return (
    <Box
      component="form"
      sx={{ mb: 1.5 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (canSend) send();
      }}
    >
      <Stack direction="row" sx={{ gap: 1, alignItems: 'start', flexWrap: { xs: 'wrap', sm: 'nowrap' } }}>
        <Autocomplete
          freeSolo
          fullWidth
          size="small"
          options={fitting}
          value={part}
          inputValue={typed}
          onInputChange={(_event, text) => setTyped(text)}
          onChange={(_event, next) => setPart(next)}
          getOptionLabel={(option) => (typeof option === 'string' ? option : option.name)}
          getOptionKey={(option) => (typeof option === 'string' ? option : option.id)}
          renderOption={({ key, ...rest }, option) => (
            <Box component="li" key={key} {...rest} sx={{ gap: 1 }}>
              <strong>{option.name}</strong>
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {option.number} · {option.inVan} in the van
              </Box>
            </Box>
          )}
          renderInput={(parameters) => <TextField {...parameters} label="Part used" />}
        />
        <TextField
          label="How many"
          size="small"
          value={count}
          onChange={(event) => setCount(event.target.value)}
          error={!isCount}
          helperText={isCount ? undefined : 'Up to 1,000.'}
          slotProps={{ htmlInput: { inputMode: 'decimal', maxLength: 8 } }}
          sx={{ width: 96, flex: 'none' }}
        />
        <Button
          type="submit"
          variant="outlined"
          disabled={!canSend || add.isPending}
          sx={{ minHeight: 44, flex: 'none' }}
        >
          Save the part
        </Button>
      </Stack>
      {known && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          It goes out of the van: {known.inVan} are there.
        </Typography>
      )}
      {wantsReason && (
        <TextField
          label="Why this part"
          required
          size="small"
          fullWidth
          multiline
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          helperText="It is not listed for this machine: for breathing air it needs a reason."
          slotProps={{ htmlInput: { maxLength: 500 } }}
          sx={{ mt: 1 }}
        />
      )}
      <ProblemLine error={add.error} />
    </Box>
  );
}
