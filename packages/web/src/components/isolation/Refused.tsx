import { Box, Typography } from '@mui/material';
import { HoldButton } from './HoldButton.js';
import type { useRecording } from './use-recording.js';

/** Why something was not taken, and the way to insist where it was only asked. */
export function Refused({ recording }: { readonly recording: ReturnType<typeof useRecording> }) {
  const { refused, insist } = recording;
  if (refused === null) return null;
  return (
    <Box role="alert" sx={{ bgcolor: 'oxideGround', borderLeft: 4, borderColor: 'oxide', p: 1.25, my: 1 }}>
      <Typography sx={{ fontWeight: 650, color: 'oxide' }}>{refused.sentence}</Typography>
      {insist && (
        <HoldButton color="error" variant="outlined" onHeld={insist} sx={{ mt: 1, minHeight: 60 }}>
          Hold: yes, it really did
        </HoldButton>
      )}
    </Box>
  );
}
