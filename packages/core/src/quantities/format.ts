import { figureAsRead } from '../basics/index.js';
import { fromStored } from './convert.js';
import { storedUnit, type MeasuringUnit, type QuantityKind } from './units.js';

export interface FigureOptions {
  /** Significant figures aimed at; digits before the point are never dropped. Default 3. */
  readonly figures?: number;
  /** Most decimals shown. Default 2. */
  readonly maxDecimals?: number;
  /** Exactly this many decimals, whatever the size. */
  readonly decimals?: number;
}

const formatters = new Map<string, Intl.NumberFormat>();

function formatter(minimum: number, maximum: number): Intl.NumberFormat {
  const key = `${minimum}-${maximum}`;
  let found = formatters.get(key);
  if (!found) {
    found = new Intl.NumberFormat('en', { minimumFractionDigits: minimum, maximumFractionDigits: maximum });
    formatters.set(key, found);
  }
  return found;
}

/**
 * Writes a figure with no more digits than it deserves: three significant ones, but never fewer than its
 * whole part. Thousands are grouped from 1,000, as the reader writes them.
 *
 * @example formatFigure(9.99740) // → '10'
 * @example formatFigure(15930.4) // → '15,930'
 */
export function formatFigure(value: number, options: FigureOptions = {}): string {
  if (options.decimals !== undefined)
    return figureAsRead(formatter(options.decimals, options.decimals).format(value));
  const figures = options.figures ?? 3;
  const magnitude = value === 0 ? 0 : Math.floor(Math.log10(Math.abs(value)));
  const decimals = Math.max(0, Math.min(options.maxDecimals ?? 2, figures - 1 - magnitude));
  // Adding zero turns a rounded "-0" into "0".
  const rounded = Number(value.toFixed(decimals)) + 0;
  return figureAsRead(formatter(0, decimals).format(rounded));
}

/** A stored figure ready to show: the figure and its unit apart, because they are set in different type. */
export interface ShownQuantity {
  readonly figure: string;
  readonly unit: string;
}

/**
 * Formats a stored figure in a chosen unit.
 *
 * @example formatQuantity(9.9974, 'pressure', psi) // → { figure: '145', unit: 'psi' }
 */
export function formatQuantity(
  stored: number,
  kind: QuantityKind,
  unit: MeasuringUnit = storedUnit(kind),
  options: FigureOptions = {},
): ShownQuantity {
  const figure = formatFigure(fromStored(stored, kind, unit), { maxDecimals: unit.maxDecimals, ...options });
  return { figure, unit: unit.label };
}
