import type { FactKind } from '@entretien/core/facts';
import type { MigrationInterface } from 'typeorm';
import type { FactColumns } from './columns.js';

export type FactEntity = new () => FactColumns;

export type Migration = new () => MigrationInterface;

/** The table of a kind of fact. */
export interface FactTable {
  readonly kind: FactKind;
  readonly entity: FactEntity;
  /** What made the table, where that was all it did; what did more stands in the list of migrations. */
  readonly madeBy?: Migration;
}

const tables: FactTable[] = [];

/** Declares the table of a kind of fact. */
export function FactTable(kind: FactKind, madeBy?: Migration): (entity: FactEntity) => void {
  return (entity) => void tables.push({ kind, entity, ...(madeBy ? { madeBy } : {}) });
}

/** Every table of facts that has been declared. */
export function factTables(): readonly FactTable[] {
  return tables;
}
