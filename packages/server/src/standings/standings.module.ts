import { ReadsAndWrites } from '../access/may.js';
import { Controller, Get, Module, Param, Query } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  StandingQuery,
  StandingsQuery,
  type FleetStandingView,
  type StandingView,
} from '@entretien/contracts';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { SitesModule } from '../sites/sites.module.js';
import { FleetService } from './fleet.service.js';
import { KeptOrder } from './kept-order.js';
import { FleetTeacher } from './fleet-teacher.js';
import { StandingsService } from './standings.service.js';

@ApiTags('standing')
@ReadsAndWrites('see', 'work')
@Controller()
export class StandingsController {
  constructor(
    private readonly standings: StandingsService,
    private readonly fleet: FleetService,
  ) {}

  @Get('compressors/:compressorId/standing')
  @ApiOperation({ summary: 'What is due on a unit, at a moment, as known at a moment' })
  of(@Param('compressorId') compressorId: string, @Query() query: StandingQuery): StandingView {
    const { at, knownAt, explain } = query;
    const moment = (text: string | undefined) => (text === undefined ? undefined : Date.parse(text));
    return explain === 'yes'
      ? this.standings.explained(compressorId, moment(at), moment(knownAt))
      : this.standings.of(compressorId, moment(at), moment(knownAt));
  }

  @Get('standings')
  @ApiOperation({ summary: 'The fleet, most urgent first' })
  page(@Query() query: StandingsQuery): FleetStandingView {
    return this.fleet.page(query);
  }
}

@Module({
  imports: [CompressorsModule, SitesModule],
  controllers: [StandingsController],
  providers: [StandingsService, FleetService, FleetTeacher, KeptOrder],
  exports: [StandingsService, FleetService],
})
export class StandingsModule {}
