import { BREATHED_CO_PPM } from '../../air/index.js';
import { isBreathed } from '../../machine/index.js';
import type { CheckDefinition, CheckSubject, JudgedLimit, LimitOrigin, Verdict } from '../check.js';
import { choice, gauge, number, quantity, text } from '../fields.js';
import {
  doTask,
  figure,
  worse,
  isHighPressure,
  isScrew,
  judged,
  limit,
  lookAt,
  missing,
  percent,
  verdictAbove,
  worstOf,
  type Shown,
} from '../verdict-helpers.js';

/** Limits of breathing air (EN 12021:2014; CGA G-7.1 Grades D and E; memory). */
export const breathingAir = {
  'en-12021': {
    name: 'EN 12021',
    coPpm: BREATHED_CO_PPM,
    co2Ppm: 500,
    oilMgM3: 0.5,
    oxygen: [20, 22],
    hasWater: true,
  },
  'cga-d': {
    name: 'CGA Grade D',
    coPpm: 10,
    co2Ppm: 1000,
    oilMgM3: 5,
    oxygen: [19.5, 23.5],
    hasWater: false,
  },
  'cga-e': { name: 'CGA Grade E', coPpm: 10, co2Ppm: 1000, oilMgM3: 5, oxygen: [20, 22], hasWater: false },
} as const;
type Standard = keyof typeof breathingAir;

/**
 * Carbon monoxide in air that nobody breathes from, ppm: people stand about it all the same (2017/164/EU: 20 ppm
 * over eight hours, 100 ppm over fifteen minutes; 200 ppm: ceiling of NIOSH; memory).
 */
export const technicalCo = { watch: 20, act: 100, stop: 200 } as const;

/** Water in breathing air by EN 12021:2014 (memory), mg/m³: at the compressor, and stored by its pressure. */
export const waterLimits = {
  outletMgM3: 25,
  stored: [
    { aboveBar: 200, mgM3: 35 },
    { aboveBar: 40, mgM3: 50 },
  ],
} as const;

/** Low-pressure breathing air: its dew point under the coldest place by so much, or so cold where that is unknown (EN 12021, memory). */
export const breathingDewPoint = { belowColdestK: 5, unknownC: -11 } as const;

/** Pressure dew points of the classes of ISO 8573-1 (memory), °C. */
export const dewPointClasses = { 1: -70, 2: -40, 3: -20, 4: 3, 5: 7, 6: 10 } as const;
/** Oil of its classes, mg/m³. */
export const oilClasses = { 1: 0.01, 2: 0.1, 3: 1, 4: 5 } as const;

/** Share of a limit from which a figure is watched (common practice). */
export const NEAR = 0.8;
/** The same of carbon dioxide: fresh air holds some 425 ppm of it already (published measurements, memory). */
export const NEAR_CO2 = 0.95;
/** From here on a cartridge hardly dries (common practice). */
const NEARLY_FULL = 0.95;
/** Beyond these shares of what it can hold a weight is of something else. */
export const SLIP = { least: -0.5, most: 2 } as const;

const standard = choice(
  'standard',
  'Standard',
  {
    'en-12021': breathingAir['en-12021'].name,
    'cga-d': breathingAir['cga-d'].name,
    'cga-e': breathingAir['cga-e'].name,
  },
  { stays: true, optional: true },
);

function limitsOf(given: CheckSubject) {
  const chosen = given.text('standard') as Standard | undefined;
  return chosen && breathingAir[chosen];
}

const chooseStandard = () => missing('standard', 'Choose: standard.');

const breathes = ({ plate }: CheckSubject) => plate === undefined || isBreathed(plate);

/** Where breathing air leaves a machine. */
const outletOf: CheckDefinition['station'] = (plate) => (isHighPressure(plate) ? 'fill' : 'outlet');

/** Above its limit breathing air is not to be breathed; near it is watched. */
function purity(value: number, most: number, near = NEAR): Verdict {
  if (value > most) return 'stop';
  return value > most * near ? 'watch' : 'good';
}

const towerWork = ({ plate }: CheckSubject) => [
  ...(plate === undefined || isHighPressure(plate) ? [doTask('cartridge-replace', 'New cartridge')] : []),
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
      if (used > SLIP.most || used < SLIP.least) {
        return {
          ok: false,
          problem: {
            code: 'weight-slip',
            field: 'weightG',
            sentence: `${given.format(weight, 'mass')} cannot be this cartridge, ${given.format(dry, 'mass')} dry and ${given.format(saturated, 'mass')} full. Is the figure mistyped?`,
          },
        };
      }
      const verdict = verdictAbove(used, { watch: NEAR, ...(breathes(given) ? { stop: 1 } : { act: 1 }) });
      const measured = `${given.format(weight, 'mass')}: ${percent(used)} of the water it can hold is in it`;
      const tail =
        used < -0.02
          ? '. Lighter than dry: is it this cartridge’s figure?'
          : verdict === 'good'
            ? '.'
            : verdict === 'watch'
              ? used >= NEARLY_FULL
                ? ': hardly anything left, change it now or before the next fills.'
                : ': have the next one ready.'
              : ': change it before another fill.';
      return judged(used < -0.02 ? worse(verdict, 'watch') : verdict, `${measured}${tail}`, {
        limit: limit(
          verdict === 'good' || verdict === 'watch' ? NEAR * 100 : 100,
          `full at ${given.format(saturated, 'mass')}`,
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
    how: (plate) =>
      plate && !isHighPressure(plate)
        ? 'Where the breathing air leaves it, running, by a calibrated instrument.'
        : 'At the fill valve, running, by a calibrated instrument.',
    caution: 'Carbon monoxide kills unnoticed. Petrol sets never indoors.',
    station: outletOf,
    applies: (plate) => isHighPressure(plate) || isBreathed(plate),
    fields: [number('ppm', 'coPpm', 'Carbon monoxide', 0, 2000), standard],
    figure: { name: 'Carbon monoxide', unit: 'ppm', worse: 'higher', noise: 0.5 },
    resetBy: ['cartridge-replace'],
    judge(given) {
      const co = given.need('coPpm');
      const at = { value: co, uncertainty: 0.5 };
      if (!breathes(given)) {
        const verdict = verdictAbove(co, technicalCo);
        const bound = verdict === 'good' ? technicalCo.watch : technicalCo[verdict];
        return judged(
          verdict,
          `${figure(co)} ppm of carbon monoxide in air that nobody breathes from; from ${bound} ppm it harms people who stand by${verdict === 'stop' ? ': shut it down and air the place.' : '.'}`,
          {
            limit: limit(bound, `${bound} ppm for people at work`, 'standard'),
            figure: at,
            suggests: verdict === 'good' ? [] : [lookAt('intake', 'Exhausts and engines near the intake')],
          },
        );
      }
      const most = limitsOf(given);
      if (!most) return chooseStandard();
      const verdict = purity(co, most.coPpm);
      return judged(
        verdict,
        `${figure(co)} ppm of carbon monoxide, ${most.name} allows ${most.coPpm}${verdict === 'stop' ? ': nobody breathes this.' : '.'}`,
        {
          limit: limit(most.coPpm, `${most.coPpm} ppm (${most.name})`, 'standard'),
          figure: at,
          suggests: verdict === 'good' ? [] : towerWork(given),
        },
      );
    },
  },
  {
    code: 'air-quality',
    name: 'Breathing-air sample',
    how: 'The laboratory’s figures; smell by nose at the outlet.',
    station: outletOf,
    applies: isBreathed,
    fields: [
      standard,
      number('ppm', 'coPpm', 'Carbon monoxide', 0, 2000),
      number('ppm', 'co2Ppm', 'Carbon dioxide', 0, 50_000),
      number('mg/m³', 'oilMgM3', 'Oil', 0, 100),
      number('%', 'oxygenPercent', 'Oxygen', 0, 100, { optional: true }),
      number('mg/m³', 'waterMgM3', 'Water', 0, 5000, { optional: true, onlyOn: isHighPressure }),
      choice('odour', 'Smell', { none: 'none', smells: 'it smells' }, { optional: true }),
    ],
    judge: judgeSample,
  },
  {
    code: 'water-content',
    name: 'Water in the air',
    how: 'By tube or instrument at the fill valve.',
    station: () => 'fill',
    applies: isHighPressure,
    fields: [
      number('mg/m³', 'waterMgM3', 'Water', 0, 5000),
      choice('at', 'Taken', { outlet: 'at the compressor', stored: 'from a cylinder' }, { optional: true }),
      gauge('pressureBar', 'Filled to', { plate: 'workingPressureBar' }),
      number('mg/m³', 'limitMgM3', 'Own limit', 1, 5000, {
        optional: true,
        more: true,
        stays: true,
        hint: 'EN 12021 where none is entered; for breathing air only stricter.',
      }),
      text('limitReason', 'Why a looser limit', 200, { optional: true, onAsking: true, stays: true }),
      text('limitBy', 'Who decided it', 80, { optional: true, onAsking: true, stays: true }),
    ],
    figure: { name: 'Water', unit: 'mg/m³', worse: 'higher', noise: 2 },
    resetBy: ['cartridge-replace'],
    judge: judgeWater,
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
        { stays: true, optional: true },
      ),
      quantity('temperature', 'coldestC', 'Coldest place the air passes', -40, 40, {
        optional: true,
        stays: true,
        onlyOn: isBreathed,
        hint: 'Without it −11 °C is asked for.',
      }),
    ],
    figure: { name: 'Pressure dew point', quantity: 'temperature', worse: 'higher', noise: 1 },
    judge: judgeDewPoint,
  },
];

function judgeDewPoint(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const [dew, code] = [given.need('dewPointC'), given.text('class')];
  const format = (temp: number) => given.format(temp, 'temperature');
  const shown: Shown[] = [];
  if (given.plate && isBreathed(given.plate)) {
    const coldest = given.number('coldestC');
    const most =
      coldest === undefined ? breathingDewPoint.unknownC : coldest - breathingDewPoint.belowColdestK;
    const verdict: Verdict = dew > most ? 'act' : dew > most - 2 ? 'watch' : 'good';
    const why =
      coldest === undefined
        ? 'where the coldest place is not known'
        : `${format(breathingDewPoint.belowColdestK)} below the coldest place`;
    shown.push({
      verdict,
      reason: `Dew point ${format(dew)}; breathing air asks for ${format(most)}, ${why}.`,
      limit: limit(most, `${format(most)} (EN 12021)`, 'standard'),
      suggests: verdict === 'good' ? [] : dryerWork,
    });
  }
  if (code !== undefined) {
    const most = dewPointClasses[Number(code) as keyof typeof dewPointClasses];
    const verdict: Verdict = dew > most ? 'act' : dew > most - 2 ? 'watch' : 'good';
    shown.push({
      verdict,
      reason: `Dew point ${format(dew)}; class ${code} asks for ${format(most)}.`,
      limit: limit(most, `${format(most)} (ISO 8573-1, class ${code})`, 'standard'),
      suggests: verdict === 'good' ? [] : dryerWork,
    });
  }
  const [first, ...others] = shown;
  if (!first) return missing('class', 'Choose: class of ISO 8573-1.');
  return worstOf([first, ...others], { figure: { value: dew, uncertainty: 1 } });
}

const dryerWork = [lookAt('dryer', 'Drains, dryer filter, intake temperature of the dryer')];

/** Water by EN 12021 where it is measured; null where it has no figure in mg/m³. */
function waterLimit(stored: boolean, bar: number): number | null {
  if (bar < waterLimits.stored[1].aboveBar) return null;
  return stored
    ? waterLimits.stored.find(({ aboveBar }) => bar > aboveBar || aboveBar === 40)!.mgM3
    : waterLimits.outletMgM3;
}

function judgeWater(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const [water, bar, own] = [given.need('waterMgM3'), given.need('pressureBar'), given.number('limitMgM3')];
  const byStandard = waterLimit(given.text('at') === 'stored', bar);
  const breathed = breathes(given);
  if (own === undefined && byStandard === null) {
    return missing(
      'limitMgM3',
      'EN 12021 gives no figure below 40 bar, only a dew point: enter the limit to judge by.',
    );
  }
  const isLooser = breathed && own !== undefined && byStandard !== null && own > byStandard;
  if (isLooser && given.text('limitReason') === undefined)
    return missing('limitReason', `EN 12021 allows ${byStandard} mg/m³: say why more is allowed here.`);
  if (isLooser && given.text('limitBy') === undefined)
    return missing('limitBy', 'Say who decided on the looser limit.');
  const most = own ?? byStandard!;
  const tail = [doTask('cartridge-replace', 'New cartridge'), lookAt('final-separator', 'Drains that work')];
  const origin: LimitOrigin = own === undefined ? 'standard' : 'book';
  const bound: JudgedLimit = limit(
    most,
    `${figure(most)} mg/m³${own === undefined ? ' (EN 12021)' : ''}`,
    origin,
  );
  const measured = `${figure(water)} mg/m³ of water, ${figure(most)} allowed ${given.text('at') === 'stored' ? 'stored at' : 'at the compressor, for'} ${given.format(bar, 'pressure')}`;
  const shown: [Shown, ...Shown[]] = [
    {
      verdict: water > most ? 'act' : water > most * NEAR ? 'watch' : 'good',
      reason: water > most ? `${measured}: change the cartridge before another fill.` : `${measured}.`,
      limit: bound,
      suggests: water > most * NEAR ? tail : [],
    },
  ];
  const stored = waterLimit(true, bar);
  if (breathed && stored !== null && water > stored) {
    shown.push({
      verdict: 'stop',
      reason: `${figure(water)} mg/m³ is more than stored breathing air may hold, ${stored} at ${given.format(bar, 'pressure')}: nobody breathes this.`,
      limit: limit(stored, `${stored} mg/m³ stored (EN 12021)`, 'standard'),
      suggests: tail,
    });
  } else if (isLooser && byStandard !== null && water > byStandard) {
    shown.push({
      verdict: 'watch',
      reason: `More than the ${byStandard} mg/m³ of EN 12021, allowed by ${given.text('limitBy')}: ${given.text('limitReason')}.`,
      limit: limit(byStandard, `${byStandard} mg/m³ (EN 12021)`, 'standard'),
    });
  }
  return worstOf(shown, { figure: { value: water, uncertainty: 2 } });
}

function judgeSample(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const most = limitsOf(given);
  if (!most) return chooseStandard();
  const [low, high] = most.oxygen;
  const bar = given.plate?.workingPressureBar;
  const water = given.number('waterMgM3');
  const waterMost = most.hasWater && bar !== undefined ? waterLimit(false, bar) : null;
  const upTo = (name: string, value: number, bound: number, unit: string, near = NEAR): Shown => {
    const verdict = purity(value, bound, near);
    return { verdict, reason: `${name} ${figure(value)} of ${bound} ${unit}` };
  };
  const oxygen = given.number('oxygenPercent');
  const odour = given.text('odour');
  const parts: Shown[] = [
    upTo('carbon monoxide', given.need('coPpm'), most.coPpm, 'ppm'),
    upTo('carbon dioxide', given.need('co2Ppm'), most.co2Ppm, 'ppm', NEAR_CO2),
    upTo('oil', given.need('oilMgM3'), most.oilMgM3, 'mg/m³'),
    ...(water === undefined || waterMost === null ? [] : [upTo('water', water, waterMost, 'mg/m³')]),
    ...(oxygen === undefined
      ? []
      : [
          {
            verdict: oxygen < low || oxygen > high ? ('stop' as const) : ('good' as const),
            reason: `oxygen ${figure(oxygen)} %, ${low} to ${high} % asked for`,
          },
        ]),
    ...(odour === 'smells' ? [{ verdict: 'stop' as const, reason: 'it smells' }] : []),
  ];
  const verdict = parts.reduce<Verdict>((worst, one) => worse(worst, one.verdict), 'good');
  const shownParts = verdict === 'good' ? parts : parts.filter((one) => one.verdict === verdict);
  const open = [
    ...(oxygen === undefined ? ['oxygen'] : []),
    ...(waterMost !== null && water === undefined ? ['water'] : []),
    ...(odour === undefined ? ['smell'] : []),
  ];
  const within =
    open.length === 0 ? `within ${most.name}.` : `so far within ${most.name}; not in it: ${open.join(', ')}.`;
  const tail = {
    good: within,
    watch: `near the limit of ${most.name}.`,
    act: `over ${most.name}.`,
    stop: `not within ${most.name}. Nobody breathes this.`,
  }[verdict];
  return judged(verdict, `${capital(shownParts.map(({ reason }) => reason).join(', '))}: ${tail}`, {
    limit: limit(
      null,
      `${most.coPpm} ppm CO, ${most.co2Ppm} ppm CO₂, ${most.oilMgM3} mg/m³ oil${waterMost === null ? '' : `, ${waterMost} mg/m³ water`}, ${low} to ${high} % oxygen, no smell (${most.name})`,
      'standard',
    ),
    suggests: verdict === 'good' ? [] : towerWork(given),
  });
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
