import { plainToInstance } from 'class-transformer';
import { getMetadataStorage, validateSync, type ValidationError } from 'class-validator';
import type { ProblemDetails } from './views.js';

/** What is wrong with one field of what was sent. */
export interface FieldError {
  readonly field: string;
  readonly message: string;
}

/**
 * How everything is checked against its contract: unknown fields are refused, nothing is converted (a JSON string
 * is not a number), and of each field the first thing that is wrong is said.
 */
export const strictly = {
  whitelist: true,
  forbidNonWhitelisted: true,
  forbidUnknownValues: true,
  stopAtFirstError: true,
  validationError: { target: false, value: false },
};

/** Something as its contract has it, and what of it is refused. */
export function readStrictly<Contract extends object>(
  contract: new () => Contract,
  sent: object,
  parent = '',
): { readonly read: Contract; readonly errors: readonly FieldError[] } {
  const read = plainToInstance(contract, sent);
  return { read, errors: fieldErrors(validateSync(read, strictly), parent) };
}

/*
 * For each object the library looks through the rules of every class there is, for what it inherits: with some
 * hundred contracts that is most of the work. A class has the rules that it was declared with.
 */
const storage = getMetadataStorage();
const lookUp = storage.getTargetValidationMetadatas.bind(storage);
const known = new WeakMap<object, ReturnType<typeof lookUp>>();
storage.getTargetValidationMetadatas = (target, schema, always, strictGroups, groups) => {
  if (schema || always || strictGroups || groups?.length)
    return lookUp(target, schema, always, strictGroups, groups);
  let rules = known.get(target);
  if (!rules) known.set(target, (rules = lookUp(target, schema, always, strictGroups, groups)));
  return rules;
};

/** What the rules say, field by field; `parent` is the path of what the fields belong to. */
export function fieldErrors(errors: readonly ValidationError[], parent = ''): readonly FieldError[] {
  return errors.flatMap(({ property, constraints, children }) => {
    const field = parent + property;
    const own = Object.entries(constraints ?? {}).map(([rule, message]) => ({
      field,
      message:
        rule === 'whitelistValidation' ? `There is no field “${property.slice(0, 40)}” here.` : message,
    }));
    return [...own, ...fieldErrors(children ?? [], `${field}.`)];
  });
}

/** 400: what was sent does not have the right shape. The same sentence whoever finds it, page or server. */
export function malformedProblem(
  errors: readonly FieldError[],
): ProblemDetails & { readonly code: string; readonly errors: readonly FieldError[] } {
  const [first] = errors;
  const more = errors.length > 1 ? ` (and ${errors.length - 1} more)` : '';
  return {
    type: '/problems/invalid-input',
    title: 'Something in that needs mending.',
    status: 400,
    code: 'invalid-input',
    ...(first ? { detail: `${first.message}${more}` } : {}),
    errors,
  };
}
