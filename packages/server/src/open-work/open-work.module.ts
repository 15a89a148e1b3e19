import { ReadsAndWrites } from '../access/may.js';
import { Controller, Get, Module } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { OpenWorkView } from '@entretien/contracts';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PartsModule } from '../parts/parts.module.js';
import { RepairsModule } from '../repairs/repairs.module.js';
import { SitesModule } from '../sites/sites.module.js';
import { StandingsModule } from '../standings/standings.module.js';
import { VisitsModule } from '../visits/visits.module.js';
import { OpenWorkService } from './open-work.service.js';

@ApiTags('standing')
@ReadsAndWrites('see', 'work')
@Controller('open-work')
export class OpenWorkController {
  constructor(private readonly work: OpenWorkService) {}

  @Get()
  @ApiOperation({ summary: 'Open repairs and visits anywhere, and what the van is short of for what is due' })
  view(): OpenWorkView {
    return this.work.view();
  }
}

@Module({
  imports: [CompressorsModule, PartsModule, RepairsModule, SitesModule, StandingsModule, VisitsModule],
  controllers: [OpenWorkController],
  providers: [OpenWorkService],
})
export class OpenWorkModule {}
