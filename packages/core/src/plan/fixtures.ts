import { DAY_MS, dayNumberOf, startOfLocalDay } from '../basics/index.js';
import type { HourReading } from '../hours/index.js';
import type { MeasuredFact, ServiceRecord, CompressorHistory } from './history.js';
import type { ServicePlan, ServiceTask } from './service-plan.js';
import { standing } from './standing.js';
import type { TaskStanding } from './task-standing.js';

/** A made-up machine and its facts, for the tests of this folder. */
export const COMMISSIONED = '2026-01-01';
export const START = startOfLocalDay(dayNumberOf(COMMISSIONED), 'UTC');

export const day = (count: number) => START + count * DAY_MS;

export function task(code: string, more: Partial<ServiceTask> = {}): ServiceTask {
  return {
    code,
    name: code,
    station: 'crankcase',
    action: 'replace',
    triggers: [{ kind: 'hours', every: 500 }],
    counting: 'last-done',
    isolation: 'isolated-and-vented',
    minutes: 30,
    origin: 'practice',
    ...more,
  };
}

export function read(at: number, hours: number): HourReading {
  return { takenAt: day(at), hours, counts: 'total', source: 'typed', recordedAt: day(at) };
}

export function done(at: number, tasks: string[], hours?: number): ServiceRecord {
  return { doneAt: day(at), recordedAt: day(at), tasks, hours };
}

export function history(more: Partial<CompressorHistory> = {}): CompressorHistory {
  return {
    timeZone: 'UTC',
    commissionedOn: COMMISSIONED,
    history: 'new',
    readings: [],
    meterChanges: [],
    services: [],
    ...more,
  };
}

export function only(plan: ServicePlan, past: CompressorHistory, at: number, code?: string): TaskStanding {
  const found = standing(plan, past, day(at)).tasks.find((one) => code === undefined || one.code === code);
  if (!found) throw new Error('no such task in the standing');
  return found;
}

/** A figure that was measured on a day. */
export function measured(
  on: number,
  check: string,
  value: number,
  more: Partial<MeasuredFact> = {},
): MeasuredFact {
  return { check, takenAt: day(on), recordedAt: day(on), value, uncertainty: 0.01, ...more };
}
