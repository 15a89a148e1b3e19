import { err } from '../../basics/index.js';
import { hasEngine, isBreathed, type DataPlate } from '../../machine/index.js';
import type { CheckDefinition, CheckSubject, JudgedLimit, Verdict } from '../check.js';
import { choice, gauge, gaugeFields, number, quantity, yesNo } from '../fields.js';
import {
  doTask,
  figure,
  gaugeErrorBar,
  isHighPressure,
  isPiston,
  isScrew,
  judged,
  limit,
  lookAt,
  missing,
  valveTask,
  worstOf,
  type Shown,
} from '../verdict-helpers.js';
import { judgeOpened, LEAST_LIFT, leastReliefBar, type ReliefOpened } from './relief-limits.js';

/** Share of full scale that a vented gauge may show. */
export const GAUGE_ZERO_SHARE = 0.02;
/** More than this on a vented gauge is pressure until it is proved otherwise (0.5 bar: 2014/68/EU, memory). */
export const PRESSURE_BAR = 0.5;
/** Between cut-in and stop a set switches too often below the larger of these (common practice). */
export const DIFFERENCE = { bar: 0.5, share: 0.03 } as const;
/** By hand a set is stopped this far below its maximum (common practice). */
export const BY_HAND = 0.9;

const reliefStation: CheckDefinition['station'] = (plate) => (isHighPressure(plate) ? 'relief' : 'receiver');
const receiverStation: CheckDefinition['station'] = (plate) =>
  isHighPressure(plate) ? 'final-separator' : 'receiver';

const stopsByRelief = ({ stopsBy }: DataPlate) => stopsBy === 'relief';

export const settingChecks: readonly CheckDefinition[] = [
  {
    code: 'gauge-zero',
    name: 'Gauge at zero',
    how: 'Vented through an open drain; tap it once.',
    caution: 'A gauge at rest proves nothing by itself: vented means an open drain with nothing coming.',
    station: receiverStation,
    applies: () => true,
    fields: [
      gauge('readingBar', 'It shows, vented'),
      gauge('fullScaleBar', 'Full scale', { max: 1000, stays: true }),
      choice('kind', 'Right medium and range for its place', yesNo),
    ],
    figure: { name: 'Off zero', unit: '% of full scale', worse: 'higher', noise: 0.5 },
    resetBy: ['gauge-replace'],
    judge(given) {
      const [reading, full] = [given.need('readingBar'), given.need('fullScaleBar')];
      if (full <= 0)
        return err(
          'no-scale',
          'Enter the full scale of the gauge: without one it cannot be read.',
          'fullScaleBar',
        );
      const share = reading / full;
      const parts = { figure: { value: share * 100, uncertainty: 0.5 } } as const;
      const bound = limit(
        GAUGE_ZERO_SHARE * 100,
        `2 % of full scale (${given.format(full * GAUGE_ZERO_SHARE, 'pressure')})`,
        'practice',
      );
      const text = `${given.format(reading, 'pressure')} on a vented gauge, ${figure(share * 100)} % of its ${given.format(full, 'pressure')} scale`;
      const replace = doTask('gauge-test', 'Replace it: dry is cheap, filled stays steady and clear');
      const prove = lookAt('final-separator', 'Open a vent: nothing may come out before anything is opened');
      const shown: [Shown, ...Shown[]] = [{ verdict: 'good', reason: `${text}.`, limit: bound }];
      if (share > GAUGE_ZERO_SHARE) {
        shown.push({
          verdict: 'act',
          reason: `${text}: over 2 %, it cannot be trusted.`,
          limit: bound,
          suggests: [replace],
        });
      }
      if (reading > PRESSURE_BAR) {
        shown.push({
          verdict: 'act',
          reason: `${given.format(reading, 'pressure')} is pressure until an open vent has shown that nothing comes.`,
          limit:
            share > GAUGE_ZERO_SHARE
              ? bound
              : limit((PRESSURE_BAR / full) * 100, given.format(PRESSURE_BAR, 'pressure'), 'practice'),
          suggests: [prove],
        });
      }
      if (given.text('kind') === 'no') {
        shown.push({
          verdict: 'act',
          reason: 'The gauge is of the wrong kind for its place: replace it.',
          limit: bound,
          suggests: [replace],
        });
      }
      return worstOf(shown, parts);
    },
  },
  {
    code: 'relief-valve',
    name: 'Relief valve',
    how: (plate) =>
      plate && isHighPressure(plate)
        ? 'By this valve’s own means: knob turned back, or the pressure at which it opens; a new or bench-tested valve by its paper. An opening pressure is not demanded: never bridge a switch to get one.'
        : 'Lift it by its ring at three quarters of its setting or more, or a new or bench-tested valve by its paper. An opening pressure is not demanded: never bridge a switch to get one.',
    caution: (plate) =>
      `Goggles and ear protection; stand beside the outlet, not in front${plate && isScrew(plate) ? ': hot oil mist comes out' : ''}. Local pressure-equipment law may ask for more.`,
    station: reliefStation,
    applies: () => true,
    fields: [
      choice('opens', 'It opens', yesNo),
      choice('reseats', 'It reseats', { tight: 'tight', weeps: 'weeps' }),
      choice(
        'by',
        'Tested',
        {
          lift: 'by its ring or knob',
          opening: 'by opening pressure',
          paper: 'new, or on the bench, with its paper',
        },
        { optional: true },
      ),
      gauge('liftedBar', 'Pressure when it was lifted', { optional: true, more: true }),
      gauge('openedBar', 'Opened at', { optional: true, more: true }),
      gauge('reliefBar', 'Set for', { optional: true, plate: 'reliefBar' }),
      gauge('maximumBar', 'Maximum allowed', { optional: true, plate: 'maximumPressureBar' }),
      gauge('stopBar', 'Cut-out or auto-stop', { optional: true, plate: 'cutOutBar' }),
      choice(
        'fitted',
        'Way out',
        { free: 'free', blocked: 'capped, wired, or a valve before it' },
        { optional: true, more: true },
      ),
      ...gaugeFields,
    ],
    judge(given) {
      const rule = limit(null, 'opens, and reseats tight', 'practice');
      const shown: [Shown, ...Shown[]] = [
        { verdict: 'good', reason: 'It opens and reseats tight.', limit: rule },
      ];
      if (given.text('fitted') === 'blocked') {
        shown.push({
          verdict: 'stop',
          reason: 'The relief valve is capped, wired, or can be shut off: do not run it.',
          limit: limit(null, 'a free way out, nothing that shuts before it', 'practice'),
          suggests: [lookAt('relief', 'Nothing may stand between vessel and valve')],
        });
      }
      if (given.text('opens') === 'no') {
        shown.push({
          verdict: 'stop',
          reason: 'The relief valve does not open: do not run it.',
          limit: rule,
          suggests: [doTask('relief-test', 'New valve of the same setting, then test it')],
        });
      }
      if (given.text('reseats') === 'weeps') {
        shown.push({
          verdict: 'act',
          reason: 'It weeps after it opened. A worn seat also makes filling slow.',
          limit: rule,
          suggests: [doTask('relief-test', 'Replace the valve or its seat, then test it')],
        });
      }
      const [set, opened, lifted] = [
        given.number('reliefBar'),
        given.number('openedBar'),
        given.number('liftedBar'),
      ];
      if (set !== undefined && opened !== undefined) shown.unshift(openedShown(given, opened, set));
      else if (set !== undefined && lifted !== undefined && lifted < set * LEAST_LIFT) {
        shown.push({
          verdict: 'watch',
          reason: `Lifted at ${given.format(lifted, 'pressure')} that is no test: the spring is hardly helped. Build up at least ${given.format(set * LEAST_LIFT, 'pressure')}.`,
          limit: limit(set * LEAST_LIFT, 'three quarters of its setting', 'practice'),
          suggests: [doTask('relief-test', 'Lift it again at higher pressure')],
        });
      }
      return worstOf(shown);
    },
  },
  {
    code: 'pressure-settings',
    name: 'Pressure settings',
    how: 'Watch a whole cycle on the gauge.',
    station: receiverStation,
    applies: () => true,
    fields: [
      gauge('cutInBar', 'Cut-in', { optional: true, plate: 'cutInBar' }),
      gauge('workingBar', 'Working pressure', { plate: 'workingPressureBar' }),
      gauge('stopBar', 'Cut-out or auto-stop', { optional: true, plate: 'cutOutBar' }),
      gauge('reliefBar', 'Relief setting', { plate: 'reliefBar' }),
      gauge('maximumBar', 'Maximum allowed', { plate: 'maximumPressureBar' }),
      gauge('weakestBar', 'Lowest rating of hose, connector, cylinder', {
        optional: true,
        more: true,
        max: 1000,
      }),
      choice('blew', 'The relief has blown since the last visit', yesNo, { optional: true, more: true }),
      choice(
        'lowerSide',
        'Lower side of a two-pressure panel',
        { own: 'has its own relief valve', missing: 'has none' },
        { optional: true, more: true, onlyOn: isHighPressure },
      ),
      quantity('flow', 'reliefFlowLpm', 'Flow that the relief lets off', 1, 1_000_000, {
        optional: true,
        more: true,
        stays: true,
      }),
      quantity('flow', 'allFadLpm', 'Free air of all compressors on the vessel', 1, 1_000_000, {
        optional: true,
        more: true,
        plate: 'fadLpm',
        stays: true,
      }),
    ],
    judge: judgeSettings,
  },
  {
    code: 'check-valve',
    name: 'Check valve',
    how: 'Machine off, receiver under pressure: listen at the unloader after the stop hiss.',
    caution: 'Locked out, the receiver still under pressure: listen, do not open anything.',
    station: () => 'check-valve',
    applies: isPiston,
    fields: [choice('air', 'Air at the unloader goes on', yesNo)],
    judge(given) {
      const rule = limit(null, 'silent after the hiss', 'practice');
      if (given.text('air') === 'no')
        return judged('good', 'Silent after the stop hiss: the check valve holds.', { limit: rule });
      return judged('act', 'Air keeps coming: the check valve lets the receiver back.', {
        limit: rule,
        suggests: [
          doTask('check-valve-test', 'Clean or replace the check valve, with the receiver empty'),
          lookAt('check-valve', 'Seat and spring'),
        ],
      });
    },
  },
  {
    code: 'unloader',
    name: 'Unloader',
    how: 'A hiss at stop, and a start without load. Timed ones stay open 10 to 20 s on large sets; a small start-bleed valve hisses for about a second at the start by design.',
    station: (plate) =>
      isScrew(plate) ? 'intake-valve' : isHighPressure(plate) ? 'final-separator' : 'check-valve',
    applies: () => true,
    fields: [
      choice('hiss', 'Hiss at stop', yesNo),
      choice('unloaded', 'Starts without load', yesNo),
      number('s', 'unloadedSeconds', 'Unloaded after the start for', 0, 120, { optional: true }),
    ],
    figure: { name: 'Unloaded start', unit: 's', worse: 'either', noise: 0.5 },
    judge(given) {
      const rule = limit(null, 'an easy start, and a hiss at stop', 'practice');
      const [hiss, unloaded] = [given.text('hiss') === 'yes', given.text('unloaded') === 'yes'];
      const seconds = given.number('unloadedSeconds');
      const parts = {
        limit: rule,
        figure: seconds === undefined ? null : { value: seconds, uncertainty: 0.5 },
      } as const;
      if (hiss && unloaded) return judged('good', 'It vents at stop and starts without load.', parts);
      if (unloaded) {
        return judged(
          'watch',
          'No hiss at stop, but it starts without load: some bleed at the start by design.',
          {
            ...parts,
            suggests: [lookAt('check-valve', 'If it used to hiss: unloader valve and its line')],
          },
        );
      }
      const what = hiss
        ? 'It vents, but starts against pressure'
        : 'No hiss at stop, and it starts against pressure';
      return judged('act', `${what}: the motor will trip or stall.`, {
        ...parts,
        suggests: [
          lookAt(
            'check-valve',
            'Unloader valve and its line, then the check valve. Never plug a start-bleed valve',
          ),
        ],
      });
    },
  },
  {
    code: 'highest-pressure',
    name: 'Highest pressure reached',
    how: 'All drains and outlets shut, to cut-out or until it climbs no more. Stop it by hand if it passes its cut-out.',
    caution: 'Stay at the switch: it is stopped by hand before the maximum allowed.',
    station: receiverStation,
    applies: () => true,
    fields: [
      gauge('reachedBar', 'It reached'),
      gauge('cutOutBar', 'Cut-out or auto-stop', { plate: 'cutOutBar' }),
      gauge('maximumBar', 'Maximum allowed', { optional: true, plate: 'maximumPressureBar' }),
      ...gaugeFields,
    ],
    figure: { name: 'Highest pressure', quantity: 'pressure', worse: 'lower', noise: 0.1 },
    resetBy: ['valves-inspect', 'valves-all', 'ring-kit'],
    judge: judgeHighest,
  },
  {
    code: 'shutdowns',
    name: 'Shutdowns',
    how: 'Each one: by its test button, its signal opened, or its switch point lowered, then put back and proved. A sensor from a dry pocket may be warmed, never one out of a wet port. Never by overheating it or running it short of oil.',
    caution:
      'The machine stops and may start by itself. Keep clear of belt and fan; panels with live parts are an electrician’s.',
    station: () => 'motor',
    applies: () => true,
    fields: [
      choice('overTemperature', 'Over-temperature', shutdownAnswers()),
      choice('lowOil', 'Low oil level or pressure', shutdownAnswers()),
      choice('overload', 'Overload', shutdownAnswers()),
    ],
    judge: judgeShutdowns,
  },
];

const openedText: Record<ReliefOpened['why'], string> = {
  right: 'and it reseats tight',
  low: 'a little early',
  'far-low': 'too early. Is the gauge right?',
  'near-stop': 'so near the stop that it works with every fill',
  high: 'too late: adjust or replace it',
  'far-high': 'much too late. Do not run it',
  'above-maximum': 'more than 3 % above the maximum allowed. Do not run it',
  unsure:
    'and by the class of this gauge it may be over the maximum. Measure again with a test gauge before it runs',
};

function openedShown(given: CheckSubject, opened: number, set: number): Shown {
  const { verdict, why, boundBar } = judgeOpened(given, opened, set);
  const text = `It opened at ${given.format(opened, 'pressure')}, set for ${given.format(set, 'pressure')}`;
  const bound = given.format(boundBar, 'pressure');
  const tail =
    why === 'right' && given.text('reseats') === 'weeps'
      ? ''
      : `${why === 'right' ? ', ' : ': '}${openedText[why]}`;
  const replace = doTask('relief-test', 'New valve of the same setting, then test it');
  const suggests = {
    right: [],
    low: [doTask('gauge-test', 'The gauge first')],
    'far-low': [doTask('gauge-test', 'The gauge first'), doTask('relief-test', 'Then the setting')],
    'near-stop': [doTask('settings-test', 'Distance between stop and relief')],
    high: [doTask('gauge-test', 'The gauge first'), replace],
    'far-high': [replace],
    'above-maximum': [replace],
    unsure: [doTask('gauge-test', 'A test gauge of class 1 or better')],
  } satisfies Record<ReliefOpened['why'], Shown['suggests']>;
  const high = ['right', 'high', 'far-high', 'above-maximum', 'unsure'].includes(why);
  return {
    verdict,
    reason: `${text}${tail}${tail.endsWith('?') ? '' : '.'}`,
    limit: limit(boundBar, `${high ? 'up to' : 'from'} ${bound}`, 'practice'),
    suggests: suggests[why],
  };
}

/** The order of pressures, their distances, and what the relief has to let off. */
function judgeSettings(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const { plate } = given;
  const [working, relief, maximum] = [
    given.need('workingBar'),
    given.need('reliefBar'),
    given.need('maximumBar'),
  ];
  const [cutIn, stop] = [given.number('cutInBar'), given.number('stopBar')];
  const byRelief = plate !== undefined && stopsByRelief(plate);
  if (stop === undefined && !byRelief) return missing('stopBar', 'Enter cut-out or auto-stop.');
  const format = (bar: number) => given.format(bar, 'pressure');
  const rule = limit(
    null,
    byRelief
      ? 'working < relief ≤ maximum allowed and the weakest part'
      : 'cut-in < working ≤ stop < relief ≤ maximum allowed',
    'practice',
  );
  const states = [
    { name: 'cut-in', value: cutIn },
    { name: 'working pressure', value: working },
    { name: 'stop', value: byRelief ? undefined : stop },
    { name: 'relief', value: relief },
    { name: 'maximum allowed', value: maximum },
  ].filter((state): state is { name: string; value: number } => state.value !== undefined);
  const settings = states.map(({ name, value }) => `${name} ${format(value)}`).join(', ');
  const shown: [Shown, ...Shown[]] = [{ verdict: 'good', reason: `In order: ${settings}.`, limit: rule }];
  const byTheBook = [doTask('settings-test', 'Set them by the manual, gauge checked first')];
  const add = (verdict: Verdict, reason: string, bound: JudgedLimit = rule) => {
    shown.push({ verdict, reason, limit: bound, suggests: byTheBook });
  };
  addRelief(given, { working, relief, maximum, cutIn, stop: byRelief ? undefined : stop }, add);
  // The lower half costs wear, not safety.
  if (!byRelief && stop !== undefined) {
    if (working > stop)
      add('act', `It stops at ${format(stop)}, below its working pressure of ${format(working)}.`);
    const between = stop - (cutIn ?? 0);
    const least = Math.max(DIFFERENCE.bar, DIFFERENCE.share * stop);
    if (cutIn !== undefined && (cutIn >= working || cutIn >= stop))
      add(
        'act',
        `Cut-in at ${format(cutIn)} must lie below working pressure and stop: it would switch without end.`,
      );
    else if (cutIn !== undefined && between < least)
      add(
        'watch',
        `Only ${format(between)} between cut-in and stop: it switches too often. At least ${format(least)}.`,
      );
    addDistance(given, stop, relief, add);
  }
  if (plate?.stopsBy === 'hand' && stop !== undefined && stop > BY_HAND * maximum)
    add(
      'watch',
      `Stopped by hand at ${format(stop)}: stop 10 % under the maximum, at ${format(BY_HAND * maximum)}.`,
    );
  return worstOf(shown);
}

interface Settings {
  readonly working: number;
  readonly relief: number;
  readonly maximum: number;
  readonly cutIn: number | undefined;
  /** Left out where the relief valve is what stops the rise. */
  readonly stop: number | undefined;
}

type AddShown = (verdict: Verdict, reason: string, bound?: JudgedLimit) => void;

/** What the relief stands above and below keeps people safe. */
function addRelief(
  given: CheckSubject,
  { working, relief, maximum, cutIn, stop }: Settings,
  add: AddShown,
): void {
  const format = (bar: number) => given.format(bar, 'pressure');
  const weakest = given.number('weakestBar');
  if (relief > maximum)
    add(
      'stop',
      `Relief at ${format(relief)} lies above the maximum allowed, ${format(maximum)}: do not run it so.`,
    );
  if (weakest !== undefined && relief > weakest)
    add(
      'stop',
      `Relief at ${format(relief)} lies above the weakest part connected, ${format(weakest)}: do not run it so.`,
    );
  const highest = Math.max(cutIn ?? 0, working, stop ?? 0);
  if (highest >= relief)
    add(
      'stop',
      `Relief at ${format(relief)} must lie above ${stop === highest ? 'the stop' : 'what it works at'}, ${format(highest)}: do not run it so.`,
    );
  const [flow, feeding] = [given.number('reliefFlowLpm'), given.number('allFadLpm')];
  if (flow !== undefined && feeding !== undefined && flow < feeding) {
    add(
      'stop',
      `The relief lets off ${given.format(flow, 'flow')}, the compressors on the vessel deliver ${given.format(feeding, 'flow')}: it cannot hold the pressure. Do not run it so.`,
      limit(null, 'flow of the relief ≥ all free air that can feed the vessel', 'practice'),
    );
  }
  if (given.text('lowerSide') === 'missing')
    add('stop', 'The lower side of the panel has no relief valve of its own: that side is out of service.');
}

function addDistance(
  given: CheckSubject,
  stop: number,
  relief: number,
  add: (verdict: Verdict, reason: string, bound: JudgedLimit) => void,
): void {
  const least = leastReliefBar(stop, given.plate !== undefined && isHighPressure(given.plate));
  if (relief >= least || stop >= relief) return;
  const format = (bar: number) => given.format(bar, 'pressure');
  const bound = limit(least, `relief at ${format(least)} or more`, 'practice');
  const near = `Relief at ${format(relief)} stands too near the stop at ${format(stop)}; at least ${format(least)}`;
  if (given.text('blew') === 'yes') add('act', `${near}: it has blown already.`, bound);
  else add('watch', `${near}: it will weep.`, bound);
}

function judgeHighest(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const [reached, cutOut, maximum] = [
    given.need('reachedBar'),
    given.need('cutOutBar'),
    given.number('maximumBar'),
  ];
  const format = (bar: number) => given.format(bar, 'pressure');
  const error = gaugeErrorBar(given) ?? 0;
  const atCutOut = limit(cutOut, `cut-out at ${format(cutOut)}`, 'plate');
  const shown: Shown[] = [];
  if (maximum !== undefined && reached + error > maximum) {
    const by = reached > maximum ? '' : ', with what the gauge may be off,';
    shown.push({
      verdict: 'stop',
      reason: `It reached ${format(reached)}${by} above its maximum allowed of ${format(maximum)}: do not run it.`,
      limit: limit(maximum, `maximum allowed ${format(maximum)}`, 'plate'),
      suggests: [
        doTask('relief-test', 'Relief valve: it should have opened'),
        doTask('settings-test', 'Pressure switch'),
      ],
    });
  }
  if (reached > cutOut + Math.max(error, CUT_OUT_SCATTER * cutOut)) {
    shown.push({
      verdict: 'act',
      reason: `It ran past its cut-out of ${format(cutOut)} to ${format(reached)}: the switch does not stop it.`,
      limit: atCutOut,
      suggests: [doTask('settings-test', 'Pressure switch, its line and its contacts')],
    });
  } else if (reached < cutOut) {
    shown.push({
      verdict: 'act',
      reason: `It stalls at ${format(reached)}, below its cut-out of ${format(cutOut)}.`,
      limit: atCutOut,
      suggests: [
        lookAt('outlet', 'First a drain left open, or a relief valve that weeps'),
        doTask(valveTask(given.plate), 'Valves, ring, head gasket'),
        lookAt('check-valve', 'Check valve'),
      ],
    });
  } else {
    shown.push({ verdict: 'good', reason: `It reaches its cut-out of ${format(cutOut)}.`, limit: atCutOut });
  }
  const [first, ...others] = shown as [Shown, ...Shown[]];
  return worstOf([first, ...others], { figure: { value: reached, uncertainty: 0.1 } });
}

/** A switch scatters this much by itself (common practice). */
export const CUT_OUT_SCATTER = 0.02;

const shutdownNames = {
  overTemperature: 'over-temperature',
  lowOil: 'low oil',
  overload: 'overload',
} as const;
type Shutdown = keyof typeof shutdownNames;

/** What a machine without one is judged as: some were never built with it. */
function neverFitted(shutdown: Shutdown, plate: DataPlate | undefined): Verdict {
  if (!plate) return 'watch';
  switch (shutdown) {
    case 'overTemperature':
      if (isScrew(plate)) return 'stop';
      if (hasEngine(plate)) return 'watch';
      return isBreathed(plate) && plate.stopsBy !== 'hand' ? 'act' : 'good';
    case 'lowOil':
      return plate.lubrication === 'pump' && !hasEngine(plate) ? 'watch' : 'good';
    case 'overload':
      return hasEngine(plate) ? 'good' : 'watch';
  }
}

const neverText = {
  good: 'was never fitted to such a set.',
  act: 'is not there on a set that runs by itself: have one fitted.',
  stop: 'is not there: a screw is not run without.',
} as const;

const unfittedText: Record<Shutdown, string> = {
  overTemperature: 'is not there: somebody stays with it while it runs.',
  lowOil: 'is not there: look at the oil before each start.',
  overload: 'is not there: have an electrician look at how the motor is protected.',
};

function judgeShutdowns(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const rule = limit(null, 'every shutdown trips', 'practice');
  const all = Object.keys(shutdownNames) as Shutdown[];
  const found = (answer: string) => all.filter((code) => given.text(code) === answer);
  const format = (codes: readonly Shutdown[]) =>
    capital(codes.map((code) => shutdownNames[code]).join(' and '));
  const repair = doTask('shutdown-test', 'Repair it, then test it again');
  const shown: Shown[] = [];
  const add = (verdict: Verdict, codes: readonly Shutdown[], text: string) => {
    if (codes.length > 0)
      shown.push({
        verdict,
        reason: `${format(codes)} ${text}`,
        limit: rule,
        suggests: verdict === 'good' ? [] : [repair],
      });
  };
  add('good', found('yes'), 'tripped as meant.');
  add('stop', found('no'), 'did not trip: do not run it without.');
  add('stop', found('bridged'), 'is missing or bridged where one was fitted: do not run it without.');
  for (const code of found('none')) {
    const verdict = neverFitted(code, given.plate);
    add(verdict, [code], verdict === 'watch' ? unfittedText[code] : neverText[verdict]);
  }
  if (found('yes').length + found('no').length === 0) {
    shown.push({
      verdict: 'watch',
      reason: 'No shutdown was tested: test it, or you cannot rely on it.',
      limit: rule,
      suggests: [doTask('shutdown-test', 'Test each one')],
    });
  }
  const [first, ...others] = shown as [Shown, ...Shown[]];
  return worstOf([first, ...others]);
}

function shutdownAnswers() {
  return {
    yes: 'trips',
    no: 'does not trip',
    bridged: 'missing or bridged',
    none: 'never had one',
  } as const;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
