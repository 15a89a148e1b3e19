import { families, type DataPlate } from '@entretien/core/machine';
import { defaultPlan, practicesFor, type Trigger } from '@entretien/core/plan';
import { formOf, newTrigger, readTrigger, type TriggerForm } from './trigger-form.js';

function plate(more: Partial<DataPlate> = {}): DataPlate {
  return { siteId: 's', tag: 'T-1', family: 'screw', commissionedOn: '2024-03-01', history: 'new', ...more };
}

const triggers: readonly Trigger[] = [
  { kind: 'hours', every: 500, first: 50, nearing: 20 },
  { kind: 'calendar', every: { months: 3 }, first: { months: 1 } },
  { kind: 'calendar', every: { days: 45 }, nearing: 3 },
  { kind: 'season', warm: 20, cold: 30, warmMonths: [4, 10] },
  { kind: 'milestone', at: [500, 2000] },
  { kind: 'water', moistureCapacityG: 48, fadLpm: 255, maintainingValveBar: 150, warmC: 32, coldC: 18 },
  { kind: 'condition', check: 'separator-drop', limit: 1 },
  { kind: 'condition', check: 'pump-up', limit: 0.8, of: 'baseline' },
  {
    kind: 'not-before',
    trigger: { kind: 'condition', check: 'separator-drop', limit: 0.9 },
    floor: { kind: 'hours', every: 2000 },
  },
  { kind: 'run', when: 'while-running', everyMinutes: 15 },
  { kind: 'run', when: 'at-stop' },
];

test.each(triggers)(
  '%j comes back out of its form as it was, with what the form does not ask for',
  (trigger) => {
    expect(readTrigger(formOf(trigger, plate()), plate(), trigger)).toEqual({ ok: true, trigger });
  },
);

test('every trigger of every default plan, in every practice choice, fits its form', () => {
  for (const family of families) {
    const one = plate({ family, fadLpm: 255, moistureCapacityG: 48 });
    for (const practice of practicesFor(one)) {
      for (const { code } of practice.options) {
        for (const { triggers: all } of defaultPlan(one, { [practice.code]: code }).tasks) {
          for (const trigger of all)
            expect(readTrigger(formOf(trigger, plate()), one, trigger)).toEqual({ ok: true, trigger });
        }
      }
    }
  }
});

describe('bad input gets a sentence beside its field', () => {
  const form = (kind: Trigger['kind'], texts: Record<string, string>): TriggerForm => ({ kind, texts });

  test.each<[TriggerForm, string, RegExp]>([
    [form('hours', { every: '' }), 'every', /Enter a figure/],
    [form('hours', { every: 'often' }), 'every', /\.$/],
    [form('hours', { every: '0' }), 'every', /From 0\.1 to 200,000/],
    [form('hours', { every: '500', first: '-5' }), 'first', /From 0\.1/],
    [form('calendar', { every: '1.5', unit: 'months' }), 'every', /whole number/],
    [form('milestone', { at: '500, 400' }), 'at', /Rising/],
    [form('milestone', { at: '' }), 'at', /Rising/],
    [form('condition', { check: '', limit: '1' }), 'check', /Choose/],
    [form('condition', { check: 'separator-drop', limit: '' }), 'limit', /Enter/],
    [form('run', { when: 'while-running', everyMinutes: '' }), 'everyMinutes', /Enter/],
    [
      {
        ...form('not-before', {}),
        inner: { trigger: form('hours', { every: 'x' }), floor: form('hours', { every: '500' }) },
      },
      'trigger.every',
      /\.$/,
    ],
  ])('%j', (wrong, field, text) => {
    const read = readTrigger(wrong, plate());
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.problems[field]).toMatch(text);
  });
});

test('a new trigger of each kind asks for what it needs, and no more', () => {
  const one = plate({ fadLpm: 255, maintainingValveBar: 150, moistureCapacityG: 48 });
  for (const kind of ['hours', 'calendar', 'season', 'milestone', 'water', 'run'] as const) {
    expect([kind, readTrigger(newTrigger(kind, one), one).ok]).toEqual([kind, true]);
  }
  // A limit is nobody's to guess.
  expect(readTrigger(newTrigger('condition', one), one).ok).toBe(false);
});

test('a comma is understood as a decimal sign', () => {
  const read = readTrigger({ kind: 'season', texts: { warm: '17,5', cold: '30' } }, plate());
  expect(read).toEqual({ ok: true, trigger: { kind: 'season', warm: 17.5, cold: 30 } });
});

test('what a trigger holds begins with what is usual, and may be of another kind', () => {
  const one = plate();
  const form = newTrigger('not-before', one);
  expect(form.inner).toMatchObject({ trigger: { kind: 'condition' }, floor: { texts: { every: '500' } } });
  const read = readTrigger({ ...form, inner: { ...form.inner, trigger: newTrigger('calendar', one) } }, one);
  const trigger = { kind: 'calendar', every: { months: 12 } };
  expect(read).toEqual({
    ok: true,
    trigger: { kind: 'not-before', trigger, floor: { kind: 'hours', every: 500 } },
  });
});

test('the bounds of a form are those of the plan file: an interval of more than 600 months is refused', () => {
  const read = (every: string, unit: string) =>
    readTrigger({ kind: 'calendar', texts: { every, unit, first: '' } }, plate());
  expect(read('600', 'months').ok).toBe(true);
  expect(read('601', 'months')).toEqual({ ok: false, problems: { every: 'From 1 to 600.' } });
  expect(read('18000', 'days').ok).toBe(true);
  expect(read('18001', 'days').ok).toBe(false);
});
