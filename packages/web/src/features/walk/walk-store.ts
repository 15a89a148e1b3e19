import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** A reading saved on this walk: what a correction of it must name. */
export interface SavedReading {
  readonly id: string;
  readonly takenAt: number;
  readonly hours: number;
}

interface WalkState {
  /** What stands in the fields, by unit: it survives a reload. */
  readonly drafts: Readonly<Record<string, string>>;
  readonly saved: Readonly<Record<string, SavedReading>>;
  setDraft(compressorId: string, text: string): void;
  setSaved(compressorId: string, reading: SavedReading): void;
}

export const useWalkStore = create<WalkState>()(
  persist(
    (set) => ({
      drafts: {},
      saved: {},
      setDraft: (compressorId, text) =>
        set(({ drafts }) => ({ drafts: { ...drafts, [compressorId]: text } })),
      setSaved: (compressorId, reading) =>
        set(({ drafts, saved }) => ({
          drafts: { ...drafts, [compressorId]: '' },
          saved: { ...saved, [compressorId]: reading },
        })),
    }),
    { name: 'entretien-walk' },
  ),
);
