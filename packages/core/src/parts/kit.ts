import type { KitItem } from '../plan/index.js';

/** A part of the catalogue as a kit looks for it. */
export interface StockedPart {
  readonly id: string;
  readonly name: string;
  /** The line of a kit that it answers, like “oil filter”. */
  readonly answers: string;
  /** Ids of the units it fits; empty: whatever asks for it. */
  readonly fits: readonly string[];
  readonly inVan: number;
}

/** One line of a kit against what the van holds. */
export interface KitLine extends KitItem {
  /** The part that answers it; null where the catalogue knows none. */
  readonly answeredBy: StockedPart | null;
  readonly short: number;
}

/**
 * What a kit needs against the van. A part made for the unit goes before one that fits anything, and among
 * those the one of which most is at hand.
 */
export function kitAgainstVan(
  kit: readonly KitItem[],
  parts: readonly StockedPart[],
  compressorId: string,
): readonly KitLine[] {
  return kit.map((item) => {
    const [best] = parts
      .filter(
        ({ answers, fits }) =>
          sameText(answers, item.part) && (fits.length === 0 || fits.includes(compressorId)),
      )
      .sort((a, b) => Number(b.fits.length > 0) - Number(a.fits.length > 0) || b.inVan - a.inVan);
    return {
      ...item,
      answeredBy: best ?? null,
      short: best ? Math.max(0, item.count - best.inVan) : item.count,
    };
  });
}

function sameText(a: string, b: string): boolean {
  return a.trim().toLowerCase() === b.trim().toLowerCase();
}
