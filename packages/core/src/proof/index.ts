export { levelOf, physicsOf, walk, type Physics, type Walked } from './courses.js';
export { coupledModel, honestMoves, receiverModel, startsOf } from './models.js';
export { admittedAt, isDangerousFor, moves, type Model, type Move, type Node } from './moves.js';
export { afterAWhile, faults, plantOf, withFault, type Fault, type Plant, type SpaceState } from './plant.js';
export { keyOf, search, type Found } from './search.js';
export { runCourses, type CoursesRun, type CoursesWanted } from './simulated.js';
export { drawSmallProblem, exactMinutes, plannedMinutes, type SmallProblem } from './exact-finding.js';
export {
  drawMachine,
  findingsOf,
  informationWay,
  listWithOddsWay,
  meanMinutes,
  paperWay,
  repairsWay,
  searchList,
} from './faulty-machines.js';
export { differences, simulateAnswers, type Difference, type SimulatedAnswers } from './simulated-answers.js';
