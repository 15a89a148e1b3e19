import { xOf, type RulerMode, type RulerNow, type RulerView } from './ruler-points.js';
import { ticksOf } from './scale-ticks.js';

interface SmallScaleProps {
  readonly view: RulerView;
  readonly mode: RulerMode;
  readonly now: RulerNow;
  readonly width: number;
  /** Where the scale lies, and how far the now-line reaches above it, px. */
  readonly line: number;
  readonly above: number;
}

/** The scale of a small ruler in a dialog or an editor, with its now-line. */
export function SmallScale({ view, mode, now, width, line, above }: SmallScaleProps) {
  const nowX = xOf(0, view, width);
  return (
    <g fontSize={11.5} textAnchor="middle">
      <line x1={0} x2={width} y1={line} y2={line} stroke="var(--mui-palette-strongRule)" />
      {ticksOf(view, mode, now, width).map(({ offset, label }) => {
        const x = xOf(offset, view, width);
        const isFree = x > 18 && x < width - 18 && Math.abs(x - nowX) > 32;
        return (
          <g key={offset} transform={`translate(${x} ${line})`}>
            <line y2={label === null ? 4 : 8} stroke="var(--mui-palette-strongRule)" />
            {label !== null && isFree && (
              <text y={21} fill="var(--mui-palette-text-secondary)">
                {label}
              </text>
            )}
          </g>
        );
      })}
      <path
        d={`M${nowX} ${line - above} V${line + 8}`}
        stroke="var(--mui-palette-text-primary)"
        strokeWidth={1.6}
      />
      <text
        x={Math.min(Math.max(nowX, 14), width - 14)}
        y={line + 21}
        fontWeight={700}
        fill="var(--mui-palette-text-primary)"
      >
        now
      </text>
    </g>
  );
}
