import { ValidationPipe, type ValidationError } from '@nestjs/common';
import type { Contracts } from '@entretien/contracts';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { malformed, type FieldError, type ProblemError } from './problem.js';

/**
 * Checks every body and query against its contract: unknown fields are refused, nothing is converted (a JSON
 * string is not a number), and each message stands beside its field.
 */
export function contractPipe(): ValidationPipe {
  return new ValidationPipe({
    ...strictly,
    transform: true,
    transformOptions: { enableImplicitConversion: false },
    exceptionFactory: refusal,
  });
}

const strictly = {
  whitelist: true,
  forbidNonWhitelisted: true,
  forbidUnknownValues: true,
  stopAtFirstError: true,
  validationError: { target: false, value: false },
};

function refusal(errors: ValidationError[]): ProblemError {
  return malformed(errors.flatMap((error) => fieldErrors(error)));
}

/**
 * What stands under a field against the contract of its kind; a kind that nobody knows is refused. What is null is
 * left out.
 */
export function checkedByKind<Field extends string>(
  contracts: Contracts,
  { kind, ...sent }: { readonly kind: string } & Readonly<Record<Field, object>>,
  field: Field,
): object {
  const row = checked(
    contractOf(contracts, kind),
    (sent as unknown as Record<Field, object>)[field],
    `${field}.`,
  );
  return Object.fromEntries(Object.entries(row).filter(([, value]) => value !== null && value !== undefined));
}

/** A whole body against the contract of the kind that it says it is. */
export function checkedBody(contracts: Contracts, body: object): object {
  const { kind } = body as { readonly kind?: unknown };
  return checked(contractOf(contracts, typeof kind === 'string' ? kind : ''), body);
}

function contractOf(contracts: Contracts, kind: string): new () => object {
  if (Object.hasOwn(contracts, kind)) return contracts[kind]!;
  const known = Object.keys(contracts).join(', ');
  throw malformed([{ field: 'kind', message: `The kind is one of ${known}.` }]);
}

/** One row of many against its contract; throws the same problem as a whole body would. */
export function checked<Row extends object>(contract: new () => Row, sent: object, parent = ''): Row {
  const row = plainToInstance(contract, sent);
  const errors = validateSync(row, strictly);
  if (errors.length > 0) throw malformed(errors.flatMap((error) => fieldErrors(error, parent)));
  return row;
}

function fieldErrors(error: ValidationError, parent = ''): FieldError[] {
  const field = parent + error.property;
  const own = Object.entries(error.constraints ?? {}).map(([rule, message]) => ({
    field,
    message:
      rule === 'whitelistValidation' ? `There is no field “${error.property.slice(0, 40)}” here.` : message,
  }));
  return [...own, ...(error.children ?? []).flatMap((child) => fieldErrors(child, `${field}.`))];
}
