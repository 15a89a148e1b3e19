import type { FleetCompressorView } from '@entretien/contracts';
import { families, type Family } from '@entretien/core/machine';
import type { TaskState } from '@entretien/core/plan';

export interface RegisterFilter {
  readonly text: string;
  readonly family: Family | null;
  readonly siteId: string | null;
  readonly state: 'late' | 'due' | 'nearing' | 'unknown' | null;
}

/** Reads a filter out of the address, so that a filtered register can be shared and reloaded. */
export function filterOf(search: URLSearchParams): RegisterFilter {
  const states = ['late', 'due', 'nearing', 'unknown'] as const;
  return {
    text: search.get('find') ?? '',
    family: families.find((family) => family === search.get('family')) ?? null,
    siteId: search.get('site'),
    state: states.find((state) => state === search.get('state')) ?? null,
  };
}

const stateOf: Record<NonNullable<RegisterFilter['state']>, TaskState> = {
  late: 'overdue',
  due: 'due',
  nearing: 'nearing',
  unknown: 'unknown',
};

const pressing: ReadonlySet<TaskState> = new Set(['overdue', 'due', 'nearing']);

/** Whether a unit is among those asked for; every word typed must be found on it, or in what is due. */
export function matches(unit: FleetCompressorView, filter: RegisterFilter): boolean {
  const work = unit.tasks.filter(({ state }) => pressing.has(state)).map(({ name }) => name);
  const text = [unit.tag, unit.siteName, unit.description, ...work].join(' ').toLowerCase();
  const typed = filter.text.toLowerCase().split(/\s+/).filter(Boolean);
  return (
    typed.every((word) => text.includes(word)) &&
    (filter.family === null || unit.family === filter.family) &&
    (filter.siteId === null || unit.siteId === filter.siteId) &&
    (filter.state === null || unit.counts[stateOf[filter.state]] > 0)
  );
}
