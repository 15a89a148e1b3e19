import type { CheckValues } from '@entretien/core/checks';
import type { IsolateBody, RestartBody } from '@entretien/core/isolation';
import { useState } from 'react';
import { v7 as newId } from 'uuid';

/** Work at a point of use as this device knows it: it outlasts a page that is left, and a connection that is gone. */
export interface PointDraft {
  readonly id: string;
  /** Whose work it is: a lock is one person’s. */
  readonly by: string;
  /** What is meant to be done. */
  readonly chosen: readonly string[];
  readonly tasks: readonly { readonly code: string; readonly at: number }[];
  readonly looks: readonly { readonly check: string; readonly values: CheckValues; readonly at: number }[];
  readonly steps: readonly { readonly at: number; readonly body: IsolateBody | RestartBody }[];
  /** What was found on the way. */
  readonly note?: string;
}

export function usePointDraft(pointId: string, by: string) {
  const key = `entretien-point-${pointId}`;
  const [draft, setDraft] = useState<PointDraft | null>(() => read(key));
  const keep = (next: PointDraft) => {
    setDraft(next);
    localStorage.setItem(key, JSON.stringify(next));
  };
  return {
    /** Only of who began it: what somebody else shut off does not hold for them. */
    draft: draft?.by === by ? draft : null,
    others: draft !== null && draft.by !== by,
    begin: (chosen: readonly string[]) => keep({ id: newId(), by, chosen, tasks: [], looks: [], steps: [] }),
    put: (changes: Partial<PointDraft>) => draft && keep({ ...draft, ...changes }),
    clear: () => {
      localStorage.removeItem(key);
      setDraft(null);
    },
  };
}

function read(key: string): PointDraft | null {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as PointDraft | null;
    return kept !== null && [kept.steps, kept.tasks, kept.looks, kept.chosen].every(Array.isArray)
      ? kept
      : null;
  } catch {
    // Kept by another release, or cut short: the work begins again.
    return null;
  }
}
