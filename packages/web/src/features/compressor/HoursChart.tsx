import { monthName } from '@entretien/core/basics';
import type { HoursView, UseChangeView } from '@entretien/contracts';
import { formatFigure } from '@entretien/core/quantities';
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { Bar, Line } from 'react-chartjs-2';
import {
  chartFigures,
  chartShared,
  tooltipLook,
  uprightAxis,
  useTokens,
} from '../../components/chart-look.js';
import { hoursSeries, useByWeek } from './hours-chart.js';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
);

function dateText(at: number): string {
  const date = new Date(at);
  return `${date.getUTCDate()} ${monthName(date.getUTCMonth())} ${date.getUTCFullYear()}`;
}

const formatHours = (hours: number) => `${formatFigure(hours, { figures: 6, maxDecimals: 1 })} h`;

interface HoursChartProps {
  readonly hours: HoursView;
  /** A change of use to be marked. */
  readonly change: UseChangeView | null;
}

/** Readings as a line, estimates dashed, meter changes marked, and the cone of the hours to come. */
export function HoursChart({ hours, change }: HoursChartProps) {
  const tokens = useTokens();
  const series = hoursSeries(hours, change?.at);
  const unread = { pointRadius: 0, pointHitRadius: 0 };
  const last = series.hours.at(-1)?.x ?? 0;
  return (
    <Line
      role="img"
      aria-label={`Run hours from ${dateText(series.hours[0]?.x ?? 0)} to ${dateText(last)}, now ${formatHours(series.hours.at(-1)?.y ?? 0)}${change ? `. ${change.text}` : ''}`}
      data={{
        datasets: [
          {
            label: 'run hours',
            data: [...series.hours],
            borderColor: tokens.ink,
            backgroundColor: tokens.ink,
            borderWidth: 1.8,
            pointRadius: series.hours.length > 60 ? 0 : 2,
            pointHitRadius: 8,
            segment: {
              borderDash: ({ p1DataIndex }) => (series.isEstimate[p1DataIndex] ? [5, 4] : undefined),
            },
          },
          {
            label: 'meter changed',
            data: [...series.meterChanges],
            showLine: false,
            pointStyle: 'rectRot',
            pointRadius: 6,
            backgroundColor: tokens.brass,
            borderColor: tokens.brass,
          },
          {
            label: 'loaded hours',
            data: [...series.loaded],
            borderColor: tokens.slate,
            borderWidth: 1.4,
            pointRadius: 0,
            pointHitRadius: 8,
          },
          {
            label: 'use changed',
            data: [...series.change],
            borderColor: tokens.brass,
            borderWidth: 2,
            pointStyle: 'triangle',
            pointRadius: [0, 6],
            backgroundColor: tokens.brass,
            pointHitRadius: 8,
          },
          { label: 'few', data: [...series.low], borderColor: 'transparent', fill: false, ...unread },
          {
            label: 'many',
            data: [...series.high],
            borderColor: 'transparent',
            backgroundColor: `${tokens.verdigris}33`,
            fill: '-1',
            ...unread,
          },
          {
            label: 'likely',
            data: [...series.likely],
            borderColor: tokens.verdigris,
            borderDash: [5, 4],
            borderWidth: 1.6,
            pointRadius: 0,
            pointHitRadius: 6,
          },
        ],
      }}
      options={{
        ...chartShared,
        parsing: false,
        normalized: true,
        scales: {
          x: {
            type: 'linear',
            min: series.hours[0]?.x ?? 0,
            max: series.likely.at(-1)?.x ?? last,
            grid: { color: tokens.hairline },
            border: { color: tokens.strongRule },
            ticks: {
              color: tokens.secondInk,
              font: chartFigures,
              maxTicksLimit: 5,
              maxRotation: 0,
              callback: monthTick,
            },
            afterBuildTicks: (axis) => {
              axis.ticks = monthStarts(axis.min, axis.max, 5).map((value) => ({ value }));
            },
          },
          y: uprightAxis(tokens),
        },
        plugins: {
          legend: { display: false },
          tooltip: {
            ...tooltipLook,
            callbacks: {
              title: (items) => (items[0] ? dateText(items[0].parsed.x ?? 0) : ''),
              label: ({ dataset, parsed }) => `${dataset.label}: ${formatHours(parsed.y ?? 0)}`,
            },
          },
        },
      }}
    />
  );
}

function monthTick(value: number | string): string {
  const date = new Date(Number(value));
  const month = date.getUTCMonth();
  return month === 0 ? String(date.getUTCFullYear()) : monthName(month);
}

/** The first days of months within a span, few enough to be read. */
function monthStarts(from: number, to: number, most: number): number[] {
  const first = new Date(from);
  const months = (to - from) / (30.44 * 86_400_000);
  const step = [1, 2, 3, 6, 12, 24].find((one) => months / one <= most) ?? 48;
  const starts: number[] = [];
  for (let month = 0; ; month += 1) {
    const start = Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + month, 1);
    if (start > to) return starts;
    const counted = new Date(start).getUTCFullYear() * 12 + new Date(start).getUTCMonth();
    if (start >= from && counted % step === 0) starts.push(start);
  }
}

const WEEKS_SHOWN = 52;

/** Hours of each week up to now; what is reckoned rather than read is hollow. */
export function WeeksChart({ hours }: { readonly hours: HoursView }) {
  const tokens = useTokens();
  const weeks = useByWeek(hours, WEEKS_SHOWN);
  const mean = weeks.reduce((sum, week) => sum + week.hours, 0) / Math.max(1, weeks.length);
  return (
    <Bar
      role="img"
      aria-label={`Use per week over ${weeks.length} weeks, ${formatHours(mean)} on the average`}
      data={{
        labels: weeks.map(({ from }) => dateText(from)),
        datasets: [
          {
            data: weeks.map((week) => week.hours),
            backgroundColor: weeks.map(({ isEstimate }) =>
              isEstimate ? `${tokens.verdigris}26` : tokens.verdigris,
            ),
            borderColor: tokens.verdigris,
            borderWidth: weeks.map(({ isEstimate }) => (isEstimate ? 1 : 0)),
            barPercentage: 0.9,
            categoryPercentage: 0.95,
          },
        ],
      }}
      options={{
        ...chartShared,
        scales: {
          x: {
            grid: { display: false },
            border: { color: tokens.strongRule },
            ticks: {
              color: tokens.secondInk,
              font: chartFigures,
              maxRotation: 0,
              autoSkip: true,
              maxTicksLimit: 5,
              callback: (_value, index) => monthName(new Date(weeks[index]?.from ?? 0).getUTCMonth()),
            },
          },
          y: { beginAtZero: true, ...uprightAxis(tokens) },
        },
        plugins: {
          legend: { display: false },
          tooltip: {
            ...tooltipLook,
            callbacks: {
              title: (items) => `week from ${items[0]?.label ?? ''}`,
              label: ({ parsed, dataIndex }) =>
                `${formatHours(parsed.y ?? 0)}${weeks[dataIndex]?.isEstimate ? ', calculated' : ''}`,
            },
          },
        },
      }}
    />
  );
}
