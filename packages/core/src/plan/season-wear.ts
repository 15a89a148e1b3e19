import { DAY_MS, localDayAt, startOfLocalDay, type Instant } from '../basics/index.js';
import { cartridgeLifeHours, vapourGPerM3, ATMOSPHERE_BAR } from '../air/index.js';
import { clockHours, type HourClock } from './clock.js';

/** Hours that a life lasts in either season. */
export interface SeasonLives {
  readonly warm: number;
  readonly cold: number;
  readonly warmMonths: readonly [number, number];
}

/** May to September (common practice north of the equator). */
export const USUAL_WARM_MONTHS: readonly [number, number] = [5, 9];

/**
 * Hours that a cartridge lasts with the last separator at a temperature: what it takes up over what reaches it,
 * saturated at the separator and the holding valve's pressure, the enhancement of dense air in it.
 */
export function cartridgeHoursAt(
  {
    moistureCapacityG,
    fadLpm,
    maintainingValveBar,
  }: { readonly moistureCapacityG: number; readonly fadLpm: number; readonly maintainingValveBar: number },
  tempC: number,
): number | null {
  const intake = { pressureBarAbs: ATMOSPHERE_BAR, tempC, relativeHumidity: 1 };
  const vapour = vapourGPerM3(intake, { pressureBarAbs: maintainingValveBar + ATMOSPHERE_BAR, tempC });
  if (!vapour.ok) return null;
  const life = cartridgeLifeHours(moistureCapacityG, vapour.value, fadLpm);
  return life.ok && Number.isFinite(life.value) ? life.value : null;
}

/** Where a life ends that passes at two speeds. */
export interface WornPoint {
  /** Run hours at which it is used up. */
  readonly due: number;
  /** Share used at the moment asked about. */
  readonly used: number;
}

/** Six seasons are three years: beyond them nobody plans a cartridge. */
const MOST_SEASONS = 80;

/**
 * Walks the seasons from the start of a life until it is used up: every hour takes 1/life of its season.
 *
 * @param now the moment asked about and the run hours then
 */
export function wornPoint(
  lives: SeasonLives,
  start: { readonly at: Instant; readonly hours: number },
  now: { readonly at: Instant; readonly hours: number },
  clock: HourClock,
  timeZone: string,
): WornPoint {
  let [at, hours, used] = [start.at, start.hours, 0];
  let usedNow: number | null = null;
  for (let season = 0; season < MOST_SEASONS; season++) {
    const life = isWarmAt(at, lives, timeZone) ? lives.warm : lives.cold;
    const next = nextSeason(at, lives, timeZone);
    const hoursThen = Math.max(hours, clockHours(clock, next)?.hours ?? hours);
    if (usedNow === null && now.at < next) usedNow = used + Math.max(0, now.hours - hours) / life;
    const usedThen = used + (hoursThen - hours) / life;
    if (usedThen >= 1) {
      const due = hours + (1 - used) * life;
      return { due, used: usedNow ?? 1 + Math.max(0, now.hours - due) / life };
    }
    const standsStill = at > now.at && hoursThen === hours;
    [at, hours, used] = [next, hoursThen, usedThen];
    if (standsStill) break;
  }
  // It stands still: whatever is left of its life passes at the speed of the season asked about.
  const life = isWarmAt(now.at, lives, timeZone) ? lives.warm : lives.cold;
  return { due: hours + (1 - used) * life, used: usedNow ?? used };
}

function monthOf(at: Instant, timeZone: string): { readonly year: number; readonly month: number } {
  const day = new Date(localDayAt(at, timeZone) * DAY_MS);
  return { year: day.getUTCFullYear(), month: day.getUTCMonth() + 1 };
}

function isWarm(month: number, [first, last]: SeasonLives['warmMonths']): boolean {
  return first <= last ? month >= first && month <= last : month >= first || month <= last;
}

/** Whether a moment lies in the warm season of the place. */
export function isWarmAt(
  at: Instant,
  { warmMonths }: Pick<SeasonLives, 'warmMonths'>,
  timeZone: string,
): boolean {
  return isWarm(monthOf(at, timeZone).month, warmMonths);
}

/** The first of a month on which the other season begins. */
function nextSeason(at: Instant, { warmMonths }: SeasonLives, timeZone: string): Instant {
  const { year, month } = monthOf(at, timeZone);
  const here = isWarm(month, warmMonths);
  for (let ahead = 1; ahead <= 12; ahead++) {
    const index = month - 1 + ahead;
    const isOther = isWarm((index % 12) + 1, warmMonths) !== here;
    if (isOther || ahead === 12) return startOfLocalDay(Date.UTC(year, index, 1) / DAY_MS, timeZone);
  }
  return at;
}
