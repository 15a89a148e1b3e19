import { bounds, outOfRange, err, ok, type Result } from '../basics/index.js';
import { isoGrades, midpointOf, viscosityAt, type IsoGrade } from './viscosity.js';
import { viscosityIndex } from './viscosity-index.js';

/** What an oil must do: be thin enough to start cold, thick enough to carry when warm. */
export interface OilDuty {
  readonly startTempC: number;
  /** Thickest oil that the machine starts with, mm²/s; the book's figure. */
  readonly mostAtStart: number;
  readonly runningTempC: number;
  /** Thinnest oil that still carries, mm²/s; the book's figure. */
  readonly leastRunning: number;
  /** Viscosity index of the oils to choose from; 95 is usual for plain mineral ones (common practice). */
  readonly index?: number;
}

/**
 * The grades that satisfy both the limit at the start and the minimum when running, thinnest first. The maker's
 * book decides among them.
 *
 * @returns the grades; none where the two limits leave no grade between them
 */
export function gradesFor(duty: OilDuty): Result<readonly IsoGrade[]> {
  const { startTempC, mostAtStart, runningTempC, leastRunning, index = 95 } = duty;
  const wrong = outOfRange([
    { ...bounds.tempC('startTempC', startTempC, 'The start'), min: -30, max: 60 },
    { ...bounds.tempC('runningTempC', runningTempC, 'The running oil'), min: 0, max: 150 },
    bounds.positive('mostAtStart', mostAtStart, 100_000, 'The thickest at the start, mm²/s,'),
    bounds.positive('leastRunning', leastRunning, 1000, 'The thinnest when running, mm²/s,'),
    { field: 'index', value: index, min: 0, max: 250, sentence: 'A viscosity index lies between 0 and 250.' },
  ]);
  if (wrong) return wrong;
  if (runningTempC <= startTempC) {
    return err('running-not-warm', 'The running oil is warmer than at the start.', 'runningTempC');
  }
  return ok(
    isoGrades.filter((grade) => {
      const at100 = viscosityAt100(grade, index);
      if (at100 === null) return false;
      const oil = { at40: midpointOf(grade), at100 };
      const [cold, warm] = [viscosityAt(oil, startTempC), viscosityAt(oil, runningTempC)];
      return cold.ok && warm.ok && cold.value <= mostAtStart && warm.value >= leastRunning;
    }),
  );
}

/** The viscosity at 100 °C of an oil of a grade and index; null for grades too thin for the index. */
function viscosityAt100(grade: IsoGrade, index: number): number | null {
  const at40 = midpointOf(grade);
  let [low, high] = [2, Math.min(70, at40 * 0.95)];
  if (high <= low) return null;
  for (let round = 0; round < 40; round++) {
    const middle = (low + high) / 2;
    const found = viscosityIndex({ at40, at100: middle });
    if (found.ok && found.value < index) low = middle;
    else high = middle;
  }
  const reached = viscosityIndex({ at40, at100: high });
  return reached.ok && Math.abs(reached.value - index) <= 2 ? high : null;
}
