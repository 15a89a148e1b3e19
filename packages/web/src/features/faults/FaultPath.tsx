import { Box } from '@mui/material';
import { causeOn, type FindingView } from '@entretien/core/faults';
import { stationsOf, type DataPlate, type Station } from '@entretien/core/machine';
import { StationGlyph } from '../../components/air-path/glyphs.js';
import { pathLayout } from '../../components/air-path/path-layout.js';
import { airLine } from '../../components/air-path/air-line.js';
import { shortStationName } from '../../components/air-path/short-names.js';
import { useWidth } from '../../components/use-width.js';
import { percent } from './CauseOdds.js';

interface FaultPathProps {
  readonly plate: DataPlate;
  readonly odds: FindingView['odds'];
}

const [LINE_Y, LABEL_Y, LEVEL, BESIDE] = [44, 100, 32, 48];
/** Odds from which on a station is marked. */
const MARKED_FROM = 0.08;

/** The machine drawn along its air, marked where the fault is suspected. */
export function FaultPath({ plate, odds }: FaultPathProps) {
  const [measure, width] = useWidth<HTMLDivElement>();
  const { path, beside } = stationsOf(plate);
  const suspected = suspectedStations(plate, odds);
  const { spacing, levels, scale } = pathLayout(width, path.length);
  const pathHeight = LABEL_Y + levels * LEVEL - 8;
  const perRow = Math.max(1, Math.floor(width / 118));
  const rows = Math.ceil(beside.length / perRow);
  const height = pathHeight + rows * BESIDE;
  return (
    <Box ref={measure} sx={{ minHeight: height }}>
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label={describe([...path, ...beside], suspected)}>
          {path.map((station, at) => (
            <Mark
              key={station.code}
              odds={suspected.get(station.code)}
              box={{ x: spacing * at + 1, y: 1, width: spacing - 2, height: pathHeight - 4 }}
            />
          ))}
          <path
            d={airLine(path, { spacing, scale }, LINE_Y)}
            fill="none"
            stroke="var(--mui-palette-text-primary)"
            strokeWidth={1.6}
          />
          {path.map((station, at) => (
            <g key={station.code} transform={`translate(${spacing * (at + 0.5)} 0)`}>
              <g transform={`translate(0 ${LINE_Y}) scale(${scale})`}>
                <StationGlyph code={station.code} vessel={plate.family === 'screw'} />
              </g>
              <Label
                station={station}
                odds={suspected.get(station.code)}
                y={LABEL_Y + (levels === 2 ? (at % 2) * LEVEL : 0)}
                anchor="middle"
              />
            </g>
          ))}
          {beside.map((station, at) => {
            const cell = width / Math.min(perRow, beside.length);
            const [x, y] = [(at % perRow) * cell, pathHeight + Math.floor(at / perRow) * BESIDE];
            return (
              <g key={station.code} transform={`translate(${x} ${y})`}>
                <Mark
                  odds={suspected.get(station.code)}
                  box={{ x: 1, y: 2, width: cell - 4, height: BESIDE - 4 }}
                />
                <g transform={`translate(28 ${BESIDE / 2}) scale(0.72)`}>
                  <StationGlyph code={station.code} />
                </g>
                <g transform={`translate(52 ${BESIDE / 2 - 4})`}>
                  <Label station={station} odds={suspected.get(station.code)} y={2} anchor="start" />
                </g>
              </g>
            );
          })}
        </svg>
      )}
    </Box>
  );
}

/** How likely the fault sits at each station. */
function suspectedStations(plate: DataPlate, odds: FindingView['odds']): ReadonlyMap<string, number> {
  const found = new Map<string, number>();
  for (const { cause, odds: one } of odds) {
    const { station } = causeOn(cause, plate);
    if (station !== null) found.set(station, (found.get(station) ?? 0) + one);
  }
  return found;
}

interface MarkProps {
  readonly odds: number | undefined;
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}

function Mark({ odds = 0, box }: MarkProps) {
  if (odds < MARKED_FROM) return null;
  return (
    <rect
      {...box}
      rx={8}
      fill="var(--mui-palette-brassGround)"
      stroke="var(--mui-palette-brass)"
      strokeWidth={odds >= 0.3 ? 2 : 0.75}
    />
  );
}

interface LabelProps {
  readonly station: Station;
  readonly odds: number | undefined;
  readonly y: number;
  readonly anchor: 'middle' | 'start';
}

function Label({ station, odds = 0, y, anchor }: LabelProps) {
  const isMarked = odds >= MARKED_FROM;
  return (
    <>
      <text
        y={y}
        textAnchor={anchor}
        fontSize={12}
        fontWeight={isMarked ? 700 : 500}
        fill={isMarked ? 'var(--mui-palette-text-primary)' : 'var(--mui-palette-text-secondary)'}
      >
        {shortStationName(station.code) ?? station.name}
      </text>
      {isMarked && (
        <text y={y + 14} textAnchor={anchor} fontSize={12} fontWeight={700} fill="var(--mui-palette-brass)">
          {percent(Math.min(1, odds))}
        </text>
      )}
    </>
  );
}

function describe(stations: readonly Station[], suspected: ReadonlyMap<string, number>): string {
  const marked = stations.filter(({ code }) => (suspected.get(code) ?? 0) >= MARKED_FROM);
  const named = marked.map(({ code, name }) => `${name} ${percent(Math.min(1, suspected.get(code)!))}`);
  return `Air path. Suspected: ${named.length === 0 ? 'no station' : named.join(', ')}`;
}
