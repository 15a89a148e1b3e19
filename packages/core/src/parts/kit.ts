import type { DataPlate } from '../machine/index.js';
import type { KitItem } from '../plan/index.js';
import { needsReason, type PartClass } from './substitute.js';

/** A part of the catalogue as a kit looks for it. */
export interface StockedPart {
  readonly id: string;
  readonly name: string;
  readonly class: PartClass;
  /** The line of a kit that it answers, like “oil filter”. */
  readonly answers: string;
  /** Ids of the units it fits; empty: whatever asks for it. */
  readonly fits: readonly string[];
  readonly inVan: number;
  readonly isRetired?: boolean | undefined;
}

/** One line of a kit against what the van holds. */
export interface KitLine extends KitItem {
  /** The part that answers it; null where the catalogue knows none. */
  readonly answeredBy: StockedPart | null;
  /** A part of the same kind, where none is named for it: to be looked at, never taken for granted. */
  readonly proposed: StockedPart | null;
  readonly short: number;
}

type KitMachine = Pick<DataPlate, 'family' | 'airUse'>;

/**
 * Holds a kit against the catalogue and the van. A part that is named for the unit comes first, then the one of which
 * there is most. Where the exact words find nothing, a part of the same kind is proposed.
 *
 * @param plate of the unit: what its air is breathed through is never proposed, only named
 */
export function kitAgainstVan(
  kit: readonly KitItem[],
  parts: readonly StockedPart[],
  compressorId: string,
  plate: KitMachine,
): readonly KitLine[] {
  const fitting = parts
    .filter(({ fits, isRetired }) => !isRetired && (fits.length === 0 || fits.includes(compressorId)))
    .sort((a, b) => Number(b.fits.length > 0) - Number(a.fits.length > 0) || b.inVan - a.inVan);
  return kit.map((item) => {
    const best = fitting.find(({ answers }) => sameText(answers, item.part)) ?? null;
    const like = best ? null : bestLike(item.part, fitting);
    const proposed = like && !needsReason(like, plate, compressorId) ? like : null;
    return {
      ...item,
      answeredBy: best,
      proposed,
      short: Math.max(0, item.count - (best?.inVan ?? 0)),
    };
  });
}

function sameText(a: string, b: string): boolean {
  return a.trim().toLowerCase() === b.trim().toLowerCase();
}

/** Share of the words in common from which two lines speak of the same kind of part. */
const ALIKE = 0.6;

/** The part whose line is most like another; null where none is like it. */
function bestLike(line: string, parts: readonly StockedPart[]): StockedPart | null {
  let [found, most]: [StockedPart | null, number] = [null, 0];
  for (const part of parts) {
    const share = alike(line, part.answers);
    if (share >= ALIKE && share > most) [found, most] = [part, share];
  }
  return found;
}

/** Words that say which of two things of one kind it is: an engine’s oil filter is no compressor’s. */
const telling = new Set([
  'engine',
  'fuel',
  'dryer',
  'line',
  'separator',
  'intake',
  'lubricator',
  'drain',
  'upper',
]);
const filling = new Set([
  'of',
  'its',
  'the',
  'a',
  'for',
  'and',
  'one',
  'new',
  'charge',
  'set',
  'kit',
  'grade',
  'top',
  'up',
]);

/** Words in common, as a share of all; 0 where one is of another place than the other. */
function alike(a: string, b: string): number {
  const [first, second] = [wordsOf(a), wordsOf(b)];
  for (const word of telling) if (first.has(word) !== second.has(word)) return 0;
  const common = [...first].filter((word) => second.has(word)).length;
  const all = new Set([...first, ...second]).size;
  return all === 0 ? 0 : common / all;
}

function wordsOf(text: string): ReadonlySet<string> {
  const words = text.toLowerCase().match(/\p{L}+/gu) ?? [];
  return new Set(
    words
      .filter((word) => !filling.has(word))
      .map((word) => (word.length > 3 ? word.replace(/s$/, '') : word)),
  );
}
