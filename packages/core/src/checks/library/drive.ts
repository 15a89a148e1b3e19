import { beltDeflection } from '../../drive/index.js';
import { judgeCapacitor, USUAL_CAPACITOR_TOLERANCE } from '../../electrics/index.js';
import type { CheckDefinition } from '../check.js';
import { choice, number, quantity } from '../fields.js';
import { doTask, figure, graver, judged, limit, lookAt, percent } from '../judging.js';

/** A belt this far from its target is watched, or acted on; a tight one eats bearings (common practice). */
const SLACK = { watch: 1.25, act: 1.5 } as const;
const TIGHT = { watch: 0.8, act: 0.65 } as const;
/** A capacitor this far above its label is the wrong one (common practice). */
const FAR_ABOVE = 0.2;

export const driveChecks: readonly CheckDefinition[] = [
  {
    code: 'belt-deflection',
    name: 'Belt deflection',
    how: 'Press at the middle of the free span with the force in the book; a span of 480 mm should give 7.5 mm.',
    caution: 'Locked out before the guard comes off: the set starts by itself.',
    station: () => 'drive',
    applies: ({ drive }) => drive !== 'direct',
    fields: [
      choice('method', 'Judged', { gauge: 'by gauge', feel: 'by feel' }),
      choice('look', 'The belt is', { sound: 'sound', worn: 'cracked, frayed or glazed' }),
      quantity('length', 'deflectionMm', 'Deflection', 0, 200, { optional: true }),
      quantity('length', 'spanMm', 'Free span', 50, 5000, { optional: true, stays: true }),
      quantity('force', 'forceN', 'Force used', 0, 1000, { optional: true }),
      quantity('force', 'leastForceN', 'Least force by the book', 0, 1000, { optional: true, stays: true }),
      quantity('force', 'mostForceN', 'Most force by the book', 0, 1000, { optional: true, stays: true }),
      choice('isNew', 'New belt', { no: 'no', yes: 'yes' }, { optional: true }),
    ],
    figure: { name: 'Deflection', quantity: 'length', worse: 'either', noise: 0.5 },
    resetBy: ['belt-check', 'belt-replace'],
    judge(given) {
      const recheck =
        given.text('isNew') === 'yes'
          ? [doTask('belt-check', 'A new belt settles: look again after 24 to 48 h')]
          : [];
      if (given.text('look') === 'worn') {
        return judged('act', 'The belt is cracked, frayed or glazed: replace it.', {
          limit: limit(null, 'a sound belt', 'practice'),
          suggests: [doTask('belt-check', 'New belt'), lookAt('drive', 'Pulleys in line, no oil on them')],
        });
      }
      const [deflection, span] = [given.number('deflectionMm'), given.number('spanMm')];
      if (given.text('method') === 'feel' || deflection === undefined || span === undefined) {
        return judged('watch', 'Judged by feel: not measured. Enter span and deflection to know.', {
          limit: limit(null, 'span/64', 'practice'),
          suggests: recheck,
        });
      }
      const target = beltDeflection(span);
      if (!target.ok) return target;
      const share = deflection / target.value;
      const high =
        share >= SLACK.act || share <= TIGHT.act
          ? 'act'
          : share >= SLACK.watch || share <= TIGHT.watch
            ? 'watch'
            : 'good';
      const force = forceVerdict(
        given.number('forceN'),
        given.number('leastForceN'),
        given.number('mostForceN'),
      );
      const verdict = graver(high, force === null ? 'good' : 'watch');
      const words = `${given.say(deflection, 'length')} on a span of ${given.say(span, 'length')}; ${given.say(target.value, 'length')} is meant`;
      const how =
        high === 'good' ? '.' : share > 1 ? ': too slack, it slips.' : ': too tight, it eats the bearings.';
      return judged(verdict, `${words}${how}${force === null ? '' : ` ${force}`}`, {
        limit: limit(
          share > 1 ? target.value * SLACK.watch : target.value * TIGHT.watch,
          `${given.say(target.value, 'length')} (span/64), from ${percent(TIGHT.watch)} to ${percent(SLACK.watch)} of it`,
          'practice',
        ),
        figure: { value: deflection, uncertainty: 0.5 },
        figures: [{ name: 'Meant', value: target.value, quantity: 'length' }],
        suggests: [...(high === 'good' ? [] : [doTask('belt-check', 'Set the tension')]), ...recheck],
      });
    },
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
      quantity('capacitance', 'labelUf', 'On its label', 0.1, 1000, { stays: true }),
      number('%', 'tolerancePercent', 'Tolerance on its label', 0, 50, {
        optional: true,
        stays: true,
        hint: '6 % where the label says none.',
      }),
    ],
    figure: { name: 'Capacitance', quantity: 'capacitance', worse: 'either', noise: 0.3 },
    resetBy: ['capacitor-replace'],
    judge(given) {
      const [measured, label] = [given.need('measuredUf'), given.need('labelUf')];
      const typed = given.number('tolerancePercent');
      const tolerance = typed === undefined ? USUAL_CAPACITOR_TOLERANCE : typed / 100;
      const found = judgeCapacitor(measured, label, tolerance);
      if (!found.ok) return found;
      const { deviation, lowUf, highUf, verdict } = found.value;
      const sense = `${given.say(measured, 'capacitance')} measured, ${given.say(label, 'capacitance')} on the label, ${figure(tolerance * 100)} % allowed`;
      const parts = {
        limit: limit(
          verdict === 'high' ? highUf : lowUf,
          `${given.say(lowUf, 'capacitance')} to ${given.say(highUf, 'capacitance')}`,
          typed === undefined ? 'practice' : 'label',
        ),
        figure: { value: measured, uncertainty: 0.3 },
        figures: [{ name: 'Off its label', value: deviation * 100, unit: '%' }],
      } as const;
      const replace = doTask(
        'capacitor-replace',
        'A new one for this motor: check its size, voltage and mounting',
      );
      if (verdict === 'low')
        return judged('act', `${sense}: it starts weakly.`, { ...parts, suggests: [replace] });
      if (verdict === 'within') return judged('good', `${sense}.`, parts);
      const far = deviation > Math.max(FAR_ABOVE, tolerance);
      const harder = far
        ? 'the wrong one, every start is harder on the moving parts'
        : 'a little high, look at it again';
      return judged(far ? 'act' : 'watch', `${sense}: ${harder}.`, {
        ...parts,
        suggests: far ? [replace] : [],
      });
    },
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
    how: 'By hand and ear against the first day’s sound.',
    station: () => 'drive',
    applies: () => true,
    fields: [choice('compared', 'Against the first day', { same: 'the same', different: 'different' })],
    judge(given) {
      const first = limit(null, 'as on the first day', 'baseline');
      if (given.text('compared') === 'same')
        return judged('good', 'It sounds and shakes as on the first day.', { limit: first });
      return judged('watch', 'It sounds or shakes other than on the first day: describe how in the note.', {
        limit: first,
        suggests: [lookAt('drive', 'Belt, bolts, bearings, valves, piston, in this order')],
      });
    },
  },
];

/** What is wrong with the force that the deflection was taken at; null when it is within the book or not known. */
function forceVerdict(force?: number, least?: number, most?: number): string | null {
  if (force === undefined) return null;
  if (least !== undefined && force < least)
    return 'Pressed with less force than the book asks for: press again.';
  if (most !== undefined && force > most)
    return 'Pressed with more force than the book asks for: press again.';
  return null;
}
