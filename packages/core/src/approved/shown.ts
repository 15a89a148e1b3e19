import { DAY_MS } from '../basics/index.js';

/** A moment is worth its hour here, and a figure five digits: what a processor rounds otherwise is no change. */
function shownNumber(value: number): number | string {
  if (Math.abs(value) > 1e10) return new Date(value).toISOString().slice(0, 13);
  return Number.isInteger(value) ? value : Number(value.toPrecision(5));
}

/** Anything as a line of text: figures shortened, functions left out, maps and sets as lists. */
export function shown(value: unknown): string {
  return JSON.stringify(value, (_key, one: unknown) => {
    if (typeof one === 'number') return shownNumber(one);
    if (one instanceof Map || one instanceof Set) return [...(one as Iterable<unknown>)];
    return one;
  }).replaceAll('"', '');
}

/** Lines, each with those under which it was found: what several machines share is said once. */
export function shared(found: readonly (readonly [name: string, line: string])[]): string {
  const names = new Map<string, Set<string>>();
  for (const [name, line] of found) names.set(line, (names.get(line) ?? new Set()).add(name));
  return [...names].map(([line, of]) => `${[...of].join(' ')}: ${line}`).join('\n');
}

export const FIRST_DAY = Date.UTC(2024, 0, 1);
export const onDay = (day: number) => FIRST_DAY + day * DAY_MS;
