import { facts, type FactKind } from '@entretien/core/facts';
import type { EntityTarget } from 'typeorm';
import type { FactColumns } from './entities/columns.js';
import { CompressorEntity, PlateChangeEntity } from './entities/compressor.entity.js';
import { WithdrawalEntity } from './entities/correction.entity.js';
import { MeterChangeEntity, ReadingEntity } from './entities/hour-facts.entity.js';
import { MeasurementEntity } from './entities/measurement.entity.js';
import { PartEntity, PartMoveEntity } from './entities/part.entity.js';
import { PutOffEntity, StartingPointEntity } from './entities/plan-facts.entity.js';
import { RepairEntity, RepairEntryEntity } from './entities/repair.entity.js';
import { ServiceEntity } from './entities/service.entity.js';
import { SiteChangeEntity, SiteEntity } from './entities/site.entity.js';
import { VesselChangeEntity, VesselEntity, VesselExaminationEntity } from './entities/vessel.entity.js';
import { VisitEntity, VisitStepEntity } from './entities/visit.entity.js';

export type FactEntity = EntityTarget<FactColumns> & (new () => FactColumns);

/** A kind of fact with the table that it is stored in. */
export interface StoredKind {
  readonly kind: FactKind;
  readonly entity: FactEntity;
  /** What is sent of one, where nothing but its contract is asked of it; others have a service of their own. */
  readonly contract?: new () => object;
}

const entities: Readonly<Record<keyof typeof facts, FactEntity>> = {
  reading: ReadingEntity,
  service: ServiceEntity,
  measurement: MeasurementEntity,
  meterChange: MeterChangeEntity,
  plateChange: PlateChangeEntity,
  putOff: PutOffEntity,
  startingPoint: StartingPointEntity,
  withdrawal: WithdrawalEntity,
  visit: VisitEntity,
  visitStep: VisitStepEntity,
  repair: RepairEntity,
  repairEntry: RepairEntryEntity,
  vessel: VesselEntity,
  vesselChange: VesselChangeEntity,
  vesselExamination: VesselExaminationEntity,
  part: PartEntity,
  partMove: PartMoveEntity,
  compressor: CompressorEntity,
  site: SiteEntity,
  siteChange: SiteChangeEntity,
};

/** Every kind of fact that this release keeps. */
export const storedKinds: readonly StoredKind[] = (Object.keys(facts) as (keyof typeof facts)[]).map(
  (name) => ({
    kind: facts[name],
    entity: entities[name],
  }),
);

/** The kinds of fact that an application keeps, by code, table and collection. */
export class StoredKinds {
  private readonly byCode: ReadonlyMap<string, StoredKind>;
  private readonly byEntity: ReadonlyMap<unknown, StoredKind>;

  constructor(readonly all: readonly StoredKind[]) {
    this.byCode = new Map(all.map((one) => [one.kind.kind, one]));
    this.byEntity = new Map(all.map((one) => [one.entity, one]));
  }

  of(code: string): StoredKind {
    return this.byCode.get(code)!;
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
