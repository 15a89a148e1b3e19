import { Box, Checkbox, FormControlLabel, MenuItem, Stack, TextField, Typography } from '@mui/material';
import type { PartView } from '@entretien/contracts';
import { judgeSubstitute, type ComparedFigure, type Substitution } from '@entretien/core/parts';
import { useState } from 'react';
import { useFleet, useUnit } from '../../data/queries.js';
import { FormDialog } from '../../parts/FormDialog.js';

interface CompareProps {
  readonly original: PartView;
  readonly parts: readonly PartView[];
  readonly onClose: () => void;
}

const verdictWords: Readonly<Record<Substitution['verdict'], string>> = {
  fits: 'It may take its place',
  unsure: 'Not sure: something is not known',
  'does-not-fit': 'It may not take its place',
  reason: 'Only with a reason from the lead',
};

const holdsWords: Readonly<Record<ComparedFigure['holds'], string>> = {
  yes: 'holds',
  no: 'falls short',
  unknown: 'not known',
};

/** May another part take the place of this one on a unit? Figure by figure. */
export function CompareDialog({ original, parts, onClose }: CompareProps) {
  const { units } = useFleet({ all: true });
  const [offeredId, setOffered] = useState('');
  const [unitId, setUnit] = useState(original.fits[0] ?? '');
  const [hasAdapter, setAdapter] = useState(false);
  const { data: unit } = useUnit(unitId === '' ? undefined : unitId);
  const offered = parts.find(({ id }) => id === offeredId);
  const judged = offered && unit ? judgeSubstitute(original, offered, unit, hasAdapter) : null;
  const isGood = judged?.verdict === 'fits';
  return (
    <FormDialog title={`In place of ${original.name}`} submit="Close" onSubmit={onClose} onClose={onClose}>
      <TextField select label="On the unit" value={unitId} onChange={(event) => setUnit(event.target.value)}>
        {units.map(({ compressorId, tag, siteName }) => (
          <MenuItem key={compressorId} value={compressorId}>
            {tag} · {siteName}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="The other part"
        value={offeredId}
        onChange={(event) => setOffered(event.target.value)}
      >
        {parts
          .filter(({ id }) => id !== original.id)
          .map(({ id, name, number }) => (
            <MenuItem key={id} value={id}>
              {name} · {number}
            </MenuItem>
          ))}
      </TextField>
      <FormControlLabel
        control={<Checkbox checked={hasAdapter} onChange={(_event, on) => setAdapter(on)} />}
        label="An adapter fits its thread"
      />
      {judged && (
        <Box role="status">
          <Typography
            sx={{
              fontWeight: 700,
              color: isGood
                ? 'notebook.slate'
                : judged.verdict === 'does-not-fit'
                  ? 'notebook.oxide'
                  : 'notebook.brass',
            }}
          >
            {verdictWords[judged.verdict]}
          </Typography>
          <Typography variant="body2">{judged.sentence}</Typography>
          {judged.figures.map(({ figure, holds, sentence }) => (
            <Stack
              key={figure}
              direction="row"
              sx={{ borderTop: 1, borderColor: 'divider', py: 0.5, gap: 1.5 }}
            >
              <Typography variant="body2" sx={{ flex: 1 }}>
                {sentence}
              </Typography>
              <Typography
                variant="body2"
                sx={{ fontWeight: 650, color: holds === 'no' ? 'notebook.oxide' : 'text.secondary' }}
              >
                {holdsWords[holds]}
              </Typography>
            </Stack>
          ))}
        </Box>
      )}
    </FormDialog>
  );
}
