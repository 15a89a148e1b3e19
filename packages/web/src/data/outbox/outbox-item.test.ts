import { afterFailure, isOutOfReach, nextToSend, type OutboxItem } from './outbox-item.js';

function item(id: string, queuedAt: number, more: Partial<OutboxItem> = {}): OutboxItem {
  return {
    id,
    kind: 'reading',
    compressorId: 'u',
    tag: 'HC-1',
    siteId: 's',
    timeZone: 'UTC',
    personId: null,
    body: {},
    queuedAt,
    problem: null,
    ...more,
  };
}

const ids = (items: readonly OutboxItem[]) => nextToSend(items).map(({ id }) => id);
const problem = { type: '', title: 'No', status: 422, code: 'x' };

test('readings in a row go together, in the order they were recorded', () => {
  expect(ids([item('b', 2), item('a', 1), item('c', 3)])).toEqual(['a', 'b', 'c']);
});

test('a meter change goes by itself, before the readings that need it and after those that do not', () => {
  const change = { kind: 'meter-change' as const };
  expect(ids([item('a', 1), item('m', 2, change), item('b', 3)])).toEqual(['a']);
  expect(ids([item('m', 2, change), item('b', 3)])).toEqual(['m']);
});

test('what was refused waits in the tray and holds up nothing', () => {
  expect(ids([item('a', 1, { problem }), item('b', 2)])).toEqual(['b']);
  expect(ids([item('a', 1, { problem })])).toEqual([]);
});

test('readings of different people are sent apart, for each stands for its own', () => {
  expect(ids([item('a', 1), item('b', 2, { personId: 'p' }), item('c', 3)])).toEqual(['a']);
});

test('the steps of a visit go one by one, in the order in which they happened, its photos among them', () => {
  const step = { kind: 'visit-step' as const, visitId: 'v' };
  const photo = { kind: 'photo' as const, visitId: 'v' };
  expect(ids([item('p', 2, photo), item('s', 1, step), item('t', 3, step)])).toEqual(['s']);
  expect(ids([item('r', 1), item('s', 2, step)])).toEqual(['r']);
  expect(ids([item('p', 2, photo), item('t', 3, step)])).toEqual(['p']);
});

test('no more than a hundred at once', () => {
  expect(
    ids(Array.from({ length: 130 }, (_, index) => item(String(index).padStart(3, '0'), index))),
  ).toHaveLength(100);
});

describe('a server that fails', () => {
  const failure = { type: '', title: 'Something went wrong on our side.', status: 500, code: 'internal' };

  test('over several at once is asked about each alone, and what it always fails over goes to the tray', () => {
    let items = [item('a', 1), item('b', 2), item('c', 3)];
    const asked: string[] = [];
    // It cannot take b, whatever is sent with it.
    for (let tries = 0; tries < 20 && nextToSend(items).length > 0; tries += 1) {
      const sent = nextToSend(items);
      asked.push(sent.map(({ id }) => id).join(''));
      const fails = sent.some(({ id }) => id === 'b');
      items = fails
        ? items.map((one) => (sent.includes(one) ? afterFailure(one, failure) : one))
        : items.filter((one) => !sent.includes(one));
    }
    expect(asked).toEqual(['abc', 'abc', 'a', 'b', 'b', 'b', 'c']);
    expect(items.map(({ id, problem: text }) => [id, text])).toEqual([['b', failure]]);
  });

  test('is told from a gate in its place', () => {
    expect([500, 501, 502, 503, 504].map((status) => isOutOfReach({ ...failure, status }))).toEqual([
      false,
      false,
      true,
      true,
      true,
    ]);
  });
});

describe('once somebody is signed in', () => {
  const of = (id: string, personId: string | null, queuedAt = 1) => item(id, queuedAt, { personId });

  test('what another recorded waits for them, and holds up nothing', () => {
    const items = [of('a', 'ola', 1), of('b', 'tom', 2), of('c', null, 3)];
    expect(nextToSend(items, 'tom').map(({ id }) => id)).toEqual(['b']);
    expect(nextToSend([of('a', 'ola', 1), of('c', null, 3)], 'tom').map(({ id }) => id)).toEqual(['c']);
    expect(nextToSend([of('a', 'ola')], 'tom')).toEqual([]);
    expect(nextToSend([of('a', 'ola')], 'ola').map(({ id }) => id)).toEqual(['a']);
  });

  test('where nobody signs in, everything goes', () => {
    expect(ids([of('a', 'ola')])).toEqual(['a']);
  });

  test('being signed out is no refusal: it is sent when somebody has signed in', () => {
    expect(isOutOfReach({ type: '', title: '', status: 401, code: 'signed-out' })).toBe(true);
    expect(isOutOfReach({ type: '', title: '', status: 403, code: 'no-right' })).toBe(false);
  });
});
