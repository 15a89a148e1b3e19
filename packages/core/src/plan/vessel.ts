import { dayNumberOf, formatDay, localDayAt, startOfLocalDay } from '../basics/index.js';
import { isRetiredOn } from '../machine/index.js';
import type { StartingPoint } from './due-point.js';
import { judgeTriggers } from './judge-task.js';
import type { ServiceTask } from './service-plan.js';
import type { JudgedTask, TaskStanding } from './task-standing.js';
import type { VesselExamination, VesselHistory, VesselRecord } from './vessel-history.js';
import type { Moment } from './judged.js';

const text: Record<VesselExamination, string> = { test: 'pressure test', inspection: 'inspection' };

/** The dates of vessels, due like tasks. They are the law's, and somebody's life: all of them are safety. */
export function vesselStandings(
  vessels: readonly VesselHistory[],
  moment: Moment,
  { timeZone }: { readonly timeZone: string },
): readonly JudgedTask[] {
  const today = formatDay(localDayAt(moment.at, timeZone));
  return vessels.flatMap((vessel) => {
    if (isRetiredOn(vessel, today)) return [];
    return (['test', 'inspection'] as const).flatMap((examination) => {
      const months = examination === 'test' ? vessel.testEveryMonths : vessel.inspectEveryMonths;
      if (months === undefined) return [];
      return [untilRetired(judgeDate(vessel, examination, months, moment, timeZone), vessel, timeZone)];
    });
  });
}

/** On the day on which a vessel goes out of service its dates are gone. */
function untilRetired(judged: JudgedTask, { retiredOn }: VesselHistory, timeZone: string): JudgedTask {
  if (retiredOn === undefined) return judged;
  const retiresAt = startOfLocalDay(dayNumberOf(retiredOn), timeZone);
  return { ...judged, changesAt: Math.min(judged.changesAt ?? Infinity, retiresAt) };
}

function judgeDate(
  vessel: VesselHistory,
  examination: VesselExamination,
  months: number,
  moment: Moment,
  timeZone: string,
): JudgedTask {
  const task: ServiceTask = {
    code: `vessel-${examination}:${vessel.id}`,
    name: `${vessel.tag}: ${text[examination]}`,
    station: vessel.kind === 'receiver' ? 'receiver' : 'fill',
    action: examination === 'test' ? 'test' : 'inspect',
    triggers: [{ kind: 'calendar', every: { months } }],
    counting: 'last-done',
    isolation: 'isolated-and-vented',
    minutes: 0,
    origin: 'regulation',
    safety: true,
  };
  const today = localDayAt(moment.at, timeZone);
  const done = vessel.records
    .filter((one) => one.kind === examination && dayNumberOf(one.doneOn) <= today)
    .sort((a, b) => (a.doneOn < b.doneOn ? -1 : a.doneOn > b.doneOn ? 1 : a.recordedAt - b.recordedAt))
    .at(-1);
  const start: StartingPoint | null = done ? startOf(done, timeZone) : null;
  const triggers = judgeTriggers(task, task.triggers, start, moment);
  // What failed is out of date at once, whatever its months say.
  const failed = done?.passed === false;
  const { ruling } = triggers;
  const dueOn = failed ? done.doneOn : triggers.dayPoint === null ? null : formatDay(triggers.dayPoint);
  const dueAt = failed ? startOfLocalDay(dayNumberOf(done.doneOn), timeZone) : (ruling?.dueAt ?? null);
  const standing: TaskStanding = {
    code: task.code,
    name: task.name,
    station: task.station,
    safety: true,
    state: failed ? 'overdue' : triggers.state,
    usedFraction: failed ? 1 : triggers.used,
    dueAtHours: null,
    remainingHours: null,
    dueOn,
    likelyOn: dueOn,
    likelyAt: dueAt,
    earlyOn: dueOn,
    lateOn: dueOn,
    earlyAt: dueAt,
    lateAt: dueAt,
    ruledBy: dueOn === null ? null : 'calendar',
    rule: dueOn === null ? null : 'calendar',
    lastDoneAt: start?.doneAt ?? null,
    lastDoneHours: null,
    startedBy: start?.basis ?? null,
    coveredBy: null,
    deferral: null,
    vessel: { id: vessel.id, tag: vessel.tag, examination },
  };
  return { standing, changesAt: failed ? null : triggers.changesAt, triggers, factors: [], start };
}

function startOf({ doneOn }: VesselRecord, timeZone: string): StartingPoint {
  const day = dayNumberOf(doneOn);
  const doneAt = startOfLocalDay(day, timeZone);
  return { basis: 'done', at: doneAt, hours: null, day, doneAt };
}
