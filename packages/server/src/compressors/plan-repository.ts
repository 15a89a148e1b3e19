import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { ServicePlan } from '@entretien/core/plan';
import { Database } from '../persistence/database.js';
import { Spine } from '../persistence/spine.js';
import { PlanContentEntity, PlanVersionEntity } from '../persistence/entities/compressor.entity.js';

/** Versions of plans as they are stored. The content is kept once, however many units follow it. */
@Injectable()
export class PlanRepository {
  constructor(
    private readonly database: Database,
    private readonly spine: Spine,
  ) {}

  contentOf(plan: ServicePlan): PlanContentEntity {
    const text = JSON.stringify(plan);
    return { id: createHash('sha256').update(text).digest('hex'), plan: text };
  }

  /** Only within a transaction. */
  add(content: PlanContentEntity, version: Omit<PlanVersionEntity, 'contentId'>): void {
    this.database.insert(PlanContentEntity, content, { orIgnore: true });
    this.database.insert(PlanVersionEntity, { ...version, contentId: content.id });
    const { id, compressorId, effectiveAt, recordedAt, by, note } = version;
    // The plan that a unit begins with comes with its registration.
    if (id === null) return;
    this.spine.append({ id, kind: 'plan-version', compressorId, at: effectiveAt, recordedAt, by, note });
  }

  versionById(id: string): { readonly compressorId: string; readonly contentId: string } | undefined {
    return this.database.all<{ compressorId: string; contentId: string }>(
      'SELECT "compressor_id" AS "compressorId", "content_id" AS "contentId" FROM "plan_version" WHERE "id" = ?',
      id,
    )[0];
  }

  papersOf(compressorId: string, version: number): Pick<PlanVersionEntity, 'by' | 'note'> {
    return this.database.all<Pick<PlanVersionEntity, 'by' | 'note'>>(
      'SELECT "by", "note" FROM "plan_version" WHERE "compressor_id" = ? AND "version" = ?',
      compressorId,
      version,
    )[0]!;
  }
}
