import { ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  ChangeVessel,
  RecordExamination,
  RegisterVessel,
  VesselsQuery,
  type Page,
  type VesselView,
} from '@entretien/contracts';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { SitesModule } from '../sites/sites.module.js';
import { VesselsService } from './vessels.service.js';

@ApiTags('vessels')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('vessels')
export class VesselsController {
  constructor(private readonly vessels: VesselsService) {}

  @Post()
  @ApiOperation({ summary: 'Register a receiver, bank or cylinder' })
  add(@Body() vessel: RegisterVessel, @RequestPerson() by: string): VesselView {
    return this.vessels.add(vessel, by);
  }

  @Get()
  @ApiOperation({ summary: 'Vessels by tag: all, or those that a unit fills' })
  list(@Query() query: VesselsQuery): Page<VesselView> {
    return this.vessels.list(query);
  }

  @Post(':id/changes')
  @ApiOperation({ summary: 'Record what became known of a vessel' })
  change(@Param('id') id: string, @Body() change: ChangeVessel, @RequestPerson() by: string): VesselView {
    return this.vessels.change(id, change, by);
  }

  @Post(':id/examinations')
  @ApiOperation({ summary: 'Record a pressure test or an inspection' })
  examine(
    @Param('id') id: string,
    @Body() examination: RecordExamination,
    @RequestPerson() by: string,
  ): VesselView {
    return this.vessels.examine(id, examination, by);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule, SitesModule],
  controllers: [VesselsController],
  providers: [VesselsService],
  exports: [VesselsService],
})
export class VesselsModule {}
