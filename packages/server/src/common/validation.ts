import { ValidationPipe, type ValidationError } from '@nestjs/common';
import { fieldErrors, readStrictly, strictly, type Contracts } from '@entretien/contracts';
import { malformed, type ProblemError } from './problem.js';

/** Checks every body and query against its contract; each message stands beside its field. */
export function contractPipe(): ValidationPipe {
  return new ValidationPipe({
    ...strictly,
    transform: true,
    transformOptions: { enableImplicitConversion: false },
    exceptionFactory: refusal,
  });
}

function refusal(errors: ValidationError[]): ProblemError {
  return malformed(fieldErrors(errors));
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
  const { read, errors } = readStrictly(contract, sent, parent);
  if (errors.length > 0) throw malformed(errors);
  return read;
}
