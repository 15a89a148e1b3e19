import { May, ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, Module, Param, Post } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import { ReturnToService, TakeOutOfService, type StopView } from '@entretien/contracts';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { SitesModule } from '../sites/sites.module.js';
import { StopsService } from './stops.service.js';

@ApiTags('out of service')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller()
export class StopsController {
  constructor(private readonly stops: StopsService) {}

  @Get('stops')
  @ApiOperation({ summary: 'Everything in the fleet that must not be used, and why' })
  all(): readonly StopView[] {
    return this.stops.all();
  }

  @Get('compressors/:compressorId/stops')
  @ApiOperation({ summary: 'What stands against using a unit' })
  of(@Param('compressorId') compressorId: string): readonly StopView[] {
    return this.stops.views(compressorId);
  }

  @Post('compressors/:compressorId/out-of-service')
  @ApiOperation({ summary: 'Take a unit, or a part of its use, out of service' })
  takeOut(
    @Param('compressorId') compressorId: string,
    @Body() sent: TakeOutOfService,
    @RequestPerson() by: string,
  ): readonly StopView[] {
    return this.stops.takeOut(compressorId, sent, by);
  }

  @Post('compressors/:compressorId/return-to-service')
  @May('sign')
  @ApiOperation({ summary: 'It runs again: by a later better verdict, or by a named decision' })
  bringBack(
    @Param('compressorId') compressorId: string,
    @Body() sent: ReturnToService,
    @RequestPerson() by: string,
  ): readonly StopView[] {
    return this.stops.bringBack(compressorId, sent, by);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule, SitesModule],
  controllers: [StopsController],
  providers: [StopsService],
  exports: [StopsService],
})
export class StopsModule {}
