import { describeDay } from '@entretien/core/basics';
import { formatHoursSeen, type MeterScale } from '@entretien/core/hours';
import type { Standing, TaskStanding } from '@entretien/core/plan';

/** The tasks that come next, by the day they likely fall due; a point in hours beside it. */
export function nextOf({ tasks, meter }: Standing): { name: string; due: string; isLate: boolean }[] {
  return tasks
    .filter(
      ({ coveredBy, dueOn, dueAtHours }) => coveredBy === null && (dueOn !== null || dueAtHours !== null),
    )
    .sort((a, b) => (a.likelyAt ?? Infinity) - (b.likelyAt ?? Infinity))
    .slice(0, 6)
    .map((task) => ({ name: task.name, due: dueText(task, meter), isLate: task.state === 'overdue' }));
}

/** By hours and by date, as far as each is known; what is late or was put off says so first. */
function dueText({ dueOn, dueAtHours, likelyOn, state, deferral }: TaskStanding, meter: MeterScale): string {
  const either = (hours: number | null, day: string | null, before: string) =>
    [
      hours === null ? null : `at ${formatHoursSeen(meter, Math.round(hours))}`,
      day === null ? null : `${before}${describeDay(day)}`,
    ]
      .filter((part) => part !== null)
      .join(' or ');
  if (deferral) return `put off to ${either(deferral.untilHours, deferral.untilOn, '')}`;
  if (state === 'overdue') return `late: due ${either(dueAtHours, dueOn ?? likelyOn, '')}`;
  return dueOn === null ? either(dueAtHours, likelyOn, 'likely ') : either(dueAtHours, dueOn, 'by ');
}
