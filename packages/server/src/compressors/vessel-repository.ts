import { Injectable } from '@nestjs/common';
import type { VesselExamination, VesselHistory, VesselKind } from '@entretien/core/plan';
import { groupBy } from '../common/group-by.js';
import { Database } from '../persistence/database.js';
import type { VesselFields } from '../persistence/entities/vessel.entity.js';

/** A vessel with everything learnt of it so far. */
export interface KnownVessel extends Required<Pick<VesselFields, 'siteId' | 'tag' | 'compressorIds'>> {
  readonly id: string;
  readonly kind: VesselKind;
  readonly recordedAt: number;
  readonly note: string | null;
  readonly details: VesselFields;
  /** In the order of their days. */
  readonly examinations: readonly KnownExamination[];
}

export interface KnownExamination {
  readonly id: string;
  readonly vesselId: string;
  readonly kind: VesselExamination;
  readonly doneOn: string;
  readonly passed: boolean;
  readonly by: string;
  readonly note: string | null;
  readonly recordedAt: number;
}

/** The receivers and cylinders. Few enough to be kept in memory, and read anew when one changes. */
@Injectable()
export class VesselRepository {
  private vessels: ReadonlyMap<string, KnownVessel> | null = null;
  private histories = new Map<string, readonly VesselHistory[]>();

  constructor(private readonly database: Database) {}

  all(): ReadonlyMap<string, KnownVessel> {
    return (this.vessels ??= this.read());
  }

  /** Those that a compressor fills, with the day on which they go out of service: the same list as long as nothing about vessels changes. */
  filledBy(compressorId: string): readonly VesselHistory[] | undefined {
    if (this.histories.size === 0 && this.all().size > 0) this.layOut();
    return this.histories.get(compressorId);
  }

  forget(): void {
    this.vessels = null;
    this.histories = new Map();
  }

  private layOut(): void {
    for (const vessel of this.all().values()) {
      const history = historyOf(vessel);
      for (const id of vessel.compressorIds) {
        this.histories.set(id, [...(this.histories.get(id) ?? []), history]);
      }
    }
  }

  private read(): ReadonlyMap<string, KnownVessel> {
    const changes = groupBy(
      this.database.all<{ vesselId: string; changes: string }>(
        'SELECT "vessel_id" AS "vesselId", "changes" FROM "vessel_change" ORDER BY "recorded_at", "id"',
      ),
      ({ vesselId }) => vesselId,
    );
    const examinations = groupBy(
      this.database
        .all<Omit<KnownExamination, 'passed'> & { passed: number }>(
          'SELECT "id", "vessel_id" AS "vesselId", "kind", "done_on" AS "doneOn", "passed", "by", "note", "recorded_at" AS "recordedAt" FROM "vessel_examination" ORDER BY "done_on", "recorded_at"',
        )
        .map((row): KnownExamination => ({ ...row, passed: row.passed === 1 })),
      ({ vesselId }) => vesselId,
    );
    const rows = this.database.all<RawVessel>(
      'SELECT "id", "kind", "details", "note", "recorded_at" AS "recordedAt" FROM "vessel"',
    );
    return new Map(
      rows.map(({ id, kind, details: registered, note, recordedAt }) => {
        const later = (changes.get(id) ?? []).map((one) => JSON.parse(one.changes) as VesselFields);
        const details = Object.assign(JSON.parse(registered) as VesselFields, ...later) as VesselFields;
        const { siteId = '', tag = '', compressorIds = [] } = details;
        const known = { id, kind, note, recordedAt, details, siteId, tag, compressorIds };
        return [id, { ...known, examinations: examinations.get(id) ?? [] }];
      }),
    );
  }
}

interface RawVessel {
  id: string;
  kind: VesselKind;
  details: string;
  note: string | null;
  recordedAt: number;
}

function historyOf({ id, tag, kind, recordedAt, details, examinations }: KnownVessel): VesselHistory {
  return {
    id,
    tag,
    kind,
    recordedAt,
    retiredOn: details.retiredOn ?? undefined,
    testEveryMonths: details.testEveryMonths ?? undefined,
    inspectEveryMonths: details.inspectEveryMonths ?? undefined,
    records: examinations,
  };
}
