import { err, ok, type Result } from '../basics/index.js';
import { missingSentence, type CheckValues, type FieldDefinition } from '../checks/index.js';
import type { DataPlate } from '../machine/index.js';

/** What stands in the fields of a bench, those of the data plate filled in. */
export class BenchValues {
  constructor(
    private readonly fields: readonly FieldDefinition[],
    private readonly values: CheckValues,
    private readonly plate: DataPlate | undefined,
  ) {}

  number(code: string): number | undefined {
    const field = this.fields.find((one) => one.code === code);
    const value = this.values[code] ?? (field?.plate && this.plate?.[field.plate]);
    return typeof value === 'number' ? value : undefined;
  }

  text(code: string): string | undefined {
    const value = this.values[code];
    return typeof value === 'string' ? value : undefined;
  }

  /**
   * Figures that a formula cannot do without.
   *
   * @returns them by code; `missing` beside the first that is not there
   */
  need<Code extends string>(...codes: readonly Code[]): Result<Readonly<Record<Code, number>>> {
    const missing = codes.find((code) => this.number(code) === undefined);
    if (missing === undefined) {
      return ok(Object.fromEntries(codes.map((code) => [code, this.number(code)!])) as Record<Code, number>);
    }
    const field = this.fields.find(({ code }) => code === missing);
    return err('missing', missingSentence(field ?? { as: 'number', name: missing }), missing);
  }
}

/** A point of a curve. */
export interface CurvePoint {
  readonly x: number;
  readonly y: number;
}

/** Evenly spaced figures, both ends among them. */
export function steps(from: number, to: number, count: number): number[] {
  return Array.from({ length: count }, (_, index) => from + ((to - from) * index) / (count - 1));
}
