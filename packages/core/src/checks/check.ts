import type { LocalDate, Result } from '../basics/index.js';
import type { DataPlate } from '../machine/index.js';
import type { QuantityKind } from '../quantities/index.js';

/** good; watch: shorten the interval and look again; act: fix in this visit; stop: do not run. */
export const verdicts = ['good', 'watch', 'act', 'stop'] as const;
export type Verdict = (typeof verdicts)[number];

/** Where a limit comes from. */
export const limitOrigins = ['book', 'label', 'plate', 'standard', 'baseline', 'practice'] as const;
export type LimitOrigin = (typeof limitOrigins)[number];

interface FieldBase {
  /** Stable code: the key under which the figure is sent. */
  readonly code: string;
  /** What is asked for, as it stands beside the field. */
  readonly name: string;
  /** May be left out. */
  readonly optional?: true;
  /** Taken from the data plate where it is not typed. */
  readonly plate?: keyof DataPlate;
  /** A limit or label that stays the same from one measurement to the next. */
  readonly stays?: true;
  /** Only on machines with at least so many stages. */
  readonly stage?: number;
  /** Seldom needed: behind one press where it is empty. */
  readonly more?: true;
  /** Only shown once the answer is asked for. */
  readonly onAsking?: true;
  /** Only on such machines. */
  readonly onlyOn?: (plate: DataPlate) => boolean;
  readonly hint?: string;
}

export interface QuantityFieldDefinition extends FieldBase {
  readonly as: 'quantity';
  readonly quantity: QuantityKind;
  /** Bounds in the stored unit. */
  readonly min: number;
  readonly max: number;
}

/** A figure whose unit nobody converts: seconds, ppm, per cent, mg/m³. */
export interface NumberFieldDefinition extends FieldBase {
  readonly as: 'number';
  readonly unit: string;
  readonly min: number;
  readonly max: number;
}

export interface ChoiceFieldDefinition extends FieldBase {
  readonly as: 'choice';
  readonly options: readonly { readonly code: string; readonly name: string }[];
}

export interface DateFieldDefinition extends FieldBase {
  readonly as: 'date';
}

/** A few words, like who decided and why. */
export interface TextFieldDefinition extends FieldBase {
  readonly as: 'text';
  readonly maxLength: number;
}

/** A figure or finding that a check asks for. */
export type FieldDefinition =
  | QuantityFieldDefinition
  | NumberFieldDefinition
  | ChoiceFieldDefinition
  | DateFieldDefinition
  | TextFieldDefinition;

/** What was measured, by field. */
export type CheckValues = Readonly<Record<string, number | string>>;

/** The one figure that is charted over the run hours. */
export interface CheckFigure {
  readonly name: string;
  /** Converted like any quantity; left out for a figure with a unit of its own. */
  readonly quantity?: QuantityKind;
  readonly unit?: string;
  /** Which way it goes when the machine wears; `either` for a figure with a limit on both sides. */
  readonly worse: 'higher' | 'lower' | 'either';
  /** Field without which a measurement has no such figure: releases before kept another one for it. */
  readonly needs?: string;
  /** Standard uncertainty of one measurement, where the check does not reckon it (common practice). */
  readonly noise: number;
}

/** The limit that a verdict stands on. */
export interface JudgedLimit {
  /** Figure of the limit in the unit of the check's figure; null where it is a finding and no figure. */
  readonly value: number | null;
  readonly text: string;
  readonly origin: LimitOrigin;
}

/** What to do next. */
export interface Suggestion {
  /** Code of a service task. */
  readonly task?: string;
  /** Code of a station to look at. */
  readonly station?: string;
  readonly text: string;
}

/** A figure that came out of what was measured. */
export interface JudgedFigure {
  readonly name: string;
  readonly value: number;
  readonly quantity?: QuantityKind;
  readonly unit?: string;
}

/** A measurement judged. */
export interface Judgement {
  readonly verdict: Verdict;
  /** Nothing to compare it with yet: the verdict is no more than that nothing speaks against it. */
  readonly noComparison?: true;
  /** The reason in a sentence: measured value, limit and unit in it. */
  readonly reason: string;
  /** Null where nothing limits it, like a first baseline. */
  readonly limit: JudgedLimit | null;
  /** The charted figure, with the standard uncertainty of measuring it. */
  readonly figure: { readonly value: number; readonly uncertainty: number } | null;
  readonly figures: readonly JudgedFigure[];
  readonly suggests: readonly Suggestion[];
}

/** What is kept of a judgement beside the work that it was for. */
export interface JudgedOutcome {
  readonly verdict: Verdict;
  readonly reason: string;
  readonly figure: number | null;
  readonly noComparison?: true;
}

/** The charted figure of a measurement on record; null where it has none, or one of another kind. */
export function chartedFigure(
  figure: CheckFigure | undefined,
  { values, judgement }: { readonly values: CheckValues; readonly judgement: Pick<Judgement, 'figure'> },
): Judgement['figure'] {
  if (figure === undefined || (figure.needs !== undefined && values[figure.needs] === undefined)) return null;
  return judgement.figure;
}

/** A baseline that later measurements of the check are compared with. */
export interface CheckBaseline {
  readonly values: CheckValues;
  readonly figure: number | null;
}

/** What a judging function is given: figures within their bounds, those of the data plate filled in. */
export interface CheckSubject {
  /** A figure that was measured, or stands on the plate. */
  number(code: string): number | undefined;
  /** A figure that the check cannot do without. */
  need(code: string): number;
  text(code: string): string | undefined;
  readonly plate: DataPlate | undefined;
  readonly baseline: CheckBaseline | undefined;
  /** Whether this one is to be the baseline. */
  readonly isBaseline: boolean;
  readonly atmosphereBarAbs: number;
  readonly on: LocalDate;
  /** Writes a figure with its unit, as the reader likes it. */
  format(value: number, quantity: QuantityKind): string;
}

/** One check of the library. */
export interface CheckDefinition {
  readonly code: string;
  readonly name: string;
  /** How it is done, in a sentence; more of it may stand on the plate of a machine. */
  readonly how: string | ((plate: DataPlate | undefined) => string);
  /** The hazard, where there is one. */
  readonly caution?: string | ((plate: DataPlate | undefined) => string);
  /** What has to be opened for it, by the codes of isolation. */
  readonly opens?: readonly string[];
  /** Code of the station where it is done on a machine. */
  readonly station: (plate: DataPlate) => string;
  readonly applies: (plate: DataPlate) => boolean;
  readonly fields: readonly FieldDefinition[];
  readonly figure?: CheckFigure;
  /** Service tasks after which its trend begins anew. */
  readonly resetBy?: readonly string[];
  readonly judge: (subject: CheckSubject) => Result<Judgement>;
}
