import { err, formatNumber } from '../../basics/index.js';
import type { CheckDefinition, CheckSubject } from '../check.js';
import { choice, gauge, number, yesNo } from '../fields.js';
import {
  isHighPressure,
  judged,
  limit,
  lookAt,
  outsideBand,
  SAME,
  verdictAbove,
  worstOf,
  type Shown,
} from '../verdict-helpers.js';

/** Drop across a line filter while air flows, bar (common practice). */
export const LINE_FILTER = { watch: 0.35, act: 0.7 } as const;
/** Share of the figure on the element from which its drop is watched (common practice). */
export const NEAR_LABEL = 0.8;
/** A drop below this while air flows is none, bar. */
export const NO_LINE_DROP_BAR = 0.01;
/** Share by which a regulator may give way under flow (common practice). */
export const DROOP = { watch: 0.1, act: 0.2 } as const;
/** It creeps where it climbs above its setting by more than the larger of these (common practice). */
export const CREEP = { bar: 0.2, share: 0.03 } as const;

/** Drops a minute that are seen in a line lubricator at flow, by its kind (common practice). */
export const USUAL_DROPS = { direct: 1, 'micro-mist': 10 } as const;
/** Share of what is asked for at which its drops are too few or too many (common practice). */
export const LINE_DROPS = { actLow: 0.25, watchLow: 0.5, watchHigh: 2, actHigh: 4 } as const;

/** Filters, regulators and lubricators behind the network. */
export const pointOfUseChecks: readonly CheckDefinition[] = [
  {
    code: 'line-filter-drop',
    name: 'Pressure drop of a line filter',
    how: 'While the tools behind it draw air: before the element less behind it, with one gauge for both where there is one.',
    station: () => 'outlet',
    applies: (plate) => !isHighPressure(plate),
    fields: [
      choice('flowing', 'Air flows', yesNo),
      gauge('dropBar', 'Drop', { max: 10 }),
      gauge('mostBar', 'Change it at (on the element)', { optional: true, stays: true, max: 5 }),
    ],
    figure: { name: 'Pressure drop', quantity: 'pressure', worse: 'higher', noise: 0.02 },
    resetBy: ['line-filter-replace'],
    judge: judgeLineFilter,
  },
  {
    code: 'regulator',
    name: 'Regulator under flow',
    how: 'Its gauge with no flow, with the tools drawing, and a minute after they stopped. It is set while air flows.',
    caution:
      'A regulator that does not relieve keeps its outlet full: vented through a tool or drain before anything is taken off.',
    station: () => 'outlet',
    applies: (plate) => !isHighPressure(plate),
    fields: [
      gauge('setBar', 'Set, no flow', { max: 40 }),
      gauge('flowBar', 'Under flow', { max: 40 }),
      gauge('restBar', 'A minute after the flow', { optional: true, max: 40 }),
      gauge('needBar', 'What the tool needs', { optional: true, stays: true, max: 40 }),
      gauge('ratedBar', 'Lowest rating behind it', {
        optional: true,
        stays: true,
        more: true,
        max: 100,
        hint: 'Of hoses, bowls and tools.',
      }),
    ],
    figure: { name: 'Gives way by', unit: '%', worse: 'higher', noise: 2 },
    judge: judgeRegulator,
  },
  {
    code: 'line-lubricator',
    name: 'Line lubricator',
    how: 'Counted in its glass for a minute while the tools behind it draw air; what it holds is read off its bowl.',
    caution: 'Its bowl is under line pressure: counted from the side, not opened to look.',
    station: () => 'outlet',
    applies: (plate) => !isHighPressure(plate),
    fields: [
      choice('kind', 'Its kind', { direct: 'direct: every drop goes on', 'micro-mist': 'micro-mist' }),
      choice('holds', 'It holds', {
        right: 'the oil it is marked for',
        other: 'another air-tool oil',
        compressor: 'compressor oil',
        nothing: 'nothing',
      }),
      number('drops/min', 'drops', 'Counted while air flows', 0, 300),
      number('drops/min', 'wantedDrops', 'By the tool’s manual', 0.2, 120, { optional: true, stays: true }),
    ],
    figure: { name: 'Drops', unit: 'drops/min', worse: 'either', noise: 1 },
    judge: judgeLineLubricator,
  },
];

function judgeLineLubricator(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const drops = given.need('drops');
  const holds = given.text('holds');
  const wanted = given.number('wantedDrops');
  const asked = wanted ?? USUAL_DROPS[given.text('kind') as keyof typeof USUAL_DROPS];
  const origin = wanted === undefined ? 'practice' : 'book';
  const outside = outsideBand(drops / asked, LINE_DROPS);
  const per = (count: number) => `${formatNumber(Math.round(count * 10) / 10)} drops a minute`;
  const tail = {
    low: ': too little, and the tools wear.',
    high: ': too much clogs the tools and is blown into the room.',
    within: '.',
  } as const;
  const bound = asked * (outside?.step ?? LINE_DROPS.watchHigh);
  const shown: [Shown, ...Shown[]] = [
    {
      verdict: outside?.verdict ?? 'good',
      reason: `${per(drops)} while air flows, ${per(asked)} asked for${tail[outside?.side ?? 'within']}`,
      limit: limit(bound, per(bound), origin),
      suggests: outside ? [lookAt('outlet', 'Its screw a little, then counted again at flow')] : [],
    },
  ];
  if (holds === 'compressor' || holds === 'other') {
    shown.push({
      verdict: holds === 'compressor' ? 'act' : 'watch',
      reason:
        holds === 'compressor'
          ? 'It holds compressor oil, which swells seals and crazes bowls: emptied, bowl looked at, the right oil.'
          : 'It holds another oil than it is marked for: emptied at the next filling, the two do not always mix.',
      limit: limit(null, 'the oil it is marked for', 'label'),
      suggests: [lookAt('outlet', 'Shut off and vented first; bowl washed with soap and water')],
    });
  }
  if (holds === 'nothing') {
    shown.push({
      verdict: 'act',
      reason: 'It is empty: the tools behind it run dry.',
      limit: limit(null, 'oil over its lower mark', 'practice'),
      suggests: [lookAt('outlet', 'Filled, shut off and vented unless its maker says otherwise')],
    });
  }
  return worstOf(shown, { figure: { value: drops, uncertainty: 1 } });
}

function judgeLineFilter(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  if (given.text('flowing') === 'no')
    return err('no-flow', 'Without flow a filter loses nothing: measure while air is drawn.', 'flowing');
  const drop = given.need('dropBar');
  const most = given.number('mostBar');
  if (most !== undefined && most <= NO_LINE_DROP_BAR)
    return err(
      'no-limit',
      'A filter cannot be changed at no drop: enter the figure on its element.',
      'mostBar',
    );
  const at = given.format(drop, 'pressure');
  const parts = { figure: { value: drop, uncertainty: 0.02 } } as const;
  if (drop < NO_LINE_DROP_BAR) {
    return judged(
      'watch',
      `${at} while air flows: no element in it, one that has burst, or a gauge that stands.`,
      {
        ...parts,
        limit: limit(NO_LINE_DROP_BAR, given.format(NO_LINE_DROP_BAR, 'pressure'), 'practice'),
        suggests: [lookAt('outlet', 'Its element: shut off and vented first')],
      },
    );
  }
  const steps = most === undefined ? LINE_FILTER : { watch: most * NEAR_LABEL, act: most };
  const verdict = verdictAbove(drop, steps);
  const step = verdict === 'act' ? steps.act : steps.watch;
  const tail =
    verdict === 'good'
      ? '.'
      : verdict === 'watch'
        ? `, near the ${given.format(steps.act, 'pressure')} at which it is changed.`
        : ': the element is spent, and tears next.';
  return judged(verdict, `${at} lost in the filter${tail}`, {
    ...parts,
    limit: limit(step, given.format(step, 'pressure'), most === undefined ? 'practice' : 'label'),
    suggests:
      verdict === 'good'
        ? []
        : [lookAt('outlet', 'New element: shut off at its own valve, both sides vented')],
  });
}

function judgeRegulator(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const [set, flow] = [given.need('setBar'), given.need('flowBar')];
  const [rest, need, rated] = [given.number('restBar'), given.number('needBar'), given.number('ratedBar')];
  if (set <= 0)
    return err('no-setting', 'Set for nothing it lets nothing through: enter its setting.', 'setBar');
  if (flow > set)
    return err(
      'more-under-flow',
      'Under flow it gives no more than without. Are the two mixed up?',
      'flowBar',
    );
  const droop = 1 - flow / set;
  const [at, under] = [given.format(set, 'pressure'), given.format(flow, 'pressure')];
  const verdict = verdictAbove(droop + SAME, DROOP);
  const percentOff = Math.round(droop * 100);
  const repair = lookAt(
    'outlet',
    'Its strainer and valve; a larger one where the tools draw more than it passes',
  );
  const shown: [Shown, ...Shown[]] = [
    {
      verdict,
      reason: `Set for ${at}, ${under} under flow${verdict === 'good' ? '.' : `: ${percentOff} % less.`}`,
      limit: limit(
        (verdict === 'act' ? DROOP.act : DROOP.watch) * 100,
        `${(verdict === 'act' ? DROOP.act : DROOP.watch) * 100} % less than set`,
        'practice',
      ),
      suggests: verdict === 'good' ? [] : [repair],
    },
  ];
  if (need !== undefined && flow < need) {
    shown.push({
      verdict: 'act',
      reason: `The tool needs ${given.format(need, 'pressure')} and gets ${under}: set it while air flows.`,
      limit: limit(null, given.format(need, 'pressure'), 'label'),
      suggests: [repair],
    });
  }
  if (rest !== undefined && rest - set > Math.max(CREEP.bar, CREEP.share * set) + SAME) {
    shown.push({
      verdict: 'act',
      reason: `A minute after the flow it stood at ${given.format(rest, 'pressure')}: it creeps, dirt on its seat.`,
      limit: limit(
        null,
        `${given.format(set + Math.max(CREEP.bar, CREEP.share * set), 'pressure')} at rest`,
        'practice',
      ),
      suggests: [lookAt('outlet', 'Seat and valve of the regulator, shut off and vented')],
    });
  }
  const highest = Math.max(set, rest ?? 0);
  if (rated !== undefined && highest > rated) {
    shown.push({
      verdict: 'stop',
      reason: `${given.format(highest, 'pressure')} behind it, where something is rated for ${given.format(rated, 'pressure')}: shut that point of use.`,
      limit: limit(null, given.format(rated, 'pressure'), 'label'),
      suggests: [lookAt('outlet', 'Set it lower, or what is behind it rated for the network')],
    });
  }
  return worstOf(shown, { figure: { value: droop * 100, uncertainty: 2 } });
}
