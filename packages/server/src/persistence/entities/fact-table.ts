import type { FactKind } from '@entretien/core/facts';
import type { FactColumns } from './columns.js';

export type FactEntity = new () => FactColumns;

const tables = new Map<FactEntity, FactKind>();

/** The table of a kind of fact. */
export function FactTable(kind: FactKind): (entity: FactEntity) => void {
  return (entity) => void tables.set(entity, kind);
}

/** Every table of facts that has been declared. */
export function factTables(): ReadonlyMap<FactEntity, FactKind> {
  return tables;
}
