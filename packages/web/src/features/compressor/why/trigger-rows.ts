import { DAY_MS, dayNumberOf, localDayAt } from '@entretien/core/basics';
import { describeTrigger, type Explanation, type FormatQuantity } from '@entretien/core/plan';
import type { RulerMode, RulerNow } from '../../../components/ruler/ruler-points.js';

/** One trigger on the ruler, in hours or days from now. */
export interface TriggerRow {
  readonly text: string;
  readonly isRuling: boolean;
  /** Last done; null when that is not known. */
  readonly from: number | null;
  /** Where it falls due; null without a point. */
  readonly due: number | null;
  /** How sure that is; null where it is sure. */
  readonly band: { readonly from: number; readonly to: number } | null;
}

/** The triggers of a task as they compete on one ruler: in hours where hours can be counted to each, else in days. */
export function triggerRows(
  { triggers, start }: Explanation,
  mode: RulerMode,
  now: RulerNow,
  timeZone: string,
  format: FormatQuantity,
): { readonly mode: RulerMode; readonly rows: readonly TriggerRow[] } {
  const perDay = now.hoursPerDay ?? 0;
  const canCountHours = perDay > 0 && now.runHours !== null;
  const inHours = mode === 'hours' && canCountHours;
  const fromDays = (days: number) => (inHours ? days * perDay : days);
  const atMoment = (at: number) => fromDays((at - now.at) / DAY_MS);
  const today = localDayAt(now.at, timeZone);
  const rows = triggers
    .filter(({ rule }) => rule.kind !== 'run')
    .map((trigger): TriggerRow => {
      const { dueAtHours, dueOn, likelyAt, earlyAt, lateAt } = trigger;
      const due =
        inHours && dueAtHours !== null
          ? dueAtHours - now.runHours!
          : likelyAt !== null
            ? atMoment(likelyAt)
            : dueOn !== null
              ? fromDays(dayNumberOf(dueOn) - today)
              : null;
      const from =
        start === null
          ? null
          : inHours && dueAtHours !== null && start.hours !== null
            ? start.hours - now.runHours!
            : fromDays(dayNumberOf(start.on) - today);
      // In hours a point by hours is exact: only its date is not.
      const isSure =
        earlyAt === null || lateAt === null || earlyAt === lateAt || (inHours && dueAtHours !== null);
      return {
        text: describeTrigger(trigger.applied, format),
        isRuling: trigger.isRuling,
        from,
        due,
        band: isSure ? null : { from: atMoment(earlyAt), to: atMoment(lateAt) },
      };
    });
  return { mode: inHours ? 'hours' : 'days', rows };
}
