import { LONGEST_PAGE, type Page, type PageQuery } from '@entretien/contracts';
import { malformed } from './problem.js';

export const USUAL_PAGE = 50;

/** How many items a page has: as asked, within what the contract allows. */
export function pageSize(limit: string | undefined): number {
  return limit === undefined ? USUAL_PAGE : Number(limit);
}

/** The key of the last item of a page, as an opaque text. */
export function writeCursor(key: readonly (string | number)[]): string {
  return Buffer.from(JSON.stringify(key)).toString('base64url');
}

/**
 * A page of a list that is laid out whole. It goes on after the last item shown; when that has left the list,
 * at the same distance from the top.
 *
 * @param usual how many items a page has when nobody asks for a number
 */
export function pageOf<Item>(
  list: readonly Item[],
  { limit, cursor }: PageQuery,
  idOf: (item: Item) => string,
  usual = LONGEST_PAGE,
): Page<Item> {
  const start = cursor === undefined ? 0 : startAfter(cursor, list, idOf);
  const end = start + (limit === undefined ? usual : pageSize(limit));
  const items = list.slice(start, end);
  const last = items.at(-1);
  return {
    items,
    nextCursor: end < list.length && last !== undefined ? writeCursor([idOf(last), end]) : null,
  };
}

function startAfter<Item>(cursor: string, list: readonly Item[], idOf: (item: Item) => string): number {
  const [id, distance] = readCursor(cursor, 2);
  if (typeof distance !== 'number' || !Number.isInteger(distance) || distance < 0) {
    throw malformed([{ field: 'cursor', message: 'That is no cursor of this list.' }]);
  }
  const index = list.findIndex((item) => idOf(item) === id);
  return index < 0 ? distance : index + 1;
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
