import { err, ok, type Result } from '../basics/index.js';
import { readNumber } from '../quantities/index.js';
import { checkByCode } from './library.js';

/** A figure of a laboratory’s list: how it may be called there, and in which units it may stand. */
interface Listed {
  readonly field: string;
  readonly called: RegExp;
  /** Factors to the unit of the field, by units as they are written, in lower case and without blanks. */
  readonly units: Readonly<Record<string, number>>;
  /** Whether a figure without a unit can be nothing else. */
  readonly isPlain?: true;
}

const ppm = { ppm: 1, 'mg/kg': 1, 'µg/g': 1 } as const;
const inAir = { ppm: 1, 'ml/m3': 1, 'ml/m³': 1, ppmv: 1, '%': 10_000, 'vol%': 10_000 } as const;
const perCubicMetre = { 'mg/m3': 1, 'mg/m³': 1, 'µg/m3': 0.001, 'µg/m³': 0.001 } as const;

/** What can be read of each check’s list. A factor of ten thousand lies between units of water: those must be said. */
const lists: Readonly<Record<string, readonly Listed[]>> = {
  'oil-sample': [
    {
      field: 'newViscosity',
      called: /new.*visc.*40|visc.*40.*new/,
      units: { 'mm2/s': 1, 'mm²/s': 1, cst: 1 },
      isPlain: true,
    },
    {
      field: 'viscosity',
      called: /visc.*40|\bv40\b|\bkv40\b/,
      units: { 'mm2/s': 1, 'mm²/s': 1, cst: 1 },
      isPlain: true,
    },
    {
      field: 'newAcid',
      called: /new.*(\btan\b|acid)|(\btan\b|acid).*new/,
      units: { mgkoh: 1, 'mgkoh/g': 1 },
      isPlain: true,
    },
    { field: 'acid', called: /\btan\b|acid number|acid/, units: { mgkoh: 1, 'mgkoh/g': 1 }, isPlain: true },
    {
      field: 'waterPpm',
      called: /\bwater\b|\bh2o\b|karl fischer/,
      units: { ...ppm, '%': 10_000, '%m/m': 10_000 },
    },
    { field: 'ironPpm', called: /\biron\b|\bfe\b/, units: ppm, isPlain: true },
    { field: 'copperPpm', called: /\bcopper\b|\bcu\b/, units: ppm, isPlain: true },
    { field: 'siliconPpm', called: /\bsilicon\b|\bsi\b/, units: ppm, isPlain: true },
  ],
  'air-quality': [
    { field: 'co2Ppm', called: /carbon dioxide|\bco2\b|\bco₂/, units: inAir },
    { field: 'coPpm', called: /carbon monoxide|\bco\b/, units: inAir },
    { field: 'oilMgM3', called: /\boil\b/, units: perCubicMetre },
    { field: 'oxygenPercent', called: /oxygen|\bo2\b|\bo₂/, units: { '%': 1, 'vol%': 1 }, isPlain: true },
    { field: 'waterMgM3', called: /\bwater\b|\bh2o\b|moisture/, units: perCubicMetre },
  ],
};

/** Checks whose figures can be read from a laboratory’s list. */
export const checksWithLists: readonly string[] = Object.keys(lists);

/** A list as it was understood. */
export interface LaboratoryList {
  /** Figures in the units of the check, by field. */
  readonly values: Readonly<Record<string, number>>;
  /** Names in the list that the check has no field for. */
  readonly left: readonly string[];
}

/** A figure as the list has it. */
interface Cell {
  readonly name: string;
  readonly text: string;
  readonly unit: string;
}

/**
 * Understands the list of a laboratory: names below each other with figure and unit, or beside each other with the
 * figures below them (the last row counts).
 *
 * @param rows cells of the list
 * @returns `not-a-list` where nothing of the check is in it; `other-unit`, `no-unit`, `no-figure`, `past-its-range`
 *   and `twice` with a sentence that names what it is about
 */
export function readLaboratoryList(
  check: string,
  rows: readonly (readonly string[])[],
): Result<LaboratoryList> {
  const wanted = lists[check] ?? [];
  const cells = cellsOf(rows, wanted);
  const values: Record<string, number> = {};
  const left: string[] = [];
  for (const cell of cells) {
    const listed = wanted.find(({ called }) => called.test(plainName(cell.name)));
    if (!listed) {
      if (/^\d+(?:[.,]\d+)?$/.test(bare(cell.text))) left.push(cell.name.trim());
      continue;
    }
    if (cell.text.trim() === '') continue;
    const read = readFigure(cell, listed);
    if (!read.ok) return read;
    if (values[listed.field] !== undefined)
      return err(
        'twice',
        `“${cell.name.trim()}” stands in the list twice: which sample is it?`,
        listed.field,
      );
    values[listed.field] = read.value;
  }
  if (Object.keys(values).length === 0) {
    const names = wanted.map(({ field }) => nameOf(check, field)).join(', ');
    return err('not-a-list', `Nothing in that list is known here. Looked for: ${names}.`);
  }
  return ok({ values, left });
}

function readFigure({ name, text, unit }: Cell, { field, units, isPlain }: Listed): Result<number> {
  const called = name.trim();
  if (/^\s*[>≥]/.test(text))
    return err(
      'past-its-range',
      `“${called}” is ${text.trim()}: more than was measured. Type what is known.`,
      field,
    );
  // Less than can be measured: the bound is the most that it can be.
  const read = readNumber(bare(text));
  if (!read.ok) return err('no-figure', `“${called}”: “${text.trim()}” is no figure.`, field);
  const written = plainUnit(unit);
  if (written === '') {
    return isPlain
      ? ok(read.value)
      : err(
          'no-unit',
          `“${called}” stands there without its unit: ${Object.keys(units).join(' or ')}?`,
          field,
        );
  }
  const factor = units[written];
  return factor === undefined
    ? err(
        'other-unit',
        `“${called}” in ${unit.trim()}: it is read in ${Object.keys(units).join(', ')}.`,
        field,
      )
    : ok(read.value * factor);
}

function cellsOf(rows: readonly (readonly string[])[], wanted: readonly Listed[]): readonly Cell[] {
  const isKnown = (name: string) => wanted.some(({ called }) => called.test(plainName(name)));
  const head = rows.findIndex((row) => row.filter(isKnown).length >= 2);
  if (head >= 0) {
    const last =
      rows
        .slice(head + 1)
        .filter((row) => row.some((cell) => readNumber(bare(cell)).ok))
        .at(-1) ?? [];
    return rows[head]!.map((name, index) => ({ name, text: last[index] ?? '', unit: unitIn(name) }));
  }
  return rows.flatMap(([name = '', text = '', unit = '']) => {
    if (name.trim() === '') return [];
    const [figure, own] = partedUnit(text);
    return [{ name, text: figure, unit: unit.trim() || own || unitIn(name) }];
  });
}

/** “12.5 ppm” → “12.5” and “ppm” */
function partedUnit(text: string): readonly [string, string] {
  const found = /^\s*([<>≤≥]?\s*[\d.,]+)\s*([^\d\s-].*)?$/.exec(text);
  return found ? [found[1]!, found[2]?.trim() ?? ''] : [text, ''];
}

/** “Water (ppm)” → “ppm” */
function unitIn(name: string): string {
  return /[([]([^)\]]+)[)\]]\s*$/.exec(name)?.[1] ?? '';
}

function plainName(name: string): string {
  return name
    .replace(/[([][^)\]]*[)\]]\s*$/, '')
    .toLowerCase()
    .replace(/[_\-°]+/g, ' ')
    .replace(/\s+/g, ' ');
}

function plainUnit(unit: string): string {
  return unit.toLowerCase().replace(/\s+/g, '').replace('μ', 'µ');
}

function bare(text: string): string {
  return text.replace(/^\s*[<≤]\s*/, '').trim();
}

function nameOf(check: string, field: string): string {
  return checkByCode(check)?.fields.find(({ code }) => code === field)?.name ?? field;
}
