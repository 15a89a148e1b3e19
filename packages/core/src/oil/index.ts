export {
  isoGradeOf,
  isoGrades,
  oilLifeFactor,
  viscosityAt,
  type IsoGrade,
  type OilViscosity,
} from './viscosity.js';
