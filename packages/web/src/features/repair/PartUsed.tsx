import { Autocomplete, Box, Button, Stack, TextField, Typography } from '@mui/material';
import { entryContracts, type CompressorView, type PartView, type RepairView } from '@entretien/contracts';
import { readNumber } from '@entretien/core/quantities';
import { useRef, useState } from 'react';
import { v7 as newId } from 'uuid';
import { currentInstantText } from '../../data/clock.js';
import { ProblemLine } from '../../components/ProblemLine.js';
import { useParts, usePost } from '../../data/queries.js';

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
  const fact = useRef<ReturnType<typeof newFact> | null>(null);
  const add = usePost<object, RepairView>(entryContracts.part, `/repairs/${repair.id}/entries`);
  const fitting = parts.filter(
    ({ fits, isRetired }) => !isRetired && (fits.length === 0 || fits.includes(unit.id)),
  );
  const read = readNumber(count);
  const isCount = read.ok && read.value > 0 && read.value <= 1000;
  const known = typeof part === 'object' ? part : null;
  const name = known?.name ?? typed.trim();
  const send = () =>
    add.mutate(
      {
        ...(fact.current ??= newFact()),
        kind: 'part',
        text: name,
        count: read.ok ? read.value : 1,
        ...(known ? { part: known.id } : {}),
      },
      {
        onSuccess: () => {
          setPart(null);
          setTyped('');
          setCount('1');
          fact.current = null;
        },
      },
    );
  return (
    <Box
      component="form"
      sx={{ mb: 1.5 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (name !== '' && isCount) send();
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
          disabled={name === '' || !isCount || add.isPending}
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
      <ProblemLine error={add.error} />
    </Box>
  );
}

/** Made when it is first sent with it, and again once that was taken: sent twice it is one fact. */
function newFact() {
  return { id: newId(), at: currentInstantText() };
}
