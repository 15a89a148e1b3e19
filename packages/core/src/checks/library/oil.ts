import { isBreathed, isOilLubricated, type DataPlate } from '../../machine/index.js';
import type { CheckDefinition, Verdict } from '../check.js';
import { choice, gauge } from '../fields.js';
import {
  doTask,
  isHighPressure,
  isScrew,
  judged,
  limit,
  lookAt,
  worstOf,
  type Shown,
} from '../verdict-helpers.js';

const station: CheckDefinition['station'] = (plate) => (isScrew(plate) ? 'oil' : 'crankcase');

type LevelMark = NonNullable<DataPlate['levelRead']>;

/** How the level of a machine is read, and what too much looks like there. */
const levelText: Record<LevelMark, { readonly read: string; readonly above: string | null }> = {
  marks: { read: 'between the marks', above: 'above its upper mark' },
  dot: { read: 'at the dot', above: 'above the dot' },
  bubble: { read: 'with the bubble at the top', above: 'up to the top, the bubble is gone' },
  rim: { read: 'up to the rim of the filler', above: null },
  'above-line': { read: 'above the line', above: null },
};

/** In words, how the level of a machine is read. */
export function levelReadOn({ levelRead }: Pick<DataPlate, 'levelRead'>): string {
  return levelRead ? levelText[levelRead].read : 'where the manual says';
}

export const oilChecks: readonly CheckDefinition[] = [
  {
    code: 'oil-level',
    name: 'Oil level',
    how: (plate) =>
      [
        plate?.levelRead ? `Right is ${levelReadOn(plate)}.` : 'Right is where the manual says.',
        plate?.levelSeenBy
          ? `To see it: ${plate.levelSeenBy}.`
          : 'A mirror, a phone or a stool helps to see it.',
        'Wipe a glass and see the line move; wipe a dipstick first.',
      ].join(' '),
    station,
    applies: isOilLubricated,
    fields: [
      choice('level', 'Level', {
        between: 'where it should be',
        below: 'below',
        above: 'above',
        'not-visible': 'not visible',
      }),
      choice('glass', 'Glass', {
        clear: 'clear, or a dipstick',
        stained: 'stained',
        cracked: 'cracked or weeping',
      }),
    ],
    judge(given) {
      const text = given.plate?.levelRead && levelText[given.plate.levelRead];
      const mark = limit(null, text?.read ?? 'between the marks', 'book');
      const shown: [Shown, ...Shown[]] = [
        {
          verdict: 'good',
          reason: text
            ? `Oil stands right, ${text.read}, seen through a clear glass.`
            : 'Oil stands where it should, seen through a clear glass.',
          limit: mark,
        },
      ];
      switch (given.text('level')) {
        case 'not-visible':
          shown.push({
            verdict: 'stop',
            reason: 'No oil is to be seen: do not run it until the level is known.',
            limit: mark,
            suggests: [doTask('oil-level', 'Find the oil, fill to the mark, look for where it went')],
          });
          break;
        case 'below':
          shown.push({
            verdict: 'act',
            reason: 'Oil is below its mark: top up.',
            limit: mark,
            suggests: [doTask('oil-level', 'Top up to the mark')],
          });
          break;
        case 'above':
          // Read to the rim or above a line, more than that is what is asked for.
          if (text?.above === null) break;
          shown.push({
            verdict: 'act',
            reason: `Oil is ${text?.above ?? 'above its mark'}: let some off.`,
            limit: mark,
            suggests: [doTask('oil-level', 'Drain to the mark: too much is carried over')],
          });
      }
      if (given.text('glass') === 'cracked') {
        shown.push({
          verdict: 'act',
          reason: 'The sight glass is cracked or weeps: it will let the oil out.',
          limit: mark,
          suggests: [lookAt('crankcase', 'New sight glass and seal')],
        });
      }
      if (given.text('glass') === 'stained') {
        shown.push({
          verdict: 'act',
          reason: 'The glass is stained and can fake a full level: clean it, then judge again.',
          limit: mark,
          suggests: [doTask('oil-level', 'Clean the glass, read the level again')],
        });
      }
      return worstOf(shown);
    },
  },
  {
    code: 'oil-pressure',
    name: 'Oil pressure',
    how: 'Warm and at its working speed.',
    station,
    applies: (plate) =>
      isOilLubricated(plate) && (plate.lubrication === 'pump' || plate.lubrication === undefined),
    fields: [
      gauge('pressureBar', 'Oil pressure, warm', { max: 40 }),
      gauge('leastBar', 'Lowest allowed (manual)', { max: 40, stays: true }),
      gauge('mostBar', 'Highest allowed (manual)', { max: 40, stays: true, optional: true, more: true }),
    ],
    figure: { name: 'Oil pressure', quantity: 'pressure', worse: 'lower', noise: 0.1 },
    judge(given) {
      const [pressure, least, most] = [
        given.need('pressureBar'),
        given.need('leastBar'),
        given.number('mostBar'),
      ];
      if (least <= 0) {
        return {
          ok: false,
          problem: {
            code: 'no-limit',
            field: 'leastBar',
            sentence: 'A lowest pressure of 0 limits nothing: enter the figure of the manual.',
          },
        };
      }
      if (most !== undefined && most <= least) {
        return {
          ok: false,
          problem: {
            code: 'limits-mixed',
            field: 'mostBar',
            sentence: 'The highest pressure must lie above the lowest. Are the two mixed up?',
          },
        };
      }
      const figure = { value: pressure, uncertainty: 0.1 };
      const text = `${given.format(pressure, 'pressure')} oil pressure, the manual asks for ${given.format(least, 'pressure')}`;
      const lowest = limit(least, `at least ${given.format(least, 'pressure')}`, 'book');
      if (pressure < least) {
        return judged('stop', `${text}: do not run it.`, {
          limit: lowest,
          figure,
          suggests: [
            doTask('oil-level', 'Level and grade of the oil first'),
            lookAt('crankcase', 'Strainer, filter, pump, relief of the oil circuit'),
          ],
        });
      }
      if (most !== undefined && pressure > most) {
        return judged(
          'watch',
          `${given.format(pressure, 'pressure')} oil pressure, the manual allows ${given.format(most, 'pressure')}.`,
          {
            limit: limit(most, `up to ${given.format(most, 'pressure')}`, 'book'),
            figure,
            suggests: [lookAt('crankcase', 'Oil too thick or cold, filter blocked, its relief valve stuck')],
          },
        );
      }
      return judged('good', `${text}.`, { limit: lowest, figure });
    },
  },
  {
    code: 'oil-look',
    name: 'Look of the oil',
    how: (plate) =>
      plate && isScrew(plate)
        ? 'Only with the vessel vented and proved: drain a little first and look for water drops, then a drop on white paper.'
        : 'Drain a little first and look for water drops, then a drop on white paper; from the drain rather than the glass.',
    caution: (plate) =>
      plate && isScrew(plate)
        ? 'A plug opened under pressure throws hot oil: vented and proved, oil at 40 to 60 °C.'
        : 'Stopped and locked out: hot oil burns, warm is enough.',
    station,
    applies: isOilLubricated,
    fields: [
      choice('look', 'The oil is', {
        clear: 'clear',
        brown: 'browned',
        dark: 'dark',
        burnt: 'black, smells burnt',
        foam: 'foaming',
        drops: 'clear with water drops below',
        milky: 'milky',
        metal: 'glittering with metal',
      }),
    ],
    judge(given) {
      const text = limit(null, 'clear, or aged as its interval would have it', 'practice');
      const look = given.text('look')!;
      if (look === 'clear') return judged('good', 'The oil is clear.', { limit: text });
      const [verdict, reason] = lookText(look, given.plate);
      const change = doTask('oil-change', 'Change the oil');
      const suggests = {
        metal: [lookAt('crankcase', 'Bearings, rods and rings before anything else')],
        milky: [change, lookAt('cooling', 'Short runs, cold, a leaking cooler, wrong oil')],
        drops: [change, lookAt('cooling', 'Where the water comes from: short runs, cold, a leaking cooler')],
        foam: [doTask('oil-level', 'Overfilled, or oils mixed'), change],
        burnt: [change, lookAt('cooling', 'Why it ran so hot')],
        brown: [doTask('oil-sample', 'A sample says how far it is gone')],
        dark: [doTask('oil-sample', 'A sample says how far it is gone')],
      }[look] as Shown['suggests'];
      return judged(verdict, reason, { limit: text, suggests: verdict === 'good' ? [] : (suggests ?? []) });
    },
  },
];

/** What a look means on a machine: dark is ordinary on a splash-lubricated piston, and a sign on a screw. */
function lookText(look: string, plate: DataPlate | undefined): readonly [Verdict, string] {
  const screw = plate !== undefined && isScrew(plate);
  const breathed = plate !== undefined && isBreathed(plate);
  switch (look) {
    case 'metal':
      return ['stop', 'Metal in the oil: something is being eaten. Do not run it.'];
    case 'milky':
      return ['act', 'Milky oil has water in it: change it and find where the water comes from.'];
    case 'drops':
      return ['act', 'Water drops settle below the oil: change it and find where the water comes from.'];
    case 'foam':
      return screw
        ? ['act', 'Foaming oil goes over with the air: level, and whether two oils were mixed.']
        : ['watch', 'Foaming oil: too much of it, or two oils mixed.'];
    case 'burnt':
      return ['act', 'Black oil that smells burnt has been too hot: change it and find out why.'];
    case 'dark':
      if (breathed) return ['act', 'Black oil in a set that somebody breathes from: change it.'];
      if (screw) return ['watch', 'Dark oil in a screw is not ordinary ageing: take a sample.'];
      return plate && isHighPressure(plate)
        ? ['watch', 'Dark oil in a high-pressure set: look at its hours, take a sample.']
        : ['good', 'Dark oil is ordinary ageing near the end of its interval.'];
    default:
      if (breathed)
        return ['watch', 'Browned oil in a set that somebody breathes from: near the end of its life.'];
      return screw
        ? ['watch', 'Browned oil in a screw: take a sample.']
        : ['good', 'Browned oil is ordinary ageing.'];
  }
}
