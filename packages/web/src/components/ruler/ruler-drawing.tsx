import { FIRST_METER, formatHoursSeen } from '@entretien/core/hours';
import type { ServiceView } from '@entretien/contracts';
import type { TaskState } from '@entretien/core/plan';
import { useId } from 'react';
import { stateColour } from '../DropMark.js';
import { formatDate, describeDue } from '../describe-due.js';
import {
  placeLabels,
  serviceOffset,
  taskBand,
  xOf,
  type Band,
  type Pin,
  type RulerMode,
  type RulerNow,
  type RulerView,
} from './ruler-points.js';
import { ticksOf } from './scale-ticks.js';

export const LEVEL_HEIGHT = 33;

interface PartProps {
  readonly view: RulerView;
  readonly width: number;
  readonly line: number;
}

export function Scale({
  view,
  mode,
  now,
  width,
  line,
}: PartProps & { readonly mode: RulerMode; readonly now: RulerNow }) {
  const nowX = xOf(0, view, width);
  return (
    <g>
      <line x1={0} x2={width} y1={line} y2={line} stroke="var(--mui-palette-slate)" strokeOpacity={0.7} />
      {ticksOf(view, mode, now, width).map(({ offset, label }) => {
        const x = xOf(offset, view, width);
        const hidden = Math.abs(x - nowX) < 42 || x < 16 || x > width - 20;
        return (
          <g key={offset} transform={`translate(${x} ${line})`}>
            <line y2={label === null ? 5 : 10} stroke="var(--mui-palette-slate)" strokeOpacity={0.6} />
            {label !== null && !hidden && (
              <text
                y={24}
                textAnchor="middle"
                fontSize={12}
                fill="var(--mui-palette-text-secondary)"
                style={figures}
              >
                {label}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

const figures = { fontFamily: '"Archivo Variable"', fontStretch: '88%' };

export function NowLine({ now, view, width, line }: PartProps & { readonly now: RulerNow }) {
  const x = xOf(0, view, width);
  if (x < 0 || x > width) return null;
  const label =
    now.runHours === null
      ? 'now'
      : `${formatHoursSeen(now.meter, now.runHours)}${now.isEstimate ? ' est.' : ''}`;
  const half = Math.max(24, label.length * 4 + 10);
  const centre = Math.min(width - half, Math.max(half, x));
  return (
    <g>
      <line
        x1={x}
        x2={x}
        y1={line - 22}
        y2={line + 14}
        stroke="var(--mui-palette-text-primary)"
        strokeWidth={1.6}
      />
      <rect
        x={centre - half}
        y={line + 13}
        width={half * 2}
        height={23}
        rx={11.5}
        fill="var(--mui-palette-text-primary)"
      />
      <text
        x={centre}
        y={line + 29}
        textAnchor="middle"
        fontSize={13.5}
        fontWeight={700}
        fill="var(--mui-palette-background-default)"
        style={figures}
      >
        {label}
      </text>
    </g>
  );
}

interface BandPlace {
  readonly view: RulerView;
  readonly width: number;
  /** The line that the bands lie on, and how thick they are. */
  readonly line: number;
  readonly height: number;
}

interface BandsProps extends BandPlace {
  readonly pins: readonly Pin[];
  readonly mode: RulerMode;
  readonly now: RulerNow;
}

/** Under each pin, how sure its date is. */
export function Bands({ pins, mode, now, ...place }: BandsProps) {
  return pins.map(({ tasks: [first] }) => {
    const band = taskBand(first!, mode, now);
    return band && <BandMark key={first!.code} band={band} state={first!.state} {...place} />;
  });
}

interface BandProps extends BandPlace {
  readonly band: Band;
  readonly state: TaskState;
}

/** How sure a date is: a bar from its early to its late day, fading out where there is no late one. */
function BandMark({ band, state, view, width, line, height }: BandProps) {
  const id = useId();
  const from = Math.max(0, xOf(band.from, view, width));
  const to = band.to === null ? width : Math.min(width, xOf(band.to, view, width));
  if (to <= from) return null;
  const colour = stateColour(state);
  return (
    <g>
      {band.to === null && (
        <linearGradient id={id}>
          <stop offset="0" stopColor={colour} />
          <stop offset="1" stopColor={colour} stopOpacity={0} />
        </linearGradient>
      )}
      <rect
        x={from}
        y={line - height / 2}
        width={to - from}
        height={height}
        rx={height / 2}
        fill={band.to === null ? `url(#${id})` : colour}
        opacity={0.3}
      />
    </g>
  );
}

/** Work that was done, standing on its line. */
export function NotchMark() {
  return <path d="M-5 -10 h10 l-5 9 Z" fill="var(--mui-palette-slate)" opacity={0.6} />;
}

interface NotchesProps extends PartProps {
  /** Where the pins stand: no words are written over them. */
  readonly pinXs: readonly number[];
  readonly services: readonly ServiceView[];
  readonly taskNames: ReadonlyMap<string, string>;
  readonly mode: RulerMode;
  readonly now: RulerNow;
}

/** Past services; each says its work where there is room before the next. */
export function Notches({ services, taskNames, view, mode, now, width, line, pinXs }: NotchesProps) {
  const placed = services
    .flatMap((service) => {
      const offset = serviceOffset(service, mode, now);
      return offset === null || offset < view.from || offset > view.to
        ? []
        : [{ service, x: xOf(offset, view, width) }];
    })
    .sort((a, b) => a.x - b.x);
  const text = placed.map(({ service }) => notchText(service, taskNames));
  const spans = placed.map(({ x }, index) => {
    const half = text[index]!.length * 3.1 + 6;
    return { x, left: x - half, right: x + half, isPressing: false };
  });
  const nowX = xOf(0, view, width);
  const levels = placeLabels(spans, 1);
  return (
    <g>
      {placed.map(({ service, x }, index) => (
        <g key={service.id} transform={`translate(${x} ${line})`}>
          <NotchMark />
          {levels[index] !== null &&
            spans[index]!.left > 0 &&
            !pinXs.some((pin) => pin > spans[index]!.left - 10 && pin < spans[index]!.right + 10) &&
            spans[index]!.right < nowX - 4 && (
              <text y={-16} textAnchor="middle" fontSize={11.5} fill="var(--mui-palette-text-secondary)">
                {text[index]}
              </text>
            )}
        </g>
      ))}
    </g>
  );
}

function notchText(service: ServiceView, taskNames: ReadonlyMap<string, string>): string {
  const [first, ...others] = service.tasks;
  const name = taskNames.get(first!) ?? first!;
  return others.length > 0 ? `${name} +${others.length}` : name;
}

interface LabelsProps {
  readonly pins: readonly Pin[];
  readonly levels: number;
  readonly width: number;
  readonly line: number;
  readonly timeZone: string;
  readonly now: number;
}

/** Names over the pins, levelled so that none covers another; where there is no room the list below says it. */
export function Labels({ pins, levels, width, line, timeZone, now }: LabelsProps) {
  const labels = pins.map(({ x, tasks }) => {
    const [first, ...others] = tasks;
    const name = others.length > 0 ? `${first!.name} +${others.length}` : first!.name;
    const due = describeDue(first!, now, timeZone, FIRST_METER);
    const date = first!.likelyOn === null ? '' : ` · ${formatDate(first!.likelyOn, now, timeZone)}`;
    const under = `${due.short}${date}`;
    const wide = Math.max(name.length * 6.7, under.length * 6) + 10;
    const left = Math.max(0, Math.min(width - wide, x - 7));
    return {
      x,
      left,
      right: left + wide,
      name,
      under,
      state: first!.state,
      isPressing: first!.state !== 'fresh',
    };
  });
  const placed = placeLabels(labels, levels);
  return (
    <g>
      {labels.map(({ x, left, name, under, state }, index) => {
        const level = placed[index];
        if (level === null || level === undefined) return null;
        const base = line - 30 - level * LEVEL_HEIGHT;
        return (
          <g key={`${name} ${x}`}>
            {level > 0 && (
              <line x1={x} x2={x} y1={line - 18} y2={base + 4} stroke="var(--mui-palette-strongRule)" />
            )}
            <text
              x={left}
              y={base - 13}
              fontSize={12.5}
              fontWeight={600}
              fill="var(--mui-palette-text-primary)"
              stroke="var(--mui-palette-background-default)"
              strokeWidth={4}
              paintOrder="stroke"
            >
              {name}
            </text>
            <text
              x={left}
              y={base}
              fontSize={11.5}
              fill={state === 'fresh' ? 'var(--mui-palette-text-secondary)' : stateColour(state)}
              stroke="var(--mui-palette-background-default)"
              strokeWidth={4}
              paintOrder="stroke"
            >
              {under}
            </text>
          </g>
        );
      })}
    </g>
  );
}
