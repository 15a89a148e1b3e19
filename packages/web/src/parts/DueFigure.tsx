import type { TaskState } from '@entretien/core/plan';
import { stateColour } from './DropMark.js';
import { Figure } from './Figure.js';

/** When something is due, in the colour of its state. */
export function DueFigure({
  words,
  state,
  size = '0.9rem',
}: {
  readonly words: string;
  readonly state: TaskState;
  readonly size?: string;
}) {
  return (
    <Figure
      value={words}
      sx={{ fontSize: size, color: state === 'fresh' ? 'text.primary' : stateColour(state) }}
    />
  );
}
