import { Injectable } from '@nestjs/common';
import type { WorkshopSettings } from '@entretien/contracts';
import { PAUSE_MINUTES, pauseMinutesOf } from '@entretien/core/isolation';
import type { DataPlate } from '@entretien/core/machine';
import { Database } from '../persistence/database.js';
import { SettingEntity } from '../persistence/entities/stop.entity.js';

/** How this workshop has the guard set; where nobody set it, by common practice. */
@Injectable()
export class WorkshopSettingsService {
  constructor(private readonly database: Database) {}

  read(): WorkshopSettings {
    const rows = this.database.findAll(SettingEntity, '');
    const of = (name: string, usual: number) => rows.find((row) => row.name === name)?.value ?? usual;
    return {
      isolationMinutes: of('isolationMinutes', PAUSE_MINUTES.usual),
      isolationMinutesHighPressure: of('isolationMinutesHighPressure', PAUSE_MINUTES.highPressure),
    };
  }

  save({ isolationMinutes, isolationMinutesHighPressure }: WorkshopSettings): WorkshopSettings {
    const sql =
      'INSERT INTO "setting" ("name", "value") VALUES (?, ?) ON CONFLICT ("name") DO UPDATE SET "value" = excluded."value"';
    this.database.transact(() => {
      this.database.run(sql, 'isolationMinutes', isolationMinutes);
      this.database.run(sql, 'isolationMinutesHighPressure', isolationMinutesHighPressure);
    });
    return this.read();
  }

  /** Minutes of a pause at a machine. */
  pauseOf(plate: DataPlate): number {
    const { isolationMinutes: usual, isolationMinutesHighPressure: highPressure } = this.read();
    return pauseMinutesOf(plate, { usual, highPressure });
  }
}
