import { Box, Typography } from '@mui/material';
import { costFields, fillCurve, yearlyCostCents } from '@entretien/core/bench';
import type { CompressorView, MeasurementView } from '@entretien/contracts';
import {
  checkByCode,
  choice,
  type CheckValues,
  type FieldDefinition,
  type Judgement,
} from '@entretien/core/checks';
import { formatFigure } from '@entretien/core/quantities';
import { lazy } from 'react';
import { useMeasurements } from '../../../data/queries.js';
import { CheckField } from '../../../components/checks/CheckField.js';
import { CheckFields } from '../../../components/checks/CheckFields.js';
import { baselineAt, useJudged } from '../../../components/checks/use-judged.js';
import { formatDate } from '../../../components/describe-due.js';
import { useNow } from '../../../components/use-now.js';
import { BenchFrame } from '../BenchFrame.js';
import { Answer, figureOf, Figures, Picture, type BenchFigure } from '../parts.js';
import { SaveToCompressor } from '../SaveToCompressor.js';
import { Stopwatch } from '../Stopwatch.js';
import { useBenchAddress, useBenchValues, useFormat, useScale } from '../use-bench.js';
import { euros } from '../format-money.js';
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
  const timed = judgement && flow !== null ? { judgement, flow, isLeak } : null;
  const baseline = baselineAt(earlier.data, now)?.figure ?? null;
  const curves = (timed ? curvesOf(timed, values, { unit, atmosphereBarAbs, baseline }) : []).map(
    (curve) => ({
      ...curve,
      points: curve.points.map(({ x, y }) => ({ x, y: scale.of(y) })),
    }),
  );
  const figures = timed ? figuresOf(timed, cost?.ok ? cost.value : null, format) : [];

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
      formula={<Formula />}
    >
      <Answer
        sentence={judgement?.reason ?? judged.missing ?? 'Correct what is marked.'}
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
      {history.length > 0 && <Earlier tag={unit!.tag} history={history} now={now} />}
    </BenchFrame>
  );
}

function Formula() {
  return (
    <>
      <p>
        Q = V · (p₂/(Z₂T₂) − p₁/(Z₁T₁)) · T₀/(p₀ · t), pressures absolute (ISO 1217 simplified; CAGI). The
        leak is the same balance with the compressor off.
      </p>
      <p>
        Z by the equation of state of Lee and Kesler: without it a test at 300 bar overstates delivery by a
        tenth. The gauge is read to half a step, each end; the watch to its own error; both make the
        uncertainty.
      </p>
      <p>
        Under 90 % of the plate or the baseline it is watched, under 80 % acted on; a leak from 10 and from 25
        %: common practice.
      </p>
    </>
  );
}

interface EarlierProps {
  readonly tag: string;
  readonly history: readonly MeasurementView[];
  readonly now: number;
}

function Earlier({ tag, history, now }: EarlierProps) {
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="h3" component="h2">
        Earlier on {tag}
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0, typography: 'body2' }}>
        {history.map((one) => (
          <Box component="li" key={one.id} sx={{ py: 0.5, borderBottom: 1, borderColor: 'divider' }}>
            {formatDate(one.takenAt.slice(0, 10), now, 'UTC')}: {one.judgement.reason}
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** A run that was timed, with the flow that follows. */
interface Timed {
  readonly judgement: Judgement;
  readonly flow: number;
  readonly isLeak: boolean;
}

interface Beside {
  readonly unit: CompressorView | undefined;
  readonly atmosphereBarAbs: number;
  /** Flow of its baseline. */
  readonly baseline: number | null;
}

/** The fill as timed, and as it should be by the plate and by the baseline. */
function curvesOf(
  { flow, isLeak }: Timed,
  values: CheckValues,
  { unit, atmosphereBarAbs, baseline }: Beside,
): Curve[] {
  const number = (code: string, plate?: number) => {
    const value = values[code];
    return typeof value === 'number' ? value : plate;
  };
  const run = {
    fromBar: number('fromBar', isLeak ? unit?.cutOutBar : unit?.cutInBar)!,
    toBar: number('toBar', unit?.cutOutBar)!,
    seconds: number('seconds')!,
    atmosphereBarAbs,
    tempC: number('intakeTempC') ?? 20,
  };
  const timed: Curve = { name: 'timed', points: fillCurve(run), ink: 'ink' };
  if (isLeak) return [timed];
  const meant = (name: string, lpm: number | null | undefined, ink: Curve['ink']): Curve[] =>
    lpm ? [{ name, points: fillCurve(run, lpm / flow), ink, isDashed: true }] : [];
  return [
    timed,
    ...meant('by the plate', number('fadLpm', unit?.fadLpm), 'slate'),
    ...meant('by its baseline', baseline, 'verdigris'),
  ];
}

function figuresOf(
  { judgement, flow, isLeak }: Timed,
  costCents: number | null,
  format: ReturnType<typeof useFormat>,
): BenchFigure[] {
  const share = judgement.figures.find(({ unit }) => unit === '%');
  const doubt = judgement.figures.find(({ name }) => name === 'Gauge and watch');
  return [
    figureOf(isLeak ? 'Leak' : 'Free air delivered', format(flow, 'flow')),
    ...(share ? [{ name: share.name, value: formatFigure(share.value, { maxDecimals: 0 }), unit: '%' }] : []),
    ...(doubt
      ? [figureOf('Gauge and watch', `±${format(doubt.value, 'flow')}`, 'standard uncertainty')]
      : []),
    ...(costCents === null
      ? []
      : [{ name: 'It costs in a year', value: euros(costCents), note: 'if it is left' }]),
  ];
}

/** The flow among the figures of a judgement; for a baseline it is the figure itself. */
function flowOf(
  figures: readonly { readonly quantity?: string | undefined; readonly value: number }[],
  figure: number | null,
): number | null {
  return figures.find(({ quantity }) => quantity === 'flow')?.value ?? figure;
}
