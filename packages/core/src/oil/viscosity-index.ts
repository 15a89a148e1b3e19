import { bounds, outOfRange, err, ok, type Result } from '../basics/index.js';
import type { OilViscosity } from './viscosity.js';

/** Coefficients of L = aY² + bY + c and H = dY² + eY + f up to a viscosity Y at 100 °C, mm²/s. */
type Row = readonly [upTo: number, a: number, b: number, c: number, d: number, e: number, f: number];

/** ASTM D2270, the equations of its reference oils (memory). */
const rows: readonly Row[] = [
  [3.8, 1.14673, 1.7576, -0.109, 0.84155, 1.5521, -0.077],
  [4.4, 3.38095, -15.4952, 33.196, 0.78571, 1.7929, -0.183],
  [5.0, 2.5, -7.2143, 13.812, 0.82143, 1.5679, 0.119],
  [6.4, 0.101, 16.635, -45.469, 0.04985, 9.1613, -18.557],
  [7.0, 3.35714, -23.5643, 78.466, 0.22619, 7.7369, -16.656],
  [7.7, 0.01191, 21.475, -72.87, 0.79762, -0.7321, 14.61],
  [9.0, 0.41858, 16.1558, -56.04, 0.05794, 10.5156, -28.24],
  [12, 0.88779, 7.5527, -16.6, 0.26665, 6.7015, -10.81],
  [15, 0.7672, 10.7972, -38.18, 0.20073, 8.4658, -22.49],
  [18, 0.97305, 5.3135, -2.2, 0.28889, 5.9741, -4.93],
  [22, 0.97256, 5.25, -0.98, 0.24504, 7.416, -16.73],
  [28, 0.91413, 7.4759, -21.82, 0.20323, 9.1267, -34.23],
  [40, 0.87031, 9.7157, -50.77, 0.18411, 10.1015, -46.75],
  [55, 0.84703, 12.6752, -133.31, 0.17029, 11.4866, -80.62],
  [70, 0.85921, 11.1009, -83.19, 0.1713, 11.368, -76.94],
];

/**
 * Viscosity index by ASTM D2270: how little an oil thins with heat. Procedure A up to 100, B above.
 *
 * @param oil viscosities at 40 and at 100 °C, mm²/s; that at 100 °C from 2 to 70
 * @returns the index, rounded to a whole number as the standard has it
 * @example viscosityIndex({ at40: 73.3, at100: 8.86 }) // → 92
 */
export function viscosityIndex({ at40, at100 }: OilViscosity): Result<number> {
  const wrong = outOfRange([
    bounds.positive('at40', at40, 5000, 'The viscosity at 40 °C, mm²/s,'),
    {
      field: 'at100',
      value: at100,
      min: 2,
      max: 70,
      sentence: 'The index is defined for 2 to 70 mm²/s at 100 °C.',
    },
  ]);
  if (wrong) return wrong;
  if (at40 <= at100) {
    return err('not-an-oil', 'An oil is thinner at 100 °C than at 40 °C. Are the two mixed up?', 'at100');
  }
  const [, a, b, c, d, e, f] = rows.find(([upTo]) => at100 <= upTo)!;
  const low = a * at100 ** 2 + b * at100 + c;
  const high = d * at100 ** 2 + e * at100 + f;
  const plain = ((low - at40) / (low - high)) * 100;
  if (plain < 100) return ok(Math.round(plain));
  const exponent = (Math.log10(high) - Math.log10(at40)) / Math.log10(at100);
  return ok(Math.round((10 ** exponent - 1) / 0.00715 + 100));
}
