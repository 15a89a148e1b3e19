import { pressureDewPoint } from '../../air/index.js';
import { err } from '../../basics/index.js';
import { isOilLubricated, stagesOf, type DataPlate } from '../../machine/index.js';
import type { CheckDefinition, CheckSubject, CheckValues } from '../check.js';
import { ambient, choice, gauge, number, quantity } from '../fields.js';
import {
  doTask,
  isHighPressure,
  isScrew,
  judged,
  limit,
  lookAt,
  percent,
  thresholdOf,
  verdictAbove,
  worstOf,
  type Shown,
} from '../verdict-helpers.js';
import { dischargeLimitsOf } from './discharge-limits.js';

/** This near its trip a temperature is acted on, K (common practice). */
export const NEAR_TRIP_K = 5;
/** A pipe's surface is this much cooler than the gas in it, K (common practice). */
export const SURFACE_K = 20;
/** Rise over the baseline's rise, K (common practice). */
export const OVER_BASELINE = { watch: 15, act: 25 } as const;
/** Past the rise of the manual by so much it is acted on, K (common practice). */
export const PAST_RISE_K = 15;
/** A trip entered further than this above what is usual for the machine does not move its stop, K. */
export const MOST_ABOVE_USUAL_K = 10;
/** Oil of a screw stays this much above the dew point of what it draws in, K (common practice). */
export const ABOVE_DEW_POINT_K = 10;
/** Where the humidity is not known, °C (common practice). */
export const WARM_SCREW_C = 65;
/** So long at load, min, until a screw is as warm as it gets. */
export const WARM_AFTER_MIN = 30;
/** Drop over a separator element, bar (common practice). */
export const SEPARATOR = { watch: 0.7, act: 1 } as const;
/** A drop below this at load is none: the gauge, the wrong ports, or a burst element (common practice). */
export const NO_DROP_BAR = 0.05;

/** Temperature of the gas by what was measured, °C; null where the values are of no such measurement. */
export function dischargeGasC({ tempC, place }: CheckValues): number | null {
  return typeof tempC === 'number' ? tempC + (place === 'surface' ? SURFACE_K : 0) : null;
}

const isInjectedScrew = (plate: DataPlate | undefined) =>
  plate !== undefined && isScrew(plate) && isOilLubricated(plate);

export const heatChecks: readonly CheckDefinition[] = [
  {
    code: 'discharge-temperature',
    name: 'Discharge temperature',
    how: 'After half an hour at load, at the outlet of the stage or airend; room air too. In the gas or in a pocket if there is one: a pipe’s surface is some 20 K cooler.',
    caution: (plate) =>
      plate && isScrew(plate)
        ? 'Hot oil behind it: by instrument, panels back on before it is judged.'
        : 'Stages and pipes can reach 200 °C: by instrument, not by hand.',
    station: (plate) => (isScrew(plate) ? 'airend' : `stage-${stagesOf(plate)}`),
    applies: () => true,
    fields: [
      quantity('temperature', 'tempC', 'Discharge', -40, 400),
      ambient('ambientC', 'Room air'),
      choice(
        'place',
        'Measured',
        { gas: 'in the gas', pocket: 'in a pocket', surface: 'on the surface' },
        { optional: true, stays: true },
      ),
      quantity('temperature-rise', 'mostRiseK', 'Highest allowed rise (manual)', 5, 250, {
        optional: true,
        stays: true,
      }),
      quantity('temperature', 'tripC', 'Shutdown temperature', 40, 300, { optional: true, stays: true }),
      number('%', 'humidityPercent', 'Humidity of the room air', 0, 100, {
        optional: true,
        onlyOn: isScrew,
      }),
      number('min', 'loadMinutes', 'At load for', 0, 1440, { optional: true, more: true, onlyOn: isScrew }),
    ],
    figure: { name: 'Rise over room air', quantity: 'temperature-rise', worse: 'higher', noise: 2 },
    resetBy: ['cooling-clean', 'oil-change'],
    judge(given) {
      const [temp, air] = [given.need('tempC'), given.need('ambientC')];
      if (temp < air)
        return err(
          'colder-than-air',
          'Compressed air is no colder than the air about it. Are the two mixed up?',
          'tempC',
        );
      const gas = temp + (given.text('place') === 'surface' ? SURFACE_K : 0);
      const heat = { given, air, gas, rise: gas - air };
      const shown = [byTrip(heat), byBook(heat), byBaseline(heat), byTable(heat), byDewPoint(heat)].filter(
        (one): one is Shown => one !== null,
      );
      const figures = [
        { name: 'Rise', value: heat.rise, quantity: 'temperature-rise' as const },
        ...(gas === temp
          ? []
          : [{ name: 'In the gas, about', value: gas, quantity: 'temperature' as const }]),
      ];
      const parts = { figure: { value: heat.rise, uncertainty: 2 }, figures };
      const [first, ...others] = shown;
      if (first) return worstOf([first, ...others], parts);
      return judged(
        'good',
        `${describeHeat(heat)}. There is no comparison yet: make it the baseline, or enter what the manual allows.`,
        { ...parts, noComparison: true },
      );
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
      const figure = { value: drop, uncertainty: 0.05 };
      if (drop < NO_DROP_BAR) {
        return judged(
          'watch',
          `${given.format(drop, 'pressure')} at load cannot be: a gauge that stands, the wrong ports, or an element that has burst.`,
          {
            limit: limit(
              NO_DROP_BAR,
              `more than ${given.format(NO_DROP_BAR, 'pressure')} at load`,
              'practice',
            ),
            figure,
            suggests: [
              doTask('gauge-test', 'Check the gauge and its ports, then measure again at load'),
              doTask('separator-replace', 'If it is right: a new element, and look for oil in the air'),
            ],
          },
        );
      }
      const verdict = verdictAbove(drop, SEPARATOR);
      const step = thresholdOf(verdict, SEPARATOR)!;
      return judged(
        verdict,
        `${given.format(drop, 'pressure')} lost in the element; from ${given.format(SEPARATOR.watch, 'pressure')} keep an eye on it, at ${given.format(SEPARATOR.act, 'pressure')} replace it.`,
        {
          limit: limit(step, given.format(step, 'pressure'), 'practice'),
          figure,
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
      const screw = given.plate !== undefined && isScrew(given.plate);
      const [place, what] = screw
        ? ['airend', 'Oil sample and airend: grit in the oil eats the bearings']
        : ['stage-1', 'Open the head: look for grit on valves and bore'];
      return judged(
        'stop',
        `The element is ${condition}: grit has gone into the machine. Look before it runs again.`,
        {
          limit: rule,
          suggests: [doTask('intake-replace', 'New element'), lookAt(place, what)],
        },
      );
    },
  },
  {
    code: 'modifications',
    name: 'Modifications',
    how: 'Compare with what is on record: adapters, changed filters, re-routed lines. A home-made intake pipe: swarf and weld beads in it go into the pump; taken off, cleaned and looked through.',
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
    code: 'load-factor',
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
        return err('loaded-above-total', 'Loaded hours can never exceed total hours.', 'loadedHours');
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

interface Heat {
  readonly given: CheckSubject;
  readonly air: number;
  /** Temperature of the gas, and its rise over room air. */
  readonly gas: number;
  readonly rise: number;
}

function describeHeat({ given, gas, rise }: Heat): string {
  const place = given.text('place') === 'surface' ? ' in the gas, by its surface' : '';
  return `${given.format(gas, 'temperature')}${place}, ${given.format(rise, 'temperature-rise')} above the room air`;
}

const coolIt = [
  doTask('cooling-clean', 'Cooler face, fins and fan'),
  lookAt('cooling', 'Oil level, panels on, fan, cross-flow in the room'),
];

/** Hotter than its own trip and running: the trip does not work. */
function byTrip(heat: Heat): Shown | null {
  const { given, gas, air } = heat;
  const trip = given.number('tripC');
  if (trip === undefined) return null;
  const rule = limit(trip - air, `shuts down at ${given.format(trip, 'temperature')}`, 'book');
  const at = given.format(trip, 'temperature');
  if (gas >= trip) {
    return {
      verdict: 'stop',
      reason: `${describeHeat(heat)}: at its shutdown of ${at} and still running. Do not run it until the shutdown works.`,
      limit: rule,
      suggests: [doTask('shutdown-test', 'Repair the shutdown, then test it'), ...coolIt],
    };
  }
  if (gas < trip - NEAR_TRIP_K) return null;
  return {
    verdict: 'act',
    reason: `${describeHeat(heat)}: close to its shutdown of ${at}.`,
    limit: rule,
    suggests: coolIt,
  };
}

function byBook(heat: Heat): Shown | null {
  const { given, rise } = heat;
  const most = given.number('mostRiseK');
  if (most === undefined) return null;
  const verdict = rise > most + PAST_RISE_K ? 'act' : rise > most ? 'watch' : 'good';
  return {
    verdict,
    reason: `${describeHeat(heat)}; the manual allows a rise of ${given.format(most, 'temperature-rise')}.`,
    limit: limit(most, `a rise of ${given.format(most, 'temperature-rise')}`, 'book'),
    suggests: verdict === 'good' ? [] : coolIt,
  };
}

/** Against the same machine when it was sound: the rise, so that a warm day is not taken for a fault. */
function byBaseline(heat: Heat): Shown | null {
  const { given, rise } = heat;
  const values = given.isBaseline ? undefined : given.baseline?.values;
  const [gas, air] = values ? [dischargeGasC(values), values['ambientC']] : [];
  if (gas === null || gas === undefined || typeof air !== 'number') return null;
  const over = rise - (gas - air);
  const verdict = verdictAbove(over, OVER_BASELINE);
  const step = thresholdOf(verdict, OVER_BASELINE)!;
  const apart = `${given.format(Math.abs(over), 'temperature-rise')} ${over >= 0 ? 'above' : 'below'} its baseline`;
  return {
    verdict,
    reason: `${describeHeat(heat)}, ${apart}.`,
    limit: limit(
      gas - air + step,
      `${given.format(step, 'temperature-rise')} above its baseline’s rise of ${given.format(gas - air, 'temperature-rise')}`,
      'baseline',
    ),
    suggests: verdict === 'good' ? [] : coolIt,
  };
}

/** What is usual for such a machine. The manual is believed before its watch, never past its act. */
function byTable(heat: Heat): Shown | null {
  const { given, gas, air, rise } = heat;
  const usual = given.plate && dischargeLimitsOf(given.plate);
  if (!usual) return null;
  const [trip, most] = [given.number('tripC'), given.number('mostRiseK')];
  const screw = isInjectedScrew(given.plate);
  const stop = screw && trip !== undefined ? Math.min(trip, usual.stop + MOST_ABOVE_USUAL_K) : usual.stop;
  const watch = most !== undefined && rise <= most ? usual.act : usual.watch;
  const steps = { watch, act: usual.act, stop };
  const verdict = verdictAbove(gas, steps);
  const step = thresholdOf(verdict, steps)!;
  const bound = given.format(step, 'temperature');
  const tail = verdict === 'stop' ? ': do not run it.' : '.';
  return {
    verdict,
    reason:
      verdict === 'good'
        ? `${describeHeat(heat)}; usual for this kind of machine is up to ${bound}.`
        : `${describeHeat(heat)}; from ${bound} ${screw ? 'the oil burns' : 'oil and valves suffer'} on this kind of machine${tail}`,
    limit: limit(step - air, `${bound} (${usual.machine})`, 'practice'),
    suggests: verdict === 'good' ? [] : coolIt,
  };
}

/** Too cold a screw keeps water in its oil. */
function byDewPoint(heat: Heat): Shown | null {
  const { given, gas, air } = heat;
  if (!isInjectedScrew(given.plate) || (given.number('loadMinutes') ?? WARM_AFTER_MIN) < WARM_AFTER_MIN)
    return null;
  const humidity = given.number('humidityPercent');
  const pressure = given.plate?.workingPressureBar ?? given.plate?.cutOutBar;
  const intake = { barAbs: given.atmosphereBarAbs, tempC: air, relativeHumidity: (humidity ?? 0) / 100 };
  const dew =
    humidity === undefined || pressure === undefined
      ? null
      : pressureDewPoint(intake, pressure + given.atmosphereBarAbs);
  const least = dew?.ok ? dew.value + ABOVE_DEW_POINT_K : WARM_SCREW_C;
  if (gas >= least) return null;
  const why = dew?.ok
    ? `the air it draws in drops its water at ${given.format(dew.value, 'temperature')}`
    : 'below that water stays in the oil, where the humidity is not known';
  return {
    verdict: 'watch',
    reason: `${given.format(gas, 'temperature')} is too cold for a screw at load, at least ${given.format(least, 'temperature')}: ${why}.`,
    limit: limit(least - air, `at least ${given.format(least, 'temperature')}`, 'practice'),
    suggests: [
      lookAt('thermostatic-valve', 'Thermostatic valve stuck open; too little load'),
      doTask('oil-sample', 'Water in the oil: drain a little from the vessel, vented'),
    ],
  };
}
