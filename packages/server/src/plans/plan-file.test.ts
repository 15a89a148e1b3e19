import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { families, type DataPlate } from '@entretien/core/machine';
import {
  defaultPlan,
  packagesOf,
  planFileOf,
  planFileSchema,
  planParts,
  practicesFor,
} from '@entretien/core/plan';
import { Ajv } from 'ajv';

const isPlanFile = new Ajv({ strict: true, strictTypes: false }).compile(planFileSchema);

const plate = (family: DataPlate['family']): DataPlate => ({
  siteId: 's',
  tag: 'T-1',
  family,
  commissionedOn: '2026-01-01',
  history: 'new',
  fadLpm: 255,
  moistureCapacityG: 48,
});

test('the published schema is the one that plans are read by', () => {
  const published = join(process.cwd(), 'docs/plan.schema.json');
  expect(JSON.parse(readFileSync(published, 'utf8'))).toEqual(JSON.parse(JSON.stringify(planFileSchema)));
});

test.each(families)(
  '%s: every default plan, in every practice choice, is a valid file and comes back the same',
  (family) => {
    const one = plate(family);
    for (const practice of practicesFor(one)) {
      for (const { code } of practice.options) {
        const plan = defaultPlan(one, { [practice.code]: code });
        const file = JSON.parse(JSON.stringify(planFileOf(plan, family, 'T-1'))) as never;
        expect([practice.code, code, isPlanFile(file), isPlanFile.errors]).toEqual([
          practice.code,
          code,
          true,
          null,
        ]);
        const { packages, ...rest } = planParts(file);
        expect(rest).toEqual(JSON.parse(JSON.stringify(plan)));
        expect(packages).toEqual(JSON.parse(JSON.stringify(packagesOf(plan, one))));
      }
    }
  },
);

const file = () =>
  JSON.parse(JSON.stringify(planFileOf(defaultPlan(plate('piston')), 'piston'))) as Record<string, never>;
type Edit = (plan: { tasks: Record<string, unknown>[] } & Record<string, unknown>) => void;

test.each<[string, Edit]>([
  ['another format', (plan) => (plan.format = 'csv')],
  ['a later version', (plan) => (plan.version = 2)],
  ['a family nobody builds', (plan) => (plan.family = 'steam')],
  ['no task', (plan) => (plan.tasks = [])],
  ['a task without a name', (plan) => delete plan.tasks[0]!.name],
  ['a blank name', (plan) => (plan.tasks[0]!.name = '  ')],
  ['a name as long as a page', (plan) => (plan.tasks[0]!.name = 'x'.repeat(81))],
  ['a code with spaces', (plan) => (plan.tasks[0]!.code = 'oil change')],
  ['an interval of nothing', (plan) => (plan.tasks[0]!.triggers = [{ kind: 'hours', every: 0 }])],
  ['half a month', (plan) => (plan.tasks[0]!.triggers = [{ kind: 'calendar', every: { months: 0.5 } }])],
  [
    'months and days',
    (plan) => (plan.tasks[0]!.triggers = [{ kind: 'calendar', every: { months: 1, days: 2 } }]),
  ],
  [
    'a thirteenth month',
    (plan) => (plan.tasks[0]!.triggers = [{ kind: 'season', warm: 1, cold: 1, warmMonths: [1, 13] }]),
  ],
  ['something of its own', (plan) => (plan.tasks[0]!.colour = 'blue')],
  ['a factor of nothing', (plan) => (plan.overrides = { 'oil-change': { dust: { times: 0, reason: 'x' } } })],
  ['a factor without reason', (plan) => (plan.overrides = { 'oil-change': { dust: { times: 1 } } })],
])('%s is refused by the schema', (_name, edit) => {
  const plan = file() as never;
  edit(plan);
  expect(isPlanFile(plan)).toBe(false);
});
