import { Controller, Get, Module, Query, Res } from '@nestjs/common';
import { ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import { LogbookExportQuery, LogbookQuery, type LogbookEntryView, type Page } from '@entretien/contracts';
import type { Response } from 'express';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { csv } from '../lists/export.service.js';
import { PeopleModule } from '../people/people.js';
import { SitesModule } from '../sites/sites.module.js';
import { LogbookService } from './logbook.service.js';

const COLUMNS = ['Date', 'Unit', 'Site', 'Kind', 'What', 'Note', 'By', 'Recorded', 'Stands', 'Id'];

@ApiTags('logbook')
@Controller('logbook')
export class LogbookController {
  constructor(private readonly logbook: LogbookService) {}

  @Get()
  @ApiOperation({ summary: 'Every fact of the fleet, the latest first; filtered and searched' })
  page(@Query() query: LogbookQuery): Page<LogbookEntryView> {
    return this.logbook.page(query);
  }

  @Get('export')
  @ApiProduces('text/csv', 'application/json')
  @ApiOperation({ summary: 'What a query finds, as a list' })
  async export(@Query() { format, ...query }: LogbookExportQuery, @Res() response: Response): Promise<void> {
    // Asked before anything is written, so that a refusal can still be one.
    const entries = this.logbook.all(query);
    const first = entries.next();
    response.type(format === 'csv' ? 'text/csv' : 'application/json').attachment(`logbook.${format}`);
    const write = async (text: string) => {
      if (!response.write(text)) await new Promise((resolve) => response.once('drain', resolve));
    };
    await write(format === 'csv' ? `${csv([COLUMNS])}\r\n` : '[');
    let count = 0;
    for (let next = first; !next.done; next = entries.next()) {
      await write(
        format === 'csv'
          ? `${csv([toRow(next.value)])}\r\n`
          : `${count > 0 ? ',' : ''}\n${JSON.stringify(next.value)}`,
      );
      count += 1;
    }
    response.end(format === 'csv' ? '' : '\n]\n');
  }
}

function toRow(entry: LogbookEntryView): string[] {
  const { at, tag, siteName, kind, said, note, byName, recordedAt, voided, id } = entry;
  return [at, tag, siteName, kind, said, note ?? '', byName, recordedAt, voided ? 'no' : 'yes', id];
}

@Module({
  imports: [CompressorsModule, PeopleModule, SitesModule],
  controllers: [LogbookController],
  providers: [LogbookService],
})
export class LogbookModule {}
