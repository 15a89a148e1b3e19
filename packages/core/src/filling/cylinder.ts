import {
  dayNumberOf,
  describeDay,
  formatDay,
  shiftDays,
  type LocalDate,
  type Problem,
} from '../basics/index.js';
import { formatFigure } from '../quantities/index.js';

/** What a cylinder was cleaned and stamped for. */
export const cylinderGases = ['air', 'oxygen', 'nitrox', 'other'] as const;
export type CylinderGas = (typeof cylinderGases)[number];

/** What a connector and a cylinder valve are marked with: one does not go onto the other (common practice). */
export const connectorBars = [200, 300] as const;

/** A cylinder as it stands in the register, as far as a fill needs it. */
export interface FillCylinder {
  readonly tag: string;
  readonly ratedBar?: number | null | undefined;
  readonly volumeL?: number | null | undefined;
  /** What its valve is marked with. */
  readonly connectorBar?: number | null | undefined;
  /** Air where nothing is said. */
  readonly gas?: CylinderGas | null | undefined;
  /** Of composites: the day after which it is scrap. */
  readonly lifeEndsOn?: LocalDate | null | undefined;
  readonly retiredOn?: LocalDate | null | undefined;
  /** Last day on which it may be filled without a new test; null where no test is on record. */
  readonly testedUntil: LocalDate | null;
  /** Whether the last test or inspection was failed. */
  readonly hasFailed: boolean;
}

/** Why a cylinder must not be filled, whatever the pressure: all that is known, the gravest first. Local rules may ask for more. */
export function cylinderProblems(cylinder: FillCylinder, today: LocalDate): readonly Problem[] {
  const { ratedBar, volumeL, connectorBar, gas, lifeEndsOn, retiredOn, testedUntil, hasFailed } = cylinder;
  const found: Problem[] = [];
  const refuse = (code: string, sentence: string) => found.push({ code, sentence });
  if (retiredOn && retiredOn <= today) refuse('cylinder-retired', 'It is out of use.');
  if (hasFailed) refuse('cylinder-failed', 'Its last examination was failed.');
  if (gas && gas !== 'air')
    refuse(
      'cylinder-other-gas',
      'It is not for air: oil and dust of a compressor burn in what it is cleaned for.',
    );
  if (lifeEndsOn && lifeEndsOn < today)
    refuse('cylinder-past-life', `Its life ended on ${describeDay(lifeEndsOn)}: it is scrap.`);
  if (testedUntil === null)
    refuse('cylinder-untested', 'No test of it is on record, or not how long one holds.');
  else if (testedUntil < today)
    refuse('cylinder-out-of-date', `Its test ran out on ${describeDay(testedUntil)}.`);
  if (!ratedBar) refuse('cylinder-unrated', 'The pressure stamped on it is not on record.');
  if (!volumeL) refuse('cylinder-no-volume', 'Its volume is not on record.');
  if (!connectorBar)
    refuse('cylinder-no-connector', 'What its valve is marked with, 200 or 300 bar, is not on record.');
  return found;
}

/** An examination on record. */
interface Examined {
  readonly kind: 'test' | 'inspection';
  readonly doneOn: LocalDate;
  readonly passed: boolean;
}

/** How often the local law wants a cylinder examined, months; nothing is assumed. */
interface ExaminedEvery {
  readonly testEveryMonths?: number | null | undefined;
  readonly inspectEveryMonths?: number | null | undefined;
}

/** Until when a cylinder may be filled by what is on record of it, and whether it failed last. */
export function testedUntil(
  examinations: readonly Examined[],
  { testEveryMonths, inspectEveryMonths }: ExaminedEvery,
): Pick<FillCylinder, 'testedUntil' | 'hasFailed'> {
  const last = (kind: Examined['kind']) =>
    examinations
      .filter((one) => one.kind === kind)
      .reduce<Examined | null>(
        (latest, one) => (latest === null || one.doneOn >= latest.doneOn ? one : latest),
        null,
      );
  const untilOf = (kind: Examined['kind'], months: number): LocalDate | null => {
    const done = last(kind);
    return done?.passed ? formatDay(shiftDays(dayNumberOf(done.doneOn), { months })) : null;
  };
  const hasFailed = (['test', 'inspection'] as const).some((kind) => last(kind)?.passed === false);
  if (!testEveryMonths) return { testedUntil: null, hasFailed };
  const until = [
    untilOf('test', testEveryMonths),
    ...(inspectEveryMonths ? [untilOf('inspection', inspectEveryMonths)] : []),
  ];
  const isWhole = until.every((day) => day !== null);
  return {
    testedUntil: isWhole ? until.reduce((one, other) => (one < other ? one : other)) : null,
    hasFailed,
  };
}

/** A pressure in a sentence. */
export function bar(figure: number): string {
  return `${formatFigure(figure, { figures: 4, maxDecimals: 1 })} bar`;
}
