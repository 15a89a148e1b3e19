import { Injectable } from '@nestjs/common';
import type Sqlite from 'better-sqlite3';
import { DataSource, type EntityMetadata, type EntityTarget, type ObjectLiteral } from 'typeorm';

type Cell = string | number | null;

/** Something that was written: a fact by its kind, or that one stands no longer, and the compressor that it is about. */
export interface Change {
  readonly kind: string;
  readonly isFact: boolean;
  readonly compressorId: string | null;
}

/**
 * The one way in which anything is written: synchronous transactions on the driver's connection.
 *
 * The driver shares a single connection, so that transactions held open across an `await` would nest, and
 * one's rollback would take another's rows with it. A synchronous transaction cannot be interleaved at all.
 * The statements are made from the entities' own metadata, so that table and column names have one source.
 */
@Injectable()
export class Database {
  private readonly changes: Change[] = [];
  private readonly listeners: ((changes: readonly Change[]) => void)[] = [];
  private depth = 0;
  private readonly statements = new Map<string, Sqlite.Statement>();
  private readonly insertions: Record<string, Map<EntityTarget<ObjectLiteral>, Sqlite.Statement>> = {};
  private runner: Sqlite.Transaction<(work: () => unknown) => unknown> | undefined;

  constructor(private readonly dataSource: DataSource) {}

  private get connection(): Sqlite.Database {
    return (this.dataSource.driver as unknown as { databaseConnection: Sqlite.Database }).databaseConnection;
  }

  /**
   * Runs `work` as one transaction; whatever it throws undoes all that it wrote. What was noted as changed is told
   * when the outermost has been committed, and of what was undone nothing.
   */
  transact<Result>(work: () => Result): Result {
    this.runner ??= this.connection.transaction((inner: () => unknown) => inner());
    const before = this.changes.length;
    this.depth += 1;
    let result: Result;
    try {
      result = this.runner.immediate(work) as Result;
    } catch (undone) {
      this.changes.length = before;
      throw undone;
    } finally {
      this.depth -= 1;
    }
    if (this.depth === 0 && this.changes.length > 0) {
      const changes = this.changes.splice(0);
      for (const listener of this.listeners) listener(changes);
    }
    return result;
  }

  /** Something was written that others keep in memory: they hear of it when it is committed. */
  noteChange(change: Change): void {
    this.changes.push(change);
  }

  /**
   * Whether something of a compressor, or such a kind of thing, is changed and not committed yet: what is read now is
   * not to be kept.
   */
  isChanging(compressorId: string, kinds?: ReadonlySet<string>): boolean {
    return this.changes.some(
      (change) => change.compressorId === compressorId && (kinds === undefined || kinds.has(change.kind)),
    );
  }

  /** Calls back with what was committed. */
  onCommit(listener: (changes: readonly Change[]) => void): void {
    this.listeners.push(listener);
  }

  /** Adds a row of an entity. */
  insert<Row extends ObjectLiteral>(
    entity: EntityTarget<Row>,
    row: Row,
    options = { orIgnore: false },
  ): void {
    const { columns } = this.dataSource.getMetadata(entity);
    const cells = columns.map(
      (column) => this.dataSource.driver.preparePersistentValue(column.getEntityValue(row), column) as Cell,
    );
    this.insertion(entity, options.orIgnore ? 'INSERT OR IGNORE' : 'INSERT').run(...cells);
  }

  /** Written once for each table, not with each row. */
  private insertion(entity: EntityTarget<ObjectLiteral>, verb: string): Sqlite.Statement {
    const known = this.insertions[verb]?.get(entity);
    if (known) return known;
    const { tableName, columns } = this.dataSource.getMetadata(entity);
    const names = columns.map(({ databaseName }) => `"${databaseName}"`).join(', ');
    const places = columns.map(() => '?').join(', ');
    const statement = this.connection.prepare(`${verb} INTO "${tableName}" (${names}) VALUES (${places})`);
    (this.insertions[verb] ??= new Map()).set(entity, statement);
    return statement;
  }

  /** One row of an entity by its id, or undefined. */
  find<Row extends ObjectLiteral>(entity: EntityTarget<Row>, id: string): Row | undefined {
    return this.findAll(entity, 'WHERE "id" = ?', id)[0];
  }

  /** One row of a kind of fact by its place among all facts. */
  findFact<Row extends ObjectLiteral>(entity: EntityTarget<Row>, seq: number): Row | undefined {
    return this.findAll(entity, 'WHERE "seq" = ?', seq)[0];
  }

  private hydrated<Row extends ObjectLiteral>(metadata: EntityMetadata, raw: Record<string, Cell>): Row {
    const found = metadata.create() as Row;
    for (const column of metadata.columns) {
      const value: unknown = this.dataSource.driver.prepareHydratedValue(raw[column.databaseName], column);
      column.setEntityValue(found, value);
    }
    return found;
  }

  /** Rows of an entity, by a condition and an order of our own: one statement, however many they are. */
  findAll<Row extends ObjectLiteral>(entity: EntityTarget<Row>, rest: string, ...cells: Cell[]): Row[] {
    const metadata = this.dataSource.getMetadata(entity);
    const rows = this.prepared(`SELECT * FROM "${metadata.tableName}" ${rest}`).all(...cells);
    return rows.map((row) => this.hydrated(metadata, row as Record<string, Cell>));
  }

  /** The table of an entity, quoted for a statement. */
  tableOf<Row extends ObjectLiteral>(entity: EntityTarget<Row>): string {
    return `"${this.dataSource.getMetadata(entity).tableName}"`;
  }

  /** Writes a page of the file, and nothing that means anything. */
  touch(now: number): void {
    this.connection.pragma(`user_version = ${Math.floor(now / 1000) % 2 ** 31}`);
  }

  /** Reads rows by a statement of our own, for what is read often or in bulk. */
  all<Row>(sql: string, ...cells: Cell[]): Row[] {
    return this.prepared(sql).all(...cells) as Row[];
  }

  /** Writes by a statement of our own, for tables that are no entity. */
  run(
    sql: string,
    ...cells: (Cell | bigint)[]
  ): { readonly lastInsertRowid: number | bigint; readonly changes: number } {
    return this.prepared(sql).run(...cells);
  }

  private prepared(sql: string): Sqlite.Statement {
    let statement = this.statements.get(sql);
    if (!statement) this.statements.set(sql, (statement = this.connection.prepare(sql)));
    return statement;
  }
}
