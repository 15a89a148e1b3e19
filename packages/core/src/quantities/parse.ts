import { refuse, succeed, type Outcome } from '../basics/index.js';
import { fromStored, toStored } from './convert.js';
import { formatFigure } from './format.js';
import { readNumber } from './read-number.js';
import { quantityDefinitions, storedUnit, unitsOf, type MeasuringUnit, type QuantityKind } from './units.js';

/** What was typed, understood. */
export interface ParsedQuantity {
  /** Figure in the stored unit of the kind. */
  readonly value: number;
  /** The unit it was typed in, or the one assumed. */
  readonly unit: MeasuringUnit;
  /** Whether the unit was typed rather than assumed. */
  readonly unitTyped: boolean;
}

export interface ParseOptions {
  /** Unit assumed for a bare figure; the stored unit when left out. */
  readonly assumed?: MeasuringUnit;
  /** Least and greatest figure allowed, in the stored unit. */
  readonly min?: number;
  readonly max?: number;
}

const ABSOLUTE_ZERO_C = -273.15;

/**
 * Understands a quantity as a technician types it: `145 psi`, `10 bar`, `12 cfm`, `340 L/min`, `100 °F`,
 * or just `10`.
 *
 * @returns the figure in the stored unit; or a problem `no-figure`, `not-a-number`, `ambiguous-comma`,
 * `unknown-unit`, `absolute-pressure`, `below-absolute-zero`, `too-small`, `too-large`, each with a sentence.
 * @example parseQuantity('145 psi', 'pressure') // → { value: 9.9974, unit: psi, unitTyped: true }
 */
export function parseQuantity(
  text: string,
  kind: QuantityKind,
  options: ParseOptions = {},
): Outcome<ParsedQuantity> {
  const { figure, spelling } = split(text);
  const number = readNumber(figure);
  if (!number.ok) return number;
  const unit = spelling === '' ? (options.assumed ?? storedUnit(kind)) : findUnit(spelling, kind);
  if (!unit) return unknownUnit(spelling, kind);
  if (kind === 'temperature' && number.value < fromStored(ABSOLUTE_ZERO_C, kind, unit)) {
    return refuse('below-absolute-zero', `Nothing is as cold as ${number.value} ${unit.label}.`);
  }
  const value = toStored(number.value, kind, unit);
  if (options.min !== undefined && value < options.min - 1e-9) {
    return outside('too-small', 'at least', options.min, kind, unit);
  }
  if (options.max !== undefined && value > options.max + 1e-9) {
    return outside('too-large', 'at most', options.max, kind, unit);
  }
  return succeed({ value, unit, unitTyped: spelling !== '' });
}

function split(text: string): { figure: string; spelling: string } {
  // "1e308" is not how anybody writes a figure here: the e starts a unit, and no unit begins so.
  const match = /^([+-]?[\d.,\s\u00a0\u202f'’]*)(.*)$/s.exec(text.trim());
  return { figure: match?.[1]?.trim() || text, spelling: (match?.[1]?.trim() && match[2]?.trim()) || '' };
}

function normalise(spelling: string): string {
  return spelling
    .toLowerCase()
    .replace(/[\s.°º]/g, '')
    .replace(/³|\^3/g, '3')
    .replace(/²|\^2/g, '2')
    .replace(/[µμ]/g, 'u');
}

function findUnit(spelling: string, kind: QuantityKind): MeasuringUnit | undefined {
  const wanted = normalise(spelling);
  return unitsOf(kind).find((unit) => unit.spellings.includes(wanted));
}

function unknownUnit(spelling: string, kind: QuantityKind): Outcome<never> {
  if (kind === 'pressure' && /^(bar|psi|kpa|mpa)\(?a(bs)?\)?$/.test(normalise(spelling))) {
    return refuse('absolute-pressure', 'That is an absolute pressure. Type what the gauge shows.');
  }
  const known = unitsOf(kind).map((unit) => unit.label);
  const list = known.length === 1 ? known[0] : `${known.slice(0, -1).join(', ')} or ${known.at(-1)}`;
  return refuse(
    'unknown-unit',
    `“${spelling.slice(0, 16)}” is no unit of ${quantityDefinitions[kind].name}. Use ${list}.`,
  );
}

function outside(
  code: string,
  words: string,
  limit: number,
  kind: QuantityKind,
  unit: MeasuringUnit,
): Outcome<never> {
  const shown = formatFigure(fromStored(limit, kind, unit), { maxDecimals: unit.maxDecimals });
  return refuse(code, `This must be ${words} ${shown} ${unit.label}.`);
}
