export {
  airUses,
  coolerPlaces,
  coolings,
  coolingWaterSources,
  cylinderOilSources,
  describeMachine,
  drainRests,
  drainWays,
  drives,
  dustLevels,
  families,
  highPressureValveWays,
  historyKinds,
  humidities,
  hasEngine,
  hasLubricator,
  isBreathed,
  isOilLubricated,
  isRetiredOn,
  levelMarks,
  lowPressureValveWays,
  lubrications,
  meterOrigins,
  motors,
  networkTurns,
  reachedBar,
  separatorKinds,
  speedControls,
  stopKinds,
  stageBounds,
  stagesOf,
  type DataPlate,
  type Family,
} from './data-plate.js';
export {
  MODEL_NOTE_LENGTH,
  modelKeyOf,
  modelNoteKinds,
  modelNoteNames,
  type ModelNoteKind,
} from './model-notes.js';
export {
  fitsKind,
  LARGEST_PAPER_MB,
  PAPER_TITLE_LENGTH,
  paperKindNames,
  paperKinds,
  paperTypeOf,
  paperTypes,
  type PaperKind,
  type PaperType,
} from './papers.js';
export { drainsOf, USUAL_DRAIN_MIN, type Drain } from './drains.js';
export { plateDoubts, plateProblems } from './plate-doubts.js';
export { plateAt, type PlateChange } from './plate-history.js';
export { spacesOf, type Passage, type Space } from './spaces.js';
export { stationCodes, stationName, stationsOf, type AirPathStations, type Station } from './stations.js';
