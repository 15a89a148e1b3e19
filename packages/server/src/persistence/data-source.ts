import { chmodSync, closeSync, existsSync, mkdirSync, openSync } from 'node:fs';
import { join } from 'node:path';
import type { DataSourceOptions } from 'typeorm';
import {
  CompressorEntity,
  PlanContentEntity,
  PlanVersionEntity,
  PlateChangeEntity,
} from './entities/compressor.entity.js';
import { VoidedEntity, WithdrawalEntity } from './entities/correction.entity.js';
import { FleetPriorEntity } from './entities/fleet-prior.entity.js';
import { MeterChangeEntity, ReadingEntity } from './entities/hour-facts.entity.js';
import { MeasurementEntity } from './entities/measurement.entity.js';
import { PutOffEntity, StartingPointEntity } from './entities/plan-facts.entity.js';
import { PersonEntity } from './entities/person.entity.js';
import { PartEntity, PartMoveEntity } from './entities/part.entity.js';
import { RepairEntity, RepairEntryEntity } from './entities/repair.entity.js';
import { ServiceEntity } from './entities/service.entity.js';
import { SiteChangeEntity, SiteEntity } from './entities/site.entity.js';
import { VesselChangeEntity, VesselEntity, VesselExaminationEntity } from './entities/vessel.entity.js';
import { PhotoEntity, VisitEntity, VisitStepEntity } from './entities/visit.entity.js';
import { migrations } from './migrations/index.js';
import { APPLICATION_ID, DatabaseProblem, refuseStrangeDatabase } from './our-database.js';

export const entities = [
  PersonEntity,
  SiteEntity,
  SiteChangeEntity,
  CompressorEntity,
  PlateChangeEntity,
  PlanVersionEntity,
  PlanContentEntity,
  ReadingEntity,
  MeterChangeEntity,
  ServiceEntity,
  MeasurementEntity,
  PutOffEntity,
  StartingPointEntity,
  VesselEntity,
  VesselChangeEntity,
  VesselExaminationEntity,
  VisitEntity,
  VisitStepEntity,
  PhotoEntity,
  RepairEntity,
  RepairEntryEntity,
  PartEntity,
  PartMoveEntity,
  WithdrawalEntity,
  VoidedEntity,
  FleetPriorEntity,
];

/** Customers' data are nobody else's on this machine; what lies beside the database gets its rights from it. */
function keepToOurselves(dataDir: string): void {
  const file = join(dataDir, 'entretien.sqlite');
  chmodSync(dataDir, 0o700);
  // Only where there is none: closing a file lets go of every lock that this process holds on it.
  if (!existsSync(file)) closeSync(openSync(file, 'a', 0o600));
  chmodSync(file, 0o600);
}

/** How the database of a data folder is opened: migrated, never synchronised; durable at every commit. */
export function dataSourceOptions(dataDir: string): DataSourceOptions {
  try {
    mkdirSync(dataDir, { recursive: true });
  } catch (error) {
    throw new DatabaseProblem(`${dataDir} cannot be made: ${(error as Error).message}`);
  }
  refuseStrangeDatabase(join(dataDir, 'entretien.sqlite'));
  keepToOurselves(dataDir);
  return {
    type: 'better-sqlite3',
    database: join(dataDir, 'entretien.sqlite'),
    entities,
    migrations,
    migrationsRun: true,
    enableWAL: true,
    // Nobody else writes for long; whoever waits holds up everybody.
    timeout: 2000,
    prepareDatabase: (connection: { pragma(text: string): void }) => {
      connection.pragma('synchronous = FULL');
      connection.pragma('foreign_keys = ON');
      connection.pragma(`application_id = ${APPLICATION_ID}`);
    },
  };
}
