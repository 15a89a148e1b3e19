import { freeAirToFill, settledPressure, vapourGPerM3 } from '../air/index.js';
import { err, ok, type Problem, type Result } from '../basics/index.js';
import { bar } from './cylinder.js';

/** Of a place that nobody measured, °C. */
export const USUAL_AMBIENT_C = 20;
/** Hotter than this by the hand’s thermometer, a wall has had enough (common practice). */
export const MOST_WALL_C = 60;
/** Faster than this, a cylinder heats more than it should (common practice: some 20 to 40 bar a minute). */
export const MOST_BAR_A_MINUTE = 40;
/** What a full cylinder may settle above its stamp before air has to go: a gauge’s line. */
const SETTLED_OVER = 1.01;

/** A fill as it will go. */
export interface FillForecast {
  /** Free air that it takes, L at intake conditions. */
  readonly airL: number;
  /** Null where the free air delivered is not known. */
  readonly minutes: number | null;
  readonly barPerMinute: number | null;
}

interface FillRun {
  readonly volumeL: number;
  readonly fromBar: number;
  readonly toBar: number;
  readonly ambientC: number;
  readonly atmosphereBarAbs: number;
}

/**
 * What a fill takes, real gas at the temperature of the place: slow enough to stay cool.
 *
 * @param fadLpm free air delivered of the set, L/min
 */
export function forecastFill(run: FillRun, fadLpm: number | undefined): Result<FillForecast> {
  const air = airOf(run);
  if (!air.ok) return air;
  const minutes = fadLpm === undefined ? null : air.value / fadLpm;
  return ok({
    airL: air.value,
    minutes,
    barPerMinute: minutes === null ? null : (run.toBar - run.fromBar) / minutes,
  });
}

function airOf({ volumeL, fromBar, toBar, ambientC, atmosphereBarAbs }: FillRun): Result<number> {
  const vessel = { volumeL, pressureBarAbs: fromBar + atmosphereBarAbs };
  return freeAirToFill(vessel, toBar + atmosphereBarAbs, ambientC);
}

/** How a fill ended. */
export interface FillEnd extends FillRun {
  readonly ratedBar: number;
  readonly minutes: number;
  /** Of the cylinder’s wall when it ended; left out where nobody felt or measured it. */
  readonly wallC?: number | null | undefined;
}

/** What a fill came to. */
export interface FillResult {
  /** What it will show when it has cooled, bar by gauge. */
  readonly settledBar: number;
  /** Free air that went in. */
  readonly airL: number;
  readonly barPerMinute: number;
  /** What was unusual: `fast`, `hot`. */
  readonly marks: readonly ('fast' | 'hot')[];
}

/**
 * What went into a cylinder, and what it settles at: with its wall’s temperature where that is known, else at once.
 *
 * @returns a problem `over-stamp` where it would settle above what is stamped on it: air has to go first
 */
export function endFill(end: FillEnd): Result<FillResult> {
  const { toBar, fromBar, ambientC, atmosphereBarAbs, ratedBar, minutes, wallC } = end;
  const hotC = wallC ?? ambientC;
  const settled = settledPressure(toBar + atmosphereBarAbs, Math.max(hotC, ambientC), ambientC);
  if (!settled.ok) return settled;
  const settledBar = settled.value - atmosphereBarAbs;
  if (settledBar > ratedBar * SETTLED_OVER)
    return err(
      'over-stamp',
      `It would settle at ${bar(settledBar)}, and is stamped ${bar(ratedBar)}. Let air out through the vent until it shows no more than ${bar(ratedBar)}, and enter what it shows then.`,
      'toBar',
    );
  if (settledBar < fromBar)
    return err('nothing-went-in', 'Cooled, it would hold less than before: look at both pressures.', 'toBar');
  const air = airOf({ ...end, toBar: settledBar });
  if (!air.ok) return air;
  const barPerMinute = (toBar - fromBar) / minutes;
  const marks = [
    ...(barPerMinute > MOST_BAR_A_MINUTE ? (['fast'] as const) : []),
    ...(wallC !== null && wallC !== undefined && wallC > MOST_WALL_C ? (['hot'] as const) : []),
  ];
  return ok({ settledBar, airL: air.value, barPerMinute, marks });
}

/** What is said about a fill that is not as it should be. */
export function fillDoubts({
  barPerMinute,
  marks,
}: Pick<FillResult, 'barPerMinute' | 'marks'>): readonly Problem[] {
  const sentences = {
    fast: `That was ${Math.round(barPerMinute)} bar a minute: open the valve less. ${MOST_BAR_A_MINUTE} are enough.`,
    hot: `Above ${MOST_WALL_C} °C a wall has had enough. Let it cool, look at it and its papers before it is used.`,
  } as const;
  return marks.map((code) => ({ code, sentence: sentences[code] }));
}

/** One fill, as far as the machine’s hours and its cartridge need it. */
export interface CountedFill {
  readonly airL: number;
  readonly volumeL: number;
}

/** What many fills come to, with how sure that is. */
export interface FilledSum {
  readonly count: number;
  readonly airL: number;
  /** One standard deviation. */
  readonly airSdL: number;
  /** Null where the free air delivered is not known. */
  readonly hours: number | null;
  readonly hoursSd: number | null;
}

/** A pressure is read off a gauge to so much, bar, one standard deviation; a set gives what its plate says to so much. */
const [GAUGE_SD_BAR, FAD_SD_SHARE] = [2, 0.08];

/**
 * The run hours behind fills: their air over the free air delivered. What hoses and drains blew off was delivered
 * too, so that the hours are at least these. Gauges err in each fill for itself, the plate in all of them alike.
 */
export function sumFills(fills: readonly CountedFill[], fadLpm: number | undefined): FilledSum {
  const airL = fills.reduce((sum, fill) => sum + fill.airL, 0);
  // Near an atmosphere for each bar: real gas makes it a tenth less at most.
  const airSdL = Math.sqrt(2 * GAUGE_SD_BAR ** 2 * fills.reduce((sum, { volumeL }) => sum + volumeL ** 2, 0));
  const hours = fadLpm === undefined ? null : airL / fadLpm / 60;
  return {
    count: fills.length,
    airL,
    airSdL,
    hours,
    hoursSd: hours === null || airL === 0 ? null : hours * Math.hypot(airSdL / airL, FAD_SD_SHARE),
  };
}

/** The last cooler leaves air so much above the place, K (common practice). */
const COOLER_K = 10;

/** What the cartridge took up of so much air: saturated behind the last separator, at the holding valve’s pressure. */
export function waterTakenUp(
  airL: number,
  {
    ambientC,
    holdingBar,
    atmosphereBarAbs,
  }: { readonly ambientC: number; readonly holdingBar: number; readonly atmosphereBarAbs: number },
): Result<number> {
  const intake = { pressureBarAbs: atmosphereBarAbs, tempC: ambientC, relativeHumidity: 1 };
  const cooled = { pressureBarAbs: holdingBar + atmosphereBarAbs, tempC: ambientC + COOLER_K };
  const vapour = vapourGPerM3(intake, cooled);
  return vapour.ok ? ok((vapour.value * airL) / 1000) : vapour;
}
