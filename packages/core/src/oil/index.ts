export {
  isoGradeOf,
  isoGrades,
  oilLifeFactor,
  viscosityAt,
  type IsoGrade,
  type OilViscosity,
} from './viscosity.js';
export { viscosityIndex } from './viscosity-index.js';
export { gradesFor, type OilDuty } from './choose-grade.js';
