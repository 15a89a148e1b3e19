import { bounds, outOfRange, ok, type Result } from '../basics/index.js';

/** About one per cent of the energy for every 0.14 bar (2 psi) of pressure (US DOE, memory). */
const SHARE_PER_BAR = 0.01 / 0.14;

/**
 * Share of energy that goes into so much pressure that is not needed, or lost in a separator.
 *
 * @param bar pressure difference, 0 to 5: further on the rule no longer holds
 * @returns share of the compressor's energy
 */
export function energyShareOfPressure(bar: number): Result<number> {
  const figure = {
    field: 'bar',
    value: bar,
    min: 0,
    max: 5,
    sentence: 'The rule of 1 % for 0.14 bar holds up to 5 bar.',
  };
  return outOfRange([figure]) ?? ok(bar * SHARE_PER_BAR);
}

/** What a separator element costs, new and spent. */
export interface SeparatorCosts {
  readonly priceCents: number;
  /** By how much its drop grows for each hour of running, bar/h. */
  readonly growthBarPerHour: number;
  /** Power of the compressor under load. */
  readonly powerKw: number;
  readonly priceCentsPerKwh: number;
}

/**
 * The run hours after which a new separator element is cheapest: with a drop that grows evenly, the price
 * shared by the hours and the energy wasted by them are least together at √(2·price ÷ (growth × cost of a bar
 * for an hour)).
 *
 * @returns hours of running
 */
export function cheapestSeparatorHours(costs: SeparatorCosts): Result<number> {
  const { priceCents, growthBarPerHour, powerKw, priceCentsPerKwh } = costs;
  const wrong = outOfRange([
    bounds.positive('priceCents', priceCents, 100_000_000, 'The price'),
    bounds.positive('growthBarPerHour', growthBarPerHour, 1, 'The growth of the drop, bar an hour,'),
    bounds.positive('powerKw', powerKw, 10_000, 'The power, kW,'),
    bounds.positive('priceCentsPerKwh', priceCentsPerKwh, 10_000, 'The price of a kilowatt-hour'),
  ]);
  if (wrong) return wrong;
  const centsPerBarHour = SHARE_PER_BAR * powerKw * priceCentsPerKwh;
  return ok(Math.sqrt((2 * priceCents) / (growthBarPerHour * centsPerBarHour)));
}
