import type { CheckDefinition, CheckValues, FieldDefinition, Judgement } from '@entretien/core/checks';
import type { CylinderGas, FilledSum, FillCylinder, FillSet } from '@entretien/core/filling';
import type {
  ComingPoint,
  ExplainedMeasurement,
  ExplainedTrigger,
  Explanation,
  PlanFile,
  ReadingNeed,
  UseWarning,
  RoutineTask,
  RunHoursBasis,
  ExplanationLine,
  PracticeOfCompressor,
  ServicePlan,
  TaskDifference,
  TaskStanding,
  TaskState,
  VesselExamination,
  VesselKind,
  StartingBasis,
} from '@entretien/core/plan';
import type {
  Forecast,
  ForecastMethod,
  HourReading,
  ImportMapping,
  MeterChange,
  MeterScale,
  UseGrounds,
} from '@entretien/core/hours';
import type { DataPlate, Family } from '@entretien/core/machine';

/** How the server is, and what about it should be looked at. */
export interface HealthView {
  readonly status: 'ok';
  readonly database: 'answers';
  readonly migrations: 'current';
  /** The release that runs. */
  readonly version: string;
  /** Room left on the disk of the data, bytes. */
  readonly freeBytes: number;
  readonly backups: BackupsView;
  readonly doubts: readonly { readonly code: string; readonly sentence: string }[];
}

/** Somebody whose name was taken off the record. */
export interface RemovedNameView {
  readonly id: string;
  /** What stands in its place. */
  readonly name: string;
  /** In how many notes and fields it stood beside. */
  readonly places: number;
}

/** How the server is reached from elsewhere. */
export interface ReachView {
  /** The address that others open; null where none was said. */
  readonly address: string | null;
  /** Whether that leads here from another device too. */
  readonly isBeyondThisMachine: boolean;
  /** The workshop’s own authority, where the certificate in use is one of its. */
  readonly authority: {
    /** SHA-256, in pairs parted by colons. */
    readonly fingerprint: string;
    /** Its last day. */
    readonly until: string;
  } | null;
}

/** The schedule of backups. */
export interface BackupsView {
  readonly isOn: boolean;
  /** When the last was made that was found whole; null before the first. */
  readonly lastAt: string | null;
  /** Why the last try failed; null where it did not. */
  readonly problem: string | null;
}

/** A page of a list; `nextCursor` is null on the last. */
export interface Page<Item> {
  readonly items: readonly Item[];
  readonly nextCursor: string | null;
}

/** What every recorded fact carries. */
export interface FactView {
  readonly id: string;
  readonly by: string;
  readonly recordedAt: string;
  /** Codes of what is unusual about it. */
  readonly marks: readonly string[];
  readonly note?: string;
  /** Id of the fact that this one puts right. */
  readonly corrects?: string;
  /** How it became known to be wrong; left out while it stands. */
  readonly voided?: VoidedView;
}

export interface VoidedView {
  readonly at: string;
  readonly how: 'withdrawn' | 'corrected';
  /** Id of the withdrawal, or of the fact in its place. */
  readonly byFact: string;
  readonly reason?: string;
}

export interface WithdrawalView extends FactView {
  readonly compressorId: string;
  readonly factId: string;
  readonly reason: string;
}

export interface ReadingView extends FactView {
  readonly compressorId: string;
  readonly takenAt: string;
  readonly hours: number;
  readonly counts: HourReading['counts'];
  readonly source: HourReading['source'];
}

export interface MeterChangeView extends FactView {
  readonly compressorId: string;
  readonly changedAt: string;
  readonly oldFinalHours: number;
  readonly newStartHours: number;
  readonly reason: MeterChange['reason'];
}

export interface ServiceView extends FactView {
  readonly compressorId: string;
  readonly doneAt: string;
  readonly hours?: number;
  readonly tasks: readonly string[];
  /** Version of the plan in force when the work was done. */
  readonly planVersion: number;
  /** Continuous run hours then, where they can be told. */
  readonly runHours: number | null;
  /** How they are known. */
  readonly runHoursBasis: RunHoursBasis | null;
}

/** Something that was measured, with the judgement made of it then. */
export interface MeasurementView extends FactView {
  readonly compressorId: string;
  readonly check: string;
  readonly takenAt: string;
  readonly values: CheckValues;
  readonly hours?: number;
  readonly baseline: boolean;
  readonly judgement: Judgement;
  /** Continuous run hours then, where they can be told. */
  readonly runHours: number | null;
  readonly runHoursBasis: RunHoursBasis | null;
}

/** One check of the library, as data. */
export interface CheckView extends Omit<
  CheckDefinition,
  'station' | 'applies' | 'judge' | 'fields' | 'resetBy' | 'how' | 'caution'
> {
  readonly how: string;
  readonly caution?: string;
  readonly fields: readonly FieldDefinition[];
  readonly resetBy: readonly string[];
  /** Where it is done on the unit that was asked about; null without one. */
  readonly station: string | null;
}

export interface CheckLibraryView {
  readonly checks: readonly CheckView[];
}

/** A measurement lately judged watch, act or stop, and nothing better since. */
export interface FindingView {
  readonly measurement: MeasurementView;
  readonly checkName: string;
  readonly tag: string;
  readonly siteId: string;
  readonly siteName: string;
}

export interface FindingsView {
  readonly items: readonly FindingView[];
  /** How many there are in all; the gravest and latest come first. */
  readonly total: number;
}

export interface PlateChangeView extends FactView {
  readonly compressorId: string;
  readonly changedAt: string;
  readonly changes: { readonly [Field in keyof DataPlate]?: DataPlate[Field] | null };
}

/** A compressor with its data plate of today, flat. */
export interface CompressorView extends DataPlate {
  readonly id: string;
  readonly revision: number;
  readonly registeredAt: string;
  readonly by: string;
  /** Codes and sentences of what is odd about the plate. */
  readonly marks: readonly string[];
  readonly doubts: readonly { readonly code: string; readonly field?: string; readonly sentence: string }[];
}

export interface TaskStandingView extends Omit<
  TaskStanding,
  'lastDoneAt' | 'earlyAt' | 'likelyAt' | 'lateAt'
> {
  readonly lastDoneAt: string | null;
  /** Why it is due when it is; only where that was asked for. */
  readonly explanation?: ExplanationView;
}

/** A trigger of an explanation, its moments written out. */
export interface ExplainedTriggerView extends Omit<
  ExplainedTrigger,
  'earlyAt' | 'likelyAt' | 'lateAt' | 'measured'
> {
  readonly earlyAt: string | null;
  readonly likelyAt: string | null;
  readonly lateAt: string | null;
  readonly measured: (Omit<ExplainedMeasurement, 'latestAt'> & { readonly latestAt: string }) | null;
}

export interface ExplanationView extends Omit<Explanation, 'due' | 'triggers'> {
  readonly triggers: readonly ExplainedTriggerView[];
  /** The same in plain sentences, in the units that figures are stored in. */
  readonly lines: readonly ExplanationLine[];
}

export interface StandingView {
  readonly compressorId: string;
  readonly at: string;
  readonly revision: number;
  readonly runHours: number | null;
  /** read, interpolated, extrapolated, declared or assumed. */
  readonly runHoursBasis: RunHoursBasis | null;
  /** How the figure on the meter that is fitted follows from run hours, which go on over every meter. */
  readonly meter: MeterScale;
  /** Hours of which nobody said yet whether the machine has run them since new; null where there is nothing to ask. */
  readonly meterQuestion: number | null;
  readonly hoursPerDay: number | null;
  readonly lastReadingAt: string | null;
  /** Whether reading the hours would make its dates surer, and by how much; null where it would not. */
  readonly readingNeed: ReadingNeed | null;
  /** A lasting change of use of late, with what it pulls nearer; null where there was none. */
  readonly useWarning: UseWarning | null;
  readonly retired: boolean;
  readonly tasks: readonly TaskStandingView[];
  /** What belongs to every run. */
  readonly routine: readonly RoutineTask[];
  /** Why nothing of it can be judged, in a sentence; left out where it can. */
  readonly unjudged?: string;
}

/** A unit in the fleet's standing: its most pressing tasks, and its last services for the ruler. */
export interface FleetCompressorView extends StandingView {
  readonly siteId: string;
  readonly siteName: string;
  readonly tag: string;
  readonly family: Family;
  /** The machine in words. */
  readonly description: string;
  /** How many tasks are in each state. */
  readonly counts: Readonly<Record<TaskState, number>>;
  readonly recentServices: readonly { readonly doneAt: string; readonly runHours: number | null }[];
}

export interface FleetStandingView extends Page<FleetCompressorView> {
  readonly at: string;
  /** How many units the whole list has. */
  readonly total: number;
  /** How many units have each state as that of their most pressing task. */
  readonly compressorsByState: Readonly<Record<TaskState, number>>;
  /** At how many sites something is overdue. */
  readonly overdueSites: number;
}

/** A point of the continuous run hours. */
export interface HourPointView {
  readonly at: string;
  /** Continuous run hours. */
  readonly hours: number;
  /** Where it comes from: a reading and its source, a meter change, or reckoned at an end of the series. */
  readonly source: HourReading['source'] | 'meter-change' | 'interpolated' | 'extrapolated';
  readonly isEstimate: boolean;
}

/** How the hours are likely to go on. */
export interface HoursAheadView {
  readonly at: string;
  /** One chance in ten of fewer hours, and one of more. */
  readonly low: number;
  readonly likely: number;
  readonly high: number;
}

export interface HoursView {
  readonly compressorId: string;
  readonly revision: number;
  /** Which counter the continuous hours are built from. */
  readonly counts: HourReading['counts'] | null;
  readonly points: readonly HourPointView[];
  /** The loaded counter beside it, where there is one. */
  readonly loaded: readonly HourPointView[];
  /** Share of its running that it works under load, over the last quarter of both; null when not known. */
  readonly loadedShare: number | null;
  /** Whether there are more points than are given: the latest are. */
  readonly isCut: boolean;
  readonly ahead: readonly HoursAheadView[];
}

/** A unit on the walk through a site: what its meter showed, and what it should show by now. */
export interface MeterView {
  readonly compressorId: string;
  readonly tag: string;
  readonly name?: string;
  readonly description: string;
  readonly hasHourMeter: boolean;
  readonly hoursPerDay: number | null;
  /** Figures before this one, the latest first: enough to judge a new one by. */
  readonly readings: readonly Pick<ReadingView, 'takenAt' | 'hours' | 'counts' | 'source' | 'recordedAt'>[];
  readonly meterChanges: readonly Omit<MeterChangeView, keyof FactView | 'compressorId'>[];
  /** What the meter fitted should show at the moment of the answer; null when there is no telling. */
  readonly expected: { readonly low: number; readonly likely: number; readonly high: number } | null;
}

/** The meters of a site in walking order. */
export interface SiteMetersView extends Page<MeterView> {
  readonly siteId: string;
  readonly siteName: string;
  readonly timeZone: string;
  readonly at: string;
}

/** When a figure of run hours is reached. */
export interface ForecastView {
  readonly early: string | null;
  readonly likely: string | null;
  readonly late: string | null;
  readonly hoursPerDay: number | null;
  readonly method: ForecastMethod;
  readonly basedOn: ForecastGroundsView;
  /** Why there is no date, or no late one. */
  readonly reason: Forecast['reason'];
}

export interface ForecastGroundsView extends UseGrounds {
  readonly from: string | null;
  readonly to: string | null;
  /** Days of readings that still speak of today. */
  readonly windowDays: number | null;
  /** Earlier years whose seasons were followed; 0 without one. */
  readonly seasonYears: number;
  /** Factor that the machine's own past puts on the band, and the independent horizons it rests on. */
  readonly bandFactor: number | null;
  readonly bandHorizons: number;
  /** The last change of use that came to stay, however long ago; null where there was none to be sure of. */
  readonly useChange: UseChangeView | null;
}

export interface UseChangeView {
  readonly at: string;
  /** Hours a day. */
  readonly before: number;
  readonly since: number;
  readonly text: string;
}

/** What became of one reading of many. */
export interface BatchResultView {
  readonly id: string;
  readonly outcome: 'stored' | 'known' | 'refused';
  readonly marks: readonly string[];
  readonly problem?: ProblemDetails;
}

export interface BatchResultsView {
  readonly results: readonly BatchResultView[];
}

/** What becomes of one row of a list. */
export interface ImportedRowView {
  /** Its number in the list, the header being 1. */
  readonly row: number;
  /** In a preview `stored` means: it will be. */
  readonly outcome: 'stored' | 'known' | 'refused';
  readonly marks: readonly string[];
  readonly tag?: string;
  readonly takenAt?: string;
  readonly hours?: number;
  readonly counts?: HourReading['counts'];
  /** What stands in a row that was not understood. */
  readonly text?: string;
  /** Why it was refused, and its code. */
  readonly reason?: string;
  readonly code?: string;
}

export interface ImportResultView {
  readonly mode: 'preview' | 'commit';
  readonly stored: number;
  readonly known: number;
  readonly refused: number;
  readonly leftOut: number;
  /** Units that rows were, or will be, stored for. */
  readonly units: number;
  /** The first thousand rows, and every refused row up to ten thousand. */
  readonly rows: readonly ImportedRowView[];
  /** Whether not every row is listed, or a preview looked at the first fifty thousand only. */
  readonly isCut: boolean;
  /** The titles of the list's columns, and how it was read. */
  readonly columns: readonly string[];
  readonly mapping: ImportMapping;
}

/** The plan of a unit as it holds now. */
export interface PlanView extends ServicePlan {
  readonly compressorId: string;
  readonly version: number;
  readonly effectiveAt: string;
  /** The latest version on record: what a change is based on. */
  readonly latest: number;
  /** When a version takes effect that is not in force yet. */
  readonly nextEffectiveAt: string | null;
  readonly by: string;
  readonly note?: string;
  readonly practices: readonly PracticeOfCompressor[];
}

/** What a plan would mean for a unit, without it being saved. */
export interface PlanPreviewView {
  readonly problems: readonly { readonly code: string; readonly field?: string; readonly sentence: string }[];
  readonly standing: StandingView;
  /** The next due points of each task, were each done at its point. */
  readonly coming: Readonly<
    Record<string, readonly (Omit<ComingPoint, 'at'> & { readonly at: string | null })[]>
  >;
  readonly differences: readonly TaskDifference[];
}

/** Defaults and schools for a machine, and the form that plans are exchanged in. */
export interface PlanLibraryView {
  readonly plan: PlanFile;
  readonly practices: readonly PracticeOfCompressor[];
  readonly schema: object;
}

export interface DeferralView extends FactView {
  readonly compressorId: string;
  readonly task: string;
  readonly deferredAt: string;
  readonly reason: string;
  readonly untilHours?: number;
  readonly untilOn?: string;
  readonly risk?: string;
}

export interface StartingPointsView extends FactView {
  readonly compressorId: string;
  readonly setAt: string;
  readonly basis: StartingBasis;
  readonly points: readonly {
    readonly task: string;
    readonly hoursUsed?: number;
    readonly countsFromOn?: string;
  }[];
}

export interface ExaminationView {
  readonly id: string;
  readonly kind: VesselExamination;
  readonly doneOn: string;
  readonly passed: boolean;
  readonly by: string;
  readonly note?: string;
}

/** A receiver or cylinder as it is known today. */
export interface VesselView {
  readonly id: string;
  readonly siteId: string;
  readonly tag: string;
  readonly kind: VesselKind;
  readonly compressorIds: readonly string[];
  readonly ratedBar?: number;
  readonly volumeL?: number;
  readonly maker?: string;
  readonly serial?: string;
  readonly madeOn?: string;
  readonly testEveryMonths?: number;
  readonly inspectEveryMonths?: number;
  /** What the valve of a cylinder is marked with, bar. */
  readonly connectorBar?: number;
  readonly gas?: CylinderGas;
  readonly lifeEndsOn?: string;
  readonly retiredOn?: string;
  readonly note?: string;
  /** The latest first. */
  readonly examinations: readonly ExaminationView[];
  /** Why it does not go with a unit that fills it. */
  readonly doubts: readonly { readonly code: string; readonly sentence: string }[];
}

/** A cylinder that was filled. */
export interface FillView extends FactView {
  readonly compressorId: string;
  readonly vesselId: string;
  readonly tag: string;
  readonly startedAt: string;
  readonly endedAt: string;
  readonly fromBar: number;
  readonly toBar: number;
  readonly connectorBar: number;
  readonly ambientC: number;
  readonly wallC: number | null;
  readonly coPpm: number | null;
  readonly outcome: 'full' | 'stopped';
  /** What it shows when it has cooled. */
  readonly settledBar: number;
  /** Free air that went in, L. */
  readonly airL: number;
  readonly doubts: readonly { readonly code: string; readonly sentence: string }[];
}

/** A cylinder that a set may be asked to fill. */
export interface FillableCylinderView extends FillCylinder {
  readonly id: string;
  readonly siteName: string;
  readonly lastFilledAt: string | null;
}

/** What a set can fill, and what stands against it. */
export interface FillingView {
  readonly compressorId: string;
  readonly timeZone: string;
  readonly atmosphereBarAbs: number;
  /** What stands against using the set, as a fill asks it. */
  readonly set: FillSet;
  readonly cylinders: readonly FillableCylinderView[];
  readonly filledToday: number;
  /** The latest first, ten at most. */
  readonly latest: readonly FillView[];
  /** Air of all fills since the last reading of its hours. */
  readonly sinceReading: FilledSum;
  /** Water that the cartridge took up since it was new; null where nobody knows since when. */
  readonly cartridge: {
    readonly since: string;
    readonly takenUpG: number;
    readonly capacityG: number | null;
  } | null;
}

/** RFC 9457 problem details, with the field-by-field messages of this interface. */
export interface ProblemDetails {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail?: string;
  readonly code: string;
  /** Of what went wrong on the server’s side: it stands beside the line in the log. */
  readonly instance?: string;
  readonly errors?: readonly { readonly field: string; readonly message: string }[];
}
