import { Body, Controller, Get, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  ChangePoint,
  PageQuery,
  PointsQuery,
  type PointBriefView,
  RecordPointWork,
  RegisterPoint,
  WithdrawPointWork,
  type Page,
  type PointView,
  type PointWorkView,
} from '@entretien/contracts';
import { ReadsAndWrites } from '../access/may.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { SitesModule } from '../sites/sites.module.js';
import { StandingsModule } from '../standings/standings.module.js';
import { StopsModule } from '../stops/stops.module.js';
import { WorkshopModule } from '../workshop/workshop.module.js';
import { PointRegister } from './point-register.js';
import { PointsService } from './points.service.js';
import { TurnsController } from './turns.js';

@ApiTags('points of use')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('points')
export class PointsController {
  constructor(private readonly points: PointsService) {}

  @Post()
  @ApiOperation({ summary: 'Register a point of use; one whose network has no unit is refused' })
  add(@Body() point: RegisterPoint, @RequestPerson() by: string): PointView {
    return this.points.add(point, by);
  }

  @Get()
  @ApiOperation({ summary: 'Points of use, the most urgent first: all, of a site, or fed by a unit' })
  list(@Query() query: PointsQuery): Page<PointBriefView> {
    return this.points.list(query);
  }

  @Get(':id')
  @ApiOperation({ summary: 'A point of use as it stands' })
  one(@Param('id') id: string): PointView {
    return this.points.one(id);
  }

  @Post(':id/changes')
  @ApiOperation({ summary: 'Record what became known of a point of use' })
  change(@Param('id') id: string, @Body() change: ChangePoint, @RequestPerson() by: string): PointView {
    return this.points.change(id, change, by);
  }

  @Get(':id/work')
  @ApiOperation({ summary: 'What was done and found at a point of use, the latest first' })
  history(@Param('id') id: string, @Query() query: PageQuery): Page<PointWorkView> {
    return this.points.history(id, query);
  }

  @Post(':id/work')
  @ApiOperation({
    summary: 'Record work at a point of use; what opens it is refused unless it was proved empty',
  })
  record(@Param('id') id: string, @Body() work: RecordPointWork, @RequestPerson() by: string): PointView {
    return this.points.record(id, work, by);
  }

  @Post(':id/withdrawals')
  @ApiOperation({ summary: 'Withdraw work that was put down wrongly' })
  withdraw(
    @Param('id') id: string,
    @Body() withdrawal: WithdrawPointWork,
    @RequestPerson() by: string,
  ): PointView {
    return this.points.withdraw(id, withdrawal, by);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule, SitesModule, StandingsModule, StopsModule, WorkshopModule],
  controllers: [PointsController, TurnsController],
  providers: [PointRegister, PointsService],
  exports: [PointsService],
})
export class PointsModule {}
