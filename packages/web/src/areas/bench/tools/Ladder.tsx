import { Typography, useMediaQuery, type Theme } from '@mui/material';
import type { LadderFaultKind, LadderReading, LadderSuspect } from '@entretien/core/air';
import { ladderBench, ladderFields, ladderStages, stageFields } from '@entretien/core/bench';
import {
  nextWords,
  sayLadder,
  stageVerdict,
  suspectName,
  valveParts,
  type CheckValues,
} from '@entretien/core/checks';
import { formatFigure } from '@entretien/core/quantities';
import { lazy } from 'react';
import { CheckFields } from '../../../parts/checks/CheckFields.js';
import { BenchFrame } from '../BenchFrame.js';
import { Answer, figureOf, Figures, Picture, type BenchFigure } from '../parts.js';
import { SaveToUnit } from '../SaveToUnit.js';
import { useBenchAddress, useBenchValues, useSay, useScale } from '../use-bench.js';

const LadderChart = lazy(() => import('../charts.js').then((part) => ({ default: part.LadderChart })));

/** A stage this far from the expected, or so much hotter, stands out. */
const OFF_SHARE = 0.1;
const OFF_K = 15;

/** Where to look for each suspect. */
const telltale: Record<LadderFaultKind, string> = {
  valves: 'covers by thermometer, never by hand',
  ring: 'breath from the crankcase, in time with the strokes',
  cooler: 'dirt, a panel off, a fan that stands',
  gauge: 'a good gauge beside it, before any head is opened',
  intake: 'element, intake pipe, a rag',
};

/** Pressures and temperatures stage by stage over what they should be, and what would explain them. */
export function Ladder() {
  const address = useBenchAddress();
  const { texts, setText, unit, atmosphereBarAbs } = address;
  const base = useBenchValues(ladderFields, address);
  const stages = ladderStages(base.values, unit);
  const measuredFields = stageFields(stages ?? 0);
  const fields = [...ladderFields, ...measuredFields];
  const read = useBenchValues(fields, address);
  const say = useSay();
  const scale = useScale('pressure');
  const isPhone = useMediaQuery((theme: Theme) => theme.breakpoints.down('sm'));
  const bench = ladderBench(read.values, unit, atmosphereBarAbs);
  const problems = { ...read.problems };
  if (!bench.ok && bench.problem.code !== 'missing' && bench.problem.field !== undefined) {
    problems[bench.problem.field] ??= bench.problem.sentence;
  }
  const reading = bench.ok ? bench.value.reading : null;
  const hasProblems = Object.keys(problems).length > 0;
  const sentence = hasProblems
    ? 'Mend what is marked.'
    : !bench.ok
      ? bench.problem.sentence
      : reading
        ? sayLadder(reading)
        : 'This is what the stages should show.';
  return (
    <BenchFrame
      title="Compression ladder"
      address={address}
      inputs={
        <>
          <CheckFields
            fields={ladderFields}
            texts={texts}
            onText={setText}
            problems={problems}
            plate={unit}
          />
          <CheckFields fields={measuredFields} texts={texts} onText={setText} problems={problems} />
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            Read with the set warm and filling against at least eight tenths of what it is built for, or the
            last stage tells nothing. Read, do not loosen: every stage is under pressure.
          </Typography>
        </>
      }
      save={
        <SaveToUnit
          unit={unit}
          measurements={
            reading && !hasProblems ? [{ check: 'stage-pressures', values: saved(read.typed) }] : null
          }
        />
      }
      formula={
        <>
          <p>
            Equal ratios give least work: r = (pₙ/p₀)^(1/n), absolute. Outlet T₂ = T₁·r^((n−1)/n) with n =
            1.25 for cooled reciprocating stages (common practice). Ideal power p₁Q·n/(n−1)·(r^((n−1)/n) − 1)
            for each stage.
          </p>
          <p>
            Leaking valves lower what their stage takes in: the pressure before it rises, and it runs hot
            because hot gas is compressed again. A ring lets gas past into the crankcase: what comes after it
            falls, and nothing runs hotter. Each explanation, two at once too, predicts every figure; Bayes’
            rule weighs them, with how often each is met (common practice). Sound sets lie 10 to 20 % off
            equal ratios (memory): 12 % and 10 K are allowed for that, 2.5 % and 5 K about a baseline, which
            the check of a unit compares with. The shaded band is 8 %.
          </p>
        </>
      }
    >
      <Answer
        sentence={sentence}
        verdict={reading && !hasProblems ? stageVerdict(reading) : undefined}
        detail={
          reading && !reading.lastStageTells
            ? 'It filled against too little for its last stage to tell.'
            : reading?.next
              ? `Next: ${nextWords(reading.next)}.`
              : bench.ok && !reading && bench.value.stages > 1
                ? 'Enter what the gauges show, and it is read.'
                : undefined
        }
      />
      {bench.ok && !hasProblems && (
        <>
          <Picture height={360}>
            <LadderChart
              words={wordsOf()}
              labels={labelsOf()}
              expected={[atmosphereBarAbs, ...expectedBars()].map(scale.of)}
              measured={[reading ? atmosphereBarAbs : null, ...measuredBars()].map((one) =>
                one === null ? null : scale.of(one),
              )}
              off={[false, ...offRungs()]}
              unit={scale.label}
            />
          </Picture>
          <Figures items={reading ? suspectFigures(reading) : expectedFigures()} />
        </>
      )}
    </BenchFrame>
  );

  function rungs() {
    return bench.ok ? bench.value.expected.rungs : [];
  }

  function expectedBars(): number[] {
    return reading
      ? reading.stages.map(({ expectedBarAbs }) => expectedBarAbs)
      : rungs().map(({ toBarAbs }) => toBarAbs);
  }

  function measuredBars(): (number | null)[] {
    return rungs().map(({ stage }) => {
      const bar = read.values.number(`stage${stage}Bar`);
      return bar === undefined ? null : bar + atmosphereBarAbs;
    });
  }

  function offRungs(): boolean[] {
    return rungs().map((_, index) => {
      const stage = reading?.stages[index];
      const isLast = index === rungs().length - 1;
      return (
        stage !== undefined &&
        ((!isLast && Math.abs(stage.pressureOff) > OFF_SHARE) || (stage.tempOffK ?? 0) > OFF_K)
      );
    });
  }

  function labelsOf(): string[][] {
    const intake = ['intake', say(read.values.number('intakeTempC') ?? 20, 'temperature')];
    return [
      intake,
      ...rungs().map(({ stage, outletTempC }, index) => {
        const bar = read.values.number(`stage${stage}Bar`);
        const temp = read.values.number(`stage${stage}TempC`);
        const meant = (reading?.stages[index]?.expectedBarAbs ?? rungs()[index]!.toBarAbs) - atmosphereBarAbs;
        const meantTemp = reading?.stages[index]?.expectedTempC ?? outletTempC;
        return [
          isPhone ? `stage ${stage}` : `after stage ${stage}`,
          bar === undefined ? say(meant, 'pressure') : beside(say(bar, 'pressure'), say(meant, 'pressure')),
          temp === undefined
            ? say(Math.round(meantTemp), 'temperature')
            : beside(say(temp, 'temperature'), say(Math.round(meantTemp), 'temperature')),
        ];
      }),
    ];
  }

  /** A phone has room for what was found only; what was meant stands in the drawing. */
  function beside(found: string, meant: string): string {
    return isPhone ? found : `${found}, meant ${meant}`;
  }

  function wordsOf(): string {
    return `Pressure by stage. ${labelsOf()
      .map((lines) => lines.join(' '))
      .join('; ')}`;
  }

  function expectedFigures(): BenchFigure[] {
    if (!bench.ok) return [];
    const { expected, powerKw } = bench.value;
    return [
      { name: 'Ratio of each stage', value: formatFigure(expected.ratio) },
      { name: 'Ideal power', value: formatFigure(expected.powerKwPerM3Min), unit: 'kW for each m³/min' },
      ...(powerKw === null ? [] : [{ name: 'For its free air', value: formatFigure(powerKw), unit: 'kW' }]),
      ...expected.rungs.map(({ stage, outletTempC }) =>
        figureOf(`Outlet of stage ${stage}`, say(Math.round(outletTempC), 'temperature')),
      ),
    ];
  }
}

const SUSPECTS_SHOWN = 4;
const LEAST_SHOWN = 0.01;

function suspectFigures({ suspects }: LadderReading): BenchFigure[] {
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
function named(suspect: LadderSuspect): { name: string; probability: number; look: string }[] {
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
