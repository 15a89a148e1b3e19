export { isDoneRunning, opensAir, opensOf, opensTogether } from './needs.js';
export { LOOKED_AT, resultsOf } from './tests.js';
export { beforeReadings, verificationsOf, worthMeasuring, type Verification } from './verifications.js';
export { listed, namesOn, spelled } from './names.js';
export { measurePhases, type FaultBody, type MeasureBody, type MeasurePhase } from './steps/finding.js';
export { MOST_PARTS, taskOutcomes } from './steps/working.js';
export { stepKind, stepLimits, type StepModule, type StepNames } from './steps/step-kind.js';
export {
  moduleOf,
  readRecordedBody,
  stepKindsOf,
  stepModules,
  stepText,
  type StepBody,
  type StepKind,
  type StepKinds,
  type VisitStep,
} from './visit-step.js';
export {
  countedTasks,
  guardedOf,
  NOT_CONFIRMED,
  progressOf,
  type GaugeOffRest,
  type Obstacle,
  type VerificationStanding,
  type VerificationState,
  type CompressorProgress,
  type VisitTask,
  type VisitCompressor,
} from './progress.js';
export { admitStep, AFTER_SIGNING, isolationAt, LIVE_MS, missingIsolation } from './admit.js';
export { prepare, wantsLook, worthPlanning, type Preparation, type StationWork } from './prepare.js';
export { describeOpen, summaryOf, type SummaryLine } from './summary.js';
export { lookFindings, lookNames, lookShares, type LookBody, type LookFinding } from './steps/working.js';
