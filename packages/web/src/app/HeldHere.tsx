import { Alert } from '@mui/material';
import { useOutbox } from '../data/outbox/outbox.js';

/** What the device would not keep is in this page only: it must stay open until the server has it. */
export function HeldHere() {
  const held = useOutbox((outbox) => outbox.held);
  if (held === 0) return null;
  return (
    <Alert
      severity="error"
      variant="outlined"
      sx={{
        mx: { xs: 2, md: 3.5 },
        mt: 1.5,
        // It stays in sight however far down the work is.
        position: 'sticky',
        top: 8,
        zIndex: 2,
        bgcolor: 'background.paper',
      }}
    >
      This device keeps nothing more: no room is left, or the window is private. {held}{' '}
      {held === 1 ? 'entry is' : 'entries are'} in this page only. Keep it open until there is a connection;
      then the server has {held === 1 ? 'it' : 'them'}.
    </Alert>
  );
}
