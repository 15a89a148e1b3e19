export {
  defaultPlan,
  tasksOfPractice,
  usualOpening,
  usualTest,
  usualVerification,
  withPractice,
} from './defaults/default-plan.js';
export type { PracticeChoice, PracticeOption } from './practice-choice.js';
export { practicesFor, type PracticeOfCompressor } from './practices.js';
export {
  allReadings,
  historyUpTo,
  startingBases,
  type DatedPrior,
  type MeasuredFact,
  type PlaceConditions,
  type Deferral,
  type ServiceRecord,
  type StartingBasis,
  type StartingPointFact,
  type CompressorHistory,
} from './history.js';
export {
  clockForecast,
  clockHours,
  clockRate,
  hourClockOf,
  isEstimate,
  type HourClock,
  type RunHoursBasis,
} from './clock.js';
export {
  compareUrgency,
  standing,
  standingOf,
  type RoutineTask,
  type Standing,
  judgePlan,
  type JudgedPlan,
} from './standing.js';
export type { DeferralStanding, TaskStanding } from './task-standing.js';

export { type StartBasis } from './due-point.js';
export {
  explain,
  explainAll,
  type ExplainedMeasurement,
  type ExplainedTrigger,
  type Explanation,
} from './explain.js';
export { comingPoints, type ComingPoint } from './coming.js';
export { oilLifeShare, USUAL_RATED_C, type AppliedFactor } from './severity.js';
export {
  intervalOrigins,
  onPracticeOnly,
  isolationStates,
  isRoutine,
  planVersionAt,
  severityKinds,
  taskActions,
  planParts,
  taskLimits,
  type IntervalChoice,
  type IntervalOrigin,
  type IsolationState,
  type KitItem,
  type OtherInterval,
  type PlanVersion,
  type ServicePackage,
  type ServicePlan,
  type ServiceTask,
  type SeverityKind,
  type SeverityOverride,
  type SeverityRule,
  type TaskAction,
  type Trigger,
} from './service-plan.js';
export {
  vesselExaminations,
  vesselKinds,
  type VesselExamination,
  type VesselHistory,
  type VesselKind,
  type VesselRecord,
  type VesselRef,
} from './vessel-history.js';
export { readingNeed, type ReadingNeed } from './reading-need.js';
export { useWarning, type UseWarning } from './use-warning.js';
export { originNames, describeExplanation, type ExplanationLine } from './describe-explanation.js';
export { formatInterval, describeTriggers } from './describe-trigger.js';
export { kitOf } from './kit.js';
export { kitItemText, knownFigures, knownForCheck } from './known-figures.js';
export { packagesOf, packagesToOffer, packagesWithin } from './packages.js';
export { fitPlan, planProblems } from './plan-problems.js';
export { planDifference, type TaskDifference } from './plan-difference.js';
export { planFileOf, planFileSchema, planSchema, planSchemas, type PlanFile } from './plan-file.js';
export { taskStates, type NoPoint, type TaskState } from './judged.js';
export {
  runMoments,
  triggerKinds,
  type CalendarTrigger,
  type ConditionTrigger,
  type HoursTrigger,
  type MilestoneTrigger,
  type NotBeforeTrigger,
  type RunMoment,
  type RunTrigger,
  type SeasonTrigger,
  type WaterTrigger,
  describeTrigger,
} from './triggers/index.js';
export { formatHours, formatLimit, formatMeasured, type FormatQuantity } from './format-figures.js';
export {
  limitChecks,
  triggerKind,
  triggerKindsOf,
  triggerLimits,
  triggerModuleOf,
  triggerModules,
  type TriggerField,
  type TriggerKinds,
  type TriggerModule,
} from './triggers/index.js';
export { foundShares, pointByShare, type FoundPoint, type FoundShare } from './found-share.js';
export { stickerProblem, type StickerLine } from './sticker.js';
export { meterQuestion } from './meter-question.js';
