import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { NOW } from './clock.js';

const packages = resolve(import.meta.dirname, '..');
const bundle = join(packages, 'server/bundle');
const templates = join(packages, '../node_modules/.cache/entretien/templates');

/** Named by the code that tells the story and by the day on which it is told. */
function nameOf(): string {
  const hash = createHash('sha256').update(String(NOW));
  const files = readdirSync(bundle).filter((file) => file.endsWith('.js'));
  for (const file of files.sort()) hash.update(file).update(readFileSync(join(bundle, file)));
  return hash.digest('hex').slice(0, 16);
}

export const template = join(templates, nameOf());

/** Tells the story of the valley once, for every test to start from. */
export default function makeTemplate(): void {
  if (existsSync(template)) return;
  rmSync(templates, { recursive: true, force: true });
  mkdirSync(templates, { recursive: true });
  const answers = [join(bundle, 'demo.js'), template, '--at', new Date(NOW).toISOString()];
  const { status } = spawnSync(process.execPath, answers, { stdio: 'inherit' });
  if (status !== 0 || !existsSync(template)) throw new Error('The demonstration data could not be made.');
}
