import { randomUUID } from 'node:crypto';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { firstLead, invited, type Cookie } from '../testing/signed-in.js';
import { daysAgo, expectStatus, TestServer } from '../testing/test-server.js';
import { VisitAtWork } from '../testing/visit-steps.js';

let server: TestServer;
let folder: string;
beforeEach(async () => {
  server = await TestServer.start();
  folder = mkdtempSync(join(tmpdir(), 'entretien-records-'));
});
afterEach(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** Unpacks with a program that did not write it. */
async function unpacked(path: string, cookie: Cookie): Promise<(file: string) => never> {
  const { status, type, bytes } = await server.readBytes(path, cookie);
  expect({ status, type }).toEqual({ status: 200, type: 'application/zip' });
  writeFileSync(join(folder, 'all.zip'), bytes);
  execFileSync('python3', ['-m', 'zipfile', '-e', join(folder, 'all.zip'), join(folder, 'all')]);
  return (file) => JSON.parse(readFileSync(join(folder, 'all', file), 'utf8')) as never;
}

interface UnitFile {
  readonly plate: { readonly tag: string };
  readonly facts: Record<string, readonly { readonly hours: number }[]>;
}

test('a customer’s archive holds what happened at their sites, and nothing of anybody else', async () => {
  const [theirs, others] = [
    await server.addSite({ name: 'Dairy' }),
    await server.addSite({ name: 'Quarry' }),
  ];
  const unit = await server.addCompressor({ siteId: theirs, tag: 'D-1' });
  const foreign = await server.addCompressor({ siteId: others, tag: 'Q-1' });
  expectStatus(201, await server.readHours(unit, daysAgo(30), 100));
  expectStatus(201, await server.readHours(foreign, daysAgo(30), 900));
  // It was sold to the quarry twenty days ago: what it does there is the quarry's.
  const sold = { id: randomUUID(), changedAt: daysAgo(20), siteId: others };
  expectStatus(201, await server.post(`/api/compressors/${unit}/plate`, sold));
  expectStatus(201, await server.readHours(unit, daysAgo(10), 200));
  const photo = randomUUID();
  const picture = await sharp({ create: { width: 20, height: 20, channels: 3, background: '#246' } })
    .jpeg()
    .toBuffer();
  expectStatus(
    201,
    await server.postBytes(`/api/compressors/${unit}/photos?id=${photo}`, picture, 'image/jpeg'),
  );
  const lead = await firstLead(server);
  const customer = randomUUID();
  expectStatus(201, await server.post('/api/customers', { id: customer, name: 'Haldris Dairy & Co' }, lead));
  expectStatus(
    201,
    await server.post(`/api/sites/${theirs}/customer`, { id: randomUUID(), customerId: customer }, lead),
  );
  await invited(server, lead, 'customer', { customerId: customer, name: 'Ada Brenn' });

  const read = await unpacked(`/api/customers/${customer}/export`, lead);
  const about: { name: string; accounts: { name: string }[]; sites: { name: string }[] } =
    read('customer.json');
  expect(about).toMatchObject({
    name: 'Haldris Dairy & Co',
    accounts: [{ name: 'Ada Brenn' }],
    sites: [{ name: 'Dairy' }],
  });
  expect(JSON.stringify(about)).not.toMatch(/passwordHash|argon2/);
  const files = readdirSync(join(folder, 'all', 'units'));
  expect(files).toHaveLength(1);
  const file: UnitFile = read(join('units', files[0]!));
  expect(file.plate.tag).toBe('D-1');
  expect(file.facts['reading']!.map(({ hours }) => hours)).toEqual([100]);
  expect(readdirSync(join(folder, 'all', 'photos'))).toEqual([`${photo}.jpg`]);
  const all = files.map((name) => readFileSync(join(folder, 'all', 'units', name), 'utf8')).join('');
  expect(all).not.toContain('Q-1');
  const [line] = (await server.read('/api/audit', lead)).body.items;
  expect(line).toMatchObject({ what: 'exported', about: 'Haldris Dairy & Co' });
});

async function atWork(name: string) {
  const lead = await firstLead(server, 'Lena Orvik');
  const { cookie, account } = await invited(server, lead, 'technician', { name });
  server.as = cookie;
  const unit = await server.addCompressor();
  const visit = await VisitAtWork.plan(server, unit, []);
  await visit.step('note', { text: `${name} saw oil at the coupling, "twice".` });
  const reading = {
    id: randomUUID(),
    takenAt: daysAgo(3),
    hours: 12,
    counts: 'total',
    source: 'typed',
    note: `Read by ${name}.`,
  };
  expectStatus(201, await server.post(`/api/compressors/${unit}/readings`, reading));
  server.as = {};
  return { lead, cookie, unit, visit, personId: account.personId as string };
}

test('everything of a person, and nothing that proves who they are', async () => {
  const { lead, personId } = await atWork('Mara Vell');
  const { body, headers } = await server.read(`/api/people/${personId}/export`, lead);
  expect(headers['content-disposition']).toMatch(/attachment/);
  expect(body).toMatchObject({
    person: { name: 'Mara Vell' },
    accounts: [{ login: 'mara.vell', role: 'technician' }],
    facts: { reading: [{ hours: 12 }], 'visit-step': [{ kind: 'note' }] },
  });
  expect(body.signedInOn).toHaveLength(1);
  expect(body.audit.map(({ what }: { what: string }) => what)).toEqual(['account made', 'signed in']);
  expect(JSON.stringify(body)).not.toMatch(/argon2|tokenHash|token_hash/);
});

test('a name is removed from every table, the logbook and the audit; what was recorded stays', async () => {
  const { lead, cookie, unit, visit, personId } = await atWork('Mara Vell');
  const answer = await server.post(`/api/people/${personId}/name-removal`, {}, lead);
  expect(answer).toMatchObject({
    status: 200,
    body: { id: personId, name: expect.stringMatching(/^Name removed /) },
  });
  const { name } = answer.body as { name: string };
  expect((await server.read('/api/me', cookie)).body.account).toBeNull();
  const logbook = (await server.read(`/api/logbook?q=oil`, lead)).body.items;
  expect(logbook.map(({ text }: { text: string }) => text).join()).toContain(`${name} saw oil`);
  expect((await server.read('/api/logbook?q=Mara', lead)).body.items).toEqual([]);
  const { items } = (await server.read(`/api/compressors/${unit}/readings`, lead)).body;
  expect(items).toMatchObject([{ hours: 12, by: personId, note: `Read by ${name}.` }]);
  expect((await server.read(`/api/visits/${visit.id}`, lead)).body.units).toHaveLength(1);
  // Nowhere in the file.
  await server.forget('VACUUM');
  await server.restart();
  expect(readFileSync(join(server.dataDir, 'entretien.sqlite')).includes('Mara Vell')).toBe(false);
  const audit = (await server.read('/api/audit', lead)).body.items;
  expect(audit[0]).toMatchObject({ what: 'name removed', about: name, byName: 'Lena Orvik' });
  // The audit stays as shut as it was.
  await expect(server.forget('UPDATE "audit" SET "what" = \'nothing\'')).rejects.toThrow(/only added to/);
  expect((await server.post(`/api/people/${personId}/name-removal`, {}, lead)).status).toBe(409);
});

test('a name of one word is found where it is a whole field, and not within other words', async () => {
  const lead = await firstLead(server, 'Lena Orvik');
  const person = { id: randomUUID(), name: 'Art' };
  expectStatus(201, await server.post('/api/people', person, lead));
  server.as = lead;
  const unit = await server.addCompressor();
  const reading = { id: randomUUID(), takenAt: daysAgo(3), hours: 1, counts: 'total', source: 'typed' };
  expectStatus(
    201,
    await server.post(`/api/compressors/${unit}/readings`, { ...reading, note: 'Start Artefact' }, lead),
  );
  expect((await server.post(`/api/people/${person.id}/name-removal`, {}, lead)).body.places).toBe(0);
  const { items } = (await server.read(`/api/compressors/${unit}/readings`, lead)).body;
  expect(items[0].note).toBe('Start Artefact');
  const people = (await server.read('/api/people', lead)).body.items.map(
    ({ name }: { name: string }) => name,
  );
  expect(people).not.toContain('Art');
});

test('the last lead keeps their name until somebody else leads; a stranger is none', async () => {
  const lead = await firstLead(server, 'Lena Orvik');
  const me = (await server.read('/api/me', lead)).body.account;
  const refused = await server.post(`/api/people/${me.personId}/name-removal`, {}, lead);
  expect(refused).toMatchObject({ status: 409, body: { code: 'last-lead' } });
  expect((await server.read('/api/me', lead)).body.account.name).toBe('Lena Orvik');
  expect((await server.post(`/api/people/${randomUUID()}/name-removal`, {}, lead)).status).toBe(404);
  expect((await server.read(`/api/customers/${randomUUID()}/export`, lead)).status).toBe(404);
});
