import { isMeterChanged } from '@entretien/core/hours';
import { Box, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import type { ForecastView, HoursView, StandingView, UseChangeView } from '@entretien/contracts';
import { formatFigure } from '@entretien/core/quantities';
import { lazy, Suspense, useState } from 'react';
import { useForecast, useHours } from '../../data/queries.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { formatDays } from '../../components/describe-due.js';

// The chart library is large, and only wanted here.
const HoursChart = lazy(() => import('./HoursChart.js').then((part) => ({ default: part.HoursChart })));
const WeeksChart = lazy(() => import('./HoursChart.js').then((part) => ({ default: part.WeeksChart })));

interface PanelProps {
  readonly compressorId: string;
  readonly standing: StandingView;
}

/** How the hours grew, how they are likely to go on, and what that rests on. */
export function HoursPanel({ compressorId, standing }: PanelProps) {
  const [shown, setShown] = useState<'total' | 'weeks'>('total');
  const hours = useHours(compressorId);
  const forecast = useForecast(compressorId, nextFigure(standing));
  if (hours.isError) return <ErrorState error={hours.error} onRetry={() => void hours.refetch()} />;
  if (!hours.data) return <LoadingSkeleton lines={5} />;
  if (hours.data.points.length === 0)
    return (
      <Typography sx={{ color: 'text.secondary', py: 2 }}>
        No hours on record yet. Read the meter, or declare what it runs in a week.
      </Typography>
    );
  const change = forecast.data?.basedOn.useChange ?? null;
  return (
    <Box>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={shown}
        onChange={(_event, next: typeof shown | null) => next && setShown(next)}
        aria-label="What the chart shows"
        sx={{
          mb: 1,
          '& .MuiToggleButton-root': { minHeight: { xs: 44, md: 34 }, px: 1.5, textTransform: 'none' },
        }}
      >
        <ToggleButton value="total">
          {isMeterChanged(standing.meter) ? 'Total hours, all meters' : 'Run hours'}
        </ToggleButton>
        <ToggleButton value="weeks">Use per week</ToggleButton>
      </ToggleButtonGroup>
      <Box sx={{ height: 300 }}>
        <Suspense fallback={<LoadingSkeleton lines={5} />}>
          {shown === 'total' ? (
            <HoursChart hours={hours.data} change={change} />
          ) : (
            <WeeksChart hours={hours.data} />
          )}
        </Suspense>
      </Box>
      {shown === 'total' && <Legend hours={hours.data} change={change} />}
      <Grounds hours={hours.data} forecast={forecast.data} />
    </Box>
  );
}

/** What the marks of the chart mean: those that are there. */
function Legend({ hours, change }: { readonly hours: HoursView; readonly change: UseChangeView | null }) {
  const text = [
    'dashed: calculated',
    hours.points.some(({ source }) => source === 'meter-change') ? '◆ new meter' : '',
    hours.loaded.length > 0 ? 'thin: loaded hours' : '',
    change ? '▲ use changed' : '',
    hours.ahead.length > 0 ? 'shaded: eight chances in ten' : '',
  ];
  return (
    <Typography variant="caption" sx={{ color: 'text.secondary', display: 'block', mt: 0.5 }}>
      {['Hours on the meter, new ones counted on', ...text.filter(Boolean)].join(' · ')}
    </Typography>
  );
}

/** A figure ahead, only to ask what the forecast rests on. */
function nextFigure({ runHours }: StandingView): number {
  return Math.ceil((runHours ?? 0) + 100);
}

/** What the forecast rests on, in words. */
function Grounds({
  hours,
  forecast,
}: {
  readonly hours: HoursView;
  readonly forecast: ForecastView | undefined;
}) {
  const lines = [...(forecast ? describeGrounds(forecast) : []), ...describeLoaded(hours)];
  return (
    <Box
      component="ul"
      aria-label="What the forecast rests on"
      sx={{ pl: 2.25, my: 1.5, typography: 'body2' }}
    >
      {lines.map((line) => (
        <Box component="li" key={line} sx={{ py: 0.25 }}>
          {line}
        </Box>
      ))}
    </Box>
  );
}

function describeGrounds({ method, hoursPerDay, basedOn, reason }: ForecastView): string[] {
  const rate = hoursPerDay === null ? '' : `${formatFigure(hoursPerDay, { maxDecimals: 1 })} h a day now`;
  const lines: string[] = [];
  if (method === 'none')
    lines.push('Nothing is known of its use yet: it takes two readings, or a declared duty.');
  if (method === 'idle') {
    const dates =
      reason === 'idle'
        ? 'there is no date by hours, only by the calendar'
        : 'its dates allow for its being used again';
    lines.push(`It stands still: ${dates}.`);
  }
  if (basedOn.useChange) lines.push(describeChange(basedOn.useChange));
  if (method === 'declared') lines.push(`${rate}, by the duty declared: no reading has said otherwise yet.`);
  if (method === 'readings')
    lines.push(`${rate}, from ${formatDays(Math.round(basedOn.spanDays))} of readings.`);
  if (method === 'season') {
    const years = basedOn.seasonYears === 1 ? 'an earlier year' : `${basedOn.seasonYears} earlier years`;
    lines.push(`${rate}. It follows the seasons of ${years}.`);
  }
  if (basedOn.bandHorizons >= 1 && basedOn.bandFactor !== null) lines.push(describeBand(basedOn.bandFactor));
  if (reason === 'beyond-ten-years' && method !== 'none')
    lines.push('Some dates lie beyond ten years, and are left open.');
  return lines;
}

function describeChange({ text, before, since }: UseChangeView): string {
  const rate = (hours: number) => `${formatFigure(hours, { maxDecimals: 1 })} h`;
  return `${text}: ${rate(since)} a day, ${rate(before)} before. Its dates follow what it runs now.`;
}

function describeBand(factor: number): string {
  const tried = 'Its own past was forecast again and compared';
  if (factor > 1.1) return `${tried}: the band is ${Math.round((factor - 1) * 100)} % wider for it.`;
  if (factor < 0.9) return `${tried}: the band is ${Math.round((1 - factor) * 100)} % narrower for it.`;
  return `${tried}: the band holds.`;
}

/** A fixed-speed screw that works less than this is too large, or badly controlled (common practice). */
const LOW_LOAD = 0.6;

function describeLoaded({ loadedShare }: HoursView): string[] {
  if (loadedShare === null) return [];
  const share = `Loaded for ${Math.round(loadedShare * 100)} % of its running.`;
  return [
    loadedShare < LOW_LOAD
      ? `${share} A fixed-speed machine under 60 % is oversized or badly controlled.`
      : share,
  ];
}
