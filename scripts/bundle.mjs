import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { rolldown } from 'rolldown';
import { root } from './lib.mjs';

/** Packages that stay as they are: native ones, and those that look for files of their own beside them. */
const external = [
  /^node:/,
  'better-sqlite3',
  'sharp',
  '@node-rs/argon2',
  /^pdfkit/,
  /^dejavu-fonts-ttf/,
  /^swagger-ui-dist/,
  // It looks for the serial port’s driver, which nobody here has a use for.
  'modbus-serial',
];

/** Packages that the framework would use if they were there; they are not. */
const optional =
  /^(@nestjs\/(microservices|websockets|platform-fastify)|@fastify\/|class-transformer\/storage)/;

const entries = {
  main: 'server/dist/main.js',
  backup: 'server/dist/backup/run.js',
  'backup-run': 'server/dist/upkeep/backup-run.js',
  certificate: 'server/dist/certificate/run.js',
  'import-worker': 'server/dist/import-export/import-worker.js',
  'export-worker': 'server/dist/import-export/export-worker.js',
  'test-host': 'server/dist/testing/test-host.js',
  demo: 'demo/dist/main.js',
  'stand-in': 'standins/dist/main.js',
};

/** Asks for names that this version of the database library no longer has, and would load it a second time. */
const noSecondTypeorm = {
  name: 'no-second-typeorm',
  transform(code, id) {
    if (!id.endsWith('@nestjs/typeorm/dist/common/typeorm-compat.js')) return null;
    if (!code.includes("require('typeorm')")) throw new Error(`${id} is not as it was: look at it again.`);
    // No longer than before, so that what the source map says of it still holds.
    return { code: code.replace("require('typeorm')", '({})             '.slice(0, 18)), map: null };
  },
};

/** Puts what the server starts from into few files: reading hundreds costs more than running them. */
const folder = join(root, 'packages/server/bundle');
rmSync(folder, { recursive: true, force: true });
const bundle = await rolldown({
  input: Object.fromEntries(
    Object.entries(entries).map(([name, file]) => [name, join(root, 'packages', file)]),
  ),
  platform: 'node',
  external: [...external, optional],
  plugins: [noSecondTypeorm],
  onLog(level, log, handle) {
    if (log.code !== 'UNRESOLVED_IMPORT' && log.code !== 'EVAL') handle(level, log);
  },
});
await bundle.write({
  dir: folder,
  format: 'esm',
  sourcemap: true,
  entryFileNames: '[name].js',
  chunkFileNames: '[name]-[hash].js',
});
await bundle.close();

// What tells this build from every other: whatever it is made of.
const hash = createHash('sha256');
for (const name of readdirSync(folder)
  .filter((file) => file.endsWith('.js'))
  .sort()) {
  hash.update(name).update(readFileSync(join(folder, name)));
}
writeFileSync(join(folder, 'build-id'), hash.digest('hex'));
