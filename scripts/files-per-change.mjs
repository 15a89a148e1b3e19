import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

/*
 * How many files a change touches: `node scripts/files-per-change.mjs`. For each kind of change, one that was made,
 * with every file that had to know of it and what stands there; the test beside it looks whether it still does. Rows
 * of tests and what a page does with it are not counted.
 */
const packages = join(import.meta.dirname, '../packages');

/** @type {{ change: string, aim: number, example: string, files: Record<string, string>, lists?: Record<string, string> }[]} */
export const changes = [
  {
    change: 'a check',
    aim: 1,
    example: 'pressure drop of the separator',
    files: { 'core/src/checks/library/heat.ts': "'separator-drop'" },
  },
  {
    change: 'a task',
    aim: 1,
    example: 'the strainer is cleaned, with what verifies it',
    files: { 'core/src/plan/defaults/piston.ts': "'strainer-clean'" },
  },
  {
    change: 'a bench',
    aim: 3,
    example: 'condensate and cartridge: its formula, its page, its line in the list',
    files: {
      'core/src/bench/water.ts': 'export function waterNow',
      'core/src/bench/index.ts': "code: 'water'",
      'web/src/features/bench/tools/Water.tsx': 'export function Water',
    },
  },
  {
    change: 'a step of a visit',
    aim: 2,
    example: 'a reading before the work is left out',
    files: {
      'core/src/visit/steps/finding.ts': "kind: 'skip'",
      'contracts/src/steps.ts': 'skip: SkipDetails',
    },
  },
  {
    change: 'an entry of a repair',
    aim: 2,
    example: 'a step of an overhaul',
    files: {
      'core/src/repairs/entries.ts': "kind: 'step'",
      'contracts/src/entries.ts': 'step: RepairEntryBody',
    },
  },
  {
    change: 'a trigger',
    aim: 3,
    example: 'hours that pass at two speeds; schema and form follow',
    files: { 'core/src/plan/triggers/wear.ts': "kind: 'season'" },
  },
  {
    change: 'a kind of fact',
    aim: 4,
    example: 'a cylinder is filled: module, contract, table, and the migration that the table names',
    files: {
      'core/src/facts/fills.ts': "kind: 'fill'",
      'contracts/src/fills.ts': 'class RecordFill',
      'server/src/persistence/entities/fill.entity.ts': 'FactTable(facts.fill, Fills1764979200000)',
      'server/src/persistence/migrations/1764979200000-fills.ts': 'CREATE TABLE "fill"',
    },
    lists: {
      'core/src/facts/index.ts': '...fillFacts',
      'contracts/src/index.ts': "'./fills.js'",
      'server/src/persistence/stored-kinds.ts': "'./entities/fill.entity.js'",
    },
  },
];

/** The files of a change in which what should stand there does not. */
export function missing({ files, lists = {} }) {
  return Object.entries({ ...files, ...lists }).flatMap(([file, mark]) => {
    const path = join(packages, file);
    return existsSync(path) && readFileSync(path, 'utf8').includes(mark) ? [] : [file];
  });
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  for (const { change, aim, example, files, lists = {} } of changes) {
    const count = Object.keys(files).length;
    console.log(`${change}: ${count} (aim ${aim})${count > aim ? '  MISSED' : ''}\n  ${example}`);
    for (const file of Object.keys(files)) console.log(`    ${file}`);
    for (const file of Object.keys(lists)) console.log(`    besides, a line in the list ${file}`);
  }
}
