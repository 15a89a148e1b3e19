import { checksFor } from '../checks/index.js';
import type { DataPlate } from '../machine/index.js';
import { defaultPlan, usualOpening, usualVerification } from '../plan/index.js';
import { ourEntryKinds } from './entries.js';
import type { Procedure } from './procedure.js';
import { procedures } from './procedures.js';
import type { RepairEntry } from './repair.js';

/** The guide that a step follows, by what it says: `guide/step`. */
function guideOf({ kind, text }: Pick<RepairEntry, 'kind' | 'text'>): Procedure | undefined {
  return kind === 'step' ? procedures.find(({ code }) => text.startsWith(`${code}/`)) : undefined;
}

/**
 * What an entry opens.
 *
 * @returns empty where nothing is opened by it; null where nobody said: then everything
 */
export function openedByEntry(
  entry: Pick<RepairEntry, 'kind' | 'text' | 'opens'>,
  plate: DataPlate,
  kinds = ourEntryKinds,
): readonly string[] | null {
  if (!kinds.get(entry.kind)?.mayOpen) return [];
  const guide = guideOf(entry);
  if (guide) return guide.opens?.(plate) ?? null;
  return entry.opens ?? null;
}

/**
 * The checks that work on a repair can move: those of the guides that were followed, of what was opened, and of
 * the station of the fault.
 *
 * @returns null where nothing of it is known: then any check
 */
export function checksThatProve(
  entries: readonly Pick<RepairEntry, 'kind' | 'text' | 'opens'>[],
  station: string | null,
  plate: DataPlate,
): readonly string[] | null {
  const found = new Set<string>();
  const add = (codes: readonly string[]) => codes.forEach((code) => found.add(code));
  const guides = new Set(entries.flatMap((entry) => guideOf(entry) ?? []));
  for (const { provedBy, task } of guides) {
    add([provedBy]);
    if (task !== undefined) add(usualVerification(task, plate));
  }
  const opened = new Set(entries.flatMap(({ opens }) => opens ?? []));
  for (const { code } of defaultPlan(plate, {}).tasks) {
    const opens = usualOpening(code, plate) ?? [];
    if (opens.some((one) => one !== 'outside' && opened.has(one))) add(usualVerification(code, plate));
  }
  if (station !== null && guides.size === 0) {
    add(checksFor(plate).flatMap((check) => (check.station(plate) === station ? [check.code] : [])));
    for (const { code, station: place } of defaultPlan(plate, {}).tasks) {
      if (place === station) add(usualVerification(code, plate));
    }
  }
  return found.size === 0 ? null : [...found];
}
