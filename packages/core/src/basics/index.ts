export { err, ok, type Result, type Problem } from './result.js';
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
  shiftDays,
  writeLocal,
  type CalendarInterval,
  type DayNumber,
  type LocalDate,
} from './local-date.js';
export {
  dayOrders,
  decimalSigns,
  figureAsRead,
  formatNumber,
  formatsCode,
  formatsInUse,
  formatsOf,
  readFormatsFrom,
  usualFormats,
  type DayOrder,
  type DecimalSign,
  type Formats,
} from './formats.js';
export { lower } from './lower.js';
export { readDay, readDayAndTime } from './read-day.js';
export { monthName, describeDay, describeDayAt, describeDayOfYear } from './describe-day.js';
export { formatMoment } from './format-moment.js';
export { dateOrders, readWrittenMoment, type DateOrder } from './written-moment.js';
export { bounds, outOfRange, type Bounded } from './range.js';
export { initialsOf } from './initials.js';
