export type { Accident, Exercise, PracticeAct, Risk } from './exercise.js';
export { exerciseByCode, exercises, FREE, freeExercise } from './exercises/index.js';
export {
  ADVICE_MIN,
  PART_MIN,
  replay,
  RISK_MIN,
  Round,
  type DoneAt,
  type PracticeAsk,
  type RoundEnd,
} from './round.js';
export { isBetter, scoreOf, type FinderCourse, type Result, type Score } from './score.js';
export {
  viewOf,
  type ActOffered,
  type EndView,
  type RepairOffered,
  type RoundView,
  type TestOffered,
} from './view.js';
