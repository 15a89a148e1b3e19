import { Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import type { PartView } from '@entretien/contracts';
import { judgeSubstitute } from '@entretien/core/parts';
import { useState } from 'react';
import { useFleet, useCompressor } from '../../data/queries.js';
import { ComparedParts } from '../../components/ComparedParts.js';
import { FormDialog } from '../../components/FormDialog.js';

interface CompareProps {
  readonly original: PartView;
  readonly parts: readonly PartView[];
  readonly onClose: () => void;
}

/** May another part take the place of this one on a unit? Figure by figure. */
export function CompareDialog({ original, parts, onClose }: CompareProps) {
  const { units } = useFleet({ all: true });
  const [offeredId, setOffered] = useState('');
  const [compressorId, setCompressor] = useState(original.fits[0] ?? '');
  const [hasAdapter, setAdapter] = useState(false);
  const { data: unit } = useCompressor(compressorId === '' ? undefined : compressorId);
  const offered = parts.find(({ id }) => id === offeredId);
  const judged = offered && unit ? judgeSubstitute(original, offered, unit, hasAdapter) : null;
  return (
    <FormDialog title={`In place of ${original.name}`} submit="Close" onSubmit={onClose} onClose={onClose}>
      <TextField
        select
        label="On the unit"
        value={compressorId}
        onChange={(event) => setCompressor(event.target.value)}
      >
        {units.map(({ compressorId: id, tag, siteName }) => (
          <MenuItem key={id} value={id}>
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
          .filter((one) => one.id !== original.id && one.class === original.class)
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
      {judged && <ComparedParts judged={judged} />}
    </FormDialog>
  );
}
