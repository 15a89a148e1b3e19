import { NotedAs } from '../access/noted-as.js';
import { May, ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  AddCustomer,
  AddSite,
  AssignSite,
  ChangeSite,
  PageQuery,
  type CustomerView,
  type Page,
  type SiteView,
} from '@entretien/contracts';
import { pageOf } from '../common/page.js';
import { RequestPerson } from '../common/person-of-request.js';
import { PeopleModule } from '../people/people.js';
import { SitesService } from './sites.service.js';

@ApiTags('sites')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
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
  @NotedAs('site changed')
  @ApiOperation({ summary: 'Say what is now known of a site' })
  change(@Param('siteId') siteId: string, @Body() change: ChangeSite, @RequestPerson() by: string): SiteView {
    return this.sites.change(siteId, change, by);
  }
}

@ApiTags('sites')
@ReadsAndWrites('see', 'work')
@Controller()
export class CustomersController {
  constructor(private readonly sites: SitesService) {}

  @Get('customers')
  @ApiOperation({ summary: 'Everybody whose machines are looked after, with their sites' })
  list(): readonly CustomerView[] {
    return this.sites.customers();
  }

  @Post('customers')
  @NotedAs('customer changed')
  @May('lead')
  @ApiOperation({ summary: 'Add a customer' })
  add(@Body() customer: AddCustomer, @RequestPerson() by: string): CustomerView {
    return this.sites.addCustomer(customer, by);
  }

  @Post('sites/:siteId/customer')
  @NotedAs('customer changed')
  @May('lead')
  @ApiOperation({ summary: 'Say whose site it is' })
  assign(@Param('siteId') siteId: string, @Body() owner: AssignSite, @RequestPerson() by: string): SiteView {
    return this.sites.assign(siteId, owner, by);
  }
}

@Module({
  imports: [PeopleModule],
  controllers: [SitesController, CustomersController],
  providers: [SitesService],
  exports: [SitesService],
})
export class SitesModule {}
