import { Box } from '@mui/material';
import { formatFigure, fromStored, toStored, unitsOf, type QuantityKind } from '@entretien/core/quantities';

const WIDTH = 640;
const EDGE = 24;
const LINE = 46;

interface ScalesProps {
  readonly kind: QuantityKind;
  /** In the stored unit. */
  readonly value: number;
  /** Label of the unit that was typed. */
  readonly typed: string;
}

/** Two units on one rule, and where the figure lies on both. */
export function TwoScales({ kind, value, typed }: ScalesProps) {
  const above = unitsOf(kind).find(({ label }) => label === typed) ?? unitsOf(kind)[0];
  const below = unitsOf(kind).find(({ label }) => label !== typed);
  if (!below) return null;
  const [from, to] = span(fromStored(value, kind, above));
  const [low, high] = [toStored(from, kind, above), toStored(to, kind, above)];
  const place = (stored: number) => EDGE + ((stored - low) / (high - low)) * (WIDTH - 2 * EDGE);
  const ticksOf = (unit: typeof above) =>
    niceTicks(fromStored(low, kind, unit), fromStored(high, kind, unit)).map((figure) => ({
      figure,
      x: place(toStored(figure, kind, unit)),
    }));
  const given = (unit: typeof above) =>
    `${formatFigure(fromStored(value, kind, unit), { figures: 4 })} ${unit.label}`;
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} 92`}
      role="img"
      aria-label={`${given(above)} and ${given(below)} on one rule`}
      sx={{
        width: '100%',
        maxWidth: 760,
        display: 'block',
        mt: 2.5,
        fontFamily: '"Archivo Variable", sans-serif',
      }}
    >
      <g fill="var(--mui-palette-text-secondary)" fontSize={12} textAnchor="middle">
        <path
          d={`M${EDGE} ${LINE} H${WIDTH - EDGE}`}
          stroke="var(--mui-palette-strongRule)"
          strokeWidth={1.5}
        />
        {ticksOf(above).map(({ figure, x }) => (
          <g key={figure}>
            <path d={`M${x} ${LINE} v-9`} stroke="var(--mui-palette-text-secondary)" />
            <text x={x} y={LINE - 15}>
              {formatFigure(figure, { figures: 4, maxDecimals: 3 })}
            </text>
          </g>
        ))}
        {ticksOf(below).map(({ figure, x }) => (
          <g key={figure}>
            <path d={`M${x} ${LINE} v9`} stroke="var(--mui-palette-text-secondary)" />
            <text x={x} y={LINE + 24}>
              {formatFigure(figure, { figures: 4, maxDecimals: 3 })}
            </text>
          </g>
        ))}
        <text x={WIDTH - 2} y={12} textAnchor="end" fontWeight={650}>
          {above.label}
        </text>
        <text x={WIDTH - 2} y={88} textAnchor="end" fontWeight={650}>
          {below.label}
        </text>
      </g>
      <path
        d={`M${place(value)} ${LINE - 11} V${LINE + 11}`}
        stroke="var(--mui-palette-primary-main)"
        strokeWidth={5}
        strokeLinecap="round"
      />
    </Box>
  );
}

/** From nothing to half as much again; about a figure of nothing, one to each side. */
function span(figure: number): [number, number] {
  if (figure === 0) return [-1, 1];
  return figure > 0 ? [0, figure * 1.5] : [figure * 1.5, 0];
}

const MOST_TICKS = 7;

function niceTicks(from: number, to: number): number[] {
  const rough = (to - from) / MOST_TICKS;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((one) => one * power).find((one) => one >= rough)!;
  const first = Math.ceil(from / step - 1e-9);
  const last = Math.floor(to / step + 1e-9);
  return Array.from({ length: last - first + 1 }, (_, index) => (first + index) * step);
}
