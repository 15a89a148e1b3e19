import { May, ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import { PageQuery, RecordService, type Page, type ServiceView } from '@entretien/contracts';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { ReadingsModule } from '../readings/readings.module.js';
import { ServicesService } from './services.service.js';

@ApiTags('services')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('compressors/:compressorId/services')
export class ServicesController {
  constructor(private readonly services: ServicesService) {}

  // What it moves is what a signature moves.
  @Post()
  @May('sign')
  @ApiOperation({ summary: 'Record work that was done' })
  record(
    @Param('compressorId') compressorId: string,
    @Body() service: RecordService,
    @RequestPerson() by: string,
  ): ServiceView {
    return this.services.record(compressorId, service, by);
  }

  @Get()
  @ApiOperation({ summary: 'The services of a unit, latest first' })
  list(@Param('compressorId') compressorId: string, @Query() query: PageQuery): Promise<Page<ServiceView>> {
    return this.services.list(compressorId, query);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule, ReadingsModule],
  controllers: [ServicesController],
  providers: [ServicesService],
  exports: [ServicesService],
})
export class ServicesModule {}
