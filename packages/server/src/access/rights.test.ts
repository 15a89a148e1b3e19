import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { hasRight, rights, roles, type Right, type Role } from '@entretien/core/access';
import { firstLead, invited, type Cookie } from '../testing/signed-in.js';
import { daysAgo, expectStatus, NOW, TestServer } from '../testing/test-server.js';
import { VisitAtWork } from '../testing/visit-steps.js';

/** The table of rights: each route with the right that it asks for; `own` where a customer reads only what is theirs. */
const table = JSON.parse(readFileSync(join(import.meta.dirname, '../../../../docs/rights.json'), 'utf8')) as {
  readonly routes: Readonly<Record<string, Right>>;
  readonly bySigning: Readonly<Record<string, Right>>;
};

interface Operation {
  readonly requestBody?: { readonly content: Readonly<Record<string, unknown>> };
}

interface Place {
  readonly unit: string;
  readonly site: string;
  readonly visit: string;
  readonly repair: string;
}

let server: TestServer;
let operations: {
  readonly route: string;
  readonly method: string;
  readonly path: string;
  readonly type: string;
}[];
let cookies: Readonly<Record<Role, Cookie>>;
let [own, foreign]: Place[] = [];

async function placeOf(tag: string): Promise<Place> {
  const site = await server.addSite({ name: `Site of ${tag}` });
  const unit = await server.addCompressor({ siteId: site, tag, family: 'screw', motor: 'three-phase' });
  await server.readHours(unit, daysAgo(2), 100);
  const visit = await VisitAtWork.plan(server, unit, []);
  const repair = randomUUID();
  const found = { id: repair, kind: 'fault', foundAt: daysAgo(1), found: 'Leaks' };
  expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, found));
  return { unit, site, visit: visit.id, repair };
}

beforeAll(async () => {
  server = await TestServer.start();
  server.now = NOW;
  [own, foreign] = [await placeOf('OWN-1'), await placeOf('FAR-1')];
  const { paths } = (await server.read('/api/openapi.json')).body as {
    paths: Record<string, Record<string, Operation>>;
  };
  operations = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, { requestBody }]) => ({
      route: `${method.toUpperCase()} ${path}`,
      method,
      path,
      type: Object.keys(requestBody?.content ?? {})[0] ?? 'application/json',
    })),
  );
  const lead = await firstLead(server);
  const [mine, other] = [randomUUID(), randomUUID()];
  for (const [id, name, { site }] of [
    [mine, 'Coppel Joinery', own!],
    [other, 'Odrin Glassworks', foreign!],
  ] as const) {
    expectStatus(201, await server.post('/api/customers', { id, name }, lead));
    const owner = { id: randomUUID(), customerId: id };
    expectStatus(201, await server.post(`/api/sites/${site}/customer`, owner, lead));
  }
  const as = async (role: Role) =>
    (await invited(server, lead, role, role === 'customer' ? { customerId: mine } : {})).cookie;
  cookies = {
    lead,
    technician: await as('technician'),
    trainee: await as('trainee'),
    customer: await as('customer'),
  };
});
afterAll(() => server.stop());

/** An address with ids in it: of a place, or of nothing. */
function addressOf(path: string, place: Place): string {
  const about = path.startsWith('/api/visits')
    ? place.visit
    : path.startsWith('/api/repairs')
      ? place.repair
      : place.unit;
  const isOf = /^\/api\/(compressors|visits|repairs)\/\{/.test(path);
  const isSite = /^\/api\/sites\/\{/.test(path);
  let isFirst = true;
  return path.replace(/\{(\w+)\}/g, (_all, name: string) => {
    const first = isFirst;
    isFirst = false;
    if (name === 'collection') return 'readings';
    if (!first) return randomUUID();
    return isOf ? about : isSite ? place.site : randomUUID();
  });
}

/** Ends the session that asks: asked last of all, by hand. */
const SIGN_OUT = 'POST /api/sign-out';

async function ask(
  { method, path, type }: (typeof operations)[number],
  place: Place,
  cookie: Cookie,
  body: object = {},
) {
  const headers = { ...cookie, 'Content-Type': type === 'image/*' ? 'image/jpeg' : type };
  const answer = await server.ask(
    method as 'get' | 'post' | 'put' | 'delete',
    addressOf(path, place),
    method === 'get' || method === 'delete' ? cookie : headers,
    type === 'application/json' ? body : (Buffer.from('nothing') as never),
  );
  return { status: answer.status, code: (answer.body as { code?: string } | null)?.code };
}

/** Let through, whatever became of it; refused; or said not to be there. */
function outcomeOf({ status, code }: { status: number; code?: string | undefined }): string {
  if (code === 'signed-out' || code === 'no-right' || code === 'not-yours') return `${status} ${code}`;
  return 'through';
}

function expected(role: Role | null, right: Right, path: string, place: Place): string {
  if (!hasRight(role, right)) return role === null ? '401 signed-out' : '403 no-right';
  const isOwnOnly = role === 'customer' && right === 'see-own' && path.includes('{');
  return isOwnOnly && place === foreign ? '404 not-yours' : 'through';
}

test('every route stands in the table, and nothing else does', () => {
  expect(operations.map(({ route }) => route).sort()).toEqual(Object.keys(table.routes).sort());
  for (const right of Object.values(table.routes)) expect(rights).toContain(right);
});

test.each<Role | null>([...roles, null])(
  'as %s, every route does what the table says, at one’s own site and at another',
  async (role) => {
    const differences: string[] = [];
    for (const operation of operations) {
      const { route, path } = operation;
      if (route === SIGN_OUT) continue;
      for (const place of [own!, foreign!]) {
        const got = outcomeOf(await ask(operation, place, role === null ? {} : cookies[role]));
        const want = expected(role, table.routes[route]!, path, place);
        if (got !== want) differences.push(`${route}: ${want} in the table, ${got} in truth`);
      }
    }
    expect(differences).toEqual([]);
    // What is signed asks for more than the rest of its route.
    for (const [route, right] of Object.entries(table.bySigning)) {
      const operation = operations.find((one) => one.route === route)!;
      const got = outcomeOf(await ask(operation, own!, role === null ? {} : cookies[role], { kind: 'sign' }));
      expect([route, got]).toEqual([route, expected(role, right, operation.path, own!)]);
    }
  },
  120_000,
);

test('a customer’s own: their sites and machines, no other’s, and no prices unless allowed', async () => {
  const sites = (await server.read('/api/own', cookies.customer)).body;
  expect(sites.map(({ name }: { name: string }) => name)).toEqual(['Site of OWN-1']);
  expect(sites[0].units.map(({ tag }: { tag: string }) => tag)).toEqual(['OWN-1']);
  expect(sites[0].repairs.map(({ id }: { id: string }) => id)).toEqual([own!.repair]);
  expect(JSON.stringify(sites)).not.toContain('FAR-1');
  expect((await server.readBytes(`/api/repairs/${own!.repair}/report.pdf`, cookies.customer)).status).toBe(
    200,
  );
});

test('signing out is anybody’s', async () => {
  for (const cookie of [{}, ...Object.values(cookies)])
    expect((await server.post('/api/sign-out', {}, cookie)).status).toBe(204);
});
