import type { DataPlate } from './data-plate.js';

/** What is worth knowing of a model before one works on it. */
export const modelNoteKinds = ['trick', 'reach', 'troublesome', 'dependable', 'fits'] as const;
export type ModelNoteKind = (typeof modelNoteKinds)[number];

/** As they stand before a note. */
export const modelNoteNames: Readonly<Record<ModelNoteKind, string>> = {
  trick: 'What helps',
  reach: 'Hard to reach',
  troublesome: 'Troublesome',
  dependable: 'Dependable',
  fits: 'Fits',
};

/** Longest note. */
export const MODEL_NOTE_LENGTH = 500;

/**
 * What the sisters of a machine have in common: maker and model as they stand on the plate, however they were
 * typed. Of a machine without a model nothing is known that would hold for others: null.
 */
export function modelKeyOf({ maker, model }: Pick<DataPlate, 'maker' | 'model'>): string | null {
  const plain = (text: string | undefined) =>
    (text ?? '')
      .normalize('NFKC')
      .toLowerCase()
      .replace(/[\s\-_./]+/g, '');
  const key = plain(model);
  return key === '' ? null : `${plain(maker)} ${key}`;
}
