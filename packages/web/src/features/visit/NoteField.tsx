import { Box, Button, Stack, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import type { CompressorAtWork } from './use-visit.js';

/** Anything else worth remembering. */
export function NoteField({ atWork }: { readonly atWork: CompressorAtWork }) {
  const [text, setText] = useState('');
  return (
    <Box component="section" aria-label="Notes" sx={{ pb: 2 }}>
      {atWork.progress.notes.map((note) => (
        <Typography key={note.id} variant="body2" sx={{ py: 0.4 }}>
          {note.text}
        </Typography>
      ))}
      <Stack
        direction="row"
        component="form"
        sx={{ gap: 1, alignItems: 'end' }}
        onSubmit={(event) => {
          event.preventDefault();
          if (text.trim() !== '')
            void atWork.record({ kind: 'note', text: text.trim() }).then(() => setText(''));
        }}
      >
        <TextField
          label="Note"
          value={text}
          onChange={(event) => setText(event.target.value)}
          multiline
          fullWidth
          size="small"
          slotProps={{ htmlInput: { maxLength: 2000 } }}
        />
        <Button type="submit" variant="outlined" disabled={text.trim() === ''} sx={{ minHeight: 44 }}>
          Save
        </Button>
      </Stack>
    </Box>
  );
}
