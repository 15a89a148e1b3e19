import { actorNow } from '../access/actor.js';
import { May, ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, Module, Param, Post, Query, Req, Res } from '@nestjs/common';
import { ApiBody, ApiConsumes, ApiHeader, ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import {
  CompressorPhotoQuery,
  PhotoQuery,
  PlanVisit,
  RecordVisitStep,
  VisitsQuery,
  type Page,
  type CompressorPhotoView,
  type PhotoView,
  type VisitBriefView,
  type VisitStepView,
  type VisitView,
} from '@entretien/contracts';
import type { Right } from '@entretien/core/access';
import { stepModules } from '@entretien/core/visit';
import type { Request, Response } from 'express';
import { bytesOf } from '../common/bytes-of.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { IsolationModule } from '../isolation/isolation.module.js';
import { MeasurementsModule } from '../measurements/measurements.module.js';
import { originOf } from '../documents/paper-codes.js';
import { DocumentsService } from '../documents/documents.service.js';
import { PlansModule } from '../plans/plans.module.js';
import { PartsModule } from '../parts/parts.module.js';
import { PeopleModule } from '../people/people.js';
import { ReadingsModule } from '../readings/readings.module.js';
import { RepairsModule } from '../repairs/repairs.module.js';
import { ServicesModule } from '../services/services.module.js';
import { SitesModule } from '../sites/sites.module.js';
import { FollowUpsModule } from '../follow-ups/follow-ups.module.js';
import { StopsModule } from '../stops/stops.module.js';
import { StandingsModule } from '../standings/standings.module.js';
import { LARGEST_PHOTO_MB, PhotosService } from './photos.service.js';
import { StepConsequences } from './step-consequences.js';
import { VisitRepository } from './visit-repository.js';
import { VisitsService } from './visits.service.js';

/** Whoever is signed in signs with their own name, whatever was typed. */
function signedByAccount(step: RecordVisitStep): RecordVisitStep {
  const actor = actorNow();
  return actor && signedKinds.has(step.kind)
    ? { ...step, details: { ...step.details, name: actor.name } }
    : step;
}

const signedKinds = new Set(stepModules.flatMap(({ kind, isSigned }) => (isSigned ? [kind] : [])));

/** Signing for a service is not everybody’s. */
function rightForStep({ body }: Request): Right {
  const kind = (body as { readonly kind?: unknown } | undefined)?.kind;
  return typeof kind === 'string' && signedKinds.has(kind) ? 'sign' : 'work';
}

@ApiTags('visits')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('visits')
export class VisitsController {
  constructor(
    private readonly visits: VisitsService,
    private readonly photos: PhotosService,
    private readonly papers: DocumentsService,
  ) {}

  @Post()
  @ApiOperation({ summary: 'Plan a visit to a site, or begin one' })
  plan(@Body() visit: PlanVisit, @RequestPerson() by: string): VisitView {
    return this.visits.plan(visit, by);
  }

  @Get()
  @ApiOperation({ summary: 'Visits, the latest first' })
  list(@Query() query: VisitsQuery): Page<VisitBriefView> {
    return this.visits.list(query);
  }

  @Get(':id')
  @ApiOperation({ summary: 'A visit with everything needed to go through it' })
  one(@Param('id') id: string): VisitView {
    return this.visits.one(id);
  }

  @Post(':id/steps')
  @May(rightForStep)
  @ApiOperation({ summary: 'Record a step; what opens a machine that is not isolated is refused with 409' })
  step(@Param('id') id: string, @Body() step: RecordVisitStep, @RequestPerson() by: string): VisitStepView {
    return this.visits.record(id, signedByAccount(step), by);
  }

  @Post(':id/photos')
  @ApiConsumes('image/jpeg', 'image/png', 'image/webp')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  @ApiOperation({ summary: `Send a photo as it is, ${LARGEST_PHOTO_MB} MB at most` })
  async photo(
    @Param('id') id: string,
    @Query() query: PhotoQuery,
    @Req() request: Request,
    @RequestPerson() by: string,
  ): Promise<PhotoView> {
    const sent = await bytesOf(request, LARGEST_PHOTO_MB * 1_000_000 + 1);
    return this.photos.add({ of: 'visit', id }, query, sent, by);
  }

  @Get(':id/photos/:photoId')
  @ApiProduces('image/jpeg')
  @ApiOperation({ summary: 'A photo of a visit' })
  picture(@Param('id') id: string, @Param('photoId') photoId: string, @Res() response: Response): void {
    sendPicture(response, this.photos.read({ of: 'visit', id }, photoId));
  }

  @Get(':id/report.pdf')
  @May('see-own', { kind: 'visit', parameter: 'id' })
  @ApiProduces('application/pdf')
  @ApiOperation({ summary: 'The report of a visit' })
  async report(@Param('id') id: string, @Res() response: Response): Promise<void> {
    response.type('application/pdf').send(await this.papers.report(id));
  }
}

function sendPicture(response: Response, picture: Buffer): void {
  response.set('Cache-Control', 'private, max-age=31536000, immutable').type('image/jpeg').send(picture);
}

@ApiTags('compressors')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('compressors/:id/photos')
export class CompressorPhotosController {
  constructor(private readonly photos: PhotosService) {}

  @Post()
  @ApiConsumes('image/jpeg', 'image/png', 'image/webp')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  @ApiOperation({
    summary: `Send a photo of a unit as it is, like its sticker, ${LARGEST_PHOTO_MB} MB at most`,
  })
  async photo(
    @Param('id') id: string,
    @Query() query: CompressorPhotoQuery,
    @Req() request: Request,
    @RequestPerson() by: string,
  ): Promise<PhotoView> {
    const sent = await bytesOf(request, LARGEST_PHOTO_MB * 1_000_000 + 1);
    return this.photos.add({ of: 'compressor', id }, query, sent, by);
  }

  @Get()
  @ApiOperation({ summary: 'The photos of a unit, the latest first' })
  list(@Param('id') id: string): Page<CompressorPhotoView> {
    return { items: this.photos.ofCompressor(id), nextCursor: null };
  }

  @Get(':photoId')
  @ApiProduces('image/jpeg')
  @ApiOperation({ summary: 'A photo of a unit' })
  picture(@Param('id') id: string, @Param('photoId') photoId: string, @Res() response: Response): void {
    sendPicture(response, this.photos.read({ of: 'compressor', id }, photoId));
  }
}

@ApiTags('visits')
@ReadsAndWrites('see', 'work')
@Controller('compressors/:compressorId')
export class TagController {
  constructor(private readonly papers: DocumentsService) {}

  @Get('tag.pdf')
  @May('see-own', { kind: 'compressor', parameter: 'compressorId' })
  @ApiProduces('application/pdf')
  @ApiOperation({ summary: 'The service tag of a unit, with a code that opens its page' })
  async tag(
    @Param('compressorId') compressorId: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    response.type('application/pdf').send(await this.papers.tag(compressorId, originOf(request)));
  }
}

@Module({
  imports: [
    CompressorsModule,
    PeopleModule,
    SitesModule,
    StandingsModule,
    MeasurementsModule,
    ReadingsModule,
    ServicesModule,
    RepairsModule,
    PartsModule,
    PlansModule,
    IsolationModule,
    StopsModule,
    FollowUpsModule,
  ],
  controllers: [VisitsController, CompressorPhotosController, TagController],
  providers: [VisitsService, VisitRepository, StepConsequences, PhotosService, DocumentsService],
  exports: [VisitsService, DocumentsService, PhotosService],
})
export class VisitsModule {}
