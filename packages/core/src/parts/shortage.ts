import type { DataPlate } from '../machine/index.js';
import { kitOf, type ServiceTask } from '../plan/index.js';
import { kitAgainstVan, type StockedPart } from './kit.js';

/** Work that is to be done on one unit. */
export interface Job {
  readonly compressorId: string;
  readonly tag: string;
  readonly plate: DataPlate;
  readonly tasks: readonly ServiceTask[];
}

/** A part of which the van holds less than the work asks for. */
export interface Shortage {
  /** Id in the catalogue; null for a line that no part of it answers. */
  readonly partId: string | null;
  readonly name: string;
  readonly needed: number;
  readonly inVan: number;
  /** Tags of the units that ask for it. */
  readonly tags: readonly string[];
}

/** What the van is short of for all of the work together: one filter in it does not serve two machines. */
export function shortagesOf(jobs: readonly Job[], parts: readonly StockedPart[]): readonly Shortage[] {
  const wanted = new Map<string, Shortage>();
  for (const { compressorId, tag, plate, tasks } of jobs) {
    for (const { part, count, answeredBy } of kitAgainstVan(kitOf(tasks), parts, compressorId, plate)) {
      const key = answeredBy?.id ?? part.toLowerCase();
      const before = wanted.get(key);
      wanted.set(key, {
        partId: answeredBy?.id ?? null,
        name: answeredBy?.name ?? part,
        needed: (before?.needed ?? 0) + count,
        inVan: answeredBy?.inVan ?? 0,
        tags: [...new Set([...(before?.tags ?? []), tag])],
      });
    }
  }
  return [...wanted.values()]
    .filter(({ needed, inVan }) => needed > inVan)
    .sort((a, b) => Number(a.partId === null) - Number(b.partId === null) || b.tags.length - a.tags.length);
}
