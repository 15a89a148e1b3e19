import { bounds, outOfRange, err, ok, type Result } from '../basics/index.js';
import {
  predictGauges,
  predictStages,
  type StagesDesign,
  type StageFault,
  type StageSuspect,
} from './faulty-stages.js';
import { interstagePressures, USUAL_EXPONENT } from './interstage.js';
import { lookLikelihood, nextLook, type StageLook, type StageLooks } from './stage-looks.js';

/** What the gauges and thermometers of the stages showed. */
export interface MeasuredStages {
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
  readonly baseline?: Pick<MeasuredStages, 'intakeTempC' | 'pressuresBarAbs' | 'outletTempsC'>;
  /** What was looked at besides. */
  readonly looks?: StageLooks;
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

/** The ladder read. */
export interface StageDiagnosis {
  readonly stages: readonly StageFinding[];
  /** The likeliest first. */
  readonly suspects: readonly StageSuspect[];
  /** Whether the set worked against enough pressure for its last stage to say anything. */
  readonly lastStageTells: boolean;
  readonly hasBaseline: boolean;
  /** Whether pressure and temperature each speak for the first suspect by more than sets differ when sound. */
  readonly bothFit: boolean;
  /** What to look at next, to tell what is left apart; null where nothing would help much. */
  readonly next: StageLook | null;
}

/** Coolers leave the air this much above the intake (common practice). */
const COOLER_APPROACH_K = 10;
/** Below this share of the design pressure the last stage hardly works. */
const LEAST_FINAL = 0.8;

/**
 * Scatter of a stage pressure as a share, and of an outlet temperature in K: about what the machine itself showed when
 * sound, both measurements together; and about equal ratios, from which sound sets are built 10 to 20 % away *(memory)*.
 * A thermometer on a pipe shows too little rather than too much: what is cooler than reckoned says less.
 */
const SCATTER = {
  baseline: { pressure: 0.025, tempK: 5, coolerK: 5 },
  reckoned: { pressure: 0.12, tempK: 10, coolerK: 16 },
} as const;

/** How often each is met before anything was measured (common practice); shared out evenly by stages. */
const PRIOR = {
  sound: 0.5,
  valves: 0.19,
  ring: 0.1,
  cooler: 0.06,
  gauge: 0.06,
  intake: 0.05,
  pairs: 0.05,
} as const;

/** An explanation that fits so much worse than the best by its pressures alone need not be tried on the temperatures. */
const HOPELESS = 40;

const losses = [0.05, 0.08, 0.12, 0.16, 0.2, 0.25, 0.3, 0.36, 0.44, 0.55];
const gaugeErrors = [-0.5, -0.35, -0.25, -0.17, -0.11, -0.07, 0.07, 0.11, 0.17, 0.25, 0.35, 0.5];
const coolerRises = [8, 14, 20, 28, 38, 50];
/** With two faults at once there is too much to try every size of both. */
const coarse = { losses: [0.1, 0.2, 0.35], gaugeErrors: [-0.3, -0.12, 0.12, 0.3], coolerRises: [12, 28, 50] };

/**
 * Reads the stage pressures and temperatures: what of it is off, and what would explain it. Each explanation (valves,
 * ring, cooler and gauge of each stage, the intake, two of them, or nothing) predicts all figures for a range of sizes;
 * Bayes' rule weighs them. What the sound machine would show is itself only known to some scatter: little about its own
 * baseline, much about equal ratios.
 *
 * @returns `out-of-range`, `stages` where there are fewer than two or more than five, or pressures out of order
 */
export function diagnoseStages(measured: MeasuredStages): Result<StageDiagnosis> {
  const { pressuresBarAbs } = measured;
  const stages = pressuresBarAbs.length;
  const wrong = problemOf(measured);
  if (wrong) return wrong;
  const { looks = {} } = measured;
  const baseline = measured.baseline?.pressuresBarAbs.length === stages ? measured.baseline : undefined;
  const found = designOf(measured, baseline);
  if (!found.ok) return found;
  const design = found.value;
  const hasBaseline = baseline !== undefined;
  const scatter = hasBaseline ? SCATTER.baseline : SCATTER.reckoned;
  const temps = Array.from({ length: stages }, (_, index) => measured.outletTempsC?.[index] ?? null);
  let best = -Infinity;
  const suspects = weighed(explanations(stages), (faults) => {
    const fit = logLikelihood(
      design,
      faults,
      { pressures: pressuresBarAbs, temps, scatter },
      best - HOPELESS,
    );
    best = Math.max(best, fit);
    return Math.exp(fit) * lookLikelihood(looks, faults);
  });
  const sound = predictStages(design, []);
  const findings = pressuresBarAbs.map((pressure, index): StageFinding => {
    const temp = temps[index] ?? null;
    return {
      stage: index + 1,
      expectedBarAbs: sound.pressuresBarAbs[index]!,
      expectedTempC: sound.outletTempsC[index]!,
      pressureOff: pressure / sound.pressuresBarAbs[index]! - 1,
      tempOffK: temp === null ? null : temp - sound.outletTempsC[index]!,
    };
  });
  return ok({
    stages: findings,
    suspects,
    lastStageTells: pressuresBarAbs[stages - 1]! >= LEAST_FINAL * design.designBarAbs,
    hasBaseline,
    bothFit: bothFit(design, pressuresBarAbs, temps, findings),
    next: nextLook(suspects, temps, looks),
  });
}

function problemOf(measured: MeasuredStages): Result<never> | null {
  const { pressuresBarAbs, outletTempsC = [], intakeBarAbs, intakeTempC } = measured;
  const stages = pressuresBarAbs.length;
  if (stages < 2 || stages > 5) {
    return err(
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
  return err(
    'final-below-first',
    `After stage ${falls + 1} the pressure must be higher than before it. Are two gauges mixed up?`,
    `stage${falls + 1}Bar`,
  );
}

/** What the stages should show: from this machine's own baseline where there is one, else from equal ratios. */
function designOf(measured: MeasuredStages, own: MeasuredStages['baseline']): Result<StagesDesign> {
  const { pressuresBarAbs, intakeBarAbs, intakeTempC, exponent = USUAL_EXPONENT } = measured;
  const { cooledTempC = intakeTempC + COOLER_APPROACH_K } = measured;
  const stages = pressuresBarAbs.length;
  const finalBarAbs = pressuresBarAbs[stages - 1]!;
  const designBarAbs = measured.designBarAbs ?? finalBarAbs;
  const expected = interstagePressures({
    stages,
    intakeBarAbs,
    finalBarAbs: designBarAbs,
    intakeTempC,
    cooledTempC,
    exponent,
  });
  if (!expected.ok) return expected;
  const between = Array.from(
    { length: stages - 1 },
    (_, index) => own?.pressuresBarAbs[index] ?? expected.value.states[index]!.toBarAbs,
  );
  const design = {
    intakeBarAbs,
    intakeTempC,
    cooledTempC,
    exponent,
    designBarAbs,
    pressuresBarAbs: [...between, finalBarAbs],
    warmerK: Array.from({ length: stages }, () => 0),
  };
  if (!own) return ok(design);
  // The baseline's heat moves with the weather, kelvin for kelvin; its last stage worked against its own final pressure.
  const then = { ...design, pressuresBarAbs: own.pressuresBarAbs };
  const reckoned = predictStages(then, []).outletTempsC;
  const warmerK = reckoned.map((temp, index) => {
    const showed = own.outletTempsC?.[index] ?? null;
    return showed === null ? 0 : showed + intakeTempC - own.intakeTempC - temp;
  });
  return ok({ ...design, warmerK });
}

interface Explanation {
  readonly prior: number;
  /** The same faults in all sizes that are tried. */
  readonly sizes: readonly (readonly StageFault[])[];
}

type Sizes = Record<'losses' | 'gaugeErrors' | 'coolerRises', readonly number[]>;

/** Each single fault with its prior, in all its sizes. */
function singles(stages: number, { losses, gaugeErrors, coolerRises }: Sizes) {
  const numbers = Array.from({ length: stages }, (_, index) => index + 1);
  const of = (kind: StageFault['kind'], stage: number, sizes: readonly number[], prior: number) => ({
    prior,
    faults: sizes.map((size): StageFault => ({ kind, stage, size })),
  });
  return [
    of('intake', 0, losses, PRIOR.intake),
    ...numbers.flatMap((stage) => [
      of('valves', stage, losses, PRIOR.valves / stages),
      of('ring', stage, losses, PRIOR.ring / stages),
    ]),
    ...numbers
      .slice(0, -1)
      .flatMap((stage) => [
        of('cooler', stage, coolerRises, PRIOR.cooler / (stages - 1)),
        of('gauge', stage, gaugeErrors, PRIOR.gauge / (stages - 1)),
      ]),
  ];
}

const kept = new Map<number, readonly Explanation[]>();

function explanations(stages: number): readonly Explanation[] {
  let all = kept.get(stages);
  if (all) return all;
  const alone = singles(stages, { losses, gaugeErrors, coolerRises });
  const coarsely = singles(stages, coarse);
  const pairs = coarsely.flatMap((a, index) => coarsely.slice(index + 1).map((b) => ({ a, b })));
  const together = pairs.reduce((sum, { a, b }) => sum + a.prior * b.prior, 0);
  all = [
    { prior: PRIOR.sound, sizes: [[]] },
    ...alone.map(({ prior, faults }) => ({ prior, sizes: faults.map((fault) => [fault]) })),
    ...pairs.map(({ a, b }) => ({
      prior: (PRIOR.pairs * a.prior * b.prior) / together,
      sizes: a.faults.flatMap((one) => b.faults.map((other) => [one, other])),
    })),
  ];
  kept.set(stages, all);
  return all;
}

/** Weighs explanations, each by the mean over its sizes; the likeliest size speaks for it. */
function weighed(
  all: readonly Explanation[],
  likelihood: (faults: readonly StageFault[]) => number,
): StageSuspect[] {
  const found = all.map(({ prior, sizes }) => {
    let [sum, best, most] = [0, sizes[0]!, -1];
    for (const faults of sizes) {
      const weight = likelihood(faults);
      sum += weight;
      if (weight > most) [best, most] = [faults, weight];
    }
    return { faults: best, weight: (prior * sum) / sizes.length, prior };
  });
  const total = found.reduce((sum, { weight }) => sum + weight, 0);
  const priors = found.reduce((sum, { prior }) => sum + prior, 0);
  return found
    .map(({ faults, weight, prior }) => ({
      faults: byWeight(faults),
      probability: total > 0 ? weight / total : prior / priors,
    }))
    .sort((a, b) => b.probability - a.probability);
}

/** The greater fault first, a cooler's kelvin as hundredths. */
function byWeight(faults: readonly StageFault[]): readonly StageFault[] {
  const weight = ({ kind, size }: StageFault) => Math.abs(size) / (kind === 'cooler' ? 100 : 1);
  return faults.length < 2 ? faults : [...faults].sort((a, b) => weight(b) - weight(a));
}

/** What the gauges and thermometers showed, and how far they scatter about what a sound set would show. */
interface Shown {
  readonly pressures: readonly number[];
  readonly temps: readonly (number | null)[];
  readonly scatter: { readonly pressure: number; readonly tempK: number; readonly coolerK: number };
}

/**
 * How well faults explain what was measured. What the sound machine would have to be for the faults to lead to just
 * these pressures lies about the design; its temperatures follow from it. The final pressure is set by what is filled
 * and tells nothing.
 *
 * @param least less by the pressures alone is not looked into any further
 */
function logLikelihood(
  design: StagesDesign,
  faults: readonly StageFault[],
  { pressures, temps, scatter }: Shown,
  least: number,
): number {
  const shifted = predictGauges(design, faults);
  let off = 0;
  const needed = pressures.map((pressure, index) => {
    if (index === pressures.length - 1) return pressure;
    const moved = pressure / shifted[index]!;
    off += (Math.log(moved) / scatter.pressure) ** 2;
    return design.pressuresBarAbs[index]! * moved;
  });
  if (-off / 2 < least || temps.every((temp) => temp === null)) return -off / 2;
  const machine = { ...design, pressuresBarAbs: needed };
  const { outletTempsC } = predictStages(machine, faults, pressures);
  temps.forEach((temp, index) => {
    // Heavy-tailed: a thermometer badly held is no proof of anything.
    if (temp === null) return;
    const above = temp - outletTempsC[index]!;
    off += 5 * Math.log(1 + (above / (above > 0 ? scatter.tempK : scatter.coolerK)) ** 2 / 4);
  });
  return Number.isFinite(off) ? -off / 2 : -Infinity;
}

/** So many scatters away each, pressure and temperature speak for themselves. */
const SPEAKS = 2;

/** Whether a pressure lies further off than sound sets do, and a temperature off what the measured ratio itself explains. */
function bothFit(
  design: StagesDesign,
  pressures: readonly number[],
  temps: readonly (number | null)[],
  findings: readonly StageFinding[],
): boolean {
  const { pressure, tempK } = SCATTER.reckoned;
  const pressureTells = findings
    .slice(0, -1)
    .some(({ pressureOff }) => Math.abs(Math.log(1 + pressureOff)) >= SPEAKS * pressure);
  const { outletTempsC } = predictStages({ ...design, pressuresBarAbs: pressures }, []);
  const tempTells = temps.some(
    (temp, index) => temp !== null && Math.abs(temp - outletTempsC[index]!) >= SPEAKS * tempK,
  );
  return pressureTells && tempTells;
}
