import { ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, Injectable, Module, Param, Post, Query } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import { PageQuery, type FactView, type Page } from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import { notFound } from '../common/problem.js';
import { RequestPerson } from '../common/person-of-request.js';
import { checked } from '../common/validation.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { PeopleModule, PeopleService } from '../people/people.js';
import type { CompressorFactColumns } from '../persistence/entities/columns.js';
import { FactPages, factView } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { StoredKinds, type StoredKind } from '../persistence/stored-kinds.js';

/** A kind that is told and read here: its contract says all that has to be asked of it. */
type PlainKind = StoredKind & Required<Pick<StoredKind, 'contract'>>;
type Row = CompressorFactColumns & Record<string, unknown>;

/** Facts of a compressor that nothing has to be known of but their kind. */
@Injectable()
export class FactsService {
  constructor(
    private readonly kinds: StoredKinds,
    private readonly facts: FactStore,
    private readonly pages: FactPages,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
  ) {}

  record(collection: string, compressorId: string, body: object, by: string): FactView {
    const stored = this.require(collection);
    const unit = this.register.require(compressorId);
    const sent = checked(stored.contract, body) as Record<string, unknown> & { id: string; note?: string };
    const { moment, content: fields } = stored.kind;
    const of = (field: string) => {
      if (field === 'compressorId') return unit.id;
      return field === moment ? Date.parse(sent[field] as string) : (sent[field] ?? null);
    };
    const content = Object.fromEntries(fields.map((field) => [field, of(field)]));
    const { row } = this.facts.record<Row, Partial<Row> & { id: string }>(
      stored.entity as new () => Row,
      {
        ...content,
        id: sent.id.toLowerCase(),
        note: sent.note ?? null,
        by: this.people.require(by),
      } as Partial<Row> & {
        id: string;
      },
      (recordedAt) => {
        if (moment !== undefined)
          this.register.refuseFuture(unit, content[moment] as number, moment, recordedAt);
        return { marks: [] } as never;
      },
    );
    return this.view(stored, row);
  }

  list(collection: string, compressorId: string, query: PageQuery): Promise<Page<FactView>> {
    const stored = this.require(collection);
    const { id } = this.register.require(compressorId);
    const moment = (stored.kind.moment ?? 'recordedAt') as keyof Row & string;
    return this.pages.page(stored.entity as new () => Row, moment, id, query, (row) =>
      this.view(stored, row),
    );
  }

  private require(collection: string): PlainKind {
    const stored = this.kinds.inCollection(collection);
    if (stored?.contract) return stored as PlainKind;
    throw notFound('no-such-collection', `Nothing of a unit is kept under “${collection.slice(0, 40)}”.`);
  }

  private view({ kind }: PlainKind, row: Row): FactView {
    const recordedContent = kind.content
      .filter((field) => row[field] !== null)
      .map((field) => [field, field === kind.moment ? formatInstant(row[field] as number) : row[field]]);
    return { ...factView(row), ...Object.fromEntries(recordedContent) };
  }
}

@ApiTags('facts')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('compressors/:compressorId/:collection')
export class FactsController {
  constructor(private readonly facts: FactsService) {}

  @Post()
  @ApiOperation({ summary: 'Record a fact of a kind that needs no judging' })
  record(
    @Param('compressorId') compressorId: string,
    @Param('collection') collection: string,
    @Body() fact: object,
    @RequestPerson() by: string,
  ): FactView {
    return this.facts.record(collection, compressorId, fact, by);
  }

  @Get()
  @ApiOperation({ summary: 'Facts of such a kind, the latest first' })
  list(
    @Param('compressorId') compressorId: string,
    @Param('collection') collection: string,
    @Query() query: PageQuery,
  ): Promise<Page<FactView>> {
    return this.facts.list(collection, compressorId, query);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule],
  controllers: [FactsController],
  providers: [FactsService],
})
export class FactsModule {}
