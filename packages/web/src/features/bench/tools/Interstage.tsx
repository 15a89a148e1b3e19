import { Typography, useMediaQuery, type Theme } from '@mui/material';
import type { StageFaultKind, StageDiagnosis, StageSuspect } from '@entretien/core/air';
import {
  interstageBench,
  interstageFields,
  interstageStages,
  stageFields,
  type BenchValues,
  type InterstageBench,
} from '@entretien/core/bench';
import {
  nextText,
  describeStages,
  stageVerdict,
  suspectName,
  valveParts,
  type CheckValues,
} from '@entretien/core/checks';
import { formatFigure } from '@entretien/core/quantities';
import { lazy } from 'react';
import { CheckFields } from '../../../components/checks/CheckFields.js';
import { BenchFrame } from '../BenchFrame.js';
import { Answer, figureOf, Figures, Picture, type BenchFigure } from '../parts.js';
import { SaveToCompressor } from '../SaveToCompressor.js';
import { useBenchAddress, useBenchValues, useFormat, useScale } from '../use-bench.js';

const InterstageChart = lazy(() =>
  import('../charts.js').then((part) => ({ default: part.InterstageChart })),
);

/** A stage this far from the expected, or so much hotter, stands out. */
const OFF_SHARE = 0.1;
const OFF_K = 15;

/** Where to look for each suspect. */
const telltale: Record<StageFaultKind, string> = {
  valves: 'covers by thermometer, never by hand',
  ring: 'breath from the crankcase, in time with the strokes',
  cooler: 'dirt, a panel off, a fan that stands',
  gauge: 'a good gauge beside it, before any head is opened',
  intake: 'element, intake pipe, a rag',
};

/** Pressures and temperatures stage by stage over what they should be, and what would explain them. */
export function Interstage() {
  const address = useBenchAddress();
  const { texts, setText, unit, atmosphereBarAbs } = address;
  const base = useBenchValues(interstageFields, address);
  const stages = interstageStages(base.values, unit);
  const measuredFields = stageFields(stages ?? 0);
  const fields = [...interstageFields, ...measuredFields];
  const read = useBenchValues(fields, address);
  const format = useFormat();
  const scale = useScale('pressure');
  const isPhone = useMediaQuery((theme: Theme) => theme.breakpoints.down('sm'));
  const bench = interstageBench(read.values, unit, atmosphereBarAbs);
  const problems = { ...read.problems };
  if (!bench.ok && bench.problem.code !== 'missing' && bench.problem.field !== undefined) {
    problems[bench.problem.field] ??= bench.problem.sentence;
  }
  const reading = bench.ok ? bench.value.reading : null;
  const hasProblems = Object.keys(problems).length > 0;
  const sentence = hasProblems
    ? 'Correct what is marked.'
    : !bench.ok
      ? bench.problem.sentence
      : reading
        ? describeStages(reading)
        : 'This is what the stages should show.';
  return (
    <BenchFrame
      title="Interstage pressures"
      address={address}
      inputs={
        <>
          <CheckFields
            fields={interstageFields}
            texts={texts}
            onText={setText}
            problems={problems}
            plate={unit}
          />
          <CheckFields fields={measuredFields} texts={texts} onText={setText} problems={problems} />
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            Read with the compressor warm and filling against at least eight tenths of what it is built for,
            or the last stage tells nothing. Read, do not loosen: every stage is under pressure.
          </Typography>
        </>
      }
      save={
        <SaveToCompressor
          unit={unit}
          measurements={
            reading && !hasProblems ? [{ check: 'stage-pressures', values: saved(read.typed) }] : null
          }
        />
      }
      formula={<Formula />}
    >
      <Answer
        sentence={sentence}
        verdict={reading && !hasProblems ? stageVerdict(reading) : undefined}
        detail={
          reading && !reading.lastStageTells
            ? 'It filled against too little for its last stage to tell.'
            : reading?.next
              ? `Next: ${nextText(reading.next)}.`
              : bench.ok && !reading && bench.value.stages > 1
                ? 'Enter what the gauges show, and it is read.'
                : undefined
        }
      />
      {bench.ok && !hasProblems && (
        <>
          <Picture height={360}>
            <InterstageChart
              {...drawn(bench.value, read.values, { format, scale, isPhone, atmosphereBarAbs })}
            />
          </Picture>
          <Figures items={reading ? suspectFigures(reading) : expectedFigures(bench.value, format)} />
        </>
      )}
    </BenchFrame>
  );
}

function Formula() {
  return (
    <>
      <p>
        Equal ratios give least work: r = (pₙ/p₀)^(1/n), absolute. Outlet T₂ = T₁·r^((n−1)/n) with n = 1.25
        for cooled reciprocating stages (common practice). Ideal power p₁Q·n/(n−1)·(r^((n−1)/n) − 1) for each
        stage.
      </p>
      <p>
        Leaking valves lower what their stage takes in: the pressure before it rises, and it runs hot because
        hot gas is compressed again. A ring lets gas past into the crankcase: what comes after it falls, and
        nothing runs hotter. Each explanation, two at once too, predicts every figure; Bayes’ rule weighs
        them, with how often each is met (common practice). Sound sets lie 10 to 20 % off equal ratios
        (memory): 12 % and 10 K are allowed for that, 2.5 % and 5 K about a baseline, which the check of a
        unit compares with. The shaded band is 8 %.
      </p>
    </>
  );
}

interface Drawing {
  readonly format: ReturnType<typeof useFormat>;
  readonly scale: ReturnType<typeof useScale>;
  readonly isPhone: boolean;
  readonly atmosphereBarAbs: number;
}

/** What the drawing shows: each stage as measured over what it should be. */
function drawn(
  { expected: { states }, reading }: InterstageBench,
  values: BenchValues,
  { format, scale, isPhone, atmosphereBarAbs }: Drawing,
) {
  const expectedBars = reading
    ? reading.stages.map(({ expectedBarAbs }) => expectedBarAbs)
    : states.map(({ toBarAbs }) => toBarAbs);
  const measuredBars = states.map(({ stage }) => {
    const bar = values.number(`stage${stage}Bar`);
    return bar === undefined ? null : bar + atmosphereBarAbs;
  });
  const off = states.map((_, index) => {
    const stage = reading?.stages[index];
    const isLast = index === states.length - 1;
    return (
      stage !== undefined &&
      ((!isLast && Math.abs(stage.pressureOff) > OFF_SHARE) || (stage.tempOffK ?? 0) > OFF_K)
    );
  });
  // A phone has room for what was found only; what was meant stands in the drawing.
  const beside = (found: string, meant: string) => (isPhone ? found : `${found}, meant ${meant}`);
  const labels = [
    ['intake', format(values.number('intakeTempC') ?? 20, 'temperature')],
    ...states.map(({ stage, toBarAbs, outletTempC }, index) => {
      const [bar, temp] = [values.number(`stage${stage}Bar`), values.number(`stage${stage}TempC`)];
      const judged = reading?.stages[index];
      const meant = format((judged?.expectedBarAbs ?? toBarAbs) - atmosphereBarAbs, 'pressure');
      const meantTemp = format(Math.round(judged?.expectedTempC ?? outletTempC), 'temperature');
      return [
        isPhone ? `stage ${stage}` : `after stage ${stage}`,
        bar === undefined ? meant : beside(format(bar, 'pressure'), meant),
        temp === undefined ? meantTemp : beside(format(temp, 'temperature'), meantTemp),
      ];
    }),
  ];
  return {
    text: `Pressure by stage. ${labels.map((lines) => lines.join(' ')).join('; ')}`,
    labels,
    expected: [atmosphereBarAbs, ...expectedBars].map(scale.of),
    measured: [reading ? atmosphereBarAbs : null, ...measuredBars].map((one) =>
      one === null ? null : scale.of(one),
    ),
    off: [false, ...off],
    unit: scale.label,
  };
}

function expectedFigures({ expected, powerKw }: InterstageBench, format: Drawing['format']): BenchFigure[] {
  return [
    { name: 'Ratio of each stage', value: formatFigure(expected.ratio) },
    { name: 'Ideal power', value: formatFigure(expected.powerKwPerM3Min), unit: 'kW for each m³/min' },
    ...(powerKw === null ? [] : [{ name: 'For its free air', value: formatFigure(powerKw), unit: 'kW' }]),
    ...expected.states.map(({ stage, outletTempC }) =>
      figureOf(`Outlet of stage ${stage}`, format(Math.round(outletTempC), 'temperature')),
    ),
  ];
}

const SUSPECTS_SHOWN = 4;
const LEAST_SHOWN = 0.01;

function suspectFigures({ suspects }: StageDiagnosis): BenchFigure[] {
  return suspects
    .slice(0, SUSPECTS_SHOWN)
    .flatMap(named)
    .filter(({ probability }) => probability >= LEAST_SHOWN)
    .map(({ name, probability, look }) => ({
      name,
      value: formatFigure(probability * 100, { maxDecimals: 0 }),
      unit: '%',
      note: look,
    }));
}

/** A suspect as it is shown: valves one by one, two faults in one line. */
function named(suspect: StageSuspect): { name: string; probability: number; look: string }[] {
  const { faults, probability } = suspect;
  const [fault] = faults;
  if (!fault) return [{ name: suspectName(suspect), probability, look: 'every stage as it should be' }];
  if (faults.length > 1 || fault.kind !== 'valves') {
    return [
      { name: suspectName(suspect), probability, look: faults.map(({ kind }) => telltale[kind]).join('; ') },
    ];
  }
  return valveParts.map(({ name, share, look }) => ({
    name: `${name}, stage ${fault.stage}`,
    probability: probability * share,
    look,
  }));
}

/** What the check of the unit takes of what was typed. */
function saved(typed: CheckValues): CheckValues {
  return Object.fromEntries(
    Object.entries(typed).filter(
      ([code]) => code === 'intakeTempC' || code === 'workingBar' || /^stage\d/.test(code),
    ),
  );
}
