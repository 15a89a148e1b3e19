import { highPressureHandling } from '../../simulator/index.js';
import type { Exercise, Hands, Tried } from '../exercise.js';
import { fills } from './proofs.js';
import { plateOf } from './small.js';

const threeStages = { ...plateOf('high-pressure'), stages: 3 };

/** A needle that no longer moves. */
const stands = (bar: number) => (simulation: Hands['simulation']) => {
  const gauge = simulation.machine.gauges.get('tower')!;
  gauge.reading = bar;
  gauge.sticks = 1;
};

const tenCylinders: Exercise = {
  code: 'ten-cylinders',
  number: 10,
  name: 'Ten cylinders by the evening',
  story:
    'Three-stage set of the diving club. It takes half as long again as last year, and the final needle has stood at 40 bar since last week; they go by the gauge of the panel.',
  goal: 'Ten cylinders by the evening: the set at its old speed in four hours.',
  goalMinutes: 240,
  plate: threeStages,
  handling: highPressureHandling(3),
  symptom: 'H2',
  hidden: [{ cause: 'DRN', faults: { 'drain-2-open': [0.16, 0.24] }, opens: ['stages'], minutes: 20 }],
  deceives: {},
  holds: { tower: [110, 130], panel: [100, 100], 'stage-1': [1, 1], 'stage-2': [8, 8] },
  runsBefore: 0,
  prepares: stands(40),
  shows: { T1: 'open', T24: 'not' },
  acts: [
    {
      code: 'gauge',
      name: 'Renew the final gauge',
      minutes: 20,
      opens: ['tower'],
      does: ({ simulation }) => {
        simulation.machine.gauges.get('tower')!.sticks = 0;
        return 'A new final gauge; it stands at zero, and was seen to.';
      },
    },
  ],
  proves: (hands) => fills(hands, 200, 3),
  ends: [{ text: 'the final gauge is renewed', isMet: ({ did }) => did('gauge') }],
  trap: 'A needle that stands says nothing, high or low: behind it were more than a hundred bar. It has to be seen to fall while the bleed is heard, or a second gauge says it.',
};

/** Runs up to a pressure with the relief valve after the second stage silent. */
function staysShut(hands: Hands): Tried {
  const ran = fills(hands, 200, 3);
  if (!ran.isMet) return ran;
  hands.simulation.press('start');
  hands.pass(20);
  const blows = hands.simulation.see().senses.some(({ code }) => code === 'relief-2');
  hands.simulation.press('stop');
  return {
    isMet: !blows,
    text: `${ran.text} The relief valve after stage 2 ${blows ? 'blows.' : 'stays shut.'}`,
  };
}

const reliefBlows: Exercise = {
  code: 'relief-blows',
  number: 11,
  name: 'A relief valve blows',
  story:
    'Four stages and a bank of two bottles at the rescue station. Since Monday the relief valve after the second stage blows while it runs, and filling takes longer.',
  goal: 'The bank is full for the night: four hours.',
  goalMinutes: 240,
  plate: plateOf('high-pressure'),
  handling: highPressureHandling(4),
  symptom: 'H4',
  hidden: [{ cause: 'VD', faults: { 'discharge-valve-3': [0.3, 0.4] }, opens: ['stages'] }],
  deceives: { 'holding-valve': [0.4, 0.7], 'tower-check': [0.4, 0.7], 'bank-valve': [0.3, 0.5] },
  holds: { tower: [140, 150], panel: [150, 150], 'bank-1': [180, 180], 'bank-2': [180, 180] },
  runsBefore: 300,
  shows: { T22: 'high', T20: 'discharge' },
  acts: [
    {
      code: 'screw-relief',
      name: 'Screw the relief valve in by a turn, so that it holds',
      minutes: 3,
      does: () => ({
        happened:
          'It holds, for two minutes. Then the cooler behind the second stage opens along its seam, at three times what it is made for.',
        leftOut:
          'A relief valve is never set to keep it shut. It says that the stage after it sends air back: that is looked for.',
      }),
    },
  ],
  proves: staysShut,
  ends: [],
  trap: 'One valve of the bank does not quite shut, and the holding valve lets air back: the tower was proved, and fills again. Panel vented and left open, and the second look after five minutes, before a cover comes off.',
};

const crewsWait: Exercise = {
  code: 'crews-wait',
  number: 12,
  name: 'Crews need air in an hour',
  story:
    'Four stages on a vehicle, breathing air, a generator running beside it. The CO alarm sounds, the air smells, and three cylinders were filled since the last good reading. It is a cold night.',
  goal: 'Breathing air in an hour and a half.',
  goalMinutes: 90,
  plate: plateOf('high-pressure'),
  handling: highPressureHandling(4),
  symptom: 'H9',
  hidden: [
    { cause: 'INTK', faults: { 'exhaust-at-intake': [0.6, 0.9] }, minutes: 10 },
    { cause: 'CART', faults: { cartridge: [1, 1] }, minutes: 20 },
  ],
  deceives: { 'bleed-tower-blocked': [1, 1] },
  holds: { tower: [120, 140], panel: [110, 110], 'bank-1': [40, 40], 'bank-2': [40, 40] },
  runsBefore: 120,
  shows: { T33: 'intake', T35: 'spent' },
  acts: [
    {
      code: 'mute',
      name: 'Mute the alarm and go on filling',
      minutes: 1,
      does: () => ({
        happened:
          'Two cylinders go to the crew. One of them is carried out of the smoke by his partner, with carbon monoxide in his blood.',
        leftOut:
          'An alarm of the CO monitor ends the filling, whatever waits. Nobody breathes what was filled since the last good reading.',
      }),
    },
    {
      code: 'set-aside',
      name: 'Stop filling; set the three cylinders aside, marked “do not breathe”',
      minutes: 5,
      does: ({ simulation }) => {
        simulation.press('stop');
        return 'Stopped. Three cylinders marked and set aside; the crew is told.';
      },
    },
    {
      code: 'thaw',
      name: 'Thaw the bleed of the tower with warm water, from the side',
      minutes: 10,
      isOffered: ({ isLocked }) => isLocked,
      does: ({ simulation }) => {
        simulation.fault('bleed-tower-blocked', 0);
        return 'Ice comes off the bleed.';
      },
    },
    {
      code: 'waste',
      name: 'Run to waste for ten minutes and read the CO at the outlet',
      minutes: 0,
      isOffered: ({ hasMended, isLocked }) => hasMended('INTK') && hasMended('CART') && !isLocked,
      does: (hands) => {
        hands.simulation.turn('vent-panel', 1);
        hands.simulation.press('start');
        hands.pass(600);
        const isHigh = hands.simulation.see().senses.some(({ code }) => code === 'co');
        hands.simulation.press('stop');
        hands.simulation.turn('vent-panel', 0);
        return isHigh ? 'The monitor still sounds.' : 'Run to waste: 0 ppm, no smell.';
      },
    },
  ],
  proves: (hands) => fills(hands, 200, 3),
  ends: [
    { text: 'the cylinders filled before are set aside', isMet: ({ did }) => did('set-aside') },
    { text: 'run to waste, and the CO read, before the first cylinder', isMet: ({ did }) => did('waste') },
  ],
  trap: 'A frozen bleed that passes nothing is no empty tower. And no alarm is muted: what was filled since the last good reading is set aside.',
};

export const highPressureExercises: readonly Exercise[] = [tenCylinders, reliefBlows, crewsWait];
