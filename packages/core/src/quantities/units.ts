/** One unit of measure of a quantity. */
export interface MeasuringUnit {
  /** Stable code, as kept in a person's preferences. */
  readonly code: string;
  /** How it is written beside a figure. */
  readonly label: string;
  /** How people type it: lower case, without spaces, dots or degree signs. */
  readonly spellings: readonly string[];
  /** The same unit in the vocabulary of js-quantities, which does the converting. */
  readonly expression: string;
  /** Decimals beyond which a figure in this unit says nothing in this trade. */
  readonly maxDecimals: number;
}

/** A kind of quantity: its first unit is the one that is stored. */
export interface QuantityDefinition {
  readonly name: string;
  readonly units: readonly [MeasuringUnit, ...MeasuringUnit[]];
}

function measure(
  code: string,
  label: string,
  expression: string,
  maxDecimals: number,
  spellings: readonly string[],
): MeasuringUnit {
  return { code, label, expression, maxDecimals, spellings };
}

/**
 * Every quantity of the trade with the units people quote it in. Pressure is gauge pressure; flow is free
 * air. A temperature difference is a quantity of its own, because it converts without the offset.
 */
export const quantityDefinitions = {
  pressure: {
    name: 'pressure',
    units: [
      measure('bar', 'bar', 'bar', 2, ['bar', 'bars', 'barg', 'bar(g)']),
      measure('psi', 'psi', 'psi', 1, ['psi', 'psig', 'psi(g)', 'lb/in2', 'lbf/in2']),
      measure('kPa', 'kPa', 'kPa', 0, ['kpa']),
      measure('MPa', 'MPa', 'MPa', 3, ['mpa']),
    ],
  },
  flow: {
    name: 'flow',
    units: [
      measure('L/min', 'L/min', 'l/min', 1, ['l/min', 'lpm', 'lmin', 'litres/min', 'liters/min']),
      measure('cfm', 'cfm', 'ft3/min', 2, ['cfm', 'ft3/min', 'cuft/min']),
      measure('m³/min', 'm³/min', 'm3/min', 3, ['m3/min', 'cbm/min']),
      measure('m³/h', 'm³/h', 'm3/h', 2, ['m3/h', 'm3/hr', 'cbm/h']),
    ],
  },
  volume: {
    name: 'volume',
    units: [
      measure('L', 'L', 'l', 2, ['l', 'litre', 'litres', 'liter', 'liters']),
      measure('gal', 'US gal', 'gal', 2, ['gal', 'gallon', 'gallons', 'usgal']),
      measure('m³', 'm³', 'm3', 3, ['m3', 'cbm']),
      measure('ft³', 'ft³', 'ft3', 2, ['ft3', 'cuft']),
      measure('qt', 'US qt', 'qt', 2, ['qt', 'quart', 'quarts']),
    ],
  },
  temperature: {
    name: 'temperature',
    units: [
      measure('°C', '°C', 'tempC', 1, ['c', 'degc', 'celsius']),
      measure('°F', '°F', 'tempF', 1, ['f', 'degf', 'fahrenheit']),
    ],
  },
  'temperature-rise': {
    name: 'temperature difference',
    units: [
      measure('K', 'K', 'degK', 1, ['k', 'kelvin', 'c', 'degc']),
      measure('°F rise', '°F', 'degF', 1, ['f', 'degf']),
    ],
  },
  hours: {
    name: 'run hours',
    units: [
      measure('h', 'h', 'h', 2, ['h', 'hr', 'hrs', 'hour', 'hours']),
      measure('min', 'min', 'min', 0, ['min', 'minute', 'minutes']),
    ],
  },
  length: {
    name: 'length',
    units: [
      measure('mm', 'mm', 'mm', 2, ['mm']),
      measure('cm', 'cm', 'cm', 2, ['cm']),
      measure('in', 'in', 'in', 3, ['in', 'inch', 'inches', '"']),
    ],
  },
  altitude: {
    name: 'altitude',
    units: [
      measure('m', 'm', 'm', 0, ['m', 'metre', 'metres', 'meter', 'meters']),
      measure('ft', 'ft', 'ft', 0, ['ft', 'foot', 'feet']),
    ],
  },
  force: {
    name: 'force',
    units: [
      measure('N', 'N', 'N', 1, ['n', 'newton', 'newtons']),
      measure('lbf', 'lbf', 'lbf', 2, ['lbf', 'lb', 'lbs']),
    ],
  },
  capacitance: {
    name: 'capacitance',
    units: [measure('µF', 'µF', 'uF', 2, ['uf', 'mfd', 'microfarad'])],
  },
  mass: {
    name: 'mass',
    units: [
      measure('g', 'g', 'g', 1, ['g', 'gram', 'grams']),
      measure('kg', 'kg', 'kg', 3, ['kg']),
      measure('oz', 'oz', 'oz', 2, ['oz', 'ounce', 'ounces']),
    ],
  },
} as const satisfies Record<string, QuantityDefinition>;

export type QuantityKind = keyof typeof quantityDefinitions;

export const quantityKinds = Object.keys(quantityDefinitions) as QuantityKind[];

/** Whether a code is one of a unit of a kind. */
export function isUnitOf(kind: QuantityKind, code: string): boolean {
  return unitsOf(kind).some((unit) => unit.code === code);
}

/** The units of a kind, the stored one first. */
export function unitsOf(kind: QuantityKind): QuantityDefinition['units'] {
  return quantityDefinitions[kind].units;
}

/** The unit in which a kind is stored. */
export function storedUnit(kind: QuantityKind): MeasuringUnit {
  return unitsOf(kind)[0];
}

/** A unit of a kind by its code; the stored unit where the code is not one of this kind. */
export function unitByCode(kind: QuantityKind, code: string | undefined): MeasuringUnit {
  return unitsOf(kind).find((candidate) => candidate.code === code) ?? storedUnit(kind);
}
