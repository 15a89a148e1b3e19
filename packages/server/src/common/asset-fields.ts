interface Linked {
  siteId?: string;
  compressorIds?: readonly string[];
  vesselIds?: readonly string[];
}

/** What was said of an asset: the fields that are given, and what it is linked to by ids as they are on record. */
export function saidOf<Fields extends Linked>(sent: Fields): Fields {
  const given = Object.fromEntries(Object.entries(sent).filter(([, value]) => value !== undefined)) as Fields;
  const { siteId, compressorIds, vesselIds } = given;
  return {
    ...given,
    ...(siteId === undefined ? {} : { siteId: siteId.toLowerCase() }),
    ...(compressorIds === undefined ? {} : { compressorIds: lowered(compressorIds) }),
    ...(vesselIds === undefined ? {} : { vesselIds: lowered(vesselIds) }),
  };
}

function lowered(ids: readonly string[]): string[] {
  return ids.map((id) => id.toLowerCase());
}
