import { Box } from '@mui/material';
import type { PointView } from '@entretien/contracts';
import { hasFilter, hasLubricator, hasRegulator } from '@entretien/core/points';
import { useWidth } from '../../components/use-width.js';

const ink = 'var(--mui-palette-text-primary)';
const quiet = 'var(--mui-palette-text-secondary)';
const paper = 'var(--mui-palette-background-paper)';
const line = { fill: 'none', stroke: ink, strokeWidth: 1.6 } as const;
const body = { fill: paper, stroke: ink, strokeWidth: 1.6 } as const;

const LINE_Y = 54;
const HEIGHT = 168;

function Filter({ hasGuard }: { readonly hasGuard: boolean }) {
  return (
    <g>
      <rect x={-22} y={-13} width={44} height={24} rx={3} {...body} />
      <path d="M-15 11 V42 Q-15 52 -5 52 H5 Q15 52 15 42 V11" {...body} />
      <rect x={-7} y={14} width={14} height={22} {...line} strokeDasharray="2.5 2.5" />
      <path d="M-14 44 Q-7 41 0 44 T14 44" {...line} strokeWidth={1} />
      <line x1={0} x2={0} y1={52} y2={60} {...line} />
      {hasGuard && <path d="M-19 12 V46 Q-19 56 -7 56 M19 12 V46 Q19 56 7 56" {...line} strokeWidth={1} />}
    </g>
  );
}

function Regulator() {
  return (
    <g>
      <rect x={-22} y={-13} width={44} height={26} rx={3} {...body} />
      <path d="M-11 -13 V-30 Q-11 -34 -7 -34 H7 Q11 -34 11 -30 V-13" {...body} />
      <path d="M-6 -17 L6 -20 L-6 -23 L6 -26 L-6 -29" {...line} strokeWidth={1.1} />
      <circle cy={32} r={13} {...body} />
      <path d="M0 32 L7 25" {...line} />
      <line x1={0} x2={0} y1={13} y2={19} {...line} />
    </g>
  );
}

function Lubricator() {
  return (
    <g>
      <rect x={-22} y={-13} width={44} height={24} rx={3} {...body} />
      <path d="M-9 -13 Q-9 -29 0 -29 Q9 -29 9 -13" {...body} />
      <path d="M0 -24 C1.6 -21 3 -19.5 3 -17.5 A3 3 0 1 1 -3 -17.5 C-3 -19.5 -1.6 -21 0 -24 Z" fill={ink} />
      <path d="M-15 11 V42 Q-15 52 -5 52 H5 Q15 52 15 42 V11" {...body} />
      <path d="M-15 28 H15" {...line} strokeWidth={1} />
      <path d="M0 11 V46" {...line} strokeWidth={1} />
    </g>
  );
}

interface Part {
  readonly code: string;
  readonly name: string;
  readonly under: string;
  readonly drawing: React.ReactNode;
}

function partsOf(point: PointView, bar: (value: number) => string): readonly Part[] {
  const { filterMicron, hasGuard, regulatorBar, lubricator, dropsPerMinute } = point;
  return [
    ...(hasFilter(point)
      ? [
          {
            code: 'filter',
            name: 'Filter',
            under: `${filterMicron} µm`,
            drawing: <Filter hasGuard={hasGuard === true} />,
          },
        ]
      : []),
    ...(hasRegulator(point)
      ? [{ code: 'regulator', name: 'Regulator', under: bar(regulatorBar!), drawing: <Regulator /> }]
      : []),
    ...(hasLubricator(point)
      ? [
          {
            code: 'lubricator',
            name: 'Lubricator',
            under: dropsPerMinute
              ? `${dropsPerMinute} ${dropsPerMinute === 1 ? 'drop' : 'drops'}/min`
              : lubricator!.replace('-', ' '),
            drawing: <Lubricator />,
          },
        ]
      : []),
  ];
}

interface DrawingProps {
  readonly point: PointView;
  readonly bar: (value: number) => string;
}

/** The short path of a point of use: from the units that feed it, through what is in it, to what it is for. */
export function PointDrawing({ point, bar }: DrawingProps) {
  const [measure, width] = useWidth<HTMLDivElement>();
  const parts = partsOf(point, bar);
  const from = [...point.units, ...point.vessels].map(({ tag }) => tag);
  const left = Math.min(96, Math.max(58, width * 0.16));
  const right = Math.min(86, Math.max(54, width * 0.14));
  const spacing = (width - left - right) / parts.length;
  const label = `From ${from.join(', ')} through ${parts.map(({ name }) => name.toLowerCase()).join(', ')}`;
  return (
    <Box ref={measure} sx={{ minHeight: HEIGHT }}>
      {width > 0 && (
        <svg width={width} height={HEIGHT} role="img" aria-label={label} style={{ display: 'block' }}>
          <line x1={left - 8} x2={width - right + 4} y1={LINE_Y} y2={LINE_Y} stroke={ink} strokeWidth={2} />
          <path d={`M${width - right + 2} ${LINE_Y - 6} l10 6 l-10 6 Z`} fill={ink} />
          {from.slice(0, 4).map((tag, index) => (
            <text
              key={tag}
              x={0}
              y={LINE_Y + 5 + (index - (Math.min(4, from.length) - 1) / 2) * 18}
              fontSize={14}
              fontWeight={650}
              fill={ink}
            >
              {index === 3 && from.length > 4 ? `and ${from.length - 3} more` : tag}
            </text>
          ))}
          <text x={width - right + 18} y={LINE_Y + 5} fontSize={14} fontWeight={650} fill={ink}>
            {point.isBreathed ? 'hood' : 'tool'}
          </text>
          {parts.map(({ code, name, under, drawing }, index) => (
            <g key={code} transform={`translate(${left + spacing * (index + 0.5)} ${LINE_Y})`}>
              {drawing}
              <text y={84} textAnchor="middle" fontSize={13.5} fontWeight={600} fill={ink}>
                {name}
              </text>
              <text y={102} textAnchor="middle" fontSize={13} fill={quiet}>
                {under}
              </text>
            </g>
          ))}
        </svg>
      )}
    </Box>
  );
}
