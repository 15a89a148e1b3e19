import { missingFor } from '@entretien/core/isolation';
import { beforeReadings, isDoneRunning, opensTogether } from '@entretien/core/visit';
import type { CompressorAtWork } from './use-visit.js';

export const phases = ['prepare', 'before', 'isolate', 'work', 'prove', 'sign'] as const;
export type Phase = (typeof phases)[number];

export const phaseNames: Readonly<Record<Phase, string>> = {
  prepare: 'Prepare',
  before: 'Before',
  isolate: 'Isolate',
  work: 'Work',
  prove: 'Prove',
  sign: 'Sign',
};

/** The tasks of the visit as the plan has them. */
export function plannedTasks({ unit, progress }: CompressorAtWork) {
  const codes = new Set(progress.tasks.map(({ code }) => code));
  return unit.plan.filter(({ code }) => codes.has(code));
}

/** Checks that are wanted before the work and neither taken nor left out. */
export function openBefore(atWork: CompressorAtWork): readonly string[] {
  const { progress, unit } = atWork;
  const taken = new Set(progress.measured.flatMap(({ phase, check }) => (phase === 'before' ? [check] : [])));
  return beforeReadings(plannedTasks(atWork), unit.plate).filter(
    (check) => !taken.has(check) && !progress.skipped.has(check),
  );
}

/** Whether the planned work needs the machine locked or opened at all. */
export function needsIsolation(atWork: CompressorAtWork): boolean {
  return plannedTasks(atWork).some((task) => !isDoneRunning(task, atWork.unit.plate));
}

/** Whether work that is done while it runs waits still: before isolating is the time for it. */
export function hasRunningOpen(atWork: CompressorAtWork): boolean {
  const running = plannedTasks(atWork).filter((task) => isDoneRunning(task, atWork.unit.plate));
  const open = new Set(
    atWork.progress.tasks.flatMap(({ code, outcome }) => (outcome === 'open' ? [code] : [])),
  );
  return running.some(({ code }) => open.has(code));
}

/** Which phases are behind one. */
export function phasesDone(atWork: CompressorAtWork): ReadonlySet<Phase> {
  const { progress, isolation, unit, steps, guarded, now: at, by, session } = atWork;
  const done = new Set<Phase>();
  if (steps.length > 0) done.add('prepare');
  if (steps.length > 0 && openBefore(atWork).length === 0 && !hasRunningOpen(atWork)) done.add('before');
  const isPlanned = progress.tasks.length > 0;
  const answered = isPlanned && progress.tasks.every(({ outcome }) => outcome !== 'open');
  const opens = opensTogether(plannedTasks(atWork), unit.plate);
  const isIsolated = missingFor(guarded, isolation, opens, { at, by, session }).length === 0;
  if (isPlanned && (isIsolated || answered || !needsIsolation(atWork))) done.add('isolate');
  if (answered) done.add('work');
  if (answered && progress.obstacles.length === 0) done.add('prove');
  if (progress.signed) done.add('sign');
  return done;
}

/** Where one goes on. */
export function nextPhase(atWork: CompressorAtWork): Phase {
  const done = phasesDone(atWork);
  return phases.find((phase) => !done.has(phase)) ?? 'sign';
}
