import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import importX, { createNodeResolver } from 'eslint-plugin-import-x';

const web = join(import.meta.dirname, '../packages/web/src');

/** The floors of the page, the highest first: each stands on those below it only. */
const floors = ['app', 'features', 'components', 'data', 'sw'];

function climbs() {
  return floors.slice(1).map((floor, index) => ({
    target: join(web, floor),
    from: floors.slice(0, index + 1).map((above) => join(web, above)),
    message: `${floor}/ stands on ${floors.slice(index + 2).join(', ') || 'nothing of ours'} only.`,
  }));
}

/** A feature is entered by its index, from above and from beside. */
function entrances() {
  return readdirSync(join(web, 'features')).map((feature) => ({
    target: [join(web, 'app'), ...others(feature).map((other) => join(web, 'features', other))],
    from: join(web, 'features', feature),
    except: ['./index.ts'],
    message: 'Another feature is entered by its index.',
  }));
}

function others(feature) {
  return readdirSync(join(web, 'features')).filter((other) => other !== feature);
}

/** Lint rules that keep the floors of the page, and that no file leads back to itself. */
export const webFloorRules = [
  {
    files: ['packages/web/src/**/*.{ts,tsx}'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [
        createNodeResolver({
          extensions: ['.ts', '.tsx', '.js'],
          extensionAlias: { '.js': ['.ts', '.tsx', '.js'] },
        }),
      ],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
    },
    rules: {
      'import-x/no-restricted-paths': ['error', { zones: [...climbs(), ...entrances()] }],
      'import-x/no-cycle': ['error', { ignoreExternal: true }],
    },
  },
  {
    files: ['packages/web/src/**/*.tsx'],
    ignores: ['**/*.test.tsx'],
    rules: { 'max-lines-per-function': ['error', { max: 120 }] },
  },
  {
    files: ['packages/{core,contracts,server,web,demo}/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/testing/**'],
    rules: { 'max-lines-per-function': ['error', { max: 80 }] },
  },
];
