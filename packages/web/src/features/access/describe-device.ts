const SYSTEMS: readonly (readonly [RegExp, string])[] = [
  [/iPhone/, 'phone'],
  [/iPad/, 'tablet'],
  [/Android.*Mobile/, 'phone'],
  [/Android/, 'tablet'],
  [/Windows|Macintosh|Linux|X11|CrOS/, 'computer'],
];

/** What a browser calls itself, as far as somebody knows their devices by it: a phone, a tablet, a computer. */
export function describeDevice(agent: string): string {
  const kind = SYSTEMS.find(([pattern]) => pattern.test(agent))?.[1];
  if (kind === undefined) return 'Some device';
  return `A ${kind}`;
}
