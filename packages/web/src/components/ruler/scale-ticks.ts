import { DAY_MS, monthName } from '@entretien/core/basics';
import { onMeter, type MeterScale } from '@entretien/core/hours';
import { formatFigure } from '@entretien/core/quantities';
import { niceStep, type RulerMode, type RulerNow, type RulerView } from './ruler-points.js';

export interface Tick {
  /** Hours or days from now. */
  readonly offset: number;
  /** Only the longer ticks have a label. */
  readonly label: string | null;
}

/** Ticks of a ruler: figures of run hours, or dates. */
export function ticksOf(view: RulerView, mode: RulerMode, now: RulerNow, width: number): Tick[] {
  if (mode === 'hours') return hourTicks(view, now.runHours ?? 0, now.meter, width);
  return (view.to - view.from) / width > 0.11
    ? monthTicks(view, now.at, width)
    : dayTicks(view, now.at, width);
}

/** Round figures of the meter that is fitted; what lies before it was has no figure on it. */
function hourTicks(view: RulerView, runHours: number, meter: MeterScale, width: number): Tick[] {
  const shown = onMeter(meter, runHours);
  const step = niceStep(view.to - view.from, width, 64);
  const minor = step / 5;
  const first = Math.ceil((shown + view.from) / minor);
  const ticks: Tick[] = [];
  for (let index = Math.max(0, first); index * minor <= shown + view.to; index++) {
    const isLong = index % 5 === 0;
    const label = isLong ? formatFigure(index * minor, { figures: 6, maxDecimals: 1 }) : null;
    ticks.push({ offset: index * minor - shown, label });
  }
  return ticks;
}

/** Each month named where there is room, else quarters, years or more; ticks at a month's quarters. */
function monthTicks(view: RulerView, now: number, width: number): Tick[] {
  const pxPerMonth = (30 / (view.to - view.from)) * width;
  const every = [1, 3, 12, 24, 60, 120].find((months) => months * pxPerMonth >= 34) ?? 240;
  const start = new Date(now + view.from * DAY_MS);
  const ticks: Tick[] = [];
  for (let count = 0; ; count++) {
    const month = Date.UTC(start.getUTCFullYear(), start.getUTCMonth() + count, 1);
    const offset = (month - now) / DAY_MS;
    if (offset > view.to) return ticks;
    const date = new Date(month);
    const isLong = (date.getUTCFullYear() * 12 + date.getUTCMonth()) % every === 0;
    if (offset >= view.from) ticks.push({ offset, label: isLong ? formatMonth(date) : null });
    if (every !== 1 || pxPerMonth < 60) continue;
    for (const part of [7.6, 15.2, 22.8]) {
      if (offset + part >= view.from && offset + part <= view.to)
        ticks.push({ offset: offset + part, label: null });
    }
  }
}

function formatMonth(date: Date): string {
  return date.getUTCMonth() === 0 ? String(date.getUTCFullYear()) : monthName(date.getUTCMonth());
}

function dayTicks(view: RulerView, now: number, width: number): Tick[] {
  const pxPerDay = width / (view.to - view.from);
  const every = [1, 2, 7, 14].find((days) => days * pxPerDay >= 52) ?? 14;
  const firstDay = Math.ceil((now + view.from * DAY_MS) / DAY_MS);
  const lastDay = Math.floor((now + view.to * DAY_MS) / DAY_MS);
  const ticks: Tick[] = [];
  for (let day = firstDay; day <= lastDay; day++) {
    // Day 4 of the count was a Monday: weeks begin there.
    const isLong = (day - 4) % every === 0;
    if (!isLong && pxPerDay < 5) continue;
    const date = new Date(day * DAY_MS);
    const label = isLong ? `${date.getUTCDate()} ${monthName(date.getUTCMonth())}` : null;
    ticks.push({ offset: (day * DAY_MS - now) / DAY_MS, label });
  }
  return ticks;
}
