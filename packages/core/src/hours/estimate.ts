import { err, ok, type Result } from '../basics/index.js';
import { formatFigure } from '../quantities/index.js';

const MOST_CYCLES = 10_000_000;
const MOST_MINUTES = 24 * 60;
const MOST_AIR_L = 1e10;

/**
 * Hours run, from counted cycles of the pressure switch: cycles × the time of one pump-up from cut-in to
 * cut-out. Idle running between cycles is not in it.
 *
 * @param cycles starts counted, 0 to 10,000,000
 * @param pumpUpMinutes minutes of running in each, above 0
 * @returns hours, or `out-of-range` with a sentence
 * @example hoursFromCycles(240, 2.5) // → 10 h
 */
export function hoursFromCycles(cycles: number, pumpUpMinutes: number): Result<number> {
  if (!(cycles >= 0 && cycles <= MOST_CYCLES)) {
    return err('out-of-range', 'Count the cycles from 0 to 10,000,000.', 'cycles');
  }
  if (!(pumpUpMinutes > 0 && pumpUpMinutes <= MOST_MINUTES)) {
    return err('out-of-range', 'One pump-up takes more than no time, and less than a day.', 'pumpUpMinutes');
  }
  return ok((cycles * pumpUpMinutes) / 60);
}

/**
 * Hours run, from the air that a machine gave: the sum of its fills ÷ its free air delivered. The usual way
 * on high-pressure sets. Leaks and blown-off air were delivered too, so that the hours are at least these.
 *
 * @param airL free air, litres at intake conditions
 * @param fadLpm free air delivered, L/min
 * @returns hours, or `out-of-range` with a sentence
 * @example hoursFromAir(60_000, 200) // → 5 h
 */
export function hoursFromAir(airL: number, fadLpm: number): Result<number> {
  if (!(airL >= 0 && airL <= MOST_AIR_L)) {
    return err(
      'out-of-range',
      'The air delivered cannot be negative, nor more than ten million cubic metres.',
      'airL',
    );
  }
  if (!(fadLpm > 0 && fadLpm <= 200_000)) {
    return err('out-of-range', 'The free air delivered must be known, from 0 to 200,000 L/min.', 'fadLpm');
  }
  return ok(airL / fadLpm / 60);
}

/** How an estimate came about, to stand beside it in the record. */
export function describeEstimate(
  way:
    | { readonly cycles: number; readonly pumpUpMinutes: number }
    | { readonly airL: number; readonly fadLpm: number },
): string {
  const format = (figure: number) => formatFigure(figure, { figures: 6, maxDecimals: 1 });
  return 'cycles' in way
    ? `Estimated: ${format(way.cycles)} cycles × ${format(way.pumpUpMinutes)} min.`
    : `Estimated: ${format(way.airL / 1000)} m³ of air ÷ ${format(way.fadLpm)} L/min.`;
}
