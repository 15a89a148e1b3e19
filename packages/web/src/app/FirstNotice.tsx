import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from '@mui/material';

interface FirstNoticeProps {
  readonly onRead: () => void;
}

/** What everybody reads once on each device before anything else. */
export function FirstNotice({ onRead }: FirstNoticeProps) {
  return (
    <Dialog open aria-labelledby="notice-title">
      <DialogTitle id="notice-title">Before you begin</DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 1.5 }}>
          Entretien advises; whoever works decides, and answers for it. Compressed air, electricity and hot
          oil kill.
        </Typography>
        <Typography sx={{ mb: 1.5 }}>
          <strong>What comes first:</strong> the maker’s manual, the rules of the place, and the trades that
          need a licence. Where they say otherwise, they are right.
        </Typography>
        <Typography>
          Dates, hours and verdicts are worked out from what was entered, and are as good as that. It comes
          without warranty.
        </Typography>
      </DialogContent>
      <DialogActions>
        <Button variant="contained" autoFocus onClick={onRead} sx={{ minHeight: 48 }}>
          Understood
        </Button>
      </DialogActions>
    </Dialog>
  );
}
