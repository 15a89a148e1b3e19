import { bounds, outOfRange, refuse, succeed, type Outcome } from '../basics/index.js';
import { expectedLadder, USUAL_EXPONENT } from './ladder.js';
import { predictLadder, type LadderDesign, type LadderFault } from './faulty-ladder.js';

/** What the gauges and thermometers of the stages showed. */
export interface MeasuredLadder {
  readonly intakeBarAbs: number;
  readonly intakeTempC: number;
  /** Pressure after each stage, the last is the final one. */
  readonly pressuresBarAbs: readonly number[];
  /** Temperature at the outlet of each stage, where it was taken. */
  readonly outletTempsC?: readonly (number | null)[];
  /** Temperature to which each cooler brings the air; default 10 K above the intake (common practice). */
  readonly cooledTempC?: number;
  /** Final pressure that the stages were built for; default: the one measured. */
  readonly designBarAbs?: number;
  readonly exponent?: number;
  /** What this machine showed when it was sound: beats whatever is reckoned. */
  readonly baseline?: Pick<MeasuredLadder, 'intakeTempC' | 'pressuresBarAbs' | 'outletTempsC'>;
}

/** A stage as it should be and as it was found. */
export interface StageFinding {
  readonly stage: number;
  readonly expectedBarAbs: number;
  readonly expectedTempC: number;
  /** Share by which its pressure lies above the expected, negative below. */
  readonly pressureOff: number;
  /** By how much its outlet is hotter than expected, K; null where it was not measured. */
  readonly tempOffK: number | null;
}

/** Something that would explain the figures. */
export interface LadderSuspect {
  readonly kind: LadderFault['kind'];
  /** The stage, or the one whose cooler or gauge it is; 0 for the intake and for a sound machine. */
  readonly stage: number;
  /** How sure: 0 to 1, all suspects together make 1. */
  readonly probability: number;
  /** How far it is gone where it is the one: share of the swallowed air lost, or share or kelvin it is off. */
  readonly size: number;
}

/** The ladder read. */
export interface LadderReading {
  readonly stages: readonly StageFinding[];
  /** The likeliest first. */
  readonly suspects: readonly LadderSuspect[];
  /** Whether the set worked against enough pressure for its last stage to say anything. */
  readonly lastStageTells: boolean;
}

/** Coolers leave the air this much above the intake (common practice). */
const COOLER_APPROACH_K = 10;
/** Scatter of a stage pressure about the expected, gauge and model together, as a share (common practice). */
const PRESSURE_SCATTER = 0.04;
/** The same of an outlet temperature, K. */
const TEMP_SCATTER_K = 8;
/** Below this share of the design pressure the last stage hardly works. */
const LEAST_FINAL = 0.8;

/** How often each is met before anything was measured (common practice); shared out evenly by stages. */
const PRIOR = { sound: 0.5, stage: 0.3, cooler: 0.06, gauge: 0.08, intake: 0.06 } as const;

const losses = [0.05, 0.1, 0.15, 0.2, 0.25, 0.3, 0.35, 0.4, 0.5, 0.6];
const gaugeErrors = [-0.5, -0.35, -0.25, -0.15, -0.1, 0.1, 0.15, 0.25, 0.35, 0.5];
const coolerRises = [10, 20, 30, 40, 50, 60];

/**
 * Reads the stage pressures and temperatures: what of it is off, and what would explain it. A leaking valve or
 * ring in a stage lowers what that stage can swallow, so the pressure before it rises, what comes out falls, and
 * its outlet grows hot because hot gas is compressed again. Each explanation (each stage, cooler and gauge, the
 * intake, or none) predicts all figures for a range of sizes; Bayes' rule weighs them.
 *
 * @returns `out-of-range`, `stages` where there are fewer than two or more than five, or pressures out of order
 */
export function readLadder(measured: MeasuredLadder): Outcome<LadderReading> {
  const { pressuresBarAbs } = measured;
  const stages = pressuresBarAbs.length;
  const wrong = problemOf(measured);
  if (wrong) return wrong;
  const design = designOf(measured);
  if (!design.ok) return design;
  const sound = predictLadder(design.value, { kind: 'sound', stage: 0, size: 0 });
  const temps = Array.from({ length: stages }, (_, index) => measured.outletTempsC?.[index] ?? null);
  const explanations = faultsOf(stages).map(({ kind, stage, sizes, prior }) => {
    const weights = sizes.map((size) => {
      const predicted = predictLadder(design.value, { kind, stage, size });
      return Math.exp(logLikelihood(predicted, pressuresBarAbs, temps));
    });
    const weight = weights.reduce((sum, one) => sum + one, 0) / sizes.length;
    const mean = weights.reduce((sum, one, index) => sum + one * sizes[index]!, 0);
    return { kind, stage, weight: weight * prior, size: weight > 0 ? mean / (weight * sizes.length) : 0 };
  });
  const total = explanations.reduce((sum, { weight }) => sum + weight, 0);
  return succeed({
    stages: pressuresBarAbs.map((pressure, index): StageFinding => {
      const temp = temps[index] ?? null;
      return {
        stage: index + 1,
        expectedBarAbs: sound.pressuresBarAbs[index]!,
        expectedTempC: sound.outletTempsC[index]!,
        pressureOff: pressure / sound.pressuresBarAbs[index]! - 1,
        tempOffK: temp === null ? null : temp - sound.outletTempsC[index]!,
      };
    }),
    suspects: explanations
      .map(({ kind, stage, weight, size }): LadderSuspect => ({
        kind,
        stage,
        size,
        probability: total > 0 ? weight / total : PRIOR[kind],
      }))
      .sort((a, b) => b.probability - a.probability),
    lastStageTells: pressuresBarAbs[stages - 1]! >= LEAST_FINAL * design.value.designBarAbs,
  });
}

function problemOf(measured: MeasuredLadder): Outcome<never> | null {
  const { pressuresBarAbs, outletTempsC = [], intakeBarAbs, intakeTempC } = measured;
  const stages = pressuresBarAbs.length;
  if (stages < 2 || stages > 5) {
    return refuse(
      'stages',
      'A ladder has two to five stages: a single one has nothing between to read.',
      'stages',
    );
  }
  const wrong = outOfRange([
    bounds.pressureBarAbs('intakeBarAbs', intakeBarAbs, 'The pressure at the intake'),
    bounds.intakeTempC('intakeTempC', intakeTempC),
    ...pressuresBarAbs.map((pressure, index) =>
      bounds.pressureBarAbs(`stage${index + 1}Bar`, pressure, `The pressure after stage ${index + 1}`),
    ),
    ...outletTempsC.flatMap((temp, index) =>
      temp === null ? [] : [bounds.tempC(`stage${index + 1}TempC`, temp, `The outlet of stage ${index + 1}`)],
    ),
  ]);
  if (wrong) return wrong;
  const falls = pressuresBarAbs.findIndex(
    (pressure, index) => pressure <= (pressuresBarAbs[index - 1] ?? intakeBarAbs),
  );
  if (falls < 0) return null;
  return refuse(
    'final-below-first',
    `After stage ${falls + 1} the pressure must be higher than before it. Are two gauges mixed up?`,
    `stage${falls + 1}Bar`,
  );
}

/** What the stages should show: from this machine's own baseline where there is one, else from equal ratios. */
function designOf(measured: MeasuredLadder): Outcome<LadderDesign> {
  const { pressuresBarAbs, intakeBarAbs, intakeTempC, baseline, exponent = USUAL_EXPONENT } = measured;
  const { cooledTempC = intakeTempC + COOLER_APPROACH_K } = measured;
  const stages = pressuresBarAbs.length;
  const finalBarAbs = pressuresBarAbs[stages - 1]!;
  const designBarAbs = measured.designBarAbs ?? finalBarAbs;
  const ladder = expectedLadder({
    stages,
    intakeBarAbs,
    finalBarAbs: designBarAbs,
    intakeTempC,
    cooledTempC,
    exponent,
  });
  if (!ladder.ok) return ladder;
  const own = baseline?.pressuresBarAbs.length === stages ? baseline : undefined;
  const between = Array.from(
    { length: stages - 1 },
    (_, index) => own?.pressuresBarAbs[index] ?? ladder.value.rungs[index]!.toBarAbs,
  );
  return succeed({
    intakeBarAbs,
    intakeTempC,
    cooledTempC,
    exponent,
    designBarAbs,
    pressuresBarAbs: [...between, finalBarAbs],
    // The baseline's heat moves with the weather, kelvin for kelvin.
    ownTempsC: Array.from({ length: stages }, (_, index) => {
      const temp = own?.outletTempsC?.[index] ?? null;
      return temp === null ? null : temp + intakeTempC - own!.intakeTempC;
    }),
  });
}

interface FaultGrid extends Omit<LadderFault, 'size'> {
  readonly sizes: readonly number[];
  readonly prior: number;
}

function faultsOf(stages: number): FaultGrid[] {
  const numbers = Array.from({ length: stages }, (_, index) => index + 1);
  return [
    { kind: 'sound', stage: 0, sizes: [0], prior: PRIOR.sound },
    { kind: 'intake', stage: 0, sizes: losses, prior: PRIOR.intake },
    ...numbers.map((stage): FaultGrid => {
      return { kind: 'stage', stage, sizes: losses, prior: PRIOR.stage / stages };
    }),
    ...numbers.slice(0, -1).flatMap((stage): FaultGrid[] => [
      { kind: 'cooler', stage, sizes: coolerRises, prior: PRIOR.cooler / (stages - 1) },
      { kind: 'gauge', stage, sizes: gaugeErrors, prior: PRIOR.gauge / (stages - 1) },
    ]),
  ];
}

/** Normal scatter about what is predicted; the final pressure is set by what is filled and tells nothing. */
function logLikelihood(
  predicted: ReturnType<typeof predictLadder>,
  pressures: readonly number[],
  temps: readonly (number | null)[],
): number {
  const pressurePart = pressures
    .slice(0, -1)
    .map((pressure, index) => Math.log(pressure / predicted.pressuresBarAbs[index]!) / PRESSURE_SCATTER);
  const tempPart = temps.flatMap((temp, index) =>
    temp === null ? [] : [(temp - predicted.outletTempsC[index]!) / TEMP_SCATTER_K],
  );
  return -[...pressurePart, ...tempPart].reduce((sum, off) => sum + off ** 2, 0) / 2;
}
