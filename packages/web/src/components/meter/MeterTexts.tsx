import { Box } from '@mui/material';
import type { HourReading } from '@entretien/core/hours';
import { formatFigure } from '@entretien/core/quantities';
import { Figure } from '../Figure.js';
import { formatAgo } from '../describe-due.js';

interface LastFigureProps {
  readonly last: HourReading;
  readonly now: number;
  readonly timeZone: string;
}

/** What a meter showed last, and how long ago. */
export function LastFigure({ last, now, timeZone }: LastFigureProps) {
  return (
    <>
      <Box component="span" sx={{ color: 'text.secondary' }}>
        last{' '}
      </Box>
      <Figure
        value={formatFigure(last.hours, { figures: 6, maxDecimals: 1 })}
        unit={last.source === 'estimated' ? 'h est.' : 'h'}
      />
      <Box component="span" sx={{ color: 'text.secondary' }}>
        {' '}
        · {formatAgo(last.takenAt, now, timeZone)}
      </Box>
    </>
  );
}

/** Asks about a figure that is odd, before it is saved. */
export function LookAgain() {
  return (
    <Box role="alert" sx={{ typography: 'body2', color: 'brass', fontWeight: 600, pb: 0.5 }}>
      Look again. If it stands there like that, say it was read right.
    </Box>
  );
}
