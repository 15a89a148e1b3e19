export { defaultPlan } from './defaults/default-plan.js';
export {
  allReadings,
  historyUpTo,
  type DatedPrior,
  type ServiceRecord,
  type UnitHistory,
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
  taskStates,
  type Standing,
  type TaskStanding,
  type TaskState,
} from './standing.js';
export {
  isolationStates,
  planVersionAt,
  type CalendarTrigger,
  type HoursTrigger,
  type IsolationState,
  type PlanVersion,
  type ServicePlan,
  type ServiceTask,
  type TaskAction,
  type Trigger,
} from './service-plan.js';
export { readingNeed, type ReadingNeed } from './reading-need.js';
