import { readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';

const packages = join(import.meta.dirname, '../packages');

/** Every source file below a folder, tests left out. */
function sources(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return sources(path);
    return /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name) ? [path] : [];
  });
}

/** The files of the same package that a file takes something from, types too. */
function takenFrom(file: string, text: string): string[] {
  return [...text.matchAll(/(?:^|\n)(?:import|export)\s[^;]*?from '(\.[^']+)'/g)].map(([, path]) =>
    resolve(dirname(file), path!),
  );
}

/** A way round that leads back to where it began; null where there is none. */
function circle(graph: ReadonlyMap<string, readonly string[]>): string[] | null {
  const done = new Set<string>();
  const walk = (file: string, path: string[]): string[] | null => {
    if (path.includes(file)) return [...path.slice(path.indexOf(file)), file];
    if (done.has(file)) return null;
    for (const next of graph.get(file) ?? []) {
      const found = walk(next, [...path, file]);
      if (found) return found;
    }
    done.add(file);
    return null;
  };
  for (const file of graph.keys()) {
    const found = walk(file, []);
    if (found) return found;
  }
  return null;
}

test('a circle is found where there is one', () => {
  const graph = new Map([
    ['a', ['b', 'c']],
    ['b', ['d']],
    ['c', ['d']],
    ['d', ['e']],
    ['e', ['c']],
  ]);
  expect(circle(graph)).toEqual(['d', 'e', 'c', 'd']);
  expect(circle(new Map([...graph, ['e', []]]))).toBeNull();
});

test.each(['core', 'contracts', 'server'])('no two files of %s need each other', (name) => {
  const folder = join(packages, name, 'src');
  const files = sources(folder);
  expect(files.length).toBeGreaterThan(10);
  const known = new Map(files.map((file) => [file.replace(/\.tsx?$/, '.js'), file]));
  const graph = new Map(
    files.map((file) => [
      file,
      takenFrom(file, readFileSync(file, 'utf8')).flatMap((path) => known.get(path) ?? []),
    ]),
  );
  expect(circle(graph)?.map((file) => relative(folder, file)) ?? []).toEqual([]);
});
