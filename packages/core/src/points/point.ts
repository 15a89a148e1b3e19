import type { LocalDate, Problem } from '../basics/index.js';

export const bowlMaterials = ['plastic', 'metal'] as const;
export const bowlDrains = ['manual', 'automatic'] as const;
/** A direct one passes on every drop that is seen; one that makes micro-mist about one in ten. */
export const lineLubricators = ['direct', 'micro-mist'] as const;
/** What a line lubricator may hold; never compressor oil, which swells its bowl and the seals behind it. */
export const lineOils = ['mineral', 'synthetic', 'food-grade'] as const;

export type BowlMaterial = (typeof bowlMaterials)[number];
export type BowlDrain = (typeof bowlDrains)[number];
export type LineLubricator = (typeof lineLubricators)[number];
export type LineOil = (typeof lineOils)[number];

/** A filter’s element goes out after so long where nobody said otherwise (common practice). */
export const USUAL_ELEMENT_MONTHS = 12;

/** Bounds of what is said of a point of use; pressures gauge, bar. */
export const pointBounds = {
  micron: { min: 0.01, max: 100 },
  elementMonths: { min: 1, max: 60 },
  regulatorBar: { min: 0.1, max: 40 },
  ratedBar: { min: 0.5, max: 100 },
  drops: { min: 0.2, max: 120 },
} as const;

/**
 * What is known of a point of use: what it hangs on, what hangs on it, and the filter, regulator and lubricator in
 * it. What is left out or null is not there, or nobody said.
 */
export interface PointPlate {
  readonly siteId: string;
  readonly tag: string;
  /** Where it hangs, in words. */
  readonly place?: string | null | undefined;
  /** The compressors and vessels that feed its network. */
  readonly compressorIds: readonly string[];
  readonly vesselIds: readonly string[];
  readonly fittedOn: LocalDate;
  readonly retiredOn?: LocalDate | null | undefined;
  /** What falls, opens or brakes when the air goes. */
  readonly whenAirGoes: string;
  /** Whether somebody breathes from it. */
  readonly isBreathed: boolean;
  /** The lowest rating of what hangs behind it, bar. */
  readonly ratedBar?: number | null | undefined;

  /** Fineness of the filter, µm; null: no filter. */
  readonly filterMicron?: number | null | undefined;
  readonly bowl?: BowlMaterial | null | undefined;
  readonly hasGuard?: boolean | null | undefined;
  readonly drain?: BowlDrain | null | undefined;
  readonly elementEveryMonths?: number | null | undefined;

  /** Where the regulator is set, under flow, bar; null: no regulator. */
  readonly regulatorBar?: number | null | undefined;
  readonly isRelieving?: boolean | null | undefined;

  readonly lubricator?: LineLubricator | null | undefined;
  readonly oil?: LineOil | null | undefined;
  readonly dropsPerMinute?: number | null | undefined;
  /** Which way is more. */
  readonly moreBy?: string | null | undefined;
}

export const hasFilter = ({ filterMicron }: PointPlate): boolean =>
  filterMicron !== null && filterMicron !== undefined;
export const hasRegulator = ({ regulatorBar }: PointPlate): boolean =>
  regulatorBar !== null && regulatorBar !== undefined;
export const hasLubricator = ({ lubricator }: PointPlate): boolean =>
  lubricator !== null && lubricator !== undefined;

/** Why a point of use cannot be as it was described; null where it can. */
export function pointProblem(plate: PointPlate): Problem | null {
  if (plate.compressorIds.length === 0)
    return {
      code: 'no-unit',
      field: 'compressorIds',
      sentence: 'Its network has no unit: say which compressor feeds it.',
    };
  if (!hasFilter(plate) && !hasRegulator(plate) && !hasLubricator(plate))
    return {
      code: 'nothing-there',
      field: 'filterMicron',
      sentence: 'No filter, no regulator, no lubricator: there is nothing to look after.',
    };
  if (plate.isBreathed && hasLubricator(plate))
    return {
      code: 'oil-breathed',
      field: 'lubricator',
      sentence: 'Nobody breathes behind a lubricator: take it out, or say that nobody breathes from here.',
    };
  const { regulatorBar, ratedBar } = plate;
  if (typeof regulatorBar === 'number' && typeof ratedBar === 'number' && regulatorBar > ratedBar)
    return {
      code: 'above-rating',
      field: 'regulatorBar',
      sentence: `Set for ${regulatorBar} bar, and something behind it is rated for ${ratedBar} bar.`,
    };
  return null;
}

/** Something about a point of use that is better put right, and can stay on record as it is. */
export interface PointDoubt {
  readonly code: string;
  readonly sentence: string;
}

/** What is known of a unit that feeds a point, as far as the point hangs on it. */
export interface Feeding {
  readonly tag: string;
  /** The highest that it can give, bar; undefined where nobody knows. */
  readonly reachesBar?: number | undefined;
  readonly isBreathable: boolean;
}

export function pointDoubts(plate: PointPlate, feeding: readonly Feeding[]): readonly PointDoubt[] {
  const doubts: PointDoubt[] = [];
  if (hasFilter(plate) && plate.bowl === 'plastic' && plate.hasGuard === false)
    doubts.push({
      code: 'no-guard',
      sentence: 'A plastic bowl without its guard throws splinters when it goes: guard on, or a metal bowl.',
    });
  if (hasRegulator(plate) && plate.isRelieving === false)
    doubts.push({
      code: 'not-relieving',
      sentence:
        'Its regulator does not relieve: what is behind it stays full until a tool or drain lets it go.',
    });
  const highest = feeding.filter(({ reachesBar }) => reachesBar !== undefined);
  const most = Math.max(0, ...highest.map(({ reachesBar }) => reachesBar!));
  if (typeof plate.ratedBar === 'number' && !hasRegulator(plate) && most > plate.ratedBar)
    doubts.push({
      code: 'rated-below',
      sentence: `Rated for ${plate.ratedBar} bar behind it, no regulator, and its network can reach ${most} bar.`,
    });
  const foul = feeding.find(({ isBreathable }) => !isBreathable);
  if (plate.isBreathed && foul)
    doubts.push({
      code: 'not-for-breathing',
      sentence: `Somebody breathes from it, and ${foul.tag} is not set down for breathing air: nobody does until its air is proved.`,
    });
  return doubts;
}
