import { Injectable } from '@nestjs/common';
import type { SaveSettings, WorkshopSettings } from '@entretien/contracts';
import { formatsCode, usualFormats } from '@entretien/core/basics';
import { PAUSE_MINUTES, pauseMinutesOf } from '@entretien/core/isolation';
import type { DataPlate } from '@entretien/core/machine';
import { Database } from '../persistence/database.js';
import type { Logo } from './logo.js';
import { SettingEntity } from '../persistence/entities/stop.entity.js';

/** What holds where nobody set anything: common practice, and papers without labour and tax. */
const usual: Required<SaveSettings> = {
  isolationMinutes: PAUSE_MINUTES.usual,
  isolationMinutesHighPressure: PAUSE_MINUTES.highPressure,
  workshopName: null,
  currency: 'EUR',
  taxPercent: 0,
  labourCentsPerHour: 0,
  units: {},
  formats: formatsCode(usualFormats),
  holidays: [],
};

const LOGO = 'logo';

const SAVE =
  'INSERT INTO "setting" ("name", "value") VALUES (?, ?) ON CONFLICT ("name") DO UPDATE SET "value" = excluded."value"';

/** How this workshop has the guard set, and what stands on its papers. */
@Injectable()
export class WorkshopSettingsService {
  private known: WorkshopSettings | null = null;

  constructor(private readonly database: Database) {}

  read(): WorkshopSettings {
    this.known ??= this.readAll();
    return this.known;
  }

  private readAll(): WorkshopSettings {
    const rows = this.database.findAll(SettingEntity, '');
    const set = rows.filter(({ name }) => Object.hasOwn(usual, name));
    const logo = rows.find(({ name }) => name === LOGO)?.value as Logo | null | undefined;
    return {
      ...usual,
      ...(Object.fromEntries(set.map(({ name, value }) => [name, value])) as SaveSettings),
      logo: logo ? { widthPx: logo.widthPx, heightPx: logo.heightPx } : null,
    };
  }

  /** Saves what is given; the rest stays as it is. */
  save(settings: SaveSettings): WorkshopSettings {
    this.put(
      Object.entries(settings).filter(
        ([name, value]) => value !== undefined && (value !== null || name === 'workshopName'),
      ),
    );
    return this.read();
  }

  /** The logo as a PNG. */
  logo(): Buffer | null {
    const [row] = this.database.findAll(SettingEntity, 'WHERE "name" = ?', LOGO);
    const logo = row?.value as Logo | null | undefined;
    return logo ? Buffer.from(logo.base64, 'base64') : null;
  }

  putLogo(logo: Logo | null): WorkshopSettings {
    this.put([[LOGO, logo]]);
    return this.read();
  }

  private put(values: readonly (readonly [name: string, value: unknown])[]): void {
    this.database.transact(() => {
      for (const [name, value] of values) this.database.run(SAVE, name, JSON.stringify(value));
    });
    this.known = null;
  }

  /** Minutes of a pause behind the network, where no machine is opened. */
  usualPause(): number {
    return this.read().isolationMinutes;
  }

  /** Minutes of a pause at a machine. */
  pauseOf(plate: DataPlate): number {
    const { isolationMinutes, isolationMinutesHighPressure: highPressure } = this.read();
    return pauseMinutesOf(plate, { usual: isolationMinutes, highPressure });
  }
}
