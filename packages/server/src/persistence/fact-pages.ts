import { Injectable } from '@nestjs/common';
import type { Page, PageQuery, VoidedView } from '@entretien/contracts';
import { DataSource, type EntityTarget, type SelectQueryBuilder } from 'typeorm';
import { pageSize, readCursor, toPage } from '../common/page.js';
import { Database } from './database.js';
import type { CompressorFactColumns } from './entities/columns.js';

/** Pages through the facts of one unit, the latest first. */
@Injectable()
export class FactPages {
  constructor(
    private readonly dataSource: DataSource,
    private readonly database: Database,
  ) {}

  /**
   * @param moment the property that says when the fact happened; there is an index on it
   * @param narrow further conditions on `fact`
   */
  async page<Row extends CompressorFactColumns, View>(
    entity: EntityTarget<Row>,
    moment: keyof Row & string,
    compressorId: string,
    query: PageQuery,
    toView: (row: Row) => View,
    narrow: (rows: SelectQueryBuilder<Row>) => void = () => undefined,
  ): Promise<Page<View>> {
    const size = pageSize(query.limit);
    const rows = this.dataSource
      .getRepository(entity)
      .createQueryBuilder('fact')
      .where('fact.compressorId = :compressorId', { compressorId })
      .orderBy(`fact.${moment}`, 'DESC')
      .addOrderBy('fact.id', 'DESC')
      .take(size + 1);
    if (query.cursor !== undefined) {
      const [at, id] = readCursor(query.cursor, 2);
      rows.andWhere(`(fact.${moment} < :at OR (fact.${moment} = :at AND fact.id < :id))`, { at, id });
    }
    narrow(rows);
    const voided = this.voidedOf(compressorId);
    const view = (row: Row): View => {
      const how = voided.get(row.id);
      return how ? { ...toView(row), voided: how } : toView(row);
    };
    return toPage(await rows.getMany(), size, view, (row) => [row[moment] as number, row.id]);
  }

  /** What no longer stands of a unit's facts: a handful, if any. */
  private voidedOf(compressorId: string): ReadonlyMap<string, VoidedView> {
    const rows = this.database.all<RawVoided>(VOIDED, compressorId);
    return new Map(
      rows.map(({ factId, voidedAt, how, byFact, reason }) => [
        factId,
        { at: new Date(voidedAt).toISOString(), how, byFact, ...(reason === null ? {} : { reason }) },
      ]),
    );
  }
}

interface RawVoided extends Pick<VoidedView, 'how' | 'byFact'> {
  factId: string;
  voidedAt: number;
  reason: string | null;
}

const VOIDED = `SELECT "v"."fact_id" AS "factId", "v"."voided_at" AS "voidedAt", "v"."how", "v"."by_fact" AS "byFact", "w"."reason"
  FROM "voided" "v" LEFT JOIN "withdrawal" "w" ON "w"."id" = "v"."by_fact" WHERE "v"."compressor_id" = ?`;

/** The part of a view that every fact has. */
export function factView(row: CompressorFactColumns & { corrects?: string | null }) {
  return {
    id: row.id,
    compressorId: row.compressorId,
    by: row.by,
    recordedAt: new Date(row.recordedAt).toISOString(),
    marks: row.marks,
    ...(row.note === null ? {} : { note: row.note }),
    ...(row.corrects ? { corrects: row.corrects } : {}),
  };
}
