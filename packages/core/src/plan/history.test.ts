import { day, done, history, read } from './fixtures.js';
import { historyUpTo } from './history.js';

test('what was withdrawn counts until it was known to be wrong; nothing and null are no withdrawal', () => {
  const one = { ...done(10, ['oil']), voidedAt: null };
  const two = { ...done(11, ['oil']), voidedAt: undefined };
  const wrong = { ...done(12, ['oil']), voidedAt: day(20) };
  const past = history({ readings: [read(0, 0)], services: [one, two, wrong] });
  const known = (at: number, knownAt = at) => historyUpTo(past, day(at), day(knownAt)).services;
  expect(known(15)).toEqual([one, two, wrong]);
  expect(known(25)).toEqual([one, two]);
  expect(known(25, 19)).toEqual([one, two, wrong]);
  expect(known(10)).toEqual([one]);
});
