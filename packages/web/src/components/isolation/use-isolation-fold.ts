import { DEFAULT_PERSON_ID, type CompressorView } from '@entretien/contracts';
import {
  isolationOf,
  missingFor,
  type Guarded,
  type IsolationFold,
  type Missing,
} from '@entretien/core/isolation';
import { usePreferences } from '../../data/preferences.js';
import { useIsolation } from '../../data/queries.js';
import { SESSION } from '../../data/session.js';
import { useNow } from '../use-now.js';

/** The isolation of a unit as the guard sees it now, for whoever works on this page. */
export interface IsolationNow {
  readonly guarded: Guarded;
  readonly fold: IsolationFold;
  readonly by: string;
  readonly now: number;
  /** Moment of the last thing that was said of it; 0 where nothing was. */
  readonly lastAt: number;
  /** What is missing to open something; null: everything. */
  readonly missingFor: (opens: readonly string[] | null) => readonly Missing[];
}

/** @returns null until it is known what was said of its isolation */
export function useIsolationFold(unit: CompressorView): IsolationNow | null {
  const { data } = useIsolation(unit.id);
  const by = usePreferences((preferences) => preferences.personId) ?? DEFAULT_PERSON_ID;
  const minute = useNow();
  if (!data) return null;
  const guarded = { plate: unit, pauseMinutes: data.pauseMinutes, timeZone: data.timeZone };
  const fold = isolationOf(guarded, data.events);
  const lastAt = data.events.at(-1)?.doneAt ?? 0;
  const now = Math.max(minute, lastAt);
  const asking = { at: now, by, session: SESSION };
  return { guarded, fold, by, now, lastAt, missingFor: (opens) => missingFor(guarded, fold, opens, asking) };
}
