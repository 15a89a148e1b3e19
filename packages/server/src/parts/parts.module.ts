import { NotedAs } from '../access/noted-as.js';
import { ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, HttpCode, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  AddPart,
  ChangePart,
  CompareParts,
  MovePart,
  PageQuery,
  type Page,
  type PartView,
  type SubstitutionView,
} from '@entretien/contracts';
import { pageOf } from '../common/page.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { PartsService } from './parts.service.js';

@ApiTags('parts')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('parts')
export class PartsController {
  constructor(private readonly parts: PartsService) {}

  @Post()
  @ApiOperation({ summary: 'Take a part into the catalogue' })
  add(@Body() part: AddPart, @RequestPerson() by: string): PartView {
    return this.parts.add(part, by);
  }

  @Get()
  @ApiOperation({ summary: 'The catalogue by name, with what the van holds' })
  list(@Query() query: PageQuery): Page<PartView> {
    return pageOf(this.parts.list(), query, ({ id }) => id);
  }

  @Post('compare')
  @HttpCode(200)
  @ApiOperation({ summary: 'May a part take the place of another on a unit?' })
  compare(@Body() question: CompareParts): SubstitutionView {
    return this.parts.compare(question);
  }

  @Post(':id/changes')
  @NotedAs('stock changed')
  @ApiOperation({ summary: 'Put a part right, take it out of the catalogue, or back into it' })
  change(@Param('id') id: string, @Body() change: ChangePart, @RequestPerson() by: string): PartView {
    return this.parts.change(id, change, by);
  }

  @Post(':id/moves')
  @NotedAs('stock changed')
  @ApiOperation({ summary: 'Parts were put into the van, or counted' })
  move(@Param('id') id: string, @Body() move: MovePart, @RequestPerson() by: string): PartView {
    return this.parts.move(id, move, by);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule],
  controllers: [PartsController],
  providers: [PartsService],
  exports: [PartsService],
})
export class PartsModule {}
