import { formatHoursSeen } from '@entretien/core/hours';
import { Box, Button, Stack, Typography } from '@mui/material';
import type { CompressorView, MeasurementView, ServiceView } from '@entretien/contracts';
import {
  howOf,
  type BeforeAfter,
  type CheckDefinition,
  type CheckFigure,
  type CheckTrend,
} from '@entretien/core/checks';
import { lazy, Suspense, useState } from 'react';
import { usePreferences } from '../../../data/preferences.js';
import { useForecast, useMeasurements, useMeterScale } from '../../../data/queries.js';
import { formatCheckFigure } from '../../../components/checks/format-figure.js';
import { formatDate } from '../../../components/describe-due.js';
import { Empty, ErrorState, LoadingSkeleton } from '../../../components/States.js';
import { useNow } from '../../../components/use-now.js';
import { VerdictMark } from '../../../components/VerdictMark.js';
import { toLocalText } from '../../../components/WhenField.js';
import { WithdrawDialog } from '../WithdrawDialog.js';
import { checkSeries, type ChartPoint } from './check-chart.js';
import type { ChecksPanelProps } from './ChecksPanel.js';

// The chart library is large, and only wanted here.
const CheckChart = lazy(() => import('./CheckChart.js').then((part) => ({ default: part.CheckChart })));

const SHOWN_AT_FIRST = 8;

interface DetailProps extends ChecksPanelProps {
  readonly check: CheckDefinition;
}

/** One check of a unit: its chart, where it is going, what work did to it, and every measurement. */
export function CheckDetail({ unit, check, services, timeZone, onMeasure }: DetailProps) {
  const measurements = useMeasurements(unit.id, check.code);
  const now = useNow();
  if (measurements.isError) {
    return <ErrorState error={measurements.error} onRetry={() => void measurements.refetch()} />;
  }
  if (!measurements.data) return <LoadingSkeleton lines={6} />;
  if (measurements.data.length === 0) {
    return (
      <Empty title="Not measured yet.">
        {howOf(check, unit)} The first one, taken when all is well, makes the baseline.
      </Empty>
    );
  }
  return (
    <Box>
      {check.figure && (
        <Picture
          unit={unit}
          check={{ ...check, figure: check.figure }}
          measurements={measurements.data}
          services={services}
          now={now}
          timeZone={timeZone}
        />
      )}
      <Records
        unit={unit}
        check={check}
        measurements={measurements.data}
        now={now}
        timeZone={timeZone}
        onCorrect={(one) => onMeasure(check, one)}
      />
    </Box>
  );
}

interface PictureProps {
  readonly unit: CompressorView;
  readonly check: CheckDefinition & { readonly figure: CheckFigure };
  readonly measurements: readonly MeasurementView[];
  readonly services: readonly ServiceView[];
  readonly now: number;
  readonly timeZone: string;
}

function Picture({ unit, check, measurements, services, now, timeZone }: PictureProps) {
  const series = checkSeries(check, measurements, services);
  const meter = useMeterScale(unit.id);
  const { figure } = check;
  if (series.points.length === 0) return null;
  const legend = [
    '● good ▲ keep an eye on it ◆ act now ■ stop',
    series.points.some(({ isBaseline }) => isBaseline) ? '○ baseline' : '',
    series.limit === null ? '' : 'red dashes: limit',
    series.pairs.length > 0 ? 'green line: before and after work' : '',
    series.trend ? 'dashed, shaded: trend, eight chances in ten' : '',
  ];
  return (
    <>
      <Box sx={{ height: 240 }}>
        <Suspense fallback={<LoadingSkeleton lines={5} />}>
          <CheckChart
            name={check.name}
            figure={figure}
            series={series}
            now={now}
            timeZone={timeZone}
            meter={meter}
          />
        </Suspense>
      </Box>
      <Typography variant="caption" sx={{ color: 'text.secondary', display: 'block', mb: 1 }}>
        {legend.filter(Boolean).join(' · ')}
      </Typography>
      {series.trend && (
        <Trend
          unit={unit}
          trend={series.trend}
          figure={figure}
          limit={series.limit}
          now={now}
          timeZone={timeZone}
        />
      )}
      {series.pairs.slice(-2).map((pair) => (
        <Pair key={pair.before.id} pair={pair} figure={figure} now={now} timeZone={timeZone} />
      ))}
    </>
  );
}

interface TrendProps {
  readonly unit: CompressorView;
  readonly trend: CheckTrend;
  readonly figure: CheckFigure;
  readonly limit: number | null;
  readonly now: number;
  readonly timeZone: string;
}

/** When the trend reaches the limit, in hours and as a date. */
function Trend({ unit, trend, figure, limit, now, timeZone }: TrendProps) {
  const units = usePreferences((preferences) => preferences.units);
  const { limitHours } = trend;
  const meter = useMeterScale(unit.id);
  const at = (hours: number) => formatHoursSeen(meter, Math.round(hours));
  const forecast = useForecast(unit.id, limitHours ? Math.round(limitHours.likely) : 0);
  if (limit === null) return null;
  const limitText = formatCheckFigure(limit, figure, units);
  if (!limitHours) {
    return (
      <Typography variant="body2" sx={{ mb: 1 }}>
        It is not on its way to its limit of {limitText}.
      </Typography>
    );
  }
  if (limitHours.likely <= trend.toHours) {
    return (
      <Typography variant="body2" sx={{ mb: 1, fontWeight: 600 }}>
        Its trend is past the limit of {limitText}.
      </Typography>
    );
  }
  if (!trend.isForeseeable) {
    return (
      <Typography variant="body2" sx={{ mb: 1 }}>
        It does not worsen by more than measuring tells: when it reaches {limitText} cannot be foreseen by
        measuring.
      </Typography>
    );
  }
  const likely = forecast.data?.likely;
  const late = limitHours.late === null ? 'much later' : at(limitHours.late);
  return (
    <Typography variant="body2" sx={{ mb: 1 }}>
      <strong>
        Wearing like this it reaches {limitText} near {at(limitHours.likely)}
        {likely ? `, about ${formatDate(likely.slice(0, 10), now, timeZone)}` : ''}.
      </strong>{' '}
      Between {at(limitHours.early)} and {late}, eight chances in ten; by {trend.count} measurements
      {trend.cycles > 0 ? ` and ${trend.cycles === 1 ? 'the cycle' : `${trend.cycles} cycles`} before` : ''}.
    </Typography>
  );
}

interface PairProps {
  readonly pair: BeforeAfter<ChartPoint>;
  readonly figure: CheckFigure;
  readonly now: number;
  readonly timeZone: string;
}

/** What work did to the figure, and whether measuring alone could have made it. */
function Pair({ pair, figure, now, timeZone }: PairProps) {
  const units = usePreferences((preferences) => preferences.units);
  const format = (value: number) => formatCheckFigure(value, figure, units);
  const day = formatDate(toLocalText(pair.workAt, timeZone).slice(0, 10), now, timeZone);
  const isBetter = figure.worse === 'either' ? null : pair.change > 0 === (figure.worse === 'lower');
  return (
    <Box sx={{ borderLeft: 4, borderColor: 'primary.main', pl: 1.25, mb: 1.25 }}>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Before and after the work of {day}
      </Typography>
      <Typography sx={{ fontWeight: 650 }}>
        {format(pair.before.value)} → {format(pair.after.value)}
      </Typography>
      <Typography variant="body2">
        {pair.isBeyondNoise
          ? isBetter === false
            ? 'It got worse, by more than measuring leaves open.'
            : 'A real change: more than measuring leaves open.'
          : 'Within what measuring leaves open: nothing is proved.'}
      </Typography>
    </Box>
  );
}

interface RecordsProps {
  readonly unit: CompressorView;
  readonly check: CheckDefinition;
  readonly measurements: readonly MeasurementView[];
  readonly now: number;
  readonly timeZone: string;
  readonly onCorrect: (measurement: MeasurementView) => void;
}

/** Every measurement, the latest first, with the judgement made then. */
function Records({ unit, check, measurements, now, timeZone, onCorrect }: RecordsProps) {
  const [shown, setShown] = useState(SHOWN_AT_FIRST);
  const meter = useMeterScale(unit.id);
  const [withdrawn, setWithdrawn] = useState<MeasurementView | null>(null);
  const dayOf = ({ takenAt }: MeasurementView) =>
    formatDate(toLocalText(Date.parse(takenAt), timeZone).slice(0, 10), now, timeZone);
  return (
    <>
      <Box component="ol" aria-label={`Measurements of ${check.name}`} sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {measurements.slice(0, shown).map((one) => (
          <Box
            component="li"
            key={one.id}
            sx={{ py: 0.9, borderTop: 1, borderColor: 'divider', opacity: one.voided ? 0.75 : 1 }}
          >
            <Stack direction="row" sx={{ alignItems: 'center', gap: 1, justifyContent: 'space-between' }}>
              <VerdictMark {...one.judgement} />
              <Typography variant="caption" sx={{ color: 'text.secondary', textAlign: 'right' }}>
                {dayOf(one)}
                {one.runHours === null ? '' : ` · ${formatHoursSeen(meter, Math.round(one.runHours))}`}
                {one.baseline ? ' · baseline' : ''}
              </Typography>
            </Stack>
            <Typography variant="body2" sx={{ textDecoration: one.voided ? 'line-through' : 'none' }}>
              {one.judgement.reason}
            </Typography>
            {one.judgement.limit && (
              <Typography variant="caption" sx={{ color: 'text.secondary', display: 'block' }}>
                Limit then: {one.judgement.limit.text}
              </Typography>
            )}
            {one.note !== undefined && <Typography variant="caption">{one.note}</Typography>}
            {one.voided ? (
              <Typography variant="caption" sx={{ display: 'block' }}>
                {one.voided.how === 'withdrawn'
                  ? `Withdrawn: ${one.voided.reason ?? ''}`
                  : 'Corrected by a later one.'}
              </Typography>
            ) : (
              <Stack direction="row" sx={{ gap: 1 }}>
                <Button size="small" sx={quietButton} onClick={() => onCorrect(one)}>
                  Correct
                </Button>
                <Button size="small" sx={quietButton} onClick={() => setWithdrawn(one)}>
                  Withdraw
                </Button>
              </Stack>
            )}
          </Box>
        ))}
      </Box>
      {measurements.length > shown && (
        <Button size="small" onClick={() => setShown(shown + 40)}>
          Show earlier
        </Button>
      )}
      {withdrawn && (
        <WithdrawDialog
          compressorId={unit.id}
          day={dayOf(withdrawn)}
          lines={[{ text: check.name, path: `measurements/${withdrawn.id}` }]}
          onCorrect={() => undefined}
          onClose={() => setWithdrawn(null)}
        />
      )}
    </>
  );
}

const quietButton = {
  px: 0,
  minWidth: 0,
  minHeight: { xs: 44, md: 26 },
  py: 0,
  color: 'text.secondary',
} as const;
