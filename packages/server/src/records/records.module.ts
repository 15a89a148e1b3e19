import { pipeline } from 'node:stream/promises';
import { Controller, Get, HttpCode, Module, Param, Post, Res } from '@nestjs/common';
import { ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { RemovedNameView } from '@entretien/contracts';
import type { Response } from 'express';
import { AccessModule } from '../access/access.module.js';
import { May } from '../access/may.js';
import { NotedAs } from '../access/noted-as.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { SitesModule } from '../sites/sites.module.js';
import { CustomerExport } from './customer-export.js';
import { PersonRecords } from './person-records.js';

/** What is on record about one customer, or one person. */
@ApiTags('records')
@May('lead')
@Controller()
export class RecordsController {
  constructor(
    private readonly customers: CustomerExport,
    private readonly persons: PersonRecords,
  ) {}

  @Get('customers/:id/export')
  @NotedAs('exported')
  @ApiProduces('application/zip')
  @ApiOperation({ summary: 'Everything on record about a customer, as an archive of JSON files and photos' })
  async ofCustomer(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const { archive, name } = this.customers.write(id);
    response.type('application/zip').attachment(name);
    // Whoever asked may go away: then nobody needs the rest.
    await pipeline(archive, response).catch(() => undefined);
  }

  @Get('people/:id/export')
  @NotedAs('exported')
  @ApiOperation({ summary: 'Everything on record about somebody who works here' })
  ofPerson(@Param('id') id: string, @Res() response: Response): void {
    response.attachment(`person-${id.slice(-8)}.json`).json(this.persons.everythingOf(id));
  }

  @Post('people/:id/name-removal')
  @HttpCode(200)
  @ApiOperation({ summary: 'Take somebody’s name off everything; what they recorded stays' })
  removeName(@Param('id') id: string): RemovedNameView {
    return this.persons.removeName(id);
  }
}

@Module({
  imports: [AccessModule, CompressorsModule, PeopleModule, SitesModule],
  controllers: [RecordsController],
  providers: [CustomerExport, PersonRecords],
})
export class RecordsModule {}
