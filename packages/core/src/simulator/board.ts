import type { DataPlate } from '../machine/index.js';
import type { Simulation } from './simulation.js';

/** A valve, a drain or a vent at a space, as it stands. */
export interface BoardHandle {
  readonly code: string;
  readonly name: string;
  readonly kind: 'valve' | 'drain';
  readonly isOpen: boolean;
}

/** A space on the way of the air: what hangs on it, and what is turned there. */
export interface BoardStation {
  readonly code: string;
  readonly name: string;
  /** What its gauge shows, bar; null where it has none. */
  readonly gauge: { readonly bar: number; readonly fullScaleBar: number } | null;
  readonly handles: readonly BoardHandle[];
}

/** How plain something is, in the words of the board. */
export type Plainness = 'faint' | 'plain' | 'loud';

/** Everything on the board of a simulated machine. */
export interface Board {
  /** Since the beginning, s. */
  readonly seconds: number;
  readonly state: string;
  readonly trip: string | null;
  readonly hasPower: boolean;
  readonly isOn: boolean;
  /** A; null where nobody measures them. */
  readonly amps: number | null;
  readonly hours: { readonly total: number; readonly loaded: number };
  readonly oilShare: number | null;
  readonly stations: readonly BoardStation[];
  readonly temps: readonly { readonly code: string; readonly name: string; readonly tempC: number }[];
  readonly senses: readonly {
    readonly code: string;
    readonly place: string;
    readonly text: string;
    readonly plainness: Plainness;
  }[];
}

const [FAINT, PLAIN] = [0.35, 0.7];

/** What is on the board now, in the order in which the air goes. */
export function boardOf(simulation: Simulation): Board {
  const seen = simulation.see();
  const { plant, spaces, gauges, turnables } = simulation.machine;
  const gaugeAt = (at: number) => [...gauges.values()].find((gauge) => gauge.at === at);
  const stations = [...spaces].flatMap(([code, at]): BoardStation[] => {
    const gauge = gaugeAt(at);
    const handles = [...turnables.values()]
      .filter(({ space }) => space === code)
      .map(({ code: handle, name, kind, share }) => ({ code: handle, name, kind, isOpen: share > 0 }));
    if (!gauge && handles.length === 0) return [];
    const shown = gauge ? { bar: gauge.reading, fullScaleBar: gauge.fullScaleBar } : null;
    return [{ code, name: plant.nameOf(at), gauge: shown, handles }];
  });
  return {
    seconds: seen.seconds,
    state: stateText(seen.drive, seen.isLoaded, seen.hasPower),
    trip: seen.trip,
    hasPower: seen.hasPower,
    isOn: seen.isOn,
    amps: seen.amps,
    hours: seen.hours,
    oilShare: seen.oilShare,
    stations,
    temps: seen.temps,
    senses: seen.senses.map(({ strength, ...sense }) => ({ ...sense, plainness: plainnessOf(strength) })),
  };
}

function plainnessOf(strength: number): Plainness {
  if (strength < FAINT) return 'faint';
  return strength < PLAIN ? 'plain' : 'loud';
}

function stateText(drive: 'off' | 'runs' | 'stalls', isLoaded: boolean, hasPower: boolean): string {
  if (drive === 'stalls') return 'Hums and does not turn';
  if (drive === 'runs') return isLoaded ? 'Runs under load' : 'Runs unloaded';
  return hasPower ? 'Stands' : 'Stands, power off';
}

/** Machines of the board that belong to nobody. */
export const boardMachines: readonly {
  readonly code: string;
  readonly name: string;
  readonly plate: DataPlate;
}[] = [
  machine('piston', 'Piston, two stages, 270 L', {
    family: 'piston',
    stages: 2,
    receiverL: 270,
    workingPressureBar: 10,
  }),
  machine('oil-free', 'Piston, oil-free, 24 L', { family: 'piston-oil-free', motor: 'single-phase' }),
  machine('screw', 'Screw on a network', { family: 'screw' }),
  machine('portable', 'Portable diesel screw', { family: 'screw', motor: 'diesel' }),
  machine('water-cooled', 'Piston, two stages, water-cooled, 30 bar', {
    family: 'piston',
    stages: 2,
    cooling: 'water',
    receiverL: 500,
    workingPressureBar: 30,
  }),
  machine('high-pressure', 'High pressure, four stages, bank', {
    family: 'high-pressure',
    stages: 4,
    workingPressureBar: 300,
    airUse: 'breathing',
  }),
];

function machine(code: string, name: string, plate: Pick<DataPlate, 'family'> & Partial<DataPlate>) {
  return {
    code,
    name,
    plate: {
      siteId: '',
      tag: '',
      commissionedOn: '2024-01-01',
      history: 'new',
      motor: 'three-phase',
      ...plate,
    } as const,
  };
}
