import { Box } from '@mui/material';
import { describeVerdict, verdictInShort } from '@entretien/core/checks';
import type { Family } from '@entretien/core/machine';
import { useRef, useState, type KeyboardEvent } from 'react';
import { Drop, stateText } from '../../../components/DropMark.js';
import { useWidth } from '../../../components/use-width.js';
import { StationGlyph } from '../../../components/air-path/glyphs.js';
import { leadingTask, type MachineFacts, type StationFacts } from './station-facts.js';
import { pathLayout } from '../../../components/air-path/path-layout.js';
import { airLine } from '../../../components/air-path/air-line.js';

interface AirPathProps {
  readonly family: Family;
  readonly machine: MachineFacts;
  readonly chosen: string;
  readonly onChoose: (station: string) => void;
}

const DROP_Y = 20;
const LINE_Y = 82;
const LABEL_Y = 146;
const LEVEL = 34;
const BESIDE = 56;

/**
 * The machine drawn as its stations in the order the air goes, what stands beside the path under it. Arrow keys
 * walk along it, Enter opens a station.
 */
export function AirPath({ family, machine, chosen, onChoose }: AirPathProps) {
  const [measure, width] = useWidth<HTMLDivElement>();
  const { path, beside } = machine;
  const { spacing, levels, scale } = pathLayout(width, path.length);
  const pathHeight = LABEL_Y + levels * LEVEL - 6;
  const perRow = Math.max(1, Math.floor(width / 118));
  const rows = Math.ceil(beside.length / perRow);
  const chosenPlace = path.findIndex(({ code }) => code === chosen);
  const all = [...path, ...beside];
  const walk = useWalk(
    all.map(({ code }) => code),
    chosen,
    onChoose,
  );
  return (
    <Box ref={measure} sx={{ minHeight: pathHeight + rows * BESIDE, ...focusLook }}>
      {width > 0 && (
        <svg
          width={width}
          height={pathHeight + rows * BESIDE}
          role="group"
          aria-label="Air path, from the intake on"
          style={{ display: 'block' }}
        >
          {chosenPlace >= 0 && (
            <rect
              x={spacing * chosenPlace + 1}
              y={1}
              width={spacing - 2}
              height={pathHeight - 4}
              rx={8}
              fill="var(--mui-palette-verdigrisGround)"
            />
          )}
          <path
            d={`M${spacing / 2 - 32 * scale} ${LINE_Y - 4} l6 4 l-6 4 ${airLine(path, { spacing, scale }, LINE_Y)}`}
            fill="none"
            stroke="var(--mui-palette-text-primary)"
            strokeWidth={1.6}
          />
          {path.map((station, index) => {
            const level = levels === 2 ? index % 2 : 0;
            const x = spacing * (index + 0.5);
            const task = leadingTask(station);
            const label = LABEL_Y + level * LEVEL;
            return (
              <g key={station.code} {...walk.props(station)} transform={`translate(${x} 0)`}>
                <rect
                  className="field"
                  x={-spacing / 2 + 1}
                  y={1}
                  width={spacing - 2}
                  height={pathHeight - 4}
                  rx={8}
                  fill="transparent"
                />
                {task && (
                  <g transform={`translate(0 ${DROP_Y}) scale(0.95)`}>
                    <Drop state={task.state} used={task.usedFraction} />
                  </g>
                )}
                <g transform={`translate(0 ${LINE_Y}) scale(${scale})`}>
                  <StationGlyph code={station.code} vessel={family === 'screw'} />
                </g>
                {level === 1 && (
                  <line
                    y1={LABEL_Y - 10}
                    y2={label - 13}
                    stroke="var(--mui-palette-strongRule)"
                    strokeDasharray="2 3"
                  />
                )}
                <Label station={station} isChosen={station.code === chosen} y={label} anchor="middle" />
              </g>
            );
          })}
          {beside.map((station, index) => {
            const cell = width / Math.min(perRow, beside.length);
            const x = (index % perRow) * cell;
            const y = pathHeight + Math.floor(index / perRow) * BESIDE;
            const task = leadingTask(station);
            return (
              <g key={station.code} {...walk.props(station)} transform={`translate(${x} ${y})`}>
                <rect
                  className="field"
                  x={1}
                  y={2}
                  width={cell - 4}
                  height={BESIDE - 6}
                  rx={8}
                  fill={station.code === chosen ? 'var(--mui-palette-verdigrisGround)' : 'transparent'}
                />
                <g transform={`translate(38 ${BESIDE / 2 - 1}) scale(0.8)`}>
                  <StationGlyph code={station.code} />
                </g>
                <g transform={`translate(57 ${BESIDE / 2 - 7})`}>
                  <Label station={station} isChosen={station.code === chosen} y={3} anchor="start" />
                </g>
                {task && (
                  <g transform={`translate(13 ${BESIDE / 2}) scale(0.85)`}>
                    <Drop state={task.state} used={task.usedFraction} />
                  </g>
                )}
              </g>
            );
          })}
        </svg>
      )}
    </Box>
  );
}

const focusLook = {
  '& g[role="button"]': { cursor: 'pointer', outline: 'none' },
  '& g[role="button"]:hover .field': { stroke: 'var(--mui-palette-strongRule)' },
  '& g[role="button"]:focus-visible .field': {
    stroke: 'var(--mui-palette-primary-main)',
    strokeWidth: 2.5,
  },
} as const;

const verdictInk = {
  good: 'var(--mui-palette-text-secondary)',
  watch: 'var(--mui-palette-brass)',
  act: 'var(--mui-palette-oxide)',
  stop: 'var(--mui-palette-oxide)',
} as const;

interface LabelProps {
  readonly station: StationFacts;
  readonly isChosen: boolean;
  readonly y: number;
  readonly anchor: 'middle' | 'start';
}

/** Name and what is known; a verdict that is not good is said with its word. */
function Label({ station, isChosen, y, anchor }: LabelProps) {
  const { short, text, verdict } = station;
  const grave = verdict !== null && verdict !== 'good';
  const shownText = [text, grave ? verdictInShort(verdict) : ''].filter(Boolean).join(' · ');
  return (
    <g>
      <text
        y={y}
        textAnchor={anchor}
        fontSize={12}
        fontWeight={650}
        fill={isChosen ? 'var(--mui-palette-primary-main)' : 'var(--mui-palette-text-primary)'}
      >
        {short}
      </text>
      <text
        y={y + 14}
        textAnchor={anchor}
        fontSize={11.5}
        fontWeight={grave ? 700 : 400}
        fill={verdictInk[verdict ?? 'good']}
      >
        {shownText}
      </text>
    </g>
  );
}

/** One stop of the tab key for the whole machine; arrows walk from station to station in the order of the air. */
function useWalk(codes: readonly string[], chosen: string, onChoose: (station: string) => void) {
  const stations = useRef(new Map<string, SVGGElement>());
  const [focused, setFocused] = useState<string | null>(null);
  const stop = focused ?? (codes.includes(chosen) ? chosen : codes[0]);
  const go = (code: string | undefined) => {
    if (code !== undefined) stations.current.get(code)?.focus();
  };
  const onKeyDown = (event: KeyboardEvent, code: string) => {
    const index = codes.indexOf(code);
    const moves: Record<string, () => void> = {
      ArrowRight: () => go(codes[index + 1]),
      ArrowDown: () => go(codes[index + 1]),
      ArrowLeft: () => go(codes[index - 1]),
      ArrowUp: () => go(codes[index - 1]),
      Home: () => go(codes[0]),
      End: () => go(codes.at(-1)),
      Enter: () => onChoose(code),
      ' ': () => onChoose(code),
    };
    const move = moves[event.key];
    if (!move || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    move();
  };
  return {
    props: (station: StationFacts) => ({
      ref: (element: SVGGElement | null) => {
        if (element) stations.current.set(station.code, element);
        else stations.current.delete(station.code);
      },
      role: 'button',
      tabIndex: station.code === stop ? 0 : -1,
      'aria-pressed': station.code === chosen,
      'aria-label': describeStation(station),
      onClick: () => onChoose(station.code),
      onFocus: () => setFocused(station.code),
      onBlur: () => setFocused(null),
      onKeyDown: (event: KeyboardEvent) => onKeyDown(event, station.code),
    }),
  };
}

/** A station for those who hear it. */
export function describeStation(station: StationFacts): string {
  const task = leadingTask(station);
  const parts = [
    station.name,
    task ? `${task.name} ${stateText[task.state]}` : '',
    station.text,
    station.verdict !== null && station.verdict !== 'good'
      ? describeVerdict({ verdict: station.verdict })
      : '',
  ];
  return parts.filter(Boolean).join(', ');
}
