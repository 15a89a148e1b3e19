import { Controller, Get, Module } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { DataSource } from 'typeorm';
import { ProblemError } from '../common/problem.js';

@ApiTags('health')
@Controller('health')
export class HealthController {
  constructor(private readonly dataSource: DataSource) {}

  @Get()
  @ApiOperation({ summary: 'Whether the database answers and its migrations are current' })
  async check(): Promise<{ status: 'ok'; database: 'answers'; migrations: 'current' }> {
    try {
      await this.dataSource.query('SELECT 1');
      if (await this.dataSource.showMigrations()) throw new Error('migrations are pending');
    } catch (error) {
      throw new ProblemError(503, 'unhealthy', 'The server is not well.', String(error));
    }
    return { status: 'ok', database: 'answers', migrations: 'current' };
  }
}

@Module({ controllers: [HealthController] })
export class HealthModule {}
