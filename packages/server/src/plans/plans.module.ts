import { NotedAs } from '../access/noted-as.js';
import { ReadsAndWrites } from '../access/may.js';
import {
  Body,
  Controller,
  Get,
  Headers,
  HttpCode,
  Module,
  Param,
  Post,
  Put,
  Query,
  Res,
} from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  PageQuery,
  PlanContent,
  PlanLibraryQuery,
  DeferTask,
  SavePlan,
  SetStartingPoints,
  type Page,
  type PlanLibraryView,
  type PlanPreviewView,
  type PlanView,
  type DeferralView,
  type StartingPointsView,
} from '@entretien/contracts';
import type { Response } from 'express';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { StandingsModule } from '../standings/standings.module.js';
import { PlansService } from './plans.service.js';
import { DeferralsService } from './deferrals.service.js';

@ApiTags('plans')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller()
export class PlansController {
  constructor(
    private readonly plans: PlansService,
    private readonly waiting: DeferralsService,
  ) {}

  @Get('compressors/:id/plan')
  @ApiOperation({ summary: 'The service plan in force; the latest version is its ETag' })
  plan(@Param('id') id: string, @Res({ passthrough: true }) response: Response): PlanView {
    return tagged(this.plans.find(id), response);
  }

  @Put('compressors/:id/plan')
  @NotedAs('plan changed')
  @ApiOperation({ summary: 'Save a plan as the next version, based on the one named in If-Match' })
  @ApiHeader({ name: 'If-Match', required: true, description: 'The version that was changed, like "3".' })
  save(
    @Param('id') id: string,
    @Body() plan: SavePlan,
    @Headers('if-match') basedOn: string | undefined,
    @RequestPerson() by: string,
    @Res({ passthrough: true }) response: Response,
  ): PlanView {
    return tagged(this.plans.save(id, plan, basedOn, by), response);
  }

  @Post('compressors/:id/plan-preview')
  @HttpCode(200)
  @ApiOperation({ summary: 'What a plan would mean for a unit; nothing is stored' })
  preview(@Param('id') id: string, @Body() plan: PlanContent): PlanPreviewView {
    return this.plans.preview(id, plan);
  }

  @Get('plan-library')
  @ApiOperation({ summary: 'Default plan and practice choices of a unit or family, and the schema of plans' })
  library(@Query() query: PlanLibraryQuery): PlanLibraryView {
    return this.plans.library(query);
  }

  @Post('compressors/:id/deferrals')
  @ApiOperation({ summary: 'Put a task off, with the reason and the limit' })
  deferral(@Param('id') id: string, @Body() deferral: DeferTask, @RequestPerson() by: string): DeferralView {
    return this.waiting.deferral(id, deferral, by);
  }

  @Get('compressors/:id/deferrals')
  @ApiOperation({ summary: 'What was put off, the latest first' })
  deferrals(@Param('id') id: string, @Query() query: PageQuery): Promise<Page<DeferralView>> {
    return this.waiting.deferrals(id, query);
  }

  @Post('compressors/:id/starting-points')
  @ApiOperation({
    summary:
      'Say where tasks count from: by inspection, by an accepted estimate, or by the sticker on the machine',
  })
  setStartingPoints(
    @Param('id') id: string,
    @Body() points: SetStartingPoints,
    @RequestPerson() by: string,
  ): StartingPointsView {
    return this.waiting.setStartingPoints(id, points, by);
  }

  @Get('compressors/:id/starting-points')
  @ApiOperation({ summary: 'Where tasks were said to count from, the latest first' })
  startingPoints(@Param('id') id: string, @Query() query: PageQuery): Promise<Page<StartingPointsView>> {
    return this.waiting.startingPoints(id, query);
  }
}

function tagged(plan: PlanView, response: Response): PlanView {
  response.setHeader('ETag', `"${plan.latest}"`);
  return plan;
}

@Module({
  imports: [CompressorsModule, PeopleModule, StandingsModule],
  controllers: [PlansController],
  providers: [PlansService, DeferralsService],
  exports: [PlansService, DeferralsService],
})
export class PlansModule {}
