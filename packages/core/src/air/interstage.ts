import { bounds, outOfRange, err, ok, type Result } from '../basics/index.js';
import { ZERO_C } from './constants.js';

/** A compressor as the ladder of its stages sees it. */
export interface InterstageInput {
  readonly stages: number;
  readonly intakeBarAbs: number;
  readonly finalBarAbs: number;
  readonly intakeTempC: number;
  /** Temperature to which each cooler brings the air before the next stage; default: that of the intake. */
  readonly cooledTempC?: number;
  /** Polytropic exponent: 1.4 isentropic, about 1.2 to 1.25 for cooled reciprocating stages (common practice). */
  readonly exponent?: number;
}

/** One rung of the ladder. */
export interface StageState {
  readonly stage: number;
  readonly fromBarAbs: number;
  readonly toBarAbs: number;
  readonly fromTempC: number;
  readonly outletTempC: number;
  /** Ideal power for each m³/min of free air, kW. */
  readonly powerKwPerM3Min: number;
}

/** What the stages should show. */
export interface InterstagePressures {
  /** Pressure ratio of every stage: equal ratios give least work. */
  readonly ratio: number;
  readonly states: readonly StageState[];
  readonly powerKwPerM3Min: number;
}

/** Of cooled reciprocating stages (common practice). */
export const USUAL_EXPONENT = 1.25;
const MOST_STAGES = 5;

/**
 * The expected ladder: r = (pₙ/p₀)^(1/n) absolute, T₂ = T₁·r^((n−1)/n), ideal power p₁Q·n/(n−1)·(r^((n−1)/n) − 1)
 * for each stage.
 *
 * @returns `out-of-range` with a sentence; `final-below-first` where nothing is compressed
 */
export function interstagePressures(input: InterstageInput): Result<InterstagePressures> {
  const { stages, intakeBarAbs, finalBarAbs, intakeTempC } = input;
  const { cooledTempC = intakeTempC, exponent = USUAL_EXPONENT } = input;
  const wrong = outOfRange([
    {
      field: 'stages',
      value: Number.isInteger(stages) ? stages : NaN,
      min: 1,
      max: MOST_STAGES,
      sentence: 'A compressor has 1 to 5 stages.',
    },
    bounds.pressureBarAbs('intakeBarAbs', intakeBarAbs, 'The pressure at the intake'),
    bounds.pressureBarAbs('finalBarAbs', finalBarAbs, 'The final pressure'),
    bounds.intakeTempC('intakeTempC', intakeTempC),
    bounds.tempC('cooledTempC', cooledTempC, 'The temperature after a cooler'),
    {
      field: 'exponent',
      value: exponent,
      min: 1.05,
      max: 1.5,
      sentence: 'The exponent lies between 1.05 and 1.5.',
    },
  ]);
  if (wrong) return wrong;
  if (finalBarAbs <= intakeBarAbs) {
    return err(
      'final-below-first',
      'The final pressure must be higher than that at the intake.',
      'finalBarAbs',
    );
  }
  const ratio = (finalBarAbs / intakeBarAbs) ** (1 / stages);
  const growth = ratio ** ((exponent - 1) / exponent);
  const work = ((exponent / (exponent - 1)) * (growth - 1) * intakeBarAbs * 1e5) / 60 / 1000;
  const states = Array.from({ length: stages }, (_, index): StageState => {
    const fromTempC = index === 0 ? intakeTempC : cooledTempC;
    const fromK = fromTempC + ZERO_C;
    return {
      stage: index + 1,
      fromBarAbs: intakeBarAbs * ratio ** index,
      toBarAbs: intakeBarAbs * ratio ** (index + 1),
      fromTempC,
      outletTempC: fromK * growth - ZERO_C,
      // The same mass goes through every stage: p·Q only grows with its temperature.
      powerKwPerM3Min: (work * fromK) / (intakeTempC + ZERO_C),
    };
  });
  return ok({
    ratio,
    states,
    powerKwPerM3Min: states.reduce((sum, state) => sum + state.powerKwPerM3Min, 0),
  });
}
