import { Inject, Injectable } from '@nestjs/common';
import type { Instant } from '@entretien/core/basics';
import { BUILD } from '../common/tokens.js';
import { FleetPriorRepository } from '../compressors/fleet-prior-repository.js';
import { Database } from '../persistence/database.js';
import type { Place } from './place.js';

/** Kinds of fact that may move every unit: where a site lies, what a vessel is connected to. */
const MOVES_ALL = `"compressor_id" IS NULL AND "kind" NOT IN ('part', 'part-change', 'part-move', 'visit')`;

/** The order of the fleet as it was kept. */
export interface Kept {
  readonly places: readonly Place[];
  readonly judgedAt: Instant;
  /** Units of which something was recorded since. */
  readonly changed: readonly string[];
}

/**
 * Keeps the order of a fleet over a restart: working it out means judging every unit, which takes seconds for
 * thousands. It is believed only by the very build that wrote it, under the same priors, and as far as nothing has
 * been recorded since. Nothing here is truth: without it the order is worked out.
 */
@Injectable()
export class KeptOrder {
  constructor(
    private readonly database: Database,
    private readonly priors: FleetPriorRepository,
    @Inject(BUILD) private readonly build: string | null,
  ) {}

  save(places: Iterable<Place>, judgedAt: Instant): void {
    if (this.build === null) return;
    const rows = [...places].map((place) => ({
      ...place,
      steadyUntil: Number.isFinite(place.steadyUntil) ? place.steadyUntil : null,
    }));
    this.database.transact(() =>
      this.database.run(
        'INSERT OR REPLACE INTO "kept_order" ("id", "build", "seq", "learnt_at", "judged_at", "places") VALUES (1, ?, ?, ?, ?, ?)',
        this.build,
        this.lastSeq(),
        this.priors.learntAt(),
        judgedAt,
        JSON.stringify(rows),
      ),
    );
  }

  /** Null where there is none that can be believed at a moment. */
  read(now: Instant): Kept | null {
    if (this.build === null) return null;
    const [row] = this.database.all<Raw>('SELECT * FROM "kept_order"');
    // A clock that was set back makes everything judged since then doubtful.
    if (row?.build !== this.build || row.learnt_at !== this.priors.learntAt() || now < row.judged_at)
      return null;
    if (row.seq > this.lastSeq()) return null;
    const [mover] = this.database.all(
      `SELECT 1 FROM "fact" WHERE "seq" > ? AND ${MOVES_ALL} LIMIT 1`,
      row.seq,
    );
    if (mover) return null;
    const changed = this.database.all<{ unit: string }>(
      'SELECT DISTINCT "compressor_id" AS "unit" FROM "fact" WHERE "seq" > ? AND "compressor_id" IS NOT NULL',
      row.seq,
    );
    const places = JSON.parse(row.places) as (Omit<Place, 'steadyUntil'> & { steadyUntil: number | null })[];
    return {
      places: places.map((place) => ({ ...place, steadyUntil: place.steadyUntil ?? Infinity })),
      judgedAt: row.judged_at,
      changed: changed.map(({ unit }) => unit),
    };
  }

  private lastSeq(): number {
    const [row] = this.database.all<{ seq: number | null }>('SELECT max("seq") AS "seq" FROM "fact"');
    return row?.seq ?? 0;
  }
}

interface Raw {
  build: string;
  seq: number;
  learnt_at: number | null;
  judged_at: number;
  places: string;
}
