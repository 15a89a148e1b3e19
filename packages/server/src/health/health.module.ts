import { May } from '../access/may.js';
import { Controller, Get, Inject, Module } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { HealthView } from '@entretien/contracts';
import { DataSource } from 'typeorm';
import { ProblemError } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { Database } from '../persistence/database.js';
import { ClockDoubt } from './clock-doubt.js';

@ApiTags('health')
@May('open')
@Controller('health')
export class HealthController {
  constructor(
    private readonly dataSource: DataSource,
    private readonly database: Database,
    private readonly doubt: ClockDoubt,
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
    const sentence = this.doubt.sentence();
    const doubts = sentence === null ? [] : [{ code: 'clock-behind', sentence }];
    return { status: 'ok', database: 'answers', migrations: 'current', doubts };
  }
}

@Module({ controllers: [HealthController], providers: [ClockDoubt] })
export class HealthModule {}
