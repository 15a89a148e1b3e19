import { formatHoursSeen, type MeterScale } from '@entretien/core/hours';
import { verdictInShort, type CheckFigure, type Verdict } from '@entretien/core/checks';
import { convert, storedUnit, unitByCode } from '@entretien/core/quantities';
import { Chart, Filler, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { Line } from 'react-chartjs-2';
import { usePreferences } from '../../../data/preferences.js';
import type { Tokens } from '../../../components/theme/tokens.js';
import {
  chartFigures,
  chartShared,
  tooltipLook,
  uprightAxis,
  useTokens,
} from '../../../components/chart-look.js';
import { formatCheckFigure } from '../../../components/checks/format-figure.js';
import { formatDate } from '../../../components/describe-due.js';
import type { CheckSeries } from './check-chart.js';

Chart.register(Filler, LinearScale, LineController, LineElement, PointElement, Tooltip);

const TREND_POINTS = 24;

function pointColour(verdict: Verdict, tokens: Tokens): string {
  return { good: tokens.slate, watch: tokens.brass, act: tokens.oxide, stop: tokens.oxide }[verdict];
}

const pointShape: Record<Verdict, 'circle' | 'triangle' | 'rectRot' | 'rect'> = {
  good: 'circle',
  watch: 'triangle',
  act: 'rectRot',
  stop: 'rect',
};

interface ChartProps {
  readonly name: string;
  readonly figure: CheckFigure;
  readonly series: CheckSeries;
  readonly now: number;
  readonly timeZone: string;
  /** Scale that hours are said on. */
  readonly meter: MeterScale;
}

/** A check over the run hours: measurements by verdict, limit, baseline, pairs around work, and the trend. */
export function CheckChart({ name, figure, series, now, timeZone, meter }: ChartProps) {
  const tokens = useTokens();
  const units = usePreferences((preferences) => preferences.units);
  const { axis, points, limit } = series;
  const shown = (value: number) =>
    figure.quantity
      ? convert(value, storedUnit(figure.quantity), unitByCode(figure.quantity, units[figure.quantity]))
      : value;
  const formatX = (x: number) =>
    axis === 'hours' ? formatHoursSeen(meter, Math.round(x)) : formatDate(isoDay(x), now, timeZone);
  const format = (value: number) => formatCheckFigure(value, figure, units);
  const [from, to] = [points[0]!.x, points.at(-1)!.x];
  const line = trendLine(series, from, to);
  const end = Math.max(to, line.at(-1)?.x ?? to);
  const room = Math.max((end - from) * 0.03, axis === 'hours' ? 5 : 86_400_000);
  const text = points
    .slice(-8)
    .map(({ x, value, verdict }) => `${formatX(x)}: ${format(value)}, ${verdictInShort(verdict)}`);
  return (
    <Line
      role="img"
      aria-label={`${name} over ${axis === 'hours' ? 'run hours' : 'time'}. ${text.join('; ')}.${limit === null ? '' : ` Limit ${format(limit)}.`}`}
      data={{
        datasets: datasetsOf(series, { figure, line, from: from - room, to: end + room, shown, tokens }),
      }}
      options={{
        ...chartShared,
        parsing: false,
        scales: {
          x: {
            type: 'linear',
            min: from - room,
            max: end + room,
            grid: { color: tokens.hairline },
            border: { color: tokens.strongRule },
            ticks: {
              color: tokens.secondInk,
              font: chartFigures,
              maxTicksLimit: 4,
              maxRotation: 0,
              includeBounds: false,
              callback: (value) => formatX(Number(value)),
            },
          },
          y: { grace: '12%', ...uprightAxis(tokens) },
        },
        plugins: {
          legend: { display: false },
          tooltip: {
            ...tooltipLook,
            filter: ({ dataset }) => dataset.label === figure.name,
            callbacks: {
              title: (items) => (items[0] ? formatX(items[0].parsed.x ?? 0) : ''),
              label: ({ dataIndex }) => {
                const point = points[dataIndex];
                return point ? `${format(point.value)}, ${verdictInShort(point.verdict)}` : '';
              },
            },
          },
        },
      }}
    />
  );
}

interface Drawn {
  readonly figure: CheckFigure;
  readonly line: ReturnType<typeof trendLine>;
  readonly from: number;
  readonly to: number;
  readonly shown: (value: number) => number;
  readonly tokens: Tokens;
}

const quiet = { pointRadius: 0, pointHitRadius: 0, borderColor: 'transparent' } as const;

function datasetsOf({ points, limit, pairs }: CheckSeries, { figure, line, from, to, shown, tokens }: Drawn) {
  return [
    {
      label: figure.name,
      data: points.map(({ x, value }) => ({ x, y: shown(value) })),
      showLine: false,
      pointRadius: 5,
      pointHitRadius: 12,
      pointStyle: points.map(({ verdict }) => pointShape[verdict]),
      backgroundColor: points.map(({ verdict }) => pointColour(verdict, tokens)),
      borderColor: points.map(({ verdict }) => pointColour(verdict, tokens)),
    },
    ...points
      .filter(({ isBaseline }) => isBaseline)
      .map(({ x, value }) => ({
        label: 'baseline',
        data: [{ x, y: shown(value) }],
        showLine: false,
        pointRadius: 9,
        pointStyle: 'circle' as const,
        backgroundColor: 'transparent',
        borderColor: tokens.ink,
        borderWidth: 1.5,
      })),
    ...pairs.map(({ before, after }) => ({
      label: 'before and after',
      data: [before, after].map(({ x, value }) => ({ x, y: shown(value) })),
      borderColor: tokens.verdigris,
      borderWidth: 2.5,
      pointRadius: 0,
    })),
    ...(limit === null
      ? []
      : [
          {
            label: 'limit',
            data: [from, to].map((x) => ({ x, y: shown(limit) })),
            borderColor: tokens.oxide,
            borderDash: [6, 4],
            borderWidth: 1.5,
            pointRadius: 0,
          },
        ]),
    {
      label: 'trend',
      data: line.map(({ x, value }) => ({ x, y: shown(value) })),
      borderColor: tokens.verdigris,
      borderDash: [4, 4],
      borderWidth: 1.6,
      pointRadius: 0,
    },
    { label: 'low', data: line.map(({ x, low }) => ({ x, y: shown(low) })), fill: false, ...quiet },
    {
      label: 'high',
      data: line.map(({ x, high }) => ({ x, y: shown(high) })),
      backgroundColor: `${tokens.verdigris}26`,
      fill: '-1',
      ...quiet,
    },
  ];
}

function isoDay(at: number): string {
  return new Date(at).toISOString().slice(0, 10);
}

/** The trend with its band, on to its limit where that is not further ahead than the measurements reach back. */
function trendLine({ trend, points }: CheckSeries, from: number, to: number) {
  if (!trend) return [];
  const start = Math.max(from, trend.fromHours);
  const reach = Math.max(to - points[0]!.x, 200);
  const end = Math.min(trend.limitHours?.likely ?? to, to + reach);
  return Array.from({ length: TREND_POINTS }, (_, index) => {
    const x = start + ((Math.max(end, to) - start) * index) / (TREND_POINTS - 1);
    const { value, deviation } = trend.at(x);
    return { x, value, low: value - 1.28 * deviation, high: value + 1.28 * deviation };
  });
}
