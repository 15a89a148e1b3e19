import { checkByCode, type CheckValues, type Verdict } from '../../checks/index.js';
import { stepKind } from './step-kind.js';

export const measurePhases = ['before', 'work', 'proof'] as const;
export type MeasurePhase = (typeof measurePhases)[number];

/** Something was measured; the measurement is a fact of its own. */
export interface MeasureBody {
  readonly kind: 'measure';
  readonly phase: MeasurePhase;
  readonly check: string;
  readonly values: CheckValues;
  /** As judged; known once it is on record. */
  readonly verdict?: Verdict | undefined;
  readonly reason?: string | undefined;
  readonly noComparison?: true | undefined;
}

const measure = stepKind<MeasureBody>({
  kind: 'measure',
  fields: { phase: 'text', check: 'text', values: 'values' },
  text: ({ check }, names) => `Measured: ${names.check(check)}`,
  opens: ({ check }) => checkByCode(check)?.opens ?? [],
  isFactOfItsOwn: true,
});

/** A reading that was asked for before the work is left out. */
export interface SkipBody {
  readonly kind: 'skip';
  readonly check: string;
  readonly reason: string;
}

const skip = stepKind<SkipBody>({
  kind: 'skip',
  fields: { check: 'text', reason: 'text' },
  text: ({ check, reason }, names) => `Not measured: ${names.check(check)}. ${reason}`,
});

/** The meter was read; the reading is a fact of its own. */
export interface HoursBody {
  readonly kind: 'hours';
  readonly hours: number;
}

const hours = stepKind<HoursBody>({
  kind: 'hours',
  fields: { hours: 'number' },
  text: (body) => `Hours read: ${body.hours} h`,
  isFactOfItsOwn: true,
});

export interface PhotoBody {
  readonly kind: 'photo';
  readonly photo: string;
  readonly caption?: string | undefined;
  readonly station?: string | undefined;
}

const photo = stepKind<PhotoBody>({
  kind: 'photo',
  fields: { photo: 'text', caption: 'text?', station: 'text?' },
  text: ({ caption }) => `Photo${caption === undefined ? '' : `: ${caption}`}`,
  isTakenAfterSigning: true,
});

export interface NoteBody {
  readonly kind: 'note';
  readonly text: string;
  readonly station?: string | undefined;
}

const note = stepKind<NoteBody>({
  kind: 'note',
  fields: { text: 'text', station: 'text?' },
  text: ({ text }) => `Note: ${text}`,
  isTakenAfterSigning: true,
});

/** A fault was found: opens a repair, which is a fact of its own. */
export interface FaultBody {
  readonly kind: 'fault';
  readonly found: string;
  readonly station?: string | undefined;
}

const fault = stepKind<FaultBody>({
  kind: 'fault',
  fields: { found: 'text', station: 'text?' },
  text: ({ found }) => `Found: ${found}`,
  isFactOfItsOwn: true,
  isTakenAfterSigning: true,
});

export const findingSteps = [measure, skip, hours, photo, note, fault] as const;
