export { fieldErrors, malformedProblem, readStrictly, strictly, type FieldError } from './refusals.js';
export { formerChecks, formerPaths, inNamesOfToday } from './former-names.js';
export { DEFAULT_PERSON_ID } from './default-person.js';
export { AddPerson, PersonView } from './person.js';
export { AddSite, ChangeSite, SiteView } from './site.js';
export { ChangePlate, PlateDetails, RegisterCompressor } from './compressor.js';
export {
  BatchReading,
  MOST_BATCH_READINGS,
  RecordMeterChange,
  RecordReading,
  RecordReadings,
  RecordService,
  WithdrawFact,
} from './facts.js';
export {
  CompressorsQuery,
  ExportQuery,
  ForecastQuery,
  HoursQuery,
  ImportQuery,
  LONGEST_PAGE,
  MomentQuery,
  PageQuery,
  StandingQuery,
  StandingsQuery,
} from './queries.js';
export {
  CheckLibraryQuery,
  FindingsQuery,
  JudgeValues,
  MeasurementsQuery,
  RecordMeasurement,
} from './measurements.js';
export {
  PlanContent,
  PlanLibraryQuery,
  DeferTask,
  SavePlan,
  SetStartingPoints,
  type TaskStart,
} from './plans.js';
export { PaperQuery, type PaperView } from './papers.js';
export {
  ChangePoint,
  PointDetails,
  PointsQuery,
  RecordPointWork,
  RegisterPoint,
  WithdrawPointWork,
  type PointBriefView,
  type PointFeedView,
  type PointTaskView,
  type PointView,
  type PointWorkView,
  type TurnsView,
} from './points.js';
export { ChangeVessel, RecordExamination, RegisterVessel, VesselDetails, VesselsQuery } from './vessel.js';
export {
  AddPart,
  ChangePart,
  CompareParts,
  CompressorPhotoQuery,
  LogbookExportQuery,
  LogbookQuery,
  MovePart,
  OpenRepair,
  PhotoQuery,
  PlanVisit,
  RecordRepairStep,
  RecordVisitStep,
  RepairsQuery,
  VisitsQuery,
  type PlannedCompressor,
} from './visits.js';
export type * from './visit-views.js';
export { textLimits } from './rules.js';
export type * from './views.js';
export { isolationContracts, stepContracts, type Contracts } from './steps.js';
export { IsFigure, IsId, IsInstant, IsLocalDate, IsText, Optional } from './rules.js';
export { FillLogQuery, RecordFill } from './fills.js';
export { RecordModelNote, type ModelNoteView } from './model-notes.js';
export {
  MOST_DEVICES_OF_UNIT,
  pollLimits,
  SaveDevice,
  type DeviceRefusalView,
  type DevicesView,
  type DeviceState,
  type DeviceView,
} from './devices.js';
export {
  FollowUpsQuery,
  RecordBroughtBack,
  RecordFollowUp,
  type BringBackView,
  type FollowUpLookView,
  type FollowUpView,
} from './follow-ups.js';
export { ReturnToService, TakeOutOfService } from './stops.js';
export {
  LARGEST_LOGO_MB,
  MOST_HOLIDAYS,
  moneyLimits,
  pauseLimits,
  SaveSettings,
  type UnitChoice,
  type WorkshopSettings,
} from './settings.js';
export { entryContracts, RepairEntryBody, type AddRepairEntry } from './entries.js';
export type { FaultCountsView } from './faults.js';
export {
  AcceptInvitation,
  AddCustomer,
  AssignSite,
  ChangeAccount,
  ChangePassword,
  FirstLead,
  Invite,
  LookAtInvitation,
  PasskeyAnswer,
  SignIn,
} from './access.js';
export type {
  AccountView,
  AuditEntryView,
  CustomerView,
  InvitationView,
  MeView,
  NewInvitationView,
  OwnPaperView,
  OwnSiteView,
  OwnUnitView,
  PasskeyView,
  SessionView,
} from './access.js';
