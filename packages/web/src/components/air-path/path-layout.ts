/** Room that a label takes without touching its neighbours, px. */
const LABEL_ROOM = 80;
/** Room that the widest drawing takes, px. */
const GLYPH_ROOM = 56;

/** How the stations of a path share a width. */
export interface PathLayout {
  readonly spacing: number;
  /** Labels stand on one level, or by turns on two. */
  readonly levels: 1 | 2;
  /** Scale of the drawings. */
  readonly scale: number;
}

/** Spreads so many stations over a width: drawings shrink and labels go on two levels before anything collides. */
export function pathLayout(width: number, count: number): PathLayout {
  const spacing = width / Math.max(1, count);
  return {
    spacing,
    levels: spacing < LABEL_ROOM ? 2 : 1,
    scale: Math.min(1, spacing / GLYPH_ROOM),
  };
}
