import type { TaskState } from '@entretien/core/plan';
import { useId } from 'react';

const DROP = 'M0 -11 C2.6 -6.6 7 -2.6 7 3 A7 7 0 1 1 -7 3 C-7 -2.6 -2.6 -6.6 0 -11 Z';
const TOP = -11;
const HEIGHT = 21;

const colourOf: Record<TaskState, string> = {
  unknown: 'var(--mui-palette-secondInk)',
  fresh: 'var(--mui-palette-slate)',
  'put-off': 'var(--mui-palette-brass)',
  nearing: 'var(--mui-palette-brass)',
  due: 'var(--mui-palette-oxide)',
  overdue: 'var(--mui-palette-oxide)',
};

/** The colour that goes with a state; never the only thing that tells it. */
export function stateColour(state: TaskState): string {
  return colourOf[state];
}

export const stateText: Record<TaskState, string> = {
  unknown: 'not known',
  fresh: 'OK',
  'put-off': 'put off',
  nearing: 'nearing',
  due: 'due',
  overdue: 'late',
};

interface DropProps {
  readonly state: TaskState;
  /** Share of the interval used. */
  readonly used: number | null;
}

/**
 * The drop itself, about its own origin, for use inside a drawing. It fills as an interval is used up; a
 * broken empty outline is unknown, a bar across an overfull one is late, two strokes within one that waits.
 */
export function Drop({ state, used }: DropProps) {
  const clip = useId();
  const level = TOP + HEIGHT * (1 - Math.min(1, Math.max(0, used ?? 0)));
  const colour = stateColour(state);
  return (
    <g>
      <clipPath id={clip}>
        <rect x={-9} y={level} width={18} height={HEIGHT + 2} />
      </clipPath>
      <path d={DROP} fill="var(--mui-palette-background-paper)" />
      {state !== 'unknown' && (
        <path d={DROP} fill={colour} opacity={state === 'fresh' ? 0.62 : 1} clipPath={`url(#${clip})`} />
      )}
      <path
        d={DROP}
        fill="none"
        stroke={colour}
        strokeWidth={1.5}
        strokeDasharray={state === 'unknown' ? '2.2 2.2' : undefined}
      />
      {state === 'put-off' && (
        <g fill="var(--mui-palette-background-paper)" stroke={colour} strokeWidth={0.8}>
          <rect x={-3.4} y={-1.5} width={2.6} height={8} />
          <rect x={0.8} y={-1.5} width={2.6} height={8} />
        </g>
      )}
      {state === 'overdue' && <rect x={-9} y={-15.5} width={18} height={2.6} rx={1.3} fill={colour} />}
    </g>
  );
}

/** A drop standing by itself, named for those who cannot see it. */
export function DropMark({ state, used, size = 28 }: DropProps & { readonly size?: number }) {
  const share = used === null ? '' : `, ${Math.round(used * 100)} % used`;
  return (
    <svg
      width={size * 0.72}
      height={size}
      viewBox="-10 -17 20 28"
      role="img"
      aria-label={`${stateText[state]}${share}`}
      style={{ flex: 'none', display: 'block' }}
    >
      <Drop state={state} used={used} />
    </svg>
  );
}
