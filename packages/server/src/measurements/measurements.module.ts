import { ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, HttpCode, Inject, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  CheckLibraryQuery,
  FindingsQuery,
  JudgeValues,
  MeasurementsQuery,
  RecordMeasurement,
  type CheckLibraryView,
  type CheckView,
  type FindingsView,
  type MeasurementView,
  type Page,
} from '@entretien/contracts';
import {
  checkLibrary,
  checksFor,
  cautionOf,
  fieldsOf,
  howOf,
  type CheckDefinition,
  type Judgement,
} from '@entretien/core/checks';
import type { DataPlate } from '@entretien/core/machine';
import { RequestPerson } from '../common/person-of-request.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { PeopleModule } from '../people/people.js';
import { ReadingsModule } from '../readings/readings.module.js';
import { SitesModule } from '../sites/sites.module.js';
import { FindingsService } from './findings.service.js';
import { MeasurementsService } from './measurements.service.js';

@ApiTags('measurements')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('compressors/:compressorId/measurements')
export class MeasurementsController {
  constructor(private readonly measurements: MeasurementsService) {}

  @Post()
  @ApiOperation({ summary: 'Record a measurement; the answer carries its judgement' })
  record(
    @Param('compressorId') compressorId: string,
    @Body() measurement: RecordMeasurement,
    @RequestPerson() by: string,
  ): MeasurementView {
    return this.measurements.record(compressorId, measurement, by);
  }

  @Get()
  @ApiOperation({ summary: 'The measurements of a unit, latest first' })
  list(
    @Param('compressorId') compressorId: string,
    @Query() query: MeasurementsQuery,
  ): Promise<Page<MeasurementView>> {
    return this.measurements.list(compressorId, query);
  }
}

@ApiTags('measurements')
@ReadsAndWrites('see', 'work')
@Controller()
export class ChecksController {
  constructor(
    private readonly measurements: MeasurementsService,
    private readonly findings: FindingsService,
    private readonly register: CompressorRegister,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  @Get('check-library')
  @ApiOperation({ summary: 'The checks there are, or those that a unit can have' })
  library(@Query() { compressorId }: CheckLibraryQuery): CheckLibraryView {
    if (compressorId === undefined) return { checks: checkLibrary.map((check) => checkView(check)) };
    const plate = this.register.plateOf(this.register.require(compressorId), this.clock());
    return { checks: checksFor(plate).map((check) => checkView(check, plate)) };
  }

  @Post('judgements')
  @HttpCode(200)
  @ApiOperation({ summary: 'Judge a measurement without recording it' })
  judge(@Body() measurement: JudgeValues): Judgement {
    return this.measurements.judge(measurement);
  }

  @Get('findings')
  @ApiOperation({ summary: 'What was lately judged watch, act or stop, gravest first' })
  lately(@Query() query: FindingsQuery): FindingsView {
    return this.findings.list(query);
  }
}

function checkView(check: CheckDefinition, plate?: DataPlate): CheckView {
  const {
    station,
    applies: _applies,
    judge: _judge,
    resetBy = [],
    how: _how,
    caution: _caution,
    ...rest
  } = check;
  const caution = cautionOf(check, plate);
  return {
    ...rest,
    how: howOf(check, plate),
    ...(caution === undefined ? {} : { caution }),
    resetBy,
    fields: fieldsOf(check, plate),
    station: plate ? station(plate) : null,
  };
}

@Module({
  imports: [CompressorsModule, PeopleModule, ReadingsModule, SitesModule],
  controllers: [MeasurementsController, ChecksController],
  providers: [MeasurementsService, FindingsService],
  exports: [MeasurementsService],
})
export class MeasurementsModule {}
