export { airPressureAt, atmosphereAt } from './atmosphere.js';
export {
  CascadeBench,
  cascadeProblem,
  searchCascade,
  type BestCascade,
  type CascadeCylinder,
  type CascadeJob,
  type CascadeOrder,
  type CascadeResult,
  type Transfer,
  type SearchProgress,
} from './cascade.js';
export {
  cartridgeLifeHours,
  condensateGPerM3,
  drainIntervalMin,
  vapourGPerM3,
  type IntakeAir,
} from './condensate.js';
export { ATMOSPHERE_BAR, GAMMA, R_AIR, R_WATER, ZERO_C } from './constants.js';
export {
  cylinderRefusal,
  fillPressureFor,
  freeAirIn,
  freeAirToFill,
  hotFillTemp,
  settledPressure,
  type CylinderStamp,
  type GasVessel,
  type HotFill,
} from './cylinders.js';
export { isothermAt, type Isotherm } from './isotherm.js';
export {
  interstagePressures,
  USUAL_EXPONENT,
  type InterstagePressures,
  type InterstageInput,
  type StageState,
} from './interstage.js';
export {
  holeFlow,
  leakCostCents,
  leakShareByTimes,
  sourcebookLeak,
  type Hole,
  type LeakCost,
  type PressureFall,
} from './leaks.js';
export {
  enhancementFactor,
  humidityRatio,
  idealHumidityRatio,
  pressureDewPoint,
  saturatedWaterGPerM3,
  saturationBar,
} from './moist-air.js';
export {
  diagnoseStages,
  type StageDiagnosis,
  type MeasuredStages,
  type StageFinding,
} from './diagnose-stages.js';
export { type StageLook, type StageLooks } from './stage-looks.js';
export {
  predictStages,
  type StagesDesign,
  type StageFault,
  type StageFaultKind,
  type StageSuspect,
} from './faulty-stages.js';
export { compressibility, massInVolume } from './real-gas.js';
export { leakDownFlow, pumpUpFlow, type MeasuredFlow, type ReceiverRun } from './receiver.js';
export {
  seasonCartridgeHours,
  waterYear,
  type WaterMonth,
  type WaterYear,
  type WaterYearInput,
} from './water-year.js';
export { climateProblem, weatherYear, type Climate, type WeatherHour } from './weather-year.js';
export { BREATHED_CO_PPM } from './breathing.js';
