export type {
  CheckBaseline,
  CheckDefinition,
  CheckFigure,
  CheckValues,
  FieldDefinition,
  JudgedFigure,
  JudgedLimit,
  Judgement,
  LimitOrigin,
  Suggestion,
  Verdict,
} from './check.js';
export { verdicts } from './check.js';
export { fieldProblem, judgeCheck, type JudgeContext } from './judge.js';
export { checkByCode, checkLibrary, checksFor, fieldsOf } from './library.js';
export { sayLadder, stageParts, suspectName } from './library/stages.js';
export { breathingAir, dewPointClasses, oilClasses } from './library/purity.js';
export { beforeAfter, type BeforeAfter, type PairedMeasurement, type PairedWork } from './pairs.js';
export { trendOf, type CheckTrend, type LimitHours, type TrendPoint } from './trend.js';
export { ambient, choice, gauge, number, quantity } from './fields.js';
