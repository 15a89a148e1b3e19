import { ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, HttpCode, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  PageQuery,
  RecordMeterChange,
  RecordReading,
  RecordReadings,
  type BatchResultsView,
  type MeterChangeView,
  type Page,
  type ReadingView,
} from '@entretien/contracts';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { NeighbouringFigures } from './neighbours.js';
import { ReadingsService } from './readings.service.js';

@ApiTags('readings')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('compressors/:compressorId')
export class ReadingsController {
  constructor(private readonly readings: ReadingsService) {}

  @Post('readings')
  @ApiOperation({ summary: 'Record a reading of the hour meter' })
  record(
    @Param('compressorId') compressorId: string,
    @Body() reading: RecordReading,
    @RequestPerson() by: string,
  ): ReadingView {
    return this.readings.record(compressorId, reading, by);
  }

  @Get('readings')
  @ApiOperation({ summary: 'The readings of a unit, latest first' })
  list(@Param('compressorId') compressorId: string, @Query() query: PageQuery): Promise<Page<ReadingView>> {
    return this.readings.list(compressorId, query);
  }

  @Post('meter-changes')
  @ApiOperation({ summary: 'Record that the meter was replaced, reset or rolled over' })
  recordMeterChange(
    @Param('compressorId') compressorId: string,
    @Body() change: RecordMeterChange,
    @RequestPerson() by: string,
  ): MeterChangeView {
    return this.readings.recordMeterChange(compressorId, change, by);
  }

  @Get('meter-changes')
  @ApiOperation({ summary: 'The meter changes of a unit, latest first' })
  listMeterChanges(
    @Param('compressorId') compressorId: string,
    @Query() query: PageQuery,
  ): Promise<Page<MeterChangeView>> {
    return this.readings.listMeterChanges(compressorId, query);
  }
}

@ApiTags('readings')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('readings')
export class ReadingsOfManyController {
  constructor(private readonly readings: ReadingsService) {}

  @Post('batch')
  @HttpCode(200)
  @ApiOperation({ summary: 'Record readings of many units at once, each row by itself' })
  batch(@Body() { readings }: RecordReadings, @RequestPerson() by: string): BatchResultsView {
    return this.readings.recordBatch(readings, by);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule],
  controllers: [ReadingsController, ReadingsOfManyController],
  providers: [ReadingsService, NeighbouringFigures],
  exports: [NeighbouringFigures, ReadingsService],
})
export class ReadingsModule {}
