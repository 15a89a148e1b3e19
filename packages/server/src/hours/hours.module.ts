import { ReadsAndWrites } from '../access/may.js';
import { Controller, Get, Module, Param, Query } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  ForecastQuery,
  HoursQuery,
  type ForecastView,
  type HoursView,
  type SiteMetersView,
} from '@entretien/contracts';
import { SitesModule } from '../sites/sites.module.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { HoursService } from './hours.service.js';
import { MetersService } from './meters.service.js';

@ApiTags('run hours')
@ReadsAndWrites('see', 'work')
@Controller('compressors/:compressorId')
export class HoursController {
  constructor(private readonly hours: HoursService) {}

  @Get('hours')
  @ApiOperation({ summary: 'Continuous run hours over some time, and how they are likely to go on' })
  series(@Param('compressorId') compressorId: string, @Query() query: HoursQuery): HoursView {
    return this.hours.series(compressorId, query);
  }

  @Get('forecast')
  @ApiOperation({ summary: 'When a figure of continuous run hours is reached: early, likely, late' })
  forecast(@Param('compressorId') compressorId: string, @Query() query: ForecastQuery): ForecastView {
    return this.hours.forecast(compressorId, query);
  }
}

@ApiTags('run hours')
@ReadsAndWrites('see', 'work')
@Controller('sites/:siteId')
export class MetersController {
  constructor(private readonly meters: MetersService) {}

  @Get('meters')
  @ApiOperation({ summary: 'The meters of a site in walking order, with what they should show' })
  ofSite(@Param('siteId') siteId: string): SiteMetersView {
    return this.meters.ofSite(siteId);
  }
}

@Module({
  imports: [CompressorsModule, SitesModule],
  controllers: [HoursController, MetersController],
  providers: [HoursService, MetersService],
})
export class HoursModule {}
