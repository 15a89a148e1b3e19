import { ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  ChangePlate,
  CompressorsQuery,
  RegisterCompressor,
  type CompressorView,
  type Page,
  type PlateChangeView,
} from '@entretien/contracts';
import { RequestPerson } from '../common/person-of-request.js';
import { PeopleModule } from '../people/people.js';
import { SitesModule } from '../sites/sites.module.js';
import { CompressorsService } from './compressors.service.js';
import { FleetPriorRepository } from './fleet-prior-repository.js';
import { PlanRepository } from './plan-repository.js';
import { CompressorHistories } from './compressor-histories.js';
import { CompressorRegister } from './compressor-register.js';
import { VesselRepository } from './vessel-repository.js';

@ApiTags('compressors')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('compressors')
export class CompressorsController {
  constructor(private readonly compressors: CompressorsService) {}

  @Post()
  @ApiOperation({ summary: 'Register a compressor; it gets the default plan of its family' })
  add(@Body() compressor: RegisterCompressor, @RequestPerson() by: string): CompressorView {
    return this.compressors.add(compressor, by);
  }

  @Get()
  @ApiOperation({ summary: 'The register, by tag' })
  list(@Query() query: CompressorsQuery): Page<CompressorView> {
    return this.compressors.list(query);
  }

  @Get(':id')
  @ApiOperation({ summary: 'One compressor with its data plate of today' })
  find(@Param('id') id: string): CompressorView {
    return this.compressors.find(id);
  }

  @Post(':id/plate')
  @ApiOperation({ summary: 'Record a dated change of data plate or site' })
  changePlate(
    @Param('id') id: string,
    @Body() change: ChangePlate,
    @RequestPerson() by: string,
  ): PlateChangeView {
    return this.compressors.changePlate(id, change, by);
  }
}

@Module({
  imports: [PeopleModule, SitesModule],
  controllers: [CompressorsController],
  providers: [
    CompressorsService,
    CompressorRegister,
    FleetPriorRepository,
    PlanRepository,
    VesselRepository,
    CompressorHistories,
  ],
  exports: [CompressorRegister, CompressorHistories, FleetPriorRepository, PlanRepository, VesselRepository],
})
export class CompressorsModule {}
