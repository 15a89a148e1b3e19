import { Controller, Get, Inject, Module } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { DataSource } from 'typeorm';
import { ProblemError } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { Database } from '../persistence/database.js';

@ApiTags('health')
@Controller('health')
export class HealthController {
  constructor(
    private readonly dataSource: DataSource,
    private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  @Get()
  @ApiOperation({ summary: 'Whether the database can be written to and its migrations are current' })
  async check(): Promise<{ status: 'ok'; database: 'answers'; migrations: 'current' }> {
    try {
      // What can be read is not yet what can be written: a full disk, rights, somebody else's lock.
      this.database.transact(() => this.database.touch(this.clock()));
      if (await this.dataSource.showMigrations()) throw new Error('migrations are pending');
    } catch (error) {
      throw new ProblemError(503, 'unhealthy', 'The server is not well.', String(error));
    }
    return { status: 'ok', database: 'answers', migrations: 'current' };
  }
}

@Module({ controllers: [HealthController] })
export class HealthModule {}
