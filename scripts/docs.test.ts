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
