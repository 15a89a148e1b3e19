import type { MeterView, SiteMetersView } from '@entretien/contracts';
import { DAY_MS, HOUR_MS, type Problem } from '@entretien/core/basics';
import {
  readingMarks,
  readingProblem,
  type HourLog,
  type HourReading,
  type MeterChange,
  type ReadingMark,
} from '@entretien/core/hours';
import { formatFigure } from '@entretien/core/quantities';
import { describeMark } from '../describe-mark.js';
import { typedReading } from './hour-log.js';
import { byAge, type OutboxItem } from '../../data/outbox/outbox-item.js';

/** A walk goes on this long: what was read within it is done. */
const WALK_MS = 10 * HOUR_MS;

/** A figure on record or on its way there, with the id that a correction must name. */
export interface WalkReading extends HourReading {
  readonly id: string | null;
}

/** What is known of a meter on this device: what the server said, and what has not reached it yet. */
export function meterLog(meter: MeterView, queued: readonly OutboxItem[], now: number): HourLog {
  const mine = queued.filter(
    ({ compressorId, problem }) => compressorId === meter.compressorId && problem === null,
  );
  const corrected = new Set(mine.map(({ body }) => body['corrects']));
  return {
    readings: [
      ...meter.readings.map((reading) => ({
        ...reading,
        takenAt: Date.parse(reading.takenAt),
        recordedAt: Date.parse(reading.recordedAt),
      })),
      ...queuedReadings(mine, now).filter(({ id }) => !corrected.has(id)),
    ],
    meterChanges: [
      ...meter.meterChanges.map((change) => ({
        ...change,
        changedAt: Date.parse(change.changedAt),
        recordedAt: now,
      })),
      ...mine.filter(({ kind }) => kind === 'meter-change').map(({ body }) => queuedChange(body, now)),
    ],
  };
}

function queuedReadings(items: readonly OutboxItem[], now: number): WalkReading[] {
  return [...items]
    .filter(({ kind }) => kind === 'reading')
    .sort(byAge)
    .map(({ id, body }) => ({
      id,
      takenAt: Date.parse(body['takenAt'] as string),
      hours: body['hours'] as number,
      counts: 'total',
      source: 'typed',
      recordedAt: now,
    }));
}

function queuedChange(body: OutboxItem['body'], now: number): MeterChange {
  return {
    changedAt: Date.parse(body['changedAt'] as string),
    oldFinalHours: body['oldFinalHours'] as number,
    newStartHours: body['newStartHours'] as number,
    reason: body['reason'] as MeterChange['reason'],
    recordedAt: now,
  };
}

/** The latest figure of the total counter. */
export function lastReading(log: HourLog): HourReading | undefined {
  return log.readings
    .filter(({ counts }) => counts === 'total')
    .reduce<HourReading | undefined>(
      (last, one) => (!last || one.takenAt >= last.takenAt ? one : last),
      undefined,
    );
}

/** Whether a meter has been read on this walk. */
export function isRead(last: HourReading | undefined, now: number): boolean {
  return last !== undefined && now - last.takenAt < WALK_MS;
}

/** What is to be said of a figure while it is typed. */
export interface TypedVerdict {
  readonly problem: Problem | null;
  readonly marks: readonly ReadingMark[];
  /** Hours since the last reading, and what that is a day; null where there is nothing to compare with. */
  readonly gained: number | null;
  readonly perDay: number | null;
}

export function judgeTyped(log: HourLog, hours: number, at: number, timeZone: string): TypedVerdict {
  const reading = typedReading(hours, at, at);
  const problem = readingProblem(log, reading, { now: at, timeZone });
  const last = lastReading(log);
  const days = last ? (at - last.takenAt) / DAY_MS : 0;
  const isComparable = problem === null && last !== undefined && days > 0.25 && hours >= last.hours;
  return {
    problem,
    marks: problem === null ? readingMarks(log, reading) : [],
    gained: isComparable ? hours - last.hours : null,
    perDay: isComparable ? (hours - last.hours) / days : null,
  };
}

/** The figure that a meter should show by now, going on from the server's answer at the present rate. */
export function expectedNow(
  { expected, hoursPerDay }: MeterView,
  answeredAt: number,
  now: number,
): NonNullable<MeterView['expected']> | null {
  if (!expected) return null;
  const since = ((hoursPerDay ?? 0) * Math.max(0, now - answeredAt)) / DAY_MS;
  return {
    low: Math.max(0, expected.low + since),
    likely: Math.max(0, expected.likely + since),
    high: Math.max(0, expected.high + since),
  };
}

/** What is odd about a figure, so that it is looked at again: a long gap says nothing of it. */
export function oddMarks(verdict: TypedVerdict | null): readonly ReadingMark[] {
  return verdict?.marks.filter((mark) => mark !== 'long-gap') ?? [];
}

/** Under the field: what is expected, or what the figure says of the machine's use. */
export function typedHint(
  meter: MeterView,
  site: SiteMetersView,
  verdict: TypedVerdict | null,
  now: number,
): string {
  const odd = oddMarks(verdict);
  const format = (hours: number, maxDecimals = 0) => formatFigure(hours, { figures: 6, maxDecimals });
  if (verdict?.perDay !== null && verdict?.perDay !== undefined && verdict.gained !== null) {
    const gain = `+${format(verdict.gained, 1)} h, ${format(verdict.perDay, 1)} h a day`;
    return odd.length > 0 ? `${odd.map(describeMark).join(', ')}: ${gain}.` : `${gain}.`;
  }
  const expected = expectedNow(meter, Date.parse(site.at), now);
  if (!expected) return 'Type the figure as it stands there.';
  const [low, high] = [format(expected.low), format(expected.high)];
  return low === high
    ? `About ${format(expected.likely)} h is expected.`
    : `${low} to ${high} h is expected.`;
}
