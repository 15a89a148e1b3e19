import { Box, Typography } from '@mui/material';
import type { RoundView } from '@entretien/core/practice';
import { figureFont } from '../../components/theme/theme.js';

/** What came of the last thing that was done, where it is seen at once. */
export function LatestLine({ log }: Pick<RoundView, 'log'>) {
  const last = log.at(-1);
  return (
    <Typography
      role="status"
      aria-label="Latest"
      sx={{ borderLeft: 4, borderColor: last ? 'slate' : 'divider', pl: 1.25, mb: 1.25, minHeight: '1.5em' }}
    >
      {last?.text ?? 'Look round first: what is heard, what stands open, what the gauges show.'}
    </Typography>
  );
}

/** What was done and what came of it, the latest first. */
export function RoundLog({ log }: Pick<RoundView, 'log'>) {
  return (
    <Box component="section" aria-label="What was done" sx={{ mt: 2.5 }}>
      <Typography variant="h2">What was done</Typography>
      {log.length === 0 ? (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Nothing yet.
        </Typography>
      ) : (
        <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
          {[...log].reverse().map(({ seconds, text }, at) => (
            <Box
              component="li"
              key={log.length - at}
              sx={{ display: 'flex', gap: 2, borderTop: 1, borderColor: 'divider', py: 0.75 }}
            >
              <Box component="span" sx={{ ...figureFont, flex: '0 0 4rem', color: 'text.secondary' }}>
                {`${Math.floor(seconds / 60)} min`}
              </Box>
              <span>{text}</span>
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
