import type { VisitStepView } from '@entretien/contracts';
import { onOutboxSent, onStepTaken, putInOutbox, useOutbox } from './outbox.js';
import type { OutboxItem } from './outbox-item.js';
import { storedItems, takenOf } from './outbox-store.js';

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
