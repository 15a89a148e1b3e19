import { stagesOf } from '../../machine/index.js';
import { refuse } from '../../basics/index.js';
import type { CheckDefinition } from '../check.js';
import { ambient, choice, gauge, number, quantity } from '../fields.js';
import {
  doTask,
  isHighPressure,
  isScrew,
  judged,
  limit,
  lookAt,
  percent,
  stepOf,
  whenHigh,
} from '../judging.js';

/** This near its trip a temperature is acted on, K (common practice). */
const NEAR_TRIP_K = 5;
/** Drop over a separator element, bar (common practice). */
const SEPARATOR = { watch: 0.7, act: 1 } as const;

export const heatChecks: readonly CheckDefinition[] = [
  {
    code: 'discharge-temperature',
    name: 'Discharge temperature',
    how: 'Warm, under load, at the outlet of the stage or airend; the air about it too.',
    caution: 'Reciprocating stages can reach 200 °C: by instrument, not by hand.',
    station: (plate) => (isScrew(plate) ? 'airend' : `stage-${stagesOf(plate)}`),
    applies: () => true,
    fields: [
      quantity('temperature', 'tempC', 'Discharge', -40, 300),
      ambient('ambientC', 'Air about it'),
      quantity('temperature-rise', 'mostRiseK', 'Most rise by the book', 5, 250, { stays: true }),
      quantity('temperature', 'tripC', 'It trips at', 40, 300, { optional: true, stays: true }),
    ],
    figure: { name: 'Rise over the air about it', quantity: 'temperature-rise', worse: 'higher', noise: 2 },
    resetBy: ['cooling-clean', 'oil-change'],
    judge(given) {
      const [temp, air, most] = [given.need('tempC'), given.need('ambientC'), given.need('mostRiseK')];
      const trip = given.number('tripC');
      const rise = temp - air;
      if (temp < air)
        return refuse(
          'colder-than-air',
          'Compressed air is no colder than the air about it. Are the two mixed up?',
          'tempC',
        );
      const shown = `${given.say(temp, 'temperature')}, ${given.say(rise, 'temperature-rise')} above the air`;
      const parts = {
        limit: limit(most, `a rise of ${given.say(most, 'temperature-rise')}`, 'book'),
        figure: { value: rise, uncertainty: 2 },
        figures: [{ name: 'Rise', value: rise, quantity: 'temperature-rise' }],
      } as const;
      const cool = [
        doTask('cooling-clean', 'Cooler face, fins and fan'),
        lookAt('cooling', 'Oil level, panels on, fan, cross-flow in the room'),
      ];
      if (trip !== undefined && temp >= trip) {
        return judged('stop', `${shown}: at its trip of ${given.say(trip, 'temperature')}.`, {
          ...parts,
          suggests: cool,
        });
      }
      if (trip !== undefined && temp >= trip - NEAR_TRIP_K) {
        return judged('act', `${shown}: close to its trip of ${given.say(trip, 'temperature')}.`, {
          ...parts,
          suggests: cool,
        });
      }
      if (rise > most) {
        return judged('watch', `${shown}; the book allows ${given.say(most, 'temperature-rise')}.`, {
          ...parts,
          suggests: cool,
        });
      }
      return judged('good', `${shown}; the book allows ${given.say(most, 'temperature-rise')}.`, parts);
    },
  },
  {
    code: 'separator-drop',
    name: 'Pressure drop of the separator',
    how: 'Loaded and warm: pressure before the element less that behind.',
    station: () => 'separator',
    applies: isScrew,
    fields: [gauge('dropBar', 'Drop', { max: 5 })],
    figure: { name: 'Pressure drop', quantity: 'pressure', worse: 'higher', noise: 0.05 },
    resetBy: ['separator-replace'],
    judge(given) {
      const drop = given.need('dropBar');
      const verdict = whenHigh(drop, SEPARATOR);
      const step = stepOf(verdict, SEPARATOR)!;
      return judged(
        verdict,
        `${given.say(drop, 'pressure')} lost in the element; ${given.say(SEPARATOR.watch, 'pressure')} is watched, ${given.say(SEPARATOR.act, 'pressure')} replaced.`,
        {
          limit: limit(step, given.say(step, 'pressure'), 'practice'),
          figure: { value: drop, uncertainty: 0.05 },
          // About one per cent of the energy for every 0.14 bar.
          figures: [{ name: 'Energy lost in it', value: drop / 0.14, unit: '%' }],
          suggests: verdict === 'good' ? [] : [doTask('separator-replace', 'New separator element')],
        },
      );
    },
  },
  {
    code: 'filter-condition',
    name: 'Intake filter',
    how: 'Out, against the light.',
    station: () => 'intake',
    applies: () => true,
    fields: [
      choice('condition', 'The element is', {
        clean: 'clean',
        dirty: 'dirty',
        torn: 'torn',
        missing: 'missing',
      }),
    ],
    judge(given) {
      const rule = limit(null, 'clean and whole', 'practice');
      const condition = given.text('condition');
      if (condition === 'clean') return judged('good', 'The element is clean and whole.', { limit: rule });
      if (condition === 'dirty') {
        return judged('act', 'The element is dirty: wash foam, replace paper or felt, never blow it out.', {
          limit: rule,
          suggests: [doTask('intake-replace', 'New element, or wash a foam one')],
        });
      }
      return judged('stop', `The element is ${condition}: grit has had its way. Open the head and look.`, {
        limit: rule,
        suggests: [
          doTask('intake-replace', 'New element'),
          lookAt('stage-1', 'Open the head: look for grit on valves and bore'),
        ],
      });
    },
  },
  {
    code: 'modifications',
    name: 'Modifications',
    how: 'Compare with what is on record: adapters, changed filters, re-routed lines.',
    station: (plate) => (isHighPressure(plate) ? 'fill' : 'outlet'),
    applies: () => true,
    fields: [choice('found', 'Found', { recorded: 'as recorded', new: 'something new' })],
    judge(given) {
      const rule = limit(null, 'as recorded', 'practice');
      if (given.text('found') === 'recorded')
        return judged('good', 'The machine is as it stands on record.', { limit: rule });
      return judged(
        'watch',
        'A modification that is not on record: describe it in the note, and check which parts now fit.',
        { limit: rule },
      );
    },
  },
  {
    code: 'loaded-hours',
    name: 'Work under load',
    how: 'Total and loaded hours of the controller over the same weeks.',
    station: () => 'airend',
    applies: (plate) => isScrew(plate) && plate.speedControl !== 'variable',
    fields: [
      number('h', 'totalHours', 'Total hours gained', 1, 100_000),
      number('h', 'loadedHours', 'Loaded hours gained', 0, 100_000),
    ],
    figure: { name: 'Loaded', unit: '%', worse: 'lower', noise: 1 },
    judge(given) {
      const [total, loaded] = [given.need('totalHours'), given.need('loadedHours')];
      if (loaded > total)
        return refuse('loaded-above-total', 'Loaded hours can never exceed total hours.', 'loadedHours');
      const share = loaded / total;
      const parts = {
        limit: limit(60, '60 % loaded', 'practice'),
        figure: { value: share * 100, uncertainty: 1 },
      } as const;
      if (share >= 0.6) return judged('good', `Loaded ${percent(share)} of its hours.`, parts);
      return judged(
        'watch',
        `Loaded only ${percent(share)} of its hours: too large for the job, or badly controlled.`,
        parts,
      );
    },
  },
];
