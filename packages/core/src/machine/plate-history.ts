import type { Instant } from '../basics/index.js';
import type { DataPlate } from './data-plate.js';

/** A dated change of the data plate: only the fields that changed; null makes a field unknown again. */
export interface PlateChange {
  readonly changedAt: Instant;
  readonly recordedAt: Instant;
  readonly voidedAt?: Instant | null | undefined;
  readonly changes: { readonly [Field in keyof DataPlate]?: DataPlate[Field] | null };
}

/**
 * The data plate as it was at a moment: the registered one with every change up to then laid over it, in
 * the order of happening (recording order breaks a tie, so that arrival order never matters).
 */
export function plateAt(registered: DataPlate, changes: readonly PlateChange[], at: Instant): DataPlate {
  const inForce = changes
    .filter((change) => change.changedAt <= at)
    .sort((a, b) => a.changedAt - b.changedAt || a.recordedAt - b.recordedAt);
  if (inForce.length === 0) return registered;
  const plate: Record<string, unknown> = { ...registered };
  for (const { changes: fields } of inForce) {
    for (const [field, value] of Object.entries(fields)) {
      if (value === null) delete plate[field];
      else if (value !== undefined) plate[field] = value;
    }
  }
  return plate as unknown as DataPlate;
}
