import { refuse, succeed, type Instant, type Outcome } from '../basics/index.js';
import type { CheckValues, Verdict } from '../checks/index.js';

export const measurePhases = ['before', 'work', 'proof'] as const;
export type MeasurePhase = (typeof measurePhases)[number];

/** A step of the isolation was done; `gauge-zero` carries what the gauge shows. */
export interface IsolateBody {
  readonly kind: 'isolate';
  readonly step: string;
  /** False takes a confirmation back. */
  readonly confirmed: boolean;
  readonly pressureBar?: number | undefined;
  /** How zero was proved while the gauge shows something. */
  readonly provedBy?: string | undefined;
}

/** What became of a planned task. */
export interface TaskBody {
  readonly kind: 'task';
  readonly task: string;
  /** `open` takes an answer back. */
  readonly outcome: 'done' | 'not-done' | 'open';
  readonly reason?: string | undefined;
}

/** A station was gone through, with nothing found: its tasks are done. */
export interface StationBody {
  readonly kind: 'station';
  readonly station: string;
  readonly tasks: readonly string[];
}

/** Something was measured; the measurement is a fact of its own. */
export interface MeasureBody {
  readonly kind: 'measure';
  readonly phase: MeasurePhase;
  readonly check: string;
  readonly values: CheckValues;
  /** As judged; known once it is on record. */
  readonly verdict?: Verdict | undefined;
  readonly reason?: string | undefined;
}

/** A reading that was asked for before the work is left out. */
export interface SkipBody {
  readonly kind: 'skip';
  readonly check: string;
  readonly reason: string;
}

/** A part was used. */
export interface PartBody {
  readonly kind: 'part';
  /** Id in the catalogue; left out for what is not in it. */
  readonly part?: string | undefined;
  readonly name: string;
  /** Below nothing takes back what was said by mistake. */
  readonly count: number;
  /** The task it was used for. */
  readonly task?: string | undefined;
  /** Why this one: asked where it takes the place of another. */
  readonly reason?: string | undefined;
}

export interface PhotoBody {
  readonly kind: 'photo';
  readonly photo: string;
  readonly caption?: string | undefined;
  readonly station?: string | undefined;
}

export interface NoteBody {
  readonly kind: 'note';
  readonly text: string;
  readonly station?: string | undefined;
}

/** A fault was found: opens a repair. */
export interface FaultBody {
  readonly kind: 'fault';
  readonly found: string;
  readonly station?: string | undefined;
}

/** Power and air are back: whatever was isolated is so no more. */
export interface RestartBody {
  readonly kind: 'restart';
  /** Codes of what was gone through before. */
  readonly steps: readonly string[];
}

/** The joints were looked at under full working pressure. */
export interface TightBody {
  readonly kind: 'tight';
  readonly tight: boolean;
  readonly words?: string | undefined;
}

/** A task is taken as done without its proof. */
export interface CloseBody {
  readonly kind: 'close';
  readonly task: string;
  readonly reason: string;
}

/** Tasks join those of the visit. */
export interface PlanBody {
  readonly kind: 'plan';
  readonly tasks: readonly string[];
}

/** The meter was read. */
export interface HoursBody {
  readonly kind: 'hours';
  readonly hours: number;
}

/** The unit is done with and signed for. */
export interface SignBody {
  readonly kind: 'sign';
  readonly name: string;
  /** Strokes of the signature in a box 300 by 100: `x,y x,y;x,y …` */
  readonly strokes?: string | undefined;
}

/** The unit is left for another day. */
export interface LeaveBody {
  readonly kind: 'leave';
  readonly reason: string;
}

export type StepBody =
  | IsolateBody
  | TaskBody
  | StationBody
  | MeasureBody
  | SkipBody
  | PartBody
  | PhotoBody
  | NoteBody
  | FaultBody
  | RestartBody
  | TightBody
  | CloseBody
  | PlanBody
  | HoursBody
  | SignBody
  | LeaveBody;

export type StepKind = StepBody['kind'];

export const stepKinds = [
  'isolate',
  'task',
  'station',
  'measure',
  'skip',
  'part',
  'photo',
  'note',
  'fault',
  'restart',
  'tight',
  'close',
  'plan',
  'hours',
  'sign',
  'leave',
] as const satisfies readonly StepKind[];

/** What happened on one unit of a visit, as a fact. */
export interface VisitStep {
  readonly id: string;
  readonly doneAt: Instant;
  readonly by: string;
  /** One opening of the page on one device: a reload begins another. */
  readonly session: string;
  readonly body: StepBody;
  readonly marks?: readonly string[] | undefined;
}

/** The order in which things happened, whenever each became known. */
export function inOrder(steps: readonly VisitStep[]): readonly VisitStep[] {
  return [...steps].sort((a, b) => a.doneAt - b.doneAt);
}

const LONGEST = { code: 40, name: 120, reason: 500, note: 2000, strokes: 20_000 } as const;
const MOST_TASKS = 100;

type Rule =
  | { readonly as: 'text'; readonly longest: number; readonly what: string; readonly optional?: true }
  | {
      readonly as: 'number';
      readonly min: number;
      readonly max: number;
      readonly what: string;
      readonly optional?: true;
    }
  | { readonly as: 'flag'; readonly what: string }
  | { readonly as: 'choice'; readonly options: readonly string[]; readonly what: string }
  | { readonly as: 'codes'; readonly what: string }
  | { readonly as: 'values'; readonly what: string };

const text = (what: string, longest: number): Rule => ({ as: 'text', what, longest });
const maybe = (what: string, longest: number): Rule => ({ as: 'text', what, longest, optional: true });

/** What each kind of step may carry, with the bounds of each. */
const RULES: Record<StepKind, Readonly<Record<string, Rule>>> = {
  isolate: {
    step: text('The step', LONGEST.code),
    confirmed: { as: 'flag', what: 'confirmed' },
    pressureBar: { as: 'number', min: 0, max: 1000, what: 'The pressure on the gauge', optional: true },
    provedBy: maybe('How zero was proved', LONGEST.reason),
  },
  task: {
    task: text('The task', LONGEST.code),
    outcome: { as: 'choice', options: ['done', 'not-done', 'open'], what: 'What became of it' },
    reason: maybe('The reason', LONGEST.reason),
  },
  station: { station: text('The station', LONGEST.code), tasks: { as: 'codes', what: 'The tasks' } },
  measure: {
    phase: { as: 'choice', options: measurePhases, what: 'When it was measured' },
    check: text('The check', LONGEST.code),
    values: { as: 'values', what: 'The figures' },
  },
  skip: { check: text('The check', LONGEST.code), reason: text('The reason', LONGEST.reason) },
  part: {
    part: maybe('The part', 36),
    name: text('The name of the part', LONGEST.name),
    count: { as: 'number', min: -1000, max: 1000, what: 'The number of parts' },
    task: maybe('The task', LONGEST.code),
    reason: maybe('The reason', LONGEST.reason),
  },
  photo: {
    photo: text('The photo', 36),
    caption: maybe('The caption', LONGEST.name),
    station: maybe('The station', LONGEST.code),
  },
  note: { text: text('The note', LONGEST.note), station: maybe('The station', LONGEST.code) },
  fault: { found: text('What was found', LONGEST.reason), station: maybe('The station', LONGEST.code) },
  restart: { steps: { as: 'codes', what: 'What was gone through' } },
  tight: {
    tight: { as: 'flag', what: 'Whether all is tight' },
    words: maybe('What was seen', LONGEST.reason),
  },
  close: { task: text('The task', LONGEST.code), reason: text('The reason', LONGEST.reason) },
  plan: { tasks: { as: 'codes', what: 'The tasks' } },
  hours: { hours: { as: 'number', min: 0, max: 1_000_000, what: 'The hours' } },
  sign: { name: text('The name', LONGEST.name), strokes: maybe('The signature', LONGEST.strokes) },
  leave: { reason: text('The reason', LONGEST.reason) },
};

/**
 * Reads what was sent as the body of a step; refuses what is missing, too long, out of bounds or unknown, with
 * the field and a sentence.
 */
export function readStepBody(kind: StepKind, details: object): Outcome<StepBody> {
  const rules = RULES[kind];
  const given = details as Readonly<Record<string, unknown>>;
  const unknown = Object.keys(given).find((field) => !Object.hasOwn(rules, field));
  if (unknown !== undefined) {
    const field = unknown.slice(0, LONGEST.code);
    return refuse('unknown-field', `“${field}” does not belong to such a step.`, field);
  }
  for (const [field, rule] of Object.entries(rules)) {
    const value = given[field];
    if ((value === undefined || value === null) && 'optional' in rule) continue;
    const sentence = wrongWith(rule, value);
    if (sentence !== null) return refuse('invalid-step', sentence, field);
  }
  const said = Object.fromEntries(
    Object.entries(given).filter(([, value]) => value !== undefined && value !== null),
  );
  return succeed({ kind, ...said } as unknown as StepBody);
}

/**
 * Reads the body of a step that is on record: it happened, whatever a later rule says of it. Bounds are not asked
 * for, and what is not known is left aside.
 *
 * @returns null where even what kind of thing it says cannot be told; then it counts for nothing, and is shown as it is
 */
export function readRecordedBody(kind: StepKind, details: object): StepBody | null {
  if (!Object.hasOwn(RULES, kind)) return null;
  const given = details as Readonly<Record<string, unknown>>;
  const said: Record<string, unknown> = {};
  for (const [field, rule] of Object.entries(RULES[kind])) {
    const value = Object.hasOwn(given, field) ? given[field] : undefined;
    if (hasTypeOf(rule, value)) said[field] = value;
    else if (!('optional' in rule)) return null;
  }
  return { kind, ...said } as unknown as StepBody;
}

function hasTypeOf(rule: Rule, value: unknown): boolean {
  switch (rule.as) {
    case 'text':
    case 'choice':
      return typeof value === 'string';
    case 'number':
      return typeof value === 'number' && Number.isFinite(value);
    case 'flag':
      return typeof value === 'boolean';
    case 'codes':
      return Array.isArray(value) && value.every((code) => typeof code === 'string');
    case 'values':
      return typeof value === 'object' && value !== null && !Array.isArray(value);
  }
}

function wrongWith(rule: Rule, value: unknown): string | null {
  switch (rule.as) {
    case 'text': {
      if (typeof value !== 'string' || value.trim() === '') return `${rule.what} is missing.`;
      return value.length > rule.longest
        ? `${rule.what} can be ${rule.longest} characters long at most.`
        : null;
    }
    case 'number': {
      const isIn = typeof value === 'number' && value >= rule.min && value <= rule.max;
      if (value === 0 && rule.min < 0) return `${rule.what} must not be nothing.`;
      return isIn
        ? null
        : `${rule.what} must be a number from ${rule.min} to ${rule.max.toLocaleString('en')}.`;
    }
    case 'flag':
      return typeof value === 'boolean' ? null : `${rule.what} must be true or false.`;
    case 'choice':
      return rule.options.includes(value as string)
        ? null
        : `${rule.what} is one of ${rule.options.join(', ')}.`;
    case 'codes': {
      const isList =
        Array.isArray(value) &&
        value.length <= MOST_TASKS &&
        value.every((code) => typeof code === 'string' && /^[a-z][a-z0-9-]{1,39}$/.test(code));
      return isList ? null : `${rule.what} are named by their codes, ${MOST_TASKS} at most.`;
    }
    case 'values':
      // Which figures there are, and their bounds, is the check's own affair.
      return typeof value === 'object' && value !== null && !Array.isArray(value)
        ? null
        : `${rule.what} are missing.`;
  }
}
