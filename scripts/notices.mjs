import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { root } from './lib.mjs';

const LICENCE_FILE = /^(licen[cs]e|copying|notice|ofl)(\b|[-_.])/i;

/**
 * What of others is shipped, by the lock file, with the words under which each may be. Packages with the same words
 * stand together.
 *
 * @param lock the lock file as an object
 * @param textsOf the texts of licences that a package has in its folder; none where it is not installed here
 */
export function noticesOf(lock, textsOf) {
  const shipped = Object.entries(lock.packages)
    .filter(([path, { dev, link }]) => path.startsWith('node_modules/') && !dev && !link)
    .map(([path, { version, license }]) => ({
      name: path.split('node_modules/').at(-1),
      version,
      license: license ?? 'see its own words',
      text: textsOf(path)
        .map((text) => text.replaceAll('\r\n', '\n').trim())
        .join('\n\n'),
    }))
    .sort((one, other) => (one.name < other.name ? -1 : one.name > other.name ? 1 : 0));
  const byText = new Map();
  for (const one of shipped) {
    const words = one.text || one.license;
    byText.set(words, [...(byText.get(words) ?? []), one]);
  }
  const parts = [...byText.values()].map((group) => {
    const names = [...new Set(group.map(({ name, version, license }) => `${name} ${version} (${license})`))];
    return [
      ...names,
      '',
      group[0].text || 'Its licence is known by that name; its package brings no text here.',
    ].join('\n');
  });
  const head =
    'Entretien is shipped with the work of others. Each stands here with the words under which it may be used, as its package brings them.';
  return `${[head, ...parts].join(`\n\n${'-'.repeat(80)}\n\n`)}\n`;
}

/** The texts that lie in the folder of a package. */
function textsIn(path) {
  const folder = join(root, path);
  if (!existsSync(folder)) return [];
  return readdirSync(folder, { withFileTypes: true })
    .filter((entry) => entry.isFile() && LICENCE_FILE.test(entry.name))
    .map((entry) => readFileSync(join(folder, entry.name), 'utf8'));
}

/** Writes them beside the page, which links to them. */
export function writeNotices() {
  const lock = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
  const file = join(root, 'packages/web/dist/third-party-notices.txt');
  const text = noticesOf(lock, textsIn);
  writeFileSync(file, text);
  writeFileSync(`${file}.br`, brotliCompressSync(text));
}
