export type {
  CheckBaseline,
  CheckDefinition,
  CheckFigure,
  CheckValues,
  FieldDefinition,
  JudgedFigure,
  JudgedLimit,
  JudgedOutcome,
  Judgement,
  LimitOrigin,
  Suggestion,
  Verdict,
} from './check.js';
export { chartedFigure, verdicts } from './check.js';
export { outcomeOf, describeVerdict, verdictInShort } from './verdict-helpers.js';
export { dischargeGasC } from './library/heat.js';
export { dischargeLimitsOf, dischargeTable } from './library/discharge-limits.js';
export { fieldProblem, judgeCheck, missingSentence, type JudgeContext } from './judge-check.js';
export { cautionOf, checkByCode, checkLibrary, checksFor, fieldsOf, howOf } from './library.js';
export { USUAL_HOLDING_BAR } from './library/valve-points.js';
export { levelReadOn } from './library/oil.js';
export { nextText, describeStages, stageVerdict, suspectName, valveParts } from './library/stages.js';
export { breathingAir, dewPointClasses, oilClasses } from './library/purity.js';
export { beforeAfter, type BeforeAfter, type PairedMeasurement, type PairedWork } from './pairs.js';
export { hoursOnItsSide, trendOf, type CheckTrend, type LimitHours, type TrendPoint } from './trend.js';
export { ambient, choice, gauge, number, quantity } from './fields.js';
export { limitLines, type LimitLine } from './limit-lines.js';
export { checksWithLists, readLaboratoryList, type LaboratoryList } from './laboratory-list.js';
