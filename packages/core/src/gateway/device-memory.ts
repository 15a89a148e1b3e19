import { formatInstant, HOUR_MS, type Instant } from '../basics/index.js';
import type { CounterKind } from '../hours/index.js';
import type { DeviceFigures, DeviceQuantityCode, DoubtedFigure } from './register-map.js';

/** What was last put on record by a device. */
export interface RecordedHours {
  readonly hours: number;
  readonly at: Instant;
}

/** What is known of a device from one answer to the next. */
export interface DeviceMemory {
  readonly recorded: Readonly<Partial<Record<CounterKind, RecordedHours>>>;
  /** When something was last refused: it is not tried again at once. */
  readonly refusedAt: Readonly<Partial<Record<CounterKind, Instant>>>;
  readonly measuredAt: Instant | null;
  readonly status: number | null;
  readonly alarm: number | null;
  /** Since when its run hours have stood at a figure while it said that it runs. */
  readonly stillSince: Instant | null;
  readonly lastHours: number | null;
  /** Both counters when they were first told: from there on, hours under load are run hours. */
  readonly begunAt: { readonly total: number; readonly loaded: number } | null;
}

export const NOTHING_ANSWERED: DeviceMemory = {
  recorded: {},
  refusedAt: {},
  measuredAt: null,
  status: null,
  alarm: null,
  stillSince: null,
  lastHours: null,
  begunAt: null,
};

const MINUTE_MS = HOUR_MS / 60;
/** Hours are put on record this often while they move, and at least this often while they stand. */
const [EVERY_MS, AT_LEAST_MS] = [HOUR_MS, 24 * HOUR_MS];
/** At a change of state no more often than this: a device that changes its mind floods nobody. */
const AT_CHANGE_MS = MINUTE_MS;
/** What was refused is tried again after so long. */
const AGAIN_MS = 10 * MINUTE_MS;
const MEASURES_MS = 24 * HOUR_MS;
/** Hours that stand so long while it says that it runs are doubted. */
const FROZEN_MS = 3 * HOUR_MS;
/** A tenth of an hour is what a counter shows. */
const MOVED_H = 0.05;
/** Two counters that are rounded differ by so much. */
const MIXED_H = 1.05;

/** What comes of an answer: what is put on record, and what is doubted. */
export interface DeviceDuties {
  readonly readings: readonly {
    readonly counts: CounterKind;
    readonly what: DeviceQuantityCode;
    readonly hours: number;
  }[];
  /** Temperatures at the outlet and of the room, to be judged; null where none is due. */
  readonly temperatures: { readonly tempC: number; readonly ambientC: number } | null;
  readonly doubts: readonly DoubtedFigure[];
  readonly memory: DeviceMemory;
}

const counters: readonly (readonly [CounterKind, DeviceQuantityCode])[] = [
  ['total', 'hours-total'],
  ['loaded', 'hours-loaded'],
];

/** What an answer of a device asks for: readings once an hour or at a change, a measurement once a day. */
export function dutiesOf(
  memory: DeviceMemory,
  { values, doubts }: DeviceFigures,
  now: Instant,
): DeviceDuties {
  const [total, loaded] = [values['hours-total'], values['hours-loaded']];
  const status = values.status ?? null;
  const alarm = values.alarm ?? null;
  const hasChanged =
    (memory.status !== null && status !== memory.status) || (memory.alarm !== null && alarm !== memory.alarm);
  const found: DoubtedFigure[] = [...doubts];
  const begunAt = begunOf(memory, total, loaded);
  // Only what they have gained is compared: a meter that was replaced begins anew, the other goes on.
  const gained =
    begunAt !== null && total !== undefined && loaded !== undefined
      ? { total: total - begunAt.total, loaded: loaded - begunAt.loaded }
      : null;
  const isMixedUp = gained !== null && gained.loaded > gained.total + MIXED_H;
  if (isMixedUp)
    found.push({
      what: 'hours-loaded',
      code: 'mixed-up',
      sentence: `It has gained ${gained.loaded.toFixed(1)} h under load in ${gained.total.toFixed(1)} run hours: one of the two is not what it is taken for.`,
    });
  const stillSince = stillSinceOf(memory, total, status, now);
  if (stillSince !== null && now - stillSince >= FROZEN_MS)
    found.push({
      what: 'hours-total',
      code: 'stands-still',
      sentence: `It says that it runs, and its hours have stood at ${total} since ${formatInstant(stillSince)}.`,
    });
  const readings = isMixedUp
    ? []
    : counters.flatMap(([counts, what]) => {
        const hours = values[what];
        return hours !== undefined && isDue(memory, counts, hours, hasChanged, now)
          ? [{ counts, what, hours }]
          : [];
      });
  return {
    readings,
    temperatures: temperaturesDue(memory, values, now),
    doubts: found,
    memory: { ...memory, status, alarm, stillSince, begunAt, lastHours: total ?? memory.lastHours },
  };
}

/** A counter that falls begins anew. */
function begunOf(
  { begunAt }: DeviceMemory,
  total: number | undefined,
  loaded: number | undefined,
): DeviceMemory['begunAt'] {
  if (total === undefined || loaded === undefined) return begunAt;
  const isBelow = begunAt !== null && (total < begunAt.total || loaded < begunAt.loaded);
  return begunAt === null || isBelow ? { total, loaded } : begunAt;
}

function stillSinceOf(
  { stillSince, lastHours }: DeviceMemory,
  total: number | undefined,
  status: number | null,
  now: Instant,
): Instant | null {
  const runs = status === 1 || status === 2;
  if (!runs || total === undefined || total !== lastHours) return runs && total !== undefined ? now : null;
  return stillSince ?? now;
}

/** Whether a moment is so short ago. A clock that was put back is no reason to wait. */
const isWithin = (at: Instant, ms: number, now: Instant) => now >= at && now - at < ms;

function isDue(
  { recorded, refusedAt }: DeviceMemory,
  counts: CounterKind,
  hours: number,
  hasChanged: boolean,
  now: Instant,
): boolean {
  const refused = refusedAt[counts];
  if (refused !== undefined && isWithin(refused, AGAIN_MS, now)) return false;
  const last = recorded[counts];
  if (last === undefined) return true;
  const since = now - last.at;
  if (since < 0) return true;
  const hasMoved = Math.abs(hours - last.hours) >= MOVED_H;
  if (hasMoved && since >= EVERY_MS) return true;
  return (hasMoved && hasChanged && since >= AT_CHANGE_MS) || since >= AT_LEAST_MS;
}

/** Under load, once a day. */
function temperaturesDue(
  { measuredAt }: DeviceMemory,
  values: DeviceFigures['values'],
  now: Instant,
): DeviceDuties['temperatures'] {
  const [tempC, ambientC] = [values['outlet-c'], values['ambient-c']];
  if (values.status !== 2 || tempC === undefined || ambientC === undefined) return null;
  if (measuredAt !== null && isWithin(measuredAt, MEASURES_MS, now)) return null;
  return { tempC, ambientC };
}

/** The same after something was put on record, or refused. */
export function afterRecording(
  memory: DeviceMemory,
  counts: CounterKind,
  hours: number,
  outcome: { readonly at: Instant; readonly isRefused: boolean },
): DeviceMemory {
  return outcome.isRefused
    ? { ...memory, refusedAt: { ...memory.refusedAt, [counts]: outcome.at } }
    : { ...memory, recorded: { ...memory.recorded, [counts]: { hours, at: outcome.at } } };
}
