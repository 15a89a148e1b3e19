import { NotedAs } from '../access/noted-as.js';
import { May, ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Get, Inject, Injectable, Module, Post, Query } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { initialsOf } from '@entretien/core/basics';
import { AddPerson, DEFAULT_PERSON_ID, PageQuery, type Page, type PersonView } from '@entretien/contracts';
import { pageOf } from '../common/page.js';
import { conflict, impossible } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { Database } from '../persistence/database.js';
import { PersonEntity } from '../persistence/entities/person.entity.js';

const DEFAULT_PERSON: PersonView = { id: DEFAULT_PERSON_ID, name: 'Technician', initials: 'T' };

/** Who works here. The default person is there until somebody is added, and stays known for old facts. */
@Injectable()
export class PeopleService {
  constructor(
    private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  add(person: AddPerson): PersonView {
    const view = {
      id: person.id.toLowerCase(),
      name: person.name.trim(),
      initials: person.initials?.trim() ?? initialsOf(person.name),
    };
    return this.database.transact(() => {
      const known =
        view.id === DEFAULT_PERSON_ID ? DEFAULT_PERSON : this.database.find(PersonEntity, view.id);
      if (!known) this.database.insert(PersonEntity, { ...view, recordedAt: this.clock() });
      else if (known.name !== view.name || known.initials !== view.initials) {
        throw conflict(
          'id-already-used',
          'This id already belongs to somebody else.',
          `It is ${known.name}’s.`,
        );
      }
      return view;
    });
  }

  list(): PersonView[] {
    const people = this.database.all<PersonView>(
      'SELECT "id", "name", "initials" FROM "person" ORDER BY "name", "id"',
    );
    return people.length > 0 ? people : [DEFAULT_PERSON];
  }

  /** What somebody is called; the id itself where nobody is known by it. */
  nameOf(id: string): string {
    if (id === DEFAULT_PERSON_ID) return DEFAULT_PERSON.name;
    return this.database.find(PersonEntity, id)?.name ?? id;
  }

  /** The id of a known person; a problem when nobody is known by it. */
  require(id: string): string {
    if (id === DEFAULT_PERSON_ID || this.database.find(PersonEntity, id)) return id;
    throw impossible({ code: 'unknown-person', field: 'by', sentence: 'Nobody here is known by that id.' });
  }
}

@ApiTags('people')
@ReadsAndWrites('see', 'work')
@Controller('people')
export class PeopleController {
  constructor(private readonly people: PeopleService) {}

  @Post()
  @NotedAs('people changed')
  @May('lead')
  @ApiOperation({ summary: 'Add somebody who works on compressors' })
  add(@Body() person: AddPerson): PersonView {
    return this.people.add(person);
  }

  @Get()
  @ApiOperation({ summary: 'Everybody, by name' })
  list(@Query() query: PageQuery): Page<PersonView> {
    return pageOf(this.people.list(), query, ({ id }) => id);
  }
}

@Module({ controllers: [PeopleController], providers: [PeopleService], exports: [PeopleService] })
export class PeopleModule {}
