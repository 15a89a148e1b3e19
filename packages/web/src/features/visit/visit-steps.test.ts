import { DEFAULT_PERSON_ID, type VisitStepView } from '@entretien/contracts';
import type { OutboxItem } from '../../data/outbox/outbox-item.js';
import { mergeSteps } from './visit-steps.js';

const view = (id: string, minute: number, more: Partial<VisitStepView> = {}): VisitStepView => ({
  id,
  visitId: 'v',
  compressorId: 'u',
  kind: 'note',
  doneAt: new Date(minute * 60_000).toISOString(),
  session: 's',
  details: { text: id },
  by: 'mara',
  recordedAt: '',
  marks: [],
  ...more,
});

const queued = (id: string, minute: number, more: Partial<OutboxItem> = {}): OutboxItem => {
  const { doneAt, kind, session, details } = view(id, minute);
  return {
    id,
    kind: 'visit-step',
    visitId: 'v',
    compressorId: 'u',
    tag: 'HC-1',
    siteId: 's',
    timeZone: 'UTC',
    personId: null,
    queuedAt: 0,
    problem: null,
    body: { id, doneAt, kind, session, details },
    ...more,
  };
};

const ids = (...args: Parameters<typeof mergeSteps>) => mergeSteps(...args).map(({ id }) => id);

test('what the server has, what it took since and what waits come together, each once, by their moments', () => {
  const all = ids('u', [view('a', 1)], [view('b', 3), view('a', 1)], [queued('b', 3), queued('c', 2)]);
  expect(all).toEqual(['a', 'c', 'b']);
});

test('steps of other units, photos and what was refused are not among them', () => {
  const problem = { type: '', title: 'No', status: 409, code: 'not-isolated' };
  const waiting = [
    queued('r', 1, { problem }),
    queued('p', 2, { kind: 'photo' }),
    queued('o', 3, { compressorId: 'w' }),
  ];
  expect(ids('u', [view('x', 1, { compressorId: 'w' })], [], waiting)).toEqual([]);
});

test('a waiting measurement carries what the page made of it; the server’s word goes before', () => {
  const outcome = { verdict: 'act' as const, reason: 'too hot', figure: 80 };
  const [mine] = mergeSteps('u', [], [], [queued('m', 1, { outcome })]);
  expect(mine).toMatchObject({ by: DEFAULT_PERSON_ID, body: { verdict: 'act', reason: 'too hot' } });
  const good = view('m', 1, { outcome: { ...outcome, verdict: 'good', reason: 'fine' } });
  expect(mergeSteps('u', [good], [], [queued('m', 1, { outcome })])[0]!.body).toMatchObject({
    verdict: 'good',
  });
});
