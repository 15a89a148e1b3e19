import { ValidationPipe, type ValidationError } from '@nestjs/common';
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

/** One row of many against its contract; throws the same problem as a whole body would. */
export function checked<Row extends object>(contract: new () => Row, sent: object): Row {
  const row = plainToInstance(contract, sent);
  const errors = validateSync(row, strictly);
  if (errors.length > 0) throw refusal(errors);
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
