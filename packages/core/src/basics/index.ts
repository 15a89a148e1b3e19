export { refuse, succeed, type Outcome, type Problem } from './outcome.js';
export {
  DAY_MS,
  EARLIEST_INSTANT,
  formatInstant,
  HOUR_MS,
  LATEST_INSTANT,
  parseInstant,
  type Instant,
} from './instant.js';
export {
  dayNumberOf,
  formatDay,
  instantOfLocal,
  isTimeZone,
  localDayAt,
  parseLocalDate,
  startOfLocalDay,
  stepDays,
  writeLocal,
  type CalendarStep,
  type DayNumber,
  type LocalDate,
} from './local-date.js';
export { monthName, sayDay, sayDayAt } from './say-day.js';
export { sayMoment } from './say-moment.js';
export { dateOrders, readWrittenMoment, type DateOrder } from './written-moment.js';
export { bounds, outOfRange, type Bounded } from './range.js';
