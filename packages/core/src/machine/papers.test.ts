import { fitsKind, LARGEST_PAPER_MB, paperTypeOf } from './index.js';

const bytes = (start: string | readonly number[], length = 64) => {
  const all = new Uint8Array(length);
  all.set(typeof start === 'string' ? [...start].map((one) => one.charCodeAt(0)) : start);
  return all;
};

test.each([
  ['a PDF', bytes('%PDF-1.7'), 'pdf'],
  ['a PDF behind what a mailer put before it', bytes(`${'x'.repeat(1000)}%PDF-1.4`, 1200), 'pdf'],
  ['a PDF’s mark far inside', bytes(`${'x'.repeat(1100)}%PDF-1.4`, 1300), null],
  ['WebM', bytes([0x1a, 0x45, 0xdf, 0xa3]), 'webm'],
  ['Ogg', bytes('OggS'), 'ogg'],
  ['MP4', bytes([0, 0, 0, 32, 0x66, 0x74, 0x79, 0x70]), 'm4a'],
  ['WAVE', bytes('RIFF    WAVE'), 'wav'],
  ['another RIFF', bytes('RIFF    AVI '), null],
  ['MP3 with a tag', bytes('ID3'), 'mp3'],
  ['MP3 without', bytes([0xff, 0xfb]), 'mp3'],
  ['all bits set, but no layer', bytes([0xff, 0xf9 & ~0x06]), null],
  ['a JPEG', bytes([0xff, 0xd8, 0xff]), null],
  ['a page', bytes('<html><script>'), null],
  ['nothing', new Uint8Array(), null],
])('%s', (_, file, type) => {
  expect(paperTypeOf(file)).toBe(type);
});

test('a manual is read, a sound is heard', () => {
  expect(fitsKind('manual', 'pdf')).toBe(true);
  expect(fitsKind('manual', 'mp3')).toBe(false);
  expect(fitsKind('sound', 'pdf')).toBe(false);
  expect(fitsKind('sound', 'wav')).toBe(true);
  expect(LARGEST_PAPER_MB).toBe(30);
});
