export {
  byMoment,
  isolationAnswers,
  MOST_GAUGE_BAR,
  MOST_NOTED_C,
  needles,
  STILL,
  type IsolateBody,
  type IsolationEvent,
  type Needle,
  type RestartBody,
} from './body.js';
export { addEvent, isolationOf } from './fold.js';
export {
  holdsAt,
  isLockedBy,
  lastSilence,
  NOTHING_ISOLATED,
  placeKey,
  ZERO_BAR,
  type IsolationFold,
  type Sign,
  type VentState,
} from './fold-state.js';
export {
  againstTelling,
  leastSecondsOf,
  reasonAgainst,
  restartProblem,
  STOOD_MINUTES,
  type Against,
} from './against.js';
export { missingFor, describeMissing, type Asking, type Missing } from './missing.js';
export { guardRules, PAUSE_MINUTES, pauseMinutesOf, type Guarded, type GuardRule } from './rules.js';
export { isolationList, isOfPointOfUse, pointOf, pointsNeeded } from './lists/index.js';
export { honestCourse, type CourseStep } from './honest-course.js';
export { openingsOf, type KnownOpening } from './openings.js';
export { tilesOf, type IsolationList, type IsolationPoint, type Opening, type Tile } from './point.js';
export { pointRestartSteps, restartSteps, type RestartStep } from './restart.js';
export { leastVentSeconds } from './vent-time.js';
