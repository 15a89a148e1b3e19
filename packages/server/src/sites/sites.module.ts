import { Body, Controller, Get, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import { AddSite, ChangeSite, PageQuery, type Page, type SiteView } from '@entretien/contracts';
import { pageOf } from '../common/page.js';
import { RequestPerson } from '../common/person-of-request.js';
import { PeopleModule } from '../people/people.js';
import { SitesService } from './sites.service.js';

@ApiTags('sites')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@Controller('sites')
export class SitesController {
  constructor(private readonly sites: SitesService) {}

  @Post()
  @ApiOperation({ summary: 'Add a site' })
  add(@Body() site: AddSite, @RequestPerson() by: string): SiteView {
    return this.sites.add(site, by);
  }

  @Get()
  @ApiOperation({ summary: 'All sites, by name' })
  list(@Query() query: PageQuery): Page<SiteView> {
    return pageOf(this.sites.list(), query, ({ id }) => id);
  }

  @Get(':siteId')
  @ApiOperation({ summary: 'One site' })
  find(@Param('siteId') siteId: string): SiteView {
    return this.sites.require(siteId);
  }

  @Post(':siteId/changes')
  @ApiOperation({ summary: 'Say what is now known of a site' })
  change(@Param('siteId') siteId: string, @Body() change: ChangeSite, @RequestPerson() by: string): SiteView {
    return this.sites.change(siteId, change, by);
  }
}

@Module({
  imports: [PeopleModule],
  controllers: [SitesController],
  providers: [SitesService],
  exports: [SitesService],
})
export class SitesModule {}
