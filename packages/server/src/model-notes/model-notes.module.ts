import { Body, Controller, Get, Inject, Injectable, Module, Param, Post } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import { RecordModelNote, type ModelNoteView } from '@entretien/contracts';
import { modelKeyOf } from '@entretien/core/machine';
import { ReadsAndWrites } from '../access/may.js';
import { impossible } from '../common/problem.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { PeopleModule, PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { ModelNoteEntity } from '../persistence/entities/model-note.entity.js';
import { factView } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { stands } from '../persistence/hour-facts-sql.js';

/** Nobody reads more of them. */
const MOST_SHOWN = 200;

/** What is known of a model: told at one machine, shown at all its sisters. */
@Injectable()
export class ModelNotesService {
  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Of a unit’s model, the latest first. */
  of(compressorId: string): readonly ModelNoteView[] {
    const key = this.keyOf(compressorId);
    if (key === null) return [];
    return this.database
      .findAll(
        ModelNoteEntity,
        `WHERE "model_key" = ? AND ${stands('model_note')} ORDER BY "seq" DESC LIMIT ${MOST_SHOWN}`,
        key,
      )
      .map((row) => this.toView(row));
  }

  record(compressorId: string, sent: RecordModelNote, by: string): ModelNoteView {
    const unit = this.register.require(compressorId);
    const modelKey = this.keyOf(unit.id);
    if (modelKey === null)
      throw impossible({
        code: 'no-model',
        field: 'text',
        sentence: 'Its plate names no model: enter it first, and the note is shown at all of that model.',
      });
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      modelKey,
      about: sent.about,
      text: sent.text,
      note: sent.note ?? null,
      by: this.people.require(by),
    };
    const { row } = this.facts.record(ModelNoteEntity, content, () => ({ marks: [] }));
    return this.toView(row);
  }

  private keyOf(compressorId: string): string | null {
    return modelKeyOf(this.register.plateOf(this.register.require(compressorId), this.clock()));
  }

  private toView(row: ModelNoteEntity): ModelNoteView {
    const { tag } = this.register.plateOf(this.register.require(row.compressorId), this.clock());
    return { ...factView(row), compressorId: row.compressorId, tag, about: row.about, text: row.text };
  }
}

@ApiTags('notes on a model')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('compressors/:compressorId/model-notes')
export class ModelNotesController {
  constructor(private readonly notes: ModelNotesService) {}

  @Get()
  @ApiOperation({ summary: 'What is known of a unit’s model, told at whichever of its sisters' })
  of(@Param('compressorId') compressorId: string): readonly ModelNoteView[] {
    return this.notes.of(compressorId);
  }

  @Post()
  @ApiOperation({ summary: 'Record something of a unit’s model, for all its sisters' })
  record(
    @Param('compressorId') compressorId: string,
    @Body() sent: RecordModelNote,
    @RequestPerson() by: string,
  ): ModelNoteView {
    return this.notes.record(compressorId, sent, by);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule],
  controllers: [ModelNotesController],
  providers: [ModelNotesService],
})
export class ModelNotesModule {}
