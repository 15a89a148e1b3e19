import type { BatchResultsView, PhotoView, ProblemDetails, VisitStepView } from '@entretien/contracts';
import { create } from 'zustand';
import { ApiProblem, postBytes, postJson } from '../api.js';
import { afterFailure, isOutOfReach, nextToSend, type OutboxItem } from './outbox-item.js';
import { dropItem, storedItems, storeItem, storeTaken } from './outbox-store.js';

interface OutboxState {
  readonly items: readonly OutboxItem[];
  /** Whether the server could be reached when something was last sent. */
  readonly isConnected: boolean;
  /** How many of them the device would not keep: they are in this page only. */
  readonly held: number;
}

/** What the page shows of the outbox; the device's own store is what counts. */
export const useOutbox = create<OutboxState>()(() => ({
  items: [],
  isConnected: navigator.onLine,
  held: 0,
}));

let signedIn: string | null = null;

/** Says who is signed in; what waited for them is sent. */
export function sendAs(personId: string | null): void {
  if (personId === signedIn) return;
  signedIn = personId;
  void sendOutbox();
}

const RETRY_MS = 10_000;
const listeners = new Set<() => void>();

/** Calls back when something was taken by the server. */
export function onOutboxSent(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

const takers = new Set<(step: VisitStepView) => void>();

/** Calls back with each step of a visit that the server has taken, as it leaves the outbox. */
export function onStepTaken(taker: (step: VisitStepView) => void): () => void {
  takers.add(taker);
  return () => takers.delete(taker);
}

/** Keeps a fact on the device, then tries to send it: it is safe once this is done. */
export async function putInOutbox(item: OutboxItem): Promise<void> {
  await storeItem(item);
  await show();
  void sendOutbox();
}

/** Facts that the device would not keep (no room, a private window), until the server has them. */
const held = new Map<string, OutboxItem>();
/** Whether the device refused what it was last given. */
let isRefusing = false;

/**
 * Keeps a fact on the device, or in this page where the device takes nothing; then tries to send it. For work that
 * goes on and cannot wait for a device to be mended: the page says that it must stay open.
 */
export async function putOrHold(item: OutboxItem): Promise<void> {
  try {
    await storeItem(item);
    isRefusing = false;
  } catch {
    isRefusing = true;
    held.set(item.id, item);
  }
  await show();
  void sendOutbox();
}

/** Everything that waits here, wherever it is kept. */
async function waitingItems(): Promise<readonly OutboxItem[]> {
  const stored = await storedItems().catch((error: unknown) => {
    if (isRefusing) return [];
    throw error;
  });
  return [...stored.filter(({ id }) => !held.has(id)), ...held.values()];
}

async function keepItem(item: OutboxItem): Promise<void> {
  if (held.has(item.id)) held.set(item.id, item);
  else await storeItem(item);
}

async function forgetItem(id: string): Promise<void> {
  if (!held.delete(id)) await dropItem(id);
}

/** Takes a refused fact out of the tray for good. */
export async function discard(id: string): Promise<void> {
  await forgetItem(id);
  await show();
}

async function show(): Promise<void> {
  const items = await waitingItems();
  if (useOutbox.getState().held !== held.size) useOutbox.setState({ held: held.size });
  // What already shows is not drawn anew: the pages that show it are large.
  if (!isShown(items)) useOutbox.setState({ items });
}

function noteConnection(isConnected: boolean): void {
  if (useOutbox.getState().isConnected !== isConnected) useOutbox.setState({ isConnected });
}

function isShown(items: readonly OutboxItem[]): boolean {
  const shown = useOutbox.getState().items;
  const keyOf = ({ id, tries, problem }: OutboxItem) => JSON.stringify([id, tries, problem]);
  return items.length === shown.length && items.every((item, index) => keyOf(item) === keyOf(shown[index]!));
}

/** Sends what waits, now and whenever there may be a connection again. */
export function watchOutbox(): void {
  const channel = 'BroadcastChannel' in window ? new BroadcastChannel('entretien-outbox') : null;
  channel?.addEventListener('message', () => void show());
  onOutboxSent(() => channel?.postMessage('sent'));
  window.addEventListener('online', () => {
    noteConnection(true);
    void sendOutbox();
  });
  window.addEventListener('offline', () => noteConnection(false));
  // What is in this page only would go with it: the browser asks.
  window.addEventListener('beforeunload', (event) => {
    if (held.size > 0) event.preventDefault();
  });
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') void sendOutbox();
  });
  setInterval(() => {
    if (nextToSend(useOutbox.getState().items, signedIn).length > 0) void sendOutbox();
  }, RETRY_MS);
  // A device that keeps nothing has nothing waiting; the walk says so when it matters.
  show().then(sendOutbox, () => undefined);
}

let isSending = false;

/**
 * Sends everything that waits, in the order it was recorded. One page at a time where the browser can say so;
 * where it cannot, the facts' own ids see to it that nothing is recorded twice.
 */
export async function sendOutbox(): Promise<void> {
  if (isSending) return;
  isSending = true;
  try {
    if ('locks' in navigator) await navigator.locks.request('entretien-outbox', sendAll);
    else await sendAll();
  } finally {
    isSending = false;
  }
}

async function sendAll(): Promise<void> {
  let hasSent = false;
  for (;;) {
    const items = nextToSend(await waitingItems(), signedIn);
    if (items.length === 0) break;
    try {
      await send(items);
      noteConnection(true);
      hasSent = true;
    } catch (error) {
      const problem = error instanceof ApiProblem && !isOutOfReach(error.problem) ? error.problem : null;
      noteConnection(problem !== null);
      // No connection: what waits goes on waiting.
      if (problem === null) break;
      const failed = items.map((item) => afterFailure(item, problem));
      for (const item of failed) await keepItem(item);
      // In trouble over these: they are tried again in a while, unless they are out of the way now.
      if (failed.some((item) => item.problem === null)) break;
    }
  }
  await show();
  if (hasSent) listeners.forEach((listener) => listener());
}

async function send(items: readonly OutboxItem[]): Promise<void> {
  const [first] = items;
  if (first!.kind !== 'reading') return sendOne(first!);
  const readings = items.map(({ compressorId, body }) => ({ compressorId, ...body }));
  const { results } = await postJson<BatchResultsView>('/readings/batch', { readings }, first!.personId);
  for (const [index, result] of results.entries()) await settle(items[index]!, result.problem ?? null);
}

async function sendOne(item: OutboxItem): Promise<void> {
  try {
    const step = await postOne(item);
    // Where the device takes nothing, the page itself remembers it until the visit is asked for anew.
    if (step && !held.has(item.id)) await storeTaken(step);
    await settle(item, null);
    // In one go, so that the page is drawn once for both.
    useOutbox.setState(({ items }) => ({ items: items.filter(({ id }) => id !== item.id) }));
    if (step) takers.forEach((taker) => taker(step));
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.problem.status >= 500 || isOutOfReach(error.problem))
      throw error;
    await settle(item, error.problem);
  }
}

/** @returns the step that the server took, if it was one */
async function postOne({
  id,
  kind,
  compressorId,
  visitId,
  path,
  body,
  photo,
  personId,
}: OutboxItem): Promise<VisitStepView | null> {
  if (kind === 'visit-step') return postJson<VisitStepView>(`/visits/${visitId}/steps`, body, personId);
  if (kind === 'fact') await postJson(path!, body, personId);
  else if (kind === 'photo')
    await postBytes<PhotoView>(`/visits/${visitId}/photos?id=${id}`, photo!, personId);
  else await postJson(`/compressors/${compressorId}/meter-changes`, body, personId);
  return null;
}

/** Taken, it leaves the device; refused, it goes to the tray and is never dropped. */
async function settle(item: OutboxItem, problem: ProblemDetails | null): Promise<void> {
  if (problem === null) await forgetItem(item.id);
  else await keepItem({ ...item, problem });
}
