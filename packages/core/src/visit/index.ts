export {
  isolationSteps,
  restartSteps,
  stepsNeededFor,
  type IsolationStep,
  type RestartStep,
} from './isolation-steps.js';
export {
  AWAY_MINUTES,
  isConfirming,
  isolationFor,
  sayInterruption,
  type Asking,
  type Interruption,
  type Isolation,
} from './guard.js';
export { beforeReadings, proofsOf, type Proof } from './proofs.js';
export {
  measurePhases,
  readRecordedBody,
  readStepBody,
  stepKinds,
  type FaultBody,
  type IsolateBody,
  type MeasureBody,
  type MeasurePhase,
  type StepBody,
  type StepKind,
  type VisitStep,
} from './visit-step.js';
export {
  countedTasks,
  NOT_CONFIRMED,
  progressOf,
  type Obstacle,
  type ProofStanding,
  type ProofState,
  type UnitProgress,
  type VisitTask,
  type VisitUnit,
} from './progress.js';
export { admitStep, AFTER_SIGNING, LIVE_MS, missingIsolation } from './admit.js';
export { prepare, worthPlanning, type Preparation, type StationWork } from './prepare.js';
export { sayOpen, summaryOf, type SummaryLine } from './summary.js';
export { sayStep } from './say-step.js';
