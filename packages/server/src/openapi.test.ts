import { TestServer } from './testing/test-server.js';

interface Described {
  readonly operationId?: string;
  readonly parameters?: readonly { readonly name: string; readonly in: string; readonly schema: object }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema?: object }>> };
  readonly responses: Readonly<
    Record<string, { readonly content?: Readonly<Record<string, { schema: object }>> }>
  >;
}

let server: TestServer;
let document: {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Described>>>>;
  readonly components: { readonly schemas: Readonly<Record<string, object>> };
};
beforeAll(async () => {
  server = await TestServer.start();
  document = (await server.read('/api/openapi.json')).body;
});
afterAll(() => server.stop());

const operations = () =>
  Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method, operation })),
  );

/** What is not JSON: papers, pictures, lists. */
const isOtherwise = (path: string, method: string) =>
  /\.(pdf|crt|csv)$|export$|photos\/\{photoId\}$|\/file$/.test(path) ||
  (method === 'get' && path.endsWith('/logo'));

test('every operation says what it answers with', () => {
  const silent = operations()
    .filter(({ path, method, operation }) => {
      const good = operation.responses['200'] ?? operation.responses['201'];
      return (
        operation.responses['204'] === undefined &&
        !isOtherwise(path, method) &&
        good?.content === undefined &&
        !operation.operationId?.startsWith('facts.')
      );
    })
    .map(({ path, method }) => `${method} ${path}`);
  expect(silent).toEqual([]);
  expect(operations().length).toBeGreaterThan(60);
});

test('every body has its schema, and every query its parameters with their rules', () => {
  const bodies = operations().filter(({ operation }) => operation.requestBody);
  expect(bodies.length).toBeGreaterThan(25);
  for (const { path, operation } of bodies) {
    const [content] = Object.values(operation.requestBody!.content);
    expect([path, content?.schema !== undefined]).toEqual([path, true]);
  }
  const standings = document.paths['/api/standings']!.get!;
  const names = standings.parameters!.filter((one) => one.in === 'query').map(({ name }) => name);
  expect(names.sort()).toEqual(['at', 'cursor', 'limit']);
  const library = document.paths['/api/plan-library']!.get!.parameters!;
  expect(library.find(({ name }) => name === 'family')!.schema).toMatchObject({ enum: expect.any(Array) });
});

test('whatever it points at is there', () => {
  const text = JSON.stringify(document);
  const missing = [...text.matchAll(/#\/components\/schemas\/([^"]+)/g)]
    .map(([, name]) => name!)
    .filter((name) => !Object.hasOwn(document.components.schemas, name));
  expect([...new Set(missing)]).toEqual([]);
});

test('an answer is as it is described: its required fields are there', async () => {
  const site = await server.addSite();
  const { items } = (await server.read('/api/sites')).body;
  const schema = document.components.schemas['SiteView'] as { required: string[]; properties: object };
  expect(schema.required).toEqual(expect.arrayContaining(['id', 'name', 'timeZone']));
  for (const field of schema.required) expect(Object.keys(items[0])).toContain(field);
  for (const field of Object.keys(items[0])) expect(Object.keys(schema.properties)).toContain(field);
  expect(items[0].id).toBe(site);
});
