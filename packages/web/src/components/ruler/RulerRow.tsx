import { FIRST_METER } from '@entretien/core/hours';
import type { FleetCompressorView } from '@entretien/contracts';
import { memo } from 'react';
import { Drop } from '../DropMark.js';
import {
  clusterPins,
  rulerNow,
  serviceOffset,
  taskOffset,
  xOf,
  type RulerMode,
  type RulerView,
} from './ruler-points.js';
import { Bands } from './ruler-drawing.js';
import { ticksOf } from './scale-ticks.js';

/** The part of the scale that stacked rulers show: all on one, so that machines can be compared. */
export const stackedView: Record<RulerMode, RulerView> = {
  days: { from: -61, to: 122 },
  hours: { from: -400, to: 800 },
};

const HEIGHT = 36;
const LINE = 21;

interface RulerRowProps {
  readonly unit: FleetCompressorView;
  readonly mode: RulerMode;
  readonly width: number;
  /** Whether it draws its own now-line, not standing in a stack that has one through all. */
  readonly ownNow?: boolean;
}

/** One machine's ruler in a list: past services as notches, coming work as drops. */
export const RulerRow = memo(function RulerRow({ unit, mode, width, ownNow = false }: RulerRowProps) {
  if (width === 0) return <svg height={HEIGHT} />;
  const view = stackedView[mode];
  const now = rulerNow(unit);
  const pins = clusterPins(
    unit.tasks.flatMap((task, urgency) => {
      const offset = taskOffset(task, mode, now);
      return offset === null || offset > view.to
        ? []
        : [{ x: inside(xOf(offset, view, width), width), task, urgency }];
    }),
    20,
  );
  const notches = unit.recentServices.flatMap((service) => {
    const offset = serviceOffset(service, mode, now);
    return offset === null || offset < view.from ? [] : [xOf(offset, view, width)];
  });
  return (
    <svg width={width} height={HEIGHT} aria-hidden style={{ display: 'block', overflow: 'visible' }}>
      <line x1={0} x2={width} y1={LINE} y2={LINE} stroke="var(--mui-palette-strongRule)" />
      {ticksOf(view, mode, now, width).map(({ offset, label }) => (
        <line
          key={offset}
          x1={xOf(offset, view, width)}
          x2={xOf(offset, view, width)}
          y1={LINE}
          y2={LINE + (label === null ? 3 : 6)}
          stroke="var(--mui-palette-strongRule)"
        />
      ))}
      {ownNow && (
        <line
          x1={xOf(0, view, width)}
          x2={xOf(0, view, width)}
          y2={HEIGHT}
          stroke="var(--mui-palette-text-primary)"
          strokeWidth={1.6}
        />
      )}
      {notches.map((x, index) => (
        <path
          key={index}
          d={`M${x - 4} ${LINE - 8} h8 l-4 7 Z`}
          fill="var(--mui-palette-slate)"
          opacity={0.55}
        />
      ))}
      {unit.counts.unknown > 0 && pins.length === 0 && (
        <g transform={`translate(${xOf(0, view, width)} ${LINE - 1})`}>
          <Drop state="unknown" used={null} />
        </g>
      )}
      <Bands pins={pins} mode={mode} now={now} view={view} width={width} line={LINE} height={6} />
      {pins.map(({ x, tasks }) => (
        <g key={tasks[0]!.code} transform={`translate(${x} ${LINE - 1})`}>
          <Drop state={tasks[0]!.state} used={tasks[0]!.usedFraction} />
          {tasks.length > 1 && (
            <text
              x={7}
              y={-5}
              fontSize={10.5}
              fontWeight={650}
              fill="var(--mui-palette-text-primary)"
              style={{ fontFamily: '"Archivo Variable"' }}
            >
              {tasks.length}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
});

/** What lies further back than the scale goes stands at its edge. */
function inside(x: number, width: number): number {
  return Math.min(width - 8, Math.max(8, x));
}

/** The scale over a stack of rulers: months, or hours from now. */
export function RulerScale({
  mode,
  width,
  now,
}: {
  readonly mode: RulerMode;
  readonly width: number;
  readonly now: number;
}) {
  const view = stackedView[mode];
  const scaleNow = { at: now, runHours: null, hoursPerDay: null, meter: FIRST_METER };
  const ticks =
    mode === 'days'
      ? ticksOf(view, 'days', scaleNow, width)
      : [-400, -200, 200, 400, 600].map((offset) => ({
          offset,
          label: `${offset > 0 ? '+' : '−'}${Math.abs(offset)} h`,
        }));
  const labelled = ticks.filter(({ offset, label }) => {
    const fromNow = Math.abs(xOf(offset, view, width) - xOf(0, view, width));
    return (
      label !== null && fromNow > 36 && xOf(offset, view, width) < width - 24 && xOf(offset, view, width) > 14
    );
  });
  return (
    <svg width={width} height={20} aria-hidden style={{ display: 'block', overflow: 'visible' }}>
      {labelled.map(({ offset, label }) => (
        <text
          key={offset}
          x={xOf(offset, view, width)}
          y={14}
          textAnchor="middle"
          fontSize={12}
          fill="var(--mui-palette-text-secondary)"
        >
          {label}
        </text>
      ))}
    </svg>
  );
}
