import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { noticesOf } from './notices.mjs';

const root = join(import.meta.dirname, '..');
interface LockedPackage {
  readonly version?: string;
  readonly dev?: boolean;
  readonly link?: boolean;
  readonly license?: string;
}
const lock = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')) as {
  readonly packages: Readonly<Record<string, LockedPackage>>;
};

test('every package that is shipped stands in the notices, and none that only builds or tests', () => {
  const text = noticesOf(lock, () => []);
  const named = (name: string) => text.includes(`\n${name} `);
  const entries = Object.entries(lock.packages).filter(
    ([path, { link }]) => path.startsWith('node_modules/') && !link,
  );
  const nameOf = (path: string) => path.split('node_modules/').at(-1)!;
  const shipped = entries.filter(([, { dev }]) => !dev).map(([path]) => nameOf(path));
  expect(shipped.filter((name) => !named(name))).toEqual([]);
  expect(shipped).toEqual(
    expect.arrayContaining(['react', '@mui/material', 'better-sqlite3', 'dejavu-fonts-ttf']),
  );
  const others = entries.map(([path]) => nameOf(path)).filter((name) => !shipped.includes(name));
  expect(others.filter(named)).toEqual([]);
  expect(others).toEqual(expect.arrayContaining(['eslint', '@playwright/test']));
});

test('the same words stand once, for all that are under them; a package without any is named by its licence', () => {
  const packages = {
    'node_modules/b': { version: '2.0.0', license: 'MIT' },
    'node_modules/a': { version: '1.0.0', license: 'MIT' },
    'node_modules/c': { version: '3.0.0', license: 'ISC' },
    'node_modules/c/node_modules/a': { version: '0.9.0', license: 'MIT' },
    'node_modules/d': { version: '4.0.0', dev: true },
    'packages/own': { version: '0.1.0' },
  };
  const words = 'Permission is granted.\r\n';
  const text = noticesOf({ packages }, (path) => (path.endsWith('/c') ? [] : [words]));
  expect(text.match(/Permission is granted\./g)).toHaveLength(1);
  expect(text).toContain('a 1.0.0 (MIT)\na 0.9.0 (MIT)\nb 2.0.0 (MIT)\n\nPermission is granted.\n');
  expect(text).toContain('c 3.0.0 (ISC)');
  expect(text).not.toContain('d 4.0.0');
  expect(text).not.toContain('0.1.0');
});
