import type { WorkshopSettings } from '@entretien/contracts';
import { describeVerdict, type Verdict } from '@entretien/core/checks';
import type { DataPlate } from '@entretien/core/machine';
import { formatFigure } from '@entretien/core/quantities';
import { seesPrices } from '../access/actor.js';
import type { ReportedCompressor, ReportedReading } from './visit-report.js';

/** An amount of hundredths in the currency of the workshop; empty where none is known. */
export function amountOf(cents: number | null, { currency }: WorkshopSettings): string {
  return cents === null || !seesPrices() ? '' : `${formatFigure(cents / 100, { decimals: 2 })} ${currency}`;
}

/** Labour, and what it comes to with the parts and the tax. */
export function billOf(
  { minutes, how }: { readonly minutes: number; readonly how: string },
  prices: readonly (number | null)[],
  workshop: WorkshopSettings,
): Pick<ReportedCompressor, 'labour' | 'bill'> {
  const labourLine = minutes === 0 ? null : `${how}: ${minutes} min`;
  if (!seesPrices()) return { labour: labourLine, bill: null };
  const { labourCentsPerHour, taxPercent } = workshop;
  const parts = prices.reduce<number>((sum, cents) => sum + (cents ?? 0), 0);
  const labour = Math.round((minutes / 60) * labourCentsPerHour);
  const unpriced = prices.filter((cents) => cents === null).length;
  const tax = Math.round(((parts + labour) * taxPercent) / 100);
  const line = (name: string, cents: number) =>
    cents === 0 ? [] : [{ name, amount: amountOf(cents, workshop) }];
  const without = unpriced === 1 ? 'one part that has' : `${unpriced} parts that have`;
  return {
    labour: labourLine,
    bill:
      parts + labour === 0
        ? null
        : {
            lines: [
              ...line('Parts', parts),
              ...line('Labour', labour),
              ...line(`Tax, ${formatFigure(taxPercent)} %`, tax),
            ],
            total: amountOf(parts + labour + tax, workshop),
            without: unpriced === 0 ? null : `Without ${without} no price in the catalogue.`,
          },
  };
}

/** Maker, model and serial number; null where none is known. */
export function plateLine({ maker, model, serial }: DataPlate): string | null {
  const made = [maker, model].filter((part) => part !== undefined).join(' ');
  const known = [made, serial === undefined ? '' : `serial number ${serial}`].filter((part) => part !== '');
  return known.length === 0 ? null : known.join(' · ');
}

interface Shown {
  readonly verdict?: Verdict | undefined;
  readonly noComparison?: true | undefined;
  readonly reason?: string | undefined;
}

/** What a measurement showed, as a report tells it. */
export function readingOf({ verdict, noComparison, reason = '' }: Shown): ReportedReading {
  return { verdict, said: verdict === undefined ? '' : describeVerdict({ verdict, noComparison }), reason };
}
