import { cylinderRefusal } from '../../air/index.js';
import { dayNumberOf, formatDay, err, shiftDays, type LocalDate } from '../../basics/index.js';
import { isBreathed } from '../../machine/index.js';
import type { CheckDefinition, CheckSubject } from '../check.js';
import { choice, date, gauge, number, yesNo } from '../fields.js';
import {
  doTask,
  figure,
  isHighPressure,
  judged,
  limit,
  lookAt,
  missing,
  worstOf,
  type Shown,
} from '../verdict-helpers.js';
import { breathingAir } from './purity.js';

/** A monitor may be off by the larger of these (common practice). */
export const MONITOR = { share: 0.1, ppm: 1 } as const;
/** Range of a monitor for breathing air where it is not entered, ppm (common practice). */
export const USUAL_RANGE_PPM = 100;
/** A monitor that moves by less than this share of the step between its gases does not see them. */
export const ALIVE = 0.5;
/** Two gases nearer than this are one, ppm. */
const APART_PPM = 1;
/** No cylinder is tested for longer (common practice: 10 years at most). */
export const LONGEST_TEST_YEARS = 15;

/** What stands about a fill, or a point of use. */
export const fillingChecks: readonly CheckDefinition[] = [
  {
    code: 'co-monitor',
    name: 'CO monitor',
    how: 'Two different known gases within its range, such as 10 and 20 ppm, in date; loss of sample flow must stop the compressor.',
    caution: 'Gas bottles outdoors or in moving air: carbon monoxide kills unnoticed.',
    station: () => 'co-monitor',
    applies: isBreathed,
    fields: [
      number('ppm', 'zeroGasPpm', 'First gas', 0, 1000, { stays: true }),
      number('ppm', 'zeroReadingPpm', 'It shows', 0, 2000),
      number('ppm', 'spanGasPpm', 'Second gas', 1, 1000, { stays: true }),
      number('ppm', 'spanReadingPpm', 'It shows then', 0, 2000),
      choice('stops', 'Stops without flow', { yes: 'yes', no: 'no' }),
      number('ppm', 'rangePpm', 'Its range goes to', 10, 1000, {
        optional: true,
        more: true,
        stays: true,
        hint: '100 ppm where not entered.',
      }),
      date('gasesUntil', 'Gases in date until', {
        optional: true,
        more: true,
        stays: true,
        hint: 'The earlier of the two bottles.',
      }),
    ],
    figure: { name: 'Off its gas', unit: '%', worse: 'higher', noise: 1 },
    resetBy: ['co-calibrate'],
    judge: judgeMonitor,
  },
  {
    code: 'co-alarm',
    name: 'Alarm of the CO monitor',
    how: 'Where its alarm is set, and what the set does when it sounds: by its test button, or with a gas above the setting.',
    caution: 'Gas outdoors or in moving air. The set stops and may start again by itself.',
    station: () => 'co-monitor',
    applies: isBreathed,
    fields: [
      number('ppm', 'alarmPpm', 'Set at', 0, 1000, { stays: true }),
      choice('trips', 'The alarm stops the set', yesNo),
    ],
    figure: { name: 'Alarm at', unit: 'ppm', worse: 'higher', noise: 0.5 },
    resetBy: ['co-calibrate'],
    judge: judgeAlarm,
  },
  {
    code: 'cylinder',
    name: 'Cylinder before a fill',
    how: 'The stamp on its shoulder: many carry the day of the test, not the day it runs out.',
    caution: 'Secured, filled slowly, never out of date, never above its rating.',
    station: () => 'fill',
    applies: isHighPressure,
    fields: [
      date('testedOn', 'Tested on', { optional: true }),
      number('years', 'testYears', 'Tested every', 1, 10, {
        optional: true,
        stays: true,
        hint: 'By local law: 2.5, 5 or 10 years.',
      }),
      date('testedUntil', 'Or tested until', { optional: true, more: true }),
      gauge('ratedBar', 'Rated for', { max: 700 }),
      gauge('fillBar', 'Fill to', { plate: 'workingPressureBar' }),
    ],
    judge: judgeCylinder,
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

function judgeMonitor(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const first = { gas: given.need('zeroGasPpm'), reading: given.need('zeroReadingPpm') };
  const second = { gas: given.need('spanGasPpm'), reading: given.need('spanReadingPpm') };
  const range = given.number('rangePpm') ?? USUAL_RANGE_PPM;
  if (Math.abs(second.gas - first.gas) < APART_PPM) {
    return err(
      'same-gas',
      'The same gas twice proves nothing: use two different known gases, such as 10 and 20 ppm.',
      'spanGasPpm',
    );
  }
  const outside = [first, second].find(({ gas }) => gas > range);
  if (outside) {
    return err(
      'gas-out-of-range',
      `${figure(outside.gas)} ppm is more than the monitor can show, ${figure(range)} ppm: use gases within its range.`,
      outside === first ? 'zeroGasPpm' : 'spanGasPpm',
    );
  }
  const allowed = (gas: number) => Math.max(MONITOR.share * gas, MONITOR.ppm);
  const off = ({ gas, reading }: typeof first) => Math.abs(reading - gas) / allowed(gas);
  const worst = off(first) > off(second) ? first : second;
  const parts = {
    limit: limit(MONITOR.share * 100, 'within 10 % of each gas, or 1 ppm', 'practice'),
    figure: { value: off(worst) * MONITOR.share * 100, uncertainty: 1 },
  } as const;
  if (given.text('stops') === 'no') {
    return judged('stop', 'Without sample flow the compressor went on: do not fill breathing air with it.', {
      ...parts,
      suggests: [lookAt('co-monitor', 'Flow switch and its wiring')],
    });
  }
  // It must follow its gas before anybody asks how well.
  const moved = (second.reading - first.reading) / (second.gas - first.gas);
  if (moved < ALIVE) {
    return judged(
      'stop',
      `From ${figure(first.gas)} to ${figure(second.gas)} ppm it went from ${figure(first.reading)} to ${figure(second.reading)} ppm: the sensor does not see the gas. No breathing air until it does.`,
      { ...parts, suggests: [doTask('co-calibrate', 'New sensor, then both gases again')] },
    );
  }
  const text = `It shows ${figure(worst.reading)} ppm on ${figure(worst.gas)} ppm`;
  if (off(worst) > 1 + 1e-9) {
    return judged('act', `${text}: more than ${figure(allowed(worst.gas))} ppm off, calibrate it.`, {
      ...parts,
      suggests: [doTask('co-calibrate', 'Calibrate with both gases')],
    });
  }
  const gasesUntil = given.text('gasesUntil');
  if (gasesUntil !== undefined && gasesUntil < given.on) {
    return judged(
      'act',
      `${text}, but its gases were in date until ${gasesUntil}: what they hold is not known. New gases, then again.`,
      {
        ...parts,
        suggests: [doTask('co-calibrate', 'With gases in date')],
      },
    );
  }
  return judged('good', `${text}: within ${figure(allowed(worst.gas))} ppm.`, parts);
}

/** The strictest and the loosest CO limit of the standards for breathing air, ppm. */
const coLimits = Object.values(breathingAir).map(({ coPpm }) => coPpm);
export const ALARM = { strictestPpm: Math.min(...coLimits), loosestPpm: Math.max(...coLimits) } as const;

function judgeAlarm(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const at = given.need('alarmPpm');
  if (at <= 0)
    return err(
      'no-alarm',
      'An alarm at 0 ppm always sounds, and is soon switched off: enter its setting.',
      'alarmPpm',
    );
  const bound = (ppm: number) => limit(ppm, `${figure(ppm)} ppm`, 'standard');
  const shown: [Shown, ...Shown[]] = [
    {
      verdict: 'good',
      reason: `The alarm is set at ${figure(at)} ppm and stops the set.`,
      limit: bound(ALARM.strictestPpm),
    },
  ];
  const set = doTask('co-calibrate', 'Alarm set by its manual, then tried');
  if (at > ALARM.loosestPpm) {
    shown.push({
      verdict: 'act',
      reason: `The alarm sounds from ${figure(at)} ppm on; no standard for breathing air allows more than ${figure(ALARM.loosestPpm)} ppm.`,
      limit: bound(ALARM.loosestPpm),
      suggests: [set],
    });
  } else if (at > ALARM.strictestPpm) {
    shown.push({
      verdict: 'watch',
      reason: `The alarm sounds from ${figure(at)} ppm on; ${breathingAir['en-12021'].name} allows ${figure(ALARM.strictestPpm)} ppm.`,
      limit: bound(ALARM.strictestPpm),
      suggests: [set],
    });
  }
  if (given.text('trips') === 'no') {
    shown.push({
      verdict: 'stop',
      reason:
        'The alarm sounds and the set goes on: nobody hears it over an engine. No breathing air with it.',
      limit: limit(null, 'the alarm stops the set', 'practice'),
      suggests: [lookAt('co-monitor', 'Relay and wiring from the monitor to the stop')],
    });
  }
  return worstOf(shown, { figure: { value: at, uncertainty: 0.5 } });
}

/** Day on which the test of a cylinder runs out, from either way of stamping it. */
function testedUntilOf(given: CheckSubject): LocalDate | null {
  const until = given.text('testedUntil');
  if (until !== undefined) return until;
  const [on, years] = [given.text('testedOn'), given.number('testYears')];
  if (on === undefined || years === undefined) return null;
  return formatDay(shiftDays(dayNumberOf(on), { months: Math.round(years * 12) }));
}

function judgeCylinder(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const [ratedBar, fillBar] = [given.need('ratedBar'), given.need('fillBar')];
  const testedOn = given.text('testedOn');
  if (testedOn !== undefined && testedOn > given.on)
    return err('test-to-come', 'The test on its stamp lies ahead. Is that the day it runs out?', 'testedOn');
  const testedUntil = testedUntilOf(given);
  if (testedUntil === null) {
    return testedOn === undefined
      ? missing('testedOn', 'Enter the day of its test, or the day it runs out.')
      : missing('testYears', 'Enter how often it must be tested.');
  }
  const latest = formatDay(shiftDays(dayNumberOf(given.on), { months: LONGEST_TEST_YEARS * 12 }));
  if (testedUntil > latest) {
    return err(
      'test-too-far',
      `No test holds until ${testedUntil}: is the year right?`,
      given.text('testedUntil') === undefined ? 'testedOn' : 'testedUntil',
    );
  }
  const rule = limit(null, `in date, and rated for ${given.format(fillBar, 'pressure')}`, 'label');
  const refusal = cylinderRefusal({ ratedBar, testedUntil }, fillBar, given.on);
  if (refusal === null) {
    return judged(
      'good',
      `In date until ${testedUntil} and rated for ${given.format(ratedBar, 'pressure')}.`,
      {
        limit: rule,
      },
    );
  }
  const text =
    refusal.code === 'cylinder-under-rated'
      ? `Rated for ${given.format(ratedBar, 'pressure')}, the fill is ${given.format(fillBar, 'pressure')}: do not fill it.`
      : refusal.sentence;
  return judged('stop', text, { limit: rule, suggests: [lookAt('fill', 'Set it aside, marked')] });
}
