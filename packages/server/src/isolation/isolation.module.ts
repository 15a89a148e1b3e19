import { NotedAs } from '../access/noted-as.js';
import { May, ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, Module, Param, Put } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { SaveSettings, type IsolationView, type WorkshopSettings } from '@entretien/contracts';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { IsolationService } from './isolation.service.js';
import { WorkshopSettingsService } from './workshop-settings.js';

@ApiTags('isolation')
@ReadsAndWrites('see', 'work')
@Controller()
export class IsolationController {
  constructor(
    private readonly isolation: IsolationService,
    private readonly settings: WorkshopSettingsService,
  ) {}

  @Get('compressors/:compressorId/isolation')
  @ApiOperation({ summary: 'How the isolation of a unit stands, with what was said of it lately' })
  one(@Param('compressorId') compressorId: string): IsolationView {
    return this.isolation.view(compressorId);
  }

  @Get('settings')
  @ApiOperation({ summary: 'How this workshop has the guard set, and what stands on its papers' })
  read(): WorkshopSettings {
    return this.settings.read();
  }

  @Put('settings')
  @NotedAs('settings changed')
  @May('lead')
  @ApiOperation({ summary: 'Set the guard and what stands on papers; what is left out stays' })
  save(@Body() settings: SaveSettings): WorkshopSettings {
    return this.settings.save(settings);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule],
  controllers: [IsolationController],
  providers: [IsolationService, WorkshopSettingsService],
  exports: [IsolationService, WorkshopSettingsService],
})
export class IsolationModule {}
