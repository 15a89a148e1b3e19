import { isOilLubricated } from '../../machine/index.js';
import type { CheckDefinition } from '../check.js';
import { choice, gauge } from '../fields.js';
import { doTask, isScrew, judged, limit, lookAt } from '../judging.js';

const station: CheckDefinition['station'] = (plate) => (isScrew(plate) ? 'oil' : 'crankcase');

export const oilChecks: readonly CheckDefinition[] = [
  {
    code: 'oil-level',
    name: 'Oil level',
    how: 'As this unit’s level is read. Wipe a glass and see the line move; wipe a dip stick first.',
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
        clear: 'clear, or a dip stick',
        stained: 'stained',
        cracked: 'cracked or weeping',
      }),
    ],
    judge(given) {
      const level = given.text('level');
      const glass = given.text('glass');
      const mark = limit(null, 'between the marks', 'book');
      if (level === 'not-visible') {
        return judged('stop', 'No oil is to be seen: do not run it until the level is known.', {
          limit: mark,
          suggests: [doTask('oil-level', 'Find the oil, fill to the mark, look for where it went')],
        });
      }
      if (level === 'below' || level === 'above') {
        const words =
          level === 'below' ? 'Oil is below its mark: top up.' : 'Oil is above its mark: let some off.';
        const task = level === 'below' ? 'Top up to the mark' : 'Drain to the mark: too much is carried over';
        return judged('act', words, { limit: mark, suggests: [doTask('oil-level', task)] });
      }
      if (glass === 'cracked') {
        return judged('act', 'The sight glass is cracked or weeps: it will let the oil out.', {
          limit: mark,
          suggests: [lookAt('crankcase', 'New sight glass and seal')],
        });
      }
      if (glass === 'stained') {
        return judged('act', 'The glass is stained and can fake a full level: clean it, then judge again.', {
          limit: mark,
          suggests: [doTask('oil-level', 'Clean the glass, read the level again')],
        });
      }
      return judged('good', 'Oil stands where it should, seen through a clear glass.', { limit: mark });
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
      gauge('leastBar', 'Least by the book', { max: 40, stays: true }),
    ],
    figure: { name: 'Oil pressure', quantity: 'pressure', worse: 'lower', noise: 0.1 },
    judge(given) {
      const [pressure, least] = [given.need('pressureBar'), given.need('leastBar')];
      const parts = {
        limit: limit(least, `at least ${given.say(least, 'pressure')}`, 'book'),
        figure: { value: pressure, uncertainty: 0.1 },
      } as const;
      const words = `${given.say(pressure, 'pressure')} oil pressure, the book asks for ${given.say(least, 'pressure')}`;
      if (pressure >= least) return judged('good', `${words}.`, parts);
      return judged('stop', `${words}: do not run it.`, {
        ...parts,
        suggests: [
          doTask('oil-level', 'Level and grade of the oil first'),
          lookAt('crankcase', 'Strainer, filter, pump, relief of the oil circuit'),
        ],
      });
    },
  },
  {
    code: 'oil-look',
    name: 'Look of the oil',
    how: 'A drop on white paper, from the drain rather than the glass.',
    station,
    applies: isOilLubricated,
    fields: [
      choice('look', 'The oil is', {
        clear: 'clear',
        dark: 'dark',
        milky: 'milky',
        metal: 'glittering with metal',
      }),
    ],
    judge(given) {
      const words = limit(null, 'clear, or evenly dark', 'practice');
      switch (given.text('look')) {
        case 'metal':
          return judged('stop', 'Metal in the oil: something is being eaten. Do not run it.', {
            limit: words,
            suggests: [lookAt('crankcase', 'Bearings, rods and rings before anything else')],
          });
        case 'milky':
          return judged('act', 'Milky oil has water in it: change it and find where the water comes from.', {
            limit: words,
            suggests: [
              doTask('oil-change', 'Change the oil'),
              lookAt('cooling', 'Short runs, cold, a leaking cooler, wrong oil'),
            ],
          });
        case 'dark':
          return judged('good', 'Dark oil is ordinary ageing near the end of its interval.', {
            limit: words,
          });
        default:
          return judged('good', 'The oil is clear.', { limit: words });
      }
    },
  },
];
