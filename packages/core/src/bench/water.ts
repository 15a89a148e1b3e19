import {
  cartridgeLifeHours,
  condensateGPerM3,
  drainIntervalMin,
  freeAirToFill,
  vapourGPerM3,
  type WaterYearInput,
} from '../air/index.js';
import { ok, type Result } from '../basics/index.js';
import { ambient, gauge, number, quantity, type FieldDefinition } from '../checks/index.js';
import { steps, type BenchValues, type CurvePoint } from './bench.js';

/** Of the machine and its weather. */
export const waterFields: readonly FieldDefinition[] = [
  ambient('intakeTempC', 'Intake air'),
  number('%', 'humidity', 'Humidity of it', 0, 100),
  quantity('flow', 'fadLpm', 'Free air delivered', 1, 200_000, { plate: 'fadLpm' }),
  gauge('finalBar', 'Pressure of the last separator', { plate: 'workingPressureBar' }),
  quantity('temperature', 'separatorTempC', 'Air in it', -20, 120, { hint: 'What the last cooler leaves.' }),
  number('ml', 'holdsMl', 'The separator holds', 1, 100_000, { optional: true }),
  quantity('mass', 'cartridgeG', 'The cartridge holds', 1, 100_000, {
    optional: true,
    hint: 'Water until it must be changed.',
  }),
  gauge('maintainingValveBar', 'Holding valve set for', {
    optional: true,
    hint: 'As the separator where not known.',
  }),
  quantity('volume', 'cylinderL', 'Cylinder filled with it', 0.5, 500, { optional: true }),
];

/** Of its year. */
export const yearFields: readonly FieldDefinition[] = [
  quantity('temperature', 'warmMonthC', 'Warmest month, mean', -40, 50),
  quantity('temperature', 'coldMonthC', 'Coldest month, mean', -40, 50),
  quantity('temperature-rise', 'daySwingK', 'A day swings by', 0, 40, {
    optional: true,
    hint: '8 K where not known.',
  }),
  number('h', 'hoursPerWeek', 'It runs in a week', 0.1, 168, { plate: 'declaredHoursPerWeek' }),
];

const USUAL_DAY_SWING_K = 8;

/** Water of a machine as it runs now. */
export interface WaterNow {
  readonly condensateGPerM3: number;
  readonly condensateMlPerHour: number;
  /** Water left in each cubic metre of free air, g. */
  readonly vapourGPerM3: number;
  /** Minutes between drains, half of what the separator holds used; null where not asked. */
  readonly drainMin: number | null;
  /** Life of a cartridge; null where not asked. */
  readonly cartridge: {
    readonly hours: number;
    readonly freeAirM3: number;
    readonly fills: number | null;
  } | null;
  /** Life in hours over the temperature of the separator; empty where not asked. */
  readonly lifeCurve: readonly CurvePoint[];
}

const CURVE_POINTS = 31;

/** What falls out, what stays, and how long a cartridge lasts at that. */
export function waterNow(values: BenchValues, atmosphereBarAbs: number): Result<WaterNow> {
  const needed = values.need('intakeTempC', 'humidity', 'fadLpm', 'finalBar', 'separatorTempC');
  if (!needed.ok) return needed;
  const { intakeTempC, humidity, fadLpm, finalBar, separatorTempC } = needed.value;
  const intake = {
    pressureBarAbs: atmosphereBarAbs,
    tempC: intakeTempC,
    relativeHumidity: humidity / 100,
  };
  const final = { pressureBarAbs: finalBar + atmosphereBarAbs, tempC: separatorTempC };
  const holding = (values.number('maintainingValveBar') ?? finalBar) + atmosphereBarAbs;
  const falls = condensateGPerM3(intake, final);
  if (!falls.ok) return falls;
  const stays = vapourGPerM3(intake, { pressureBarAbs: holding, tempC: separatorTempC });
  if (!stays.ok) return stays;
  const holds = values.number('holdsMl');
  const drain = holds === undefined ? null : drainIntervalMin(holds, falls.value, fadLpm);
  if (drain && !drain.ok) return drain;
  const capacity = values.number('cartridgeG');
  const life = capacity === undefined ? null : cartridgeLifeHours(capacity, stays.value, fadLpm);
  if (life && !life.ok) return life;
  const m3PerHour = (fadLpm * 60) / 1000;
  return ok({
    condensateGPerM3: falls.value,
    condensateMlPerHour: falls.value * m3PerHour,
    vapourGPerM3: stays.value,
    drainMin: drain && Number.isFinite(drain.value) ? drain.value : null,
    cartridge:
      life && Number.isFinite(life.value)
        ? {
            hours: life.value,
            freeAirM3: life.value * m3PerHour,
            fills: fillsOf(life.value * m3PerHour, values, finalBar),
          }
        : null,
    lifeCurve:
      capacity === undefined
        ? []
        : steps(0, 60, CURVE_POINTS).flatMap((tempC): CurvePoint[] => {
            const vapour = vapourGPerM3(intake, { pressureBarAbs: holding, tempC });
            const hours = vapour.ok ? cartridgeLifeHours(capacity, vapour.value, fadLpm) : vapour;
            return hours.ok && Number.isFinite(hours.value) ? [{ x: tempC, y: hours.value }] : [];
          }),
  });
}

/** Cylinders filled from a tenth of the final pressure with so much free air; null where none is given. */
function fillsOf(freeAirM3: number, values: BenchValues, finalBar: number): number | null {
  const cylinderL = values.number('cylinderL');
  if (cylinderL === undefined) return null;
  const each = freeAirToFill({ volumeL: cylinderL, pressureBarAbs: finalBar / 10 + 1 }, finalBar + 1, 20);
  return each.ok && each.value > 0 ? (freeAirM3 * 1000) / each.value : null;
}

/** The year of a machine, from both sets of fields. */
export function waterYearInput(values: BenchValues, atmosphereBarAbs: number): Result<WaterYearInput> {
  const needed = values.need(
    'intakeTempC',
    'humidity',
    'fadLpm',
    'finalBar',
    'separatorTempC',
    'warmMonthC',
    'coldMonthC',
    'hoursPerWeek',
  );
  if (!needed.ok) return needed;
  const { humidity, fadLpm, finalBar, separatorTempC, intakeTempC, warmMonthC, coldMonthC, hoursPerWeek } =
    needed.value;
  const capacity = values.number('cartridgeG');
  return ok({
    climate: {
      warmMonthC,
      coldMonthC,
      daySwingK: values.number('daySwingK') ?? USUAL_DAY_SWING_K,
      humidity: Math.max(0.05, humidity / 100),
    },
    intakeBarAbs: atmosphereBarAbs,
    fadLpm,
    hoursPerWeek,
    finalBarAbs: (values.number('maintainingValveBar') ?? finalBar) + atmosphereBarAbs,
    separatorAboveK: separatorTempC - intakeTempC,
    ...(capacity === undefined ? {} : { cartridgeG: capacity }),
  });
}
