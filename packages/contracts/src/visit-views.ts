import type { CheckValues, JudgedOutcome } from '@entretien/core/checks';
import type { DataPlate } from '@entretien/core/machine';
import type { ServicePackage, ServiceTask } from '@entretien/core/plan';
import type { ComparedFigure, PartClass, PartFigures, Shortage, Substitution } from '@entretien/core/parts';
import type { EntryKind, FaultSearch, RepairKind, RepairState } from '@entretien/core/repairs';
import type { IsolationEvent } from '@entretien/core/isolation';
import type { StandingStop } from '@entretien/core/stop';
import type { StepKind } from '@entretien/core/visit';
import type { FactView, StandingView } from './views.js';

/** What came out of a measurement that was taken in a visit. */
export type StepOutcome = JudgedOutcome;

/** Something that happened on one unit of a visit. */
export interface VisitStepView extends FactView {
  readonly visitId: string;
  readonly compressorId: string;
  readonly kind: StepKind;
  readonly doneAt: string;
  readonly session: string;
  readonly details: object;
  readonly outcome?: StepOutcome;
  /** Told under the rules of releases up to 0.2. */
  readonly isBeforeSpaces?: true;
}

/** One unit of a visit, with all that is needed to go through it without a connection. */
export interface VisitCompressorView {
  readonly compressorId: string;
  readonly tag: string;
  readonly description: string;
  readonly plate: DataPlate;
  /** Every task of the plan that held when the visit was planned. */
  readonly plan: readonly ServiceTask[];
  readonly planned: readonly string[];
  /** What belongs together; what devices kept of earlier releases lacks it. */
  readonly packages?: readonly ServicePackage[];
  readonly standing: StandingView;
  /** The baseline of each check that has one. */
  readonly baselines: Readonly<
    Record<string, { readonly values: CheckValues; readonly figure: number | null }>
  >;
  /** What was last measured by check: what stays the same begins from there. */
  readonly lastValues: Readonly<Record<string, CheckValues>>;
  readonly steps: readonly VisitStepView[];
  /** What was said of its isolation elsewhere: in repairs, in other visits. */
  readonly elsewhere: readonly IsolationEvent[];
  readonly pauseMinutes: number;
  readonly stops: readonly StopView[];
}

/** Why a unit, or a part of its use, must not be used. */
export interface StopView extends Omit<StandingStop, 'since'> {
  readonly compressorId: string;
  readonly tag: string;
  readonly siteName: string;
  readonly since: string;
  readonly byName: string;
}

/** How the isolation of a unit stands, and what was said of it. */
export interface IsolationView {
  readonly compressorId: string;
  readonly at: string;
  readonly timeZone: string;
  readonly pauseMinutes: number;
  readonly points: readonly {
    readonly code: string;
    readonly name: string;
    /** Places of it that hold, and those that do not. */
    readonly holds: readonly string[];
    readonly lacks: readonly string[];
  }[];
  /** Who has a lock on. */
  readonly locks: readonly { readonly by: string; readonly byName: string }[];
  readonly events: readonly IsolationEvent[];
}

/** A step of isolating, or of starting again, that was told of a repair. */
export interface RepairStepView extends FactView {
  readonly repairId: string;
  readonly compressorId: string;
  readonly kind: string;
  readonly doneAt: string;
  readonly session: string;
  readonly details: object;
}

export interface VisitView extends FactView {
  readonly siteId: string;
  readonly siteName: string;
  readonly timeZone: string;
  readonly altitudeM: number | null;
  readonly plannedOn: string;
  readonly state: VisitState;
  readonly units: readonly VisitCompressorView[];
}

/** `planned`: nothing done yet; `finished`: each unit is signed for or left. */
export type VisitState = 'planned' | 'under-way' | 'finished';

/** A visit as a list shows it. */
export interface VisitBriefView {
  readonly id: string;
  readonly siteId: string;
  readonly siteName: string;
  readonly plannedOn: string;
  readonly state: VisitState;
  readonly by: string;
  readonly units: readonly {
    readonly compressorId: string;
    readonly tag: string;
    readonly state: 'open' | 'signed' | 'left';
    /** Work that was done and is not proved. */
    readonly unproved: number;
  }[];
  readonly lastStepAt: string | null;
}

export interface PhotoView {
  readonly id: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly bytes: number;
}

/** A photo of a machine itself: its sticker, its plate. */
export interface CompressorPhotoView extends PhotoView {
  readonly caption?: string;
  readonly recordedAt: string;
  readonly by: string;
}

export interface RepairEntryView extends FactView {
  readonly kind: EntryKind;
  readonly at: string;
  readonly text: string;
  readonly minutes?: number;
  readonly count?: number;
  readonly part?: string;
  readonly check?: string;
  readonly cause?: string;
  readonly search?: FaultSearch;
  readonly opens?: readonly string[];
  readonly session?: string;
  readonly outcome?: StepOutcome;
}

export interface RepairView extends FactView {
  readonly compressorId: string;
  readonly kind: RepairKind;
  readonly foundAt: string;
  readonly found: string;
  readonly station?: string;
  readonly state: RepairState;
  readonly isOpen: boolean;
  readonly waitsFor: string | null;
  readonly cause: string | null;
  /** Code of that cause, where the fault finder named it; what devices kept of earlier releases lacks these three. */
  readonly causeCode?: string | null;
  /** Code of the cause that was confirmed. */
  readonly confirmed?: string | null;
  /** What the fault finder was told. */
  readonly search?: FaultSearch | null;
  readonly minutes: number;
  readonly entries: readonly RepairEntryView[];
}

/** A repair that is not proved yet, wherever it stands. */
export interface OpenRepairView extends Pick<
  RepairView,
  'id' | 'compressorId' | 'kind' | 'found' | 'foundAt' | 'state' | 'waitsFor'
> {
  readonly tag: string;
  readonly siteId: string;
  readonly siteName: string;
}

/** What is open anywhere. */
export interface OpenWorkView {
  readonly repairs: readonly OpenRepairView[];
  readonly visits: readonly VisitBriefView[];
  /** What the van holds too little of for everything that is late, due or nearing on the most urgent units. */
  readonly short: readonly Shortage[];
}

export interface PartView {
  readonly id: string;
  readonly number: string;
  readonly name: string;
  readonly class: PartClass;
  readonly answers: string;
  readonly fits: readonly string[];
  readonly figures: PartFigures;
  readonly priceCents?: number;
  readonly supplier?: string;
  readonly contents?: string;
  readonly leadDays?: number;
  readonly secondSource?: string;
  readonly note?: string;
  readonly inVan: number;
  /** How many went into machines in the last year. */
  readonly usedPastYear: number;
  /** Out of the catalogue: kits do not ask for it any more. */
  readonly isRetired?: true;
}

export type SubstitutionView = Substitution & { readonly figures: readonly ComparedFigure[] };

/** One line of the logbook. */
export interface LogbookEntryView {
  readonly id: string;
  readonly kind: string;
  readonly compressorId: string | null;
  readonly tag: string;
  readonly siteName: string;
  /** Zone of the site where the machine stands now. */
  readonly timeZone: string;
  readonly at: string;
  readonly recordedAt: string;
  readonly by: string;
  readonly byName: string;
  /** What happened, in words. */
  readonly text: string;
  readonly note?: string;
  /** It was found to be wrong. */
  readonly voided: boolean;
  readonly voidedHow?: 'withdrawn' | 'corrected' | undefined;
  /** Where it is withdrawn, below its compressor; left out for what cannot be. */
  readonly collection?: string;
  /** What was unusual about a reading. */
  readonly marks?: readonly string[];
}
