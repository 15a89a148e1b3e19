import { Button, MenuItem, TextField, Typography } from '@mui/material';
import { stationName, stationsOf } from '@entretien/core/machine';
import { useState } from 'react';
import { Link } from 'react-router';
import { FormDialog } from '../../components/FormDialog.js';
import type { CompressorAtWork } from './use-visit.js';

interface FoundDialogProps {
  readonly atWork: CompressorAtWork;
  /** Where, when it is known already. */
  readonly station?: string | undefined;
  readonly onClose: () => void;
}

/** A fault that was found: it opens a repair on the unit. */
export function FoundDialog({ atWork, station: known, onClose }: FoundDialogProps) {
  const [found, setFound] = useState('');
  const [chosen, setChosen] = useState('');
  const station = known ?? chosen;
  const { path, beside } = stationsOf(atWork.unit.plate);
  return (
    <FormDialog
      title={known === undefined ? 'A fault' : `Found: ${stationName(atWork.unit.plate, known)}`}
      submit="Open a repair"
      canSubmit={found.trim() !== ''}
      onSubmit={() =>
        void atWork
          .record({ kind: 'fault', found: found.trim(), ...(station === '' ? {} : { station }) })
          .then(onClose)
      }
      onClose={onClose}
    >
      <TextField
        label="What is wrong"
        value={found}
        onChange={(event) => setFound(event.target.value)}
        autoFocus
        multiline
        minRows={2}
        slotProps={{ htmlInput: { maxLength: 500 } }}
      />
      {known === undefined && (
        <TextField select label="Where" value={chosen} onChange={(event) => setChosen(event.target.value)}>
          {[...path, ...beside].map(({ code }) => (
            <MenuItem key={code} value={code}>
              {stationName(atWork.unit.plate, code)}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        The repair stays open on the unit until a check proves it.
      </Typography>
      <Button
        component={Link}
        to={`/units/${atWork.view.compressorId}/faults`}
        sx={{ minHeight: 44, alignSelf: 'start', px: 0.5 }}
      >
        Find the cause first
      </Button>
    </FormDialog>
  );
}
