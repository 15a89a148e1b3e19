import type { Instant } from '../basics/index.js';
import { byMoment } from '../isolation/index.js';
import { findingSteps } from './steps/finding.js';
import { isolatingSteps } from './steps/isolating.js';
import { leavingSteps } from './steps/leaving.js';
import type { FieldType, StepModule, StepNames } from './steps/step-kind.js';
import { workingSteps } from './steps/working.js';

const known = [...isolatingSteps, ...workingSteps, ...findingSteps, ...leavingSteps] as const;

export type StepBody = (typeof known)[number]['body'];
export type StepKind = StepBody['kind'];

/** Kinds of step by their code. */
export type StepKinds = ReadonlyMap<string, StepModule>;

/** A registry of the kinds in a list. */
export function stepKindsOf(modules: readonly StepModule[]): StepKinds {
  return new Map(modules.map((module) => [module.kind, module]));
}

export const stepModules: readonly StepModule[] = known;
const ours = stepKindsOf(stepModules);

/** What happened on one unit of a visit, as a fact. */
export interface VisitStep {
  readonly id: string;
  readonly doneAt: Instant;
  readonly by: string;
  /** One opening of the page on one device: a reload begins another. */
  readonly session: string;
  readonly body: StepBody;
  readonly marks?: readonly string[] | undefined;
  /** When it became known; left out while it waits on its device. */
  readonly recordedAt?: Instant | undefined;
  /** Told under the rules of releases up to 0.2: its marks stand as they were given. */
  readonly isBeforeSpaces?: boolean | undefined;
}

/** The order in which things happened, whenever each became known; ties by id. */
export function inOrder(steps: readonly VisitStep[]): readonly VisitStep[] {
  return [...steps].sort(byMoment);
}

/** The kind of a step; one that nobody knows says nothing. */
export function moduleOf(body: StepBody, kinds: StepKinds = ours): StepModule | undefined {
  return kinds.get(body.kind);
}

/** What a step says, in a line. */
export function stepText(body: StepBody, names: StepNames, kinds: StepKinds = ours): string {
  return moduleOf(body, kinds)?.text(body, names) ?? body.kind;
}

/**
 * Reads the body of a step that is on record: it happened, whatever a later rule says of it. Bounds are not asked
 * for, and what is not known is left aside.
 *
 * @returns null where even what kind of thing it says cannot be told; then it counts for nothing, and is shown as it is
 */
export function readRecordedBody(kind: string, details: object, kinds: StepKinds = ours): StepBody | null {
  const fields = kinds.get(kind)?.fields;
  if (fields === undefined) return null;
  const given = details as Readonly<Record<string, unknown>>;
  const body: Record<string, unknown> = { kind };
  for (const [field, type] of Object.entries(fields)) {
    const value = Object.hasOwn(given, field) ? given[field] : undefined;
    if (isOfType(type, value)) body[field] = value;
    else if (!type.endsWith('?')) return null;
  }
  return body as unknown as StepBody;
}

function isOfType(type: FieldType, value: unknown): boolean {
  switch (type.replace('?', '')) {
    case 'text':
      return typeof value === 'string';
    case 'number':
      return typeof value === 'number' && Number.isFinite(value);
    case 'flag':
      return typeof value === 'boolean';
    case 'codes':
      return Array.isArray(value) && value.every((code) => typeof code === 'string');
    default:
      return typeof value === 'object' && value !== null && !Array.isArray(value);
  }
}
