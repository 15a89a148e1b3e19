import { Body, Controller, Get, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  OpenRepair,
  RecordRepairStep,
  RepairsQuery,
  type Page,
  type RepairStepView,
  type RepairView,
} from '@entretien/contracts';
import { pageOf } from '../common/page.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { IsolationModule } from '../isolation/isolation.module.js';
import { MeasurementsModule } from '../measurements/measurements.module.js';
import { PartsModule } from '../parts/parts.module.js';
import { PeopleModule } from '../people/people.js';
import { RepairsService } from './repairs.service.js';

@ApiTags('repairs')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@Controller()
export class RepairsController {
  constructor(private readonly repairs: RepairsService) {}

  @Post('compressors/:compressorId/repairs')
  @ApiOperation({ summary: 'A fault was found, or something was changed on purpose' })
  open(
    @Param('compressorId') compressorId: string,
    @Body() repair: OpenRepair,
    @RequestPerson() by: string,
  ): RepairView {
    return this.repairs.report(compressorId, repair, by);
  }

  @Get('compressors/:compressorId/repairs')
  @ApiOperation({ summary: 'Repairs of a unit, latest first' })
  list(@Param('compressorId') compressorId: string, @Query() query: RepairsQuery): Page<RepairView> {
    return pageOf(this.repairs.list(compressorId, query), query, ({ id }) => id);
  }

  @Get('repairs/:id')
  @ApiOperation({ summary: 'A repair with all that was done about it' })
  one(@Param('id') id: string): RepairView {
    return this.repairs.view(this.repairs.require(id));
  }

  @Post('repairs/:id/steps')
  @ApiOperation({ summary: 'Isolate the unit, or start it again, for the work of a repair' })
  step(@Param('id') id: string, @Body() step: RecordRepairStep, @RequestPerson() by: string): RepairStepView {
    return this.repairs.step(id, step, by);
  }

  @Post('repairs/:id/entries')
  @ApiOperation({ summary: 'Cause, work, part, step of an overhaul, proof, or closing with a reason' })
  add(@Param('id') id: string, @Body() entry: object, @RequestPerson() by: string): RepairView {
    return this.repairs.add(id, entry, by);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule, MeasurementsModule, PartsModule, IsolationModule],
  controllers: [RepairsController],
  providers: [RepairsService],
  exports: [RepairsService],
})
export class RepairsModule {}
