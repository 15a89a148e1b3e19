import {
  CascadeBench,
  fillPressureFor,
  idealHumidityRatio,
  searchCascade,
  settledPressure,
  waterYear,
  weatherYear,
  type CascadeJob,
} from '@entretien/core/air';
import {
  BenchValues,
  cascadeJob,
  costByShare,
  costFields,
  fillCurve,
  holeFields,
  holeLeak,
  interstageBench,
  interstageFields,
  stageFields,
  waterFields,
  waterNow,
  yearlyCostCents,
} from '@entretien/core/bench';
import { judgeCheck } from '@entretien/core/checks';
import { fromStored, parseQuantity, unitsOf } from '@entretien/core/quantities';
import psychrolib from 'psychrolib';
import seedrandom from 'seedrandom';
import { byTurns, median, report, timed } from './measure.js';

const FRAME_MS = 16;
const AIR = 1.01325;
const RUNS = 61;

/** What a bench reckons at every key pressed, in a share of one frame of the screen. */
export async function benchesBench(): Promise<void> {
  const on = '2026-06-01';
  const pump = { volumeL: 270, fromBar: 6, toBar: 8, seconds: 95, fadLpm: 400 };
  const hole = new BenchValues(
    [...holeFields, ...costFields],
    { diameterMm: 3, pressureBar: 7, edge: 'sharp' },
    undefined,
  );
  const stages = [...interstageFields, ...stageFields(5)];
  const expected = {
    stages: 5,
    workingBar: 330,
    intakeTempC: 20,
    stage1Bar: 2.2,
    stage2Bar: 9.3,
    stage3Bar: 32,
    stage4Bar: 118,
    stage5Bar: 330,
    stage5TempC: 150,
  };
  const water = {
    intakeTempC: 20,
    humidity: 70,
    fadLpm: 200,
    finalBar: 225,
    separatorTempC: 30,
    cartridgeG: 150,
    cylinderL: 10,
  };
  const typedJob = {
    banks: Array.from({ length: 8 }, () => ({ volumeL: '50', bar: '200' })),
    cylinders: Array.from({ length: 20 }, () => ({
      volumeL: '12',
      bar: '40',
      ratedBar: '300',
      testedUntil: '2099-01-31',
    })),
    fillBar: 300,
    tempC: 20,
    atmosphereBarAbs: AIR,
    today: on,
  };
  const works: Readonly<Record<string, () => void>> = {
    'pump-up with three curves': () => {
      judgeCheck('pump-up', pump, { on });
      for (const share of [1, 1.1, 1.2]) fillCurve({ ...pump, atmosphereBarAbs: AIR, tempC: 20 }, share);
    },
    'leaks by times': () => {
      judgeCheck('leak-load-cycle', { onSeconds: 30, offSeconds: 90 }, { on });
      costByShare(1000, hole);
      yearlyCostCents(250, hole);
    },
    'leaks by a hole': () => void holeLeak(hole, AIR),
    'ladder of five stages, read': () =>
      void interstageBench(new BenchValues(stages, expected, undefined), undefined, AIR),
    'condensate and cartridge, with its curve': () =>
      void waterNow(new BenchValues(waterFields, water, undefined), AIR),
    'cylinders read, a hot fill settled': () => {
      cascadeJob(typedJob);
      settledPressure(301, 55, 20);
      fillPressureFor(301, 55, 20);
    },
    'convert into every unit': () => {
      const read = parseQuantity('145 psi', 'pressure');
      if (read.ok) for (const unit of unitsOf('pressure')) fromStored(read.value.value, 'pressure', unit);
    },
  };
  for (const [name, work] of Object.entries(works)) {
    for (let warm = 0; warm < 20; warm++) work();
    const times = Array.from({ length: RUNS }, () => timed(work));
    const middle = median(times);
    const share = middle / FRAME_MS;
    report(
      `Bench: ${name}, share of a ${FRAME_MS} ms frame`,
      share,
      share <= 0.5,
      '≤ 0.5',
      `median ${middle.toFixed(2)} ms of ${RUNS}.`,
    );
  }
  await yearBench();
  cascadeBench();
}

/** 8,760 hours of condensate and cartridge beside the same loop over the humidity ratios of PsychroLib. */
async function yearBench(): Promise<void> {
  const climate = { warmMonthC: 18, coldMonthC: -2, daySwingK: 8, humidity: 0.75 };
  const input = {
    climate,
    intakeBarAbs: 0.9,
    fadLpm: 200,
    hoursPerWeek: 10,
    finalBarAbs: 226,
    separatorAboveK: 15,
    cartridgeG: 100,
  };
  const ours = () => {
    const run = waterYear(input);
    let next = run.next();
    while (!next.done) next = run.next();
    if (!next.value.ok) throw new Error(next.value.problem.sentence);
  };
  const weather = weatherYear(climate);
  if (!weather.ok) throw new Error(weather.problem.sentence);
  psychrolib.SetUnitSystem(psychrolib.SI);
  /** The humidity ratios that the year needs: at the intake, and saturated at the separator, twice. */
  const theirs = () => {
    let sum = 0;
    for (const { tempC, relativeHumidity } of weather.value) {
      sum += psychrolib.GetHumRatioFromRelHum(tempC, relativeHumidity, 90_000);
      sum += 2 * psychrolib.GetHumRatioFromRelHum(tempC + 15, 1, 226e5);
    }
    const check = idealHumidityRatio(0.9, 15, 0.75);
    if (!(sum > 0 && check.ok)) throw new Error('nothing was reckoned');
  };
  const { ratio, first, second } = await byTurns(
    15,
    () => timed(ours),
    () => timed(theirs),
  );
  report(
    'A year of condensate and cartridge (8,760 h) over the humidity ratios alone by PsychroLib',
    ratio,
    null,
    'printed',
    `${first.toFixed(1)} ms over ${second.toFixed(1)} ms (medians of 15).`,
  );
}

/** The search for 8 banks and 20 cylinders, and how it compares with taking them as listed. */
function cascadeBench(): void {
  const random = seedrandom('cascade');
  const job: CascadeJob = {
    banks: Array.from({ length: 8 }, () => ({ volumeL: 50, pressureBarAbs: 120 + random() * 200 })),
    cylinders: Array.from({ length: 20 }, () => ({
      volumeL: 7 + Math.floor(random() * 2) * 5,
      pressureBarAbs: 10 + random() * 140,
      fullBarAbs: 301,
    })),
    tempC: 20,
  };
  const bench = new CascadeBench(job);
  const one = timed(() => void bench.run(bench.plainOrder(), false));
  let result: { missingL: number } | undefined;
  let plain = 0;
  const whole = timed(() => {
    const search = searchCascade(job);
    let next = search.next();
    while (!next.done) next = search.next();
    result = next.value.result;
    plain = next.value.plain.missingL;
  });
  report(
    'Air left to pump for 20 cylinders from 8 banks, best order over the list as it stands',
    result!.missingL / plain,
    null,
    'printed',
    `${(whole / 1000).toFixed(1)} s of search in all, ${(whole / one).toFixed(0)} times one run-through; against every order in core/air/cascade.test.ts.`,
  );
}
