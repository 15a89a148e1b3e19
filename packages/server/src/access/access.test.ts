import { randomUUID } from 'node:crypto';
import { cookieOf, firstLead, invited, loginOf, PASSWORD, type Cookie } from '../testing/signed-in.js';
import { DAY, daysAgo, expectStatus, NOW, TestServer, type Answer } from '../testing/test-server.js';
import { VisitAtWork } from '../testing/visit-steps.js';
import { Accounts } from './accounts.js';

const servers: TestServer[] = [];
async function start(): Promise<TestServer> {
  const server = await TestServer.start();
  server.now = NOW;
  servers.push(server);
  return server;
}
afterAll(() => Promise.all(servers.map((server) => server.stop())));

const me = async (server: TestServer, cookie: Cookie = {}) => (await server.read('/api/me', cookie)).body;
const signIn = (server: TestServer, name: string, password = PASSWORD) =>
  server.post('/api/sign-in', { login: loginOf(name), password });

describe('without accounts', () => {
  test('everything is as it was: one person, nobody signs in', async () => {
    const server = await start();
    expect(await me(server)).toMatchObject({ access: 'off', account: null });
    await server.addCompressor();
    expect((await server.read('/api/me/sessions')).status).toBe(404);
    expect((await server.post('/api/sign-out', {})).status).toBe(204);
  });

  test('but only at the machine itself: by its public name nobody comes in', async () => {
    const server = await TestServer.start({ publicUrl: 'https://service.example' });
    servers.push(server);
    const there = { Host: 'service.example' };
    expect(await server.read('/api/sites', there)).toMatchObject({
      status: 403,
      body: { code: 'no-accounts' },
    });
    await firstLead(server);
    expect((await server.read('/api/sites', there)).status).toBe(401);
  });

  test('the first account wants the code of this start', async () => {
    const server = await start();
    const first = { name: 'Lena Orvik', login: 'lena', password: PASSWORD };
    const refused = await server.post('/api/accounts/first', { ...first, code: 'x'.repeat(43) });
    expect(refused).toMatchObject({ status: 403, body: { code: 'wrong-code' } });
    const old = server.get(Accounts).codeOfFirst()!;
    await server.restart();
    expect((await server.post('/api/accounts/first', { ...first, code: old })).status).toBe(403);
    const code = server.get(Accounts).codeOfFirst()!;
    expect(
      (await server.post('/api/accounts/first', { ...first, code, password: 'short' })).body.errors,
    ).toMatchObject([{ field: 'password' }]);
    expect((await me(server)).access).toBe('off');
    expectStatus(201, await server.post('/api/accounts/first', { ...first, code }));
    expect(server.get(Accounts).codeOfFirst()).toBeNull();
    expect((await server.post('/api/accounts/first', { ...first, login: 'two', code })).status).toBe(409);
  });
});

describe('signing in', () => {
  test('turns rights on: nobody else reads or writes; a person on record keeps what they recorded', async () => {
    const server = await start();
    const person = { id: randomUUID(), name: 'Lena Orvik' };
    expectStatus(201, await server.post('/api/people', person));
    const unit = await server.addCompressor();
    expectStatus(201, await server.readHours(unit, daysAgo(3), 100, { by: person.id }));
    const code = server.get(Accounts).codeOfFirst()!;
    const first = { code, name: person.name, login: 'Lena', password: PASSWORD, personId: person.id };
    const answer = await server.post('/api/accounts/first', first);
    const lead = cookieOf(answer);
    expect((await server.read('/api/sites')).status).toBe(401);
    expect((await server.read('/api/openapi.json')).status).toBe(401);
    expect((await server.read('/api/health')).status).toBe(200);
    expect(await me(server, lead)).toMatchObject({
      access: 'on',
      account: { name: person.name, personId: person.id },
    });
    // Whatever is sent besides: it is hers.
    const reading = { id: randomUUID(), takenAt: daysAgo(2), hours: 120, counts: 'total', source: 'typed' };
    const sent = { ...reading, by: randomUUID() };
    const header = { ...lead, 'Entretien-Person': randomUUID() };
    const recorded = await server.post(`/api/compressors/${unit}/readings`, sent, header);
    expect([recorded.status, recorded.body.by]).toEqual([201, person.id]);
  });

  test('the cookie is for this server alone, for no script, and not for other sites', async () => {
    const server = await start();
    await firstLead(server, 'Lena Orvik');
    const answer = await signIn(server, 'Lena Orvik');
    const [cookie] = (answer.headers as unknown as { 'set-cookie': string[] })['set-cookie'];
    expect(cookie).toMatch(/; HttpOnly/);
    expect(cookie).toMatch(/; SameSite=Lax/);
    expect(cookie).toMatch(/; Path=\//);
    expect(JSON.stringify(answer.body)).not.toMatch(/hash|argon/i);
    const stored =
      JSON.stringify(server.rows('SELECT * FROM "session"')) +
      JSON.stringify(server.rows('SELECT * FROM "account"'));
    expect(stored).toContain('$argon2id$');
    expect(stored).not.toContain(PASSWORD);
    expect(stored).not.toContain(cookie!.split(/[=;]/)[1]!);
  });

  test('a wrong name and a wrong password are answered alike', async () => {
    const server = await start();
    await firstLead(server, 'Lena Orvik');
    const wrong = await signIn(server, 'Lena Orvik', 'not her password');
    const nobody = await signIn(server, 'Nobody Here');
    expect(wrong.status).toBe(401);
    expect(nobody.body).toEqual(wrong.body);
  });

  test('after ten tries even the right password waits a quarter of an hour; others come in', async () => {
    const server = await start();
    const lead = await firstLead(server, 'Lena Orvik');
    await invited(server, lead, 'technician', { name: 'Tom Brask' });
    for (let tried = 0; tried < 10; tried += 1)
      expect((await signIn(server, 'Tom Brask', 'guess of words')).status).toBe(401);
    expect(await signIn(server, 'Tom Brask')).toMatchObject({
      status: 429,
      body: { code: 'too-many-tries' },
    });
    // In capitals and with blanks it is the same account.
    expect((await server.post('/api/sign-in', { login: ' TOM.BRASK ', password: PASSWORD })).status).toBe(
      429,
    );
    expect((await signIn(server, 'Lena Orvik')).status).toBe(201);
    server.now += 15 * 60_000;
    expect((await signIn(server, 'Tom Brask')).status).toBe(201);
  });

  test('one address cannot try name after name', async () => {
    const server = await start();
    await firstLead(server, 'Lena Orvik');
    const answers: number[] = [];
    for (let tried = 0; tried < 25; tried += 1) answers.push((await signIn(server, `Guess ${tried}`)).status);
    expect(answers.filter((status) => status === 401).length).toBeLessThanOrEqual(20);
    expect(answers.at(-1)).toBe(429);
  });

  test('signed out, a cookie that was copied is worth nothing', async () => {
    const server = await start();
    const lead = await firstLead(server);
    expect((await server.post('/api/sign-out', {}, lead)).status).toBe(204);
    expect((await server.read('/api/sites', lead)).status).toBe(401);
  });

  test('signing in anew ends the session of before in that browser', async () => {
    const server = await start();
    const before = await firstLead(server, 'Lena Orvik');
    const again = await server.post('/api/sign-in', { login: 'lena.orvik', password: PASSWORD }, before);
    expect((await server.read('/api/sites', before)).status).toBe(401);
    expect((await server.read('/api/sites', cookieOf(again))).status).toBe(200);
  });

  test('a session outlives a restart, thirty days of use and no more of rest, and 180 days in all', async () => {
    const server = await start();
    const lead = await firstLead(server);
    await server.restart();
    const isIn = async () => (await server.read('/api/sites', lead)).status === 200;
    for (let day = 29; day < 180; day += 29) {
      server.now = NOW + day * DAY;
      expect([day, await isIn()]).toEqual([day, true]);
    }
    server.now = NOW + 181 * DAY;
    expect(await isIn()).toBe(false);
    const rested = cookieOf(await signIn(server, 'Lena Orvik'));
    server.now += 31 * DAY;
    expect((await server.read('/api/sites', rested)).status).toBe(401);
  });

  test.each(['', 'x', 'a'.repeat(43), '../../etc', "' OR 1=1 --", 'ä'.repeat(20)])(
    'the cookie “%s” is nobody',
    async (secret) => {
      const server = servers.at(-1)!;
      const answer = await server.read('/api/sites', {
        Cookie: `entretien-session=${encodeURIComponent(secret)}`,
      });
      expect(answer.status).toBe(401);
    },
  );
});

describe('invitations', () => {
  test('are taken once, within a week, and can be withdrawn', async () => {
    const server = await start();
    const lead = await firstLead(server);
    const invite = async () =>
      (await server.post('/api/invitations', { id: randomUUID(), role: 'trainee', name: 'Ola Ferd' }, lead))
        .body;
    const accept = (code: string, login = randomUUID()) =>
      server.post('/api/invitations/accept', { code, login, password: PASSWORD });
    const [first, second, third] = [await invite(), await invite(), await invite()];
    expect((await server.post('/api/invitations/look', { code: first.code })).body).toMatchObject({
      name: 'Ola Ferd',
      role: 'trainee',
    });
    expect((await accept(first.code)).status).toBe(201);
    expect((await accept(first.code)).status).toBe(403);
    expect((await server.ask('delete', `/api/invitations/${second.id}`, lead)).status).toBe(204);
    expect((await accept(second.code)).status).toBe(403);
    server.now += 7 * DAY;
    expect((await accept(third.code)).status).toBe(403);
    expect((await server.read('/api/invitations', lead)).body).toEqual([]);
    expect(JSON.stringify(server.rows('SELECT * FROM "invitation"'))).not.toContain(third.code);
  });

  test('a person has one account; a name to sign in with is one person’s', async () => {
    const server = await start();
    const person = randomUUID();
    expectStatus(201, await server.post('/api/people', { id: person, name: 'Tom Brask' }));
    const lead = await firstLead(server);
    const { account } = await invited(server, lead, 'technician', { name: 'Tom Brask', personId: person });
    expect(account.personId).toBe(person);
    const again = { id: randomUUID(), role: 'lead', name: 'Tom Brask', personId: person };
    expect((await server.post('/api/invitations', again, lead)).status).toBe(409);
    const other = (
      await server.post('/api/invitations', { id: randomUUID(), role: 'lead', name: 'Tom Brask' }, lead)
    ).body;
    const taken = { code: other.code, login: 'TOM.Brask', password: PASSWORD };
    expect((await server.post('/api/invitations/accept', taken)).body.errors).toMatchObject([
      { field: 'login' },
    ]);
  });

  test('a customer’s says whose sites they see', async () => {
    const server = await start();
    const lead = await firstLead(server);
    const of = (more: object) =>
      server.post('/api/invitations', { id: randomUUID(), role: 'customer', name: 'Ada', ...more }, lead);
    expect((await of({})).body.errors).toMatchObject([{ field: 'customerId' }]);
    expect((await of({ customerId: randomUUID() })).status).toBe(404);
  });
});

describe('accounts', () => {
  test('another role counts at once, for whoever is signed in already', async () => {
    const server = await start();
    const lead = await firstLead(server);
    const { cookie, account } = await invited(server, lead, 'technician');
    expect((await server.read('/api/accounts', cookie)).status).toBe(403);
    const change = (role: string) => server.post(`/api/accounts/${account.id}/changes`, { role }, lead);
    expectStatus(201, await change('lead'));
    expect((await server.read('/api/accounts', cookie)).status).toBe(200);
    expectStatus(201, await change('trainee'));
    expect((await server.read('/api/accounts', cookie)).status).toBe(403);
    expect((await change('customer')).status).toBe(422);
  });

  test('a lost phone: a lead ends its session, or closes the account, and it is out', async () => {
    const server = await start();
    const lead = await firstLead(server);
    const { cookie, account } = await invited(server, lead, 'technician', { name: 'Tom Brask' });
    const phone = cookieOf(await signIn(server, 'Tom Brask'));
    const [last] = (await server.read(`/api/accounts/${account.id}/sessions`, lead)).body;
    // Somebody else’s is not one’s own to end.
    const other = (await invited(server, lead, 'technician')).cookie;
    expect((await server.ask('delete', `/api/me/sessions/${last.id}`, other)).status).toBe(403);
    expect((await server.ask('delete', `/api/me/sessions/${last.id}`, lead)).status).toBe(204);
    const states = await Promise.all(
      [cookie, phone].map(async (one) => (await server.read('/api/sites', one)).status),
    );
    expect(states.sort()).toEqual([200, 401]);
    expectStatus(201, await server.post(`/api/accounts/${account.id}/close`, {}, lead));
    for (const one of [cookie, phone]) expect((await server.read('/api/sites', one)).status).toBe(401);
    expect((await signIn(server, 'Tom Brask')).status).toBe(401);
  });

  test('whoever runs the server can let a new lead in, when nobody can sign in any more', async () => {
    const server = await start();
    await firstLead(server, 'Lena Orvik');
    const code = server.get(Accounts).newLead();
    const taken = { code, login: 'rescuer', password: PASSWORD };
    const answer = await server.post('/api/invitations/accept', taken);
    expect([answer.status, answer.body.role]).toEqual([201, 'lead']);
    expect((await server.post('/api/invitations/accept', { ...taken, login: 'again' })).status).toBe(403);
  });

  test('the last lead stays one', async () => {
    const server = await start();
    const lead = await firstLead(server);
    const own = (await me(server, lead)).account.id;
    expect((await server.post(`/api/accounts/${own}/changes`, { role: 'technician' }, lead)).status).toBe(
      409,
    );
    expect((await server.post(`/api/accounts/${own}/close`, {}, lead)).status).toBe(409);
    const other = await invited(server, lead, 'lead');
    expectStatus(201, await server.post(`/api/accounts/${own}/close`, {}, other.cookie));
  });

  test('another password signs out everywhere else', async () => {
    const server = await start();
    const here = await firstLead(server, 'Lena Orvik');
    const there = cookieOf(await signIn(server, 'Lena Orvik'));
    const change = (before: string, password: string) =>
      server.post('/api/me/password', { before, password }, here);
    expect((await change('not it at all', 'another row of words')).body.errors).toMatchObject([
      { field: 'before' },
    ]);
    expect((await change(PASSWORD, 'lena.orvik')).body.errors).toMatchObject([{ field: 'password' }]);
    expect((await change(PASSWORD, 'another row of words')).status).toBe(204);
    expect((await server.read('/api/sites', there)).status).toBe(401);
    expect((await server.read('/api/sites', here)).status).toBe(200);
    expect((await signIn(server, 'Lena Orvik')).status).toBe(401);
    expect((await signIn(server, 'Lena Orvik', 'another row of words')).status).toBe(201);
  });

  test('the audit tells who did what, and cannot be changed', async () => {
    const server = await start();
    const lead = await firstLead(server, 'Lena Orvik');
    const { account } = await invited(server, lead, 'technician', { name: 'Tom Brask' });
    await signIn(server, 'Tom Brask', 'a wrong one here');
    expectStatus(201, await server.post(`/api/accounts/${account.id}/close`, {}, lead));
    await server.put('/api/settings', { workshopName: 'Haldris Air' }, lead);
    const { items } = (await server.read('/api/audit', lead)).body;
    const told = items.map(({ byName, what, about }: Answer['body']) => `${byName} ${what} ${about}`);
    expect(told.slice(0, 3)).toEqual([
      'Lena Orvik settings changed settings',
      'Lena Orvik account closed Tom Brask',
      'nobody signed in sign-in refused Tom Brask',
    ]);
    expect(told).toContain('Lena Orvik invited Tom Brask as technician');
    await expect(server.forget('UPDATE "audit" SET "what" = \'nothing\'')).rejects.toThrow(/only added to/);
    await expect(server.forget('DELETE FROM "audit"')).rejects.toThrow(/only added to/);
    const page = (await server.read('/api/audit?limit=2', lead)).body;
    expect(page.items).toHaveLength(2);
    expect((await server.read(`/api/audit?limit=2&cursor=${page.nextCursor}`, lead)).body.items[0].seq).toBe(
      page.items[1].seq - 1,
    );
  });
});

describe('a trainee does everything but answer for a machine', () => {
  test('signs for nothing, records no service, and takes nothing back into service by any door', async () => {
    const server = await start();
    const lead = await firstLead(server, 'Lena Orvik');
    const { cookie } = await invited(server, lead, 'trainee');
    const [site, unit] = [randomUUID(), randomUUID()];
    expectStatus(201, await server.post('/api/sites', { id: site, name: 'Dairy' }, cookie));
    const plate = {
      id: unit,
      siteId: site,
      tag: 'T-1',
      family: 'screw',
      commissionedOn: '2026-01-01',
      motor: 'three-phase',
    };
    expectStatus(201, await server.post('/api/compressors', plate, cookie));
    const visit = {
      id: randomUUID(),
      siteId: site,
      plannedOn: '2026-11-24',
      units: [{ compressorId: unit, tasks: [] }],
    };
    expectStatus(201, await server.post('/api/visits', visit, cookie));
    const step = (kind: string, details: object, as: Cookie) => {
      const sent = {
        id: randomUUID(),
        compressorId: unit,
        kind,
        doneAt: daysAgo(0),
        session: 'page',
        details,
      };
      return server.post(`/api/visits/${visit.id}/steps`, sent, as);
    };
    expectStatus(201, await step('note', { text: 'Key at the gate' }, cookie));
    expect(await step('sign', { name: 'Lena Orvik' }, cookie)).toMatchObject({
      status: 403,
      body: { code: 'no-right' },
    });
    const service = { id: randomUUID(), doneAt: daysAgo(1), tasks: ['oil-change'] };
    expect((await server.post(`/api/compressors/${unit}/services`, service, cookie)).status).toBe(403);
    // A stop by measurement, and one by word.
    const stop = {
      id: randomUUID(),
      check: 'discharge-temperature',
      takenAt: daysAgo(1),
      values: { tempC: 125, ambientC: 20, mostRiseK: 70 },
    };
    const measured = await server.post(`/api/compressors/${unit}/measurements`, stop, cookie);
    expect(measured.body.judgement.verdict).toBe('stop');
    const [standing] = (await server.read(`/api/compressors/${unit}/stops`, cookie)).body;
    const back = {
      id: randomUUID(),
      at: daysAgo(0),
      ends: standing.id,
      decidedBy: 'Lena Orvik',
      reason: 'Fan mended',
    };
    expect((await server.post(`/api/compressors/${unit}/return-to-service`, back, cookie)).status).toBe(403);
    const wrong = { id: randomUUID(), reason: 'Misread' };
    const withdraw = (as: Cookie) =>
      server.post(`/api/compressors/${unit}/measurements/${stop.id}/withdrawal`, wrong, as);
    expect(await withdraw(cookie)).toMatchObject({ status: 403, body: { code: 'no-right' } });
    const right = { ...stop, id: randomUUID(), corrects: stop.id, values: { ...stop.values, tempC: 80 } };
    expect((await server.post(`/api/compressors/${unit}/measurements`, right, cookie)).status).toBe(403);
    expect((await server.read(`/api/compressors/${unit}/stops`, cookie)).body).toHaveLength(1);
    expectStatus(201, await withdraw(lead));
  });

  test('whoever signs does so with their own name', async () => {
    const server = await start();
    const unit = await server.addCompressor({ family: 'screw', motor: 'three-phase', tag: 'S-1' });
    await server.readHours(unit, daysAgo(1), 100);
    const visit = await VisitAtWork.plan(server, unit, ['bearing-check']);
    await visit.done('bearing-check');
    await visit.step('hours', { hours: 110 });
    const lead = await firstLead(server, 'Lena Orvik');
    const sign = {
      id: randomUUID(),
      compressorId: unit,
      kind: 'sign',
      doneAt: daysAgo(0),
      session: 'page',
      details: { name: 'Somebody else' },
    };
    expectStatus(201, await server.post(`/api/visits/${visit.id}/steps`, sign, lead));
    expect(JSON.stringify((await server.read(`/api/visits/${visit.id}`, lead)).body)).toContain('Lena Orvik');
    // Sent again after a lost answer it is the same.
    expectStatus(201, await server.post(`/api/visits/${visit.id}/steps`, sign, lead));
  });
});
