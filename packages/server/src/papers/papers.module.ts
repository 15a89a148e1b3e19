import { Controller, Get, Module, Param, Post, Query, Req, Res } from '@nestjs/common';
import { ApiBody, ApiConsumes, ApiHeader, ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import { PaperQuery, type Page, type PaperView } from '@entretien/contracts';
import { LARGEST_PAPER_MB, paperTypes } from '@entretien/core/machine';
import type { Request, Response } from 'express';
import { May } from '../access/may.js';
import { bytesOf } from '../common/bytes-of.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import { PapersService } from './papers.service.js';

@ApiTags('papers of a unit')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@Controller('compressors/:id/papers')
export class PapersController {
  constructor(private readonly papers: PapersService) {}

  @Post()
  @May('work')
  @ApiConsumes(...Object.values(paperTypes).map(({ mime }) => mime))
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  @ApiOperation({
    summary: `Send a paper of a unit as it is, like its manual, ${LARGEST_PAPER_MB} MB at most`,
  })
  async add(
    @Param('id') id: string,
    @Query() query: PaperQuery,
    @Req() request: Request,
    @RequestPerson() by: string,
  ): Promise<PaperView> {
    const sent = await bytesOf(request, LARGEST_PAPER_MB * 1_000_000 + 1);
    return this.papers.add(id, query, sent, by);
  }

  @Get()
  @May('see-own', { kind: 'compressor', parameter: 'id' })
  @ApiOperation({ summary: 'The papers of a unit that are in use' })
  list(@Param('id') id: string): Page<PaperView> {
    return { items: this.papers.of(id), nextCursor: null };
  }

  @Get(':paperId/file')
  @May('see-own', { kind: 'compressor', parameter: 'id' })
  @ApiProduces(...Object.values(paperTypes).map(({ mime }) => mime))
  @ApiOperation({ summary: 'The file of a paper' })
  file(@Param('id') id: string, @Param('paperId') paperId: string, @Res() response: Response): void {
    const { content, paper } = this.papers.read(id, paperId);
    response
      .set('Cache-Control', 'private, max-age=31536000, immutable')
      // Whoever opens it by its address gets a file, and no page of ours.
      .set(
        'Content-Disposition',
        `attachment; filename="${paper.kind}-${paper.id.slice(0, 8)}.${paper.type}"`,
      )
      .type(paperTypes[paper.type].mime)
      .send(content);
  }

  @Post(':paperId/aside')
  @May('work')
  @ApiOperation({ summary: 'Put a paper aside: it is shown no longer, and stays on record' })
  putAside(
    @Param('id') id: string,
    @Param('paperId') paperId: string,
    @RequestPerson() by: string,
  ): Page<PaperView> {
    return { items: this.papers.putAside(id, paperId, by), nextCursor: null };
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule],
  controllers: [PapersController],
  providers: [PapersService],
  exports: [PapersService],
})
export class PapersModule {}
