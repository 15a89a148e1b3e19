import type { MeasurementView } from '@entretien/contracts';
import { airPressureAt } from '@entretien/core/air';
import { formatDay, localDayAt } from '@entretien/core/basics';
import {
  fieldsOf,
  judgeCheck,
  type CheckBaseline,
  type CheckDefinition,
  type CheckValues,
  type FieldDefinition,
  type Judgement,
} from '@entretien/core/checks';
import type { DataPlate } from '@entretien/core/machine';
import { usePreferences } from '../../data/preferences.js';
import { readTexts, type CheckTexts } from './check-entries.js';

/** What is typed, understood and judged. */
export interface JudgedTexts {
  readonly fields: readonly FieldDefinition[];
  readonly values: CheckValues;
  readonly problems: Readonly<Record<string, string>>;
  /** Null while something is missing or wrong. */
  readonly judgement: Judgement | null;
  /** What is still missing, as a sentence; null where nothing is. */
  readonly missing: string | null;
  /** The field that is asked for, by its code. */
  readonly asks?: string | undefined;
}

/** Where and when something is judged. */
export interface JudgedAt {
  readonly unit?: DataPlate | undefined;
  readonly site?: JudgedSite | undefined;
  readonly at: number;
  readonly isBaseline?: boolean;
  /** Measurements of the check on the unit, for its baseline. */
  readonly earlier?: readonly MeasurementView[] | undefined;
  /** The baseline itself, where it is known without them. */
  readonly baseline?: CheckBaseline | undefined;
}

/** What of a site a judgement goes by. */
interface JudgedSite {
  readonly timeZone: string;
  readonly altitudeM?: number | undefined;
}

/** Judges what is typed with the code that the server judges it by for the record. */
export function useJudged(check: CheckDefinition, texts: CheckTexts, where: JudgedAt): JudgedTexts {
  const units = usePreferences((preferences) => preferences.units);
  const { unit, site, at, isBaseline = false, earlier, baseline = baselineAt(earlier, at) } = where;
  const fields = fieldsOf(check, unit);
  const { values, problems } = readTexts(fields, texts, units);
  if (Object.keys(problems).length > 0) return { fields, values, problems, judgement: null, missing: null };
  const judged = judgeCheck(check.code, values, {
    plate: unit,
    baseline,
    isBaseline,
    on: formatDay(localDayAt(at, site?.timeZone ?? 'UTC')),
    units,
    atmosphereBarAbs: airPressureAt(site?.altitudeM),
  });
  if (judged.ok) return { fields, values, problems, judgement: judged.value, missing: null };
  const { code, field, sentence } = judged.problem;
  // What is missing is not wrong yet: it is said once, not beside every empty field.
  if (code === 'missing' || field === undefined) {
    return { fields, values, problems, judgement: null, missing: sentence, asks: field };
  }
  return { fields, values, problems: { [field]: sentence }, judgement: null, missing: null };
}

/** The baseline that holds at a moment: the last one that stands. */
export function baselineAt(
  earlier: readonly MeasurementView[] | undefined,
  at: number,
): CheckBaseline | undefined {
  const found = (earlier ?? [])
    .filter(({ baseline, voided, takenAt }) => baseline && voided === undefined && Date.parse(takenAt) <= at)
    .sort((a, b) => Date.parse(b.takenAt) - Date.parse(a.takenAt))[0];
  return found && { values: found.values, figure: found.judgement.figure?.value ?? null };
}
