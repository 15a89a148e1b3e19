import type { FillLook } from '@entretien/core/filling';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { emptyEntry, type QuantityEntry } from '../../components/QuantityField.js';

/** A fill under way, as this device knows it: it outlasts a page that is left, and a connection that is gone. */
export interface FillDraft {
  readonly id: string;
  readonly vesselId: string | null;
  readonly connectorBar: number | null;
  /** What the CO monitor shows, as typed. */
  readonly co: string;
  readonly from: QuantityEntry;
  /** Where it is to stop; empty where nobody changed it. */
  readonly aim: QuantityEntry;
  readonly looked: readonly FillLook[];
  readonly startedAt: number | null;
  readonly endedAt: number | null;
  readonly outcome: 'full' | 'stopped' | null;
  readonly end: QuantityEntry;
  readonly wall: QuantityEntry;
}

export function newDraft(): FillDraft {
  return {
    id: newId(),
    vesselId: null,
    connectorBar: null,
    co: '',
    from: emptyEntry,
    aim: emptyEntry,
    looked: [],
    startedAt: null,
    endedAt: null,
    outcome: null,
    end: emptyEntry,
    wall: emptyEntry,
  };
}

/** The fill that is under way at a set, kept on the device until it is on record or given up. */
export function useDraft(compressorId: string) {
  const key = `entretien-fill-${compressorId}`;
  const [draft, setDraft] = useState<FillDraft>(() => read(key));
  const put = (changes: Partial<FillDraft>) => {
    const next = { ...draft, ...changes };
    setDraft(next);
    localStorage.setItem(key, JSON.stringify(next));
  };
  const clear = () => {
    localStorage.removeItem(key);
    setDraft(newDraft());
  };
  /** It is on record: what is shown stays, what the device keeps goes. */
  const forget = () => localStorage.removeItem(key);
  return { draft, put, clear, forget };
}

/** What the CO monitor shows, ppm; null where nothing was read, undefined where it is no figure. */
export function readCo(text: string): number | null | undefined {
  const typed = text.trim().replace(',', '.');
  if (typed === '') return null;
  return /^\d{1,3}(\.\d)?$/.test(typed) ? Number(typed) : undefined;
}

function read(key: string): FillDraft {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as Partial<FillDraft> | null;
    return { ...newDraft(), ...kept };
  } catch {
    // Kept by another release, or cut short: the fill begins again.
    return newDraft();
  }
}
