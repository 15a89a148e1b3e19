import { TextField, Typography } from '@mui/material';
import { stationName } from '@entretien/core/machine';
import { useState } from 'react';
import { FormDialog } from '../../components/FormDialog.js';
import type { CompressorAtWork } from './use-visit.js';

interface FoundDialogProps {
  readonly atWork: CompressorAtWork;
  readonly station: string;
  readonly onClose: () => void;
}

/** A fault that was found: it opens a repair on the unit. */
export function FoundDialog({ atWork, station, onClose }: FoundDialogProps) {
  const [found, setFound] = useState('');
  return (
    <FormDialog
      title={`Found: ${stationName(atWork.unit.plate, station)}`}
      submit="Open a repair"
      canSubmit={found.trim() !== ''}
      onSubmit={() => void atWork.record({ kind: 'fault', found: found.trim(), station }).then(onClose)}
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
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        The repair stays open on the unit until a check proves it.
      </Typography>
    </FormDialog>
  );
}
