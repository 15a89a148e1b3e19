import { pointOf } from '../isolation/index.js';
import { checkByCode } from '../checks/index.js';
import type { Obstacle, CompressorProgress, VisitTask, VisitCompressor } from './progress.js';
import { NOT_CONFIRMED } from './progress.js';

/** A line of the summary: what it is about, and the sentence. */
export interface SummaryLine {
  readonly about: 'done' | 'not-done' | 'proof' | 'found' | 'used' | 'warning';
  readonly sentence: string;
}

/** What was done to a unit, in plain words, each line a sentence. */
export function summaryOf(unit: VisitCompressor, progress: CompressorProgress): readonly SummaryLine[] {
  const nameOf = (code: string) => unit.plan.find((task) => task.code === code)?.name ?? code;
  const names = (tasks: readonly VisitTask[]) => tasks.map(({ code }) => nameOf(code)).join(', ');
  const { tasks } = progress;
  const line = (about: SummaryLine['about'], sentence: string | null): SummaryLine[] =>
    sentence === null ? [] : [{ about, sentence }];
  const some = (found: readonly VisitTask[], format: (names: string) => string) =>
    found.length === 0 ? null : format(names(found));
  return [
    ...line(
      'done',
      some(
        tasks.filter(({ outcome }) => outcome === 'done'),
        (found) => `Done: ${found}.`,
      ) ?? 'No planned work was done.',
    ),
    ...line(
      'found',
      some(
        tasks.filter(({ outcome }) => outcome === 'looked'),
        (found) => `Looked at, and counted from there: ${found}.`,
      ),
    ),
    ...tasks
      .filter(({ outcome }) => outcome === 'not-done')
      .flatMap(({ code, reason }) => line('not-done', `Not done: ${nameOf(code)}. ${reason ?? ''}`.trim())),
    ...line(
      'proof',
      some(
        tasks.filter(({ verification }) => verification === 'passed'),
        (found) => `Proved: ${found}.`,
      ),
    ),
    ...tasks
      .filter(({ verification }) => verification === 'closed')
      .flatMap(({ code, closedBecause }) =>
        line('warning', `Closed without its proof: ${nameOf(code)}. ${closedBecause ?? ''}`.trim()),
      ),
    ...progress.measured
      .filter(({ verdict, phase }) => phase !== 'before' && verdict !== undefined && verdict !== 'good')
      .flatMap(({ check, reason }) => line('found', `${checkByCode(check)?.name ?? check}: ${reason ?? ''}`)),
    ...progress.faults.flatMap(({ found }) => line('found', `Found: ${sentence(found)}`)),
    ...progress.gaugesOffRest.flatMap(({ point, pressureBar }) =>
      line(
        'found',
        `The ${pointOf(unit.plate, point)?.gauge ?? 'gauge'} shows ${pressureBar} bar on an empty space: it cannot be trusted.`,
      ),
    ),
    ...line(
      'used',
      progress.parts.length === 0
        ? null
        : `Used: ${progress.parts.map(({ name, count }) => `${count} × ${name}`).join(', ')}.`,
    ),
    ...progress.parts.flatMap(({ name, reason }) =>
      line('warning', reason === undefined ? null : `${name} in place of another: ${sentence(reason)}`),
    ),
    ...line(
      'warning',
      some(
        tasks.filter(({ marks }) => marks.includes(NOT_CONFIRMED)),
        (found) => `Isolation not confirmed for: ${found}.`,
      ),
    ),
  ];
}

/** Why it stays open, in one sentence; null when it can be signed for. */
export function describeOpen(obstacles: readonly Obstacle[]): string | null {
  return obstacles.length === 0 ? null : obstacles.map(({ sentence: one }) => one).join(' ');
}

function sentence(text: string): string {
  return /[.!?]$/.test(text.trim()) ? text.trim() : `${text.trim()}.`;
}
