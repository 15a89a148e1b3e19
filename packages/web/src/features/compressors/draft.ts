import { inNamesOfToday } from '@entretien/contracts/light';
import { v7 as newId } from 'uuid';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** A unit that is being commissioned: kept on the device, so that a reload or a call away loses nothing. */
export interface NewCompressorDraft {
  readonly id: string;
  readonly readingId: string;
  readonly rotationId: string;
  readonly planId: string;
  readonly step: number;
  /** The form's values as far as they are typed. */
  readonly values: Readonly<Record<string, unknown>>;
  /** Codes of what was seen to when it was sited. */
  readonly seenTo: readonly string[];
  /** Which way it turned at the first touch of the switch; empty while it was not tried. */
  readonly turns: 'right' | 'wrong' | '';
  /** The way chosen for its first service; empty for the usual one. */
  readonly breakIn: string;
  /** The moment of what was found; empty until it was first sent. */
  readonly startedAt: string;
  /** Whether the unit itself is stored already. */
  readonly isRegistered: boolean;
}

interface DraftActions {
  keep(part: Partial<NewCompressorDraft>): void;
  clear(): void;
}

function blank(): NewCompressorDraft {
  return {
    id: newId(),
    readingId: newId(),
    rotationId: newId(),
    planId: newId(),
    step: 0,
    values: {},
    seenTo: [],
    turns: '',
    breakIn: '',
    startedAt: '',
    isRegistered: false,
  };
}

export const useNewCompressorDraft = create<NewCompressorDraft & DraftActions>()(
  persist(
    (set) => ({
      ...blank(),
      keep: (part) => set(part),
      clear: () => set(blank()),
    }),
    {
      name: 'entretien-new-unit',
      // A draft kept by an earlier release lacks what was added since.
      merge: (kept, fresh) => ({ ...fresh, ...(inNamesOfToday(kept ?? {}) as Partial<NewCompressorDraft>) }),
    },
  ),
);
