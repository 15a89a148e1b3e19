import { Injectable } from '@nestjs/common';
import type { SaveSettings, WorkshopSettings } from '@entretien/contracts';
import { PAUSE_MINUTES, pauseMinutesOf } from '@entretien/core/isolation';
import type { DataPlate } from '@entretien/core/machine';
import { Database } from '../persistence/database.js';
import { SettingEntity } from '../persistence/entities/stop.entity.js';

/** What holds where nobody set anything: common practice, and papers without labour and tax. */
const usual: WorkshopSettings = {
  isolationMinutes: PAUSE_MINUTES.usual,
  isolationMinutesHighPressure: PAUSE_MINUTES.highPressure,
  workshopName: null,
  currency: 'EUR',
  taxPercent: 0,
  labourCentsPerHour: 0,
};

const SAVE =
  'INSERT INTO "setting" ("name", "value") VALUES (?, ?) ON CONFLICT ("name") DO UPDATE SET "value" = excluded."value"';

/** How this workshop has the guard set, and what stands on its papers. */
@Injectable()
export class WorkshopSettingsService {
  constructor(private readonly database: Database) {}

  read(): WorkshopSettings {
    const rows = this.database.findAll(SettingEntity, '').filter(({ name }) => Object.hasOwn(usual, name));
    return { ...usual, ...Object.fromEntries(rows.map(({ name, value }) => [name, value])) };
  }

  /** Saves what is given; the rest stays as it is. */
  save(settings: SaveSettings): WorkshopSettings {
    this.database.transact(() => {
      for (const [name, value] of Object.entries(settings)) {
        if (value !== undefined && (value !== null || name === 'workshopName'))
          this.database.run(SAVE, name, JSON.stringify(value));
      }
    });
    return this.read();
  }

  /** Minutes of a pause at a machine. */
  pauseOf(plate: DataPlate): number {
    const { isolationMinutes, isolationMinutesHighPressure: highPressure } = this.read();
    return pauseMinutesOf(plate, { usual: isolationMinutes, highPressure });
  }
}
