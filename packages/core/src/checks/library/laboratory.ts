import { err } from '../../basics/index.js';
import { isOilLubricated } from '../../machine/index.js';
import type { CheckDefinition, CheckSubject, JudgedFigure, Verdict } from '../check.js';
import { choice, number } from '../fields.js';
import {
  doTask,
  figure,
  isScrew,
  limit,
  lookAt,
  missing,
  SAME,
  thresholdOf,
  verdictAbove,
  worstOf,
  type Shown,
  type Thresholds,
} from '../verdict-helpers.js';

/** Viscosity off that of the new oil, as a share either way (common practice, memory). */
export const VISCOSITY: Thresholds & { readonly watch: number; readonly act: number } = {
  watch: 0.1,
  act: 0.2,
};
/** Acid number above that of the new oil, mg KOH/g (common practice, memory). */
export const ACID = { watch: 0.5, act: 1 } as const;
/** Acid number where that of the new oil is not known, mg KOH/g (common practice, memory). */
export const ACID_ALONE = { watch: 1.5, act: 2.5 } as const;

/** What is counted in parts per million, with where it is watched and acted on (common practice, memory). */
export const OIL_PPM = {
  waterPpm: {
    name: 'Water',
    steps: { watch: 500, act: 2000, stop: 5000 },
    says: 'water in the oil rusts bearings',
    look: 'Does it get warm enough? Cooler, short runs, the cold side of the room',
  },
  ironPpm: {
    name: 'Iron',
    steps: { watch: 50, act: 100, stop: 300 },
    says: 'iron comes from gears, bearings and cylinders',
    look: 'Sound, vibration and play of the bearings',
  },
  copperPpm: {
    name: 'Copper',
    steps: { watch: 20, act: 50, stop: 150 },
    says: 'copper comes from cages, bushes and coolers',
    look: 'Bushes and bearing cages; an oil cooler that corrodes',
  },
  siliconPpm: {
    name: 'Silicon',
    steps: { watch: 15, act: 30, stop: 100 },
    says: 'silicon is dust that came past the intake',
    look: 'Intake element, gasket and housing',
  },
} as const;
type Counted = keyof typeof OIL_PPM;
const counted = Object.keys(OIL_PPM) as Counted[];

/** What comes back from a laboratory. */
export const laboratoryChecks: readonly CheckDefinition[] = [
  {
    code: 'oil-sample',
    name: 'Oil sample, by the laboratory',
    how: 'The laboratory’s figures, of a sample taken warm, before the filter. Enter what it gives; what is left out is not judged.',
    station: (plate) => (isScrew(plate) ? 'oil' : 'crankcase'),
    applies: isOilLubricated,
    fields: [
      number('mm²/s', 'viscosity', 'Viscosity at 40 °C', 1, 2000, { optional: true }),
      number('mm²/s', 'newViscosity', 'Viscosity of the new oil', 1, 2000, {
        optional: true,
        stays: true,
        hint: 'Its ISO VG grade where nothing better is known.',
      }),
      number('mg KOH/g', 'acid', 'Acid number', 0, 20, { optional: true }),
      number('mg KOH/g', 'newAcid', 'Acid number of the new oil', 0, 20, {
        optional: true,
        stays: true,
        more: true,
      }),
      ...counted.map((code) => number('ppm', code, OIL_PPM[code].name, 0, 100_000, { optional: true })),
      choice(
        'says',
        'The laboratory says',
        { normal: 'normal', watch: 'watch it', act: 'act', stop: 'stop' },
        { optional: true },
      ),
    ],
    figure: { name: 'Iron', unit: 'ppm', worse: 'higher', needs: 'ironPpm', noise: 5 },
    resetBy: ['oil-change'],
    judge: judgeSample,
  },
];

function judgeSample(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const shown = [
    byViscosity(given),
    byAcid(given),
    ...counted.map((code) => byCount(given, code)),
    byWord(given),
  ];
  if (
    given.number('newViscosity') !== undefined &&
    given.number('viscosity') === undefined &&
    shown.every(isNone)
  )
    return missing('viscosity', 'Enter the viscosity of the sample.');
  const said = shown.filter((one): one is Shown => one !== null);
  const [first, ...others] = said;
  if (!first) return missing('viscosity', 'Enter at least one figure of the laboratory.');
  const [viscosity, newViscosity] = [given.number('viscosity'), given.number('newViscosity')];
  if (viscosity !== undefined && newViscosity !== undefined && viscosity > 10 * newViscosity)
    return err(
      'viscosity-off',
      `${figure(viscosity)} mm²/s is more than ten times the new oil: is it at 40 °C, and in mm²/s (cSt)?`,
      'viscosity',
    );
  const iron = given.number('ironPpm');
  const figures: JudgedFigure[] = counted.flatMap((code) => {
    const value = given.number(code);
    return value === undefined ? [] : [{ name: OIL_PPM[code].name, value, unit: 'ppm' }];
  });
  return worstOf([first, ...others], {
    figures,
    figure: iron === undefined ? null : { value: iron, uncertainty: Math.max(2, iron * 0.1) },
  });
}

const isNone = (one: Shown | null) => one === null;

function byViscosity(given: CheckSubject): Shown | null {
  const [value, fresh] = [given.number('viscosity'), given.number('newViscosity')];
  if (value === undefined) return null;
  const text = `${figure(value)} mm²/s at 40 °C`;
  if (fresh === undefined)
    return { verdict: 'good', reason: `${text}; enter that of the new oil to judge it.` };
  const off = value / fresh - 1;
  const verdict = verdictAbove(Math.abs(off) + SAME, VISCOSITY);
  const step = thresholdOf(verdict, VISCOSITY)!;
  const bound = fresh * (1 + Math.sign(off || 1) * step);
  const way = off < 0 ? 'thinner: thinned by another oil or fuel' : 'thicker: it has aged by heat';
  const shift = `${Math.round(Math.abs(off) * 100)} %`;
  return {
    verdict,
    reason: `${text}, new ${figure(fresh)}${verdict === 'good' ? '.' : `: ${shift} ${way}.`}`,
    limit: limit(null, `${figure(bound)} mm²/s`, 'practice'),
    suggests: verdict === 'good' ? [] : [doTask('oil-change', 'New oil of its grade')],
  };
}

function byAcid(given: CheckSubject): Shown | null {
  const [value, fresh] = [given.number('acid'), given.number('newAcid')];
  if (value === undefined) return null;
  const [rise, steps] = fresh === undefined ? [value, ACID_ALONE] : [value - fresh, ACID];
  const verdict = verdictAbove(rise + SAME, steps);
  const bound = thresholdOf(verdict, steps)! + (fresh ?? 0);
  const beside = fresh === undefined ? '' : `, new ${figure(fresh)}`;
  return {
    verdict,
    reason: `Acid number ${figure(value)} mg KOH/g${beside}${verdict === 'good' ? '.' : ': the oil is spent and etches bearings.'}`,
    limit: limit(null, `${figure(bound)} mg KOH/g`, 'practice'),
    suggests:
      verdict === 'good' ? [] : [doTask('oil-change', 'New oil, the system drained at all low points')],
  };
}

function byCount(given: CheckSubject, code: Counted): Shown | null {
  const value = given.number(code);
  if (value === undefined) return null;
  const { name, steps, says, look } = OIL_PPM[code];
  const verdict = verdictAbove(value, steps);
  const step = thresholdOf(verdict, steps)!;
  const tail = {
    good: '.',
    watch: `: ${says}. Sample again at half the interval.`,
    act: `: ${says}. New oil, and look where it comes from.`,
    stop: `: ${says}. Do not run it until that is found.`,
  }[verdict];
  return {
    verdict,
    reason: `${name} ${figure(value)} ppm${tail}`,
    limit: limit(code === 'ironPpm' ? step : null, `${figure(step)} ppm`, 'practice'),
    suggests:
      verdict === 'good'
        ? []
        : [
            doTask('oil-change', 'New oil and filter, then a sample after some hours'),
            lookAt(code === 'siliconPpm' ? 'intake' : sampleStation(given), look),
          ],
  };
}

function sampleStation({ plate }: CheckSubject): string {
  return plate !== undefined && isScrew(plate) ? 'airend' : 'crankcase';
}

/** Whoever had the sample under the lamp may know more than its figures. */
function byWord(given: CheckSubject): Shown | null {
  const says = given.text('says');
  if (says === undefined) return null;
  const verdict: Verdict = says === 'normal' ? 'good' : (says as Verdict);
  return {
    verdict,
    reason:
      verdict === 'good'
        ? 'The laboratory calls it normal.'
        : 'The laboratory says more than the figures: read its words.',
    limit: limit(null, 'the laboratory’s own word', 'standard'),
  };
}
