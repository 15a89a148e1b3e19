export { BenchValues, steps, type CurvePoint } from './bench.js';
export { cascadeJob, type TypedCylinder, type TypedJob, type TypedVessel } from './cylinders.js';
export { fillCurve, type FillRun } from './fill-curve.js';
export { ladderBench, ladderFields, ladderStages, stageFields, type LadderBench } from './ladder.js';
export {
  costByShare,
  costFields,
  holeCoefficients,
  holeFields,
  holeLeak,
  USUAL_COST,
  yearlyCostCents,
  type HoleLeak,
} from './leak-cost.js';
export { waterFields, waterNow, waterYearInput, yearFields, type WaterNow } from './water.js';
