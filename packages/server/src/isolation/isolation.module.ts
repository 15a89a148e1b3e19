import { ReadsAndWrites } from '../access/may.js';
import { Controller, Get, Module, Param } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { IsolationView } from '@entretien/contracts';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { IsolationService } from './isolation.service.js';
import { WorkshopModule } from '../workshop/workshop.module.js';

@ApiTags('isolation')
@ReadsAndWrites('see', 'work')
@Controller()
export class IsolationController {
  constructor(private readonly isolation: IsolationService) {}

  @Get('compressors/:compressorId/isolation')
  @ApiOperation({ summary: 'How the isolation of a unit stands, with what was said of it lately' })
  one(@Param('compressorId') compressorId: string): IsolationView {
    return this.isolation.view(compressorId);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule, WorkshopModule],
  controllers: [IsolationController],
  providers: [IsolationService],
  exports: [IsolationService, WorkshopModule],
})
export class IsolationModule {}
