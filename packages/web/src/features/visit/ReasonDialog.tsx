import { Button, Stack, TextField } from '@mui/material';
import { useState } from 'react';
import { FormDialog } from '../../components/FormDialog.js';

interface ReasonDialogProps {
  readonly title: string;
  /** Reasons that are given with one touch. */
  readonly usual: readonly string[];
  readonly submit: string;
  readonly onReason: (reason: string) => Promise<void>;
  readonly onClose: () => void;
}

/** Asks why: by one touch, or in one's own words. */
export function ReasonDialog({ title, usual, submit, onReason, onClose }: ReasonDialogProps) {
  const [reason, setReason] = useState('');
  const give = (text: string) => void onReason(text.trim()).then(onClose);
  return (
    <FormDialog
      title={title}
      submit={submit}
      canSubmit={reason.trim() !== ''}
      onSubmit={() => give(reason)}
      onClose={onClose}
    >
      <Stack sx={{ gap: 1 }}>
        {usual.map((text) => (
          <Button
            key={text}
            variant="outlined"
            onClick={() => give(text)}
            sx={{ minHeight: 48, justifyContent: 'start' }}
          >
            {text}
          </Button>
        ))}
      </Stack>
      <TextField
        label="Or in your own words"
        value={reason}
        onChange={(event) => setReason(event.target.value)}
        multiline
        minRows={2}
        slotProps={{ htmlInput: { maxLength: 500 } }}
      />
    </FormDialog>
  );
}
