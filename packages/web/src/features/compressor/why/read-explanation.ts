import type { TaskStandingView } from '@entretien/contracts';
import type { Explanation } from '@entretien/core/plan';

/** The reasons of a standing as the core has them, so that they can be said in the reader's own units. */
export function readExplanation(task: TaskStandingView): Explanation | null {
  const { explanation, lastDoneAt, ...due } = task;
  if (!explanation) return null;
  const { lines: _said, triggers, ...rest } = explanation;
  const moment = (text: string | null) => (text === null ? null : Date.parse(text));
  const read = triggers.map(({ earlyAt, likelyAt, lateAt, measured, ...trigger }) => ({
    ...trigger,
    earlyAt: moment(earlyAt),
    likelyAt: moment(likelyAt),
    lateAt: moment(lateAt),
    measured: measured && { ...measured, latestAt: Date.parse(measured.latestAt) },
  }));
  const ruling = read.find(({ isRuling }) => isRuling);
  return {
    ...rest,
    triggers: read,
    due: {
      ...due,
      lastDoneAt: moment(lastDoneAt),
      likelyAt: ruling?.likelyAt ?? null,
      earlyAt: ruling?.earlyAt ?? null,
      lateAt: ruling?.lateAt ?? null,
    },
  };
}
