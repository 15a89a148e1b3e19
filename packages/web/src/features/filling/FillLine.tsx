import { Box } from '@mui/material';
import { formatMoment } from '@entretien/core/basics';
import { useFormatQuantity } from '../../components/use-format-quantity.js';

interface FillLineProps {
  readonly startedAt: number;
  readonly now: number;
  readonly minutes: number;
  readonly fromBar: number;
  readonly toBar: number;
  readonly timeZone: string;
}

const [WIDE, HIGH, LEFT, RIGHT, TOP, BOTTOM] = [360, 132, 4, 70, 22, 104];

/** The way of the needle as the set should drive it: where it is now, where it stops. */
export function FillLine({ startedAt, now, minutes, fromBar, toBar, timeZone }: FillLineProps) {
  const format = useFormatQuantity();
  const passed = Math.min(1.15, (now - startedAt) / 60_000 / minutes);
  const x = (share: number) => LEFT + (WIDE - LEFT - RIGHT) * share;
  const y = (share: number) => BOTTOM - (BOTTOM - TOP) * share;
  const isLate = passed >= 1;
  const present = fromBar + (toBar - fromBar) * Math.min(1, passed);
  const clock = (at: number) => formatMoment(at, timeZone).slice(-5);
  const label = `From ${format(fromBar, 'pressure')} to ${format(toBar, 'pressure')}, about ${format(Math.round(present), 'pressure')} now`;
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      role="img"
      aria-label={label}
      sx={{
        width: '100%',
        maxWidth: 520,
        display: 'block',
        fontSize: 13,
        '& text': { fill: 'var(--mui-palette-text-secondary)' },
      }}
    >
      <line x1={LEFT} x2={WIDE - 4} y1={BOTTOM + 6} y2={BOTTOM + 6} stroke="var(--mui-palette-strongRule)" />
      <line
        x1={LEFT}
        x2={WIDE - 4}
        y1={y(1)}
        y2={y(1)}
        stroke="var(--mui-palette-oxide)"
        strokeDasharray="5 4"
      />
      <text
        x={WIDE - 4}
        y={y(1) - 6}
        textAnchor="end"
        style={{ fill: 'var(--mui-palette-oxide)', fontWeight: 700 }}
      >
        stop at {format(toBar, 'pressure')}
      </text>
      <line
        x1={x(Math.min(1, passed))}
        x2={x(1)}
        y1={y(Math.min(1, passed))}
        y2={y(1)}
        stroke="var(--mui-palette-primary-main)"
        strokeWidth={2.5}
        strokeDasharray="4 5"
      />
      <line
        x1={x(0)}
        x2={x(Math.min(1, passed))}
        y1={y(0)}
        y2={y(Math.min(1, passed))}
        stroke="var(--mui-palette-primary-main)"
        strokeWidth={4}
        strokeLinecap="round"
      />
      <circle
        cx={x(Math.min(1, passed))}
        cy={y(Math.min(1, passed))}
        r={6}
        fill="var(--mui-palette-primary-main)"
      />
      <text x={LEFT} y={y(0) - 10}>
        {format(fromBar, 'pressure')}
      </text>
      <text x={LEFT} y={HIGH - 8}>
        {clock(startedAt)}
      </text>
      <text x={x(1)} y={HIGH - 8} textAnchor="middle">
        {clock(startedAt + minutes * 60_000)}
      </text>
      {isLate && (
        <text x={x(1) + 8} y={y(0.45)} style={{ fill: 'var(--mui-palette-brass)', fontWeight: 700 }}>
          longer
        </text>
      )}
    </Box>
  );
}
