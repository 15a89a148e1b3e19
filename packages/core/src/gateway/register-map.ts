import { err, ok, type Result } from '../basics/index.js';
import { MOST_METER_HOURS } from '../hours/index.js';

export const registerTables = ['holding', 'input'] as const;
export type RegisterTable = (typeof registerTables)[number];

/** How many registers a number takes, and how they are read. */
export const registerTypes = { u16: 1, i16: 1, u32: 2, i32: 2, f32: 2 } as const;
export type RegisterType = keyof typeof registerTypes;

export const wordOrders = ['high-first', 'low-first'] as const;
export type WordOrder = (typeof wordOrders)[number];

interface DeviceQuantity {
  readonly name: string;
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  readonly decimals: number;
}

/** What a machine can be asked for, with what is believed of it. */
export const deviceQuantities = {
  'hours-total': { name: 'Run hours', unit: 'h', least: 0, most: MOST_METER_HOURS, decimals: 1 },
  'hours-loaded': { name: 'Loaded hours', unit: 'h', least: 0, most: MOST_METER_HOURS, decimals: 1 },
  'pressure-bar': { name: 'Pressure', unit: 'bar', least: -1, most: 500, decimals: 2 },
  'outlet-c': { name: 'Temperature at the outlet', unit: '°C', least: -40, most: 400, decimals: 0 },
  'ambient-c': { name: 'Room air', unit: '°C', least: -50, most: 70, decimals: 0 },
  // 0 stands, 1 runs unloaded, 2 runs under load, 3 stopped by itself.
  status: { name: 'State', unit: '', least: 0, most: 3, decimals: 0 },
  // 0 none; what else a device writes here is its own number of it.
  alarm: { name: 'Alarm', unit: '', least: 0, most: 65_534, decimals: 0 },
} as const satisfies Readonly<Record<string, DeviceQuantity>>;
export type DeviceQuantityCode = keyof typeof deviceQuantities;
export const deviceQuantityCodes = Object.keys(deviceQuantities) as readonly DeviceQuantityCode[];

/** States as a device tells them. */
export const deviceStates = ['stands', 'runs unloaded', 'runs under load', 'stopped by itself'] as const;

/** Where a figure stands in a device, and how it is read. */
export interface RegisterRow {
  readonly what: DeviceQuantityCode;
  readonly table: RegisterTable;
  readonly register: number;
  readonly type: RegisterType;
  readonly order: WordOrder;
  /** Figure = number × factor + offset. */
  readonly factor: number;
  readonly offset: number;
}

export type RegisterMap = readonly RegisterRow[];

/** Columns of a table of registers, as a list of values has them in its first line. */
export const registerColumns = [
  'what',
  'table',
  'register',
  'type',
  'order',
  'factor',
  'offset',
  'note',
] as const;

/** The table of the controller that stands in: a beginning for one’s own. */
export const EXAMPLE_REGISTERS = `what,table,register,type,order,factor,offset,note
hours-total,holding,0,u32,high-first,0.1,0,Run hours in tenths
hours-loaded,holding,2,u32,high-first,0.1,0,Hours under load in tenths
status,holding,4,u16,high-first,1,0,0 stands · 1 runs unloaded · 2 runs under load · 3 stopped by itself
alarm,holding,5,u16,high-first,1,0,0 none · 1 overload · 2 temperature
pressure-bar,input,0,i16,high-first,0.01,0,Final pressure in hundredths of a bar
outlet-c,input,1,i16,high-first,0.1,0,Outlet of the last stage or airend in tenths
ambient-c,input,2,i16,high-first,0.1,0,Room air in tenths
`;

/** Longest table of registers, characters. */
export const LONGEST_REGISTERS = 8000;
const LAST_REGISTER = 65_535;
const MOST_FACTOR = 1e6;

/**
 * Reads a table of registers out of the rows of a list of values, by its columns.
 *
 * @param rows cells by the name of their column, as written
 */
export function readRegisterMap(rows: readonly Readonly<Record<string, unknown>>[]): Result<RegisterMap> {
  if (rows.length === 0)
    return err(
      'no-registers',
      `The table names no register. Its first line is: ${registerColumns.join(',')}.`,
      'registers',
    );
  const map: RegisterRow[] = [];
  for (const [index, cells] of rows.entries()) {
    const row = readRow(cells);
    if (!row.ok) return err(row.problem.code, `Line ${index + 2}: ${row.problem.sentence}`, 'registers');
    const { what } = row.value;
    if (map.some((one) => one.what === what))
      return err('named-twice', `Line ${index + 2}: “${what}” stands in the table twice.`, 'registers');
    map.push(row.value);
  }
  return ok(map);
}

const isOneOf = <One extends string>(all: readonly One[], text: string): text is One =>
  (all as readonly string[]).includes(text);

function readRow(cells: Readonly<Record<string, unknown>>): Result<RegisterRow> {
  const cell = (name: string, usual = '') => {
    const text = cells[name];
    return typeof text === 'string' && text.trim() !== '' ? text.trim() : usual;
  };
  const [what, table, type, order] = [
    cell('what'),
    cell('table', 'holding'),
    cell('type', 'u16'),
    cell('order', 'high-first'),
  ];
  if (!isOneOf(deviceQuantityCodes, what))
    return err('unknown-quantity', `“${what.slice(0, 40)}” is none of ${deviceQuantityCodes.join(', ')}.`);
  if (!isOneOf(registerTables, table))
    return err('unknown-table', `The table of “${what}” is holding or input.`);
  if (!isOneOf(Object.keys(registerTypes) as RegisterType[], type))
    return err('unknown-type', `The type of “${what}” is one of ${Object.keys(registerTypes).join(', ')}.`);
  if (!isOneOf(wordOrders, order))
    return err('unknown-order', `The order of “${what}” is ${wordOrders.join(' or ')}.`);
  const register = Number(cell('register', 'none'));
  if (!Number.isInteger(register) || register < 0 || register + registerTypes[type] - 1 > LAST_REGISTER)
    return err('bad-register', `The register of “${what}” is a whole number from 0 to ${LAST_REGISTER}.`);
  const [factor, offset] = [Number(cell('factor', '1')), Number(cell('offset', '0'))];
  if (!Number.isFinite(factor) || factor === 0 || Math.abs(factor) > MOST_FACTOR)
    return err('bad-factor', `The factor of “${what}” is a figure other than 0.`);
  if (!Number.isFinite(offset) || Math.abs(offset) > MOST_FACTOR)
    return err('bad-offset', `The offset of “${what}” is a figure.`);
  return ok({ what, table, register, type, order, factor, offset });
}

/** Registers that are asked for at once. */
export interface RegisterRead {
  readonly table: RegisterTable;
  readonly from: number;
  readonly count: number;
}

/** Most registers in one question, and gaps that are read along (the protocol allows 125). */
const [MOST_AT_ONCE, GAP] = [100, 8];

/** The questions that a table of registers takes, as few as they may be. */
export function readsOf(map: RegisterMap): readonly RegisterRead[] {
  const sorted = [...map].sort((a, b) => a.table.localeCompare(b.table) || a.register - b.register);
  const reads: { table: RegisterTable; from: number; count: number }[] = [];
  for (const { table, register, type } of sorted) {
    const end = register + registerTypes[type];
    const last = reads.at(-1);
    if (last?.table === table && register <= last.from + last.count + GAP && end - last.from <= MOST_AT_ONCE)
      last.count = Math.max(last.count, end - last.from);
    else reads.push({ table, from: register, count: registerTypes[type] });
  }
  return reads;
}

/** A figure that is not believed, and why. */
export interface DoubtedFigure {
  readonly what: DeviceQuantityCode;
  readonly code: 'not-answered' | 'no-figure' | 'beyond-belief' | 'mixed-up' | 'stands-still';
  readonly sentence: string;
}

export interface DeviceFigures {
  readonly values: Readonly<Partial<Record<DeviceQuantityCode, number>>>;
  readonly doubts: readonly DoubtedFigure[];
}

/** All bits set, or the sign alone: what devices write where nothing is fitted (common practice). */
const NOT_FITTED: Readonly<Record<RegisterType, readonly number[]>> = {
  u16: [0xffff],
  i16: [-1, -0x8000, 0x7fff],
  u32: [0xffffffff],
  i32: [-0x80000000, 0x7fffffff],
  f32: [],
};

/**
 * Makes figures of registers as they were read; what a sensor that is not fitted writes, what is no number and what
 * no machine has is doubted and not among them.
 *
 * @param word content of a register, 0 to 65,535; undefined where it was not answered
 */
export function figuresOf(
  map: RegisterMap,
  word: (table: RegisterTable, register: number) => number | undefined,
): DeviceFigures {
  const values: Partial<Record<DeviceQuantityCode, number>> = {};
  const doubts: DoubtedFigure[] = [];
  for (const row of map) {
    const { what, table, register, type, factor, offset } = row;
    const { name, least, most, unit, decimals } = deviceQuantities[what];
    const words = Array.from({ length: registerTypes[type] }, (_none, at) => word(table, register + at));
    if (words.some((one) => one === undefined)) {
      doubts.push({
        what,
        code: 'not-answered',
        sentence: `${name}: register ${register} was not answered.`,
      });
      continue;
    }
    const raw = numberOf(row, words as number[]);
    // A signed −1 is a figure for a temperature; for hours and the like it is not.
    const isEmpty = NOT_FITTED[type].includes(raw) && !(raw === -1 && least < 0);
    const figure = raw * factor + offset;
    if (isEmpty || !Number.isFinite(figure))
      doubts.push({
        what,
        code: 'no-figure',
        sentence: `${name}: register ${register} holds no figure (${raw}).`,
      });
    else if (figure < least || figure > most)
      doubts.push({
        what,
        code: 'beyond-belief',
        sentence: `${name}: ${Number(figure.toPrecision(6))} ${unit} is beyond what is believed (${least} to ${most}).`,
      });
    else values[what] = Number(figure.toFixed(Math.max(decimals, 2)));
  }
  return { values, doubts };
}

function numberOf({ type, order }: RegisterRow, words: readonly number[]): number {
  const bytes = new DataView(new ArrayBuffer(4));
  const inOrder = order === 'low-first' ? [...words].reverse() : words;
  inOrder.forEach((one, at) => bytes.setUint16(2 * at, one & 0xffff));
  switch (type) {
    case 'u16':
      return bytes.getUint16(0);
    case 'i16':
      return bytes.getInt16(0);
    case 'u32':
      return bytes.getUint32(0);
    case 'i32':
      return bytes.getInt32(0);
    case 'f32':
      return bytes.getFloat32(0);
  }
}

/**
 * Registers of figures: what a device writes that has them.
 *
 * @returns content by table and register
 */
export function registersOf(
  map: RegisterMap,
  values: Readonly<Partial<Record<DeviceQuantityCode, number>>>,
): ReadonlyMap<string, number> {
  const registers = new Map<string, number>();
  for (const { what, table, register, type, order, factor, offset } of map) {
    const figure = values[what];
    if (figure === undefined) continue;
    const bytes = new DataView(new ArrayBuffer(4));
    const raw = (figure - offset) / factor;
    if (type === 'f32') bytes.setFloat32(0, raw);
    else if (registerTypes[type] === 2) bytes.setUint32(0, Math.round(raw));
    else bytes.setUint16(0, Math.round(raw));
    const words = Array.from({ length: registerTypes[type] }, (_none, at) => bytes.getUint16(2 * at));
    if (order === 'low-first') words.reverse();
    words.forEach((one, at) => registers.set(registerKey(table, register + at), one));
  }
  return registers;
}

export const registerKey = (table: RegisterTable, register: number): string => `${table} ${register}`;
