import type { TaskState } from '@entretien/core/plan';
import { stateColour } from './DropMark.js';
import { Figure } from './Figure.js';

/** When something is due, in the colour of its state. */
export function DueFigure({
  text,
  state,
  size = '0.9rem',
}: {
  readonly text: string;
  readonly state: TaskState;
  readonly size?: string;
}) {
  return (
    <Figure
      value={text}
      sx={{ fontSize: size, color: state === 'fresh' ? 'text.primary' : stateColour(state) }}
    />
  );
}
