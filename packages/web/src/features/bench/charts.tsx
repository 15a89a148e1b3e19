import type { CurvePoint } from '@entretien/core/bench';
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  Tooltip,
} from 'chart.js';
import { Bar, Chart as Mixed, Line } from 'react-chartjs-2';
import type { Tokens } from '../../components/theme/tokens.js';
import {
  chartFigures,
  chartShared,
  tooltipLook,
  uprightAxis,
  useTokens,
} from '../../components/chart-look.js';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  Tooltip,
);

type Ink = 'ink' | 'verdigris' | 'slate' | 'brass' | 'oxide';

export interface Curve {
  readonly name: string;
  readonly points: readonly CurvePoint[];
  readonly ink: Ink;
  readonly isDashed?: boolean;
}

interface CurveChartProps {
  /** The picture in words, with its figures. */
  readonly text: string;
  readonly curves: readonly Curve[];
  /** A point that stands out. */
  readonly mark?: CurvePoint | undefined;
  readonly xTitle: string;
  readonly yTitle: string;
}

function titled(text: string, tokens: Tokens) {
  return { display: true, text, color: tokens.secondInk, font: chartFigures };
}

/** Curves over one axis, and where we are on them. */
export function CurveChart({ text, curves, mark, xTitle, yTitle }: CurveChartProps) {
  const tokens = useTokens();
  return (
    <Line
      role="img"
      aria-label={text}
      data={{
        datasets: [
          ...curves.map(({ name, points, ink, isDashed }) => ({
            label: name,
            data: [...points],
            borderColor: tokens[ink],
            borderWidth: isDashed ? 1.5 : 2.2,
            pointRadius: 0,
            pointHitRadius: 10,
            ...(isDashed ? { borderDash: [6, 4] } : {}),
          })),
          ...(mark
            ? [
                {
                  label: 'here',
                  data: [mark],
                  showLine: false,
                  pointRadius: 7,
                  backgroundColor: tokens.oxide,
                  borderColor: tokens.oxide,
                },
              ]
            : []),
        ],
      }}
      options={{
        ...chartShared,
        parsing: false,
        scales: {
          x: {
            type: 'linear',
            title: titled(xTitle, tokens),
            grid: { color: tokens.hairline },
            border: { color: tokens.strongRule },
            ticks: { color: tokens.secondInk, font: chartFigures, maxTicksLimit: 7 },
          },
          y: { ...uprightAxis(tokens), title: titled(yTitle, tokens) },
        },
        plugins: { legend: { display: false }, tooltip: tooltipLook },
      }}
    />
  );
}

interface InterstageChartProps {
  readonly text: string;
  /** A label for each rung, several lines. */
  readonly labels: readonly (readonly string[])[];
  readonly expected: readonly number[];
  /** Null where it was not measured. */
  readonly measured: readonly (number | null)[];
  /** Rungs that are off. */
  readonly off: readonly boolean[];
  readonly unit: string;
}

/** Scatter within which a stage pressure is as expected, as a share. */
const BAND = 0.08;

/** Pressure stage by stage, on a scale on which equal ratios are a straight line. */
export function InterstageChart({ text, labels, expected, measured, off, unit }: InterstageChartProps) {
  const tokens = useTokens();
  const quiet = { pointRadius: 0, pointHitRadius: 0, borderColor: 'transparent' } as const;
  return (
    <Line
      role="img"
      aria-label={text}
      data={{
        labels: labels.map((lines) => [...lines]),
        datasets: [
          {
            label: 'measured',
            data: [...measured],
            borderColor: tokens.ink,
            borderWidth: 2.4,
            pointRadius: off.map((one) => (one ? 8 : 5)),
            pointStyle: off.map((one) => (one ? 'rectRot' : 'circle')),
            pointBackgroundColor: off.map((one) => (one ? tokens.oxide : tokens.ink)),
            pointBorderColor: off.map((one) => (one ? tokens.oxide : tokens.ink)),
          },
          {
            label: 'expected',
            data: [...expected],
            borderColor: tokens.slate,
            borderDash: [6, 4],
            borderWidth: 1.6,
            pointRadius: 3,
            pointBackgroundColor: tokens.slate,
          },
          { label: 'low', data: expected.map((one) => one * (1 - BAND)), fill: false, ...quiet },
          {
            label: 'high',
            data: expected.map((one) => one * (1 + BAND)),
            backgroundColor: `${tokens.slate}2e`,
            fill: '-1',
            ...quiet,
          },
        ],
      }}
      options={{
        ...chartShared,
        layout: { padding: { top: 12, right: 24 } },
        scales: {
          x: {
            grid: { display: false },
            border: { color: tokens.strongRule },
            ticks: { color: tokens.ink, font: chartFigures, maxRotation: 0, autoSkip: false },
          },
          y: {
            type: 'logarithmic',
            grid: { color: tokens.hairline },
            border: { display: false },
            title: titled(`${unit} absolute`, tokens),
            ticks: {
              color: tokens.secondInk,
              font: chartFigures,
              callback: (value) => (/^[125]0*$/.test(String(value)) ? String(value) : ''),
            },
          },
        },
        plugins: {
          legend: { display: false },
          tooltip: {
            ...tooltipLook,
            filter: ({ dataset }) => dataset.label === 'measured' || dataset.label === 'expected',
          },
        },
      }}
    />
  );
}

interface MonthsChartProps {
  readonly text: string;
  readonly labels: readonly string[];
  readonly bars: readonly number[];
  readonly barTitle: string;
  /** Left out where there is none. */
  readonly line?: readonly (number | null)[] | undefined;
  readonly lineTitle: string;
}

/** A year by its months: bars, and a line on a scale of its own. */
export function MonthsChart({ text, labels, bars, barTitle, line, lineTitle }: MonthsChartProps) {
  const tokens = useTokens();
  return (
    <Mixed
      type="bar"
      role="img"
      aria-label={text}
      data={{
        labels: [...labels],
        datasets: [
          ...(line
            ? [
                {
                  type: 'line' as const,
                  label: lineTitle,
                  data: [...line],
                  yAxisID: 'line',
                  borderColor: tokens.oxide,
                  backgroundColor: tokens.oxide,
                  borderWidth: 2.2,
                  pointRadius: 3,
                },
              ]
            : []),
          {
            type: 'bar' as const,
            label: barTitle,
            data: [...bars],
            backgroundColor: tokens.slate,
            barPercentage: 0.8,
            categoryPercentage: 0.9,
          },
        ],
      }}
      options={{
        ...chartShared,
        interaction: { mode: 'index', intersect: false },
        scales: {
          x: {
            grid: { display: false },
            border: { color: tokens.strongRule },
            ticks: { color: tokens.secondInk, font: chartFigures, maxRotation: 0 },
          },
          y: { beginAtZero: true, ...uprightAxis(tokens), title: titled(barTitle, tokens) },
          ...(line
            ? {
                line: {
                  position: 'right' as const,
                  beginAtZero: true,
                  ...uprightAxis(tokens),
                  grid: { display: false },
                  title: titled(lineTitle, tokens),
                },
              }
            : {}),
        },
        plugins: { legend: { display: false }, tooltip: tooltipLook },
      }}
    />
  );
}

interface VesselsChartProps {
  readonly text: string;
  readonly labels: readonly string[];
  readonly before: readonly number[];
  readonly after: readonly number[];
  readonly unit: string;
}

/** Banks and cylinders, before and after. */
export function VesselsChart({ text, labels, before, after, unit }: VesselsChartProps) {
  const tokens = useTokens();
  const bar = { barPercentage: 0.9, categoryPercentage: 0.75 };
  return (
    <Bar
      role="img"
      aria-label={text}
      data={{
        labels: [...labels],
        datasets: [
          { label: 'before', data: [...before], backgroundColor: `${tokens.slate}80`, ...bar },
          { label: 'after', data: [...after], backgroundColor: tokens.verdigris, ...bar },
        ],
      }}
      options={{
        ...chartShared,
        scales: {
          x: {
            grid: { display: false },
            border: { color: tokens.strongRule },
            ticks: { color: tokens.ink, font: chartFigures, maxRotation: 0 },
          },
          y: { beginAtZero: true, ...uprightAxis(tokens), title: titled(unit, tokens) },
        },
        plugins: { legend: { display: false }, tooltip: tooltipLook },
      }}
    />
  );
}
