import { isSameNetwork, networkTurns, type NetworkSet } from './index.js';

const set = (tag: string, runHours: number | null, more: Partial<NetworkSet> = {}): NetworkSet => ({
  id: tag,
  tag,
  turn: null,
  runHours,
  isStopped: false,
  ...more,
});
const lead = { turn: 'lead' } as const;

test.each<[string, NetworkSet[], string | null | undefined, RegExp]>([
  ['one alone', [set('A', 1)], undefined, /^$/],
  // 5 % of 2,000 h are 100 h.
  ['even', [set('A', 2000, lead), set('B', 1900)], null, /even/],
  ['no more even', [set('A', 2000, lead), set('B', 1899)], 'B', /101 h less than A/],
  // 5 % of 10,000 h are 500 h.
  ['even for old sets', [set('A', 10_000, lead), set('B', 9500)], null, /even/],
  ['the lead has run least', [set('A', 100, lead), set('B', 5000)], null, /even/],
  ['three', [set('A', 3000, lead), set('B', 2500), set('C', 2400)], 'C', /600 h less/],
  ['no lead', [set('A', 3000), set('B', 2500)], 'B', /No lead/],
  ['two leads', [set('A', 1, lead), set('B', 2, lead)], null, /both/],
  ['the lead is stopped', [set('A', 1, { ...lead, isStopped: true }), set('B', 9000)], 'B', /takes over/],
  ['the other is stopped', [set('A', 9000, lead), set('B', 1, { isStopped: true })], null, /only one/],
  ['all are stopped', [set('A', 1, { isStopped: true }), set('B', 1, { isStopped: true })], null, /None/],
  ['nobody knows', [set('A', 1, lead), set('B', null)], null, /read them first/],
  [
    'nobody knows, and the lead is stopped',
    [set('A', 1, { ...lead, isStopped: true }), set('B', null)],
    'B',
    /B takes over/,
  ],
])('%s', (_, sets, next, sentence) => {
  const turns = networkTurns(sets);
  expect(turns?.next).toBe(next);
  expect(turns?.sentence ?? '').toMatch(sentence);
});

test('a name is the same however it was typed; no name is none', () => {
  expect(isSameNetwork('Hall  Two', 'hall-two')).toBe(true);
  expect(isSameNetwork('Hall 2', 'Hall 3')).toBe(false);
  expect(isSameNetwork('', '')).toBe(false);
  expect(isSameNetwork(undefined, null)).toBe(false);
});
