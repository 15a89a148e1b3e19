/** What a paper of a machine is. */
export const paperKinds = ['manual', 'label', 'sound', 'other'] as const;
export type PaperKind = (typeof paperKinds)[number];

export const paperKindNames: Readonly<Record<PaperKind, string>> = {
  manual: 'Manual',
  label: 'Label with its own intervals',
  sound: 'How it sounds',
  other: 'Other paper',
};

/** What a file is by its content, whatever it is called. */
export const paperTypes = {
  pdf: { mime: 'application/pdf', mostMB: 30 },
  webm: { mime: 'audio/webm', mostMB: 10 },
  ogg: { mime: 'audio/ogg', mostMB: 10 },
  m4a: { mime: 'audio/mp4', mostMB: 10 },
  mp3: { mime: 'audio/mpeg', mostMB: 10 },
  wav: { mime: 'audio/wav', mostMB: 10 },
} as const;
export type PaperType = keyof typeof paperTypes;

/** No paper is larger, whatever it is, MB. */
export const LARGEST_PAPER_MB = Math.max(...Object.values(paperTypes).map(({ mostMB }) => mostMB));

/** Longest title of a paper. */
export const PAPER_TITLE_LENGTH = 120;

/** A PDF’s mark stands within so many bytes (PDF 32000-1:2008, implementation note *(memory)*). */
const PDF_MARK_WITHIN = 1024;

const text = (bytes: Uint8Array, from: number, to: number) =>
  String.fromCharCode(...bytes.subarray(from, Math.min(to, bytes.length)));

/**
 * What a file is, by the marks at its beginning; null where it is none of what is kept.
 *
 * Marks: `%PDF-`; EBML 1A45DFA3; `OggS`; `ftyp` at byte 4; `ID3`, or eleven set bits of a frame with a layer;
 * `RIFF….WAVE` (memory).
 */
export function paperTypeOf(bytes: Uint8Array): PaperType | null {
  if (text(bytes, 0, PDF_MARK_WITHIN).includes('%PDF-')) return 'pdf';
  if (bytes[0] === 0x1a && bytes[1] === 0x45 && bytes[2] === 0xdf && bytes[3] === 0xa3) return 'webm';
  if (text(bytes, 0, 4) === 'OggS') return 'ogg';
  if (text(bytes, 4, 8) === 'ftyp') return 'm4a';
  if (text(bytes, 0, 4) === 'RIFF' && text(bytes, 8, 12) === 'WAVE') return 'wav';
  if (text(bytes, 0, 3) === 'ID3') return 'mp3';
  const isFrame =
    bytes.length >= 2 && bytes[0] === 0xff && (bytes[1]! & 0xe0) === 0xe0 && (bytes[1]! & 0x06) !== 0;
  return isFrame ? 'mp3' : null;
}

/** Whether a kind is kept as such a file: what is heard is a sound, everything else is read. */
export function fitsKind(kind: PaperKind, type: PaperType): boolean {
  return (kind === 'sound') === (type !== 'pdf');
}
