import { bounds, outOfRange, err, ok, type Result } from '../basics/index.js';
import { ATMOSPHERE_BAR, GAMMA, R_AIR, ZERO_C } from './constants.js';

/** A hole that air leaves through. */
export interface Hole {
  readonly diameterMm: number;
  /** Pressure before it. */
  readonly pressureBarAbs: number;
  readonly tempC: number;
  /** Discharge coefficient: 1 ideal, 0.97 well rounded, 0.61 sharp. */
  readonly coefficient: number;
  /** State of the air that the flow is counted in. */
  readonly intakeBarAbs?: number;
  readonly intakeTempC?: number;
}

/** Below this pressure ratio the flow is no longer choked: (2/(γ+1))^(γ/(γ−1)). */
const CRITICAL_RATIO = (2 / (GAMMA + 1)) ** (GAMMA / (GAMMA - 1));

/**
 * Free air that leaves through a hole: choked nozzle, ṁ = C·A·p·√(γ/(RT))·(2/(γ+1))^((γ+1)/(2(γ−1))).
 *
 * @returns L/min of free air; `out-of-range` when the pressure is too low to choke, or a figure is not possible
 * @example holeFlow({ diameterMm: 6.35, pressureBarAbs: 7.91, tempC: 15.6, coefficient: 1 }) // → about 2,950 L/min
 */
export function holeFlow(hole: Hole): Result<number> {
  const { diameterMm, pressureBarAbs, tempC, coefficient } = hole;
  const { intakeBarAbs = ATMOSPHERE_BAR, intakeTempC = 20 } = hole;
  const wrong = outOfRange([
    bounds.positive('diameterMm', diameterMm, 100, 'The diameter, mm,'),
    bounds.tempC('tempC', tempC, 'The temperature'),
    bounds.tempC('intakeTempC', intakeTempC, 'The temperature at the intake'),
    {
      field: 'coefficient',
      value: coefficient,
      min: 0.3,
      max: 1,
      sentence: 'The discharge coefficient lies between 0.3 and 1.',
    },
    {
      field: 'pressureBarAbs',
      value: pressureBarAbs,
      min: intakeBarAbs / CRITICAL_RATIO,
      max: 600,
      sentence: `The formula holds from ${(intakeBarAbs / CRITICAL_RATIO).toFixed(2)} to 600 bar absolute: below that the hole does not choke.`,
    },
  ]);
  if (wrong) return wrong;
  const area = (Math.PI / 4) * (diameterMm * 1e-3) ** 2;
  const massFlow =
    coefficient *
    area *
    pressureBarAbs *
    1e5 *
    Math.sqrt(GAMMA / (R_AIR * (tempC + ZERO_C))) *
    (2 / (GAMMA + 1)) ** ((GAMMA + 1) / (2 * (GAMMA - 1)));
  const density = (intakeBarAbs * 1e5) / (R_AIR * (intakeTempC + ZERO_C));
  return ok((massFlow / density) * 1000 * 60);
}

/** A fall of pressure with the compressor off, by gauge. */
export interface PressureFall {
  /** Receiver and piping, litres. */
  readonly volumeL: number;
  readonly fromBar: number;
  readonly toBar: number;
  readonly minutes: number;
}

/** The leak slackens while the pressure falls: the sourcebook brings it back to normal pressure with this. */
const BACK_TO_NORMAL = 1.25;

/**
 * The rule of thumb for a leak by the fall of pressure: V·(P₁ − P₂)/(T·p₀) × 1.25 (US DOE *Compressed Air
 * Sourcebook*, memory). It holds for a fall to about half; the balance of `leakDownFlow` is the exact one.
 *
 * @returns L/min of free air at normal pressure; `out-of-range`, or `final-above-first`
 * @example sourcebookLeak({ volumeL: 1000, fromBar: 7, toBar: 3.5, minutes: 10 }) // → 432 L/min
 */
export function sourcebookLeak({ volumeL, fromBar, toBar, minutes }: PressureFall): Result<number> {
  const wrong = outOfRange([
    bounds.positive('volumeL', volumeL, 200_000, 'The volume, litres,'),
    { ...bounds.pressureBarAbs('fromBar', fromBar, ''), min: 0, sentence: GAUGE_SENTENCE },
    { ...bounds.pressureBarAbs('toBar', toBar, ''), min: 0, sentence: GAUGE_SENTENCE },
    bounds.positive('minutes', minutes, 1440, 'The time, minutes,'),
  ]);
  if (wrong) return wrong;
  if (toBar > fromBar) {
    return err('final-above-first', 'The pressure rose: that is no leak. Was the compressor off?', 'toBar');
  }
  return ok(((volumeL * (fromBar - toBar)) / (minutes * ATMOSPHERE_BAR)) * BACK_TO_NORMAL);
}

const GAUGE_SENTENCE = 'A gauge shows between 0 and 600 bar.';

/**
 * Share of delivery that leaks away, by the times the compressor works and rests with no demand: on/(on + off).
 *
 * @returns 0 to 1
 */
export function leakShareByTimes(onSeconds: number, offSeconds: number): Result<number> {
  const wrong = outOfRange([
    bounds.positive('onSeconds', onSeconds, 86_400, 'The time it works, seconds,'),
    {
      field: 'offSeconds',
      value: offSeconds,
      min: 0,
      max: 86_400,
      sentence: 'The time it rests must lie between 0 and 86,400 seconds.',
    },
  ]);
  return wrong ?? ok(onSeconds / (onSeconds + offSeconds));
}

/** Yearly cost of a leak. */
export interface LeakCost {
  readonly flowLpm: number;
  /** Electrical power taken per flow of free air, kW per m³/min; about 6.5 at 7 bar (common practice). */
  readonly specificPowerKwPerM3Min: number;
  readonly hoursPerYear: number;
  /** Price of a kilowatt-hour, in hundredths of the currency. */
  readonly priceCentsPerKwh: number;
}

/** @returns hundredths of the currency a year */
export function leakCostCents(cost: LeakCost): Result<number> {
  const { flowLpm, specificPowerKwPerM3Min, hoursPerYear, priceCentsPerKwh } = cost;
  const wrong = outOfRange([
    {
      field: 'flowLpm',
      value: flowLpm,
      min: 0,
      max: 1e6,
      sentence: 'The leak must lie between 0 and 1,000,000 L/min.',
    },
    bounds.positive('specificPowerKwPerM3Min', specificPowerKwPerM3Min, 100, 'The specific power'),
    {
      field: 'hoursPerYear',
      value: hoursPerYear,
      min: 0,
      max: 8784,
      sentence: 'A year has 8,784 hours at most.',
    },
    {
      field: 'priceCentsPerKwh',
      value: priceCentsPerKwh,
      min: 0,
      max: 10_000,
      sentence: 'The price must lie between 0 and 10,000.',
    },
  ]);
  return wrong ?? ok((flowLpm / 1000) * specificPowerKwPerM3Min * hoursPerYear * priceCentsPerKwh);
}
