import type { CauseCode, GivenAnswer, MachineState } from '@entretien/core/faults';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** An answer, and the measurement on record that gave it, where one did. */
export interface SearchAnswer extends GivenAnswer {
  readonly measurement?: string | undefined;
}

/** A search for a cause on one unit, as it stands on this device. */
export interface Search {
  readonly compressorId: string;
  readonly tag: string;
  readonly symptom: string;
  readonly answers: readonly SearchAnswer[];
  readonly state: MachineState;
  readonly isElectrician: boolean;
  /** What comes before every test was confirmed, where there is such a thing. */
  readonly isClear: boolean;
  /** The repair that it belongs to, once there is one. */
  readonly repairId: string | null;
  /** What was put right already and did not mend it. */
  readonly mended: readonly CauseCode[];
  readonly begunAt: number;
}

interface Searches {
  readonly items: readonly Search[];
  /** Whether what the workshop confirmed counts beside practice. */
  readonly learns: boolean;
  begin(search: Search): void;
  change(compressorId: string, change: Partial<Search>): void;
  end(compressorId: string): void;
  setLearns(learns: boolean): void;
}

/** So many are kept; the oldest go. */
const MOST = 40;

/** Searches under way, kept on the device: a reload or a lost connection takes none of them. */
export const useSearches = create<Searches>()(
  persist(
    (set) => ({
      items: [],
      learns: true,
      begin: (search) =>
        set(({ items }) => ({
          items: [search, ...items.filter(({ compressorId }) => compressorId !== search.compressorId)].slice(
            0,
            MOST,
          ),
        })),
      change: (compressorId, change) =>
        set(({ items }) => ({
          items: items.map((one) => (one.compressorId === compressorId ? { ...one, ...change } : one)),
        })),
      end: (compressorId) =>
        set(({ items }) => ({ items: items.filter((one) => one.compressorId !== compressorId) })),
      setLearns: (learns) => set({ learns }),
    }),
    { name: 'entretien-fault-searches', version: 1 },
  ),
);

export function useSearch(compressorId: string): Search | undefined {
  return useSearches(({ items }) => items.find((one) => one.compressorId === compressorId));
}
