import { Box, Button } from '@mui/material';
import { useState } from 'react';

/** A way out of a round that is not ended by mending. */
export function GiveUp({ onGiveUp }: { readonly onGiveUp: () => void }) {
  const [isSure, setSure] = useState(false);
  return isSure ? (
    <Box sx={{ display: 'flex', gap: 1 }}>
      <Button color="error" variant="outlined" onClick={onGiveUp} sx={{ minHeight: 44 }}>
        Give up, show what it was
      </Button>
      <Button onClick={() => setSure(false)} sx={{ minHeight: 44 }}>
        Keep trying
      </Button>
    </Box>
  ) : (
    <Button onClick={() => setSure(true)} sx={{ minHeight: 44 }}>
      Give up
    </Button>
  );
}
