import { day, done, history, read, task } from './fixtures.js';
import { standing } from './standing.js';
import type { ServiceTask } from './service-plan.js';

/** 8 h a day. */
const upTo = (days: number) => [read(0, 0), read(days, days * 8)];
const order = (tasks: readonly ServiceTask[], at: number, more: object = {}) =>
  standing({ tasks: [...tasks] }, history({ readings: upTo(at), ...more }), day(at)).tasks;
const every = (hours: number) => ({ triggers: [{ kind: 'hours', every: hours }] as const });

describe('what presses most stands first', () => {
  test('of what is due, what keeps somebody safe before what is longer due', () => {
    const both = [task('oil', every(380)), task('relief', { ...every(395), safety: true })];
    expect(order(both, 50).map(({ code }) => code)).toEqual(['relief', 'oil']);
  });

  test('of what is not due, the earlier date first', () => {
    const tasks = [task('later', every(900)), task('sooner', { ...every(800) })];
    expect(order(tasks, 50).map(({ code }) => code)).toEqual(['sooner', 'later']);
  });
});

describe('what a bigger task covers', () => {
  const big = task('big', { ...every(400), covers: ['small'] });

  test('is covered while the bigger one is due, and comes last', () => {
    const tasks = [task('small', every(395)), big, task('other', every(5000))];
    const found = order(tasks, 51);
    expect(found.find(({ code }) => code === 'small')!.coveredBy).toBe('big');
    expect(found.at(-1)!.code).toBe('small');
  });

  test('what is not near yet is left alone', () => {
    const found = order([task('small', every(5000)), big], 51);
    expect(found.find(({ code }) => code === 'small')!.coveredBy).toBeNull();
  });

  test('nothing is covered while the bigger one is not due', () => {
    const found = order([task('small', every(380)), task('big', { ...every(2000), covers: ['small'] })], 50);
    expect(found.find(({ code }) => code === 'small')!.coveredBy).toBeNull();
  });

  test('the bigger one is as late as the latest that it covers', () => {
    const found = order([task('small', every(100)), big], 51);
    expect(found.find(({ code }) => code === 'big')!.state).toBe('overdue');
  });
});

describe('work for once', () => {
  const once = task('break-in', { ...every(50), once: true });

  test('is asked for until it is done, and of a machine whose history nobody knows never', () => {
    expect(order([once], 50)).toHaveLength(1);
    expect(order([once], 50, { services: [done(6, ['break-in'])] })).toHaveLength(0);
    expect(order([once], 50, { history: 'unknown' })).toHaveLength(0);
  });
});

test('what only nears can be put off, too', () => {
  const tasks = [task('oil', every(410))];
  const deferral = {
    task: 'oil',
    deferredAt: day(49),
    recordedAt: day(49),
    reason: 'No part',
    untilHours: 900,
  };
  expect(order(tasks, 50)[0]!.state).toBe('nearing');
  expect(order(tasks, 50, { deferrals: [deferral] })[0]!.state).toBe('put-off');
});

test('a safety task that nobody saw is due, another is not known', () => {
  const tasks = [task('oil'), task('relief', { safety: true })];
  const states = Object.fromEntries(
    order(tasks, 50, { history: 'unknown' }).map(({ code, state }) => [code, state]),
  );
  expect(states).toEqual({ oil: 'unknown', relief: 'due' });
});
