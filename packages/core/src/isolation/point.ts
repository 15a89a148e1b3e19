/** What kind of thing a point of isolation is. */
export type PointKind =
  /** Off, locked, tried. */
  | 'drive'
  /** A valve that is shut and tagged. */
  | 'shut'
  /** A space that is emptied and proved empty. */
  | 'vent'
  /** The second look, with every vent still open. */
  | 'look'
  /** How hot it is. */
  | 'heat'
  /** Something that is done, and said to be done. */
  | 'done';

/** One of several equal places at a point: a valve, a drain. */
export interface Tile {
  readonly code: string;
  readonly name: string;
}

/** A space as far as it matters how long it takes to empty. */
export interface VentedSpace {
  readonly litres: number;
  readonly fromBar: number;
  readonly boreMm: number;
}

/** One confirmation on the way to a machine that can be opened. */
export interface IsolationPoint {
  readonly code: string;
  readonly kind: PointKind;
  readonly name: string;
  /** What to do, and what is seen. */
  readonly hint: string;
  /** What goes wrong here. */
  readonly beware?: string;
  /** Equal places, each confirmed by itself; left out: one. */
  readonly tiles?: readonly Tile[];
  /** Spaces that a vent empties, or whose air a shut valve keeps out. */
  readonly spaces?: readonly string[];
  /** Points that must hold before anything said here counts: the sources of its space. */
  readonly after?: readonly string[];
  /** The gauge of its space; left out where it has none. */
  readonly gauge?: string;
  /** Another vented point into which it empties by itself, forward through a check valve. */
  readonly emptiesInto?: string;
  /** Its hold says that two openings are open, on either side. */
  readonly hasTwoOpenings?: true;
  /** More than 15 bar: no look through a bore, no standing, no easing of a cover. */
  readonly isHigh?: true;
  readonly vented?: VentedSpace;
  /** Least wait before it can be said: the second look. */
  readonly waitMinutes?: number;
  /** Where the temperature must lie, by instrument. */
  readonly betweenC?: readonly [number, number];
}

/** What a piece of work opens, and which points it needs. */
export interface Opening {
  readonly name: string;
  readonly needs: readonly string[];
  /** A lid or cover over 150 mm comes off: a tenth of a bar is 700 N on 300 mm, and is none too little. */
  readonly hasLid?: true;
}

/** The isolation of one kind of machine. */
export interface IsolationList {
  readonly points: readonly IsolationPoint[];
  /** By what is opened. */
  readonly openings: Readonly<Record<string, Opening>>;
  /** What work opens that does not say so: everything. */
  readonly everything: readonly string[];
}

/** The places of a point; one that names none is one place. */
export function tilesOf(point: IsolationPoint): readonly Tile[] {
  return point.tiles ?? [{ code: '', name: point.name }];
}
