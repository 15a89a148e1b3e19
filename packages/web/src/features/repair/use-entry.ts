import { entryContracts, type AddRepairEntry, type RepairView } from '@entretien/contracts';
import { useRef } from 'react';
import { v7 as newId } from 'uuid';
import { currentInstantText } from '../../data/clock.js';
import { usePost } from '../../data/queries.js';

/** Sends an entry of a repair, read by the contract of its kind. */
export function useAdd(repair: RepairView) {
  return usePost<AddRepairEntry, RepairView>(
    { of: ({ kind }) => entryContracts[kind] },
    `/repairs/${repair.id}/entries`,
  );
}

export function newFact() {
  return { id: newId(), at: currentInstantText() };
}

/**
 * The id and moment of what is sent next: made when it is first sent, for the order of things is theirs, and
 * kept until it was taken, for sent again after a lost answer it must be the same fact.
 */
export function useFactOnce() {
  const kept = useRef<ReturnType<typeof newFact> | null>(null);
  return {
    made: () => (kept.current ??= newFact()),
    forget: () => {
      kept.current = null;
    },
  };
}
