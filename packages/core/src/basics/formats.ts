/** In which order a day is written. */
export const dayOrders = ['day-month', 'month-day', 'year-first'] as const;
export type DayOrder = (typeof dayOrders)[number];

/** What parts the whole from its decimals; thousands are parted by the other one, or by a thin space. */
export const decimalSigns = ['point', 'comma'] as const;
export type DecimalSign = (typeof decimalSigns)[number];

/** How a person reads days and figures. */
export interface Formats {
  readonly dayOrder: DayOrder;
  readonly decimal: DecimalSign;
}

/** What is written where nobody chose: `5 Dec 2026`, `1,234.5`. */
export const usualFormats: Formats = { dayOrder: 'day-month', decimal: 'point' };

let source: () => Formats = () => usualFormats;

/** How days and figures are written for whoever reads now. Nothing is ever calculated from it. */
export function formatsInUse(): Formats {
  return source();
}

/**
 * Says where the formats of the present reader are found: the page has one reader, the server one for each request.
 *
 * @returns puts back what was there before
 */
export function readFormatsFrom(next: () => Formats): () => void {
  const before = source;
  source = next;
  return () => {
    source = before;
  };
}

/** Formats as they are kept in one word, like `day-month.comma`. */
export function formatsCode({ dayOrder, decimal }: Formats): string {
  return `${dayOrder}.${decimal}`;
}

/** Formats out of their word; the usual ones where it is none. */
export function formatsOf(code: string | undefined): Formats {
  const [order, sign] = (code ?? '').split('.');
  return {
    dayOrder: dayOrders.find((one) => one === order) ?? usualFormats.dayOrder,
    decimal: decimalSigns.find((one) => one === sign) ?? usualFormats.decimal,
  };
}

/** A figure that is written with a point, and with commas between its thousands, as its reader writes it. */
export function figureAsRead(figure: string): string {
  if (formatsInUse().decimal === 'point') return figure;
  return figure.replace(/[.,]/g, (sign) => (sign === ',' ? '\u202f' : ','));
}

/** A whole or plain number as its reader writes it: all its digits, thousands apart. */
export function formatNumber(value: number): string {
  return figureAsRead(value.toLocaleString('en'));
}
