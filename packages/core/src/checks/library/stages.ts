import { readLadder, type LadderReading, type LadderSuspect, type MeasuredLadder } from '../../air/index.js';
import { refuse } from '../../basics/index.js';
import { stagesOf } from '../../machine/index.js';
import type { CheckDefinition, CheckSubject, CheckValues, Suggestion, Verdict } from '../check.js';
import { ambient, gauge, quantity } from '../fields.js';
import { doTask, isHighPressure, isPiston, judged, limit, lookAt, percent, whenHigh } from '../judging.js';

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
  ],
  figure: { name: 'Furthest from the expected', unit: '%', worse: 'higher', noise: 4 },
  resetBy: ['valves-inspect', 'valves-upper', 'valves-all'],
  judge: judgeStages,
};

function judgeStages(given: CheckSubject): ReturnType<CheckDefinition['judge']> {
  const pressures = stageNumbers.map((stage) => given.number(`stage${stage}Bar`));
  const count = given.plate ? stagesOf(given.plate) : pressures.filter((one) => one !== undefined).length;
  const gap = pressures.slice(0, count).findIndex((one) => one === undefined);
  if (gap >= 0) return refuse('missing', `Enter the pressure after stage ${gap + 1}.`, `stage${gap + 1}Bar`);
  const atmosphere = given.atmosphereBarAbs;
  const temps = stageNumbers.slice(0, count).map((stage) => given.number(`stage${stage}TempC`) ?? null);
  const working = given.number('workingBar');
  const baseline = given.baseline && measuredBefore(given.baseline.values, count, atmosphere);
  const measured: MeasuredLadder = {
    intakeBarAbs: atmosphere,
    intakeTempC: given.need('intakeTempC'),
    pressuresBarAbs: pressures.slice(0, count).map((one) => one! + atmosphere),
    outletTempsC: temps,
    ...(working === undefined
      ? {}
      : { designBarAbs: Math.max(working + atmosphere, pressures[count - 1]! + atmosphere) }),
    ...(baseline ? { baseline } : {}),
  };
  const read = readLadder(measured);
  if (!read.ok) return read;
  const { suspects, stages, lastStageTells } = read.value;
  const [first] = suspects as [LadderSuspect, ...LadderSuspect[]];
  const sound = suspects.find(({ kind }) => kind === 'sound')!.probability;
  const verdict: Verdict =
    first.kind === 'sound'
      ? whenHigh(1 - sound, { watch: SURE.watch, act: 2 })
      : whenHigh(first.probability, { watch: 0, act: SURE.act });
  const furthest = Math.max(...stages.slice(0, -1).map(({ pressureOff }) => Math.abs(pressureOff)));
  const tail = lastStageTells ? '' : ' It filled against too little for its last stage to tell.';
  return judged(verdict, `${sayLadder(read.value)}${tail}`, {
    limit: limit(
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
    suggests: verdict === 'good' ? [] : suggestionsFor(first, given),
  });
}

function measuredBefore(
  values: CheckValues,
  count: number,
  atmosphere: number,
): MeasuredLadder['baseline'] | undefined {
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
 * What in a stage lets gas back, and how to tell. The ladder cannot tell the three apart: their shares are how
 * often each is met (common practice).
 */
export const stageParts = [
  {
    name: 'Suction valve',
    share: 0.45,
    look: 'its cover by thermometer, never by hand: hotter than the other?',
  },
  { name: 'Discharge valve', share: 0.35, look: 'the pressure before it creeps up once stopped' },
  { name: 'Ring', share: 0.2, look: 'breath from the crankcase' },
] as const;

/** A suspect of the ladder by name. */
export function suspectName({ kind, stage }: Pick<LadderSuspect, 'kind' | 'stage'>): string {
  switch (kind) {
    case 'sound':
      return 'Nothing wrong';
    case 'stage':
      return `Valves or ring of stage ${stage}`;
    case 'cooler':
      return `Cooler after stage ${stage}`;
    case 'gauge':
      return `Gauge after stage ${stage}`;
    case 'intake':
      return 'Intake choked';
  }
}

/** The reading of a ladder in a sentence or two. */
export function sayLadder({ suspects, stages }: LadderReading): string {
  const [first] = suspects as [LadderSuspect, ...LadderSuspect[]];
  // Practice is never certain, however well one explanation fits.
  const sure = percent(Math.min(0.99, first.probability));
  switch (first.kind) {
    case 'sound':
      return `The stages share the work as they should, ${sure} sure.`;
    case 'stage': {
      const before = stages[first.stage - 2];
      const own = stages[first.stage - 1]!;
      const pressure = before
        ? ` The pressure before it is ${offBy(before.pressureOff)}`
        : ` What comes out of it is ${offBy(own.pressureOff)}`;
      const heat =
        own.tempOffK === null
          ? ''
          : ` and it runs ${Math.round(Math.abs(own.tempOffK))} K ${own.tempOffK >= 0 ? 'hot' : 'cool'}`;
      return `Stage ${first.stage} is letting gas back, ${sure} sure.${pressure}${heat}.`;
    }
    case 'cooler':
      return `The cooler after stage ${first.stage} does not cool, ${sure} sure: stage ${first.stage + 1} takes in hot air.`;
    case 'gauge':
      return `The gauge after stage ${first.stage} is out by itself, ${sure} sure: nothing else has moved.`;
    case 'intake':
      return `The intake is choked, ${sure} sure: every stage is low and nothing runs hot.`;
  }
}

function offBy(share: number): string {
  return `${percent(Math.abs(share))} ${share >= 0 ? 'high' : 'low'}`;
}

function suggestionsFor({ kind, stage }: LadderSuspect, { plate }: CheckSubject): Suggestion[] {
  switch (kind) {
    case 'sound':
      return [];
    case 'stage': {
      const high = plate !== undefined && isHighPressure(plate);
      const task = high ? (stage === 1 ? 'valves-all' : 'valves-upper') : 'valves-inspect';
      return [
        lookAt(
          `stage-${stage}`,
          'Which valve cover is hotter, by thermometer (covers reach 200 °C), then suction valve, discharge valve, ring',
        ),
        doTask(task, `Valves of stage ${stage}`),
      ];
    }
    case 'cooler':
      return [
        doTask('cooling-clean', 'Cooler face and fan'),
        lookAt(`intercooler-${stage}`, 'Dirt, a panel off, a fan that stands'),
      ];
    case 'gauge':
      return [doTask('gauge-test', 'Compare the gauge with a good one')];
    case 'intake':
      return [doTask('intake-inspect', 'Intake element, telescopic pipe, a rag')];
  }
}
