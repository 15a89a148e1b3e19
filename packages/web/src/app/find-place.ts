/** What stands in the box as long as nothing is typed. */
export const FIND_HINT = 'Find a unit  ( / )';

/** On a phone it takes what the mark of the house leaves. */
export const findPlace = {
  width: { xs: 150, sm: 180, md: 220 },
  flex: { xs: 1, sm: 'none' },
} as const;
