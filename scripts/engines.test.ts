import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import semver from 'semver';

interface LockedPackage {
  readonly engines?: { readonly node?: string };
  readonly optional?: boolean;
}

const root = join(import.meta.dirname, '..');
const read = (file: string) => JSON.parse(readFileSync(join(root, file), 'utf8')) as never;
const { packages }: { readonly packages: Readonly<Record<string, LockedPackage>> } =
  read('package-lock.json');
const { engines }: { readonly engines: { readonly node: string } } = read('package.json');

/** Ask for more than they need; what we use of them runs on Node.js 20, where all tests do. */
const asksForMore = ['node_modules/file-type', 'node_modules/ts-json-schema-generator'];

test.each(['20.19.0', '22.13.0', '22.99.0', '24.11.0'])(
  'every package that is installed runs on Node.js %s',
  (version) => {
    expect(semver.satisfies(version, engines.node)).toBe(true);
    const refusing = Object.entries(packages)
      .filter(([, { optional, engines: own }]) => !optional && own?.node !== undefined)
      .filter(([, { engines: own }]) => !semver.satisfies(version, own!.node!))
      .map(([path]) => path);
    expect(refusing.filter((path) => !asksForMore.includes(path))).toEqual([]);
  },
);

test('releases that are supported by nobody any more, or that a package refuses, are not promised', () => {
  for (const version of ['18.20.0', '20.18.0', '21.7.0', '22.12.0', '23.11.0', '24.10.0'])
    expect([version, semver.satisfies(version, engines.node)]).toEqual([version, false]);
});
