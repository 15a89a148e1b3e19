import { Inject, Injectable } from '@nestjs/common';
import type {
  AddPart,
  ChangePart,
  CompareParts,
  MovePart,
  PartView,
  SubstitutionView,
} from '@entretien/contracts';
import { judgeSubstitute, needsReason, type ComparedPart, type SubstitutedOn } from '@entretien/core/parts';
import { v5 as idFrom } from 'uuid';
import { refuseAhead, refuseLongAgo } from '../common/long-ago.js';
import { impossible, notFound } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { PartChangeEntity, PartEntity, PartMoveEntity } from '../persistence/entities/part.entity.js';
import { FactStore } from '../persistence/fact-store.js';

/** Longest text of what was found or changed. */
const MOST_FOUND = 500;

/** Less than this of a part is none. */
const LEAST_COUNT = 0.01;

const YEAR_MS = 365 * 24 * 60 * 60 * 1000;

/** Mark of parts that were used though the van should have held none: the part was in the hand. */
export const BEYOND_STOCK = 'beyond-stock';

/** The catalogue, and what the van holds of it. */
@Injectable()
export class PartsService {
  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  add(sent: AddPart, by: string): PartView {
    const content = {
      id: sent.id.toLowerCase(),
      number: sent.number.trim(),
      name: sent.name.trim(),
      class: sent.class,
      answers: sent.answers.trim(),
      fits: sent.fits.map((id) => id.toLowerCase()),
      figures: sent.figures,
      priceCents: sent.priceCents ?? null,
      supplier: sent.supplier ?? null,
      contents: sent.contents ?? null,
      leadDays: sent.leadDays ?? null,
      secondSource: sent.secondSource ?? null,
      note: sent.note ?? null,
      by: this.people.require(by),
    };
    this.database.transact(() => {
      const { row, isNew } = this.facts.record(PartEntity, content, () => {
        content.fits.forEach((unit) => this.register.require(unit));
        this.refuseNumberInUse(content.number);
        return { marks: [] };
      });
      if (isNew && sent.inVan) {
        this.store({
          id: idFrom('in the van', row.id),
          partId: row.id,
          movedAt: row.recordedAt,
          count: sent.inVan,
          usedIn: null,
          by: content.by,
          note: null,
        });
      }
    });
    return this.view(content.id);
  }

  list(): PartView[] {
    const sums = this.database.all<{ id: string; sum: number }>(
      'SELECT "part_id" AS "id", sum("thousandths") AS "sum" FROM "part_move" GROUP BY "part_id"',
    );
    const inVan = new Map(sums.map(({ id, sum }) => [id, sum / 1000]));
    const parts = this.all().sort((a, b) => byText(a.name, b.name) || byText(a.number, b.number));
    const used = this.usedPastYear();
    return parts.map((part) => toView(part, inVan.get(part.id) ?? 0, used.get(part.id) ?? 0));
  }

  /** What went into machines in the last year, and was not brought back. */
  private usedPastYear(part?: string): ReadonlyMap<string, number> {
    const rows = this.database.all<{ id: string; sum: number }>(
      `SELECT "u"."part_id" AS "id", -sum("u"."thousandths") AS "sum" FROM "part_move" "u"
       WHERE "u"."used_in" IS NOT NULL AND "u"."moved_at" > ? ${part === undefined ? '' : 'AND "u"."part_id" = ?'} AND NOT EXISTS (SELECT 1 FROM "voided" "v" WHERE "v"."fact_id" = "u"."used_in")
       GROUP BY "u"."part_id"`,
      this.clock() - YEAR_MS,
      ...(part === undefined ? [] : [part]),
    );
    return new Map(rows.map(({ id, sum }) => [id, Math.max(0, sum) / 1000]));
  }

  /** Puts a part right; what used it before keeps what it said then. */
  change(partId: string, sent: ChangePart, by: string): PartView {
    const part = this.require(partId);
    const { id, by: _by, note, ...rest } = sent;
    const changes = Object.fromEntries(
      Object.entries(rest).filter(([, value]) => value !== undefined),
    ) as typeof rest;
    const content = {
      id: id.toLowerCase(),
      partId: part.id,
      changes: {
        ...changes,
        ...(changes.number === undefined ? {} : { number: changes.number.trim() }),
        ...(changes.name === undefined ? {} : { name: changes.name.trim() }),
        ...(changes.answers === undefined ? {} : { answers: changes.answers.trim() }),
        ...(changes.fits === undefined ? {} : { fits: changes.fits.map((unit) => unit.toLowerCase()) }),
      },
      note: note ?? null,
      by: this.people.require(by),
    };
    if (Object.keys(changes).length === 0)
      throw impossible({ code: 'nothing-changed', field: 'name', sentence: 'Say what is different.' });
    this.facts.record(PartChangeEntity, content, () => {
      content.changes.fits?.forEach((unit) => this.register.require(unit));
      if (content.changes.number !== undefined) this.refuseNumberInUse(content.changes.number, part.id);
      return { marks: [] };
    });
    return this.view(part.id);
  }

  move(partId: string, sent: MovePart, by: string): PartView {
    const { id } = this.require(partId);
    if (Math.abs(sent.count) < LEAST_COUNT) {
      throw impossible({ code: 'nothing-moved', field: 'count', sentence: 'Say how many more, or fewer.' });
    }
    const move = {
      id: sent.id.toLowerCase(),
      partId: id,
      movedAt: Date.parse(sent.movedAt),
      count: sent.count,
      usedIn: null,
      by: this.people.require(by),
      note: sent.note ?? null,
    };
    this.store(move, (recordedAt) => {
      refuseAhead(move.movedAt, 'movedAt', { now: recordedAt, timeZone: 'UTC' });
      refuseLongAgo(move.movedAt, 'movedAt');
      const left = this.inVan(id) + move.count;
      if (move.count < 0 && left < 0) {
        throw impossible({
          code: 'fewer-than-none',
          field: 'count',
          sentence: `That would leave ${left}: there cannot be fewer than none.`,
        });
      }
    });
    return this.view(id);
  }

  private refuseNumberInUse(number: string, but?: string): void {
    if (!this.all().some((part) => part.number === number && part.id !== but)) return;
    throw impossible({
      code: 'number-in-use',
      field: 'number',
      sentence: `“${number}” is in the catalogue already.`,
    });
  }

  /**
   * A part was used: it goes out of the van, whatever the van should have held.
   *
   * @returns marks: that more was used than was there by the books
   */
  use(
    partId: string,
    used: { count: number; usedIn: string; usedAt: number; by: string },
  ): readonly string[] {
    const { id } = this.require(partId);
    const before = this.inVan(id);
    this.store({
      id: idFrom('used', used.usedIn),
      partId: id,
      movedAt: used.usedAt,
      count: -used.count,
      usedIn: used.usedIn,
      by: used.by,
      note: null,
    });
    return before < used.count ? [BEYOND_STOCK] : [];
  }

  /** What so many of a part cost by the catalogue, in hundredths; null where it names no price, or is not in it. */
  centsOf(part: string | null | undefined, count: number): number | null {
    if (part === undefined || part === null) return null;
    const { priceCents } = this.require(part);
    return priceCents === null ? null : Math.round(priceCents * count);
  }

  /** It was not used after all: it lies in the van again. */
  bringBack({ usedIn, movedAt, by }: { usedIn: string; movedAt: number; by: string }): void {
    const used = this.facts.find(PartMoveEntity, idFrom('used', usedIn));
    if (!used) return;
    this.store({
      id: idFrom('brought back', usedIn),
      partId: used.partId,
      movedAt,
      count: -used.thousandths / 1000,
      usedIn: null,
      by,
      note: null,
    });
  }

  /** What is breathed through is not exchanged for another without saying why. */
  refuseUnreasoned(
    { part: id, reason }: { readonly part: string; readonly reason?: string | undefined },
    on: SubstitutedOn,
    { compressorId, field }: { readonly compressorId: string; readonly field: string },
  ): void {
    const part = this.require(id);
    if (reason !== undefined || !needsReason(part, on, compressorId)) return;
    throw impossible({
      code: 'needs-reason',
      field,
      sentence: `${part.name} is not named for this unit: for breathing air another one needs a reason.`,
    });
  }

  /** What a part that is not named for a unit changes on it, in words; null where it is one of its own. */
  modificationBy(
    { part: id, reason }: { readonly part: string; readonly reason?: string | undefined },
    on: SubstitutedOn,
    compressorId: string,
  ): string | null {
    const part = this.require(id);
    if (reason === undefined || !needsReason(part, on, compressorId)) return null;
    return `${part.name}, ${part.number}, in place of its own: ${reason}`.slice(0, MOST_FOUND);
  }

  compare({ compressorId, original, offered, hasAdapter }: CompareParts): SubstitutionView {
    if (original.toLowerCase() === offered.toLowerCase()) {
      throw impossible({
        code: 'same-part',
        field: 'offered',
        sentence: 'A part does not stand in for itself: choose another one.',
      });
    }
    const unit = this.register.require(compressorId);
    const plate = this.register.plateOf(unit, Number.MAX_SAFE_INTEGER);
    return judgeSubstitute(
      toCompared(this.require(original)),
      toCompared(this.require(offered)),
      plate,
      hasAdapter,
    );
  }

  /** A part as it is now. */
  require(id: string): CataloguePart {
    const part = this.facts.find(PartEntity, id.toLowerCase());
    if (!part) throw notFound('no-such-part', 'This part is not in the catalogue.');
    const changes = this.database.findAll(PartChangeEntity, 'WHERE "part_id" = ? ORDER BY "seq"', part.id);
    return changed(part, changes);
  }

  private all(): CataloguePart[] {
    const changes = new Map<string, PartChangeEntity[]>();
    for (const change of this.database.findAll(PartChangeEntity, 'ORDER BY "seq"')) {
      changes.set(change.partId, [...(changes.get(change.partId) ?? []), change]);
    }
    return this.database.findAll(PartEntity, '').map((part) => changed(part, changes.get(part.id) ?? []));
  }

  private store(
    {
      count,
      ...move
    }: Omit<PartMoveEntity, 'seq' | 'thousandths' | 'marks' | 'recordedAt'> & { count: number },
    judge: (recordedAt: number) => void = () => undefined,
  ) {
    const content = { ...move, thousandths: Math.round(count * 1000) };
    this.facts.record(PartMoveEntity, content, (recordedAt) => {
      judge(recordedAt);
      return { marks: [] };
    });
  }

  private inVan(partId: string): number {
    const [row] = this.database.all<{ sum: number | null }>(
      'SELECT sum("thousandths") AS "sum" FROM "part_move" WHERE "part_id" = ?',
      partId,
    );
    return (row?.sum ?? 0) / 1000;
  }

  private view(id: string): PartView {
    return toView(this.require(id), this.inVan(id), this.usedPastYear(id).get(id) ?? 0);
  }
}

/** A part with everything that was put right of it. */
type CataloguePart = PartEntity & { readonly isRetired?: boolean };

function changed(part: PartEntity, changes: readonly PartChangeEntity[]): CataloguePart {
  return changes.reduce<CataloguePart>((now, { changes: next }) => ({ ...now, ...next }), part);
}

function byText(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

function toView(part: CataloguePart, inVan: number, usedPastYear: number): PartView {
  const { id, number, name, class: kind, answers, fits, figures, priceCents, supplier, note } = part;
  const { contents, leadDays, secondSource } = part;
  return {
    id,
    number,
    name,
    class: kind,
    answers,
    fits,
    figures,
    ...(priceCents === null ? {} : { priceCents }),
    ...(supplier === null ? {} : { supplier }),
    ...(contents === null ? {} : { contents }),
    ...(leadDays === null ? {} : { leadDays }),
    ...(secondSource === null ? {} : { secondSource }),
    ...(note === null ? {} : { note }),
    inVan,
    usedPastYear,
    ...(part.isRetired ? { isRetired: true as const } : {}),
  };
}

function toCompared({ name, class: kind, figures }: PartEntity): ComparedPart {
  return { name, class: kind, figures };
}
