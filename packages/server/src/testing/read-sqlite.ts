import { readFileSync } from 'node:fs';

/*
 * A second reader of the database file, after the published description of its format (sqlite.org/fileformat2.html)
 * and without its library: what a backup holds can be read by whoever has that page. Tables only, in UTF-8, without
 * a log beside them.
 */

type Cell = string | number | null | Buffer;

const [LEAF, INTERIOR] = [0x0d, 0x05];
const [PAGE_HEADER, FILE_HEADER] = [8, 100];

/** All rows of a table with their cells in the order of its columns; the first column of a rowid table is its key. */
export function readTable(file: string, table: string): Cell[][] {
  const pages = new Pages(readFileSync(file));
  const schema = [...pages.rows(1)].find(({ cells }) => cells[0] === 'table' && cells[1] === table);
  if (!schema) throw new Error(`There is no table ${table}.`);
  return [...pages.rows(Number(schema.cells[3]))].map(({ key, cells }) => [
    cells[0] ?? key,
    ...cells.slice(1),
  ]);
}

class Pages {
  private readonly size: number;
  private readonly usable: number;

  constructor(private readonly bytes: Buffer) {
    if (bytes.toString('latin1', 0, 16) !== 'SQLite format 3\0') throw new Error('That is no such file.');
    const size = bytes.readUInt16BE(16);
    this.size = size === 1 ? 65_536 : size;
    this.usable = this.size - bytes.readUInt8(20);
    if (bytes.readUInt32BE(28) * this.size !== bytes.length)
      throw new Error('It has not as many pages as it says.');
  }

  private page(number: number): Buffer {
    return this.bytes.subarray((number - 1) * this.size, number * this.size);
  }

  /** The rows below a page, in the order of their keys. */
  *rows(number: number): Generator<{ key: number; cells: Cell[] }> {
    const page = this.page(number);
    const header = number === 1 ? FILE_HEADER : 0;
    const kind = page[header];
    if (kind !== LEAF && kind !== INTERIOR) throw new Error(`Page ${number} is none of a table: ${kind}.`);
    const first = header + PAGE_HEADER + (kind === INTERIOR ? 4 : 0);
    for (let cell = 0; cell < page.readUInt16BE(header + 3); cell++) {
      const at = page.readUInt16BE(first + 2 * cell);
      if (kind === INTERIOR) yield* this.rows(page.readUInt32BE(at));
      else yield this.row(page, at);
    }
    if (kind === INTERIOR) yield* this.rows(page.readUInt32BE(header + PAGE_HEADER));
  }

  private row(page: Buffer, at: number): { key: number; cells: Cell[] } {
    const [length, afterLength] = readVarint(page, at);
    const [key, start] = readVarint(page, afterLength);
    const most = this.usable - 35;
    if (length <= most) return { key, cells: readRecord(page.subarray(start, start + length)) };
    const least = Math.floor(((this.usable - 12) * 32) / 255) - 23;
    const fitting = least + ((length - least) % (this.usable - 4));
    const here = fitting <= most ? fitting : least;
    const parts = [page.subarray(start, start + here)];
    let next = page.readUInt32BE(start + here);
    for (let left = length - here; left > 0; left -= this.usable - 4) {
      const further = this.page(next);
      parts.push(further.subarray(4, 4 + Math.min(left, this.usable - 4)));
      next = further.readUInt32BE(0);
    }
    return { key, cells: readRecord(Buffer.concat(parts)) };
  }
}

/** A figure of one to nine bytes, and where the next begins. */
function readVarint(bytes: Buffer, at: number): [figure: number, next: number] {
  let figure = 0n;
  for (let place = 0; place < 9; place++) {
    const byte = bytes[at + place]!;
    if (place === 8) return [Number(BigInt.asIntN(64, (figure << 8n) | BigInt(byte))), at + 9];
    figure = (figure << 7n) | BigInt(byte & 0x7f);
    if (byte < 0x80) return [Number(figure), at + place + 1];
  }
  throw new Error('unreachable');
}

const INTEGER_BYTES = [0, 1, 2, 3, 4, 6, 8];

function readRecord(record: Buffer): Cell[] {
  const [headerLength, first] = readVarint(record, 0);
  const cells: Cell[] = [];
  let body = headerLength;
  for (let at = first; at < headerLength;) {
    const [type, next] = readVarint(record, at);
    const length =
      type < 7 ? INTEGER_BYTES[type]! : type === 7 ? 8 : type < 12 ? 0 : (type - (type % 2 ? 13 : 12)) / 2;
    cells.push(readCell(type, record.subarray(body, body + length)));
    body += length;
    at = next;
  }
  return cells;
}

function readCell(type: number, bytes: Buffer): Cell {
  if (type === 0) return null;
  if (type === 7) return bytes.readDoubleBE(0);
  if (type === 8 || type === 9) return type - 8;
  if (type < 7) return bytes.length > 6 ? Number(bytes.readBigInt64BE(0)) : bytes.readIntBE(0, bytes.length);
  return type % 2 === 1 ? bytes.toString('utf8') : bytes;
}
