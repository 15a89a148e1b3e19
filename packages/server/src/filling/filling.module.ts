import { Body, Controller, Get, Module, Param, Post, Query, Req, Res } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import {
  FillLogQuery,
  PageQuery,
  RecordFill,
  type FillingView,
  type FillView,
  type Page,
} from '@entretien/contracts';
import type { Request, Response } from 'express';
import { ReadsAndWrites } from '../access/may.js';
import { NotedAs } from '../access/noted-as.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { PeopleModule } from '../people/people.js';
import { FillEntity } from '../persistence/entities/fill.entity.js';
import { FactPages } from '../persistence/fact-pages.js';
import { SitesModule } from '../sites/sites.module.js';
import { StandingsModule } from '../standings/standings.module.js';
import { StopsModule } from '../stops/stops.module.js';
import { WorkshopModule } from '../workshop/workshop.module.js';
import { originOf } from '../documents/paper-codes.js';
import { CylinderLabels } from './cylinder-labels.js';
import { FillLog } from './fill-log.js';
import { FillingService, toView } from './filling.service.js';

@ApiTags('filling')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('compressors/:compressorId')
export class FillingController {
  constructor(
    private readonly filling: FillingService,
    private readonly log: FillLog,
    private readonly cylinderLabels: CylinderLabels,
    private readonly pages: FactPages,
    private readonly register: CompressorRegister,
  ) {}

  @Get('filling')
  @ApiOperation({ summary: 'What a set can fill, and what stands against it' })
  view(@Param('compressorId') compressorId: string): FillingView {
    return this.filling.view(compressorId);
  }

  @Post('fills')
  @ApiOperation({ summary: 'Record a fill; what had to be refused before air flowed is refused here too' })
  record(
    @Param('compressorId') compressorId: string,
    @Body() sent: RecordFill,
    @RequestPerson() by: string,
  ): FillView {
    return this.filling.record(compressorId, sent, by);
  }

  @Get('fills')
  @ApiOperation({ summary: 'Fills, the latest first' })
  list(@Param('compressorId') compressorId: string, @Query() query: PageQuery): Promise<Page<FillView>> {
    const { id } = this.register.require(compressorId);
    return this.pages.page(FillEntity, 'endedAt', id, query, toView);
  }

  @Get('fill-log.csv')
  @NotedAs('exported')
  @ApiProduces('text/csv')
  @ApiOperation({ summary: 'The fill log as a list' })
  csv(
    @Param('compressorId') compressorId: string,
    @Query() query: FillLogQuery,
    @Res() response: Response,
  ): void {
    response.type('text/csv').attachment('fill-log.csv').send(this.log.csv(compressorId, query));
  }

  @Get('cylinder-labels.pdf')
  @ApiProduces('application/pdf')
  @ApiOperation({ summary: 'A code for each cylinder, that opens its fill' })
  async labels(
    @Param('compressorId') compressorId: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    response.type('application/pdf').send(await this.cylinderLabels.pdf(compressorId, originOf(request)));
  }

  @Get('fill-log.pdf')
  @NotedAs('exported')
  @ApiProduces('application/pdf')
  @ApiOperation({ summary: 'The fill log as a paper' })
  async pdf(
    @Param('compressorId') compressorId: string,
    @Query() query: FillLogQuery,
    @Res() response: Response,
  ): Promise<void> {
    response.type('application/pdf').send(await this.log.pdf(compressorId, query));
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule, SitesModule, StandingsModule, StopsModule, WorkshopModule],
  controllers: [FillingController],
  providers: [FillingService, FillLog, CylinderLabels],
  exports: [FillingService],
})
export class FillingModule {}
