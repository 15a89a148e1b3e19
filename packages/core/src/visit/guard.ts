import type { Instant } from '../basics/index.js';
import type { IsolateBody } from './steps/isolating.js';
import { inOrder, type VisitStep } from './visit-step.js';

/** Away longer than this, the isolation is asked again. */
export const AWAY_MINUTES = 20;

const MINUTE_MS = 60_000;

/** Who wants to know, on which device, when. */
export interface Asking {
  readonly at: Instant;
  readonly by: string;
  readonly session: string;
  readonly awayMinutes?: number | undefined;
}

/** Why what was confirmed counts no longer. */
export type Interruption =
  | { readonly why: 'away'; readonly minutes: number }
  | { readonly why: 'reload' }
  | { readonly why: 'person'; readonly by: string }
  | { readonly why: 'restarted' };

/** What holds of a machine's isolation. */
export interface Isolation {
  /** Codes of the steps that hold. */
  readonly confirmed: ReadonlySet<string>;
  /** Why steps that were confirmed before have to be gone through again; null where none were. */
  readonly interrupted: Interruption | null;
}

/** Whether a step of isolation stands as it was said: a gauge off zero stands only with zero proved otherwise. */
export function isConfirming({ step, confirmed, pressureBar, provedBy }: IsolateBody): boolean {
  if (!confirmed) return false;
  if (step !== 'gauge-zero') return true;
  return pressureBar !== undefined && (pressureBar === 0 || provedBy !== undefined);
}

/**
 * Which isolation steps hold for somebody at a moment. A confirmation holds for the person who gave it, while
 * the page that it was given on stays open, and as long as that person is never away for longer than the
 * limit; power coming back ends it for everybody. Each works under their own lock.
 *
 * @param steps of one unit in one visit
 */
export function isolationFor(steps: readonly VisitStep[], asking: Asking): Isolation {
  const limit = (asking.awayMinutes ?? AWAY_MINUTES) * MINUTE_MS;
  let confirmed = new Set<string>();
  let interrupted: Interruption | null = null;
  let lastAt: Instant | null = null;
  let others: VisitStep | null = null;
  const lose = (why: Interruption) => {
    if (confirmed.size > 0) interrupted = why;
    confirmed = new Set();
  };
  for (const step of inOrder(steps)) {
    if (step.doneAt > asking.at) break;
    const isOwn = step.by === asking.by && step.session === asking.session;
    if (isOwn) {
      if (lastAt !== null && step.doneAt - lastAt > limit) lose(awayFor(step.doneAt - lastAt));
      lastAt = step.doneAt;
    }
    const { body } = step;
    if (body.kind === 'restart') {
      lose({ why: 'restarted' });
      others = null;
    } else if (body.kind === 'isolate') {
      // What somebody undoes, or finds under pressure, holds for nobody.
      if (!isConfirming(body)) confirmed.delete(body.step);
      else if (isOwn) confirmed.add(body.step);
      else others = step;
    }
  }
  if (lastAt !== null && asking.at - lastAt > limit) lose(awayFor(asking.at - lastAt));
  if (interrupted === null && confirmed.size === 0 && others !== null) {
    interrupted = others.by === asking.by ? { why: 'reload' } : { why: 'person', by: others.by };
  }
  return { confirmed, interrupted };
}

function awayFor(ms: number): Interruption {
  return { why: 'away', minutes: Math.round(ms / MINUTE_MS) };
}

/** The question that goes with an interruption. */
export function sayInterruption(interruption: Interruption, nameOf: (person: string) => string): string {
  switch (interruption.why) {
    case 'away':
      return `You were away ${interruption.minutes} min. Is it still locked out and at zero?`;
    case 'reload':
      return 'The page was opened anew. Is it still locked out and at zero?';
    case 'person':
      return `${nameOf(interruption.by)} isolated it. Put on your own lock and see for yourself.`;
    case 'restarted':
      return 'It has had power and air again since. Isolate it anew.';
  }
}
