import { DAY_MS } from '../basics/index.js';
import { clockHours, type HourClock } from './clock.js';
import type { CompressorHistory } from './history.js';
import type { ServiceTask, SeverityKind, SeverityOverrides, SeverityRule, Trigger } from './service-plan.js';
import { scaled } from './triggers/index.js';

/** How hard a machine has it, as far as is known. */
export interface Severities {
  readonly isDusty: boolean;
  readonly isDamp: boolean;
  /** Temperature of discharge as measured lately, °C; null when it was not. */
  readonly dischargeC: number | null;
  /** Temperature that the oil's life is rated at, °C. */
  readonly ratedC: number;
  /** Hours that it runs in a week; null when that is not known. */
  readonly hoursPerWeek: number | null;
}

/** A factor on the intervals of one task, with its reason. */
export interface AppliedFactor {
  readonly kind: SeverityKind;
  readonly times: number;
  readonly on: 'all' | 'hours' | 'calendar';
  readonly because: string;
  /** What the rule itself would say, where somebody decided otherwise. */
  readonly insteadOf: number | null;
}

/** Oil is rated at this temperature of discharge where its plate says nothing (common practice). */
export const USUAL_RATED_C = 90;
/** Oil's life halves for every so many degrees above (Arrhenius rule of thumb). */
const HALVES_EVERY_K = 10;
/** A machine that runs less than this in a week is used lightly (common practice). */
export const LIGHT_USE_HOURS_PER_WEEK = 4;
/** The temperature lately: the middle of so many measurements. */
const LATEST_TEMPERATURES = 5;
const YEAR_DAYS = 365;
const LEAST_DAYS_OF_USE = 30;

/** What is known of a machine that bears on its intervals. */
export function severitiesOf(history: CompressorHistory, clock: HourClock): Severities {
  const { place = {} } = history;
  return {
    isDusty: place.dust === 'dusty',
    isDamp: place.humidity === 'damp',
    dischargeC: dischargeLately(history),
    ratedC: place.oilRatedTempC ?? USUAL_RATED_C,
    hoursPerWeek: useOfLastYear(clock) ?? history.declaredHoursPerWeek ?? null,
  };
}

function dischargeLately({ measurements = [] }: CompressorHistory): number | null {
  const measured = measurements.filter(({ tempC }) => tempC !== undefined && tempC !== null);
  if (measured.length === 0) return null;
  const latest = [...measured].sort((a, b) => b.takenAt - a.takenAt).slice(0, LATEST_TEMPERATURES);
  const temperatures = latest.map(({ tempC }) => tempC!).sort((a, b) => a - b);
  const middle = temperatures.length >> 1;
  return temperatures.length % 2 === 1
    ? temperatures[middle]!
    : (temperatures[middle - 1]! + temperatures[middle]!) / 2;
}

/** Hours a week over the year before the last reading: by what was read, so that time alone does not move it. */
function useOfLastYear(clock: HourClock): number | null {
  const { at, hours } = clock.runHours;
  const last = at.at(-1);
  if (clock.grounds !== 'readings' || last === undefined) return null;
  const from = Math.max(at[0]!, last - YEAR_DAYS * DAY_MS);
  const days = (last - from) / DAY_MS;
  if (days < LEAST_DAYS_OF_USE) return null;
  return ((hours.at(-1)! - (clockHours(clock, from)?.hours ?? hours[0]!)) / days) * 7;
}

/** Share of its life that oil keeps at a temperature of discharge: halved for every 10 °C above its rating. */
export function oilLifeShare(dischargeC: number, ratedC: number): number {
  return dischargeC <= ratedC ? 1 : 2 ** (-(dischargeC - ratedC) / HALVES_EVERY_K);
}

/** The factors that bear on a task now, those decided otherwise among them. */
export function factorsOf(
  task: ServiceTask,
  severities: Severities,
  overrides: SeverityOverrides | undefined,
): readonly AppliedFactor[] {
  if (task.severity === undefined) return [];
  const own = overrides?.[task.code] ?? {};
  return task.severity.flatMap((rule): AppliedFactor[] => {
    const found = factorOf(rule, severities);
    const decided = own[rule.kind];
    const on = rule.on ?? 'all';
    if (decided) {
      const { times, reason } = decided;
      return [{ kind: rule.kind, times, on, because: reason, insteadOf: found?.times ?? 1 }];
    }
    return found ? [{ kind: rule.kind, on, insteadOf: null, ...found }] : [];
  });
}

function factorOf(
  { kind, times = 1, because }: SeverityRule,
  { isDusty, isDamp, dischargeC, ratedC, hoursPerWeek }: Severities,
): { readonly times: number; readonly because: string } | null {
  switch (kind) {
    case 'dust':
      return isDusty ? { times, because } : null;
    case 'damp':
      return isDamp ? { times, because } : null;
    case 'heat': {
      if (dischargeC === null || dischargeC <= ratedC) return null;
      const text = `Discharge at ${Math.round(dischargeC)} °C, the oil rated at ${Math.round(ratedC)} °C. ${because}`;
      return { times: oilLifeShare(dischargeC, ratedC), because: text };
    }
    case 'light-use': {
      // Short runs in damp air are what makes oil milky: there the months stay as they are.
      const isLight = hoursPerWeek !== null && hoursPerWeek < LIGHT_USE_HOURS_PER_WEEK;
      return isLight && !isDamp ? { times, because } : null;
    }
  }
}

const settled = new WeakMap<ServiceTask, Map<string, readonly Trigger[]>>();

/** The triggers of a task with its factors counted in; the same objects for the same factors. */
export function scaledTriggers(task: ServiceTask, factors: readonly AppliedFactor[]): readonly Trigger[] {
  if (factors.length === 0) return task.triggers;
  const key = factors.map(({ times, on }) => `${on}${times}`).join();
  let known = settled.get(task);
  if (!known) settled.set(task, (known = new Map()));
  let triggers = known.get(key);
  if (!triggers) {
    const share = (axis: 'hours' | 'calendar') =>
      factors.reduce(
        (product, { on, times }) => (on === 'all' || on === axis ? product * times : product),
        1,
      );
    const shares = { hours: share('hours'), calendar: share('calendar') };
    triggers = task.triggers.map((trigger) => scaled(trigger, shares));
    known.set(key, triggers);
  }
  return triggers;
}
