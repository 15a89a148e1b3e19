import AddIcon from '@mui/icons-material/Add';
import RemoveIcon from '@mui/icons-material/Remove';
import { Box, Button, IconButton, Stack } from '@mui/material';
import type { ServiceView, StandingView, TaskStandingView } from '@entretien/contracts';
import { useCallback, useState } from 'react';
import { Drop } from '../DropMark.js';
import { describeDue } from '../describe-due.js';
import { useWidth } from '../use-width.js';
import { clusterPins, rulerNow, taskOffset, xOf, type RulerMode, type RulerView } from './ruler-points.js';
import { MarksLegend } from './MarksLegend.js';
import { useRulerView } from './use-ruler-view.js';
import { Bands, Labels, LEVEL_HEIGHT, Notches, NowLine, Scale } from './ruler-drawing.js';

const LINE_FROM_BOTTOM = 46;
/** Room for a drop at the edge, px. */
const EDGE = 10;
/** Levels of labels over the line; what finds no room on them stands in the list. */
const LEVELS = 2;

interface HourRulerProps {
  readonly standing: StandingView;
  readonly services: readonly ServiceView[];
  readonly taskNames: ReadonlyMap<string, string>;
  readonly mode: RulerMode;
  readonly timeZone: string;
  readonly onChoose: (task: TaskStandingView) => void;
}

/**
 * One machine's life as a ruler: a fixed now-line, past services as notches to its left, coming work as drops
 * to its right. Dragged sideways, zoomed with the buttons, the keys + and −, or the wheel with Ctrl.
 */
export function HourRuler({ standing, services, taskNames, mode, timeZone, onChoose }: HourRulerProps) {
  const [element, setElement] = useState<HTMLDivElement | null>(null);
  const [measure, width] = useWidth<HTMLDivElement>();
  const ref = useCallback(
    (node: HTMLDivElement | null) => {
      measure(node);
      setElement(node);
    },
    [measure],
  );
  const now = rulerNow(standing);
  const placed = standing.tasks.flatMap((task, urgency) => {
    const offset = taskOffset(task, mode, now);
    return offset === null ? [] : [{ task, urgency, offset }];
  });
  const home = homeView(
    placed.map((pin) => pin.offset),
    mode,
  );
  const { view, isHome, reset, zoom, handlers } = useRulerView(home, width, element);
  const height = LEVELS * LEVEL_HEIGHT + 26 + LINE_FROM_BOTTOM;
  const line = height - LINE_FROM_BOTTOM;
  const pins = clusterPins(
    placed
      // What is late by more than the ruler goes back stands at its edge.
      .filter(({ task, offset }) => offset <= view.to && (offset >= view.from || task.state === 'overdue'))
      .map((pin) => ({ ...pin, x: Math.max(EDGE, xOf(pin.offset, view, width)) })),
    13,
  );
  const without = standing.tasks.length - placed.length;
  return (
    <Box sx={{ position: 'relative' }}>
      <Box
        ref={ref}
        role="group"
        aria-label={`Ruler in ${mode === 'hours' ? 'run hours' : 'days'}. ${summary(standing, timeZone)}`}
        tabIndex={0}
        {...handlers}
        sx={{
          touchAction: 'pan-y',
          cursor: 'grab',
          userSelect: 'none',
          overflow: 'hidden',
          '&:active': { cursor: 'grabbing' },
        }}
      >
        {width > 0 && (
          <svg width={width} height={height} style={{ display: 'block' }} aria-hidden>
            <Scale view={view} mode={mode} now={now} width={width} line={line} />
            <Notches
              pinXs={pins.map((pin) => pin.x)}
              services={services}
              taskNames={taskNames}
              view={view}
              mode={mode}
              now={now}
              width={width}
              line={line}
            />
            <NowLine now={now} view={view} width={width} line={line} />
            <Labels pins={pins} levels={LEVELS} width={width} line={line} timeZone={timeZone} now={now.at} />
            <Bands pins={pins} mode={mode} now={now} view={view} width={width} line={line} height={8} />
            {pins.map(({ x, tasks }) => (
              <g
                key={tasks[0]!.code}
                onClick={() => onChoose(tasks[0]!)}
                style={{
                  transform: `translate(${x}px, ${line - 2}px)`,
                  transition: 'transform 700ms ease',
                  cursor: 'pointer',
                }}
              >
                <rect x={-14} y={-20} width={28} height={36} fill="transparent" />
                <Drop state={tasks[0]!.state} used={tasks[0]!.usedFraction} />
              </g>
            ))}
          </svg>
        )}
      </Box>
      <Stack
        direction="row"
        spacing={0.5}
        sx={{
          alignItems: 'center',
          justifyContent: 'flex-end',
          position: { md: 'absolute' },
          right: 0,
          top: 0,
          minHeight: 36,
        }}
      >
        {without > 0 && (
          <Box component="span" sx={{ color: 'text.secondary', typography: 'caption', pl: 1 }}>
            {describeWithout(
              without,
              mode,
              standing.tasks.every((task) => task.state === 'unknown'),
            )}
          </Box>
        )}
        <MarksLegend />
        <IconButton size="small" aria-label="Zoom out" onClick={() => zoom(1.5)}>
          <RemoveIcon fontSize="small" />
        </IconButton>
        <IconButton size="small" aria-label="Zoom in" onClick={() => zoom(1 / 1.5)}>
          <AddIcon fontSize="small" />
        </IconButton>
        {!isHome && (
          <Button size="small" onClick={reset}>
            Back to now
          </Button>
        )}
      </Stack>
    </Box>
  );
}

function describeWithout(count: number, mode: RulerMode, allUnknown: boolean): string {
  if (allUnknown) return 'Nothing is on record yet: inspect the machine and record what was done.';
  const tasks = count === 1 ? '1 task has' : `${count} tasks have`;
  return mode === 'hours' ? `${tasks} no place in hours; turn the ruler to days.` : `${tasks} no date.`;
}

/** A view that holds the next handful of tasks, with a third of it behind now. */
function homeView(offsets: readonly number[], mode: RulerMode): RulerView {
  const ahead = offsets.filter((offset) => offset > 0).sort((a, b) => a - b);
  const reach = ahead[Math.min(ahead.length - 1, 6)] ?? 0;
  const least = mode === 'days' ? 60 : 20;
  const late = Math.min(0, ...offsets);
  const forward = Math.min(Math.max(reach * 1.12, least), mode === 'days' ? 400 : 4000);
  return { from: -Math.max(forward * 0.42, Math.min(-late * 1.1, forward)), to: forward };
}

function summary(standing: StandingView, timeZone: string): string {
  const [first] = standing.tasks;
  return first
    ? `First: ${first.name}, ${describeDue(first, Date.parse(standing.at), timeZone, standing.meter).short}.`
    : 'Nothing to do.';
}
