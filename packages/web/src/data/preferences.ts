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
  /** Unit of measure by quantity, as it holds here; the stored unit where none is chosen. */
  readonly units: Units;
  /** Whether single letters act as keys. */
  readonly letterKeys: boolean;
  /** How days and figures are written here. */
  readonly formats: Formats;
  /** What was chosen on this device, and goes before what the workshop has chosen. */
  readonly own: Chosen;
  readonly workshop: Chosen;
  /** What a week begins with in calendars: 0 Sunday, 1 Monday, 6 Saturday. */
  readonly firstDay: FirstDay;
}

export type FirstDay = 0 | 1 | 6;

type Units = Readonly<Partial<Record<QuantityKind, string>>>;

interface Chosen {
  readonly units: Units;
  readonly formats: Readonly<Partial<Formats>>;
}

const nothing: Chosen = { units: {}, formats: {} };

/** What holds of what was chosen here and in the workshop. */
function holding(own: Chosen, workshop: Chosen): Pick<Preferences, 'own' | 'workshop' | 'units' | 'formats'> {
  return {
    own,
    workshop,
    units: { ...workshop.units, ...own.units },
    formats: { ...usualFormats, ...workshop.formats, ...own.formats },
  };
}

interface PreferenceActions {
  setRulerIn(rulerIn: Preferences['rulerIn']): void;
  toggleRuler(): void;
  setPerson(personId: string | null): void;
  setUnit(kind: QuantityKind, code: string): void;
  setLetterKeys(on: boolean): void;
  setFormats(formats: Partial<Formats>): void;
  setFirstDay(firstDay: FirstDay): void;
  /** What the workshop has chosen; it holds where this device has not chosen otherwise. */
  setWorkshop(workshop: Chosen): void;
}

/** Differences of temperature go with temperatures: nobody reads one in °F and the other in K. */
export function unitsWith(kind: QuantityKind, code: string): Units {
  return kind === 'temperature'
    ? { temperature: code, 'temperature-rise': riseUnit[code] ?? 'K' }
    : { [kind]: code };
}

const riseUnit: Readonly<Record<string, string>> = { '°C': 'K', '°F': '°F rise' };

export const usePreferences = create<Preferences & PreferenceActions>()(
  persist(
    (set) => ({
      rulerIn: 'days',
      personId: null,
      letterKeys: true,
      ...holding(nothing, nothing),
      firstDay: 1,
      setRulerIn: (rulerIn) => set({ rulerIn }),
      toggleRuler: () => set(({ rulerIn }) => ({ rulerIn: rulerIn === 'days' ? 'hours' : 'days' })),
      setPerson: (personId) => set({ personId }),
      setUnit: (kind, code) =>
        set(({ own, workshop }) => {
          const units = { ...own.units, ...unitsWith(kind, code) };
          return holding({ ...own, units }, workshop);
        }),
      setLetterKeys: (letterKeys) => set({ letterKeys }),
      setFormats: (chosen) =>
        set(({ own, workshop }) => holding({ ...own, formats: { ...own.formats, ...chosen } }, workshop)),
      setFirstDay: (firstDay) => set({ firstDay }),
      setWorkshop: (workshop) =>
        set((now) =>
          JSON.stringify(now.workshop) === JSON.stringify(workshop) ? now : holding(now.own, workshop),
        ),
    }),
    {
      name: 'entretien-preferences',
      version: 1,
      // Before the workshop could choose, whatever stood here was chosen on the device.
      migrate: (kept) => {
        const before = kept as Partial<Preferences>;
        const own = { units: before.units ?? {}, formats: before.formats ?? {} };
        return { ...before, ...holding(own, nothing) } as Preferences & PreferenceActions;
      },
    },
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
