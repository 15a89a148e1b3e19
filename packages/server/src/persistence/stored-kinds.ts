import './entities/compressor.entity.js';
import './entities/correction.entity.js';
import './entities/fill.entity.js';
import './entities/follow-up.entity.js';
import './entities/hour-facts.entity.js';
import './entities/measurement.entity.js';
import './entities/model-note.entity.js';
import './entities/part.entity.js';
import './entities/plan-facts.entity.js';
import './entities/point.entity.js';
import './entities/repair.entity.js';
import './entities/service.entity.js';
import './entities/stop.entity.js';
import './entities/site.entity.js';
import './entities/vessel.entity.js';
import './entities/visit.entity.js';
import { factTables, type FactTable, type Migration } from './entities/fact-table.js';
import { migrations } from './migrations/index.js';

/** A kind of fact with the table that it is stored in. */
export interface StoredKind extends FactTable {
  /** What is sent of one, where nothing but its contract is asked of it; others have a service of their own. */
  readonly contract?: new () => object;
}

/** Every kind of fact that this release keeps. */
export const storedKinds: readonly StoredKind[] = factTables();

/** Everything that was ever done to the tables; the moment in its name says in which order. */
export function migrationsOf(kinds: readonly StoredKind[] = storedKinds): Migration[] {
  return [...migrations, ...kinds.flatMap(({ madeBy }) => madeBy ?? [])];
}

/** The kinds of fact that an application keeps, by code, table and collection. */
export class StoredKinds {
  private readonly byCode: ReadonlyMap<string, StoredKind>;
  private readonly byEntity: ReadonlyMap<unknown, StoredKind>;

  constructor(readonly all: readonly StoredKind[]) {
    this.byCode = new Map(all.map((one) => [one.kind.kind, one]));
    this.byEntity = new Map(all.map((one) => [one.entity, one]));
  }

  find(code: string): StoredKind | undefined {
    return this.byCode.get(code);
  }

  ofEntity(entity: unknown): StoredKind {
    const stored = this.byEntity.get(entity);
    if (!stored) throw new Error(`${String(entity)} is the table of no kind of fact.`);
    return stored;
  }

  /** The kind whose facts are found at a path below their compressor. */
  inCollection(path: string): StoredKind | undefined {
    return this.all.find(({ kind }) => kind.collection === path);
  }
}
