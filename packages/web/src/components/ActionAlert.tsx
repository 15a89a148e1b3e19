import { Alert, Button, type AlertColor } from '@mui/material';
import type { ReactNode } from 'react';

interface WayOutProps {
  readonly severity: AlertColor;
  /** What the button says. */
  readonly way: string;
  readonly onGo: () => void;
  readonly children: ReactNode;
}

/** Something that stands in the way, with the way out of it; under the words where there is no room beside them. */
export function ActionAlert({ severity, way, onGo, children }: WayOutProps) {
  return (
    <Alert
      severity={severity}
      variant="outlined"
      sx={{
        mt: 1,
        flexWrap: { xs: 'wrap', sm: 'nowrap' },
        '& .MuiAlert-message': { flex: { xs: '1 0 70%', sm: 1 } },
        '& .MuiAlert-action': { pt: 0, alignItems: 'center', ml: { xs: 2.5, sm: 'auto' } },
      }}
      action={
        <Button color="inherit" onClick={onGo} sx={{ minHeight: 44, flex: 'none' }}>
          {way}
        </Button>
      }
    >
      {children}
    </Alert>
  );
}
