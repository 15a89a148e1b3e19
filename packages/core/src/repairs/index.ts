export { procedures, proceduresFor, procedureStepName, stepsOn, formatTorque } from './procedures.js';
export type { Procedure, ProcedureStep } from './procedure.js';
export {
  adviseSetting,
  attemptText,
  readAttempt,
  settingBounds,
  settingCeiling,
  settingTurns,
  type SettingAdvice,
  type SettingAttempt,
  type SettingKind,
} from './setting.js';
export {
  entryKindsOf,
  entryModules,
  ourEntryKinds,
  type EntryKind,
  type EntryKinds,
  type EntryModule,
} from './entries.js';
export { checksThatProve, openedByEntry } from './opened.js';
export {
  admitEntry,
  admitRewording,
  repairBegan,
  repairKinds,
  repairStanding,
  type FaultSearch,
  type RepairEntry,
  type RepairKind,
  type RepairStanding,
  type RepairState,
} from './repair.js';
export {
  formatNewtonMetres,
  roundsOf,
  torqueFor,
  torquesOf,
  USUAL_ROUNDS,
  type KnownTorque,
} from './torques.js';
