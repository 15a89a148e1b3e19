import seedrandom from 'seedrandom';
import { simulatedCauses, symptomByCode, type CauseCode, type SimulatedFamily } from '../../faults/index.js';
import { handlings, highPressureHandling, type Handling } from '../../simulator/index.js';
import type { Exercise, Hands, HiddenFault, Tried } from '../exercise.js';
import { fills, pumpsUp, runsCool } from './proofs.js';
import { plateOf } from './small.js';

/** Code of the exercise that is drawn by lot. */
export const FREE = 'free';

interface Drawable {
  readonly symptom: string;
  readonly handling: Handling;
  readonly story: string;
  readonly goal: string;
  readonly holds: Exercise['holds'];
  readonly sets?: Exercise['sets'];
  readonly runsBefore: number;
  readonly proves: Exercise['proves'];
}

/** Keeps its pressure while air is taken. */
function holdsUp(hands: Hands): Tried {
  const ran = runsCool(hands, 15, 108);
  if (!ran.isMet) return ran;
  const bar = hands.simulation.trueBar('receiver');
  return {
    isMet: bar >= 6,
    text: `${ran.text} The receiver stands at ${bar.toFixed(1)} bar with the hall at work.`,
  };
}

const drawable: Readonly<Record<SimulatedFamily, Drawable>> = {
  piston: {
    symptom: 'P4',
    handling: handlings.piston,
    story: 'A workshop set of two stages. It gets there, but slowly, they say.',
    goal: 'Up to cut-out in its old time, in three hours.',
    holds: { receiver: [5, 7], network: [5, 5] },
    runsBefore: 120,
    proves: (hands) => pumpsUp(hands, 10, 6),
  },
  'oil-free': {
    symptom: 'F4',
    handling: handlings.oilFree,
    story: 'A small oil-free set. It gets there, but slowly, they say.',
    goal: 'Up to cut-out in its old time, in three hours.',
    holds: { receiver: [4, 5], outlet: [4, 4] },
    runsBefore: 30,
    proves: (hands) => pumpsUp(hands, 8, 2),
  },
  screw: {
    symptom: 'S3',
    handling: handlings.screw,
    story: 'A screw on a network. The pressure sags when the hall is at work, they say.',
    goal: 'Six bar with the hall at work, in three hours.',
    holds: { receiver: [5.5, 6.5], network: [5.5, 5.5] },
    sets: { demand: 0.55 },
    runsBefore: 300,
    proves: holdsUp,
  },
  'high-pressure': {
    symptom: 'H2',
    handling: highPressureHandling(4),
    story: 'Four stages with a bank of two bottles. Filling takes longer than it did, they say.',
    goal: 'At its old speed again, in four hours.',
    holds: { tower: [90, 130], panel: [90, 90] },
    runsBefore: 0,
    proves: (hands) => fills(hands, 200, 3),
  },
};

/** Nothing is wrong with so many of them, and two things with so many. */
const [NONE, TWO] = [0.12, 0.2];
const SIZES = [0.35, 0.9] as const;

/** A machine drawn by lot: family, fault, size; sometimes two faults, sometimes none. */
export function freeExercise(seed: string): Exercise {
  const random = seedrandom(`${FREE}/${seed}`);
  const pick = <One>(from: readonly One[]): One => from[Math.floor(random() * from.length)]!;
  const family = pick(Object.keys(drawable) as SimulatedFamily[]);
  const { story, goal, holds, sets, runsBefore, handling, symptom, proves } = drawable[family];
  const plate = plateOf(family);
  const known = simulatedCauses[family];
  const causes = Object.keys(symptomByCode(symptom)!.rates).filter(
    (code) => known[code as CauseCode] !== undefined,
  ) as CauseCode[];
  const chance = random();
  const many = chance < NONE ? 0 : chance < NONE + TWO ? 2 : 1;
  const hidden: HiddenFault[] = [];
  while (hidden.length < many) {
    const cause = pick(causes);
    if (hidden.some((one) => one.cause === cause)) continue;
    hidden.push({ cause, faults: { [pick(known[cause]!)]: SIZES } });
  }
  return {
    code: FREE,
    number: 0,
    name: 'A machine drawn by lot',
    story: `${story} Perhaps one thing is wrong with it, perhaps two, perhaps nothing.`,
    goal,
    goalMinutes: family === 'high-pressure' ? 240 : 180,
    plate,
    handling,
    symptom,
    hidden,
    deceives: {},
    holds,
    ...(sets ? { sets } : {}),
    runsBefore,
    acts: [],
    proves,
    ends: [],
    trap: 'What was drawn here is not known before. What holds pressure is vented and looked at again, whatever it is.',
  };
}
