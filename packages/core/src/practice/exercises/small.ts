import { boardMachines, handlings, type Simulation } from '../../simulator/index.js';
import type { Exercise, Hands } from '../exercise.js';
import { pumpsUp } from './proofs.js';

export const plateOf = (code: string) => boardMachines.find((machine) => machine.code === code)!.plate;

/** Vented as far as anybody can see: locked, and hardly anything left. */
const isVented = (space: string) => (hands: Hands) => hands.isLocked && hands.simulation.trueBar(space) < 0.1;

const hums: Exercise = {
  code: 'hums',
  number: 1,
  name: 'It hums and trips',
  story:
    'The joinery of the Skarn mill: a small oil-free set on one phase. It hums, does not turn, and its relay trips. At every start it hisses at the side for a moment.',
  goal: 'It runs to cut-out again within half an hour.',
  goalMinutes: 30,
  plate: plateOf('oil-free'),
  handling: handlings.oilFree,
  symptom: 'F1',
  hidden: [{ cause: 'CAP', faults: { capacitor: [0.66, 0.8] }, minutes: 12 }],
  deceives: {},
  holds: { receiver: [2.5, 3.5], outlet: [2.5, 2.5] },
  runsBefore: 60,
  shows: { T10: 'outside' },
  hurts: ({ did, isLocked }, { test, repair }) => {
    if (test !== 'T10' && repair !== 'CAP') return null;
    if (!isLocked || did('discharge')) return null;
    return {
      happened:
        'Both hands at the terminals of the capacitor: it still held its charge, with the plug out. The spanner jumps, and so does the arm.',
      leftOut:
        'A capacitor holds its charge without power: it is discharged through a resistor and measured empty before it is touched.',
    };
  },
  acts: [
    {
      code: 'discharge',
      name: 'Discharge the capacitor through a resistor, and measure that it is empty',
      minutes: 2,
      isOffered: ({ isLocked }) => isLocked,
      does: () => 'Discharged: 0 V.',
    },
    {
      code: 'plug-bleed',
      name: 'Plug the start bleed that hisses',
      minutes: 4,
      does: ({ simulation }) => {
        simulation.fault('unloader-shut', 1);
        return 'Plugged. It no longer hisses at the start.';
      },
      risk: {
        text: 'Start bleed plugged: it starts against a full head, stalls, and the winding burns',
        minutes: 45,
      },
    },
    {
      code: 'free-bleed',
      name: 'Take the plug out of the start bleed',
      minutes: 3,
      isOffered: ({ did }) => did('plug-bleed'),
      does: ({ simulation }) => {
        simulation.fault('unloader-shut', 0);
        return 'The bleed is free again.';
      },
    },
  ],
  proves: (hands) => pumpsUp(hands, 8, 8),
  ends: [
    {
      text: 'the start bleed is free',
      isMet: ({ did }) => !did('plug-bleed') || did('free-bleed'),
    },
  ],
  trap: 'The bleed hisses for a moment at every start: that is how it starts without load, no leak. And a capacitor holds its charge when the plug is out.',
};

const noon: Exercise = {
  code: 'noon',
  number: 2,
  name: 'Full by noon',
  story:
    'Workshop set of two stages at Brenna quay. Since the morning it runs without a break and never switches itself off. The painters begin at noon.',
  goal: 'The receiver is full by noon: three quarters of an hour.',
  goalMinutes: 45,
  plate: plateOf('piston'),
  handling: handlings.piston,
  symptom: 'P3',
  hidden: [{ cause: 'DRN', faults: { 'drain-receiver-open': [0.12, 0.2] }, minutes: 1, isByHand: true }],
  deceives: {},
  holds: { receiver: [5.5, 6.5], network: [5.5, 5.5] },
  runsBefore: 120,
  shows: { T1: 'open' },
  acts: [],
  proves: (hands) => pumpsUp(hands, 10, 10),
  ends: [{ text: 'found without opening anything', isMet: ({ opened }) => opened.size === 0 }],
  trap: 'A walk round drains and cocks takes a minute. Whoever takes the head off first has the receiver behind it; whoever takes the belt guard off while it stands waiting has it start on their hand.',
};

/** Air let off by a way that is not the drain, until none is left. */
function secondOpening(hands: Hands): string {
  const { simulation } = hands;
  const from = hands.seconds;
  simulation.fault('machine-leak', 1);
  const isEmpty = () => simulation.trueBar('receiver') < 0.02;
  while (!isEmpty() && hands.seconds - from < 1800) hands.pass(10);
  simulation.fault('machine-leak', 0);
  const seconds = hands.seconds - from;
  return seconds === 0
    ? 'Eased by its ring, from the side: nothing comes.'
    : `Eased by its ring, from the side: air comes, for ${seconds} s, then it is silent. It was full.`;
}

const twoThirds: Exercise = {
  code: 'two-thirds',
  number: 3,
  name: 'It stalls at two thirds',
  story:
    'Oil-free set of the dental practice in Lower Haldris. It runs on and never gets there. The intake element was lost in spring and nobody fitted another.',
  goal: 'Mended, and proved by a timed pump-up, in four hours.',
  goalMinutes: 240,
  plate: plateOf('oil-free'),
  handling: handlings.oilFree,
  symptom: 'F3',
  hidden: [{ cause: 'RING', faults: { 'ring-1': [0.96, 1] }, opens: ['check-valve', 'stages'] }],
  deceives: {},
  holds: { receiver: [5, 5.6], outlet: [5, 5] },
  runsBefore: 300,
  shows: { T1: 'usual', T4: 'torn', T18: 'slow', T38: 'ring' },
  acts: [
    {
      code: 'element',
      name: 'Fit an intake element of the right size',
      minutes: 5,
      isOffered: ({ isLocked }) => isLocked,
      does: () => 'Fitted. The next ring lives longer.',
    },
  ],
  interruption: {
    comes: isVented('receiver'),
    minutes: 5,
    text: 'Called to the telephone. Half an hour later you are back: the plug lies where it lay.',
    does: ({ simulation, pass }) => {
      // Somebody wanted air: plugged in, drain shut because it hissed, run full, and put back as it was.
      for (const code of ['drain-receiver', 'trigger']) simulation.turn(code, 0);
      simulation.fault('ring-1', 0.3);
      simulation.press('power-on');
      simulation.press('start');
      pass(1500);
      simulation.press('stop');
      simulation.press('power-off');
      simulation.fault('ring-1', 1);
    },
  },
  proves: (hands) => pumpsUp(hands, 8, 8),
  ends: [{ text: 'a new intake element is fitted', isMet: ({ did }) => did('element') }],
  trap: 'Somebody plugged it in while you were away, and put everything back as it was. After a pause: one look at every gauge and vent, and the hold again, before the check valve is touched.',
};

const everyMinute: Exercise = {
  code: 'every-minute',
  number: 4,
  name: 'It starts every minute',
  story:
    'Workshop set at the blasting yard. It starts and stops all day, the air is wet, and its gauge has shown one bar for weeks. A shift of two hours begins after lunch.',
  goal: 'Two hours of blasting without a start every minute: ready in two and a half hours.',
  goalMinutes: 150,
  plate: plateOf('piston'),
  handling: handlings.piston,
  symptom: 'P7',
  hidden: [
    {
      cause: 'WATR',
      faults: { waterlogged: [1, 1], 'drain-receiver-blocked': [1, 1] },
      minutes: 25,
      opens: ['receiver'],
    },
  ],
  deceives: {},
  holds: { receiver: [8.6, 9.4], network: [8.6, 8.6] },
  sets: { demand: 0.12 },
  runsBefore: 240,
  shows: { T19: 'cannot-tell', T15: 'usual', T17: 'usual', T1: 'usual' },
  says: { T19: 'Nothing comes out of the drain' },
  prepares: (simulation: Simulation) => {
    const gauge = simulation.machine.gauges.get('receiver')!;
    gauge.reading = 1;
    gauge.sticks = 1;
  },
  acts: [
    {
      code: 'second-opening',
      name: 'Ease the relief valve by its ring, from the side: a second opening on the receiver',
      minutes: 1,
      isOffered: ({ isLocked }) => isLocked,
      does: secondOpening,
    },
    {
      code: 'inspect',
      name: 'Look into the receiver with a lamp: wall, bottom, seams',
      minutes: 15,
      isOffered: ({ hasMended }) => hasMended('WATR'),
      does: () => 'Rust in the bottom, no pits, seams sound. Noted with a picture.',
    },
    {
      code: 'gauge',
      name: 'Renew the gauge of the receiver',
      minutes: 10,
      isOffered: ({ hasMended, isLocked }) => hasMended('WATR') && isLocked,
      does: ({ simulation }) => {
        simulation.machine.gauges.get('receiver')!.sticks = 0;
        return 'A new gauge: it stands at zero, and was seen to.';
      },
    },
  ],
  proves: (hands) => pumpsUp(hands, 10, 12),
  ends: [
    { text: 'air was let off by a second opening', isMet: ({ did }) => did('second-opening') },
    { text: 'the receiver was looked into before use', isMet: ({ did }) => did('inspect') },
    { text: 'the gauge was renewed', isMet: ({ did }) => did('gauge') },
  ],
  trap: 'The drain passed nothing because it was caked, and the needle stood at one bar because it sticks: behind both were nine bar. A drain that passes nothing is blocked until a second opening says otherwise.',
};

export const smallExercises: readonly Exercise[] = [hums, noon, twoThirds, everyMinute];
