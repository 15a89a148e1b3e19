export {
  procedures,
  proceduresFor,
  procedureStepName,
  formatTorque,
  type Procedure,
  type ProcedureStep,
} from './procedures.js';
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
