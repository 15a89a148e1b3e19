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
  const place = path.split('/').slice(3).join('.');
  return {
    field: path.slice(1).replaceAll('/', '.') || 'tasks',
    message: `${name}${place ? `${place} ` : ''}${deepest?.message ?? 'is not understood'}.`,
  };
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
