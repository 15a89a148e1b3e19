import { day, history, read } from './fixtures.js';
import { meterQuestion } from './meter-question.js';

describe('whether a machine known from new has run its hours since new', () => {
  test.each([
    ['first read long after: asked', { readings: [read(90, 1500)] }, 1500],
    ['the first figure is asked about, not the last', { readings: [read(90, 1500), read(120, 1700)] }, 1500],
    ['read within the first weeks: it is new', { readings: [read(20, 100)] }, null],
    ['hardly run: not worth asking', { readings: [read(90, 40)] }, null],
    ['more than the clock allows: it is no meter of its own life', { readings: [read(90, 9900)] }, null],
    ['somebody answered', { readings: [read(90, 1500)], meterFrom: 'new' }, null],
    ['its history is not known anyway', { readings: [read(90, 1500)], history: 'unknown' }, null],
    ['never read', {}, null],
  ] as const)('%s', (_what, more, asked) => {
    expect(meterQuestion(history(more), day(130))).toBe(asked);
  });
});
