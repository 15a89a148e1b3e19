import type { StageFault, StageSuspect } from './faulty-stages.js';

/** What is looked at besides gauges and thermometers, with what was found. */
export interface StageLooks {
  /** Whether the breather of the crankcase puffs in time with the strokes. */
  readonly breatherPuffs?: boolean | undefined;
  /** The stage whose gauge rises in the minutes after the stop; 0 for none of them. */
  readonly risesAfterStop?: number | undefined;
}

export const stageLookKinds = [
  'temperatures',
  'breather',
  'after-stop',
  'second-gauge',
  'cooled-air',
  'intake',
] as const;

/** Something to look at next. */
export interface StageLook {
  readonly kind: (typeof stageLookKinds)[number];
  /** The stage whose gauge, or the air after whose cooler; 0 where it is of no stage. */
  readonly stage: number;
}

/** How often each is seen with its fault, and without (common practice). */
const SEEN = {
  breather: [0.85, 0.1],
  'after-stop': [0.75, 0.08],
  'second-gauge': [0.95, 0.03],
  'cooled-air': [0.9, 0.08],
  intake: [0.9, 0.05],
} as const;

const has = (faults: readonly StageFault[], kind: StageFault['kind'], stage?: number) =>
  faults.some((fault) => fault.kind === kind && (stage === undefined || fault.stage === stage));

/** The chance that a look shows something, were these the faults. */
function chanceSeen({ kind, stage }: StageLook, faults: readonly StageFault[]): number {
  const of = (seen: boolean, kinds: keyof typeof SEEN) => SEEN[kinds][seen ? 0 : 1];
  switch (kind) {
    case 'breather':
      return of(has(faults, 'ring'), kind);
    // After the stop the pressure of the next stage comes back through its valves.
    case 'after-stop':
      return of(has(faults, 'valves', stage + 1), kind);
    case 'second-gauge':
      return of(has(faults, 'gauge', stage), kind);
    case 'cooled-air':
      return of(has(faults, 'cooler', stage), kind);
    case 'intake':
      return of(has(faults, 'intake'), kind);
    case 'temperatures':
      return 0.5;
  }
}

/** How likely what was looked at is, were these the faults. */
export function lookLikelihood(
  { breatherPuffs, risesAfterStop }: StageLooks,
  faults: readonly StageFault[],
): number {
  let likelihood = 1;
  if (breatherPuffs !== undefined) {
    const puffs = chanceSeen({ kind: 'breather', stage: 0 }, faults);
    likelihood *= breatherPuffs ? puffs : 1 - puffs;
  }
  if (risesAfterStop === 0) {
    for (const { kind, stage } of faults) {
      if (kind === 'valves' && stage > 1) likelihood *= 1 - SEEN['after-stop'][0];
    }
  } else if (risesAfterStop !== undefined) {
    likelihood *= chanceSeen({ kind: 'after-stop', stage: risesAfterStop }, faults);
  }
  return likelihood;
}

/** What a look must teach to be worth it, in nats; measuring the outlets comes first wherever they are missing. */
const WORTHWHILE = 0.08;

/** The look that would best tell apart what is left (expected gain of information). */
export function nextLook(
  suspects: readonly StageSuspect[],
  temps: readonly (number | null)[],
  looks: StageLooks,
): StageLook | null {
  if (suspects[0]!.faults.length === 0 && suspects[0]!.probability > 0.7) return null;
  if (temps.some((temp) => temp === null)) return { kind: 'temperatures', stage: 0 };
  const gauges = temps.slice(0, -1).map((_, index) => index + 1);
  const candidates: StageLook[] = [
    ...(looks.breatherPuffs === undefined ? [{ kind: 'breather', stage: 0 } as const] : []),
    ...(looks.risesAfterStop === undefined
      ? gauges.map((stage) => ({ kind: 'after-stop', stage }) as const)
      : []),
    ...gauges.flatMap((stage) => [
      { kind: 'second-gauge', stage } as const,
      { kind: 'cooled-air', stage } as const,
    ]),
    { kind: 'intake', stage: 0 },
  ];
  const worth = candidates.map((look) => ({ look, gain: gainOf(look, suspects) }));
  const best = worth.reduce((a, b) => (b.gain > a.gain ? b : a));
  return best.gain >= WORTHWHILE ? best.look : null;
}

/** Mutual information of a look and the suspects, nats. */
function gainOf(look: StageLook, suspects: readonly StageSuspect[]): number {
  const entropy = (chance: number) =>
    chance <= 0 || chance >= 1 ? 0 : -chance * Math.log(chance) - (1 - chance) * Math.log(1 - chance);
  let [seen, left] = [0, 0];
  for (const { faults, probability } of suspects) {
    const chance = chanceSeen(look, faults);
    seen += probability * chance;
    left += probability * entropy(chance);
  }
  return entropy(seen) - left;
}
