import { chmodSync, closeSync, existsSync, mkdirSync, openSync } from 'node:fs';
import { join } from 'node:path';
import type { DataSourceOptions } from 'typeorm';
import {
  AccountEntity,
  AuditEntity,
  InvitationEntity,
  PasskeyEntity,
  SessionEntity,
} from './entities/access.entity.js';
import { PlanContentEntity, PlanVersionEntity } from './entities/compressor.entity.js';
import { VoidedEntity } from './entities/correction.entity.js';
import { DeviceEntity, DeviceRefusalEntity } from './entities/device.entity.js';
import { FleetPriorEntity } from './entities/fleet-prior.entity.js';
import { PersonEntity } from './entities/person.entity.js';
import { SettingEntity } from './entities/stop.entity.js';
import { PaperEntity } from './entities/paper.entity.js';
import { PhotoEntity } from './entities/visit.entity.js';
import { migrationsOf, storedKinds } from './stored-kinds.js';
import { APPLICATION_ID, DatabaseProblem, refuseStrangeDatabase } from './our-database.js';

/** What is kept besides facts. */
const others = [
  PersonEntity,
  PlanVersionEntity,
  PlanContentEntity,
  PaperEntity,
  PhotoEntity,
  VoidedEntity,
  FleetPriorEntity,
  SettingEntity,
  AccountEntity,
  SessionEntity,
  InvitationEntity,
  PasskeyEntity,
  AuditEntity,
  DeviceEntity,
  DeviceRefusalEntity,
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
export function dataSourceOptions(dataDir: string, kinds = storedKinds): DataSourceOptions {
  try {
    mkdirSync(dataDir, { recursive: true });
  } catch (error) {
    throw new DatabaseProblem(`${dataDir} cannot be made: ${(error as Error).message}`);
  }
  const migrations = migrationsOf(kinds);
  refuseStrangeDatabase(join(dataDir, 'entretien.sqlite'), migrations);
  keepToOurselves(dataDir);
  return {
    type: 'better-sqlite3',
    database: join(dataDir, 'entretien.sqlite'),
    entities: [...kinds.map(({ entity }) => entity), ...others],
    migrations,
    migrationsRun: true,
    migrationsTransactionMode: 'each',
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
