import { jest } from '@jest/globals';
import { KEPT_HEADER } from '../sw/answer-to.js';
import { noteAnswer, onAskAgain } from './kept-answers.js';

const [kept, fresh] = [new Headers({ [KEPT_HEADER]: 'yes' }), new Headers()];
const asked = jest.fn();
let stop: () => void;
beforeEach(() => {
  jest.useFakeTimers();
  asked.mockClear();
  stop = onAskAgain(asked);
  Object.defineProperty(globalThis, 'navigator', { value: { onLine: true }, configurable: true });
});
afterEach(() => {
  stop();
  jest.useRealTimers();
});

test('what the device answered is asked for again soon, once however many answers it gave', () => {
  noteAnswer(kept);
  noteAnswer(kept);
  jest.advanceTimersByTime(3999);
  expect(asked).not.toHaveBeenCalled();
  jest.advanceTimersByTime(1);
  expect(asked).toHaveBeenCalledTimes(1);
});

test('as long as it is in vain, it is asked less and less often; the server’s own answer begins anew', () => {
  const waits: number[] = [];
  for (let round = 0; round < 6; round += 1) {
    noteAnswer(kept);
    let waited = 0;
    for (; asked.mock.calls.length === round; waited += 1000) jest.advanceTimersByTime(1000);
    waits.push(waited / 1000);
  }
  expect(waits).toEqual([4, 8, 16, 32, 60, 60]);
  noteAnswer(fresh);
  noteAnswer(kept);
  jest.advanceTimersByTime(4000);
  expect(asked).toHaveBeenCalledTimes(7);
});

test('the server’s own answers are not asked for again, nor is anything without a connection', () => {
  noteAnswer(fresh);
  Object.defineProperty(globalThis, 'navigator', { value: { onLine: false }, configurable: true });
  noteAnswer(kept);
  jest.advanceTimersByTime(120_000);
  expect(asked).not.toHaveBeenCalled();
});
