import { holeFlow, leakCostCents } from '../air/index.js';
import { ok, type Result } from '../basics/index.js';
import { choice, gauge, number, quantity, type FieldDefinition } from '../checks/index.js';
import { steps, type BenchValues, type CurvePoint } from './bench.js';

/** What a leak costs is reckoned from these; each has its usual value (common practice). */
export const costFields: readonly FieldDefinition[] = [
  number('kW per m³/min', 'specificPower', 'Power for the air', 1, 30, {
    optional: true,
    hint: '6.5 where not known.',
  }),
  number('h', 'hoursPerYear', 'Under pressure in a year', 1, 8784, {
    optional: true,
    hint: '8,760 where not known.',
  }),
  number('ct/kWh', 'centsPerKwh', 'Price of energy', 0, 500, { optional: true, hint: '25 where not known.' }),
];

export const USUAL_COST = { specificPower: 6.5, hoursPerYear: 8760, centsPerKwh: 25 } as const;

export const holeFields: readonly FieldDefinition[] = [
  quantity('length', 'diameterMm', 'Width of the hole', 0.05, 50),
  gauge('pressureBar', 'Pressure before it', { plate: 'workingPressureBar' }),
  choice('edge', 'Its edge', { sharp: 'sharp', round: 'well rounded', ideal: 'as in the tables' }),
];

/** Discharge coefficients of a hole by its edge. */
export const holeCoefficients = { sharp: 0.61, round: 0.97, ideal: 1 } as const;

/**
 * Yearly cost of a leak, with the usual figures where none are given.
 *
 * @returns hundredths of the currency a year
 */
export function yearlyCostCents(flowLpm: number, values: BenchValues): Result<number> {
  return leakCostCents({
    flowLpm,
    specificPowerKwPerM3Min: values.number('specificPower') ?? USUAL_COST.specificPower,
    hoursPerYear: values.number('hoursPerYear') ?? USUAL_COST.hoursPerYear,
    priceCentsPerKwh: values.number('centsPerKwh') ?? USUAL_COST.centsPerKwh,
  });
}

/** A hole and what it costs. */
export interface HoleLeak {
  readonly flowLpm: number;
  readonly centsPerYear: number;
  /** Cost in whole currency over the width of the hole, mm. */
  readonly curve: readonly CurvePoint[];
}

const CURVE_POINTS = 40;

/** Free air through a hole, its yearly cost, and the cost of narrower and wider ones. */
export function holeLeak(values: BenchValues, atmosphereBarAbs: number): Result<HoleLeak> {
  const needed = values.need('diameterMm', 'pressureBar');
  if (!needed.ok) return needed;
  const { diameterMm, pressureBar } = needed.value;
  const edge = (values.text('edge') ?? 'sharp') as keyof typeof holeCoefficients;
  const flowOf = (width: number) =>
    holeFlow({
      diameterMm: width,
      pressureBarAbs: pressureBar + atmosphereBarAbs,
      tempC: 20,
      coefficient: holeCoefficients[edge],
      intakeBarAbs: atmosphereBarAbs,
    });
  const flow = flowOf(diameterMm);
  if (!flow.ok) return inGauge(flow);
  const cost = yearlyCostCents(flow.value, values);
  if (!cost.ok) return cost;
  const curve = steps(diameterMm / CURVE_POINTS, diameterMm * 2, CURVE_POINTS).flatMap(
    (width): CurvePoint[] => {
      const at = flowOf(width);
      const cents = at.ok ? yearlyCostCents(at.value, values) : at;
      return cents.ok ? [{ x: width, y: cents.value / 100 }] : [];
    },
  );
  return ok({ flowLpm: flow.value, centsPerYear: cost.value, curve });
}

function inGauge(outcome: Result<never>): Result<never> {
  if (outcome.ok || outcome.problem.field !== 'pressureBarAbs') return outcome;
  return { ok: false, problem: { ...outcome.problem, field: 'pressureBar' } };
}

/** Cost in whole currency over the share of delivery that leaks, in per cent. */
export function costByShare(fadLpm: number, values: BenchValues): CurvePoint[] {
  return steps(0, 60, CURVE_POINTS).flatMap((percent): CurvePoint[] => {
    const cents = yearlyCostCents((fadLpm * percent) / 100, values);
    return cents.ok ? [{ x: percent, y: cents.value / 100 }] : [];
  });
}
