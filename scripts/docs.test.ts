import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? files(join(folder, entry.name)) : [join(folder, entry.name)],
  );

const pages = ['README.md', ...files('docs').filter((file) => file.endsWith('.md'))];

/** A path into the project, whole or with its package alone: `core/air/receiver.ts`. */
const PATH =
  /(?<![\w/.-])(?:packages|core|contracts|server|web|demo|e2e|benchmarks|scripts|docs|releases)\/[\w./-]*\w/g;

/** Where a path may be meant to lead. */
function readings(path: string): string[] {
  const [first, ...rest] = path.split('/');
  const inSource = join('packages', first!, 'src', ...rest);
  return [path, join('packages', path), inSource, `${inSource}.ts`, `${inSource}.tsx`];
}

/** What is named in a text and leads nowhere. */
export function leadingNowhere(text: string): string[] {
  return [...new Set(text.match(PATH) ?? [])].filter(
    (path) => !readings(path).some((one) => existsSync(one)),
  );
}

test.each(pages)('every path that %s names is there', (page) => {
  expect(leadingNowhere(readFileSync(page, 'utf8'))).toEqual([]);
});

test.each(pages)('every link of %s leads somewhere', (page) => {
  const links = [...readFileSync(page, 'utf8').matchAll(/\]\(([^)#:]+)(?:#[^)]*)?\)/g)].map(
    ([, link]) => link!,
  );
  expect(links.filter((link) => !existsSync(join(dirname(page), link)))).toEqual([]);
});

test('a path that is none is found out', () => {
  expect(leadingNowhere('see `core/air/no-such-file.ts` and core/air/receiver.ts')).toEqual([
    'core/air/no-such-file.ts',
  ]);
});

test('every setting that a guide or the unit for systemd names is one that the server reads', () => {
  const read = new Set(readFileSync('packages/server/src/config.ts', 'utf8').match(/ENTRETIEN_[A-Z_]+/g));
  const guides = [...pages, 'docs/entretien.service', 'CHANGELOG.md', 'SECURITY.md'];
  const named = guides.flatMap((page) =>
    (readFileSync(page, 'utf8').match(/ENTRETIEN_[A-Z_]+/g) ?? []).map((name) => [page, name] as const),
  );
  // Those of the tests are read by the tests.
  const unknown = named.filter(
    ([, name]) => !read.has(name) && !/^ENTRETIEN_(TEST|SEED|COURSES|CALIBRATION)/.test(name),
  );
  expect(unknown).toEqual([]);
  expect(named.length).toBeGreaterThan(20);
});
