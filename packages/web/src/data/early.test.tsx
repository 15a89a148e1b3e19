import { dropEarly, takeEarly } from './early.js';

const answer = Promise.resolve({} as Response);
beforeEach(() => (window.entretienEarly = { '/api/people': answer }));

test('an answer under way is taken once', () => {
  expect(takeEarly('/api/people', 900)).toBe(answer);
  expect(takeEarly('/api/people', 900)).toBeUndefined();
});

test('what nobody asked for early is asked for now', () => {
  expect(takeEarly('/api/parts', 900)).toBeUndefined();
});

test('one that lay there for long is not taken, now or later', () => {
  expect(takeEarly('/api/people', 31_000)).toBeUndefined();
  expect(takeEarly('/api/people', 900)).toBeUndefined();
});

test('once something is recorded, what was asked before it no longer holds', () => {
  dropEarly();
  expect(takeEarly('/api/people', 900)).toBeUndefined();
});
