export { procedures, proceduresFor, sayTorque, type Procedure, type ProcedureStep } from './procedures.js';
export {
  admitEntry,
  entryKinds,
  repairKinds,
  repairStanding,
  type EntryKind,
  type RepairEntry,
  type RepairKind,
  type RepairStanding,
  type RepairState,
} from './repair.js';
