import { leakDownFlow, leakShareByTimes, pumpUpFlow, type ReceiverRun } from '../../air/index.js';
import { err, type Result } from '../../basics/index.js';
import type { CheckDefinition, CheckSubject, Judgement, JudgedLimit } from '../check.js';
import { ambient, choice, gauge, number, quantity } from '../fields.js';
import {
  doTask,
  isHighPressure,
  isScrew,
  judged,
  limit,
  lookAt,
  percent,
  thresholdOf,
  valveTask,
  verdictAbove,
  type Thresholds,
} from '../verdict-helpers.js';

/** Shortfall of the free air delivered (common practice). */
export const SHORT: Thresholds = { watch: 0.1, act: 0.2 };
/** Share of delivery that leaks away (common practice). */
export const LEAK: Thresholds = { watch: 0.1, act: 0.25 };
/** Outside these shares of the plate volume and time are looked at again before they are believed. */
export const LIKELY = { least: 0.5, most: 1.15 } as const;
/** A shorter run than this says nothing: the hand on the watch is as long, s. */
export const SHORTEST_S = 5;
/** Finest step that can be read off a gauge where none is stated, as a share of the higher pressure. */
const USUAL_STEP = 0.01;
const USUAL_WATCH_S = 0.5;

const receiverStation: CheckDefinition['station'] = (plate) => (isHighPressure(plate) ? 'fill' : 'receiver');

const runFields = (fromPlate: { from: 'cutInBar' | 'cutOutBar'; to?: 'cutOutBar' }) => [
  quantity('volume', 'volumeL', 'Volume, piping included', 0.1, 200_000, { plate: 'receiverL' }),
  gauge('fromBar', 'From', { plate: fromPlate.from }),
  gauge('toBar', 'To', fromPlate.to ? { plate: fromPlate.to } : {}),
  number('s', 'seconds', 'Time', 0.1, 86_400),
  quantity('flow', 'fadLpm', 'Free air by the data plate', 1, 200_000, { optional: true, plate: 'fadLpm' }),
  ambient('intakeTempC', 'Intake air', {
    optional: true,
    more: true,
    hint: '20 °C where it was not measured.',
  }),
  quantity('temperature', 'airTempC', 'Air in the receiver', -40, 150, {
    optional: true,
    more: true,
    hint: 'As the intake where it was not measured.',
  }),
  gauge('gaugeStepBar', 'Gauge read to', {
    optional: true,
    more: true,
    max: 20,
    hint: 'A hundredth of the higher pressure where not said.',
  }),
  number('s', 'watchS', 'Watch good to', 0, 60, {
    optional: true,
    more: true,
    hint: 'Half a second where not said.',
  }),
];

export const flowChecks: readonly CheckDefinition[] = [
  {
    code: 'pump-up',
    name: 'Pump-up time',
    how: 'Outlets shut, receiver drained; time the gauge between two marks.',
    station: receiverStation,
    applies: () => true,
    fields: [
      ...runFields({ from: 'cutInBar', to: 'cutOutBar' }),
      choice(
        'again',
        'Volume and time looked at again',
        { yes: 'yes, they are right' },
        { optional: true, onAsking: true },
      ),
    ],
    figure: { name: 'Free air delivered', quantity: 'flow', worse: 'lower', noise: 0 },
    resetBy: ['valves-inspect', 'valves-upper', 'valves-all', 'ring-kit', 'intake-replace'],
    judge: judgePumpUp,
  },
  {
    code: 'leak-down',
    name: 'Leak-down',
    how: 'Compressor off, nobody using air; time the fall between two marks.',
    station: receiverStation,
    applies: () => true,
    fields: runFields({ from: 'cutOutBar' }),
    figure: { name: 'Leak', unit: '% of delivery', worse: 'higher', noise: 0 },
    resetBy: ['leak-survey'],
    judge(given) {
      const short = tooShort(given);
      if (short) return short;
      const measured = leakDownFlow(runOf(given));
      if (!measured.ok) return named(measured);
      const fad = given.number('fadLpm');
      if (fad === undefined)
        return needs('fadLpm', 'Enter the free air delivered: the leak is judged as a share of it.');
      const { flowLpm, uncertaintyLpm } = measured.value;
      const share = flowLpm / fad;
      const verdict = verdictAbove(share, LEAK);
      const doubt = withinDoubt([LEAK.watch! * fad, LEAK.act! * fad], flowLpm, uncertaintyLpm);
      return judged(
        verdict,
        `${given.format(flowLpm, 'flow')} leak away, ${percent(share)} of what it delivers.${doubt}`,
        {
          ...leakParts(verdict),
          figure: { value: share * 100, uncertainty: (uncertaintyLpm / fad) * 100 },
          figures: [
            { name: 'Leak', value: flowLpm, quantity: 'flow' },
            { name: 'Of delivery', value: share * 100, unit: '%' },
          ],
        },
      );
    },
  },
  {
    code: 'leak-load-cycle',
    name: 'Load time with no air used (leak test)',
    how: 'Nobody using air: time how long it works and how long it rests.',
    station: () => 'outlet',
    applies: (plate) => !isHighPressure(plate),
    fields: [
      number('s', 'onSeconds', 'Loaded for', 0.1, 86_400),
      number('s', 'offSeconds', 'Unloaded for', 0, 86_400),
    ],
    figure: { name: 'Leak', unit: '% of delivery', worse: 'higher', noise: 2 },
    resetBy: ['leak-survey'],
    judge(given) {
      const [on, off] = [given.need('onSeconds'), given.need('offSeconds')];
      const share = leakShareByTimes(on, off);
      if (!share.ok) return share;
      const verdict = verdictAbove(share.value, LEAK);
      return judged(
        verdict,
        `Working ${percent(share.value)} of the time with nobody using air: that much leaks away.`,
        {
          ...leakParts(verdict),
          figure: { value: share.value * 100, uncertainty: 2 },
          figures: [{ name: 'Of delivery', value: share.value * 100, unit: '%' }],
        },
      );
    },
  },
];

function leakParts(verdict: Judgement['verdict']) {
  const step = thresholdOf(verdict, LEAK)!;
  return {
    limit: limit(step * 100, `${percent(step)} of what it delivers`, 'practice'),
    suggests:
      verdict === 'good'
        ? []
        : [
            doTask('leak-survey', 'Soap or ultrasonic, joint by joint'),
            lookAt('check-valve', 'Drain and check valve'),
          ],
  } as const;
}

function tooShort(given: CheckSubject): Result<never> | null {
  const seconds = given.need('seconds');
  if (seconds >= SHORTEST_S) return null;
  return err(
    'too-short',
    `${seconds} s is too short to judge by: time it over a larger step of pressure, at least ${SHORTEST_S} s.`,
    'seconds',
  );
}

const isScrewPlate = ({ plate }: CheckSubject) => plate !== undefined && isScrew(plate);

function runOf(given: CheckSubject): ReceiverRun {
  const intakeTempC = given.number('intakeTempC') ?? 20;
  const airTempC = given.number('airTempC') ?? intakeTempC;
  const [from, to] = [given.need('fromBar'), given.need('toBar')];
  return {
    volumeL: given.need('volumeL'),
    fromBarAbs: from + given.atmosphereBarAbs,
    toBarAbs: to + given.atmosphereBarAbs,
    seconds: given.need('seconds'),
    fromTempC: airTempC,
    toTempC: airTempC,
    intakeBarAbs: given.atmosphereBarAbs,
    intakeTempC,
    gaugeStepBar: given.number('gaugeStepBar') ?? Math.max(from, to) * USUAL_STEP,
    watchS: given.number('watchS') ?? USUAL_WATCH_S,
  };
}

/** Says when a bound lies within twice what gauge and watch leave open. */
function withinDoubt(bounds: readonly number[], flowLpm: number, uncertaintyLpm: number): string {
  const near = bounds.some((bound) => Math.abs(flowLpm - bound) <= 2 * uncertaintyLpm);
  return near
    ? ' Gauge and watch leave it open on which side of the limit that is: time it again, longer.'
    : '';
}

/** The formulas name absolute pressures; the check asks for those of the gauge. */
function named(outcome: Result<unknown> & { readonly ok: false }): Result<never> {
  const field = outcome.problem.field?.replace('BarAbs', 'Bar').replace(/^(from|to)TempC$/, 'airTempC');
  return { ok: false, problem: { ...outcome.problem, ...(field === undefined ? {} : { field }) } };
}

function needs(field: string, sentence: string): Result<never> {
  return { ok: false, problem: { code: 'missing', field, sentence } };
}

/** What the flow is compared with. */
interface Comparison {
  readonly flow: number;
  readonly text: string;
  readonly origin: 'plate' | 'baseline';
}

function judgePumpUp(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const short = tooShort(given);
  if (short) return short;
  const measured = pumpUpFlow(runOf(given));
  if (!measured.ok) return named(measured);
  const { flowLpm, uncertaintyLpm } = measured.value;
  const figure = { value: flowLpm, uncertainty: uncertaintyLpm };
  const [plate, baseline] = [given.number('fadLpm'), given.baseline?.figure ?? undefined];
  const delivers = `Delivers ${given.format(flowLpm, 'flow')}`;
  const against: readonly Comparison[] = [
    ...(plate === undefined ? [] : [{ flow: plate, text: 'the data plate', origin: 'plate' as const }]),
    ...(baseline === undefined
      ? []
      : [{ flow: baseline, text: 'its baseline', origin: 'baseline' as const }]),
  ];
  if (against.length === 0) {
    if (given.isBaseline) return judged('good', `${delivers}: this is the baseline.`, { figure });
    return judged('good', `${delivers}. There is no comparison yet: make it the baseline.`, {
      figure,
      noComparison: true,
    });
  }
  // The comparison that looks worse rules.
  const worst = against.reduce((low, one) => (one.flow > low.flow ? one : low));
  const share = flowLpm / worst.flow;
  const isUnlikely = share < LIKELY.least || share > LIKELY.most;
  if (isUnlikely && given.text('again') !== 'yes') {
    return err(
      'unlikely',
      `That would be ${given.format(flowLpm, 'flow')}, ${percent(share)} of ${worst.text}. Look at volume and time again; if they are right, say so.`,
      'again',
    );
  }
  if (share > LIKELY.most) {
    return judged(
      'watch',
      `${delivers}, ${percent(share)} of ${worst.text}: no pump gives so much. Volume, gauge or plate is wrong.`,
      {
        limit: limit(
          worst.flow * LIKELY.most,
          `at most ${percent(LIKELY.most)} of ${worst.text}`,
          'practice',
        ),
        figure,
        suggests: [doTask('gauge-test', 'The gauge, and the volume with its piping')],
      },
    );
  }
  return judgeDelivery(given, { figure, delivers, share }, against, worst);
}

/** Free air delivered, L/min, in words, and as a share of the comparison that looks worse. */
interface Delivery {
  readonly figure: { readonly value: number; readonly uncertainty: number };
  readonly delivers: string;
  readonly share: number;
}

/** Free air delivered against what it should be. */
function judgeDelivery(
  given: CheckSubject,
  { figure, delivers, share }: Delivery,
  against: readonly Comparison[],
  worst: Comparison,
): ReturnType<CheckDefinition['judge']> {
  const { value: flowLpm, uncertainty: uncertaintyLpm } = figure;
  const verdict = verdictAbove(1 - share, SHORT);
  const step = thresholdOf(verdict, SHORT)!;
  const bound: JudgedLimit = limit(
    worst.flow * (1 - step),
    `${percent(1 - step)} of ${worst.text} (${given.format(worst.flow, 'flow')})`,
    worst.origin,
  );
  const doubt = withinDoubt(
    [SHORT.watch!, SHORT.act!].map((one) => worst.flow * (1 - one)),
    flowLpm,
    uncertaintyLpm,
  );
  return judged(verdict, `${delivers}, ${percent(share)} of ${worst.text}.${doubt}`, {
    limit: bound,
    figure,
    figures: [
      { name: 'Free air delivered', value: flowLpm, quantity: 'flow' },
      { name: 'Gauge and watch', value: uncertaintyLpm, quantity: 'flow' },
      ...against.map(({ flow, text }) => ({
        name: `Of ${text}`,
        value: (flowLpm / flow) * 100,
        unit: '%',
      })),
    ],
    suggests:
      verdict === 'good'
        ? []
        : [
            lookAt('outlet', 'First a drain left open, or a relief valve that weeps'),
            doTask('intake-inspect', 'Then the intake element: it costs little'),
            ...(given.plate?.drive === 'direct' ? [] : [doTask('belt-check', 'A slipping belt')]),
            doTask(
              valveTask(given.plate),
              isScrewPlate(given) ? 'Intake valve and airend' : 'Valves and ring',
            ),
          ],
  });
}
