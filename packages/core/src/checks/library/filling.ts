import { cylinderRefusal } from '../../air/index.js';
import type { CheckDefinition } from '../check.js';
import { choice, date, gauge, number } from '../fields.js';
import { doTask, figure, isHighPressure, judged, limit, lookAt } from '../judging.js';
import { isBreathed } from './purity.js';

/** A monitor may be off by so much of its gas, and by so many ppm at zero gas (common practice). */
const MONITOR_SHARE = 0.1;
const MONITOR_ZERO_PPM = 1;

/** What stands about a fill, or a point of use. */
export const fillingChecks: readonly CheckDefinition[] = [
  {
    code: 'co-monitor',
    name: 'CO monitor',
    how: 'Each calibration gas in turn; loss of sample flow must stop the set.',
    station: () => 'co-monitor',
    applies: isBreathed,
    fields: [
      number('ppm', 'zeroGasPpm', 'First gas', 0, 1000, { stays: true }),
      number('ppm', 'zeroReadingPpm', 'It shows', 0, 2000),
      number('ppm', 'spanGasPpm', 'Second gas', 1, 1000, { stays: true }),
      number('ppm', 'spanReadingPpm', 'It shows then', 0, 2000),
      choice('stops', 'Stops without flow', { yes: 'yes', no: 'no' }),
    ],
    figure: { name: 'Off its gas', unit: '%', worse: 'higher', noise: 1 },
    resetBy: ['co-calibrate'],
    judge(given) {
      const pairs = [
        { gas: given.need('zeroGasPpm'), reading: given.need('zeroReadingPpm') },
        { gas: given.need('spanGasPpm'), reading: given.need('spanReadingPpm') },
      ];
      // Off by the share of its gas; by whole ppm where the gas is next to nothing.
      const off = (pair: (typeof pairs)[number]) =>
        Math.abs(pair.reading - pair.gas) / Math.max(MONITOR_SHARE * pair.gas, MONITOR_ZERO_PPM);
      const worst = pairs.reduce((most, pair) => (off(pair) > off(most) ? pair : most));
      const share = off(worst) * MONITOR_SHARE;
      const parts = {
        limit: limit(MONITOR_SHARE * 100, 'within 10 % of each gas', 'practice'),
        figure: { value: share * 100, uncertainty: 1 },
      } as const;
      const words = `It shows ${figure(worst.reading)} ppm on ${figure(worst.gas)} ppm`;
      if (given.text('stops') === 'no') {
        return judged('stop', 'Without sample flow the set went on: do not fill breathing air with it.', {
          ...parts,
          suggests: [lookAt('co-monitor', 'Flow switch and its wiring')],
        });
      }
      if (off(worst) > 1)
        return judged('act', `${words}: over 10 % off, calibrate it.`, {
          ...parts,
          suggests: [doTask('co-calibrate', 'Calibrate with both gases')],
        });
      return judged('good', `${words}: within 10 %.`, parts);
    },
  },
  {
    code: 'cylinder',
    name: 'Cylinder before a fill',
    how: 'The stamp on its shoulder.',
    caution: 'Secured, filled slowly, never out of date, never above its rating.',
    station: () => 'fill',
    applies: isHighPressure,
    fields: [
      date('testedUntil', 'Tested until'),
      gauge('ratedBar', 'Rated for', { max: 700 }),
      gauge('fillBar', 'Fill to', { plate: 'workingPressureBar' }),
    ],
    judge(given) {
      const [ratedBar, fillBar, testedUntil] = [
        given.need('ratedBar'),
        given.need('fillBar'),
        given.text('testedUntil')!,
      ];
      const rule = limit(null, `in date, and rated for ${given.say(fillBar, 'pressure')}`, 'label');
      const refusal = cylinderRefusal({ ratedBar, testedUntil }, fillBar, given.on);
      if (refusal === null)
        return judged(
          'good',
          `In date until ${testedUntil} and rated for ${given.say(ratedBar, 'pressure')}.`,
          { limit: rule },
        );
      const under = refusal.code === 'cylinder-under-rated';
      const words = under
        ? `Rated for ${given.say(ratedBar, 'pressure')}, the fill is ${given.say(fillBar, 'pressure')}: do not fill it.`
        : refusal.sentence;
      return judged('stop', words, { limit: rule, suggests: [lookAt('fill', 'Set it aside, marked')] });
    },
  },
  {
    code: 'bowl',
    name: 'Filter and lubricator bowls',
    how: 'Against the light, guard off and the line vented.',
    caution: 'A cracked bowl can burst: shut off and vent the line before touching it.',
    station: () => 'outlet',
    applies: (plate) => !isHighPressure(plate),
    fields: [choice('bowl', 'The bowl is', { sound: 'sound', cracked: 'cracked', crazed: 'crazed' })],
    judge(given) {
      const rule = limit(null, 'no crack, no crazing', 'practice');
      const bowl = given.text('bowl');
      if (bowl === 'sound') return judged('good', 'The bowl is sound.', { limit: rule });
      return judged('stop', `The bowl is ${bowl} and can burst: stop that point of use.`, {
        limit: rule,
        suggests: [lookAt('outlet', 'New bowl of a material that suits the place, guard fitted')],
      });
    },
  },
];
