import { trendOf, type TrendPoint } from '@entretien/core/checks';
import seedrandom from 'seedrandom';
import { randomOf, type Random } from './habits.js';
import { median, report } from './measure.js';

/** Cases of each shape, noise and number of cycles before. */
const EACH = 250;
const REPORT_SEED = 'untouched-2026-11';
const NOISES = [0.02, 0.05];
const CYCLES = [0, 1, 2, 3];

/** Wear from 0 when new to 1 at the end of its life. */
const shapes: Readonly<Record<string, (share: number) => number>> = {
  x: (share) => share,
  'x²': (share) => share ** 2,
  'x³': (share) => share ** 3,
  '√x': (share) => Math.sqrt(share),
  exponential: (share) => Math.expm1(4 * share) / Math.expm1(4),
  'x⁶': (share) => share ** 6,
  step: (share) => (share >= 1 ? 1.2 : 0),
};

/** A figure goes from 0.2 to its limit of 1. */
const [NEW, LIMIT] = [0.2, 1];

interface Case {
  readonly points: readonly TrendPoint[];
  readonly resets: readonly number[];
  readonly endsAt: number;
  readonly life: number;
}

/** One machine: cycles that ended at 70 to 105 % of their lives, and one of which 30 to 85 % have passed. */
function drawn(random: Random, wear: (share: number) => number, noise: number, cycles: number): Case {
  const usual = 500 * Math.exp(random.between(0, 3));
  const lifeOf = () => usual * Math.exp(0.25 * random.normal());
  const points: TrendPoint[] = [];
  const resets = [0];
  const measure = (from: number, age: number, life: number) => {
    const value = NEW + (LIMIT - NEW) * (wear(age / life) + noise * random.normal());
    points.push({ hours: from + age, value, uncertainty: noise * (LIMIT - NEW) });
  };
  for (let cycle = 0; cycle < cycles; cycle++) {
    const life = lifeOf();
    const until = life * random.between(0.7, 1.05);
    const count = Math.floor(random.between(4, 9));
    for (let index = 0; index < count; index++) {
      measure(resets.at(-1)!, (until * (index + random.between(0, 0.5))) / count, life);
    }
    resets.push(resets.at(-1)! + until);
  }
  const life = lifeOf();
  const last = life * random.between(0.3, 0.85);
  const count = Math.floor(random.between(3, 9));
  for (let index = 0; index < count; index++) {
    const late = index === count - 1 ? 1 : random.between(0, 0.8);
    measure(resets.at(-1)!, (last * (index + late)) / count, life);
  }
  return { points, resets, endsAt: resets.at(-1)! + life, life };
}

interface Tally {
  readonly shape: string;
  readonly cycles: number;
  cases: number;
  inside: number;
  sooner: number;
  none: number;
  foreseeable: number;
  readonly errors: number[];
}

function judge({ points, resets, endsAt, life }: Case, tally: Tally): void {
  tally.cases += 1;
  const trend = trendOf(points, resets, LIMIT, 'higher');
  if (trend?.isForeseeable) tally.foreseeable += 1;
  const limit = trend?.limitHours;
  if (!limit) {
    tally.none += 1;
    tally.errors.push(Infinity);
    return;
  }
  if (endsAt < limit.early) tally.sooner += 1;
  else if (limit.late === null || endsAt <= limit.late) tally.inside += 1;
  tally.errors.push(Math.abs(limit.likely - endsAt) / life);
}

/** How often the band of a check's trend holds the hour at which its limit is truly reached. */
export function trendsBench(): void {
  const seed = process.env['ENTRETIEN_CALIBRATION_SEED'] ?? REPORT_SEED;
  const tallies = Object.entries(shapes).flatMap(([shape, wear]) =>
    CYCLES.map((cycles): Tally => {
      const tally = { shape, cycles, cases: 0, inside: 0, sooner: 0, none: 0, foreseeable: 0, errors: [] };
      for (const noise of NOISES) {
        const random = randomOf(seedrandom(`${seed} ${shape} ${cycles} ${noise}`));
        for (let index = 0; index < EACH; index++) judge(drawn(random, wear, noise, cycles), tally);
      }
      return tally;
    }),
  );
  const percent = (part: number, tally: Tally) => `${((100 * part) / tally.cases).toFixed(1)} %`.padStart(8);
  console.log(
    [
      `Trends of checks: band to the limit (meant to hold 80 %), ${EACH * NOISES.length} cases a row, no life of the family told, seed "${seed}"`,
      '  shape       past cycles  in band   sooner  no date  told foreseeable  median error, of the life',
      ...tallies.map((tally) =>
        [
          `  ${tally.shape.padEnd(12)} ${String(tally.cycles).padStart(10)}`,
          percent(tally.inside, tally),
          percent(tally.sooner, tally),
          percent(tally.none, tally),
          percent(tally.foreseeable, tally).padStart(16),
          `${(100 * median(tally.errors)).toFixed(0)} %`.padStart(12),
        ].join(' '),
      ),
      '',
    ].join('\n'),
  );
  const held = (of: readonly Tally[]) =>
    of.reduce((sum, { inside }) => sum + inside, 0) / of.reduce((sum, { cases }) => sum + cases, 0);
  const gradual = tallies.filter(({ shape }) => shape !== 'step');
  const overall = held(gradual);
  report(
    'Band over all shapes but the step',
    overall,
    overall >= 0.75 && overall <= 0.88,
    '0.75 to 0.88',
    '',
  );
  const least = (some: readonly Tally[]) => Math.min(...some.map((tally) => held([tally])));
  const without = least(gradual.filter(({ cycles }) => cycles === 0));
  report('Band of the shape it holds least, without past cycles', without, without >= 0.6, '≥ 0.60', '');
  const learnt = least(gradual.filter(({ cycles }) => cycles >= 2));
  report(
    'Band of the shape it holds least, with two past cycles or more',
    learnt,
    learnt >= 0.75,
    '≥ 0.75',
    '',
  );
  const steps = tallies.filter(({ shape }) => shape === 'step');
  const sudden = held(steps);
  const foreseen =
    steps.reduce((sum, tally) => sum + tally.foreseeable, 0) / (steps.length * EACH * NOISES.length);
  report(
    'Band of steps, which no measuring foresees',
    sudden,
    sudden >= 0.7,
    '≥ 0.70',
    `${(100 * (1 - foreseen)).toFixed(1)} % of them are told as not foreseeable by measuring.`,
  );
}
