import { freeAirToFill } from '../air/index.js';
import { err, ok, type Result } from '../basics/index.js';
import { gauge, number, quantity, type FieldDefinition } from '../checks/index.js';
import { USUAL_COST } from './leak-cost.js';
import { steps, type BenchValues, type CurvePoint } from './bench.js';

/** Cylinders are filled warm and used at about this, °C. */
const FILLED_C = 20;
/** A set is written off over so many years where nobody says otherwise (common practice). */
export const USUAL_YEARS = 15;

/** What a fill costs on the own set, against one that is bought. */
export const ownAirFields: readonly FieldDefinition[] = [
  quantity('volume', 'cylinderL', 'Cylinder', 0.5, 500),
  gauge('fromBar', 'From', { max: 400 }),
  gauge('toBar', 'To', { max: 500, plate: 'workingPressureBar' }),
  quantity('flow', 'fadLpm', 'Free air delivered', 1, 200_000, { plate: 'fadLpm' }),
  number('kW', 'powerKw', 'Power it takes', 0.1, 500),
  number('ct/kWh', 'centsPerKwh', 'Price of energy', 0, 500, { optional: true, hint: '25 where not known.' }),
  number('€', 'cartridgePrice', 'A cartridge costs', 0, 10_000),
  number('h', 'cartridgeHours', 'And lasts', 0.5, 10_000),
  number('€ a year', 'servicePrice', 'Service, tests, air samples', 0, 1_000_000),
  number('€', 'setPrice', 'The set costs', 0, 10_000_000),
  number('years', 'years', 'Written off over', 1, 50, { optional: true, hint: '15 where not said.' }),
  number('a year', 'fills', 'Fills', 1, 1_000_000),
  number('€', 'boughtPrice', 'A fill elsewhere costs', 0, 10_000),
  number('€', 'wayPrice', 'Way and time for it', 0, 10_000, { optional: true, hint: 'For each fill.' }),
];

/** Hundredths of the currency for one fill. */
export interface OwnAir {
  readonly freeAirL: number;
  readonly minutes: number;
  readonly energyCents: number;
  readonly cartridgeCents: number;
  /** Service and write-off, by so many fills a year. */
  readonly fixedCents: number;
  readonly ownCents: number;
  readonly boughtCents: number;
  /** From so many fills a year on the own set is cheaper; null where it never is. */
  readonly worthFromFills: number | null;
  /** What a fill costs on the own set over the fills of a year, in whole currency. */
  readonly curve: readonly CurvePoint[];
}

const CURVE_POINTS = 40;

/** What a fill costs on the own set and elsewhere, and how many it takes until the own set is worth it. */
export function ownAir(values: BenchValues, atmosphereBarAbs: number): Result<OwnAir> {
  const needed = values.need(
    'cylinderL',
    'fromBar',
    'toBar',
    'fadLpm',
    'powerKw',
    'cartridgePrice',
    'cartridgeHours',
    'servicePrice',
    'setPrice',
    'fills',
    'boughtPrice',
  );
  if (!needed.ok) return needed;
  const of = needed.value;
  if (of.toBar <= of.fromBar) return err('full-already', 'It holds that much already.', 'toBar');
  const air = freeAirToFill(
    { volumeL: of.cylinderL, pressureBarAbs: of.fromBar + atmosphereBarAbs },
    of.toBar + atmosphereBarAbs,
    FILLED_C,
  );
  if (!air.ok) return err(air.problem.code, air.problem.sentence, 'toBar');
  const hours = air.value / of.fadLpm / 60;
  const energyCents = of.powerKw * hours * (values.number('centsPerKwh') ?? USUAL_COST.centsPerKwh);
  const cartridgeCents = (of.cartridgePrice * 100 * hours) / of.cartridgeHours;
  const yearCents = 100 * (of.servicePrice + of.setPrice / (values.number('years') ?? USUAL_YEARS));
  const boughtCents = 100 * (of.boughtPrice + (values.number('wayPrice') ?? 0));
  const each = energyCents + cartridgeCents;
  const ownAt = (fills: number) => each + yearCents / fills;
  return ok({
    freeAirL: air.value,
    minutes: hours * 60,
    energyCents,
    cartridgeCents,
    fixedCents: yearCents / of.fills,
    ownCents: ownAt(of.fills),
    boughtCents,
    worthFromFills:
      boughtCents > each ? Math.max(0, Math.ceil(yearCents / (boughtCents - each) - 1e-9)) : null,
    curve: steps(Math.max(1, of.fills / 5), of.fills * 2, CURVE_POINTS).map((fills) => ({
      x: fills,
      y: ownAt(fills) / 100,
    })),
  });
}
