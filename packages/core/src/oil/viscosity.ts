import { bounds, outOfRange, err, ok, type Result } from '../basics/index.js';

/** The ISO viscosity grades (ISO 3448): each within a tenth of its middle at 40 °C. */
export const isoGrades = [2, 3, 5, 7, 10, 15, 22, 32, 46, 68, 100, 150, 220, 320, 460] as const;
export type IsoGrade = (typeof isoGrades)[number];

const GRADE_TOLERANCE = 0.1;

/** The middle of each grade, mm²/s at 40 °C (ISO 3448): its number, but for the thinnest. */
const midpoints: Readonly<Partial<Record<IsoGrade, number>>> = { 2: 2.2, 3: 3.2, 5: 4.6, 7: 6.8 };

/** The middle of a grade, mm²/s at 40 °C. */
export function midpointOf(grade: IsoGrade): number {
  return midpoints[grade] ?? grade;
}

/**
 * The grade that an oil of a viscosity belongs to.
 *
 * @param viscosityAt40 mm²/s at 40 °C
 * @returns null for one between two grades
 */
export function isoGradeOf(viscosityAt40: number): IsoGrade | null {
  const isIn = (grade: IsoGrade) =>
    Math.abs(viscosityAt40 / midpointOf(grade) - 1) <= GRADE_TOLERANCE + 1e-12;
  return isoGrades.find(isIn) ?? null;
}

/** An oil by its viscosities at 40 and 100 °C, mm²/s. */
export interface OilViscosity {
  readonly at40: number;
  readonly at100: number;
}

const ZERO_C = 273.15;

/** log₁₀ log₁₀(ν + 0.7), in which viscosity runs straight over log₁₀ T. */
const walther = (viscosity: number) => Math.log10(Math.log10(viscosity + 0.7));

/**
 * Viscosity at a temperature, by the line of Walther through both known points (ASTM D341).
 *
 * @param tempC −30 to 150 °C
 * @returns mm²/s
 */
export function viscosityAt({ at40, at100 }: OilViscosity, tempC: number): Result<number> {
  const wrong = outOfRange([
    bounds.positive('at40', at40, 5000, 'The viscosity at 40 °C, mm²/s,'),
    bounds.positive('at100', at100, 1000, 'The viscosity at 100 °C, mm²/s,'),
    {
      field: 'tempC',
      value: tempC,
      min: -30,
      max: 150,
      sentence: 'The oil must lie between −30 and 150 °C.',
    },
  ]);
  if (wrong) return wrong;
  if (at100 >= at40 || at100 < 1) {
    return err('not-an-oil', 'At 100 °C an oil is thinner than at 40 °C, and not under 1 mm²/s.', 'at100');
  }
  const [x40, x100, x] = [40, 100, tempC].map((celsius) => Math.log10(celsius + ZERO_C)) as [
    number,
    number,
    number,
  ];
  const slope = (walther(at40) - walther(at100)) / (x100 - x40);
  const y = walther(at40) - slope * (x - x40);
  return ok(10 ** (10 ** y) - 0.7);
}

/** Above its rated temperature an oil lasts half as long for every ten kelvin (Arrhenius, rule of thumb). */
export function oilLifeFactor(tempC: number, ratedTempC: number): number {
  return Math.min(1, 2 ** (-(tempC - ratedTempC) / 10));
}
