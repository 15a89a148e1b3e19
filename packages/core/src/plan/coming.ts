import { formatDay, localDayAt, startOfLocalDay, type Instant, type LocalDate } from '../basics/index.js';
import { clockHours } from './clock.js';
import type { StartingPoint } from './due-point.js';
import { historyUpTo, type CompressorHistory } from './history.js';
import { judgeTriggers } from './judge-task.js';
import { isRoutine, type ServicePlan } from './service-plan.js';
import { planAt } from './standing.js';

/** A point at which a task will fall due. */
export interface ComingPoint {
  /** Run hours, where it goes by them; else those it is likely to have run by then. */
  readonly hours: number | null;
  readonly on: LocalDate | null;
  readonly at: Instant | null;
}

/** The coming due points of every task of a plan, were each done at its point. */
export function comingPoints(
  plan: ServicePlan,
  history: CompressorHistory,
  at: Instant,
  count: number,
): ReadonlyMap<string, readonly ComingPoint[]> {
  const judging = planAt(plan, historyUpTo(history, at, Number.POSITIVE_INFINITY), at);
  const { moment } = judging;
  const { clock } = moment;
  const { timeZone } = history;
  const coming = new Map<string, readonly ComingPoint[]>();
  for (const task of plan.tasks) {
    if (isRoutine(task)) continue;
    const points: ComingPoint[] = [];
    const first = judging.judge(task);
    if (!first) continue;
    let { triggers: sum } = first;
    const { triggers } = judging.intervalsOf(task);
    while (points.length < count && sum.ruling) {
      const { axis, point, dueAt } = sum.ruling;
      const day = axis === 'day' ? point! : dueAt === null ? null : localDayAt(dueAt, timeZone);
      const doneAt = dueAt ?? (day === null ? null : startOfLocalDay(day, timeZone));
      const hours =
        axis === 'hours' ? point! : doneAt === null ? null : (clockHours(clock, doneAt)?.hours ?? null);
      points.push({ hours, on: day === null ? null : formatDay(day), at: doneAt });
      if (task.once || task.triggers.some(({ kind }) => kind === 'condition')) break;
      const start: StartingPoint = {
        basis: 'done',
        // Without a date the hours alone go on.
        at: doneAt ?? at,
        hours,
        day: day ?? localDayAt(at, timeZone),
        doneAt: doneAt ?? at,
      };
      const rest = doneAt === null ? triggers.filter(({ kind }) => kind !== 'calendar') : triggers;
      sum = judgeTriggers(task, rest, start, moment);
    }
    coming.set(task.code, points);
  }
  return coming;
}
