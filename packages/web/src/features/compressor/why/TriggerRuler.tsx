import { Box } from '@mui/material';
import { SmallScale } from '../../../components/ruler/SmallScale.js';
import {
  xOf,
  type RulerMode,
  type RulerNow,
  type RulerView,
} from '../../../components/ruler/ruler-points.js';
import { useWidth } from '../../../components/use-width.js';
import type { TriggerRow } from './trigger-rows.js';

const ROW = 42;
const TOP = 6;

interface TriggerRulerProps {
  readonly rows: readonly TriggerRow[];
  readonly mode: RulerMode;
  readonly now: RulerNow;
}

/** The triggers of one task under each other on one ruler: from where each counts to where it ends; the first rules. */
export function TriggerRuler({ rows, mode, now }: TriggerRulerProps) {
  const [measure, width] = useWidth<HTMLDivElement>();
  const view = viewOf(rows);
  const line = TOP + rows.length * ROW + 4;
  return (
    <Box ref={measure} aria-hidden sx={{ minHeight: line + 30 }}>
      {width > 0 && (
        <svg width={width} height={line + 30} style={{ display: 'block' }}>
          <SmallScale view={view} mode={mode} now={now} width={width} line={line} above={line - TOP} />
          {rows.map((row, index) => (
            <Row key={index} row={row} y={TOP + index * ROW} view={view} width={width} />
          ))}
        </svg>
      )}
    </Box>
  );
}

interface RowProps {
  readonly row: TriggerRow;
  readonly y: number;
  readonly view: RulerView;
  readonly width: number;
}

function Row({ row, y, view, width }: RowProps) {
  const x = (offset: number) => Math.min(width - 2, Math.max(2, xOf(offset, view, width)));
  const bar = y + 28;
  const colour = row.isRuling ? 'var(--mui-palette-primary-main)' : 'var(--mui-palette-slate)';
  return (
    <g>
      <text
        x={2}
        y={y + 16}
        fontSize={12.5}
        fontWeight={row.isRuling ? 700 : 500}
        fill="var(--mui-palette-text-primary)"
        // The words stand on the line of now, not under it.
        stroke="var(--mui-palette-background-paper)"
        strokeWidth={5}
        paintOrder="stroke"
      >
        {row.text}
        {row.due === null ? ' (no date)' : ''}
        {row.isRuling ? ' · comes first' : ''}
      </text>
      {row.from !== null && row.due !== null && (
        <line
          x1={x(row.from)}
          x2={x(row.due)}
          y1={bar}
          y2={bar}
          stroke={colour}
          strokeWidth={row.isRuling ? 5 : 3}
          strokeLinecap="butt"
        />
      )}
      {row.band && (
        <rect
          x={x(row.band.from)}
          width={Math.max(2, x(row.band.to) - x(row.band.from))}
          y={bar - 6}
          height={12}
          rx={6}
          fill={colour}
          opacity={0.24}
        />
      )}
      {row.due !== null && (
        <path
          d={`M${x(row.due)} ${bar - 8} V${bar + 8}`}
          stroke={colour}
          strokeWidth={row.isRuling ? 3 : 2}
        />
      )}
    </g>
  );
}

/** From where the first counts to a little beyond where the last ends; what lies far out is cut. */
function viewOf(rows: readonly TriggerRow[]): RulerView {
  const ends = rows.flatMap(({ due }) => due ?? []);
  const starts = rows.flatMap(({ from }) => from ?? []);
  const first = Math.min(0, ...starts, ...ends);
  const ruling = rows.find(({ isRuling }) => isRuling)?.due ?? 0;
  const last = Math.min(
    Math.max(0, ...ends),
    Math.max(ruling, 0) + 3 * Math.max(20, -first, Math.abs(ruling)),
  );
  const span = Math.max(10, last - first);
  return { from: first - span * 0.03, to: last + span * 0.08 };
}
