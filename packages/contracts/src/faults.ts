import { causeCodes, faultTests, isFaultAnswer, symptomByCode } from '@entretien/core/faults';
import { IsIn, ValidateBy } from 'class-validator';

/** A cause that the fault finder knows. */
export function IsCause(): PropertyDecorator {
  return IsIn(causeCodes, { message: 'It is one of the causes that the fault finder knows.' });
}

function isGiven(value: unknown): boolean {
  if (typeof value !== 'object' || value === null) return false;
  const { test, answer, ...more } = value as Record<string, unknown>;
  return (
    Object.keys(more).length === 0 &&
    typeof test === 'string' &&
    typeof answer === 'string' &&
    isFaultAnswer({ test, answer })
  );
}

function isFaultSearch(value: unknown): boolean {
  if (typeof value !== 'object' || value === null) return false;
  const { symptom, answers, ...more } = value as Record<string, unknown>;
  return (
    Object.keys(more).length === 0 &&
    typeof symptom === 'string' &&
    symptomByCode(symptom) !== undefined &&
    Array.isArray(answers) &&
    answers.length <= faultTests.length &&
    answers.every(isGiven) &&
    new Set((answers as { test: string }[]).map(({ test }) => test)).size === answers.length
  );
}

/** A symptom with answers, each test answered once. */
export function IsFaultSearch(): PropertyDecorator {
  return ValidateBy({
    name: 'isFaultSearch',
    validator: {
      validate: isFaultSearch,
      defaultMessage: () =>
        'A search is a symptom with its answers, each test answered once, by their codes.',
    },
  });
}

/** How often each cause was confirmed behind each symptom: what workshops learn. */
export interface FaultCountsView {
  readonly counts: Readonly<Record<string, Readonly<Record<string, number>>>>;
}
