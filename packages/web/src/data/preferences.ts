import { formatsCode, readFormatsFrom, usualFormats, type Formats } from '@entretien/core/basics';
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
  /** How days and figures are written. */
  readonly formats: Formats;
  /** What a week begins with in calendars: 0 Sunday, 1 Monday, 6 Saturday. */
  readonly firstDay: FirstDay;
}

export type FirstDay = 0 | 1 | 6;

interface PreferenceActions {
  setRulerIn(rulerIn: Preferences['rulerIn']): void;
  toggleRuler(): void;
  setPerson(personId: string | null): void;
  setUnit(kind: QuantityKind, code: string): void;
  setLetterKeys(on: boolean): void;
  setFormats(formats: Partial<Formats>): void;
  setFirstDay(firstDay: FirstDay): void;
}

const riseUnit: Readonly<Record<string, string>> = { '°C': 'K', '°F': '°F rise' };

export const usePreferences = create<Preferences & PreferenceActions>()(
  persist(
    (set) => ({
      rulerIn: 'days',
      personId: null,
      units: {},
      letterKeys: true,
      formats: usualFormats,
      firstDay: 1,
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
      setFormats: (chosen) => set(({ formats }) => ({ formats: { ...formats, ...chosen } })),
      setFirstDay: (firstDay) => set({ firstDay }),
    }),
    { name: 'entretien-preferences' },
  ),
);

/** How this device tells the server in which formats its person reads. */
const FORMATS_COOKIE = 'entretien-formats';

// Whatever is worded on this page, or asked of the server, is worded for the person at this device.
readFormatsFrom(() => usePreferences.getState().formats);
function tell({ formats }: Preferences): void {
  document.cookie = `${FORMATS_COOKIE}=${formatsCode(formats)}; path=/; max-age=31536000; SameSite=Strict`;
}
tell(usePreferences.getState());
usePreferences.subscribe(tell);
