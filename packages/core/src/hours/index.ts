export { guessMeterChange, turnsOverAt } from './guess-meter-change.js';
export {
  counterKinds,
  meterChangeReasons,
  MOST_METER_HOURS,
  readingSources,
  type CounterKind,
  type HourLog,
  type HourReading,
  type MeterChange,
  type MeterChangeReason,
  type ReadingSource,
} from './hour-log.js';
export {
  CLOCK_TOLERANCE_H,
  futureProblem,
  logProblem,
  FUTURE_TOLERANCE_MS,
  meterChangeProblem,
  readingProblem,
  type JudgingContext,
} from './judge-reading.js';
export {
  continuousPoints,
  hoursAt,
  runHoursOf,
  whenReached,
  type HourPoint,
  type HoursBasis,
  type RunHours,
} from './run-hours.js';
export {
  filterLevel,
  logLikelihood,
  type FilteredLevel,
  type Gains,
  type LevelStart,
} from './local-level.js';
export {
  chanceReached,
  dayReached,
  hoursReached,
  layOut,
  MOST_DAYS,
  type CrossingSurface,
} from './crossing.js';
export { type Outlook } from './expert.js';
export { normalBelow } from './normal.js';
export { type UseChange } from './weigh-views.js';
export { describeTimesUsed, describeUseChange } from './describe-use-change.js';
export {
  learnPrior,
  practicePrior,
  WANDER_WINDOWS,
  type FleetPrior,
  type LearntFrom,
} from './fleet-prior.js';
export { fitUse, modelHoursAt, type UseFacts, type UseGrounds, type UseModel } from './use-model.js';
export {
  forecastHours,
  hoursAhead,
  readingWorth,
  whenLikely,
  methodOf,
  presentRate,
  type Forecast,
  type ForecastMethod,
  type ForecastReason,
  type HoursAhead,
  type ReadingWorth,
} from './forecast.js';
export { plainTime, type Season, type OperatingTime } from './season.js';
export {
  declaredHours,
  declaredTime,
  isClosedOn,
  parseClosure,
  type Closure,
  type DeclaredDuty,
} from './declared-duty.js';
export { hoursFromAir, hoursFromCycles, describeEstimate } from './estimate.js';
export { LONG_GAP_DAYS, readingMarks, type ReadingMark } from './reading-marks.js';
export { hourSeries, loadedShare, type SeriesPoint } from './hour-series.js';
export { guessImport, readImportRow, type ImportedRow, type ImportMapping } from './reading-import.js';
export {
  FIRST_METER,
  fromMeter,
  hoursSeen,
  isMeterChanged,
  meterScaleAt,
  onMeter,
  formatHoursSeen,
  type MeterScale,
  type StatedHours,
} from './meter-scale.js';
export { isSameNetwork, networkTurns, type NetworkSet, type NetworkTurns } from './turns.js';
