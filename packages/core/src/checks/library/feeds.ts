import { err } from '../../basics/index.js';
import { hasLubricator, isOilLubricated, stationCodes } from '../../machine/index.js';
import type { CheckDefinition, CheckSubject, Verdict } from '../check.js';
import { ambient, number, quantity } from '../fields.js';
import {
  doTask,
  figure,
  judged,
  limit,
  lookAt,
  outsideBand,
  thresholdOf,
  verdictAbove,
  worstOf,
  type Shown,
} from '../verdict-helpers.js';

/** Cooling water: how warm it may leave, °C, and how much it may warm, K (common practice). */
export const WATER_OUT_C = { watch: 40, act: 50, stop: 80 } as const;
export const WATER_RISE_K = { watch: 15, act: 25 } as const;
/** Water no warmer than this freezes where it stands, °C. */
export const FROST_C = 4;
/** Water so much colder than the room wets the cylinders inside, K (common practice). */
export const COLD_WATER_K = 10;
/** Drops of a cylinder lubricator as shares of what the manual asks for (common practice). */
export const DROPS = { actLow: 0.5, watchLow: 0.75, watchHigh: 1.5, actHigh: 2.5 } as const;
/** A base is level within so many degrees (common practice). */
export const USUAL_TILT_DEG = 5;

/** What a machine is fed with while it runs: water, oil by the drop, oil that has to stay where its pump is. */
export const feedChecks: readonly CheckDefinition[] = [
  {
    code: 'cooling-water',
    name: 'Cooling water',
    how: 'At load and warm, by thermometers at inlet and outlet; flow by its meter, or a bucket and a watch at the open return.',
    caution: 'The return can scald. Water is never shut while the machine is hot.',
    station: () => 'cooling',
    applies: ({ cooling }) => cooling === 'water',
    fields: [
      quantity('temperature', 'inC', 'In', -5, 100),
      quantity('temperature', 'outC', 'Out', -5, 120),
      number('L/min of water', 'flowLpm', 'Flow', 0, 5000, { optional: true }),
      number('L/min of water', 'leastFlowLpm', 'Least flow by the manual', 0.1, 5000, {
        optional: true,
        stays: true,
        more: true,
      }),
      ambient('ambientC', 'Room air', { optional: true }),
    ],
    figure: { name: 'Warms by', quantity: 'temperature-rise', worse: 'higher', noise: 1 },
    resetBy: ['cooling-clean'],
    judge: judgeWater,
  },
  {
    code: 'lubricator-drops',
    name: 'Drops of the cylinder lubricator',
    how: 'Counted in its sight glass for a minute at working speed, each feed by itself; the fewest.',
    caution: 'Look, do not reach in: it turns with the machine.',
    station: () => 'crankcase',
    applies: (plate) => hasLubricator(plate) && stationCodes(plate).has('crankcase'),
    fields: [
      number('drops/min', 'drops', 'Counted', 0, 300),
      number('drops/min', 'wantedDrops', 'By the manual', 0.5, 200, { optional: true, stays: true }),
    ],
    figure: { name: 'Drops', unit: 'drops/min', worse: 'either', noise: 1 },
    resetBy: ['lubricator-check'],
    judge: judgeDrops,
  },
  {
    code: 'tilt',
    name: 'Tilt of the base',
    how: 'With a level on the base, lengthwise and across, the set as it will run; the worse of the two.',
    caution: 'A set on wheels is chocked. Two people, or a jack, never a foot under it.',
    station: (plate) => (plate.family === 'screw' ? 'oil' : 'crankcase'),
    applies: isOilLubricated,
    fields: [
      number('°', 'degrees', 'Off level', 0, 60),
      number('°', 'mostDegrees', 'Highest by the manual', 0.5, 45, { optional: true, stays: true }),
    ],
    figure: { name: 'Off level', unit: '°', worse: 'higher', noise: 0.5 },
    judge: judgeTilt,
  },
];

function judgeWater(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const [cold, warm] = [given.need('inC'), given.need('outC')];
  if (warm < cold)
    return err('colder-out', 'Cooling water leaves warmer than it came. Are the two mixed up?', 'outC');
  const rise = warm - cold;
  const text = `It warms from ${given.format(cold, 'temperature')} to ${given.format(warm, 'temperature')}`;
  const more = [
    lookAt('cooling', 'Strainer, valve and pump; lime in jackets and coolers'),
    doTask('cooling-clean', 'Water side descaled'),
  ];
  const out = verdictAbove(warm, WATER_OUT_C);
  const risen = verdictAbove(rise, WATER_RISE_K);
  const mostOut = thresholdOf(out, WATER_OUT_C)!;
  const mostRise = thresholdOf(risen, WATER_RISE_K)!;
  const hot = {
    good: '.',
    watch: `: from ${given.format(mostOut, 'temperature')} on lime settles where it is hottest.`,
    act: `: from ${given.format(mostOut, 'temperature')} on lime settles fast, and the oil film gets thin.`,
    stop: ': it is near boiling. Stop it and let it cool with the water running; a hot jacket is not opened.',
  }[out];
  const shown: [Shown, ...Shown[]] = [
    {
      verdict: out,
      reason: `${text}${hot}`,
      // In the unit of its figure, the rise.
      limit: limit(mostOut - cold, `out at ${given.format(mostOut, 'temperature')}`, 'practice'),
      suggests: out === 'good' ? [] : more,
    },
    {
      verdict: risen,
      reason: `${text}, by ${given.format(rise, 'temperature-rise')}${risen === 'good' ? '.' : ': too little water runs.'}`,
      limit: limit(mostRise, `by ${given.format(mostRise, 'temperature-rise')}`, 'practice'),
      suggests: risen === 'good' ? [] : more,
    },
  ];
  const [flow, least] = [given.number('flowLpm'), given.number('leastFlowLpm')];
  if (flow === 0) {
    shown.push({
      verdict: 'stop',
      reason:
        'No cooling water runs: let it cool before water is let in again, a hot jacket boils and cracks.',
      limit: limit(null, 'water runs', 'practice'),
      suggests: more,
    });
  } else if (flow !== undefined && least !== undefined && flow < least) {
    shown.push({
      verdict: 'act',
      reason: `${figure(flow)} L of water a minute, the manual asks for ${figure(least)} at least.`,
      limit: limit(null, `${figure(least)} L a minute`, 'book'),
      suggests: more,
    });
  }
  const room = given.number('ambientC');
  if (cold <= FROST_C) {
    shown.push({
      verdict: 'watch',
      reason: `Water of ${given.format(cold, 'temperature')} freezes where it stands: drain jackets and coolers when the set does.`,
      limit: limit(null, given.format(FROST_C, 'temperature'), 'practice'),
    });
  }
  if (room !== undefined && room - cold > COLD_WATER_K) {
    shown.push({
      verdict: 'watch',
      reason: `The water is ${given.format(room - cold, 'temperature-rise')} colder than the room: moisture settles in cold cylinders. Throttle its return, not its inlet.`,
      limit: limit(null, `${given.format(COLD_WATER_K, 'temperature-rise')} below the room`, 'practice'),
    });
  }
  return worstOf(shown, { figure: { value: rise, uncertainty: 1 } });
}

function judgeDrops(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const drops = given.need('drops');
  const wanted = given.number('wantedDrops');
  const base = given.isBaseline ? undefined : given.baseline?.values['drops'];
  const [asked, by] =
    wanted !== undefined
      ? ([wanted, 'book'] as const)
      : typeof base === 'number' && base > 0
        ? ([base, 'baseline'] as const)
        : ([null, 'practice'] as const);
  const parts = { figure: { value: drops, uncertainty: 1 } } as const;
  const adjust = lookAt(
    'crankcase',
    'Tank, strainer, check valve and screw of that feed; adjust, then count again',
  );
  if (drops === 0) {
    return judged('stop', 'No drop falls: that cylinder runs dry. Do not run it until oil comes.', {
      ...parts,
      limit: limit(null, 'drops fall', 'practice'),
      suggests: [adjust, doTask('lubricator-check', 'New lubricator and check valve')],
    });
  }
  if (asked === null)
    return judged(
      'good',
      `${figure(drops)} drops a minute. Enter what the manual asks for, or make it the baseline.`,
      {
        ...parts,
        noComparison: true,
      },
    );
  const text = `${figure(drops)} drops a minute, ${by === 'book' ? 'the manual asks for' : 'at the baseline'} ${figure(asked)}`;
  const bound = (of: number) => limit(asked * of, `${figure(asked * of)} drops a minute`, by);
  const outside = outsideBand(drops / asked, DROPS);
  if (outside === null) return judged('good', `${text}.`, { ...parts, limit: bound(DROPS.watchLow) });
  const why =
    outside.side === 'low'
      ? 'too little oil, rings and liner wear.'
      : 'too much oil bakes on hot valves and can burn there.';
  return judged(outside.verdict, `${text}: ${why}`, {
    ...parts,
    limit: bound(outside.step),
    suggests: [adjust],
  });
}

function judgeTilt(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const degrees = given.need('degrees');
  const entered = given.number('mostDegrees');
  const most = entered ?? USUAL_TILT_DEG;
  const text = `${figure(degrees)}° off level; ${entered === undefined ? 'usual is' : 'the manual allows'} ${figure(most)}° at most`;
  const verdict: Verdict = degrees > 2 * most ? 'stop' : degrees > most ? 'act' : 'good';
  const tail = {
    good: '.',
    watch: '.',
    act: ': the glass shows a wrong level, and pump or dipper may draw air.',
    stop: ': oil leaves its pump or dipper. Do not run it like that.',
  }[verdict];
  return judged(verdict, `${text}${tail}`, {
    limit: limit(
      most * (verdict === 'stop' ? 2 : 1),
      `${figure(most * (verdict === 'stop' ? 2 : 1))}°`,
      entered === undefined ? 'practice' : 'book',
    ),
    figure: { value: degrees, uncertainty: 0.5 },
    suggests: verdict === 'good' ? [] : [lookAt('crankcase', 'Level its base, then read the oil again')],
  });
}
