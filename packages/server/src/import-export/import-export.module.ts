import { NotedAs } from '../access/noted-as.js';
import { ReadsAndWrites } from '../access/may.js';
import { Controller, Get, HttpCode, Module, Post, Query, Req, Res } from '@nestjs/common';
import { ApiBody, ApiConsumes, ApiHeader, ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import { ExportQuery, ImportQuery, type ImportResultView } from '@entretien/contracts';
import type { Request, Response } from 'express';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { SitesModule } from '../sites/sites.module.js';
import { ExportService } from './export.service.js';
import { ImportService } from './import.service.js';

@ApiTags('readings')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('readings')
export class ListsController {
  constructor(
    private readonly imports: ImportService,
    private readonly exports: ExportService,
  ) {}

  @Post('import')
  @HttpCode(200)
  @ApiConsumes('text/csv')
  @ApiBody({ schema: { type: 'string' } })
  @ApiOperation({ summary: 'Import readings (CSV): preview it, or take it in' })
  take(
    @Req() request: Request,
    @Query() query: ImportQuery,
    @RequestPerson() by: string,
  ): Promise<ImportResultView> {
    return this.imports.take(request, query, by);
  }

  @Get('export')
  @NotedAs('exported')
  @ApiProduces('text/csv')
  @ApiOperation({ summary: 'The readings that stand, as a list (CSV)' })
  write(@Query() query: ExportQuery, @Res() response: Response): Promise<void> {
    return this.exports.readings(query, response);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule, SitesModule],
  controllers: [ListsController],
  providers: [ImportService, ExportService],
  exports: [ExportService],
})
export class ImportExportModule {}
