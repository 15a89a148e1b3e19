import type { QuantityKind } from '@entretien/core/quantities';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** What the person at this device has chosen; kept on the device. */
interface Preferences {
  /** What every ruler counts in. */
  readonly rulerIn: 'hours' | 'days';
  /** Who is working; null is the default person. */
  readonly personId: string | null;
  /** Unit of measure by quantity; the stored unit where none is chosen. */
  readonly units: Readonly<Partial<Record<QuantityKind, string>>>;
  /** Whether single letters act as keys. */
  readonly letterKeys: boolean;
}

interface PreferenceActions {
  setRulerIn(rulerIn: Preferences['rulerIn']): void;
  toggleRuler(): void;
  setPerson(personId: string | null): void;
  setUnit(kind: QuantityKind, code: string): void;
  setLetterKeys(on: boolean): void;
}

const riseUnit: Readonly<Record<string, string>> = { '°C': 'K', '°F': '°F rise' };

export const usePreferences = create<Preferences & PreferenceActions>()(
  persist(
    (set) => ({
      rulerIn: 'days',
      personId: null,
      units: {},
      letterKeys: true,
      setRulerIn: (rulerIn) => set({ rulerIn }),
      toggleRuler: () => set(({ rulerIn }) => ({ rulerIn: rulerIn === 'days' ? 'hours' : 'days' })),
      setPerson: (personId) => set({ personId }),
      setUnit: (kind, code) =>
        set(({ units }) => {
          const chosen = { ...units, [kind]: code };
          // Differences of temperature go with temperatures: nobody reads one in °F and the other in K.
          return {
            units: kind === 'temperature' ? { ...chosen, 'temperature-rise': riseUnit[code] ?? 'K' } : chosen,
          };
        }),
      setLetterKeys: (letterKeys) => set({ letterKeys }),
    }),
    { name: 'entretien-preferences' },
  ),
);
