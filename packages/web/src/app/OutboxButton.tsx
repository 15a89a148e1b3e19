import { Button, Box } from '@mui/material';
import { lazy, Suspense, useState } from 'react';
import { useOutbox } from '../data/outbox/outbox.js';

const OutboxDialog = lazy(() => import('./OutboxDialog.js').then((part) => ({ default: part.OutboxDialog })));

/** Shows in the header as long as something recorded here has not reached the server, or was refused by it. */
export function OutboxButton() {
  const items = useOutbox((outbox) => outbox.items);
  const [isOpen, setOpen] = useState(false);
  if (items.length === 0 && !isOpen) return null;
  const refused = items.filter(({ problem }) => problem !== null).length;
  const waiting = items.length - refused;
  const text = [refused > 0 ? `${refused} refused` : '', waiting > 0 ? `${waiting} waiting` : '']
    .filter(Boolean)
    .join(', ');
  return (
    <>
      <Button
        onClick={() => setOpen(true)}
        aria-label={`Outbox: ${text || 'empty'}`}
        sx={{
          minHeight: 44,
          color: refused > 0 ? 'oxide' : 'brass',
          fontWeight: 650,
          whiteSpace: 'nowrap',
          px: 1,
        }}
      >
        <Box component="span" sx={{ display: { xs: 'none', sm: 'inline' }, pr: 0.5 }}>
          Outbox
        </Box>
        {text}
      </Button>
      <Suspense fallback={null}>{isOpen && <OutboxDialog onClose={() => setOpen(false)} />}</Suspense>
    </>
  );
}
