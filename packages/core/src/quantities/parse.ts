import { err, ok, type Result } from '../basics/index.js';
import { fromStored, toStored } from './convert.js';
import { formatFigure } from './format.js';
import { readNumber } from './read-number.js';
import {
  quantityDefinitions,
  storedUnit,
  unitByCode,
  unitsOf,
  type MeasuringUnit,
  type QuantityKind,
} from './units.js';

/** What was typed, understood. */
export interface ParsedQuantity {
  /** Figure in the stored unit of the kind. */
  readonly value: number;
  /** The unit it was typed in, or the one assumed. */
  readonly unit: MeasuringUnit;
  /** Whether the unit was typed rather than assumed. */
  readonly unitTyped: boolean;
  /** Conditions that the typed figure is stated for, where they are not those of free air: it was converted. */
  readonly reference?: string;
}

export interface ParseOptions {
  /** Unit assumed for a bare figure; the stored unit when left out. */
  readonly assumed?: MeasuringUnit;
  /** Least and greatest figure allowed, in the stored unit. */
  readonly min?: number;
  readonly max?: number;
}

const ABSOLUTE_ZERO_C = -273.15;

/** What free air is taken to be where nothing else is said: as it is drawn in, 1.013 bar and 20 °C. */
const FREE_AIR = { bar: 1.01325, kelvin: 293.15 } as const;

/** Volumes of air stated for other conditions than those in which it is drawn in. */
interface Stated {
  readonly spellings: readonly string[];
  /** Code of the unit whose figure it is. */
  readonly unit: string;
  readonly bar: number;
  readonly kelvin: number;
  readonly text: string;
}

const american = { bar: 1.01353, kelvin: 288.706, text: '14.7 psi, 60 °F' } as const;
const normal = { bar: 1.01325, kelvin: 273.15, text: '1.013 bar, 0 °C' } as const;

/** Standard and normal flows: ISO 2533 and 14.7 psi at 60 °F agree within 0.2 %; normal is DIN 1343 (memory). */
const statedFlows: readonly Stated[] = [
  { spellings: ['scfm'], unit: 'cfm', ...american },
  { spellings: ['nm3/h', 'nm3/hr'], unit: 'm³/h', ...normal },
  { spellings: ['nm3/min'], unit: 'm³/min', ...normal },
  { spellings: ['nl/min', 'nlpm', 'nlmin'], unit: 'L/min', ...normal },
];

/**
 * Understands a quantity as a technician types it: `145 psi`, `10 bar`, `12 cfm`, `340 L/min`, `100 °F`,
 * or just `10`. Standard and normal flows are brought to free air, and say from what.
 *
 * @returns the figure in the stored unit; or a problem `no-figure`, `not-a-number`, `ambiguous-comma`,
 * `unknown-unit`, `absolute-pressure`, `below-absolute-zero`, `too-small`, `too-large`, each with a sentence.
 * @example parseQuantity('145 psi', 'pressure') // → { value: 9.9974, unit: psi, unitTyped: true }
 */
export function parseQuantity(
  text: string,
  kind: QuantityKind,
  options: ParseOptions = {},
): Result<ParsedQuantity> {
  const { figure, spelling } = split(text);
  const number = readNumber(figure);
  if (!number.ok) return number;
  const stated = kind === 'flow' ? statedFlow(spelling) : undefined;
  const unit = stated
    ? unitByCode(kind, stated.unit)
    : spelling === ''
      ? (options.assumed ?? storedUnit(kind))
      : findUnit(spelling, kind);
  if (!unit) return unknownUnit(spelling, kind);
  if (kind === 'temperature' && number.value < fromStored(ABSOLUTE_ZERO_C, kind, unit)) {
    return err('below-absolute-zero', `Nothing is as cold as ${number.value} ${unit.label}.`);
  }
  const value = toStored(number.value, kind, unit) * (stated ? toFreeAir(stated) : 1);
  if (options.min !== undefined && value < options.min - 1e-9) {
    return outside('too-small', 'at least', options.min, kind, unit);
  }
  if (options.max !== undefined && value > options.max + 1e-9) {
    return outside('too-large', 'at most', options.max, kind, unit);
  }
  const reference = stated && { reference: `${stated.text}, to free air at 1.013 bar, 20 °C` };
  return ok({ value, unit, unitTyped: spelling !== '', ...reference });
}

function statedFlow(spelling: string): Stated | undefined {
  const wanted = normalise(spelling);
  return statedFlows.find(({ spellings }) => spellings.includes(wanted));
}

/** The same air as it is drawn in: it takes more room where it is warmer or thinner. */
function toFreeAir({ bar, kelvin }: Stated): number {
  return (bar / FREE_AIR.bar) * (FREE_AIR.kelvin / kelvin);
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

function unknownUnit(spelling: string, kind: QuantityKind): Result<never> {
  if (kind === 'pressure' && /^(bar|psi|kpa|mpa)\(?a(bs)?\)?$/.test(normalise(spelling))) {
    return err('absolute-pressure', 'That is an absolute pressure. Type what the gauge shows.');
  }
  const known = unitsOf(kind).map((unit) => unit.label);
  const list = known.length === 1 ? known[0] : `${known.slice(0, -1).join(', ')} or ${known.at(-1)}`;
  return err(
    'unknown-unit',
    `“${spelling.slice(0, 16)}” is no unit of ${quantityDefinitions[kind].name}. Use ${list}.`,
  );
}

function outside(
  code: string,
  text: string,
  limit: number,
  kind: QuantityKind,
  unit: MeasuringUnit,
): Result<never> {
  const shown = formatFigure(fromStored(limit, kind, unit), { maxDecimals: unit.maxDecimals });
  return err(code, `This must be ${text} ${shown} ${unit.label}.`);
}
