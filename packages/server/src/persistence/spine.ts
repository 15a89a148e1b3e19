import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import type { FactKind, FactNames } from '@entretien/core/facts';
import type { Instant } from '@entretien/core/basics';
import {
  FIRST_METER,
  meterScaleAt,
  formatHoursSeen,
  type MeterChange,
  type MeterScale,
} from '@entretien/core/hours';
import { namesOn, type StepNames } from '@entretien/core/visit';
import type { DataPlate } from '@entretien/core/machine';
import type { ServicePlan } from '@entretien/core/plan';
import { Database } from './database.js';
import type { FactColumns } from './entities/columns.js';
import { ReadingEntity } from './entities/hour-facts.entity.js';
import { stands } from './hour-facts-sql.js';
import { StoredKinds } from './stored-kinds.js';

/** After these, codes may be called something else. */
const RENAMING = new Set(['plan-version', 'compressor']);
/** Units whose names are kept; each takes a few kilobytes. */
const MOST_NAMES = 500;
const NO_PLATE: DataPlate = {
  siteId: '',
  tag: '',
  family: 'piston',
  commissionedOn: '2000-01-01',
  history: 'unknown',
};

/** Raised when the core words a kind of fact in another way: lines are written anew once, at the next start. */
const WORDING = 3;

interface SpineRow {
  readonly id: string;
  readonly kind: string;
  readonly compressorId: string | null;
  readonly at: number;
  readonly recordedAt: number;
  readonly by: string;
  readonly note: string | null;
}

/**
 * The table of all facts: one row for each with its id, kind, compressor and moments, and what it says in a line
 * of the logbook. Only it gives out ids; the tables of the kinds hold what is particular to them.
 */
@Injectable()
export class Spine implements OnApplicationBootstrap {
  private readonly names = new Map<string, StepNames>();

  constructor(
    private readonly database: Database,
    private readonly kinds: StoredKinds,
  ) {}

  onApplicationBootstrap(): void {
    this.database.onCommit((changes) => {
      for (const { kind, compressorId } of changes)
        if (RENAMING.has(kind)) this.names.delete(compressorId ?? '');
    });
    const [known] = this.database.all<{ version: number }>('SELECT "version" FROM "wording"');
    if (known?.version !== WORDING) this.wordAnew();
  }

  find(id: string): { readonly seq: number; readonly kind: string } | undefined {
    return this.database.all<{ seq: number; kind: string }>(
      'SELECT "seq", "kind" FROM "fact" WHERE "id" = ?',
      id,
    )[0];
  }

  /** When something was last recorded; null on an empty record. */
  lastRecordedAt(): number | null {
    const [row] = this.database.all<{ at: number | null }>(
      'SELECT max("recorded_at") AS "at" FROM (SELECT "recorded_at" FROM "fact" ORDER BY "seq" DESC LIMIT 1000)',
    );
    return row?.at ?? null;
  }

  /** Takes a fact in, within the transaction that stores it; returns its place. */
  add(kind: FactKind, row: Omit<FactColumns, 'seq'>): number {
    const { compressorId = null } = row as { compressorId?: string };
    return this.append(
      {
        id: row.id,
        kind: kind.kind,
        compressorId: kind.kind === 'compressor' ? row.id : compressorId,
        at: kind.at(row),
        recordedAt: row.recordedAt,
        by: row.by,
        note: row.note,
      },
      this.lineOf(kind, row),
    );
  }

  /** Takes in what is stored in a way of its own. */
  append({ id, kind, compressorId, at, recordedAt, by, note }: SpineRow, line: Line | null = null): number {
    const { lastInsertRowid } = this.database.run(
      'INSERT INTO "fact" ("id", "kind", "compressor_id", "at", "recorded_at", "by", "note", "text", "lead") VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
      id,
      kind,
      compressorId,
      at,
      recordedAt,
      by,
      note,
      line?.text ?? null,
      line?.lead ?? null,
    );
    const seq = Number(lastInsertRowid);
    if (line !== null || note !== null) this.index(seq, line?.text ?? '', note);
    this.database.noteChange({ kind, isFact: true, compressorId });
    return seq;
  }

  private index(seq: number, text: string, note: string | null): void {
    const sql = 'INSERT INTO "fact_text" ("rowid", "words") VALUES (?, ?)';
    this.database.run(sql, seq, `${text} ${note ?? ''}`);
  }

  /** Readings are worded when they are shown: there are too many to keep a line of each. */
  private lineOf(kind: FactKind, row: object): Line | null {
    if (kind.text === undefined || row instanceof ReadingEntity) return null;
    const { compressorId } = row as { compressorId?: string };
    const names: FactNames = {
      ...this.namesOf(compressorId),
      hours: (hours, at) => formatHoursSeen(this.scaleOf(compressorId, at), hours),
    };
    const fact = row as FactColumns;
    const text = kind.text(fact, names);
    return text === null ? null : { text, lead: kind.lead?.(fact) ?? null };
  }

  /** Writes the line of every fact again, as it is worded now. */
  wordAnew(): void {
    this.database.transact(() => {
      this.database.run(`INSERT INTO "fact_text" ("fact_text") VALUES ('delete-all')`);
      const facts = this.database.all<{ seq: number; kind: string; note: string | null }>(
        `SELECT "seq", "kind", "note" FROM "fact" WHERE "kind" <> 'reading' OR "note" IS NOT NULL ORDER BY "compressor_id"`,
      );
      for (const { seq, kind, note } of facts) {
        const stored = this.kinds.find(kind);
        const row = stored && this.database.findFact<FactColumns>(stored.entity, seq);
        const line = stored && row ? this.lineOf(stored.kind, row) : null;
        if (line !== null) {
          this.database.run(
            'UPDATE "fact" SET "text" = ?, "lead" = ? WHERE "seq" = ?',
            line.text,
            line.lead,
            seq,
          );
        }
        if (line !== null || note !== null) this.index(seq, line?.text ?? '', note);
      }
      this.database.run('DELETE FROM "wording"');
      this.database.run('INSERT INTO "wording" ("version") VALUES (?)', WORDING);
    });
  }

  /** The meter that a unit had at a moment, as far as is known. */
  private scaleOf(compressorId: string | undefined, at: Instant): MeterScale {
    if (compressorId === undefined) return FIRST_METER;
    const changes = this.database.all<MeterChange>(
      `SELECT "changed_at" AS "changedAt", "old_final_hours" AS "oldFinalHours", "new_start_hours" AS "newStartHours", "reason", "recorded_at" AS "recordedAt" FROM "meter_change" WHERE "compressor_id" = ? AND ${stands('meter_change')}`,
      compressorId,
    );
    return meterScaleAt(changes, 'total', at);
  }

  /** By the plate and the plans that the unit has now: a name that went stays known by an earlier plan. */
  private namesOf(compressorId: string | undefined) {
    if (compressorId === undefined) return namesOn(NO_PLATE, []);
    const known = this.names.get(compressorId);
    if (known) return known;
    const [unit] = this.database.all<{ plate: string }>(
      'SELECT "plate" FROM "compressor" WHERE "id" = ?',
      compressorId,
    );
    const plans = this.database.all<{ plan: string }>(
      'SELECT "plan" FROM "plan_version" JOIN "plan_content" "c" ON "c"."id" = "content_id" WHERE "compressor_id" = ? ORDER BY "version" DESC',
      compressorId,
    );
    const names = namesOn(
      unit ? (JSON.parse(unit.plate) as DataPlate) : NO_PLATE,
      plans.flatMap(({ plan }) => (JSON.parse(plan) as ServicePlan).tasks),
    );
    if (this.names.size >= MOST_NAMES) this.names.clear();
    this.names.set(compressorId, names);
    return names;
  }
}

interface Line {
  readonly text: string;
  readonly lead: string | null;
}
