import type { VisitStepView } from '@entretien/contracts';
import {
  discard,
  onOutboxSent,
  onStepTaken,
  putInOutbox,
  putOrHold,
  sendOutbox,
  useOutbox,
  watchOutbox,
} from './outbox.js';
import type { OutboxItem } from './outbox-item.js';
import { dropItem, storedItems, storeItem, takenOf } from './outbox-store.js';

const VISIT = 'visit-1';
const step = (id: string) =>
  ({
    id,
    kind: 'visit-step',
    visitId: VISIT,
    queuedAt: 1,
    body: { id },
    problem: null,
  }) as unknown as OutboxItem;

/** Answers of a server, one after the other; the last for all that follow. */
function answering(...answers: readonly { readonly status: number; readonly body: object }[]): string[] {
  const asked: string[] = [];
  globalThis.fetch = (async (url: string) => {
    const { status, body } = answers[Math.min(asked.length, answers.length - 1)]!;
    asked.push(url);
    return new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });
  }) as unknown as typeof fetch;
  return asked;
}

const seen: string[] = [];
const leave: (() => void)[] = [];
beforeEach(() => {
  seen.length = 0;
  leave.push(
    onStepTaken(({ id }: VisitStepView) => void seen.push(`taken ${id}`)),
    onOutboxSent(() => void seen.push('sent')),
    useOutbox.subscribe(({ items }) => void seen.push(`waiting ${items.map(({ id }) => id).join()}`)),
  );
});
afterEach(() => leave.splice(0).forEach((one) => one()));

async function until(isSo: () => boolean): Promise<void> {
  for (let turn = 0; turn < 1000 && !isSo(); turn++) await new Promise((goOn) => setTimeout(goOn));
  expect(isSo()).toBe(true);
}

test('a step that is taken is drawn once as taken, and is kept as taken before it leaves the device', async () => {
  const asked = answering({ status: 201, body: { id: 'a', visitId: VISIT } });
  await putInOutbox(step('a'));
  await until(() => seen.includes('sent'));
  expect(asked).toEqual([`/api/visits/${VISIT}/steps`]);
  // Nothing is drawn between the last two but one: both are said in one go.
  expect(seen.filter((one) => one !== 'sent')).toEqual(['waiting a', 'waiting ', 'taken a']);
  expect((await takenOf(VISIT)).map(({ id }) => id)).toEqual(['a']);
  expect(await storedItems()).toEqual([]);
});

test('what the server refuses waits in the tray with its sentence; what is behind it goes on', async () => {
  const problem = { status: 422, title: 'Not so', sentence: 'The belt was not open.' };
  answering({ status: 422, body: problem }, { status: 201, body: { id: 'c', visitId: VISIT } });
  await putInOutbox(step('b'));
  await until(() => useOutbox.getState().items.some(({ problem: one }) => one !== null));
  await putInOutbox(step('c'));
  await until(() => seen.includes('taken c'));
  expect(useOutbox.getState().items.map(({ id }) => id)).toEqual(['b']);
  expect(await storedItems()).toMatchObject([{ id: 'b', problem: { status: 422 } }]);
});

test('a server that fails over a step takes nothing from the device', async () => {
  answering({ status: 500, body: { status: 500, title: 'Failed' } });
  await putInOutbox(step('d'));
  await until(() => useOutbox.getState().items.some(({ id, tries }) => id === 'd' && tries === 1));
  expect(seen.some((one) => one.startsWith('taken'))).toBe(false);
  expect((await storedItems()).map(({ id }) => id)).toContain('d');
});

/** Sends until it is so: whoever is at it already is not begun anew. */
async function sending(isSo: () => boolean): Promise<void> {
  for (let turn = 0; turn < 200 && !isSo(); turn++) {
    await sendOutbox();
    await new Promise((goOn) => setTimeout(goOn));
  }
  expect(isSo()).toBe(true);
}

/** Nothing waits from the tests before. */
async function empty(): Promise<void> {
  for (const { id } of await storedItems()) await dropItem(id);
  useOutbox.setState({ items: [], isConnected: true });
}

test('a server that fails over and over sends it to the tray, and holds up nothing behind it', async () => {
  await empty();
  const asked = answering({ status: 500, body: { status: 500, title: 'Failed', detail: 'It failed.' } });
  await putInOutbox(step('e'));
  for (let time = 1; time < 5; time++) {
    await until(() => useOutbox.getState().items[0]?.tries === time);
    await sending(() => (useOutbox.getState().items[0]?.tries ?? 0) > time);
  }
  await until(() => useOutbox.getState().items[0]?.problem !== null);
  expect(asked.length).toBe(5);
  // In the tray it waits for somebody; it is not tried again.
  await sendOutbox();
  expect(asked.length).toBe(5);
});

test.each([502, 503, 504])(
  'a gate that answers %i is no connection: it waits, and counts for nothing',
  async (status) => {
    await empty();
    answering({ status, body: { status, title: 'Bad gateway' } });
    await putInOutbox(step(`gate ${status}`));
    await until(() => !useOutbox.getState().isConnected);
    expect((await storedItems())[0]).toMatchObject({ id: `gate ${status}`, problem: null });
    expect((await storedItems())[0]).not.toHaveProperty('tries');
  },
);

test('without any connection it waits; with one again it goes, in the order of recording', async () => {
  await empty();
  globalThis.fetch = (() => Promise.reject(new TypeError('no connection'))) as unknown as typeof fetch;
  await putInOutbox({ ...step('second'), queuedAt: 20 });
  await putInOutbox({ ...step('first'), queuedAt: 10 });
  await until(() => !useOutbox.getState().isConnected);
  const bodies: string[] = [];
  globalThis.fetch = (async (_url: string, init: { body: string }) => {
    bodies.push((JSON.parse(init.body) as { id: string }).id);
    return new Response(JSON.stringify({ id: bodies.at(-1), visitId: VISIT }), { status: 201 });
  }) as unknown as typeof fetch;
  await sending(() => bodies.length === 2);
  await until(() => useOutbox.getState().items.length === 0);
  expect(bodies).toEqual(['first', 'second']);
  expect(await storedItems()).toEqual([]);
  expect(useOutbox.getState().isConnected).toBe(true);
});

test('readings go together, and each has its own answer', async () => {
  await empty();
  const reading = (id: string, queuedAt: number) =>
    ({ ...step(id), kind: 'reading', compressorId: 'unit', queuedAt }) as OutboxItem;
  const refusal = { status: 422, title: 'That cannot be.', code: 'goes-backwards' };
  const asked = answering({ status: 200, body: { results: [{ id: 'r1' }, { id: 'r2', problem: refusal }] } });
  await storeItem(reading('r1', 1));
  await storeItem(reading('r2', 2));
  await sendOutbox();
  expect(asked).toEqual(['/api/readings/batch']);
  expect((await storedItems()).map(({ id, problem }) => [id, problem?.status])).toEqual([['r2', 422]]);
});

test('what was refused can be thrown away, and only by somebody', async () => {
  await empty();
  answering({ status: 422, body: { status: 422, title: 'Not so' } });
  await putInOutbox(step('f'));
  await until(() => useOutbox.getState().items[0]?.problem?.status === 422);
  await sendOutbox();
  expect(await storedItems()).toHaveLength(1);
  await discard('f');
  expect(await storedItems()).toEqual([]);
  expect(useOutbox.getState().items).toEqual([]);
});

test('two pages at once: what the other sent leaves this one, and nothing is sent twice', async () => {
  await empty();
  const asked = answering({ status: 201, body: { id: 'g', visitId: VISIT } });
  watchOutbox();
  await storeItem(step('g'));
  // Both begin in the same moment; one of them is at it already.
  await Promise.all([sendOutbox(), sendOutbox()]);
  await sending(() => asked.length > 0);
  await until(() => useOutbox.getState().items.length === 0);
  await sendOutbox();
  expect(asked).toHaveLength(1);
});

test('what another page has put in is sent when the connection is back', async () => {
  await empty();
  const asked = answering({ status: 201, body: { id: 'h', visitId: VISIT } });
  await storeItem(step('h'));
  window.dispatchEvent(new Event('offline'));
  expect(useOutbox.getState().isConnected).toBe(false);
  // A sending that is just ending takes no notice of one event: the connection comes back until it is noticed.
  await until(() => {
    window.dispatchEvent(new Event('online'));
    return asked.length === 1;
  });
  for (let turn = 0; turn < 1000 && (await storedItems()).length > 0; turn++)
    await new Promise((goOn) => setTimeout(goOn));
  expect(await storedItems()).toEqual([]);
});

/** A device whose store takes nothing, until it is given back. */
function fullDevice(): () => void {
  const { put } = IDBObjectStore.prototype;
  IDBObjectStore.prototype.put = () => {
    throw new DOMException('No room is left.', 'QuotaExceededError');
  };
  return () => void (IDBObjectStore.prototype.put = put);
}

const leaving = () => !window.dispatchEvent(new Event('beforeunload', { cancelable: true }));

test('a full device: the step is held in the page, sent from there, and the page may be left again', async () => {
  await empty();
  watchOutbox();
  globalThis.fetch = (() => Promise.reject(new TypeError('no connection'))) as unknown as typeof fetch;
  const giveBack = fullDevice();
  try {
    await expect(putInOutbox(step('walk'))).rejects.toThrow('No room is left.');
    expect(useOutbox.getState().held).toBe(0);
    await putOrHold(step('i'));
    await until(
      () =>
        useOutbox
          .getState()
          .items.map(({ id }) => id)
          .join() === 'i',
    );
    expect(useOutbox.getState().held).toBe(1);
    expect(leaving()).toBe(true);
    const asked = answering({ status: 201, body: { id: 'i', visitId: VISIT } });
    await sending(() => useOutbox.getState().held === 0);
    expect(asked).toEqual([`/api/visits/${VISIT}/steps`]);
    expect(useOutbox.getState().items).toEqual([]);
    expect(seen).toContain('taken i');
    expect(leaving()).toBe(false);
  } finally {
    giveBack();
  }
});

test('what a full device held and the server refused can be thrown away', async () => {
  await empty();
  answering({ status: 422, body: { status: 422, title: 'Not so' } });
  const giveBack = fullDevice();
  try {
    await putOrHold(step('j'));
    await until(() => useOutbox.getState().items[0]?.problem?.status === 422);
    expect(useOutbox.getState().held).toBe(1);
    await discard('j');
    expect(useOutbox.getState()).toMatchObject({ held: 0, items: [] });
  } finally {
    giveBack();
  }
});
