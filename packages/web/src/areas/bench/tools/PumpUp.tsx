import { Box, Typography } from '@mui/material';
import { costFields, fillCurve, yearlyCostCents } from '@entretien/core/bench';
import { checkByCode, choice, type FieldDefinition } from '@entretien/core/checks';
import { formatFigure } from '@entretien/core/quantities';
import { lazy } from 'react';
import { useMeasurements } from '../../../data/queries.js';
import { CheckField } from '../../../parts/checks/CheckField.js';
import { CheckFields } from '../../../parts/checks/CheckFields.js';
import { baselineAt, useJudged } from '../../../parts/checks/use-judged.js';
import { formatDate } from '../../../parts/say-due.js';
import { useNow } from '../../../parts/use-now.js';
import { BenchFrame } from '../BenchFrame.js';
import { Answer, figureOf, Figures, Picture, type BenchFigure } from '../parts.js';
import { SaveToCompressor } from '../SaveToUnit.js';
import { Stopwatch } from '../Stopwatch.js';
import { useBenchAddress, useBenchValues, useFormat, useScale } from '../use-bench.js';
import { euros } from '../say-money.js';
import type { Curve } from '../charts.js';

const CurveChart = lazy(() => import('../charts.js').then((part) => ({ default: part.CurveChart })));

const wayField: FieldDefinition = choice('way', 'What is timed', {
  'pump-up': 'pump-up',
  'leak-down': 'leak-down',
});

/** Free air delivered by the time a receiver takes to fill, or the leak by the time it takes to fall. */
export function PumpUp() {
  const address = useBenchAddress();
  const { texts, setText, unit, site, atmosphereBarAbs } = address;
  const way = texts['way'] === 'leak-down' ? 'leak-down' : 'pump-up';
  const check = checkByCode(way)!;
  const now = useNow();
  const earlier = useMeasurements(unit?.id, way);
  const judged = useJudged(check, texts, { unit, site, at: now, earlier: earlier.data });
  const costs = useBenchValues(costFields, address);
  const format = useFormat();
  const scale = useScale('pressure');
  const { judgement, values } = judged;
  const isLeak = way === 'leak-down';
  const flow = judgement && flowOf(judgement.figures, judgement.figure?.value ?? null);
  const canCost = isLeak && Object.keys(costs.problems).length === 0;
  const cost = canCost && flow !== null ? yearlyCostCents(flow, costs.values) : null;
  const curves = (judgement && flow !== null ? curvesOf() : []).map((curve) => ({
    ...curve,
    points: curve.points.map(({ x, y }) => ({ x, y: scale.of(y) })),
  }));

  function number(code: string, plate?: number): number | undefined {
    const value = values[code];
    return typeof value === 'number' ? value : plate;
  }

  /** The fill as timed, and as it should be by the plate and by the baseline. */
  function curvesOf(): Curve[] {
    const run = {
      fromBar: number('fromBar', isLeak ? unit?.cutOutBar : unit?.cutInBar)!,
      toBar: number('toBar', unit?.cutOutBar)!,
      seconds: number('seconds')!,
      atmosphereBarAbs,
      tempC: number('intakeTempC') ?? 20,
    };
    const timed: Curve = { name: 'timed', points: fillCurve(run), ink: 'ink' };
    if (isLeak) return [timed];
    const fad = number('fadLpm', unit?.fadLpm);
    const baseline = baselineAt(earlier.data, now)?.figure ?? null;
    return [
      timed,
      ...(fad
        ? [
            {
              name: 'by the plate',
              points: fillCurve(run, fad / flow!),
              ink: 'slate' as const,
              isDashed: true,
            },
          ]
        : []),
      ...(baseline
        ? [
            {
              name: 'by its baseline',
              points: fillCurve(run, baseline / flow!),
              ink: 'verdigris' as const,
              isDashed: true,
            },
          ]
        : []),
    ];
  }

  const figures: BenchFigure[] = [];
  if (judgement && flow !== null) {
    figures.push(figureOf(isLeak ? 'Leak' : 'Free air delivered', format(flow, 'flow')));
    const share = judgement.figures.find(({ unit: of }) => of === '%');
    if (share)
      figures.push({ name: share.name, value: formatFigure(share.value, { maxDecimals: 0 }), unit: '%' });
    const doubt = judgement.figures.find(({ name }) => name === 'Gauge and watch');
    if (doubt)
      figures.push(
        figureOf(
          'Gauge and watch',
          `± ${format(doubt.value, 'flow')}`.replace('± ', '±'),
          'standard uncertainty',
        ),
      );
    if (cost?.ok)
      figures.push({ name: 'It costs in a year', value: euros(cost.value), note: 'if it is left' });
  }
  const history = (earlier.data ?? []).filter(({ voided }) => voided === undefined).slice(0, 4);
  return (
    <BenchFrame
      title="Pump-up and leak-down"
      address={address}
      inputs={
        <>
          <CheckField field={wayField} text={way} onText={(text) => setText('way', text || way)} />
          <Stopwatch onSeconds={(seconds) => setText('seconds', String(seconds))} />
          <CheckFields
            fields={judged.fields}
            texts={texts}
            onText={setText}
            problems={judged.problems}
            plate={unit}
          />
          {isLeak && (
            <CheckFields
              fields={costFields}
              texts={texts}
              onText={setText}
              problems={costs.problems}
              plate={unit}
            />
          )}
        </>
      }
      save={<SaveToCompressor unit={unit} measurements={judgement && [{ check: way, values }]} />}
      formula={
        <>
          <p>
            Q = V · (p₂/(Z₂T₂) − p₁/(Z₁T₁)) · T₀/(p₀ · t), pressures absolute (ISO 1217 simplified; CAGI). The
            leak is the same balance with the compressor off.
          </p>
          <p>
            Z by the equation of state of Lee and Kesler: without it a test at 300 bar overstates delivery by
            a tenth. The gauge is read to half a step, each end; the watch to its own error; both make the
            uncertainty.
          </p>
          <p>
            Under 90 % of the plate or the baseline it is watched, under 80 % acted on; a leak from 10 and
            from 25 %: common practice.
          </p>
        </>
      }
    >
      <Answer
        sentence={judgement?.reason ?? judged.missing ?? 'Mend what is marked.'}
        verdict={judgement?.verdict}
        detail={
          judgement?.limit
            ? `Limit: ${judgement.limit.text}`
            : isLeak
              ? 'Compressor off, nobody using air.'
              : 'Outlets shut, receiver drained.'
        }
      />
      {curves.length > 0 && (
        <Picture>
          <CurveChart
            text={`Pressure over time: ${curves.map(({ name, points }) => `${name} ${formatFigure(points.at(-1)!.x, { maxDecimals: 0 })} s`).join(', ')}`}
            curves={curves}
            mark={curves[0]!.points.at(-1)}
            xTitle={`seconds${curves.length > 1 ? ' (solid: timed; grey dashes: data plate; green dashes: baseline)' : ''}`}
            yTitle={scale.label}
          />
        </Picture>
      )}
      <Figures items={figures} />
      {history.length > 0 && (
        <Box sx={{ mt: 2 }}>
          <Typography variant="h3" component="h2">
            Earlier on {unit!.tag}
          </Typography>
          <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0, typography: 'body2' }}>
            {history.map((one) => (
              <Box component="li" key={one.id} sx={{ py: 0.5, borderBottom: 1, borderColor: 'divider' }}>
                {formatDate(one.takenAt.slice(0, 10), now, 'UTC')}: {one.judgement.reason}
              </Box>
            ))}
          </Box>
        </Box>
      )}
    </BenchFrame>
  );
}

/** The flow among the figures of a judgement; for a baseline it is the figure itself. */
function flowOf(
  figures: readonly { readonly quantity?: string | undefined; readonly value: number }[],
  figure: number | null,
): number | null {
  return figures.find(({ quantity }) => quantity === 'flow')?.value ?? figure;
}
