import { planParts, planProblems, planSchema, type ServicePlan } from '@entretien/core/plan';
import type { Problem } from '@entretien/core/basics';
import type { PlanContent } from '@entretien/contracts';
import type { DataPlate } from '@entretien/core/machine';
import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import { malformed, ProblemError } from '../common/problem.js';

let compiled: ValidateFunction<ServicePlan> | undefined;

/** Compiled when a plan is first sent: it would be a tenth of the time that the server takes to start. */
function planValidator(): ValidateFunction<ServicePlan> {
  compiled ??= new Ajv({ allErrors: false, discriminator: false }).compile<ServicePlan>(planSchema);
  return compiled;
}

/** The plan that was sent, its shape checked against the published schema. */
export function readPlan(sent: PlanContent): ServicePlan {
  const plan: unknown = planParts(sent);
  const isPlan = planValidator();
  if (isPlan(plan)) return plan;
  throw malformed([problemOf(isPlan.errors ?? [], sent.tasks as readonly unknown[])]);
}

/** What the schema says, about the task it is in. */
function problemOf(errors: readonly ErrorObject[], tasks: readonly unknown[]) {
  // A trigger that fits none of its kinds is told by the kind it claims to be, the last to be tried otherwise.
  const deepest = [...errors].sort((a, b) => depth(b) - depth(a))[0];
  const path = deepest?.instancePath ?? '';
  const [, list, index] = path.split('/');
  const task =
    list === 'tasks' && index !== undefined ? (tasks[Number(index)] as { name?: unknown }) : undefined;
  const name = typeof task?.name === 'string' ? `${task.name.slice(0, 80)}: ` : '';
  return {
    field: path.slice(1).replaceAll('/', '.') || 'tasks',
    message: `${name}${placeOf(path)}${deepest ? complaintOf(deepest) : 'is not understood'}.`,
  };
}

/** Where in a task something stands, counted as people count: “trigger 1, every, ”. */
function placeOf(path: string): string {
  const words: string[] = [];
  for (const part of path.split('/').slice(3)) {
    if (/^\d+$/.test(part) && words.length > 0)
      words.push(`${words.pop()!.replace(/s$/, '')} ${Number(part) + 1}`);
    else words.push(part);
  }
  return words.length === 0 ? '' : `${words.join(', ')} `;
}

const typeNames: Readonly<Record<string, string>> = {
  number: 'a number',
  integer: 'a whole number',
  string: 'a text',
  boolean: 'true or false',
  array: 'a list',
  object: 'a group of fields',
};

/** What a rule of the schema has against a value, in words. */
function complaintOf({ keyword, params, message }: ErrorObject): string {
  const given = params as Readonly<Record<string, unknown>>;
  const limit = String(given['limit']);
  switch (keyword) {
    case 'minimum':
      return `must be ${limit} or more`;
    case 'maximum':
      return `must be ${limit} or less`;
    case 'maxLength':
      return `can be ${limit} characters long at most`;
    case 'minLength':
      return 'must not be empty';
    case 'pattern':
      return given['pattern'] === '\\S' ? 'must not be blank' : 'must be a code like “oil-change”';
    case 'maxItems':
      return `can hold ${limit} at most`;
    case 'minItems':
      return `must hold ${limit} at least`;
    case 'uniqueItems':
      return 'must name each once';
    case 'enum':
      return `must be one of ${(given['allowedValues'] as unknown[]).join(', ')}`;
    case 'required':
      return `lacks “${String(given['missingProperty'])}”`;
    case 'additionalProperties':
      return `has no place for “${String(given['additionalProperty']).slice(0, 40)}”`;
    case 'type':
      return `must be ${typeNames[String(given['type'])] ?? String(given['type'])}`;
    default:
      return message ?? 'is not understood';
  }
}

function depth({ instancePath, keyword }: ErrorObject): number {
  const structural =
    keyword === 'oneOf' || keyword === 'const' ? 0.5 : keyword === 'additionalProperties' ? 0.75 : 1;
  return instancePath.split('/').length + structural;
}

/** Refuses what cannot be in a plan for a machine. */
export function refuseImpossible(plan: ServicePlan, plate: DataPlate): void {
  const problems: readonly Problem[] = planProblems(plan, plate);
  const [first] = problems;
  if (!first) return;
  throw new ProblemError(
    422,
    first.code,
    'That cannot be.',
    first.sentence,
    problems.map(({ field = 'tasks', sentence }) => ({ field, message: sentence })),
  );
}
