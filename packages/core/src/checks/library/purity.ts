import type { CheckDefinition, CheckSubject, LimitOrigin, Verdict } from '../check.js';
import { choice, gauge, number, quantity } from '../fields.js';
import {
  doTask,
  figure,
  graver,
  isHighPressure,
  isScrew,
  judged,
  limit,
  lookAt,
  percent,
  whenHigh,
} from '../judging.js';

/** Limits of breathing air (EN 12021:2014; CGA G-7.1 Grades D and E; memory). */
export const breathingAir = {
  'en-12021': { name: 'EN 12021', coPpm: 5, co2Ppm: 500, oilMgM3: 0.5 },
  'cga-d': { name: 'CGA Grade D', coPpm: 10, co2Ppm: 1000, oilMgM3: 5 },
  'cga-e': { name: 'CGA Grade E', coPpm: 10, co2Ppm: 1000, oilMgM3: 5 },
} as const;
type Standard = keyof typeof breathingAir;

/** Water in breathing air by EN 12021 (memory), mg/m³, by the pressure it is stored at. */
const waterLimits = [
  { fromBar: 200, mgM3: 35 },
  { fromBar: 40, mgM3: 50 },
] as const;

/** Pressure dew points of the classes of ISO 8573-1 (memory), °C. */
export const dewPointClasses = { 1: -70, 2: -40, 3: -20, 4: 3, 5: 7, 6: 10 } as const;
/** Oil of its classes, mg/m³. */
export const oilClasses = { 1: 0.01, 2: 0.1, 3: 1, 4: 5 } as const;

/** Share of a limit from which a figure is watched (common practice). */
const NEAR = 0.8;

const standard = choice(
  'standard',
  'Standard',
  {
    'en-12021': breathingAir['en-12021'].name,
    'cga-d': breathingAir['cga-d'].name,
    'cga-e': breathingAir['cga-e'].name,
  },
  { stays: true },
);

/** Whether somebody breathes what the machine delivers. */
export const isBreathed: CheckDefinition['applies'] = (plate) =>
  isHighPressure(plate) && plate.airUse !== 'technical';

function limitsOf(given: CheckSubject) {
  return breathingAir[given.text('standard') as Standard];
}

/** Above its limit breathing air is not to be breathed; near it is watched. */
function purity(value: number, most: number): Verdict {
  if (value > most) return 'stop';
  return value > most * NEAR ? 'watch' : 'good';
}

const towerWork = [
  doTask('cartridge-replace', 'New cartridge'),
  lookAt('intake', 'Where the intake stands: exhausts, wind, engines'),
];

export const purityChecks: readonly CheckDefinition[] = [
  {
    code: 'cartridge-weight',
    name: 'Cartridge weight',
    how: 'On a clean scale, against the dry and saturated weight printed on it.',
    caution: 'Weighing means opening the tower: proved empty first, never while it runs.',
    opens: ['tower'],
    station: () => 'tower',
    applies: isHighPressure,
    fields: [
      quantity('mass', 'weightG', 'It weighs', 1, 50_000),
      quantity('mass', 'dryG', 'Dry, as printed', 1, 50_000, { stays: true }),
      quantity('mass', 'saturatedG', 'Saturated, as printed', 1, 50_000, { stays: true }),
    ],
    figure: { name: 'Cartridge used', unit: '%', worse: 'higher', noise: 1 },
    resetBy: ['cartridge-replace'],
    judge(given) {
      const [weight, dry, saturated] = [given.need('weightG'), given.need('dryG'), given.need('saturatedG')];
      if (saturated <= dry) {
        return {
          ok: false,
          problem: {
            code: 'weights-mixed',
            field: 'saturatedG',
            sentence: 'Saturated it weighs more than dry. Are the two mixed up?',
          },
        };
      }
      const used = (weight - dry) / (saturated - dry);
      const breathes = given.plate?.airUse !== 'technical';
      const verdict = whenHigh(used, { watch: NEAR, ...(breathes ? { stop: 1 } : { act: 1 }) });
      const words = `${given.say(weight, 'mass')}: ${percent(used)} of what it takes up is used`;
      const tail =
        used < -0.02
          ? '. Lighter than dry: is it this cartridge’s figure?'
          : verdict === 'good'
            ? '.'
            : verdict === 'watch'
              ? ': have the next one ready.'
              : ': change it before another fill.';
      return judged(used < -0.02 ? graver(verdict, 'watch') : verdict, `${words}${tail}`, {
        limit: limit(
          verdict === 'good' || verdict === 'watch' ? NEAR * 100 : 100,
          `full at ${given.say(saturated, 'mass')}`,
          'label',
        ),
        figure: { value: used * 100, uncertainty: (1 / (saturated - dry)) * 100 },
        figures: [{ name: 'Left', value: Math.max(0, 1 - used) * 100, unit: '%' }],
        suggests:
          verdict === 'good'
            ? []
            : [doTask('cartridge-replace', 'New cartridge, seals greased with breathing-air grease')],
      });
    },
  },
  {
    code: 'co',
    name: 'Carbon monoxide',
    how: 'At the fill valve, running, by a calibrated instrument.',
    caution: 'Somebody will breathe this. Petrol sets never indoors.',
    station: () => 'fill',
    applies: isBreathed,
    fields: [number('ppm', 'coPpm', 'Carbon monoxide', 0, 2000), standard],
    figure: { name: 'Carbon monoxide', unit: 'ppm', worse: 'higher', noise: 0.5 },
    resetBy: ['cartridge-replace'],
    judge(given) {
      const [co, { coPpm, name }] = [given.need('coPpm'), limitsOf(given)];
      const verdict = purity(co, coPpm);
      return judged(
        verdict,
        `${figure(co)} ppm of carbon monoxide, ${name} allows ${coPpm}${verdict === 'stop' ? ': nobody breathes this.' : '.'}`,
        {
          limit: limit(coPpm, `${coPpm} ppm (${name})`, 'standard'),
          figure: { value: co, uncertainty: 0.5 },
          suggests: verdict === 'good' ? [] : towerWork,
        },
      );
    },
  },
  {
    code: 'air-quality',
    name: 'Breathing-air sample',
    how: 'The laboratory’s figures.',
    station: () => 'fill',
    applies: isBreathed,
    fields: [
      standard,
      number('ppm', 'coPpm', 'Carbon monoxide', 0, 2000),
      number('ppm', 'co2Ppm', 'Carbon dioxide', 0, 50_000),
      number('mg/m³', 'oilMgM3', 'Oil', 0, 100),
    ],
    judge(given) {
      const most = limitsOf(given);
      const parts = [
        { name: 'carbon monoxide', value: given.need('coPpm'), most: most.coPpm, unit: 'ppm' },
        { name: 'carbon dioxide', value: given.need('co2Ppm'), most: most.co2Ppm, unit: 'ppm' },
        { name: 'oil', value: given.need('oilMgM3'), most: most.oilMgM3, unit: 'mg/m³' },
      ];
      const verdict = parts.reduce<Verdict>(
        (worst, { value, most: bound }) => graver(worst, purity(value, bound)),
        'good',
      );
      const over = parts.filter(
        ({ value, most: bound }) => purity(value, bound) === verdict && verdict !== 'good',
      );
      const said = (over.length > 0 ? over : parts).map(
        ({ name, value, most: bound, unit }) => `${name} ${figure(value)} of ${bound} ${unit}`,
      );
      const tail = { good: 'within', watch: 'near the limit of', act: 'over', stop: 'over the limit of' }[
        verdict
      ];
      return judged(
        verdict,
        `${said.join(', ')}: ${tail} ${most.name}${verdict === 'stop' ? '. Nobody breathes this.' : '.'}`,
        {
          limit: limit(
            null,
            `${most.coPpm} ppm CO, ${most.co2Ppm} ppm CO₂, ${most.oilMgM3} mg/m³ oil (${most.name})`,
            'standard',
          ),
          suggests: verdict === 'good' ? [] : towerWork,
        },
      );
    },
  },
  {
    code: 'water-content',
    name: 'Water in the air',
    how: 'By tube or instrument at the fill valve.',
    station: () => 'fill',
    applies: isHighPressure,
    fields: [
      number('mg/m³', 'waterMgM3', 'Water', 0, 5000),
      gauge('pressureBar', 'Stored at', { plate: 'workingPressureBar' }),
      number('mg/m³', 'limitMgM3', 'Own limit', 1, 5000, {
        optional: true,
        stays: true,
        hint: 'EN 12021 where none is entered.',
      }),
    ],
    figure: { name: 'Water', unit: 'mg/m³', worse: 'higher', noise: 2 },
    resetBy: ['cartridge-replace'],
    judge(given) {
      const [water, pressure, own] = [
        given.need('waterMgM3'),
        given.need('pressureBar'),
        given.number('limitMgM3'),
      ];
      const byStandard = waterLimits.find(({ fromBar }) => pressure >= fromBar)?.mgM3;
      const most = own ?? byStandard;
      if (most === undefined) {
        return {
          ok: false,
          problem: {
            code: 'missing',
            field: 'limitMgM3',
            sentence: 'EN 12021 gives no figure below 40 bar: enter the limit to judge by.',
          },
        };
      }
      const breathes = given.plate?.airUse !== 'technical';
      const verdict: Verdict =
        water > most ? (breathes ? 'stop' : 'act') : water > most * NEAR ? 'watch' : 'good';
      const origin: LimitOrigin = own === undefined ? 'standard' : 'book';
      return judged(
        verdict,
        `${figure(water)} mg/m³ of water, ${figure(most)} allowed at ${given.say(pressure, 'pressure')}.`,
        {
          limit: limit(most, `${figure(most)} mg/m³${own === undefined ? ' (EN 12021)' : ''}`, origin),
          figure: { value: water, uncertainty: 2 },
          suggests:
            verdict === 'good'
              ? []
              : [doTask('cartridge-replace', 'New cartridge'), lookAt('final-separator', 'Drains that work')],
        },
      );
    },
  },
  {
    code: 'dew-point',
    name: 'Pressure dew point',
    how: 'At working pressure, after the dryer.',
    station: (plate) => (isScrew(plate) && plate.hasDryer ? 'dryer' : 'outlet'),
    applies: (plate) => !isHighPressure(plate),
    fields: [
      quantity('temperature', 'dewPointC', 'Pressure dew point', -100, 60),
      choice(
        'class',
        'Class of ISO 8573-1',
        Object.fromEntries(
          Object.entries(dewPointClasses).map(([code, temp]) => [
            code,
            `${code}: ${temp > 0 ? '+' : ''}${temp} °C`,
          ]),
        ),
        { stays: true },
      ),
    ],
    figure: { name: 'Pressure dew point', quantity: 'temperature', worse: 'higher', noise: 1 },
    judge(given) {
      const [dew, code] = [given.need('dewPointC'), given.text('class')!];
      const most = dewPointClasses[Number(code) as keyof typeof dewPointClasses];
      const verdict: Verdict = dew > most ? 'act' : dew > most - 2 ? 'watch' : 'good';
      return judged(
        verdict,
        `Dew point ${given.say(dew, 'temperature')}; class ${code} asks for ${given.say(most, 'temperature')}.`,
        {
          limit: limit(most, `${given.say(most, 'temperature')} (ISO 8573-1, class ${code})`, 'standard'),
          figure: { value: dew, uncertainty: 1 },
          suggests:
            verdict === 'good'
              ? []
              : [lookAt('dryer', 'Drains, dryer filter, intake temperature of the dryer')],
        },
      );
    },
  },
];
