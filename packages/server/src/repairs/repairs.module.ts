import { May, ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, Module, Param, Post, Query, Res } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import {
  OpenRepair,
  RecordRepairStep,
  RepairsQuery,
  WithdrawFact,
  type FaultCountsView,
  type Page,
  type RepairStepView,
  type RepairView,
} from '@entretien/contracts';
import type { Response } from 'express';
import { pageOf } from '../common/page.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { IsolationModule } from '../isolation/isolation.module.js';
import { MeasurementsModule } from '../measurements/measurements.module.js';
import { PartsModule } from '../parts/parts.module.js';
import { PeopleModule } from '../people/people.js';
import { SitesModule } from '../sites/sites.module.js';
import { RepairReports } from './repair-report.js';
import { RepairsService } from './repairs.service.js';

@ApiTags('repairs')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller()
export class RepairsController {
  constructor(
    private readonly repairs: RepairsService,
    private readonly reports: RepairReports,
  ) {}

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

  @Get('fault-counts')
  @ApiOperation({ summary: 'How often each cause was confirmed behind each symptom of the fault finder' })
  counts(): FaultCountsView {
    return this.repairs.faultCounts();
  }

  @Get('repairs/:id')
  @ApiOperation({ summary: 'A repair with all that was done about it' })
  one(@Param('id') id: string): RepairView {
    return this.repairs.view(this.repairs.require(id));
  }

  @Get('repairs/:id/report.pdf')
  @May('see-own', { kind: 'repair', parameter: 'id' })
  @ApiProduces('application/pdf')
  @ApiOperation({ summary: 'The report of a repair' })
  async report(@Param('id') id: string, @Res() response: Response): Promise<void> {
    response.type('application/pdf').send(await this.reports.draw(id));
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

  @Post('repairs/:id/entries/:entryId/withdrawal')
  @ApiOperation({ summary: 'Take an entry back, with the reason; a part lies in the van again' })
  takeBack(
    @Param('id') id: string,
    @Param('entryId') entryId: string,
    @Body() withdrawal: WithdrawFact,
    @RequestPerson() by: string,
  ): RepairView {
    return this.repairs.takeBack(id, entryId, withdrawal, by);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule, MeasurementsModule, PartsModule, IsolationModule, SitesModule],
  controllers: [RepairsController],
  providers: [RepairsService, RepairReports],
  exports: [RepairsService],
})
export class RepairsModule {}
