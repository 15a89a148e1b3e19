export {
  bowlDrains,
  bowlMaterials,
  hasFilter,
  hasLubricator,
  hasRegulator,
  lineLubricators,
  lineOils,
  pointBounds,
  pointDoubts,
  pointProblem,
  type BowlDrain,
  type BowlMaterial,
  type Feeding,
  type LineLubricator,
  type LineOil,
  type PointDoubt,
  type PointPlate,
} from './point.js';
export { oilNames, pointChecks, pointTaskNames, pointTasks, usualDrops, type PointTask } from './tasks.js';
export {
  pointStanding,
  type PointLook,
  type PointStanding,
  type PointStop,
  type PointTaskStanding,
  type PointTaskState,
  type PointWork,
} from './standing.js';
export {
  openedMoments,
  pointEvents,
  pointGuarded,
  POINT_SESSION,
  pointWorkProblem,
  type PointMoment,
  type PointStep,
  type PointTelling,
} from './work.js';
