import type { ProblemDetails, StepOutcome } from '@entretien/contracts';

/** A fact that was recorded on this device and has not been acknowledged by the server. */
export interface OutboxItem {
  /** The fact's own id: however often it is sent, it is recorded once. */
  readonly id: string;
  readonly kind: 'reading' | 'meter-change' | 'visit-step' | 'photo' | 'fact';
  readonly compressorId: string;
  readonly tag: string;
  readonly siteId: string;
  /** Zone of the site: the tray must show moments by the clock there, connection or not. */
  readonly timeZone: string;
  readonly personId: string | null;
  /** The fact as the server takes it, without the unit. */
  readonly body: Readonly<Record<string, unknown>>;
  readonly queuedAt: number;
  /** Of a fact: where it is sent. */
  readonly path?: string;
  /** The page that it was recorded on. */
  readonly page?: string;
  /** The visit that it belongs to. */
  readonly visitId?: string;
  /** What it says, for the tray. */
  readonly text?: string;
  /** What the page made of a measurement, until the server has judged it for the record. */
  readonly outcome?: StepOutcome;
  /** The photo itself. */
  readonly photo?: Blob;
  /** How often the server failed over it; left out, never. */
  readonly tries?: number;
  /** Why the server refused it; it waits in the tray to be mended. Null while it waits to be sent. */
  readonly problem: ProblemDetails | null;
}

/** Readings sent at once. */
const MOST_AT_ONCE = 100;

/** How often readings are tried together before each is tried alone. */
const TRIES_TOGETHER = 2;
/** How often anything is tried before it goes to the tray, so that it holds up nothing behind it. */
const MOST_TRIES = 5;

/**
 * What becomes of an item over which the server failed: it is tried again, and after some tries it waits in the
 * tray with what the server said.
 */
export function afterFailure(item: OutboxItem, problem: ProblemDetails): OutboxItem {
  const tries = (item.tries ?? 0) + 1;
  return { ...item, tries, problem: tries >= MOST_TRIES ? problem : null };
}

/** Whether an answer means that the server itself could not be reached: a gate before it answers in its place. */
export function isOutOfReach({ status }: ProblemDetails): boolean {
  // Signed out is no refusal either: it is sent when somebody has signed in; nor is too much at once.
  return status === 401 || status === 429 || status === 502 || status === 503 || status === 504;
}

/** Whether somebody else recorded it than is signed in: it waits for them, for it would stand under another name. */
export function isAnothers({ personId }: OutboxItem, signedIn: string | null): boolean {
  return signedIn !== null && personId !== null && personId !== signedIn;
}

/**
 * What is sent together next: readings in a row, or one meter change; in the order of recording.
 *
 * @param signedIn the person who is signed in; null where nobody signs in
 */
export function nextToSend(
  items: readonly OutboxItem[],
  signedIn: string | null = null,
): readonly OutboxItem[] {
  const waiting = items.filter((item) => item.problem === null && !isAnothers(item, signedIn)).sort(byAge);
  const [first] = waiting;
  // Where the server failed over several at once, the one that it fails over is to be found.
  if (first?.kind !== 'reading' || (first.tries ?? 0) >= TRIES_TOGETHER) return waiting.slice(0, 1);
  const together = waiting.slice(0, MOST_AT_ONCE);
  const stop = together.findIndex(({ kind, personId }) => kind !== 'reading' || personId !== first.personId);
  return stop < 0 ? together : together.slice(0, stop);
}

export function byAge(a: OutboxItem, b: OutboxItem): number {
  return a.queuedAt - b.queuedAt || (a.id < b.id ? -1 : 1);
}
