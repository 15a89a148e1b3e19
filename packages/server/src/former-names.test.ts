import { createHash, randomUUID } from 'node:crypto';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { DAY, daysAgo, expectStatus, NOW, TestServer } from './testing/test-server.js';

/* What devices and programs of release 0.3 send is read as what it is called now. */

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const onDay = (days: number) => new Date(NOW + days * DAY).toISOString().slice(0, 10);
const ofPlate = async (unit: string) => (await server.read(`/api/compressors/${unit}`)).body;

test('a plate by its former fields, and a change of it', async () => {
  const unit = await server.addCompressor({
    family: 'high-pressure',
    tag: 'SP-1',
    holdingBar: 150,
    cartridgeTakesG: 48,
  });
  expect(await ofPlate(unit)).toMatchObject({ maintainingValveBar: 150, moistureCapacityG: 48 });
  const change = { id: randomUUID(), changedAt: daysAgo(1), holdingBar: 160 };
  expectStatus(201, await server.post(`/api/compressors/${unit}/plate`, change));
  expect(await ofPlate(unit)).toMatchObject({ maintainingValveBar: 160 });
});

test('a putting off by its former field; its former path says where it is now, with what was asked', async () => {
  const unit = await server.addCompressor({ tag: 'CJ-2', commissionedOn: '2026-09-20' });
  await server.readHours(unit, daysAgo(60), 0);
  await server.recordService(unit, daysAgo(55), ['oil-change']);
  await server.readHours(unit, daysAgo(0.01), 600);
  const path = `/api/compressors/${unit}/put-offs`;
  const sent = {
    id: randomUUID(),
    task: 'oil-change',
    putOffAt: daysAgo(0),
    reason: 'No oil',
    untilOn: onDay(7),
  };
  const moved = await server.post(path, sent);
  expect(moved.status).toBe(308);
  expectStatus(201, await server.post(path.replace('put-offs', 'deferrals'), sent));
  // Sent again under today's name it is the same fact.
  const { putOffAt, ...rest } = sent;
  const again = { ...rest, deferredAt: putOffAt };
  expectStatus(201, await server.post(`/api/compressors/${unit}/deferrals`, again));
  expect((await server.task(unit, 'oil-change')).deferral).toMatchObject({ reason: 'No oil' });
  expect((await server.read(`${path}?limit=1`)).status).toBe(308);
});

test('out of service, told to somebody', async () => {
  const unit = await server.addCompressor({ tag: 'CJ-3' });
  const out = {
    id: randomUUID(),
    since: daysAgo(1),
    scope: 'unit',
    ground: 'other',
    why: 'Weeps',
    told: 'Shift leader',
  };
  expectStatus(201, await server.post(`/api/compressors/${unit}/out-of-service`, out));
  expect((await server.read(`/api/compressors/${unit}/stops`)).body).toMatchObject([
    { informed: 'Shift leader' },
  ]);
});

test('an entry of a repair by its words', async () => {
  const unit = await server.addCompressor({ tag: 'CJ-4' });
  const repair = { id: randomUUID(), kind: 'fault', foundAt: daysAgo(2), found: 'It knocks' };
  expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, repair));
  const entry = { id: randomUUID(), kind: 'cause', at: daysAgo(1), words: 'A worn pin' };
  const { body } = await server.post(`/api/repairs/${repair.id}/entries`, entry);
  expect(body.entries.at(-1)).toMatchObject({ kind: 'cause', text: 'A worn pin' });
});

test('a measurement by the former code of its check, and asking for it', async () => {
  const unit = await server.addCompressor({ tag: 'CJ-5' });
  const measured = {
    id: randomUUID(),
    check: 'loaded-share',
    takenAt: daysAgo(1),
    values: { onSeconds: 5, offSeconds: 95 },
  };
  const { body } = await server.post(`/api/compressors/${unit}/measurements`, measured);
  expect(body).toMatchObject({ check: 'leak-load-cycle' });
  const asked = await server.read(`/api/compressors/${unit}/measurements?check=loaded-share&limit=5`);
  expect(asked.status).toBe(308);
  const now = await server.read(`/api/compressors/${unit}/measurements?check=leak-load-cycle&limit=5`);
  expect(now.body.items).toHaveLength(1);
});

test('a plan whose trigger takes up water by its former fields', async () => {
  const unit = await server.addCompressor({ family: 'high-pressure', tag: 'SP-2' });
  const { tasks } = (await server.read(`/api/compressors/${unit}/plan`)).body;
  const water = { kind: 'water', takesG: 48, fadLpm: 255, holdingBar: 150, warmC: 32, coldC: 18 };
  const own = {
    code: 'own-cartridge',
    name: 'Cartridge',
    station: 'tower',
    action: 'replace',
    triggers: [water],
    counting: 'last-done',
    isolation: 'isolated-and-vented',
    minutes: 10,
    origin: 'book',
  };
  const body = { id: randomUUID(), tasks: [...tasks, own] };
  expectStatus(200, await server.put(`/api/compressors/${unit}/plan`, body, { 'If-Match': '"1"' }));
  const saved = (await server.read(`/api/compressors/${unit}/plan`)).body.tasks.at(-1);
  expect(saved.triggers).toEqual([
    { kind: 'water', moistureCapacityG: 48, fadLpm: 255, maintainingValveBar: 150, warmC: 32, coldC: 18 },
  ]);
});

test('what has both names keeps what stands under the one of today; words of one’s own stay as they are', async () => {
  const plain = await server.addCompressor({
    family: 'high-pressure',
    tag: 'SP-3',
    holdingBar: 100,
    maintainingValveBar: 150,
  });
  expect(await ofPlate(plain)).toMatchObject({ maintainingValveBar: 150 });
  const noted = await server.readHours(plain, daysAgo(1), 10, { note: 'loaded-share' });
  expect(noted.body.note).toBe('loaded-share');
});

describe('what a release before left in its database', () => {
  const folder = mkdtempSync(join(tmpdir(), 'entretien-names-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  test.each(['0.1.0', '0.2.0', '0.3.0'])(
    '%s: nothing stands under a former name any more',
    async (version) => {
      const dataDir = join(folder, version);
      mkdirSync(dataDir);
      const packed = readFileSync(join(process.cwd(), 'releases', version, 'entretien.sqlite.gz'));
      writeFileSync(join(dataDir, 'entretien.sqlite'), gunzipSync(packed));
      const old = await TestServer.start({ dataDir });
      const count = (sql: string) => old.rows<{ n: number }>(sql)[0]!.n;
      const json = [
        ['compressor', 'plate'],
        ['plate_change', 'changes'],
        ['plan_content', 'plan'],
        ['visit_step', 'details'],
        ['visit_step', 'outcome'],
        ['measurement', 'judgement'],
        ['repair_entry', 'outcome'],
      ] as const;
      for (const [table, column] of json) {
        for (const name of ['words', 'told', 'holdingBar', 'takesG', 'cartridgeTakesG']) {
          const holds = `instr("${column}", '"${name}":') > 0`;
          expect([table, name, count(`SELECT count(*) AS "n" FROM "${table}" WHERE ${holds}`)]).toEqual([
            table,
            name,
            0,
          ]);
        }
      }
      // A plan is kept by the hash of its text, and whoever followed it follows it still.
      for (const { id, plan } of old.rows<{ id: string; plan: string }>(
        'SELECT "id", "plan" FROM "plan_content"',
      ))
        expect(createHash('sha256').update(plan).digest('hex')).toBe(id);
      const lost =
        'SELECT count(*) AS "n" FROM "plan_version" WHERE "content_id" NOT IN (SELECT "id" FROM "plan_content")';
      expect(count(lost)).toBe(0);
      expect(count('SELECT count(*) AS "n" FROM "measurement" WHERE "check_code" LIKE \'loaded-%\'')).toBe(0);
      expect(count('SELECT count(*) AS "n" FROM "repair_entry" WHERE "text" <> \'\'')).toBeGreaterThan(0);
      await old.stop();
    },
  );
});
