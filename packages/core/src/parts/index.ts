export {
  judgeSubstitute,
  needsReason,
  partClasses,
  type ComparedFigure,
  type ComparedPart,
  type PartClass,
  type PartFigures,
  type SubstitutedOn,
  type Substitution,
} from './substitute.js';
export { shortagesOf, type Job, type Shortage } from './shortage.js';
export { kitAgainstVan, type KitLine, type StockedPart } from './kit.js';
