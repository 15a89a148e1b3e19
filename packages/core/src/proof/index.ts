export { levelOf, physicsOf, walk, type Physics, type Walked } from './courses.js';
export { coupledModel, honestMoves, receiverModel, startsOf } from './models.js';
export { admittedAt, isDangerousFor, moves, type Model, type Move, type Node } from './moves.js';
export { afterAWhile, faults, plantOf, withFault, type Fault, type Plant, type SpaceState } from './plant.js';
export { keyOf, search, type Found } from './search.js';
export { runCourses, type CoursesRun, type CoursesWanted } from './simulated.js';
export { drawSmallProblem, exactMinutes, plannedMinutes, type SmallProblem } from './exact-finding.js';
export {
  drawMachine,
  finderWay,
  findingsOf,
  informationWay,
  listWithOddsWay,
  meanMinutes,
  paperWay,
  play,
  repairsWay,
  searchList,
  type FaultyMachine,
  type Found as FoundCause,
  type Way,
} from './faulty-machines.js';
export {
  answeringMachines,
  differences,
  simulateAnswers,
  type AnsweringMachine,
  type Difference,
  type SimulatedAnswers,
} from './simulated-answers.js';
