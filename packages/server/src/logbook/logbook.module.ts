import { NotedAs } from '../access/noted-as.js';
import { ReadsAndWrites } from '../access/may.js';
import { Controller, Get, Module, Query, Res } from '@nestjs/common';
import { ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import { LogbookExportQuery, LogbookQuery, type LogbookEntryView, type Page } from '@entretien/contracts';
import type { Response } from 'express';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { ExportService } from '../import-export/export.service.js';
import { ImportExportModule } from '../import-export/import-export.module.js';
import { SitesModule } from '../sites/sites.module.js';
import { LogbookService } from './logbook.service.js';

@ApiTags('logbook')
@ReadsAndWrites('see', 'work')
@Controller('logbook')
export class LogbookController {
  constructor(
    private readonly logbook: LogbookService,
    private readonly exports: ExportService,
  ) {}

  @Get()
  @ApiOperation({ summary: 'Every fact of the fleet, the latest first; filtered and searched' })
  page(@Query() query: LogbookQuery): Page<LogbookEntryView> {
    return this.logbook.page(query);
  }

  @Get('export')
  @NotedAs('exported')
  @ApiProduces('text/csv', 'application/json')
  @ApiOperation({ summary: 'What a query finds, as a list' })
  async export(@Query() { format, ...query }: LogbookExportQuery, @Res() response: Response): Promise<void> {
    // Asked before anything is written, so that a refusal can still be one.
    const found = this.logbook.statement(query);
    response.type(format === 'csv' ? 'text/csv' : 'application/json').attachment(`logbook.${format}`);
    await this.exports.write(response, { shape: `logbook-${format}`, ...found });
  }
}

@Module({
  imports: [CompressorsModule, ImportExportModule, SitesModule],
  controllers: [LogbookController],
  providers: [LogbookService],
})
export class LogbookModule {}
