import fc from 'fast-check';
import { comingPoints } from './coming.js';
import { explain } from './explain.js';
import { day, done, history, measured, read, task } from './fixtures.js';
import type { Deferral, StartingPointFact, CompressorHistory } from './history.js';
import type { ServicePlan, ServiceTask, Trigger } from './service-plan.js';
import { standing } from './standing.js';

const hoursTrigger = fc
  .record({ every: fc.integer({ min: 20, max: 4000 }), first: fc.option(fc.integer({ min: 10, max: 400 })) })
  .map(({ every, first }): Trigger => ({ kind: 'hours', every, ...(first === null ? {} : { first }) }));
const calendarTrigger = fc
  .oneof(
    fc.integer({ min: 1, max: 36 }).map((months) => ({ months })),
    fc.integer({ min: 3, max: 400 }).map((days) => ({ days })),
  )
  .map((every): Trigger => ({ kind: 'calendar', every }));
const seasonTrigger = fc
  .record({ warm: fc.integer({ min: 10, max: 500 }), cold: fc.integer({ min: 10, max: 500 }) })
  .map((lives): Trigger => ({ kind: 'season', ...lives }));
const milestoneTrigger = fc
  .uniqueArray(fc.integer({ min: 20, max: 6000 }), { minLength: 1, maxLength: 4 })
  .map((at): Trigger => ({ kind: 'milestone', at: [...at].sort((a, b) => a - b) }));
const conditionTrigger = fc.double({ min: 0.3, max: 3, noNaN: true }).map((limit): Trigger => ({
  kind: 'condition',
  check: 'separator-drop',
  limit,
}));
const waterTrigger = fc
  .record({ moistureCapacityG: fc.integer({ min: 20, max: 400 }) })
  .map(({ moistureCapacityG }): Trigger => ({
    kind: 'water',
    moistureCapacityG,
    fadLpm: 200,
    maintainingValveBar: 150,
    warmC: 30,
    coldC: 15,
  }));
const heldTrigger = fc
  .record({
    trigger: fc.oneof(hoursTrigger, conditionTrigger),
    floor: fc.oneof(hoursTrigger, calendarTrigger),
  })
  .map((parts) => ({ kind: 'not-before', ...parts }) as Trigger);
const anyTrigger = fc.oneof(
  hoursTrigger,
  calendarTrigger,
  seasonTrigger,
  milestoneTrigger,
  conditionTrigger,
  waterTrigger,
  heldTrigger,
);
const counting = fc.constantFrom('last-done' as const, 'grid' as const);

const now = 400;
/** A machine's past: four readings of it, what was done and measured, what was put off and set. */
const anyHistory = fc
  .record({
    perDay: fc.double({ min: 0, max: 20, noNaN: true }),
    isUnknown: fc.boolean(),
    services: fc.array(
      fc.record({ on: fc.integer({ min: 1, max: now - 1 }), code: fc.constantFrom('small', 'big', 'other') }),
      { maxLength: 6 },
    ),
    drops: fc.array(fc.double({ min: 0.1, max: 1.2, noNaN: true }), { maxLength: 6 }),
    set: fc.option(fc.integer({ min: 1, max: now - 1 })),
    deferredOn: fc.option(fc.integer({ min: 300, max: now - 1 })),
  })
  .map(({ perDay, isUnknown, services, drops, set, deferredOn }): CompressorHistory => {
    const readings = [0, 120, 260, now].map((on) => read(on, Math.round(on * perDay)));
    const startingPoints: StartingPointFact[] =
      set === null ? [] : [{ task: 'small', setAt: day(set), recordedAt: day(set), basis: 'inspection' }];
    const deferrals: Deferral[] =
      deferredOn === null
        ? []
        : [
            {
              task: 'small',
              deferredAt: day(deferredOn),
              recordedAt: day(deferredOn),
              untilOn: '2027-06-01',
              reason: 'No part',
            },
          ];
    return history({
      history: isUnknown ? 'unknown' : 'new',
      readings,
      services: services.map(({ on, code }) => done(on, [code])),
      measurements: drops.map((value, index) => measured(50 + index * 50, 'separator-drop', value)),
      startingPoints,
      deferrals,
    });
  });

function find(plan: ServicePlan, past: CompressorHistory, code: string, at = day(now)) {
  return standing(plan, past, at).tasks.find((one) => one.code === code)!;
}

const pressing = ['due', 'overdue'];

test('a bigger task never leaves a covered one due', () => {
  const pair = fc.record({
    small: fc.array(fc.oneof(hoursTrigger, calendarTrigger, seasonTrigger), { minLength: 1, maxLength: 2 }),
    big: fc.array(fc.oneof(hoursTrigger, calendarTrigger), { minLength: 1, maxLength: 2 }),
    counts: fc.tuple(counting, counting),
  });
  fc.assert(
    fc.property(pair, anyHistory, ({ small, big, counts }, past) => {
      const plan = {
        tasks: [
          task('small', { triggers: small, counting: counts[0] }),
          task('big', { triggers: big, counting: counts[1], covers: ['small'] }),
        ],
      };
      const after = { ...past, services: [...past.services, done(now, ['big'])] };
      expect(pressing).not.toContain(find(plan, after, 'small').state);
      expect(find(plan, after, 'small').startedBy).toBe('done');
    }),
    { numRuns: 300 },
  );
});

test('a task that is covered comes behind one that presses as much, and only the bigger shows', () => {
  fc.assert(
    fc.property(hoursTrigger, hoursTrigger, anyHistory, (small, big, past) => {
      const plan = {
        tasks: [task('small', { triggers: [small] }), task('big', { triggers: [big], covers: ['small'] })],
      };
      const [first, second] = standing(plan, { ...past, deferrals: [] }, day(now)).tasks;
      if (second?.coveredBy) {
        expect([first!.code, second.code]).toEqual(['big', 'small']);
        expect(pressing).toContain(first!.state);
      }
    }),
    { numRuns: 200 },
  );
});

test('adding a trigger never makes a task due later', () => {
  fc.assert(
    fc.property(
      fc.array(anyTrigger, { minLength: 1, maxLength: 3 }),
      anyTrigger,
      counting,
      anyHistory,
      (triggers, more, counts, past) => {
        const withTriggers = (all: readonly Trigger[]): ServicePlan => ({
          tasks: [task('small', { triggers: all, counting: counts })],
        });
        const before = find(withTriggers(triggers), past, 'small');
        const after = find(withTriggers([...triggers, more]), past, 'small');
        if (before.likelyAt !== null) expect(after.likelyAt!).toBeLessThanOrEqual(before.likelyAt);
        if (before.earlyAt !== null) expect(after.earlyAt!).toBeLessThanOrEqual(before.earlyAt);
        if (before.dueAtHours !== null) expect(after.dueAtHours!).toBeLessThanOrEqual(before.dueAtHours);
        if (pressing.includes(before.state)) expect(pressing).toContain(after.state);
      },
    ),
    { numRuns: 500 },
  );
});

test('putting off never hides a safety task', () => {
  const anyDeferral = fc.record({
    on: fc.integer({ min: 1, max: now }),
    untilHours: fc.option(fc.integer({ min: 1, max: 20_000 })),
    untilOn: fc.constantFrom(null, '2026-06-01', '2027-02-20', '2029-01-01'),
    risk: fc.constantFrom(null, 'It may burst'),
  });
  fc.assert(
    fc.property(anyTrigger, fc.array(anyDeferral, { maxLength: 3 }), anyHistory, (trigger, wishes, past) => {
      const safety = (more: Partial<ServiceTask>) => ({
        tasks: [
          task('small', { triggers: [trigger], ...more }),
          task('other', { triggers: [{ kind: 'hours', every: 9000 }] }),
        ],
      });
      const deferrals = wishes.map(({ on, ...wish }): Deferral => ({
        task: 'small',
        deferredAt: day(on),
        recordedAt: day(on),
        reason: 'Later',
        ...wish,
      }));
      const plan = safety({ safety: true });
      const plain = find(plan, { ...past, deferrals: [] }, 'small');
      const { tasks } = standing(plan, { ...past, deferrals }, day(now));
      const waiting = tasks.find(({ code }) => code === 'small')!;
      if (!pressing.includes(plain.state)) return;
      // In sight: before everything that is not due itself, and with its date and its share untouched.
      const ahead = tasks.slice(0, tasks.indexOf(waiting));
      expect(ahead.every(({ state }) => pressing.includes(state))).toBe(true);
      expect(waiting).toMatchObject({ likelyAt: plain.likelyAt, usedFraction: plain.usedFraction });
      if (waiting.state === 'put-off') expect(waiting.deferral!.risk).toBe('It may burst');
      else expect(waiting.state).toBe(plain.state);
    }),
    { numRuns: 400 },
  );
});

test('what the explanation says is due is what the standing says', () => {
  fc.assert(
    fc.property(
      fc.array(anyTrigger, { minLength: 1, maxLength: 4 }),
      counting,
      anyHistory,
      (triggers, counts, past) => {
        const plan = { tasks: [task('small', { triggers, counting: counts })] };
        const explained = explain(plan, 'small', past, day(now))!;
        const due = find(plan, past, 'small');
        expect(explained.due).toEqual(due);
        const ruling = explained.triggers.find(({ isRuling }) => isRuling);
        expect(ruling?.likelyAt ?? null).toBe(due.likelyAt);
        const dates = explained.triggers.flatMap(({ likelyAt }) => likelyAt ?? []);
        expect(due.likelyAt).toBe(dates.length === 0 ? null : Math.min(...dates));
        const points = explained.triggers.flatMap(({ dueAtHours }) => dueAtHours ?? []);
        expect(due.dueAtHours).toBe(points.length === 0 ? null : Math.min(...points));
      },
    ),
    { numRuns: 400 },
  );
});

test('the standing of a moment does not know what came after it', () => {
  fc.assert(
    fc.property(anyTrigger, anyHistory, fc.integer({ min: 1, max: now }), (trigger, past, at) => {
      const plan = { tasks: [task('small', { triggers: [trigger] })] };
      const upToThen: CompressorHistory = {
        ...past,
        readings: past.readings.filter(({ takenAt }) => takenAt <= day(at)),
        services: past.services.filter(({ doneAt }) => doneAt <= day(at)),
        measurements: past.measurements!.filter(({ takenAt }) => takenAt <= day(at)),
        startingPoints: past.startingPoints!.filter(({ setAt }) => setAt <= day(at)),
        deferrals: past.deferrals!.filter(({ deferredAt }) => deferredAt <= day(at)),
      };
      expect(standing(plan, past, day(at)).tasks).toEqual(standing(plan, upToThen, day(at)).tasks);
    }),
    { numRuns: 200 },
  );
});

test('coming points: the first is the due point, the rest follow in order', () => {
  fc.assert(
    fc.property(
      fc.oneof(hoursTrigger, calendarTrigger, seasonTrigger),
      counting,
      anyHistory,
      (trigger, counts, past) => {
        const plan = { tasks: [task('small', { triggers: [trigger], counting: counts })] };
        const due = find(plan, past, 'small');
        const points = comingPoints(plan, past, day(now), 3).get('small')!;
        expect(points.length).toBeLessThanOrEqual(3);
        if (points.length === 0) return;
        expect(points[0]!.at).toBe(due.likelyAt);
        const moments = points.flatMap(({ at }) => at ?? []);
        expect(moments).toEqual([...moments].sort((a, b) => a - b));
      },
    ),
    { numRuns: 200 },
  );
});
