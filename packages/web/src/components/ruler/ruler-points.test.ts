import { FIRST_METER } from '@entretien/core/hours';
import fc from 'fast-check';
import { clusterPins, niceStep, placeLabels, serviceOffset, taskOffset, xOf } from './ruler-points.js';

const now = { at: Date.UTC(2026, 10, 24, 12), runHours: 487, hoursPerDay: 2, meter: FIRST_METER };
const byHours = { ruledBy: 'hours', remainingHours: 13, likelyOn: '2026-12-01' } as const;
const byDate = { ruledBy: 'calendar', remainingHours: 40, likelyOn: '2026-12-04' } as const;

describe('where a task stands', () => {
  test('in hours: what is left to run, or what will have been run by its date', () => {
    expect(taskOffset(byHours, 'hours', now)).toBe(13);
    expect(taskOffset(byDate, 'hours', now)).toBe(20);
  });

  test('in days: the hours left at present use, or the date', () => {
    expect(taskOffset(byHours, 'days', now)).toBe(6.5);
    expect(taskOffset(byDate, 'days', now)).toBe(10);
    expect(taskOffset({ ...byHours, remainingHours: -4, likelyOn: '2026-11-22' }, 'days', now)).toBe(-2);
  });

  test('an idle machine has no place for a date on a ruler of hours', () => {
    expect(taskOffset(byDate, 'hours', { ...now, hoursPerDay: 0 })).toBeNull();
    expect(taskOffset(byDate, 'days', { ...now, hoursPerDay: 0 })).toBe(10);
    expect(taskOffset({ ruledBy: null, remainingHours: null, likelyOn: null }, 'days', now)).toBeNull();
  });

  test('a service lies back by its hours or its days', () => {
    const done = { doneAt: '2026-11-14T12:00:00Z', runHours: 466 };
    expect(serviceOffset(done, 'hours', now)).toBe(-21);
    expect(serviceOffset(done, 'days', now)).toBe(-10);
    expect(serviceOffset({ ...done, runHours: null }, 'hours', now)).toBeNull();
  });

  test('pixels follow the view', () => {
    expect(xOf(0, { from: -50, to: 150 }, 800)).toBe(200);
  });
});

describe('pins', () => {
  test('close ones become one, the most pressing in front', () => {
    const pins = clusterPins(
      [
        { x: 100, task: 'belt', urgency: 2 },
        { x: 108, task: 'oil', urgency: 1 },
        { x: 130, task: 'valves', urgency: 3 },
      ],
      14,
    );
    expect(pins).toEqual([
      { x: 108, tasks: ['oil', 'belt'] },
      { x: 130, tasks: ['valves'] },
    ]);
  });

  test('none is lost, whatever the places', () => {
    const places = fc.array(fc.double({ min: 0, max: 500, noNaN: true }), { maxLength: 30 });
    fc.assert(
      fc.property(places, (xs) => {
        const pins = clusterPins(
          xs.map((x, index) => ({ x, task: index, urgency: index })),
          14,
        );
        expect(pins.flatMap((pin) => pin.tasks).sort((a, b) => a - b)).toEqual(xs.map((_, index) => index));
      }),
    );
  });
});

describe('labels', () => {
  const label = (x: number, width: number, isPressing = false) => ({
    x,
    left: x,
    right: x + width,
    isPressing,
  });

  test('stand next to the ruler where there is room', () => {
    expect(placeLabels([label(0, 80), label(100, 80)], 3)).toEqual([0, 0]);
  });

  test('close ones make a staircase, the leftmost highest', () => {
    expect(placeLabels([label(0, 80), label(30, 80), label(60, 80)], 3)).toEqual([2, 1, 0]);
  });

  test('without room, what does not press goes without', () => {
    expect(placeLabels([label(0, 80, true), label(30, 80), label(60, 80, true)], 2)).toEqual([1, null, 0]);
  });

  test('never cover one another, nor does a lead line run through one', () => {
    const labels = fc
      .array(
        fc.record({
          x: fc.integer({ min: 0, max: 900 }),
          width: fc.integer({ min: 20, max: 160 }),
          isPressing: fc.boolean(),
        }),
        { maxLength: 25 },
      )
      .map((list) =>
        list.map(({ x, width, isPressing }) => ({
          x,
          left: Math.min(x, 900 - width),
          right: Math.min(x, 900 - width) + width,
          isPressing,
        })),
      );
    fc.assert(
      fc.property(labels, fc.integer({ min: 1, max: 4 }), (list, levels) => {
        const shown = placeLabels(list, levels).flatMap((level, index) =>
          level === null ? [] : [{ level, ...list[index]! }],
        );
        for (const a of shown) {
          for (const b of shown) {
            if (a === b) continue;
            if (a.level === b.level) expect(a.right <= b.left || b.right <= a.left).toBe(true);
            if (a.level > b.level) expect(a.x > b.left && a.x < b.right).toBe(false);
          }
        }
      }),
    );
  });
});

test.each([
  [200, 800, 80, 20],
  [1000, 850, 90, 200],
  [12, 390, 80, 5],
])('a scale of %d over %d px with labels %d px apart steps by %d', (span, width, least, step) => {
  expect(niceStep(span, width, least)).toBe(step);
});
