import { Controller, HttpCode, Module, Post } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { BackupsView } from '@entretien/contracts';
import { May } from '../access/may.js';
import { NotedAs } from '../access/noted-as.js';
import { conflict, ProblemError } from '../common/problem.js';
import { ScheduledBackups } from './scheduled-backups.js';

@ApiTags('upkeep')
@Controller('backups')
export class BackupsController {
  constructor(private readonly backups: ScheduledBackups) {}

  @Post()
  @HttpCode(201)
  @May('lead')
  @NotedAs('backed up')
  @ApiOperation({ summary: 'Make a backup now, and open it to see that it is whole' })
  async make(): Promise<BackupsView> {
    if (!this.backups.view().isOn)
      throw conflict(
        'no-schedule',
        'No backups are made here.',
        'The server was started with ENTRETIEN_BACKUPS=no. Use “npm run backup” instead.',
      );
    await this.backups.make();
    const view = this.backups.view();
    if (view.problem !== null)
      throw new ProblemError(507, 'backup-failed', 'The backup failed.', view.problem);
    return view;
  }
}

/** What keeps an installation running for years. */
@Module({ controllers: [BackupsController], providers: [ScheduledBackups], exports: [ScheduledBackups] })
export class UpkeepModule {}
