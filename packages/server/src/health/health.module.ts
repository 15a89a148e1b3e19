import { mayNow } from '../access/actor.js';
import { May } from '../access/may.js';
import { Controller, Get, Inject, Module } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { HealthView } from '@entretien/contracts';
import { DataSource } from 'typeorm';
import { ProblemError } from '../common/problem.js';
import { freeBytesAt } from '../common/free-bytes.js';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import { VERSION } from '../common/version.js';
import type { Settings } from '../config.js';
import { Database } from '../persistence/database.js';
import { ReachModule } from '../reach/reach.module.js';
import { Reach } from '../reach/reach.js';
import { ScheduledBackups } from '../upkeep/scheduled-backups.js';
import { UpkeepModule } from '../upkeep/upkeep.module.js';
import { ClockDoubt } from './clock-doubt.js';

/** With less than this left, a day’s photos may be too much. */
const LITTLE_ROOM_BYTES = 200_000_000;

@ApiTags('health')
@May('open')
@Controller('health')
export class HealthController {
  constructor(
    private readonly dataSource: DataSource,
    private readonly database: Database,
    private readonly doubt: ClockDoubt,
    private readonly backups: ScheduledBackups,
    private readonly reach: Reach,
    @Inject(SETTINGS) private readonly settings: Settings,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  @Get()
  @ApiOperation({ summary: 'Whether the database can be written to and its migrations are current' })
  async check(): Promise<HealthView> {
    try {
      // What can be read is not yet what can be written: a full disk, rights, somebody else's lock.
      this.database.transact(() => this.database.touch(this.clock()));
      if (await this.dataSource.showMigrations()) throw new Error('migrations are pending');
    } catch (error) {
      throw new ProblemError(503, 'unhealthy', 'The server is not well.', String(error));
    }
    const freeBytes = freeBytesAt(this.settings.dataDir);
    return {
      status: 'ok',
      database: 'answers',
      migrations: 'current',
      version: VERSION,
      freeBytes,
      backups: this.backups.view(mayNow('see')),
      doubts: this.doubts(freeBytes),
    };
  }

  private doubts(freeBytes: number): HealthView['doubts'] {
    const found = [
      ['clock-behind', this.doubt.sentence()],
      ['backup-late', this.backups.doubt()],
      ['little-room', littleRoom(freeBytes)],
      ['certificate-ends', this.reach.doubt()],
    ] as const;
    // What of this machine stands in the way is nothing for strangers.
    const told = found.filter(([code]) => code === 'clock-behind' || mayNow('see'));
    return told.flatMap(([code, sentence]) => (sentence === null ? [] : [{ code, sentence }]));
  }
}

function littleRoom(freeBytes: number): string | null {
  if (freeBytes >= LITTLE_ROOM_BYTES) return null;
  return `The server’s disk has ${Math.floor(freeBytes / 1_000_000)} MB left. Make room on it: when it is full, nothing more is recorded.`;
}

@Module({ imports: [UpkeepModule, ReachModule], controllers: [HealthController], providers: [ClockDoubt] })
export class HealthModule {}
