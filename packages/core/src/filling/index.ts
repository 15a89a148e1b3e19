export {
  bar,
  connectorBars,
  cylinderGases,
  cylinderProblems,
  testedUntil,
  type CylinderGas,
  type FillCylinder,
} from './cylinder.js';
export {
  fillLooks,
  fillProblems,
  LEAST_FOUND_BAR,
  setProblems,
  type AnsweringTask,
  type FillIntent,
  type FillLook,
  type FillSet,
} from './admit.js';
export {
  endFill,
  fillDoubts,
  forecastFill,
  MOST_BAR_A_MINUTE,
  MOST_WALL_C,
  sumFills,
  waterTakenUp,
  type CountedFill,
  type FilledSum,
  type FillEnd,
  type FillForecast,
  type FillResult,
} from './fill.js';
