import { bounds, outOfRange, err, ok, type Result } from '../basics/index.js';
import { ATMOSPHERE_BAR, ZERO_C } from './constants.js';
import { compressibilityOf } from './real-gas.js';

/** A receiver timed between two pressures. */
export interface ReceiverRun {
  /** Receiver and piping, litres. */
  readonly volumeL: number;
  readonly fromBarAbs: number;
  readonly toBarAbs: number;
  readonly seconds: number;
  /** Temperature of the air inside at the beginning and at the end, °C. */
  readonly fromTempC: number;
  readonly toTempC: number;
  /** State of the air that the flow is counted in: that at the intake. */
  readonly intakeBarAbs?: number;
  readonly intakeTempC?: number;
  /** Smallest step that can be read off the gauge, bar; half of it is its uncertainty. */
  readonly gaugeStepBar?: number;
  /** Uncertainty of the stop-watch, s. */
  readonly watchS?: number;
}

/** A flow of free air with what the measuring itself makes uncertain. */
export interface MeasuredFlow {
  /** L/min of free air at intake conditions. */
  readonly flowLpm: number;
  /** Standard uncertainty of it from gauge and watch, L/min. */
  readonly uncertaintyLpm: number;
}

const MOST_VOLUME_L = 200_000;
const MOST_SECONDS = 86_400;

/**
 * Free air delivered, by the time a receiver takes to fill: Q = V·(p₂/(Z₂T₂) − p₁/(Z₁T₁))·T₀/(p₀·t) (ISO 1217,
 * simplified). Without Z a test at 300 bar overstates delivery by about a tenth.
 *
 * @returns the flow; `out-of-range`, or `final-below-first` where nothing was pumped up
 */
export function pumpUpFlow(run: ReceiverRun): Result<MeasuredFlow> {
  const wrong = runProblem(run);
  if (wrong) return wrong;
  if (run.toBarAbs <= run.fromBarAbs) {
    return err(
      'final-below-first',
      'The last pressure must be higher than the first. Are the two mixed up?',
      'toBarAbs',
    );
  }
  return ok(flowOf(run, 1));
}

/**
 * Leak rate of a system, by the fall of pressure with the compressor off: the same balance the other way.
 */
export function leakDownFlow(run: ReceiverRun): Result<MeasuredFlow> {
  const wrong = runProblem(run);
  if (wrong) return wrong;
  if (run.toBarAbs > run.fromBarAbs) {
    return err(
      'final-above-first',
      'The pressure rose. Was the compressor off, and are the two not mixed up?',
      'toBarAbs',
    );
  }
  return ok(flowOf(run, -1));
}

function runProblem(run: ReceiverRun): Result<never> | null {
  return outOfRange([
    bounds.positive('volumeL', run.volumeL, MOST_VOLUME_L, 'The volume, litres,'),
    bounds.pressureBarAbs('fromBarAbs', run.fromBarAbs, 'The first pressure'),
    bounds.pressureBarAbs('toBarAbs', run.toBarAbs, 'The last pressure'),
    bounds.positive('seconds', run.seconds, MOST_SECONDS, 'The time, seconds,'),
    bounds.tempC('fromTempC', run.fromTempC, 'The first temperature'),
    bounds.tempC('toTempC', run.toTempC, 'The last temperature'),
    bounds.pressureBarAbs('intakeBarAbs', run.intakeBarAbs ?? ATMOSPHERE_BAR, 'The pressure at the intake'),
    bounds.tempC('intakeTempC', run.intakeTempC ?? 20, 'The temperature at the intake'),
  ]);
}

function flowOf(run: ReceiverRun, sign: 1 | -1): MeasuredFlow {
  const { volumeL, fromBarAbs, toBarAbs, seconds, fromTempC, toTempC } = run;
  const { intakeBarAbs = ATMOSPHERE_BAR, intakeTempC = 20, gaugeStepBar = 0, watchS = 0 } = run;
  const perBar = (pressure: number, tempC: number) =>
    1 / (compressibilityOf(pressure, tempC) * (tempC + ZERO_C));
  const scale = (volumeL * (intakeTempC + ZERO_C) * 60) / (intakeBarAbs * seconds);
  const [last, first] = [perBar(toBarAbs, toTempC), perBar(fromBarAbs, fromTempC)];
  // Adding zero: no change at all is nothing, and not minus nothing.
  const flowLpm = sign * scale * (toBarAbs * last - fromBarAbs * first) + 0;
  // A reading lies anywhere within its step: standard uncertainty is half the step over √3.
  const gauge = gaugeStepBar / 2 / Math.sqrt(3);
  const fromGauge = scale * gauge * Math.hypot(last, first);
  const fromWatch = (flowLpm * watchS) / seconds;
  return { flowLpm, uncertaintyLpm: Math.hypot(fromGauge, fromWatch) };
}
