export { atmosphereAt } from './atmosphere.js';
export {
  cartridgeLifeHours,
  condensateGPerM3,
  drainIntervalMin,
  vapourGPerM3,
  type IntakeAir,
} from './condensate.js';
export {
  cascade,
  freeAirIn,
  freeAirToFill,
  settledPressure,
  type CascadeResult,
  type GasVessel,
} from './cylinders.js';
export { expectedLadder, type Ladder, type LadderInput, type Rung } from './ladder.js';
export { holeFlow, leakCostCents, leakShareByTimes, type Hole, type LeakCost } from './leaks.js';
export { enhancementFactor, humidityRatio, saturatedWaterGPerM3, saturationBar } from './moist-air.js';
export { compressibility, massInVolume } from './real-gas.js';
export { leakDownFlow, pumpUpFlow, type MeasuredFlow, type ReceiverRun } from './receiver.js';
