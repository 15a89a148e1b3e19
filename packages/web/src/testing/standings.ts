import type { StandingView, TaskStandingView } from '@entretien/contracts';

/** A task as it stands, settled where nothing else is said. */
export function taskOf(code: string, more: object = {}): TaskStandingView {
  return {
    code,
    name: code,
    station: 'motor',
    safety: false,
    state: 'fresh',
    usedFraction: 0.2,
    dueAtHours: null,
    remainingHours: null,
    dueOn: null,
    earlyOn: null,
    likelyOn: null,
    lateOn: null,
    earlyAt: null,
    likelyAt: null,
    lateAt: null,
    ruledBy: null,
    rule: null,
    lastDoneAt: null,
    lastDoneHours: null,
    startedBy: 'done',
    coveredBy: null,
    deferral: null,
    vessel: null,
    explanation: null,
    ...more,
  } as unknown as TaskStandingView;
}

/** A unit as it stands: 1,200 hours read, 8 a day. */
export function standingOf(tasks: readonly TaskStandingView[], more: object = {}): StandingView {
  return {
    compressorId: 'unit',
    at: '2026-11-24T09:00:00.000Z',
    runHours: 1200,
    runHoursBasis: 'read',
    meter: { offset: 0, fittedAtHours: null, counts: 'total' },
    hoursPerDay: 8,
    tasks,
    routine: [],
    retired: false,
    meterQuestion: null,
    ...more,
  } as unknown as StandingView;
}
