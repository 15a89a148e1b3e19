import { err } from '../../basics/index.js';
import { isOilLubricated, type DataPlate } from '../../machine/index.js';
import type { CheckDefinition, CheckSubject, Verdict } from '../check.js';
import { choice, gauge, number, quantity, yesNo } from '../fields.js';
import {
  doTask,
  figure,
  isHighPressure,
  isPiston,
  isScrew,
  judged,
  limit,
  lookAt,
  SAME,
  worstOf,
  type Shown,
} from '../verdict-helpers.js';

/** A holding valve is set about here where nobody says otherwise, bar (common practice). */
export const USUAL_HOLDING_BAR = 150;
/** How far a holding valve may open from its setting, as shares of it (common practice). */
export const HOLDING = { watchLow: 0.1, actLow: 0.25, watchHigh: 0.1, actHigh: 0.25 } as const;
/** Vessel of a screw a minute after it went off load, bar (common practice). */
export const OFF_LOAD = { least: 0.5, most: 3.5 } as const;
/** From this share of the network's pressure on, the network comes back into the vessel (common practice). */
export const COMES_BACK = 0.8;
/** Less than this in the network tells nothing of what comes back from it, bar. */
export const LEAST_NETWORK_BAR = 4;
/** How far a thermostat may open from its mark, K (common practice). */
export const THERMOSTAT = { watch: 5, act: 10 } as const;
/** Where a thermostat without a mark opens, °C (common practice). */
export const USUAL_THERMOSTAT_C = { least: 55, most: 80 } as const;
/** Seconds without load after a start (common practice). */
export const RELEASE = {
  timed: { short: 5, least: 10, most: 30 },
  bleed: { most: 3, long: 10 },
  /** Shares that it may be off what the manual says. */
  watch: 0.3,
  act: 0.5,
} as const;

const isInjectedScrew = (plate: DataPlate) => isScrew(plate) && isOilLubricated(plate);

/** Where the valves of a machine open and shut by themselves. */
export const valvePointChecks: readonly CheckDefinition[] = [
  {
    code: 'holding-valve',
    name: 'Holding valve opens at',
    how: 'From empty, fill valve open: the gauge behind the tower climbs alone, then the hose begins to pass air. Read it then; the gauge lags by half a minute.',
    caution: 'Hose held by its cable, nobody in line with it: air comes at once.',
    station: () => 'pressure-maintaining-valve',
    applies: isHighPressure,
    fields: [
      gauge('opensBar', 'Air passes from'),
      gauge('setBar', 'Set for', { optional: true, plate: 'maintainingValveBar' }),
    ],
    figure: { name: 'Opens at', quantity: 'pressure', worse: 'either', noise: 5 },
    judge: judgeHoldingValve,
  },
  {
    code: 'vessel-off-load',
    name: 'Vessel pressure off load',
    how: 'Off load for a minute, the motor still running, the network at its pressure: gauge of the separator vessel.',
    caution: 'Read only. The vessel is opened stopped, shut off and proved empty.',
    station: () => 'minimum-pressure-valve',
    applies: isInjectedScrew,
    fields: [
      gauge('vesselBar', 'In the vessel', { max: 40 }),
      gauge('networkBar', 'In the network', { max: 40 }),
      gauge('leastBar', 'Lowest by the manual', { optional: true, stays: true, more: true, max: 20 }),
      gauge('mostBar', 'Highest by the manual', { optional: true, stays: true, more: true, max: 20 }),
    ],
    figure: { name: 'Vessel off load', quantity: 'pressure', worse: 'either', noise: 0.1 },
    resetBy: ['valves-inspect'],
    judge: judgeOffLoad,
  },
  {
    code: 'thermostat',
    name: 'Thermostat opens at',
    how: 'From cold: oil temperature at which the pipe to the cooler turns warm, by a thermometer on it.',
    caution:
      'Hot pipes and a running fan: by instrument, sleeves and hands clear, panels on as far as they can be.',
    station: () => 'thermostatic-valve',
    applies: isInjectedScrew,
    fields: [
      quantity('temperature', 'opensC', 'Opens at', -20, 150),
      quantity('temperature', 'markedC', 'Marked', 30, 120, {
        optional: true,
        stays: true,
        hint: 'On its body or in the manual.',
      }),
    ],
    figure: { name: 'Opens at', quantity: 'temperature', worse: 'either', noise: 2 },
    resetBy: ['valves-inspect'],
    judge: judgeThermostat,
  },
  {
    code: 'unloaded-start',
    name: 'Time without load after a start',
    how: 'By stopwatch from the start until it takes load: the note changes and the unloader or start bleed falls silent.',
    caution: 'Guards on; it starts against pressure where this does not work.',
    station: (plate) => (isHighPressure(plate) ? 'final-separator' : 'check-valve'),
    applies: (plate) => isPiston(plate) || isHighPressure(plate),
    fields: [
      choice('kind', 'It has', { timed: 'a timed unloader', bleed: 'a start-bleed valve' }, { stays: true }),
      choice('closes', 'It shuts', yesNo),
      number('s', 'seconds', 'After', 0, 300, { optional: true }),
      number('s', 'wantedSeconds', 'By the manual', 0.2, 120, { optional: true, stays: true, more: true }),
    ],
    figure: { name: 'Without load', unit: 's', worse: 'either', noise: 0.5 },
    judge: judgeUnloadedStart,
  },
];

function judgeHoldingValve(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const opens = given.need('opensBar');
  const entered = given.number('setBar');
  const set = entered ?? USUAL_HOLDING_BAR;
  if (set <= 0)
    return err(
      'no-setting',
      'A holding valve that is set for nothing holds nothing: enter its setting.',
      'setBar',
    );
  const off = opens / set - 1;
  const text = `It lets air pass from ${given.format(opens, 'pressure')}; ${entered === undefined ? 'usual is' : 'it is set for'} ${given.format(set, 'pressure')}`;
  const from = entered === undefined ? 'practice' : 'plate';
  const parts = { figure: { value: opens, uncertainty: 5 } } as const;
  const bound = (share: number) =>
    limit(set * (1 + share), given.format(set * (1 + share), 'pressure'), from);
  const most = given.plate?.maximumPressureBar;
  if (most !== undefined && opens >= most) {
    return judged(
      'stop',
      `It lets air pass from ${given.format(opens, 'pressure')} only, the maximum allowed is ${given.format(most, 'pressure')}: nothing leaves the tower before its relief does. Do not run it.`,
      {
        ...parts,
        limit: limit(most, given.format(most, 'pressure'), 'plate'),
        suggests: [
          lookAt('pressure-maintaining-valve', 'Its seat, spring and gauge: the tower vented first'),
        ],
      },
    );
  }
  if (off < -HOLDING.watchLow - SAME) {
    const far = off < -HOLDING.actLow - SAME;
    return judged(
      far ? 'act' : 'watch',
      `${text}: at the beginning of a fill the tower works at low pressure, where every cubic metre brings it more water.`,
      {
        ...parts,
        limit: bound(far ? -HOLDING.actLow : -HOLDING.watchLow),
        suggests: [
          lookAt(
            'pressure-maintaining-valve',
            'Set it by its manual, or new seat and spring: the tower vented first',
          ),
        ],
      },
    );
  }
  if (off > HOLDING.watchHigh + SAME) {
    const far = off > HOLDING.actHigh + SAME;
    return judged(
      far ? 'act' : 'watch',
      `${text}: what is left between it and the end of the fill is little, and the relief is near.`,
      {
        ...parts,
        limit: bound(far ? HOLDING.actHigh : HOLDING.watchHigh),
        suggests: [lookAt('pressure-maintaining-valve', 'Set it by its manual; is its gauge right?')],
      },
    );
  }
  return judged('good', `${text}.`, { ...parts, limit: bound(-HOLDING.watchLow) });
}

function judgeOffLoad(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const [vessel, network] = [given.need('vesselBar'), given.need('networkBar')];
  if (network < LEAST_NETWORK_BAR)
    return err(
      'network-low',
      `With ${given.format(network, 'pressure')} in the network it cannot be told: measure with at least ${given.format(LEAST_NETWORK_BAR, 'pressure')} there.`,
      'networkBar',
    );
  const [least, most] = [given.number('leastBar'), given.number('mostBar')];
  if (least !== undefined && most !== undefined && least > most)
    return err('least-above-most', 'The lowest lies above the highest: are the two mixed up?', 'leastBar');
  const at = given.format(vessel, 'pressure');
  const parts = { figure: { value: vessel, uncertainty: 0.1 } } as const;
  const back = network * COMES_BACK;
  const low = least ?? OFF_LOAD.least;
  const high = most ?? OFF_LOAD.most;
  const shown: [Shown, ...Shown[]] = [
    {
      verdict: 'good',
      reason: `${at} in the vessel off load: the minimum-pressure valve is shut and the oil keeps moving.`,
      limit: limit(
        Math.min(high, back),
        given.format(Math.min(high, back), 'pressure'),
        most === undefined ? 'practice' : 'book',
      ),
    },
  ];
  if (vessel >= back - SAME) {
    shown.push({
      verdict: 'act',
      reason: `${at} in the vessel with ${given.format(network, 'pressure')} in the network: the minimum-pressure valve does not shut, or the vessel does not blow down.`,
      limit: limit(
        back,
        `${given.format(back, 'pressure')}, ${Math.round(COMES_BACK * 100)} % of the network`,
        'practice',
      ),
      suggests: [
        doTask('valves-inspect', 'Minimum-pressure valve: seat and ring; blow-down valve and its line'),
        lookAt(
          'minimum-pressure-valve',
          'It is no isolation: shut the outlet valve before anything is opened',
        ),
      ],
    });
  } else if (vessel > high) {
    shown.push({
      verdict: most === undefined ? 'watch' : 'act',
      reason: `${at} in the vessel off load, more than ${given.format(high, 'pressure')}: it blows down slowly and costs power.`,
      limit: limit(high, given.format(high, 'pressure'), most === undefined ? 'practice' : 'book'),
      suggests: [lookAt('intake-valve', 'Blow-down valve, its silencer, and whether the intake valve shuts')],
    });
  }
  if (vessel < low) {
    shown.push({
      verdict: least === undefined ? 'watch' : 'act',
      reason: `${at} in the vessel off load, less than ${given.format(low, 'pressure')}: too little to bring the oil to the bearings.`,
      limit: limit(low, given.format(low, 'pressure'), least === undefined ? 'practice' : 'book'),
      suggests: [lookAt('intake-valve', 'Its bleed that keeps the vessel under pressure')],
    });
  }
  return worstOf(shown, parts);
}

function judgeThermostat(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const opens = given.need('opensC');
  const marked = given.number('markedC');
  const [least, most] =
    marked === undefined ? [USUAL_THERMOSTAT_C.least, USUAL_THERMOSTAT_C.most] : [marked, marked];
  const off = opens < least ? opens - least : Math.max(0, opens - most);
  const slack = marked === undefined ? { watch: 0, act: THERMOSTAT.act } : THERMOSTAT;
  const verdict: Verdict = Math.abs(off) > slack.act ? 'act' : Math.abs(off) > slack.watch ? 'watch' : 'good';
  const usual =
    marked === undefined
      ? `${given.format(least, 'temperature')} to ${given.format(most, 'temperature')} is usual`
      : `it is marked ${given.format(marked, 'temperature')}`;
  const step = verdict === 'act' ? slack.act : slack.watch;
  const bound = off < 0 ? least - step : most + step;
  const what =
    verdict === 'good'
      ? '.'
      : off < 0
        ? ': the oil stays cold, and water stays in it.'
        : ': the oil gets hot before the cooler helps.';
  return judged(verdict, `It opens at ${given.format(opens, 'temperature')}; ${usual}${what}`, {
    limit: limit(bound, given.format(bound, 'temperature'), marked === undefined ? 'practice' : 'label'),
    figure: { value: opens, uncertainty: 2 },
    suggests:
      verdict === 'good'
        ? []
        : [doTask('valves-inspect', 'New thermostat element, of the temperature marked')],
  });
}

function judgeUnloadedStart(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const isTimed = given.text('kind') === 'timed';
  const what = isTimed ? 'The unloader' : 'The start bleed';
  const seconds = given.number('seconds');
  const shuts = limit(null, 'shuts by itself after the start', 'practice');
  const look = lookAt(
    given.plate && isHighPressure(given.plate) ? 'final-separator' : 'check-valve',
    isTimed ? 'Timer, pilot valve and its line' : 'Ball, seat and dirt of the start bleed. Never plug it',
  );
  if (given.text('closes') === 'no') {
    return judged('act', `${what} does not shut: it blows what it should deliver.`, {
      limit: shuts,
      ...(seconds === undefined ? {} : { figure: { value: seconds, uncertainty: 0.5 } }),
      suggests: [look],
    });
  }
  if (seconds === undefined) return err('missing', 'Enter after how many seconds it shut.', 'seconds');
  const wanted = given.number('wantedSeconds');
  const verdict = wanted === undefined ? byUse(isTimed, seconds) : byManual(seconds / wanted - 1);
  const short = wanted === undefined ? isTimed && seconds < RELEASE.timed.least : seconds < wanted;
  const usual =
    wanted !== undefined
      ? `${figure(wanted)} s by the manual`
      : isTimed
        ? `${RELEASE.timed.least} to ${RELEASE.timed.most} s is usual`
        : `up to ${RELEASE.bleed.most} s is usual`;
  const tail =
    verdict === 'good'
      ? '.'
      : short
        ? ': it starts nearly under load.'
        : ': that air is lost at every start.';
  return judged(verdict, `${what} shut after ${figure(seconds)} s; ${usual}${tail}`, {
    limit: limit(null, usual, wanted === undefined ? 'practice' : 'book'),
    figure: { value: seconds, uncertainty: 0.5 },
    suggests: verdict === 'good' ? [] : [look],
  });
}

function byManual(off: number): Verdict {
  const far = Math.abs(off);
  return far > RELEASE.act + SAME ? 'act' : far > RELEASE.watch + SAME ? 'watch' : 'good';
}

function byUse(isTimed: boolean, seconds: number): Verdict {
  if (!isTimed) return seconds > RELEASE.bleed.long ? 'act' : seconds > RELEASE.bleed.most ? 'watch' : 'good';
  if (seconds < RELEASE.timed.short) return 'act';
  return seconds < RELEASE.timed.least || seconds > RELEASE.timed.most ? 'watch' : 'good';
}
