import { handlings } from '../../simulator/index.js';
import type { Exercise, Hands, Tried } from '../exercise.js';
import { runsCool } from './proofs.js';
import { plateOf } from './small.js';

const afternoon: Exercise = {
  code: 'afternoon',
  number: 6,
  name: 'A hot afternoon',
  story:
    'Screw on the network of the dairy. Since yesterday it trips at 110 °C. It was cleaned outside last week, and the cheese needs air until evening.',
  goal: 'It runs through a hot afternoon: under load for most of an hour, without a trip. Two and a half hours.',
  goalMinutes: 150,
  plate: plateOf('screw'),
  handling: handlings.screw,
  symptom: 'S4',
  hidden: [{ cause: 'COOL', faults: { 'cooler-dirty': [0.55, 0.62], 'panel-off': [1, 1] } }],
  deceives: { 'blow-down-shut': [1, 1] },
  holds: { receiver: [6.5, 7], network: [6.5, 6.5] },
  sets: { demand: 0.5 },
  runsBefore: 900,
  shows: { T26: 'dirty' },
  acts: [
    {
      code: 'note-blow-down',
      name: 'Put on record: the vessel stays full after the stop, its blow-down does not open',
      minutes: 2,
      isOffered: ({ isLocked }) => isLocked,
      does: () => 'On record. Nobody opens anything of the oil before it is mended.',
    },
  ],
  proves: (hands) => runsCool(hands, 45, 100),
  ends: [
    {
      text: 'the blow-down that does not open is on record',
      isMet: ({ did }) => did('note-blow-down'),
    },
  ],
  trap: 'It stopped, so it must be empty, and a little oil cools: the blow-down was stuck, with more than four bar over oil of a hundred degrees. The vessel is proved at its own gauge and its own vent, and the oil waited for until it is under 60 °C.',
};

/** Under load for long enough that no oil comes along any more. */
function runsDry(hands: Hands): Tried {
  const ran = runsCool(hands, 20, 105);
  if (!ran.isMet) return ran;
  const isOily = hands.simulation.see().senses.some(({ code }) => code === 'oil-mist');
  return {
    isMet: !isOily,
    text: `${ran.text} ${isOily ? 'There is oil in the air.' : 'The air is free of oil.'}`,
  };
}

const oilInNetwork: Exercise = {
  code: 'oil-in-network',
  number: 7,
  name: 'Oil in the network',
  story:
    'Screw of the packing hall. The filters after the dryer drip with oil, two litres a week are missing. Another set holds the network up meanwhile.',
  goal: 'No more oil in the filters, in five hours: hot oil takes two of them.',
  goalMinutes: 300,
  plate: plateOf('screw'),
  handling: handlings.screw,
  symptom: 'S6',
  hidden: [{ cause: 'SCAV', faults: { scavenge: [0.85, 0.95] }, opens: ['separator'] }],
  deceives: { 'minimum-pressure-open': [0.12, 0.14] },
  holds: { receiver: [6.8, 7.2], network: [6.8, 6.8] },
  sets: { demand: 0.55, 'other-set': 1 },
  supplyBar: 6.8,
  runsBefore: 900,
  shows: { T27: 'cold' },
  acts: [
    {
      code: 'note-valve',
      name: 'Put on record: the minimum-pressure valve lets air back',
      minutes: 2,
      isOffered: ({ isLocked }) => isLocked,
      does: () => 'On record, for the next visit with a kit.',
    },
  ],
  proves: runsDry,
  ends: [],
  trap: 'The minimum-pressure valve lets air back from the network: with the outlet valve open the vessel is vented, proved, and full again ten minutes later. Outlet valve shut, the part between vented too, and a second look before the lid.',
};

export const screwExercises: readonly Exercise[] = [afternoon, oilInNetwork];
