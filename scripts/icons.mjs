import { mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { root } from './lib.mjs';

// The icons of the installed page, drawn from its mark: `node scripts/icons.mjs`, after the mark has changed.
const folder = join(root, 'packages/web/public');
const mark = readFileSync(join(folder, 'mark.svg'), 'utf8');
const drawing = /<rect[^>]*\/>(.*)<\/svg>/s.exec(mark)[1];
const ground = /fill="(#\w{6})"/.exec(mark)[1];

/** The mark on its ground: with corners, or to the edge for devices that cut their own shape out of it. */
function drawn(size, { share = 1, corner = 0 } = {}) {
  const middle = `translate(16 16) scale(${share}) translate(-16 -16)`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 32 32"><rect width="32" height="32" rx="${corner}" fill="${ground}"/><g transform="${middle}">${drawing}</g></svg>`;
  return sharp(Buffer.from(svg), { density: (72 * size) / 32 })
    .resize(size, size)
    .png({ compressionLevel: 9, palette: true });
}

mkdirSync(join(folder, 'icons'), { recursive: true });
await drawn(192, { corner: 7 }).toFile(join(folder, 'icons/icon-192.png'));
await drawn(512, { corner: 7 }).toFile(join(folder, 'icons/icon-512.png'));
await drawn(512, { share: 0.8 }).toFile(join(folder, 'icons/icon-maskable-512.png'));
await drawn(180, { share: 0.9 }).toFile(join(folder, 'icons/icon-180.png'));
