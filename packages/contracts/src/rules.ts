import { isTimeZone, parseInstant, parseLocalDate, type Result } from '@entretien/core/basics';
import { parseClosure } from '@entretien/core/hours';
import {
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateBy,
  ValidateIf,
  type ValidationOptions,
} from 'class-validator';

/** Longest texts that any field takes. */
export const textLimits = { tag: 24, short: 80, name: 120, note: 2000 } as const;

type Decorator = PropertyDecorator;

/** Several rules as one. */
export function all(...decorators: Decorator[]): Decorator {
  return (target, property) => decorators.forEach((decorate) => decorate(target, property));
}

const ID = /^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/i;

/** Whether a text has the form of an id. */
export function isId(text: unknown): boolean {
  return typeof text === 'string' && ID.test(text);
}

/** The identity of a fact, made by whoever creates it: a UUID of any version. */
export function IsId(options?: ValidationOptions): Decorator {
  return Matches(ID, { message: 'This must be a UUID.', ...options });
}

/** A text that one of the core's readers understands; its own sentence says what is wrong. */
function isRead(
  name: string,
  read: (text: string) => Result<unknown>,
  options?: ValidationOptions,
): Decorator {
  const wrong = (value: unknown) => read(typeof value === 'string' ? value : '');
  return ValidateBy(
    {
      name,
      validator: {
        validate: (value) => typeof value === 'string' && read(value).ok,
        defaultMessage: (args) => {
          const values: unknown[] = options?.each && Array.isArray(args?.value) ? args.value : [args?.value];
          const outcome = values.map(wrong).find((one) => !one.ok);
          return outcome && !outcome.ok ? outcome.problem.sentence : '';
        },
      },
    },
    options,
  );
}

/** A moment in UTC, strictly: 30 February is refused. */
export function IsInstant(options?: ValidationOptions): Decorator {
  return isRead('isInstant', parseInstant, options);
}

/** A local date, strictly. */
export function IsLocalDate(options?: ValidationOptions): Decorator {
  return isRead('isLocalDate', parseLocalDate, options);
}

/** A list of closures, each by its first and last day. */
export function IsClosure(): Decorator {
  return isRead('isClosure', parseClosure, { each: true });
}

/** A time zone of the IANA database. */
export function IsTimeZone(): Decorator {
  return ValidateBy({
    name: 'isTimeZone',
    validator: {
      validate: (value) => typeof value === 'string' && value.length <= 64 && isTimeZone(value),
      defaultMessage: () => 'Choose a time zone like Europe/Zurich.',
    },
  });
}

/** A finite number within bounds; `what` names it in the sentence. */
export function IsFigure(what: string, min: number, max: number): Decorator {
  const message = `${what} must be a number from ${min} to ${max.toLocaleString('en')}.`;
  return all(
    IsNumber({ allowNaN: false, allowInfinity: false }, { message }),
    Min(min, { message }),
    Max(max, { message }),
  );
}

/** A whole number within bounds; one sentence for whatever is wrong with it. */
export function IsWhole(message: string, min: number, max: number): Decorator {
  return all(IsInt({ message }), Min(min, { message }), Max(max, { message }));
}

/** Lines may be broken and columns set; anything else that no key writes is no part of a text. */
// eslint-disable-next-line no-control-regex -- that is what it is about
const NO_CONTROLS = /^[^\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f]*$/;

/** A text that is not blank and not too long. */
export function IsText(what: string, longest: number): Decorator {
  return all(
    IsString({ message: `${what} must be a text.` }),
    MinLength(1, { message: `${what} must not be empty.` }),
    // Something that can be seen: a blank of no width is a blank.
    Matches(/[\p{L}\p{N}\p{P}\p{S}]/u, { message: `${what} must not be blank.` }),
    Matches(NO_CONTROLS, { message: `${what} must not hold control characters.` }),
    MaxLength(longest, { message: `${what} can be ${longest} characters long at most.` }),
  );
}

const TASK_CODE = /^[a-z][a-z0-9-]{1,39}$/;

/** Whether a text has the form of a task's code. */
export function isTaskCode(text: unknown): boolean {
  return typeof text === 'string' && TASK_CODE.test(text);
}

/** A task by its code. */
export function IsTaskCode(options?: ValidationOptions): Decorator {
  return Matches(TASK_CODE, { ...options, message: 'A task is named by its code, like oil-change.' });
}

/** Left out, or null. */
export function Optional(): Decorator {
  return IsOptional();
}

/** May be left out, but when given must satisfy its rules: null is not a value of it. */
export function Omittable(): Decorator {
  return ValidateIf((_object, value) => value !== undefined);
}
