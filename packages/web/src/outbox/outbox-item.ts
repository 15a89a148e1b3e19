import type { ProblemDetails, StepOutcome } from '@entretien/contracts';

/** A fact that was recorded on this device and has not been acknowledged by the server. */
export interface OutboxItem {
  /** The fact's own id: however often it is sent, it is recorded once. */
  readonly id: string;
  readonly kind: 'reading' | 'meter-change' | 'visit-step' | 'photo';
  readonly compressorId: string;
  readonly tag: string;
  readonly siteId: string;
  /** Zone of the site: the tray must show moments by the clock there, connection or not. */
  readonly timeZone: string;
  readonly personId: string | null;
  /** The fact as the server takes it, without the unit. */
  readonly body: Readonly<Record<string, unknown>>;
  readonly queuedAt: number;
  /** The visit that it belongs to. */
  readonly visitId?: string;
  /** What it says, for the tray. */
  readonly words?: string;
  /** What the page made of a measurement, until the server has judged it for the record. */
  readonly outcome?: StepOutcome;
  /** The photo itself. */
  readonly photo?: Blob;
  /** Why the server refused it; it waits in the tray to be mended. Null while it waits to be sent. */
  readonly problem: ProblemDetails | null;
}

/** Readings sent at once. */
const MOST_AT_ONCE = 100;

/** What is sent together next: readings in a row, or one meter change; in the order of recording. */
export function nextToSend(items: readonly OutboxItem[]): readonly OutboxItem[] {
  const waiting = items.filter(({ problem }) => problem === null).sort(byAge);
  const [first] = waiting;
  if (first?.kind !== 'reading') return waiting.slice(0, 1);
  const together = waiting.slice(0, MOST_AT_ONCE);
  const stop = together.findIndex(({ kind, personId }) => kind !== 'reading' || personId !== first.personId);
  return stop < 0 ? together : together.slice(0, stop);
}

export function byAge(a: OutboxItem, b: OutboxItem): number {
  return a.queuedAt - b.queuedAt || (a.id < b.id ? -1 : 1);
}
