import type { ServicePlan } from '@entretien/core/plan';
import { usePlanDrafts } from './plan-draft.js';

const KEY = 'entretien-plan-drafts';
const plan = (trigger: object) =>
  ({ tasks: [{ code: 'cartridge', triggers: [trigger] }] }) as unknown as ServicePlan;

test('a draft is kept by its machine, and dropped with nothing else', () => {
  const { keep, drop } = usePlanDrafts.getState();
  keep('one', { basedOn: 1, plan: plan({ kind: 'hours', every: 500 }), saveId: 'a' });
  keep('two', { basedOn: 2, plan: plan({ kind: 'hours', every: 900 }), saveId: 'b' });
  drop('one');
  expect(Object.keys(usePlanDrafts.getState().byCompressor)).toEqual(['two']);
  expect(localStorage.getItem(KEY)).toContain('"every":900');
});

test('a draft that release 0.3 left on the device is taken up by today’s names', async () => {
  const water = { kind: 'water', takesG: 48, fadLpm: 255, holdingBar: 150, warmC: 32, coldC: 18 };
  const left = { byUnit: { old: { basedOn: 3, plan: plan(water), saveId: 'c' } } };
  localStorage.setItem(KEY, JSON.stringify({ state: left, version: 0 }));
  await usePlanDrafts.persist.rehydrate();
  const draft = usePlanDrafts.getState().byCompressor['old']!;
  expect(draft).toMatchObject({ basedOn: 3, saveId: 'c' });
  expect(draft.plan.tasks[0]!.triggers).toEqual([
    { kind: 'water', moistureCapacityG: 48, fadLpm: 255, maintainingValveBar: 150, warmC: 32, coldC: 18 },
  ]);
});

test('nothing left is nothing kept', async () => {
  localStorage.setItem(KEY, JSON.stringify({ state: {}, version: 0 }));
  await usePlanDrafts.persist.rehydrate();
  expect(usePlanDrafts.getState().byCompressor).toEqual({});
});
