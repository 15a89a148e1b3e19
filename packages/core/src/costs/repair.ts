import { bounds, outOfRange, ok, type Result } from '../basics/index.js';

/** Mending what is there. */
export interface Repair {
  readonly partsCents: number;
  readonly labourHours: number;
  readonly labourCentsPerHour: number;
  /** Years that it is expected to go on after the repair. */
  readonly furtherYears: number;
}

/** Putting a new machine in its place. */
export interface Replacement {
  readonly priceCents: number;
  readonly lifeYears: number;
  /** Energy that the new machine saves, kWh a year. */
  readonly savedKwhPerYear: number;
  readonly priceCentsPerKwh: number;
  /** What standing still until it runs costs. */
  readonly downtimeCents: number;
}

/** What each way costs for a year of service, hundredths of the currency. */
export interface RepairOrReplace {
  readonly repairCentsPerYear: number;
  readonly replaceCentsPerYear: number;
}

/**
 * Repair or replace, by what each costs for a year of further service, without interest: parts and labour over
 * the further life, against price and standstill over the new life less the energy saved.
 */
export function repairOrReplace(repair: Repair, replacement: Replacement): Result<RepairOrReplace> {
  const cents = (field: string, value: number) => ({
    field,
    value,
    min: 0,
    max: 1e10,
    sentence: 'A cost lies between nothing and 100 million.',
  });
  const wrong = outOfRange([
    cents('partsCents', repair.partsCents),
    cents('labourCentsPerHour', repair.labourCentsPerHour),
    cents('priceCents', replacement.priceCents),
    cents('downtimeCents', replacement.downtimeCents),
    cents('savedKwhPerYear', replacement.savedKwhPerYear),
    cents('priceCentsPerKwh', replacement.priceCentsPerKwh),
    {
      field: 'labourHours',
      value: repair.labourHours,
      min: 0,
      max: 10_000,
      sentence: 'The labour lies between 0 and 10,000 hours.',
    },
    bounds.positive('furtherYears', repair.furtherYears, 50, 'The further life, years,'),
    bounds.positive('lifeYears', replacement.lifeYears, 50, 'The life of the new machine, years,'),
  ]);
  if (wrong) return wrong;
  const { partsCents, labourHours, labourCentsPerHour, furtherYears } = repair;
  const { priceCents, lifeYears, savedKwhPerYear, priceCentsPerKwh, downtimeCents } = replacement;
  return ok({
    repairCentsPerYear: (partsCents + labourHours * labourCentsPerHour) / furtherYears,
    replaceCentsPerYear: (priceCents + downtimeCents) / lifeYears - savedKwhPerYear * priceCentsPerKwh,
  });
}
