import type { Page } from '@entretien/contracts';
import { malformed } from './problem.js';

const USUAL_PAGE = 50;

/** How many items a page has: as asked, within what the contract allows. */
export function pageSize(limit: string | undefined): number {
  return limit === undefined ? USUAL_PAGE : Number(limit);
}

/** The key of the last item of a page, as an opaque text. */
export function writeCursor(key: readonly (string | number)[]): string {
  return Buffer.from(JSON.stringify(key)).toString('base64url');
}

/** The key in a cursor; a problem when it is not one of `length` parts. */
export function readCursor(cursor: string, length: number): (string | number)[] {
  try {
    const key = JSON.parse(Buffer.from(cursor, 'base64url').toString('utf8')) as unknown;
    const isKey =
      Array.isArray(key) &&
      key.length === length &&
      key.every((part) => typeof part === 'string' || Number.isFinite(part));
    if (isKey) return key as (string | number)[];
  } catch {
    // Falls through to the problem below.
  }
  throw malformed([{ field: 'cursor', message: 'That is no cursor of this list.' }]);
}

/** A page out of rows of which one more than asked was read, to know whether there is another page. */
export function toPage<Row, Item>(
  rows: readonly Row[],
  size: number,
  toItem: (row: Row) => Item,
  keyOf: (row: Row) => readonly (string | number)[],
): Page<Item> {
  const shown = rows.slice(0, size);
  const last = shown.at(-1);
  return {
    items: shown.map(toItem),
    nextCursor: rows.length > size && last !== undefined ? writeCursor(keyOf(last)) : null,
  };
}
