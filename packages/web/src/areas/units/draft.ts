import { v7 as newId } from 'uuid';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** A unit that is being added: kept on the device, so that a reload or a call away loses nothing. */
interface NewUnitDraft {
  readonly id: string;
  readonly readingId: string;
  readonly step: number;
  /** The form's values as far as they are typed. */
  readonly values: Readonly<Record<string, unknown>>;
  /** Whether the unit itself is stored already, and only its first reading was refused. */
  readonly isRegistered: boolean;
}

interface DraftActions {
  keep(part: Partial<NewUnitDraft>): void;
  clear(): void;
}

function blank(): NewUnitDraft {
  return { id: newId(), readingId: newId(), step: 0, values: {}, isRegistered: false };
}

export const useNewUnitDraft = create<NewUnitDraft & DraftActions>()(
  persist(
    (set) => ({
      ...blank(),
      keep: (part) => set(part),
      clear: () => set(blank()),
    }),
    { name: 'entretien-new-unit' },
  ),
);
