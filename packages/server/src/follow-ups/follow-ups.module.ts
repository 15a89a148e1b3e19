import { Body, Controller, Get, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  FollowUpsQuery,
  PageQuery,
  RecordBroughtBack,
  RecordFollowUp,
  type BringBackView,
  type FollowUpLookView,
  type FollowUpView,
  type Page,
} from '@entretien/contracts';
import { ReadsAndWrites } from '../access/may.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { PeopleModule } from '../people/people.js';
import { FollowUpEntity } from '../persistence/entities/follow-up.entity.js';
import { FactPages } from '../persistence/fact-pages.js';
import { SitesModule } from '../sites/sites.module.js';
import { FollowUpsService, toLookView } from './follow-ups.service.js';

@ApiTags('follow-ups')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller()
export class FollowUpsController {
  constructor(
    private readonly followUps: FollowUpsService,
    private readonly pages: FactPages,
    private readonly register: CompressorRegister,
  ) {}

  @Get('follow-ups')
  @ApiOperation({
    summary: 'What is to be looked at again anywhere, or on a unit: joints that were opened, new belts',
  })
  all(@Query() { compressorId }: FollowUpsQuery): readonly FollowUpView[] {
    return compressorId === undefined ? this.followUps.all() : this.followUps.of(compressorId);
  }

  @Get('compressors/:compressorId/follow-ups')
  @ApiOperation({ summary: 'Second looks that were taken on a unit, the latest first' })
  list(
    @Param('compressorId') compressorId: string,
    @Query() query: PageQuery,
  ): Promise<Page<FollowUpLookView>> {
    const { id } = this.register.require(compressorId);
    return this.pages.page(FollowUpEntity, 'lookedAt', id, query, toLookView);
  }

  @Get('compressors/:compressorId/bring-back')
  @ApiOperation({ summary: 'Since when a unit has stood, and the list that it is brought back by' })
  bringBack(@Param('compressorId') compressorId: string): BringBackView {
    return this.followUps.bringBack(compressorId);
  }

  @Post('compressors/:compressorId/brought-back')
  @ApiOperation({ summary: 'A unit that stood for months was brought back: all of its list was seen to' })
  recordBack(
    @Param('compressorId') compressorId: string,
    @Body() sent: RecordBroughtBack,
    @RequestPerson() by: string,
  ): BringBackView {
    return this.followUps.recordBack(compressorId, sent, by);
  }

  @Post('compressors/:compressorId/follow-ups')
  @ApiOperation({ summary: 'Record a second look; one that comes too soon to show anything is refused' })
  record(
    @Param('compressorId') compressorId: string,
    @Body() sent: RecordFollowUp,
    @RequestPerson() by: string,
  ): FollowUpLookView {
    return this.followUps.record(compressorId, sent, by);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule, SitesModule],
  controllers: [FollowUpsController],
  providers: [FollowUpsService],
  exports: [FollowUpsService],
})
export class FollowUpsModule {}
