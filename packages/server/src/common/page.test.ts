import { pageOf, writeCursor } from './page.js';

const list = ['a', 'b', 'c', 'd', 'e'].map((id) => ({ id }));
const page = (query: { limit?: string; cursor?: string }, of = list) => pageOf(of, query, ({ id }) => id);

test('a list in pages, each item once', () => {
  const seen: string[] = [];
  let cursor: string | null = null;
  do {
    const { items, nextCursor } = page({ limit: '2', ...(cursor === null ? {} : { cursor }) });
    seen.push(...items.map(({ id }) => id));
    cursor = nextCursor;
  } while (cursor !== null);
  expect(seen).toEqual(['a', 'b', 'c', 'd', 'e']);
});

test('what came in between, or left, keeps nobody from going on', () => {
  const { nextCursor } = page({ limit: '2' });
  const cursor = nextCursor!;
  expect(page({ cursor }, [{ id: 'aa' }, ...list]).items.map(({ id }) => id)).toEqual(['c', 'd', 'e']);
  const without = list.filter(({ id }) => id !== 'b');
  expect(page({ cursor }, without).items.map(({ id }) => id)).toEqual(['d', 'e']);
  expect(page({ cursor }, [])).toEqual({ items: [], nextCursor: null });
});

test.each([
  ['no text at all', '%'],
  ['another list’s', writeCursor(['a'])],
  ['below nothing', writeCursor(['z', -1])],
  ['half an item', writeCursor(['z', 0.5])],
])('a cursor that is none, %s: refused', (_name, cursor) => {
  expect(() => page({ cursor })).toThrow('That is no cursor of this list');
});
