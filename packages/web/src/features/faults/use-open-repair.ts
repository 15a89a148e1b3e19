import {
  entryContracts,
  OpenRepair,
  type AddRepairEntry,
  type CompressorView,
  type RepairView,
} from '@entretien/contracts';
import { causeOn, describeSearch, symptomByCode, type CauseCode } from '@entretien/core/faults';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { currentInstantText } from '../../data/clock.js';
import { usePostOrKeep } from '../../data/queries.js';
import { SESSION } from '../../data/session.js';
import type { Search } from './searches.js';

/** Puts a search on record: the repair that it opens, what was answered, and the cause that it came to. */
export function useOpenRepair(unit: CompressorView, search: Search, timeZone: string) {
  const [made] = useState(() => newId());
  const repairId = search.repairId ?? made;
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
      foundAt: currentInstantText(),
      ...(station === null ? {} : { station }),
    });
    return sent !== null;
  };
  const finish = async (cause: CauseCode | null): Promise<boolean> => {
    const isOpen = await openRepair(cause);
    const { symptom } = search;
    const answers = search.answers.map(({ test, answer }) => ({ test, answer }));
    const entry = () => ({ id: newId(), at: currentInstantText(), session: SESSION });
    const told = await add.mutateAsync({
      ...entry(),
      kind: 'search',
      text: describeSearch({ symptom, answers }),
      search: { symptom, answers },
    });
    if (cause === null) return isOpen && told !== null;
    const named = await add.mutateAsync({
      ...entry(),
      kind: 'cause',
      text: causeOn(cause, unit).name,
      cause,
    });
    return isOpen && told !== null && named !== null;
  };
  return {
    repairId,
    openRepair,
    finish,
    isSending: open.isPending || add.isPending,
    error: open.error ?? add.error,
  };
}
