import { Alert, Box, Button, LinearProgress, Typography } from '@mui/material';
import type { useBenchWorker } from './use-worker.js';

interface LongWorkProps {
  readonly work: ReturnType<typeof useBenchWorker>;
  /** What it is called while it goes on. */
  readonly name: string;
  readonly start: string;
  readonly stop: string;
  readonly canStart: boolean;
  /** Why it cannot begin yet. */
  readonly missing?: string | null;
}

/** Begins long reckoning, tells how far it is, and ends it. */
export function LongWork({ work, name, start, stop, canStart, missing }: LongWorkProps) {
  if (work.isRunning) {
    return (
      <Box>
        <LinearProgress variant="determinate" value={(work.share ?? 0) * 100} aria-label={name} />
        <Button onClick={work.cancel} sx={{ minHeight: 44 }}>
          {stop}
        </Button>
      </Box>
    );
  }
  return (
    <Box>
      <Button variant="outlined" onClick={work.run} disabled={!canStart} fullWidth sx={{ minHeight: 44 }}>
        {start}
      </Button>
      {missing && (
        <Typography variant="caption" sx={{ color: 'text.secondary' }}>
          {missing}
        </Typography>
      )}
      {work.isOutdated && (
        <Typography variant="caption">Something changed since: calculate it again.</Typography>
      )}
      {work.hasFailed && <Alert severity="error">The calculation stopped. Try again.</Alert>}
    </Box>
  );
}
