import { Box, Typography } from '@mui/material';
import { fillPressureFor, settledPressure, type BestCascade } from '@entretien/core/air';
import { formatDay, localDayAt } from '@entretien/core/basics';
import { cascadeJob, type TypedCylinder, type TypedVessel } from '@entretien/core/bench';
import { gauge, quantity, type FieldDefinition } from '@entretien/core/checks';
import { formatFigure } from '@entretien/core/quantities';
import { lazy } from 'react';
import { CheckFields } from '../../../components/checks/CheckFields.js';
import { useNow } from '../../../components/use-now.js';
import { readCylinders, readVessels, writeCylinders, writeVessels } from '../vessel-texts.js';
import { BenchFrame } from '../BenchFrame.js';
import { LongWork } from '../LongWork.js';
import { Answer, Figures, Picture, type BenchFigure } from '../parts.js';
import { CylinderRows, VesselRows } from '../VesselRows.js';
import { SaveToCompressor } from '../SaveToCompressor.js';
import { useBenchAddress, useBenchValues } from '../use-bench.js';
import { useBenchWorker } from '../use-worker.js';

const VesselsChart = lazy(() => import('../charts.js').then((part) => ({ default: part.VesselsChart })));

const fields: readonly FieldDefinition[] = [
  gauge('fillBar', 'Fill to', { plate: 'workingPressureBar' }),
  quantity('temperature', 'tempC', 'Place', -30, 60, { optional: true, hint: '20 °C where not known.' }),
  quantity('flow', 'fadLpm', 'Delivery', 1, 200_000, { optional: true, plate: 'fadLpm' }),
  quantity('temperature', 'hotC', 'Cylinder just filled', -30, 120, {
    optional: true,
    hint: 'To calculate the settled pressure.',
  }),
];

/** Cylinders from banks in the best order, and what a hot fill settles at. */
export function Cylinders() {
  const address = useBenchAddress();
  const { texts, setText, unit, site, atmosphereBarAbs } = address;
  const now = useNow();
  const today = formatDay(localDayAt(now, site?.timeZone ?? 'UTC'));
  const { values, problems } = useBenchValues(fields, address);
  const banks = readVessels(texts['banks']);
  const cylinders = readCylinders(texts['cylinders']);
  const fillBar = values.number('fillBar');
  const tempC = values.number('tempC') ?? 20;
  const typed =
    fillBar === undefined ? null : cascadeJob({ banks, cylinders, fillBar, tempC, atmosphereBarAbs, today });
  const isWhole = typed?.ok === true && Object.keys(problems).length === 0;
  const search = useBenchWorker(isWhole ? { kind: 'cascade', job: typed.value } : null);
  const best = search.result?.kind === 'cascade' ? search.result.best : null;
  const problem = typed && !typed.ok ? typed.problem : null;
  const settled = settledOf(values.number('hotC'), fillBar, tempC, atmosphereBarAbs);
  const fad = values.number('fadLpm');
  return (
    <BenchFrame
      title="Cylinders and banks"
      address={address}
      inputs={
        <>
          <CheckFields fields={fields} texts={texts} onText={setText} problems={problems} plate={unit} />
          <VesselRows
            title="Banks"
            kind="banks"
            rows={banks}
            problem={problem}
            onRows={(rows) => setText('banks', writeVessels(rows))}
            onAdd={() => setText('banks', writeVessels([...banks, banks.at(-1) ?? { volumeL: '', bar: '' }]))}
          />
          <CylinderRows
            rows={cylinders}
            problem={problem}
            onRows={(rows) => setText('cylinders', writeCylinders(rows))}
            onAdd={() =>
              setText(
                'cylinders',
                writeCylinders([
                  ...cylinders,
                  cylinders.at(-1) ?? { volumeL: '', bar: '', ratedBar: '', testedUntil: '' },
                ]),
              )
            }
          />
          <LongWork
            work={search}
            name="Looking for the best order"
            start="Find the best order"
            stop="Stop looking"
            canStart={isWhole}
          />
        </>
      }
      save={
        <SaveToCompressor
          unit={unit}
          measurements={
            isWhole && fillBar !== undefined
              ? cylinders.map(({ ratedBar, testedUntil, volumeL }) => ({
                  check: 'cylinder',
                  values: { ratedBar: Number(ratedBar.replace(',', '.')), testedUntil, fillBar },
                  note: `${volumeL} L cylinder`,
                }))
              : null
          }
        />
      }
      formula={
        <>
          <p>
            Mass = pV/(ZRT), Z of air by the equation of state of Lee and Kesler; a bank is opened until
            pressures are even or the cylinder is full, at an even temperature: filled slowly.
          </p>
          <p>
            Banks are opened lowest first. Which cylinder is connected when, and which bank is spared for a
            later one, is searched: from twelve starts every change that leaves less to pump is taken until
            none does.
          </p>
          <p>
            Time = free air still missing ÷ free air delivered. Settled: the same mass in the cold cylinder.
          </p>
        </>
      }
    >
      <Answer
        sentence={sentenceOf(
          best,
          cylinders.length,
          problem?.code === 'missing' ? null : (problem?.sentence ?? null),
          fad,
        )}
        verdict={problem?.code.startsWith('cylinder-') ? 'stop' : undefined}
        detail={
          problem?.code.startsWith('cylinder-')
            ? 'Set it aside, marked.'
            : 'Cylinders in date, within their rating, secured, filled slowly; close the cylinder first, vent, then take it off.'
        }
      />
      {best && (
        <CascadePicture best={best} banks={banks} cylinders={cylinders} atmosphereBarAbs={atmosphereBarAbs} />
      )}
      <Figures items={[...(best ? cascadeFigures(best, fad) : []), ...settled]} />
      {best && <Steps best={best} atmosphereBarAbs={atmosphereBarAbs} />}
    </BenchFrame>
  );
}

function sentenceOf(
  best: BestCascade | null,
  count: number,
  problem: string | null,
  fad: number | undefined,
): string {
  if (problem !== null) return problem;
  if (!best)
    return count === 0 ? 'Enter the banks and the cylinders to fill.' : 'Find the best order to fill them.';
  const { full, missingL } = best.result;
  if (full === count) return count === 1 ? 'The banks fill it.' : `The banks fill all ${count}.`;
  const time = fad ? `, ${formatFigure(missingL / fad, { maxDecimals: 0 })} min of pumping` : '';
  return `The banks fill ${full} of ${count}; ${formatFigure(missingL, { maxDecimals: 0 })} L of free air are left to pump${time}.`;
}

function cascadeFigures({ result, plain }: BestCascade, fad: number | undefined): BenchFigure[] {
  const gained = plain.missingL - result.missingL;
  return [
    { name: 'Filled from the banks', value: String(result.full), note: 'all the way' },
    {
      name: 'Left to pump',
      value: formatFigure(result.missingL, { maxDecimals: 0 }),
      unit: 'L',
      note: 'free air',
    },
    ...(fad
      ? [{ name: 'That takes', value: formatFigure(result.missingL / fad, { maxDecimals: 0 }), unit: 'min' }]
      : []),
    {
      name: 'Gained by the order',
      value: formatFigure(Math.max(0, gained), { maxDecimals: 0 }),
      unit: 'L',
      note: 'against the list as it stands',
    },
  ];
}

/** What a hot fill settles at, and to what to fill so that it settles full. */
function settledOf(
  hotC: number | undefined,
  fillBar: number | undefined,
  coldC: number,
  air: number,
): BenchFigure[] {
  if (hotC === undefined || fillBar === undefined) return [];
  const settled = settledPressure(fillBar + air, hotC, coldC);
  const fill = fillPressureFor(fillBar + air, hotC, coldC);
  const bar = (value: number) => formatFigure(value - air, { maxDecimals: 0 });
  return [
    ...(settled.ok
      ? [{ name: `${formatFigure(fillBar)} bar hot settles at`, value: bar(settled.value), unit: 'bar' }]
      : []),
    ...(fill.ok
      ? [
          {
            name: 'To settle full it would take',
            value: bar(fill.value),
            unit: 'bar hot',
            note: 'only if cylinder and relief allow it',
          },
        ]
      : []),
  ];
}

interface PictureProps {
  readonly best: BestCascade;
  readonly banks: readonly TypedVessel[];
  readonly cylinders: readonly TypedCylinder[];
  readonly atmosphereBarAbs: number;
}

function CascadePicture({ best, banks, cylinders, atmosphereBarAbs }: PictureProps) {
  const { banksBarAbs, cylindersBarAbs } = best.result;
  const labels = [
    ...banks.map((_, index) => `bank ${index + 1}`),
    ...cylinders.map((_, index) => `cyl. ${index + 1}`),
  ];
  const before = [...banks, ...cylinders].map(({ bar }) => Number(bar.replace(',', '.')));
  const after = [...banksBarAbs, ...cylindersBarAbs].map((bar) => Math.max(0, bar - atmosphereBarAbs));
  const text = labels.map(
    (label, index) =>
      `${label} ${formatFigure(before[index]!)} to ${formatFigure(after[index]!, { maxDecimals: 0 })} bar`,
  );
  return (
    <Picture height={280}>
      <VesselsChart
        text={`Before and after: ${text.join('; ')}`}
        labels={labels}
        before={before}
        after={after}
        unit="bar (light: before, green: after)"
      />
    </Picture>
  );
}

/** The order, step by step, as it is done at the panel. */
function Steps({
  best,
  atmosphereBarAbs,
}: {
  readonly best: BestCascade;
  readonly atmosphereBarAbs: number;
}) {
  const { order, result } = best;
  const bar = (value: number) => formatFigure(Math.max(0, value - atmosphereBarAbs), { maxDecimals: 0 });
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h3" component="h2">
        In this order
      </Typography>
      <Box component="ol" aria-label="Order of filling" sx={{ pl: 2.5, m: 0, typography: 'body2' }}>
        {order.cylinders.map((cylinder) => {
          const steps = result.steps.filter((step) => step.cylinder === cylinder);
          const opened = steps.map(({ bank, toBarAbs }) => `bank ${bank + 1} to ${bar(toBarAbs)} bar`);
          return (
            <li key={cylinder}>
              <strong>Cylinder {cylinder + 1}</strong>:{' '}
              {opened.length > 0 ? opened.join(', ') : 'no bank has more than it holds'}
            </li>
          );
        })}
      </Box>
    </Box>
  );
}
