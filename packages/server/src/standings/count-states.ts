import { taskStates, type TaskState } from '@entretien/core/plan';

/** How often each state stands in a list; states that do not stand there count zero. */
export function countStates(states: Iterable<TaskState>): Record<TaskState, number> {
  const counts = Object.fromEntries(taskStates.map((state) => [state, 0])) as Record<TaskState, number>;
  for (const state of states) counts[state] += 1;
  return counts;
}
