import { Box } from '@mui/material';
import { figureFont } from '../theme/theme.js';

/** A needle goes from lower left to lower right over so many degrees. */
const [FROM_DEG, SWEEP_DEG] = [-130, 260];
const MARKS = 10;

function place(share: number, radius: number): readonly [number, number] {
  const angle = ((FROM_DEG + SWEEP_DEG * share) * Math.PI) / 180;
  return [50 + radius * Math.sin(angle), 50 - radius * Math.cos(angle)];
}

interface DialGaugeProps {
  /** Share of full scale; a little beyond either end shows as such. */
  readonly share: number;
  readonly figure: string;
  /** What stands at the end of its scale. */
  readonly fullScale: string;
  readonly name: string;
}

/** A pressure gauge as it hangs on the machine: what it shows, which need not be what is behind it. */
export function DialGauge({ share, figure, fullScale, name }: DialGaugeProps) {
  const held = Math.min(1.04, Math.max(-0.03, share));
  const [x, y] = place(held, 33);
  const [tailX, tailY] = place(held, -9);
  return (
    <Box role="img" aria-label={`${name}: ${figure}`} sx={{ textAlign: 'center' }}>
      <Box
        component="svg"
        viewBox="0 0 100 86"
        sx={{ width: '100%', maxWidth: 128, display: 'block', mx: 'auto' }}
      >
        <path
          d={`M ${place(0, 42).join(' ')} A 42 42 0 1 1 ${place(1, 42).join(' ')}`}
          fill="none"
          stroke="var(--mui-palette-strongRule)"
          strokeWidth={1.5}
        />
        {Array.from({ length: MARKS + 1 }, (_, index) => {
          const [x1, y1] = place(index / MARKS, 42);
          const [x2, y2] = place(index / MARKS, index % 5 === 0 ? 34 : 38);
          return (
            <line
              key={index}
              x1={x1}
              y1={y1}
              x2={x2}
              y2={y2}
              stroke="var(--mui-palette-text-secondary)"
              strokeWidth={1.5}
            />
          );
        })}
        <line
          x1={tailX}
          y1={tailY}
          x2={x}
          y2={y}
          stroke="var(--mui-palette-text-primary)"
          strokeWidth={3}
          strokeLinecap="round"
        />
        <text x={13} y={84} fontSize={9} textAnchor="middle" fill="var(--mui-palette-text-secondary)">
          0
        </text>
        <text x={87} y={84} fontSize={9} textAnchor="middle" fill="var(--mui-palette-text-secondary)">
          {fullScale}
        </text>
        <circle cx={50} cy={50} r={4} fill="var(--mui-palette-text-primary)" />
      </Box>
      <Box component="span" aria-hidden sx={{ ...figureFont, fontSize: '1.15rem', fontWeight: 650 }}>
        {figure}
      </Box>
    </Box>
  );
}
