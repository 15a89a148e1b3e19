import { originNames } from './describe-explanation.js';
import { formatInterval, describeTriggers } from './describe-trigger.js';
import type { ServicePlan, ServiceTask } from './service-plan.js';
import { formatStored, type FormatQuantity } from './format-figures.js';

/** What becomes different for one task. */
export interface TaskDifference {
  readonly code: string;
  readonly name: string;
  readonly kind: 'added' | 'removed' | 'changed';
  /** Each change in words, as before → after. */
  readonly changes: readonly string[];
}

/** What changes from one plan to another, task by task; empty when nothing does. */
export function planDifference(
  before: ServicePlan,
  after: ServicePlan,
  format: FormatQuantity = formatStored,
): readonly TaskDifference[] {
  const old = new Map(before.tasks.map((task) => [task.code, task]));
  const present = new Set(after.tasks.map(({ code }) => code));
  const differences: TaskDifference[] = [];
  for (const task of after.tasks) {
    const was = old.get(task.code);
    const { code, name } = task;
    if (!was) {
      differences.push({ code, name, kind: 'added', changes: [formatInterval(task, format)] });
      continue;
    }
    const changes = [
      ...changesOf(was, task, format),
      ...factorChanges(before.overrides?.[code], after.overrides?.[code]),
    ];
    if (changes.length > 0) differences.push({ code, name, kind: 'changed', changes });
  }
  for (const task of before.tasks) {
    const { code, name } = task;
    if (!present.has(code))
      differences.push({ code, name, kind: 'removed', changes: [formatInterval(task, format)] });
  }
  return [...differences, ...packageDifferences(before, after)];
}

/** What changes in what belongs together, where a plan says so itself. */
function packageDifferences(before: ServicePlan, after: ServicePlan): readonly TaskDifference[] {
  if (after.packages === undefined && before.packages === undefined) return [];
  const named = ({ packages = [], tasks }: ServicePlan) => {
    const names = new Map(tasks.map(({ code, name }) => [code, name]));
    return new Map(
      packages.map((one) => [
        one.code,
        { name: one.name, text: one.tasks.map((code) => names.get(code) ?? code).join('; ') },
      ]),
    );
  };
  const [was, is] = [named(before), named(after)];
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((code) => {
    const [old, now] = [was.get(code), is.get(code)];
    if (old?.text === now?.text && old?.name === now?.name) return [];
    const changes = [`${old?.text ?? 'nothing'} → ${now?.text ?? 'nothing'}`];
    const kind = old === undefined ? 'added' : now === undefined ? 'removed' : 'changed';
    return [{ code, name: `Package: ${(now ?? old)!.name}`, kind, changes }] as const;
  });
}

function changesOf(was: ServiceTask, is: ServiceTask, format: FormatQuantity): string[] {
  const changes: string[] = [];
  const compare = (label: string, of: (task: ServiceTask) => string) => {
    if (of(was) !== of(is)) changes.push(`${label}${of(was) || 'nothing'} → ${of(is) || 'nothing'}`);
  };
  compare('', (task) => formatInterval(task, format));
  compare('counted ', ({ counting }) => (counting === 'grid' ? 'on the grid' : 'from last done'));
  compare('safety: ', ({ safety }) => (safety ? 'yes' : 'no'));
  compare('covers: ', ({ covers = [] }) => covers.join(', '));
  compare('from: ', ({ origin }) => originNames[origin]);
  compare('other sources: ', ({ others = [] }) =>
    others
      .map((other) => `${originNames[other.origin]}: ${describeTriggers(other.triggers, format)}`)
      .join('; '),
  );
  compare('chosen because: ', ({ choice }) => (choice ? `${choice.because} (${choice.by})` : ''));
  compare('minutes: ', ({ minutes }) => String(minutes));
  compare('state: ', ({ isolation }) => isolation.replaceAll('-', ' '));
  compare('opens: ', ({ opens = [] }) => opens.join(', '));
  compare('how: ', ({ how = '' }) => how);
  compare('nearing from: ', (task) =>
    task.triggers
      .flatMap((one) => ('nearing' in one && one.nearing !== undefined ? [one.nearing] : []))
      .join(', '),
  );
  return changes;
}

type Overrides = NonNullable<ServicePlan['overrides']>[string] | undefined;

function factorChanges(was: Overrides, is: Overrides): string[] {
  const kinds = [
    ...new Set([...Object.keys(was ?? {}), ...Object.keys(is ?? {})]),
  ] as (keyof NonNullable<Overrides>)[];
  return kinds.flatMap((kind) => {
    const [old, now] = [was?.[kind]?.times, is?.[kind]?.times];
    return old === now ? [] : [`${kind}: ${old ?? 'by rule'} → ${now ?? 'by rule'}`];
  });
}
