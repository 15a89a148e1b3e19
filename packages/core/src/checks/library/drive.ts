import { beltDeflection } from '../../drive/index.js';
import { judgeCapacitor, USUAL_CAPACITOR_TOLERANCE } from '../../electrics/index.js';
import type { CheckDefinition, CheckSubject, Suggestion } from '../check.js';
import { choice, number, quantity } from '../fields.js';
import {
  doTask,
  figure,
  judged,
  limit,
  lookAt,
  missing,
  percent,
  worstOf,
  type Shown,
} from '../verdict-helpers.js';

/** Without a force a belt this far from its target is acted on whatever pressed it (common practice). */
export const SLACK = 1.5;
export const TIGHT = 0.65;
/** A new belt is set up to so much tighter than a run-in one where its manual does not say (common practice). */
export const NEW_BELT = 1.5;
/** A deflection within this share of the target needs no correction of the force. */
const ON_TARGET = 0.02;
/** A capacitor this far above its label is the wrong one (common practice). */
export const FAR_ABOVE = 0.2;

export const driveChecks: readonly CheckDefinition[] = [
  {
    code: 'belt-deflection',
    name: 'Belt deflection',
    how: 'Press at the middle of the free span until it gives by the deflection, and read the force. A span of 480 mm should give by 7.5 mm.',
    caution: 'Locked out before the guard comes off: the compressor starts by itself.',
    station: () => 'drive',
    applies: ({ drive }) => drive !== 'direct',
    fields: [
      choice('method', 'Judged', { gauge: 'by gauge', feel: 'by feel' }),
      choice('look', 'The belt is', { sound: 'sound', worn: 'cracked, frayed or glazed' }),
      quantity('length', 'spanMm', 'Free span', 50, 5000, { optional: true, stays: true }),
      quantity('length', 'bookDeflectionMm', 'Deflection by the manual', 1, 100, {
        optional: true,
        stays: true,
        hint: 'Span/64 where it says none.',
      }),
      quantity('length', 'deflectionMm', 'Pressed to', 0, 200, { optional: true }),
      quantity('force', 'forceN', 'Force read, per belt or rib', 0, 1000, { optional: true }),
      quantity('force', 'leastForceN', 'Lowest force (manual)', 0.1, 1000, { optional: true, stays: true }),
      quantity('force', 'mostForceN', 'Highest force (manual)', 0.1, 1000, { optional: true, stays: true }),
      choice('isNew', 'New belt', { no: 'no', yes: 'yes' }, { optional: true, more: true }),
      quantity('force', 'leastNewForceN', 'Lowest force, new belt', 0.1, 1000, {
        optional: true,
        more: true,
        stays: true,
      }),
      quantity('force', 'mostNewForceN', 'Highest force, new belt', 0.1, 1000, {
        optional: true,
        more: true,
        stays: true,
      }),
    ],
    figure: {
      name: 'Force at its deflection',
      quantity: 'force',
      worse: 'either',
      noise: 1,
      needs: 'forceN',
    },
    resetBy: ['belt-check', 'belt-replace'],
    judge: judgeBelt,
  },
  {
    code: 'capacitor',
    name: 'Run capacitor',
    how: 'Off the circuit and discharged, with a meter that reads capacitance.',
    caution: 'A capacitor holds its charge with the plug out. Electrical work is for licensed people.',
    station: () => 'motor',
    applies: ({ motor }) => motor === 'single-phase' || motor === undefined,
    fields: [
      quantity('capacitance', 'measuredUf', 'Measured', 0, 1000),
      quantity('capacitance', 'labelUf', 'On its label', 0.1, 1000, { optional: true, stays: true }),
      number('%', 'tolerancePercent', 'Tolerance on its label', 0, 50, {
        optional: true,
        more: true,
        stays: true,
        hint: '6 % where the label says none.',
      }),
      quantity('capacitance', 'leastUf', 'Lowest for this motor (its maker)', 0.1, 1000, {
        optional: true,
        more: true,
        stays: true,
      }),
      quantity('capacitance', 'mostUf', 'Highest for this motor (its maker)', 0.1, 1000, {
        optional: true,
        more: true,
        stays: true,
      }),
    ],
    figure: { name: 'Capacitance', quantity: 'capacitance', worse: 'either', noise: 0.3 },
    resetBy: ['capacitor-replace'],
    judge: judgeCapacitorHere,
  },
  {
    code: 'rotation',
    name: 'Direction of rotation',
    how: 'At the first touch of the switch, against the arrow on the housing.',
    caution: 'Seconds backwards can ruin a pump. Only an electrician swaps two phases.',
    station: () => 'motor',
    applies: ({ motor }) => motor === 'three-phase' || motor === undefined,
    fields: [choice('turns', 'It turns', { right: 'with the arrow', wrong: 'against the arrow' })],
    judge(given) {
      const arrow = limit(null, 'with the arrow', 'book');
      if (given.text('turns') === 'right')
        return judged('good', 'It turns with the arrow.', { limit: arrow });
      return judged('stop', 'It turns against its arrow: stop within seconds and call an electrician.', {
        limit: arrow,
        suggests: [lookAt('motor', 'Two phases swapped, by a licensed electrician')],
      });
    },
  },
  {
    code: 'vibration-sound',
    name: 'Vibration and sound',
    how: 'By ear, and by hand on what is cold and still guarded, against the first day’s sound.',
    station: () => 'drive',
    applies: () => true,
    fields: [
      choice('compared', 'Against the first day', {
        same: 'the same',
        different: 'different',
        unknown: 'nobody knows how it was',
      }),
    ],
    judge(given) {
      const first = limit(null, 'as on the first day', 'baseline');
      if (given.text('compared') === 'same')
        return judged('good', 'It sounds and shakes as on the first day.', { limit: first });
      if (given.text('compared') === 'unknown') {
        return judged('good', 'There is no comparison yet: record how it sounds today.', {
          limit: first,
          noComparison: true,
        });
      }
      return judged('watch', 'It sounds or shakes other than on the first day: describe how in the note.', {
        limit: first,
        suggests: [lookAt('drive', 'Belt, bolts, bearings, valves, piston, in this order')],
      });
    },
  },
];

/** New belts settle: they are looked at again. */
function recheckOf(given: CheckSubject): readonly Suggestion[] {
  return given.text('isNew') === 'yes'
    ? [doTask('belt-check', 'A new belt settles: look again after 24 to 48 h')]
    : [];
}

function judgeBelt(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const shown: Shown[] = [];
  if (given.text('look') === 'worn') {
    shown.push({
      verdict: 'act',
      reason: 'The belt is cracked, frayed or glazed: replace it.',
      limit: limit(null, 'a sound belt', 'practice'),
      suggests: [doTask('belt-check', 'New belt'), lookAt('drive', 'Pulleys in line, no oil on them')],
    });
  }
  const [span, book, pressed, force] = [
    given.number('spanMm'),
    given.number('bookDeflectionMm'),
    given.number('deflectionMm'),
    given.number('forceN'),
  ];
  const byFeel = given.text('method') === 'feel';
  const bySpan = span === undefined ? undefined : beltDeflection(span);
  if (bySpan?.ok === false) return bySpan;
  const target = book ?? bySpan?.value;
  const [least, most] = forceBand(given);
  if (least !== undefined && most !== undefined && least > most)
    return missing('mostForceN', 'The highest force must be above the lowest. Are the two mixed up?');
  let noComparison = false;
  let measured: number | null = null;
  if (byFeel || (force === undefined && pressed === undefined)) {
    shown.push({
      verdict: 'watch',
      reason: 'Judged by feel: not measured. Press to the deflection and read the force to know.',
      limit: limit(null, 'the force at its deflection', 'practice'),
    });
  } else if (force === undefined) {
    shown.push(byDeflection(given, pressed!, target));
  } else {
    measured = forceAtTarget(force, pressed, target);
    const one = byForce(given, measured, target, least, most);
    if (one) shown.push(one);
    else {
      noComparison = shown.length === 0;
      shown.push({
        verdict: 'good',
        reason: `${given.format(measured, 'force')} at its deflection. There is no comparison yet: enter the forces that the manual of the belt gives.`,
        limit: null,
      });
    }
  }
  const [first, ...others] = shown as [Shown, ...Shown[]];
  const outcome = worstOf([first, ...others], {
    figure: measured === null ? null : { value: measured, uncertainty: 1 },
    figures:
      target === undefined ? [] : [{ name: 'Deflection to press to', value: target, quantity: 'length' }],
    ...(noComparison ? { noComparison: true as const } : {}),
  });
  if (!outcome.ok) return outcome;
  return {
    ok: true,
    value: { ...outcome.value, suggests: [...outcome.value.suggests, ...recheckOf(given)] },
  };
}

/** Least and most force for this belt as it is: a new one is set tighter. */
function forceBand(given: CheckSubject): readonly [number | undefined, number | undefined] {
  const [least, most] = [given.number('leastForceN'), given.number('mostForceN')];
  if (given.text('isNew') !== 'yes') return [least, most];
  return [
    given.number('leastNewForceN') ?? least,
    given.number('mostNewForceN') ?? (most === undefined ? undefined : most * NEW_BELT),
  ];
}

/** A belt gives in proportion to the force: what would have pressed it to its deflection. */
function forceAtTarget(force: number, pressed: number | undefined, target: number | undefined): number {
  if (pressed === undefined || target === undefined || pressed <= 0) return force;
  return Math.abs(pressed / target - 1) <= ON_TARGET ? force : (force * target) / pressed;
}

function byForce(
  given: CheckSubject,
  force: number,
  target: number | undefined,
  least: number | undefined,
  most: number | undefined,
): Shown | null {
  if (least === undefined && most === undefined) return null;
  const format = (newton: number) => given.format(newton, 'force');
  const at = target === undefined ? 'at its deflection' : `at ${given.format(target, 'length')}`;
  const band = [
    least === undefined ? '' : `from ${format(least)}`,
    most === undefined ? '' : `up to ${format(most)}`,
  ]
    .filter(Boolean)
    .join(' ');
  const text = `${format(force)} ${at}; the manual asks for ${band}`;
  const setIt = [doTask('belt-check', 'Set the tension, then read the force again')];
  if (least !== undefined && force < least) {
    return {
      verdict: 'act',
      reason: `${text}: slack, it slips. Tighten it.`,
      limit: limit(least, band, 'book'),
      suggests: setIt,
    };
  }
  if (most !== undefined && force > most) {
    return {
      verdict: 'act',
      reason: `${text}: too tight, it eats the bearings. Slacken it.`,
      limit: limit(most, band, 'book'),
      suggests: setIt,
    };
  }
  return { verdict: 'good', reason: `${text}.`, limit: limit(most ?? least!, band, 'book') };
}

/** A deflection whose force nobody read says something only where it is far off. */
function byDeflection(given: CheckSubject, pressed: number, target: number | undefined): Shown {
  if (target === undefined) {
    return {
      verdict: 'watch',
      reason: `Pressed to ${given.format(pressed, 'length')}; without span and force that says nothing.`,
      limit: limit(null, 'the force at its deflection', 'practice'),
    };
  }
  const share = pressed / target;
  const text = `${given.format(pressed, 'length')}${given.number('spanMm') === undefined ? '' : ` on a span of ${given.format(given.number('spanMm')!, 'length')}`}; ${given.format(target, 'length')} is meant`;
  const bound = limit(
    null,
    `${given.format(target, 'length')}, from ${percent(TIGHT)} to ${percent(SLACK)} of it`,
    given.number('bookDeflectionMm') === undefined ? 'practice' : 'book',
  );
  const setIt = [doTask('belt-check', 'Set the tension, then read the force')];
  if (share >= SLACK)
    return {
      verdict: 'act',
      reason: `${text}: slack, it slips. Tighten it.`,
      limit: bound,
      suggests: setIt,
    };
  if (share <= TIGHT)
    return {
      verdict: 'act',
      reason: `${text}: too tight, it eats the bearings. Slacken it.`,
      limit: bound,
      suggests: setIt,
    };
  return {
    verdict: 'watch',
    reason: `${text}, but the force was not read: press to ${given.format(target, 'length')} and read it.`,
    limit: bound,
  };
}

function judgeCapacitorHere(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const [measured, label] = [given.need('measuredUf'), given.number('labelUf')];
  const [least, most] = [given.number('leastUf'), given.number('mostUf')];
  const format = (value: number) => given.format(value, 'capacitance');
  const figureOf = { value: measured, uncertainty: 0.3 };
  const replace = doTask(
    'capacitor-replace',
    'A new one for this motor: check its size, voltage and mounting',
  );
  if (least !== undefined && most !== undefined) {
    if (least > most) return missing('mostUf', 'The highest must be above the lowest. Are the two mixed up?');
    const bound = limit(measured > most ? most : least, `${format(least)} to ${format(most)}`, 'book');
    const text = `${format(measured)} measured, ${format(least)} to ${format(most)} by the maker of the motor`;
    const tail =
      measured < least ? ': it starts weakly.' : measured > most ? ': the wrong one for this motor.' : '.';
    const within = measured >= least && measured <= most;
    return judged(within ? 'good' : 'act', `${text}${tail}`, {
      limit: bound,
      figure: figureOf,
      suggests: within ? [] : [replace],
    });
  }
  if (label === undefined)
    return missing('labelUf', 'Enter what stands on its label, or the range for this motor.');
  const typed = given.number('tolerancePercent');
  const tolerance = typed === undefined ? USUAL_CAPACITOR_TOLERANCE : typed / 100;
  const found = judgeCapacitor(measured, label, tolerance);
  if (!found.ok) return found;
  const { deviation, lowUf, highUf, verdict } = found.value;
  const sense = `${format(measured)} measured, ${format(label)} on the label, ${figure(tolerance * 100)} % allowed`;
  const parts = {
    limit: limit(
      verdict === 'high' ? highUf : lowUf,
      `${format(lowUf)} to ${format(highUf)}`,
      typed === undefined ? 'practice' : 'label',
    ),
    figure: figureOf,
    figures: [{ name: 'Off its label', value: deviation * 100, unit: '%' }],
  } as const;
  if (verdict === 'low')
    return judged('act', `${sense}: it starts weakly.`, { ...parts, suggests: [replace] });
  if (verdict === 'within') return judged('good', `${sense}.`, parts);
  const far = deviation > Math.max(FAR_ABOVE, tolerance);
  const harder = far
    ? 'the wrong one, every start is harder on the moving parts'
    : 'a little high, look at it again';
  return judged(far ? 'act' : 'watch', `${sense}: ${harder}.`, { ...parts, suggests: far ? [replace] : [] });
}
