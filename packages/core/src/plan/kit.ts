import type { KitItem, ServiceTask } from './service-plan.js';

/** Everything the tasks take, each part once with its count; what a covered task takes is not taken twice. */
export function kitOf(tasks: readonly ServiceTask[]): readonly KitItem[] {
  const covered = new Set(tasks.flatMap(({ covers }) => covers ?? []));
  const counts = new Map<string, number>();
  for (const { code, kit } of tasks) {
    if (covered.has(code)) continue;
    for (const { part, count } of kit ?? []) counts.set(part, (counts.get(part) ?? 0) + count);
  }
  return [...counts].map(([part, count]) => ({ part, count }));
}
