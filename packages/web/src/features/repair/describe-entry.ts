import type { RepairEntryView } from '@entretien/contracts';
import { formatFigure } from '@entretien/core/quantities';
import { checkByCode } from '@entretien/core/checks';
import { procedureStepName } from '@entretien/core/repairs';

/** An entry of a repair in a line. */
export function describeEntry({
  kind,
  text,
  check,
  outcome,
  minutes,
  count,
  note,
}: Pick<RepairEntryView, 'kind' | 'text' | 'check' | 'outcome' | 'minutes' | 'count' | 'note'>): string {
  const said =
    kind === 'proof'
      ? `${checkByCode(check ?? '')?.name ?? check}: ${outcome?.reason ?? text}`
      : kind === 'step'
        ? procedureStepName(text)
        : kind === 'close'
          ? `Closed: ${text}`
          : text;
  const times = kind === 'part' && count !== undefined ? `${formatFigure(count)} × ` : '';
  const more = [minutes === undefined ? null : `${minutes} min`, note ?? null].filter((one) => one !== null);
  return [`${times}${said}`, ...more].join(', ');
}
