export {
  causeCodes,
  causeData,
  causeOn,
  machineStates,
  type Cause,
  type CauseCode,
  type MachineState,
} from './cause.js';
export { RELIEF, type Rates, type Symptom } from './symptom.js';
export { allSymptoms, symptomByCode, symptomsOf } from './symptoms/index.js';
export {
  answerChances,
  answerIndex,
  answersOf,
  answerText,
  CANNOT_TELL,
  faultTestByCode,
  faultTests,
  USUAL,
  type Danger,
  type FaultTest,
  type GivenAnswer,
  type TestAnswer,
} from './fault-test.js';
export { Belief, chanceOfBoth, USUAL_BELIEF, type AnswerTable, type BeliefOptions } from './belief.js';
export {
  Planner,
  type Depth,
  type PlanChoice,
  type PlannedRepair,
  type PlannedTest,
  type PlanPoint,
  type PlanProblem,
} from './planner.js';
export {
  PRIOR_CASES,
  startingOdds,
  type Counts,
  type KnownOfMachine,
  type RateReason,
  type StartingOdds,
} from './rates.js';
export {
  beginFinding,
  beliefAfter,
  isAllowed,
  isFaultAnswer,
  SLIGHT,
  standFinding,
  summingToOne,
  switchingOf,
  type Finding,
  type FindingOptions,
  type AnswerLead,
  type FindingView,
  type Proposal,
} from './finding.js';
export { describeSearch, explainAnswer, formatChance, shortName } from './explain.js';
export { RECORD_COUNTS_MS, recordedAnswers, type RecordedAnswer, type RecordedVerdict } from './recorded.js';
export { isDaring } from './daring.js';
export { finderWay, KeptOdds, play, watchingWay, type FaultyMachine, type Found, type Way } from './ways.js';
export { simulatedCauses, simulatedFamilies, type SimulatedFamily } from './simulated-causes.js';
export { engineListsOf, faultLists, pointLists, type FaultList, type ListedCause } from './lists.js';
