import { Box } from '@mui/material';
import type { StandingView } from '@entretien/contracts';
import { hoursSeen, isMeterChanged, formatHoursSeen } from '@entretien/core/hours';
import { isEstimate } from '@entretien/core/plan';
import { formatFigure } from '@entretien/core/quantities';
import { Figure } from './Figure.js';

interface RunHoursProps {
  readonly of: Pick<StandingView, 'runHours' | 'runHoursBasis' | 'meter'>;
  readonly size?: string;
  /** All in one line: where rows have one height. */
  readonly isInline?: boolean;
}

/** Run hours as the meter of the machine shows them; the total beside them where a meter was changed. */
export function RunHours({
  of: { runHours, runHoursBasis, meter },
  size = '0.88rem',
  isInline = false,
}: RunHoursProps) {
  if (runHours === null) return null;
  const { figure, counter } = hoursSeen(meter, Math.round(runHours));
  const unit = isEstimate(runHoursBasis) ? 'est.' : counter === 'meter' ? 'h' : `h ${counter}`;
  return (
    <Box
      component="span"
      sx={{ whiteSpace: 'nowrap' }}
      title={formatHoursSeen(meter, Math.round(runHours), 'full')}
    >
      <Figure
        value={formatFigure(figure, { figures: 7, maxDecimals: 0 })}
        unit={unit}
        sx={{ fontSize: size }}
      />
      {isMeterChanged(meter) && (
        <Box
          component="span"
          sx={{
            color: 'text.secondary',
            typography: 'caption',
            lineHeight: 1.1,
            display: isInline ? 'inline' : 'block',
          }}
        >
          {isInline ? ' · ' : ''}
          {formatFigure(runHours, { figures: 7, maxDecimals: 0 })} total
        </Box>
      )}
    </Box>
  );
}
