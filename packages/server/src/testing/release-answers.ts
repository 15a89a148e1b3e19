type Read = (path: string) => Promise<unknown>;

interface Items<Item> {
  readonly items: readonly Item[];
}

interface Reading {
  readonly hours: number;
  readonly counts: string;
  readonly voided?: object;
}

/**
 * What a server answers about the data that a release left behind, in figures and codes that no later wording
 * changes: compared when a later release opens them.
 */
export async function releaseAnswers(read: Read) {
  const listed = async <Item>(path: string) => ((await read(path)) as Items<Item>).items;
  const units = await listed<{ id: string; tag: string }>('/compressors?limit=200');
  const ofCompressors = async <Item, Answer>(path: string, format: (item: Item) => Answer) => {
    const answers = units.map(async ({ id, tag }) => {
      const items = await listed<Item>(`/compressors/${id}/${path}`);
      return [tag, items.map(format)] as const;
    });
    return Object.fromEntries(await Promise.all(answers));
  };
  const visits = await listed<{ id: string }>('/visits?show=all');
  const seen = visits.map(async ({ id }) => {
    const { state, units: visited } = (await read(`/visits/${id}`)) as {
      state: string;
      units: { steps: { kind: string }[] }[];
    };
    return [id, { state, steps: visited.flatMap(({ steps }) => steps.map(({ kind }) => kind)) }] as const;
  });
  const logbook: Record<string, number> = {};
  // Each fact by itself: on a page some take one line.
  for (const { kind } of (await read('/logbook/export?format=json')) as { kind: string }[])
    logbook[kind] = (logbook[kind] ?? 0) + 1;
  return {
    readings: await ofCompressors('readings?limit=200', ({ hours, counts, voided }: Reading) => [
      hours,
      counts,
      voided === undefined ? 'stands' : 'voided',
    ]),
    services: await ofCompressors('services?limit=200', (one: { doneAt: string; tasks: string[] }) => [
      one.doneAt,
      one.tasks,
    ]),
    measurements: await ofCompressors('measurements?limit=200', (one: { check: string; values: object }) => [
      one.check,
      one.values,
    ]),
    visits: Object.fromEntries(await Promise.all(seen)),
    repairs: await ofCompressors('repairs', (one: { found: string; state: string }) => [
      one.found,
      one.state,
    ]),
    parts: (await listed<{ number: string; inVan: number }>('/parts')).map((one) => [one.number, one.inVan]),
    vessels: (await listed<{ tag: string; compressorIds: string[] }>('/vessels')).map((one) => [
      one.tag,
      one.compressorIds.length,
    ]),
    logbook,
  };
}
