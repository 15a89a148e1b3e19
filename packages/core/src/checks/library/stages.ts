import {
  diagnoseStages,
  type StageFault,
  type StageLook,
  type StageDiagnosis,
  type StageSuspect,
  type MeasuredStages,
} from '../../air/index.js';
import { err, lower } from '../../basics/index.js';
import { stagesOf } from '../../machine/index.js';
import type { CheckDefinition, CheckSubject, CheckValues, Judgement, Suggestion, Verdict } from '../check.js';
import { dischargeLimitsOf } from './discharge-limits.js';
import { FAR_ABOVE_SET } from './relief-limits.js';
import { ambient, choice, gauge, quantity } from '../fields.js';
import {
  doTask,
  isHighPressure,
  isPiston,
  judged,
  limit,
  lookAt,
  percent,
  verdictAbove,
} from '../verdict-helpers.js';

/** A fault this likely is acted on, or watched (common practice). */
const SURE = { watch: 0.3, act: 0.6 } as const;

const stageNumbers = [1, 2, 3, 4, 5] as const;

/** All stages of a ladder read together. */
export const stageCheck: CheckDefinition = {
  code: 'stage-pressures',
  name: 'Stage pressures',
  how: 'Warm and filling against at least eight tenths of its final pressure, or the last stage tells nothing.',
  caution: 'Read, do not loosen: every stage is under pressure.',
  station: () => 'stage-1',
  applies: (plate) => (isPiston(plate) || isHighPressure(plate)) && stagesOf(plate) >= 2,
  fields: [
    ambient('intakeTempC', 'Intake air'),
    gauge('workingBar', 'Built for', { optional: true, plate: 'workingPressureBar' }),
    ...stageNumbers.flatMap((stage) => [
      gauge(`stage${stage}Bar`, `After stage ${stage}`, stage > 2 ? { stage, optional: true } : { stage }),
      quantity('temperature', `stage${stage}TempC`, `Outlet of stage ${stage}`, -40, 300, {
        optional: true,
        stage,
      }),
    ]),
    choice(
      'breather',
      'Breather of the crankcase',
      { quiet: 'quiet', puffs: 'puffs with the strokes' },
      { optional: true, more: true },
    ),
    choice(
      'risesAfterStop',
      'Gauge that rises after the stop',
      {
        none: 'none within minutes',
        'stage-1': 'after stage 1',
        'stage-2': 'after stage 2',
        'stage-3': 'after stage 3',
        'stage-4': 'after stage 4',
      },
      { optional: true, more: true },
    ),
  ],
  figure: { name: 'Furthest from the expected', unit: '%', worse: 'higher', noise: 4 },
  resetBy: ['valves-inspect', 'valves-upper', 'valves-all'],
  judge: judgeStages,
};

function judgeStages(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const pressures = stageNumbers.map((stage) => given.number(`stage${stage}Bar`));
  const count = given.plate ? stagesOf(given.plate) : pressures.filter((one) => one !== undefined).length;
  const gap = pressures.slice(0, count).findIndex((one) => one === undefined);
  if (gap >= 0) return err('missing', `Enter the pressure after stage ${gap + 1}.`, `stage${gap + 1}Bar`);
  const atmosphere = given.atmosphereBarAbs;
  const temps = stageNumbers.slice(0, count).map((stage) => given.number(`stage${stage}TempC`) ?? null);
  const working = given.number('workingBar');
  const baseline = given.baseline && measuredBefore(given.baseline.values, count, atmosphere);
  const measured: MeasuredStages = {
    intakeBarAbs: atmosphere,
    intakeTempC: given.need('intakeTempC'),
    pressuresBarAbs: pressures.slice(0, count).map((one) => one! + atmosphere),
    outletTempsC: temps,
    looks: looksOf(given),
    ...(working === undefined
      ? {}
      : { designBarAbs: Math.max(working + atmosphere, pressures[count - 1]! + atmosphere) }),
    ...(baseline ? { baseline } : {}),
  };
  const read = diagnoseStages(measured);
  if (!read.ok) return read;
  const { suspects, stages, lastStageTells } = read.value;
  const [first] = suspects as [StageSuspect, ...StageSuspect[]];
  const verdict = stageVerdict(read.value);
  const furthest = Math.max(...stages.slice(0, -1).map(({ pressureOff }) => Math.abs(pressureOff)));
  const tail = lastStageTells ? '' : ' It filled against too little for its last stage to tell.';
  const beyond = beyondBounds(given, pressures[count - 1]!, temps);
  const told = `${describeStages(read.value)}${tail}${describeNext(read.value)}`;
  return judged(beyond ? 'stop' : verdict, beyond ? `${beyond.reason} ${told}` : told, {
    limit:
      beyond?.limit ??
      limit(
        null,
        baseline ? 'what it showed when sound' : 'equal ratios from intake to final pressure',
        baseline ? 'baseline' : 'practice',
      ),
    figure: { value: furthest * 100, uncertainty: 4 },
    figures: [
      ...stages.slice(0, -1).map(({ stage, expectedBarAbs }) => ({
        name: `Expected after stage ${stage}`,
        value: expectedBarAbs - atmosphere,
        quantity: 'pressure' as const,
      })),
      ...stages.map(({ stage, expectedTempC }) => ({
        name: `Expected outlet of stage ${stage}`,
        value: expectedTempC,
        quantity: 'temperature' as const,
      })),
      ...suspects
        .slice(0, 4)
        .map((suspect) => ({ name: suspectName(suspect), value: suspect.probability * 100, unit: '%' })),
    ],
    suggests: [...(beyond?.suggests ?? []), ...(verdict === 'good' ? [] : suggestionsFor(first, given))],
  });
}

/**
 * What forbids running it, whatever the ladder says of the stages: more after the last stage than its relief valve may
 * let be, or gas hotter than any set of its kind may run.
 */
function beyondBounds(
  given: CheckSubject,
  finalBar: number,
  temps: readonly (number | null)[],
): (Pick<Judgement, 'limit' | 'suggests'> & { readonly reason: string }) | null {
  const { plate } = given;
  const setBar = plate?.reliefBar ?? plate?.maximumPressureBar ?? given.number('workingBar');
  const most = setBar === undefined ? Infinity : setBar * (1 + FAR_ABOVE_SET);
  if (finalBar > most) {
    const [shown, bound] = [finalBar, most].map((bar) => given.format(bar, 'pressure'));
    return {
      reason: `${shown} after the last stage is more than its relief valve may let be, ${bound}: do not run it.`,
      limit: limit(null, `up to ${bound}`, 'practice'),
      suggests: [doTask('relief-test', 'Why it did not open; the gauge beside it')],
    };
  }
  const hottest = Math.max(...temps.map((temp) => temp ?? -Infinity));
  const stop = plate && dischargeLimitsOf(plate)?.stop;
  if (stop === undefined || hottest < stop) return null;
  const [shown, bound] = [hottest, stop].map((temp) => given.format(temp, 'temperature'));
  return {
    reason: `${shown} at an outlet, ${bound} is where such a machine is stopped: do not run it.`,
    limit: limit(null, `below ${bound}`, 'practice'),
    suggests: [doTask('cooling-clean', 'Cooler face and fan')],
  };
}

/**
 * A fault is acted on where it is sure enough. Without a baseline it is not the machine's own figures that it is held
 * against: then only where pressure and temperature both speak for it by more than sound sets differ.
 */
export function stageVerdict({ suspects, hasBaseline, bothFit }: StageDiagnosis): Verdict {
  const [first] = suspects as [StageSuspect, ...StageSuspect[]];
  if (first.faults.length === 0) {
    return verdictAbove(1 - first.probability, { watch: hasBaseline ? SURE.watch : SURE.act, act: 2 });
  }
  return verdictAbove(first.probability, { watch: 0, act: hasBaseline || bothFit ? SURE.act : 2 });
}

function looksOf(given: CheckSubject): NonNullable<MeasuredStages['looks']> {
  const [breather, rises] = [given.text('breather'), given.text('risesAfterStop')];
  return {
    ...(breather === undefined ? {} : { breatherPuffs: breather === 'puffs' }),
    ...(rises === undefined ? {} : { risesAfterStop: rises === 'none' ? 0 : Number(rises.slice(-1)) }),
  };
}

/** What to look at next, and a baseline where there is none to compare with. */
function describeNext({ next, hasBaseline }: StageDiagnosis): string {
  const look = next ? ` Next: ${nextText(next)}.` : '';
  return hasBaseline
    ? look
    : `${look} Held against equal ratios; a baseline taken when it is sound says more.`;
}

/** A look as an instruction. */
export function nextText({ kind, stage }: StageLook): string {
  switch (kind) {
    case 'temperatures':
      return 'take the outlet temperature of every stage, by thermometer';
    case 'breather':
      return 'look whether the breather of the crankcase puffs with the strokes: that is a ring';
    case 'after-stop':
      return `stop it and watch the gauge after stage ${stage}: if it rises, the valves of stage ${stage + 1} let back`;
    case 'second-gauge':
      return `compare the gauge after stage ${stage} with a good one before any head is opened`;
    case 'cooled-air':
      return `take the temperature of the air after the cooler of stage ${stage}`;
    case 'intake':
      return 'look at the intake: element, pipe, a rag';
  }
}

function measuredBefore(
  values: CheckValues,
  count: number,
  atmosphere: number,
): MeasuredStages['baseline'] | undefined {
  const pressures = stageNumbers.slice(0, count).map((stage) => values[`stage${stage}Bar`]);
  const intake = values['intakeTempC'];
  if (typeof intake !== 'number' || pressures.some((one) => typeof one !== 'number')) return undefined;
  return {
    intakeTempC: intake,
    pressuresBarAbs: pressures.map((one) => (one as number) + atmosphere),
    outletTempsC: stageNumbers.slice(0, count).map((stage) => {
      const temp = values[`stage${stage}TempC`];
      return typeof temp === 'number' ? temp : null;
    }),
  };
}

/**
 * Which valve of a stage lets gas back, and how to tell. The ladder cannot tell the two apart: their shares are how
 * often each is met (common practice).
 */
export const valveParts = [
  {
    name: 'Suction valve',
    share: 0.55,
    look: 'its cover by thermometer, never by hand: hotter than the other?',
  },
  { name: 'Discharge valve', share: 0.45, look: 'the pressure before it creeps up once stopped' },
] as const;

/** A suspect of the ladder by name; two faults by both. */
export function suspectName({ faults }: Pick<StageSuspect, 'faults'>): string {
  if (faults.length === 0) return 'Nothing wrong';
  const [first, ...more] = faults.map(faultName);
  return [first, ...more.map(lower)].join(' and ');
}

function faultName({ kind, stage }: StageFault): string {
  switch (kind) {
    case 'valves':
      return `Valves of stage ${stage}`;
    case 'ring':
      return `Ring of stage ${stage}`;
    case 'cooler':
      return `Cooler after stage ${stage}`;
    case 'gauge':
      return `Gauge after stage ${stage}`;
    case 'intake':
      return 'Intake choked';
  }
}

/** The reading of a ladder in a sentence or two. */
export function describeStages({ suspects, stages, hasBaseline }: StageDiagnosis): string {
  const [first] = suspects as [StageSuspect, ...StageSuspect[]];
  // Practice is never certain, however well one explanation fits.
  const sure = percent(Math.min(hasBaseline ? 0.99 : 0.95, first.probability));
  const [fault, second] = first.faults;
  if (!fault) return `The stages share the work as they should, ${sure} sure.`;
  if (second) {
    return `Two things at once explain it best, ${sure} sure: ${lower(faultName(fault))}, and ${lower(faultName(second))}.`;
  }
  const { stage } = fault;
  switch (fault.kind) {
    case 'valves': {
      const before = stages[stage - 2];
      const own = stages[stage - 1]!;
      const pressure = before
        ? ` The pressure before it is ${offBy(before.pressureOff)}`
        : ` What comes out of it is ${offBy(own.pressureOff)}`;
      const heat =
        own.tempOffK === null
          ? ''
          : ` and it runs ${Math.round(Math.abs(own.tempOffK))} K ${own.tempOffK >= 0 ? 'hot' : 'cool'}`;
      return `The valves of stage ${stage} let gas back, ${sure} sure.${pressure}${heat}.`;
    }
    case 'ring':
      return `The ring of stage ${stage} lets gas past into the crankcase, ${sure} sure: it takes in as much as ever and passes on less, and runs no hotter.`;
    case 'cooler':
      return `The cooler after stage ${stage} does not cool, ${sure} sure: stage ${stage + 1} takes in hot air.`;
    case 'gauge':
      return `The gauge after stage ${stage} is out by itself, ${sure} sure: nothing else has moved.`;
    case 'intake':
      return `The intake is choked, ${sure} sure: every stage is low, and the first runs hotter.`;
  }
}

function offBy(share: number): string {
  return `${percent(Math.abs(share))} ${share >= 0 ? 'high' : 'low'}`;
}

function suggestionsFor({ faults }: StageSuspect, subject: CheckSubject): Suggestion[] {
  return faults.flatMap((fault) => suggestionsOf(fault, subject));
}

function suggestionsOf({ kind, stage }: StageFault, { plate }: CheckSubject): Suggestion[] {
  switch (kind) {
    case 'valves': {
      const high = plate !== undefined && isHighPressure(plate);
      const task = high ? (stage === 1 ? 'valves-all' : 'valves-upper') : 'valves-inspect';
      return [
        lookAt(
          `stage-${stage}`,
          'Which valve cover is hotter, by thermometer (covers reach 200 °C), then suction valve, discharge valve',
        ),
        doTask(task, `Valves of stage ${stage}`),
      ];
    }
    case 'ring':
      return [
        lookAt(
          `stage-${stage}`,
          'Breather: puffs with the strokes? Then pump-up or delivery, before it is opened',
        ),
      ];
    case 'cooler':
      return [
        doTask('cooling-clean', 'Cooler face and fan'),
        lookAt(`intercooler-${stage}`, 'Dirt, a panel off, a fan that stands'),
      ];
    case 'gauge':
      return [doTask('gauge-test', 'Compare the gauge with a good one before any head is opened')];
    case 'intake':
      return [doTask('intake-inspect', 'Intake element, telescopic pipe, a rag')];
  }
}
