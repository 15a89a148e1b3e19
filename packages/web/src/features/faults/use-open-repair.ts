import {
  entryContracts,
  OpenRepair,
  type AddRepairEntry,
  type CompressorView,
  type RepairView,
} from '@entretien/contracts';
import { causeOn, describeSearch, symptomByCode, type CauseCode } from '@entretien/core/faults';
import { useRef, useState } from 'react';
import { v7 as newId } from 'uuid';
import { currentInstantText } from '../../data/clock.js';
import { usePostOrKeep } from '../../data/queries.js';
import { SESSION } from '../../data/session.js';
import { useSearches, type Search } from './searches.js';

/** Puts a search on record: the repair that it opens, what was answered, and the cause that it came to. */
export function useOpenRepair(unit: CompressorView, search: Search, timeZone: string) {
  const [made] = useState(() => newId());
  const repairId = search.repairId ?? made;
  const change = useSearches((searches) => searches.change);
  const factOf = useFacts();
  const seen = symptomByCode(search.symptom)!.text;
  const waiting = { tag: unit.tag, timeZone, text: seen, page: `/units/${unit.id}/faults` };
  const open = usePostOrKeep<OpenRepair, RepairView>(OpenRepair, `/compressors/${unit.id}/repairs`, waiting);
  const add = usePostOrKeep<AddRepairEntry, RepairView>(
    { of: ({ kind }) => entryContracts[kind] },
    `/repairs/${repairId}/entries`,
    waiting,
  );
  /** @returns whether the server has it; false where it waits on this device */
  const openRepair = async (cause: CauseCode | null): Promise<boolean> => {
    if (search.repairId !== null) return true;
    const station = cause === null ? null : causeOn(cause, unit).station;
    const sent = await open.mutateAsync({
      id: repairId,
      kind: 'fault',
      found: seen,
      foundAt: factOf('repair').at,
      ...(station === null ? {} : { station }),
    });
    // From here on it is that repair, whatever becomes of the rest.
    change(unit.id, { repairId });
    return sent !== null;
  };
  const finish = async (cause: CauseCode | null): Promise<boolean> => {
    const isOpen = await openRepair(cause);
    const told = {
      symptom: search.symptom,
      answers: search.answers.map(({ test, answer }) => ({ test, answer })),
    };
    const text = describeSearch(told);
    const entries: AddRepairEntry[] = [
      { ...factOf(text), session: SESSION, kind: 'search', text, search: told },
      ...(cause === null
        ? []
        : [
            {
              ...factOf(cause),
              session: SESSION,
              kind: 'cause' as const,
              text: causeOn(cause, unit).name,
              cause,
            },
          ]),
    ];
    let isSent = isOpen;
    for (const entry of entries) isSent = (await add.mutateAsync(entry)) !== null && isSent;
    return isSent;
  };
  return {
    repairId,
    openRepair,
    finish,
    isSending: open.isPending || add.isPending,
    error: open.error ?? add.error,
  };
}

/** Id and moment of what is said, the same for the same: sent again after a lost answer it is recorded once. */
function useFacts() {
  const facts = useRef(new Map<string, { readonly id: string; readonly at: string }>());
  return (said: string) => {
    const known = facts.current.get(said) ?? { id: newId(), at: currentInstantText() };
    facts.current.set(said, known);
    return known;
  };
}
