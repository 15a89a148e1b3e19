import type { FleetCompressorView, ServiceView, StandingView, TaskStandingView } from '@entretien/contracts';
import { DAY_MS, HOUR_MS } from '@entretien/core/basics';
import type { MeterScale } from '@entretien/core/hours';
import { isEstimate } from '@entretien/core/plan';

export type RulerMode = 'hours' | 'days';

/** The moment a ruler is drawn for: where its now-line stands. */
export interface RulerNow {
  readonly at: number;
  readonly runHours: number | null;
  readonly hoursPerDay: number | null;
  readonly meter: MeterScale;
  /** Whether the run hours are an estimate, and to be shown as one. */
  readonly isEstimate?: boolean;
}

export function rulerNow(
  standing: Pick<StandingView, 'at' | 'runHours' | 'hoursPerDay' | 'runHoursBasis' | 'meter'>,
): RulerNow {
  const { at, runHours, hoursPerDay, runHoursBasis, meter } = standing;
  return { at: Date.parse(at), runHours, hoursPerDay, meter, isEstimate: isEstimate(runHoursBasis) };
}

type DueTask = Pick<TaskStandingView, 'ruledBy' | 'remainingHours' | 'likelyOn'>;

/**
 * How far from now a task falls due, in hours of running or in days; negative when past.
 *
 * @returns null where it cannot be said: nothing is known, or a machine that stands still has no hours to
 * count to a date with.
 */
export function taskOffset(task: DueTask, mode: RulerMode, now: RulerNow): number | null {
  if (mode === 'days') return daysUntil(task, now);
  if (task.ruledBy === 'hours') return task.remainingHours;
  const days = daysUntil(task, now);
  return days === null || !now.hoursPerDay ? null : days * now.hoursPerDay;
}

function daysUntil({ likelyOn, ruledBy, remainingHours }: DueTask, now: RulerNow): number | null {
  if (likelyOn === null) return null;
  // Hours still to run give a finer place within the day than its date does.
  if (ruledBy === 'hours' && remainingHours !== null && remainingHours > 0 && now.hoursPerDay) {
    return remainingHours / now.hoursPerDay;
  }
  return (Date.parse(`${likelyOn}T00:00:00Z`) + 12 * HOUR_MS - now.at) / DAY_MS;
}

/** From the early day to the late one, in days from now; open at its end when there is no late day. */
export interface Band {
  readonly from: number;
  readonly to: number | null;
}

/** A spread of less than this is the width of a line. */
const LEAST_BAND_DAYS = 1.5;

/**
 * How sure the date of a task is. Only on a ruler of days: in hours the point itself is exact.
 *
 * @returns null where the date is sure, past, or not known
 */
export function taskBand(
  { earlyOn, likelyOn, lateOn }: Pick<TaskStandingView, 'earlyOn' | 'likelyOn' | 'lateOn'>,
  mode: RulerMode,
  now: RulerNow,
): Band | null {
  if (mode !== 'days' || earlyOn === null || likelyOn === null) return null;
  const offset = (day: string) => (Date.parse(`${day}T00:00:00Z`) + 12 * HOUR_MS - now.at) / DAY_MS;
  const to = lateOn === null ? null : offset(lateOn);
  if (to !== null && (to <= 0 || to - offset(earlyOn) < LEAST_BAND_DAYS)) return null;
  return { from: offset(earlyOn), to };
}

type DoneService = FleetCompressorView['recentServices'][number] | Pick<ServiceView, 'doneAt' | 'runHours'>;

/** How far back a service lies, in hours of running or in days. */
export function serviceOffset(service: DoneService, mode: RulerMode, now: RulerNow): number | null {
  if (mode === 'days') return (Date.parse(service.doneAt) - now.at) / DAY_MS;
  if (service.runHours === null || now.runHours === null) return null;
  return service.runHours - now.runHours;
}

/** The part of the scale that is in view, in hours or days from now. */
export interface RulerView {
  readonly from: number;
  readonly to: number;
}

/** Where an offset lies in a view of so many pixels. */
export function xOf(offset: number, view: RulerView, width: number): number {
  return ((offset - view.from) / (view.to - view.from)) * width;
}

export interface Pin<Task = TaskStandingView> {
  readonly x: number;
  /** The most pressing first. */
  readonly tasks: readonly Task[];
}

/** Pins nearer than `gap` pixels become one, standing where the most pressing of them stands. */
export function clusterPins<Task>(
  placed: readonly { readonly x: number; readonly task: Task; readonly urgency: number }[],
  gap: number,
): Pin<Task>[] {
  const byPlace = [...placed].sort((a, b) => a.x - b.x);
  const clusters: (typeof byPlace)[] = [];
  for (const pin of byPlace) {
    const last = clusters.at(-1);
    if (last && pin.x - last[0]!.x < gap) last.push(pin);
    else clusters.push([pin]);
  }
  return clusters.map((cluster) => {
    const byUrgency = [...cluster].sort((a, b) => a.urgency - b.urgency);
    return { x: byUrgency[0]!.x, tasks: byUrgency.map(({ task }) => task) };
  });
}

/** A label over a pin at `x`, between two edges; a line leads from the pin up to it. */
export interface LabelSpan {
  readonly x: number;
  readonly left: number;
  readonly right: number;
  /** Not to be left out for the sake of those that do not press. */
  readonly isPressing: boolean;
}

/**
 * Levels for labels over their pins, so that no label covers another and no lead line runs through one.
 *
 * @returns a level for each, 0 next to the ruler; null where there is room on none
 */
export function placeLabels(labels: readonly LabelSpan[], levels: number): (number | null)[] {
  // From the right: what stands further left then goes higher, and the lead lines make a staircase.
  const fromRight = labels.map((_, index) => index).sort((a, b) => labels[b]!.x - labels[a]!.x);
  const staircase = placeInOrder(labels, levels, fromRight);
  const losesPressing = staircase.some((level, index) => level === null && labels[index]!.isPressing);
  if (!losesPressing) return staircase;
  const pressingFirst = [...fromRight].sort(
    (a, b) => Number(labels[b]!.isPressing) - Number(labels[a]!.isPressing),
  );
  return placeInOrder(labels, levels, pressingFirst);
}

function placeInOrder(
  labels: readonly LabelSpan[],
  levels: number,
  order: readonly number[],
): (number | null)[] {
  const placed = new Array<number | null>(labels.length).fill(null);
  for (const index of order) {
    const isFree = (level: number) =>
      labels.every((other, at) => {
        const taken = placed[at];
        return taken === null || taken === undefined || !disturbs(labels[index]!, level, other, taken);
      });
    placed[index] = Array.from({ length: levels }, (_, level) => level).find(isFree) ?? null;
  }
  return placed;
}

function disturbs(a: LabelSpan, levelOfA: number, b: LabelSpan, levelOfB: number): boolean {
  if (levelOfA === levelOfB) return a.left < b.right && b.left < a.right;
  // The line of the higher one passes the level of the lower.
  const [higher, lower] = levelOfA > levelOfB ? [a, b] : [b, a];
  return higher.x > lower.left - 3 && higher.x < lower.right;
}

/** A step of 1, 2 or 5 tens, hundreds … so that labels stand at least `leastPx` apart. */
export function niceStep(span: number, width: number, leastPx: number): number {
  const raw = (span / width) * leastPx;
  const ten = 10 ** Math.floor(Math.log10(raw));
  return [1, 2, 5, 10].map((factor) => factor * ten).find((step) => step >= raw)!;
}
