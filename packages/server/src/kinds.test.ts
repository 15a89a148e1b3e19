import { randomUUID } from 'node:crypto';
import {
  entryContracts,
  IsFigure,
  IsId,
  IsInstant,
  IsText,
  Optional,
  RepairEntryBody,
  stepContracts,
} from '@entretien/contracts';
import type { Instant } from '@entretien/core/basics';
import { factKind } from '@entretien/core/facts';
import { entryModules, type EntryModule } from '@entretien/core/repairs';
import { stepKind, stepModules } from '@entretien/core/visit';
import { Column, Entity, type MigrationInterface, type QueryRunner } from 'typeorm';
import { CompressorFactColumns } from './persistence/entities/columns.js';
import { storedKinds } from './persistence/stored-kinds.js';
import { EntryRegistry } from './repairs/entry-registry.js';
import { daysAgo, expectStatus, TestServer } from './testing/test-server.js';
import { VisitAtWork } from './testing/visit-steps.js';
import { StepRegistry } from './visits/step-registry.js';

/*
 * Kinds that nobody but this file knows: what they need stands here, and they are to be found everywhere.
 */

// A fact: its core module, its contract, its table.

const rinse = factKind<{ compressorId: string; rinsedAt: Instant; litres: number }>({
  kind: 'rinse',
  title: 'Rinses',
  collection: 'rinses',
  moment: 'rinsedAt',
  content: ['compressorId', 'rinsedAt', 'litres'],
  at: ({ rinsedAt }) => rinsedAt,
  text: ({ litres }) => `Cooler rinsed with ${litres} L`,
});

class RecordRinse {
  @IsId() id: string;
  @IsInstant() rinsedAt: string;
  @IsFigure('The water', 0.1, 1000) litres: number;
  @Optional() @IsText('The note', 200) note?: string;
}

@Entity('rinse')
class RinseEntity extends CompressorFactColumns {
  @Column({ name: 'rinsed_at', type: 'integer' }) rinsedAt: number;
  @Column({ type: 'real' }) litres: number;
}

class Rinses1999999999999 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "rinse" ("seq" integer PRIMARY KEY REFERENCES "fact" ("seq"), "id" text NOT NULL UNIQUE, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL, "compressor_id" text NOT NULL REFERENCES "compressor" ("id"), "rinsed_at" integer NOT NULL, "litres" real NOT NULL)`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE "rinse"');
  }
}

// A step of a visit: its core module, its contract.

const wipe = stepKind<{ kind: 'wipe'; task: string; cloths: number }>({
  kind: 'wipe',
  fields: { task: 'text', cloths: 'number' },
  text: ({ task, cloths }, names) => `Wiped for ${names.task(task)} with ${cloths} cloths`,
  tasks: ({ task }) => [task],
  answers: ({ task }) => [{ task, outcome: 'done', reason: null }],
});

class WipeDetails {
  @IsText('The task', 40) task: string;
  @IsFigure('The cloths', 1, 20) cloths: number;
}

// An entry of a repair: its core module, its contract.

const paint: EntryModule = { kind: 'paint', name: 'Painted', isWork: true };

class PaintEntry extends RepairEntryBody {
  @IsText('The colour', 20) declare text: string;
}

let server: TestServer;
let unit: string;
beforeAll(async () => {
  server = await TestServer.start({}, null, {
    facts: [
      ...storedKinds,
      { kind: rinse, entity: RinseEntity, contract: RecordRinse, madeBy: Rinses1999999999999 },
    ],
    steps: new StepRegistry([...stepModules, wipe], { ...stepContracts, wipe: WipeDetails }),
    entries: new EntryRegistry([...entryModules, paint], { ...entryContracts, paint: PaintEntry }),
  });
  unit = await server.addCompressor({ tag: 'CJ-1' });
});
afterAll(() => server.stop());

const rinses = () => `/api/compressors/${unit}/rinses`;
const found = async (query: string): Promise<string[]> => {
  const answer = await server.read(`/api/logbook?${query}`);
  expectStatus(200, answer);
  return answer.body.items.map((entry: { text: string }) => entry.text);
};

describe('a kind of fact that nobody has heard of', () => {
  const made = { id: randomUUID(), rinsedAt: daysAgo(2), litres: 12, note: 'Brown' };

  test('is recorded once, however often it is sent, and refused with other content', async () => {
    const first = await server.post(rinses(), made);
    expectStatus(201, first);
    expect(first.body).toMatchObject({
      rinsedAt: made.rinsedAt,
      litres: 12,
      note: 'Brown',
      compressorId: unit,
    });
    expect((await server.post(rinses(), made)).body).toEqual(first.body);
    expect((await server.post(rinses(), { ...made, litres: 13 })).status).toBe(409);
    // An id is an id, whatever kind it was used for.
    const reading = await server.readHours(unit, daysAgo(1), 10, { id: made.id });
    expect(reading.status).toBe(409);
  });

  test.each([
    ['out of bounds', { litres: 0 }, 400, 'litres'],
    ['with a field of its own', { litres: 1, soap: true }, 400, 'soap'],
    ['before it happens', { litres: 1, rinsedAt: daysAgo(-2) }, 422, 'rinsedAt'],
  ])('%s it is refused beside its field', async (_name, more, status, field) => {
    const answer = await server.post(rinses(), { ...made, id: randomUUID(), ...more });
    expect(answer.status).toBe(status);
    expect(answer.body.errors[0].field).toBe(field);
  });

  test('it is listed, stands in the logbook in its words, and is found by them', async () => {
    expect((await server.read(rinses())).body.items).toMatchObject([{ litres: 12 }]);
    expect(await found('kind=rinse')).toEqual(['Cooler rinsed with 12 L']);
    expect(await found('q=cooler rins')).toEqual(['Cooler rinsed with 12 L']);
    expect(await found('q=brown')).toEqual(['Cooler rinsed with 12 L']);
    const { text } = {
      text: (await server.read('/api/logbook/export?format=csv&kind=rinse')).body as string,
    };
    expect(text).toContain('Cooler rinsed with 12 L');
  });

  test('it raises the revision of its unit, over a restart too', async () => {
    const { revision } = await server.standing(unit);
    const more = { ...made, id: randomUUID(), rinsedAt: daysAgo(1) };
    expectStatus(201, await server.post(rinses(), more));
    expect((await server.standing(unit)).revision).toBe(revision + 1);
    await server.restart();
    expect((await server.standing(unit)).revision).toBe(revision + 1);
  });

  test('it can be withdrawn', async () => {
    const withdrawal = { id: randomUUID(), reason: 'That was the other one' };
    expectStatus(201, await server.post(`${rinses()}/${made.id}/withdrawal`, withdrawal));
    const { items } = (await server.read(rinses())).body;
    expect(items.find(({ id }: { id: string }) => id === made.id)).toMatchObject({
      voided: { how: 'withdrawn' },
    });
  });

  test('it is described for programs', async () => {
    const { paths, components } = (await server.read('/api/openapi.json')).body;
    const { post } = paths['/api/compressors/{compressorId}/rinses'];
    expect(post.requestBody.content['application/json'].schema.$ref).toContain('RecordRinse');
    expect(components.schemas.RecordRinse.properties.litres).toMatchObject({ minimum: 0.1, maximum: 1000 });
  });
});

describe('a kind of step that nobody has heard of', () => {
  test('is taken by its contract, answers its task, and stands in the logbook', async () => {
    const visit = await VisitAtWork.plan(server, unit, ['belt-check']);
    expect((await visit.step('wipe', { task: 'belt-check', cloths: 0 })).status).toBe(400);
    expect((await visit.step('wipe', { task: 'paint-it', cloths: 2 })).body.code).toBe('unknown-task');
    await visit.isolate();
    expectStatus(201, await visit.step('wipe', { task: 'belt-check', cloths: 2 }));
    const [brief] = (await server.read(`/api/visits?compressorId=${unit}`)).body.items;
    // Done: only what proves it may be missing now.
    expect(brief.units[0]).toMatchObject({ tag: 'CJ-1' });
    expect((await found('q=wiped cloths'))[0]).toMatch(/^Wiped for .* with 2 cloths/);
    const { items } = (await server.read('/api/logbook?kind=visit-step')).body;
    expect(items[0].text).not.toContain('belt-check');
  });

  test('it is described for programs, and one that is in no list is refused', async () => {
    const { components } = (await server.read('/api/openapi.json')).body;
    const kinds = components.schemas.RecordVisitStep.oneOf.map(({ title }: { title: string }) => title);
    expect(kinds).toEqual(expect.arrayContaining(['isolate', 'sign', 'wipe']));
    const visit = await VisitAtWork.plan(server, unit, ['belt-check']);
    const answer = await visit.step('dance', { task: 'belt-check' });
    expect([answer.status, answer.body.errors[0].field]).toEqual([400, 'kind']);
  });
});

describe('a kind of entry that nobody has heard of', () => {
  test('is taken by its contract, counts as work, and stands in the logbook', async () => {
    const repair = randomUUID();
    const fault = { id: repair, kind: 'fault', foundAt: daysAgo(1), found: 'Rust on the guard' };
    expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, fault));
    const add = (more: object) =>
      server.post(`/api/repairs/${repair}/entries`, {
        id: randomUUID(),
        at: daysAgo(0.5),
        text: 'Signal green',
        ...more,
      });
    const long = await add({ kind: 'paint', text: 'Green as the hills are' });
    expect(long.body.errors[0].field).toBe('text');
    expect((await add({ kind: 'work', colour: 'green' })).status).toBe(400);
    expect((await add({ kind: 'varnish' })).body.errors[0].field).toBe('kind');
    const painted = await add({ kind: 'paint' });
    expectStatus(201, painted);
    expect(painted.body).toMatchObject({
      state: 'worked-on',
      waitsFor: 'Not proved yet: measure whether it helped.',
    });
    expect(await found('q=painted')).toEqual(['Painted: Signal green']);
    const { paths } = (await server.read('/api/openapi.json')).body;
    const { oneOf } = paths['/api/repairs/{id}/entries'].post.requestBody.content['application/json'].schema;
    expect(JSON.stringify(oneOf)).toContain('PaintEntry');
  });
});
