import {
  isBreathed,
  isOilLubricated,
  stagesOf,
  stationCodes,
  type DataPlate,
  type Family,
} from '../machine/index.js';

/** In which state a machine is while something is done to it. */
export const machineStates = ['run', 'lock', 'open'] as const;
/** Running or able to run, guards on; stopped and locked, still under pressure; isolated, vented and proved. */
export type MachineState = (typeof machineStates)[number];

/** A place that differs by family. */
type Place = string | (Readonly<Partial<Record<Family, string>>> & { readonly other?: string });

interface CauseData {
  readonly name: string;
  /** Minutes to put it right, in that state, without isolating and verifying (common practice). */
  readonly minutes: number;
  readonly state: MachineState;
  /** Where it sits on the machine. */
  readonly place?: Place | ((plate: DataPlate) => string);
  /** The check that shows that it is mended, where the machine has it. */
  readonly verifiedBy?: string;
  /** Code of the service task that mends it. */
  readonly task?: string;
  /** Code of the guided overhaul. */
  readonly guide?: string;
  /** What is taken along. */
  readonly takes?: readonly string[];
  /** Words in a note on the model that speak of it. */
  readonly words?: readonly string[];
  readonly caution?: string;
  /** Whose work it is, where it is not the technician's. */
  readonly trade?: string;
  /** It lies in the place or in the use, not in the machine. */
  readonly isElsewhere?: true;
  /** Only on machines that have such a part. */
  readonly onlyOn?: (plate: DataPlate) => boolean;
}

const isEngine = ({ motor }: DataPlate) => motor === 'petrol' || motor === 'diesel';
const ELECTRIC = 'Inside electrical covers: a licensed electrician.';
const DISCHARGE =
  'Unplugged, and the capacitor discharged through a resistor and measured: it holds its charge without power.';
const BENCH =
  'A relief valve is renewed or sent to a licensed bench. Its setting is not touched to keep it shut.';
/** Of an upper stage where there are several. */
const upperStage = (plate: DataPlate) => `stage-${stagesOf(plate) > 1 ? 2 : 1}`;
const lastStage = (plate: DataPlate) => `stage-${stagesOf(plate)}`;

/** Every cause that the workshop tells apart, with what it takes to put it right. */
const data = {
  SUP: {
    name: 'Supply: fuse, phase, volts, lead or terminal',
    minutes: 30,
    state: 'lock',
    place: 'motor',
    verifiedBy: 'unloaded-start',
    trade: ELECTRIC,
    takes: ['fuses', 'terminals'],
  },
  CAP: {
    name: 'Capacitor or start switch',
    minutes: 25,
    state: 'lock',
    place: 'motor',
    verifiedBy: 'capacitor',
    onlyOn: ({ motor }) => motor === 'single-phase',
    caution: DISCHARGE,
    takes: ['capacitor in the range that the motor’s maker gives'],
    words: ['capacitor', 'start switch'],
  },
  SW: {
    name: 'Pressure switch or contactor',
    minutes: 35,
    state: 'lock',
    place: { 'high-pressure': 'relief', other: 'receiver' },
    verifiedBy: 'pressure-settings',
    trade: ELECTRIC,
    takes: ['contact set or pressure switch'],
    words: ['pressure switch', 'contactor'],
  },
  CTL: {
    name: 'Controller, load solenoid or wiring',
    minutes: 45,
    state: 'lock',
    place: 'motor',
    verifiedBy: 'shutdowns',
    trade: ELECTRIC,
    takes: ['solenoid coil'],
    words: ['controller', 'solenoid', 'timer'],
  },
  MOT: {
    name: 'Motor: winding, bearing or thermal protector',
    minutes: 120,
    state: 'lock',
    place: 'motor',
    verifiedBy: 'unloaded-start',
    trade: ELECTRIC,
    words: ['motor'],
  },
  ENG: {
    name: 'Engine: fuel, battery or governor',
    minutes: 45,
    state: 'lock',
    place: 'motor',
    verifiedBy: 'unloaded-start',
    onlyOn: isEngine,
    takes: ['fuel filter'],
    words: ['engine', 'battery', 'fuel'],
  },
  SEIZ: {
    name: 'Pump or airend seized',
    minutes: 240,
    state: 'open',
    place: { screw: 'airend', other: 'stage-1' },
    verifiedBy: 'rotation',
    words: ['seized'],
  },
  COLD: {
    name: 'Cold or too thick oil',
    minutes: 25,
    state: 'lock',
    place: { screw: 'oil', other: 'crankcase' },
    verifiedBy: 'unloaded-start',
    onlyOn: isOilLubricated,
    task: 'oil-change',
    takes: ['oil of the grade on the plate'],
  },
  CHK: {
    name: 'Check valve leaks back or sticks',
    minutes: 35,
    state: 'open',
    place: 'check-valve',
    verifiedBy: 'check-valve',
    task: 'check-valve-test',
    takes: ['check valve or its seal'],
    words: ['check valve'],
  },
  UNL: {
    name: 'Unloader does not vent, or does not shut',
    minutes: 30,
    state: 'open',
    place: 'check-valve',
    verifiedBy: 'unloader',
    takes: ['unloader kit'],
    words: ['unloader', 'start bleed'],
  },
  RESP: {
    name: 'Pressure left in the vessel holds the start back',
    minutes: 25,
    state: 'open',
    place: 'separator',
    verifiedBy: 'vessel-off-load',
    takes: ['blow-down valve kit'],
  },
  BELT: {
    name: 'Belt slack, slipping, worn or out of line',
    minutes: 30,
    state: 'lock',
    place: 'drive',
    verifiedBy: 'belt-deflection',
    onlyOn: ({ drive }) => drive !== 'direct',
    task: 'belt-check',
    takes: ['belt set'],
    words: ['belt', 'coupling'],
  },
  INT: {
    name: 'Intake element or silencer blocked',
    minutes: 10,
    state: 'lock',
    place: 'intake',
    verifiedBy: 'pump-up',
    task: 'intake-replace',
    takes: ['intake element'],
    words: ['intake'],
  },
  INTX: {
    name: 'Intake element torn or missing',
    minutes: 15,
    state: 'lock',
    place: 'intake',
    verifiedBy: 'pump-up',
    task: 'intake-replace',
    takes: ['intake element', 'filter housing'],
  },
  VS: {
    name: 'Suction valve leaks, broken or dirty',
    minutes: 75,
    state: 'open',
    place: upperStage,
    verifiedBy: 'stage-pressures',
    task: 'valves-inspect',
    guide: 'valve-service',
    takes: ['suction valve kit', 'valve gaskets'],
    words: ['suction valve', 'valve plate'],
  },
  VD: {
    name: 'Discharge valve leaks, broken or dirty',
    minutes: 75,
    state: 'open',
    place: upperStage,
    verifiedBy: 'stage-pressures',
    task: 'valves-inspect',
    guide: 'valve-service',
    takes: ['discharge valve kit', 'valve gaskets'],
    words: ['discharge valve', 'valve plate'],
  },
  V1: {
    name: 'Valves of the first stage',
    minutes: 60,
    state: 'open',
    place: 'stage-1',
    verifiedBy: 'stage-pressures',
    task: 'valves-all',
    guide: 'valve-service',
    takes: ['valve kit of the first stage'],
  },
  REED: {
    name: 'Reeds broken, dirty, worn or turned',
    minutes: 60,
    state: 'open',
    place: 'stage-1',
    verifiedBy: 'pump-up',
    task: 'valves-inspect',
    guide: 'valve-service',
    takes: ['reed set', 'head gasket'],
    words: ['reed'],
  },
  RING: {
    name: 'Piston ring, sleeve or cylinder worn',
    minutes: 150,
    state: 'open',
    place: lastStage,
    verifiedBy: 'pump-up',
    task: 'ring-kit',
    guide: 'ring-kit',
    takes: ['ring and sleeve kit', 'head gasket'],
    words: ['ring', 'sleeve', 'bore'],
  },
  GSK: {
    name: 'Head gasket or O-ring',
    minutes: 70,
    state: 'open',
    place: 'stage-1',
    verifiedBy: 'pump-up',
    takes: ['head gasket set'],
    words: ['gasket'],
  },
  ASM: {
    name: 'Put together wrongly: lip down, plate turned, fan touching',
    minutes: 60,
    state: 'open',
    place: 'stage-1',
    verifiedBy: 'pump-up',
    takes: ['head gasket'],
  },
  LEAK: {
    name: 'Leak on the machine: joint, pipe, hose or cooler tube',
    minutes: 35,
    state: 'open',
    place: { 'high-pressure': 'final-separator', other: 'aftercooler' },
    verifiedBy: 'leak-down',
    task: 'leak-survey',
    takes: ['seals and pipe joints'],
    words: ['leak', 'pipe', 'hose'],
  },
  NET: {
    name: 'Leaks in the network, or more air used than it can give',
    minutes: 45,
    state: 'run',
    place: { 'high-pressure': 'fill', other: 'outlet' },
    verifiedBy: 'leak-load-cycle',
    task: 'leak-survey',
    isElsewhere: true,
  },
  DRN: {
    name: 'Drain or cock open, or its seat passes',
    minutes: 8,
    state: 'lock',
    place: { 'high-pressure': 'final-separator', other: 'receiver' },
    verifiedBy: 'leak-down',
    takes: ['drain cock'],
    words: ['drain'],
  },
  DRNB: {
    name: 'Drain blocked, frozen or its actuator does not open',
    minutes: 25,
    state: 'open',
    place: { 'high-pressure': 'final-separator', screw: 'water-separator', other: 'separator' },
    verifiedBy: 'auto-drain',
    takes: ['drain kit'],
    words: ['drain'],
  },
  DRNN: {
    name: 'Drained too seldom',
    minutes: 10,
    state: 'lock',
    place: { 'high-pressure': 'final-separator', screw: 'water-separator', other: 'receiver' },
    verifiedBy: 'water-content',
    task: 'separator-drain',
  },
  REL: {
    name: 'Final relief valve weeps, opens low or is set low',
    minutes: 30,
    state: 'open',
    place: { 'high-pressure': 'relief', screw: 'separator', other: 'receiver' },
    verifiedBy: 'relief-valve',
    task: 'relief-test',
    caution: BENCH,
    takes: ['relief valve with its certificate'],
    words: ['relief'],
  },
  RELI: {
    name: 'Relief valve between the stages weak, dirty or set low',
    minutes: 30,
    state: 'open',
    place: { 'high-pressure': 'intercooler-2', other: 'intercooler-1' },
    verifiedBy: 'stage-pressures',
    task: 'relief-test',
    caution: BENCH,
    takes: ['relief valve of that stage'],
    words: ['relief'],
  },
  WATR: {
    name: 'Receiver full of water',
    minutes: 10,
    state: 'lock',
    place: 'receiver',
    verifiedBy: 'pump-up',
    task: 'drain-receiver',
  },
  GAUG: {
    name: 'Gauge wrong, stuck, or reading another space',
    minutes: 20,
    state: 'open',
    place: { 'high-pressure': 'final-separator', other: 'receiver' },
    verifiedBy: 'gauge-zero',
    task: 'gauge-test',
    takes: ['gauge'],
    words: ['gauge'],
  },
  SET: {
    name: 'Settings moved: cut-in, cut-out or auto-stop',
    minutes: 20,
    state: 'lock',
    place: { 'high-pressure': 'relief', other: 'receiver' },
    verifiedBy: 'pressure-settings',
    guide: 'stop-setting',
  },
  REG: {
    name: 'Regulator, or something after it',
    minutes: 25,
    state: 'open',
    place: { 'high-pressure': 'fill', other: 'outlet' },
    verifiedBy: 'regulator',
    isElsewhere: true,
    takes: ['regulator kit'],
    words: ['regulator'],
  },
  COOL: {
    name: 'Cooling: cooler dirty, fan, panel off or water short',
    minutes: 40,
    state: 'lock',
    place: 'cooling',
    verifiedBy: 'discharge-temperature',
    task: 'cooling-clean',
    words: ['cooler', 'fan', 'cooling'],
  },
  ROOM: {
    name: 'Hot room, or its own warm air drawn in again',
    minutes: 30,
    state: 'run',
    place: 'cooling',
    verifiedBy: 'discharge-temperature',
    isElsewhere: true,
    words: ['room', 'duct'],
  },
  OILL: {
    name: 'Oil too low',
    minutes: 12,
    state: 'lock',
    place: { screw: 'oil', other: 'crankcase' },
    verifiedBy: 'oil-level',
    onlyOn: isOilLubricated,
    task: 'oil-level',
    takes: ['oil of the grade on the plate'],
  },
  OILH: {
    name: 'Too much oil in it',
    minutes: 15,
    state: 'lock',
    place: { screw: 'oil', other: 'crankcase' },
    verifiedBy: 'oil-level',
    onlyOn: isOilLubricated,
    task: 'oil-level',
  },
  OILW: {
    name: 'Wrong, mixed, old or varnished oil',
    minutes: 45,
    state: 'open',
    place: { screw: 'oil', other: 'crankcase' },
    verifiedBy: 'oil-look',
    onlyOn: isOilLubricated,
    task: 'oil-change',
    takes: ['oil of the grade on the plate', 'oil filter'],
    words: ['oil'],
  },
  OILF: {
    name: 'Oil filter blocked, or its bypass open',
    minutes: 25,
    state: 'open',
    place: 'oil-filter',
    verifiedBy: 'discharge-temperature',
    task: 'oil-filter',
    takes: ['oil filter'],
    words: ['oil filter'],
  },
  BRTH: {
    name: 'Crankcase breather blocked',
    minutes: 15,
    state: 'lock',
    place: 'crankcase',
    verifiedBy: 'oil-level',
    onlyOn: isOilLubricated,
    task: 'breather-clean',
    takes: ['breather element'],
    words: ['breather'],
  },
  ICL: {
    name: 'Intercooler leaking or fouled',
    minutes: 90,
    state: 'open',
    place: 'intercooler-1',
    verifiedBy: 'stage-pressures',
    onlyOn: (plate) => stagesOf(plate) > 1,
    words: ['intercooler'],
  },
  CLW: {
    name: 'Cooling water leaks into air or oil',
    minutes: 180,
    state: 'open',
    place: 'cooling',
    verifiedBy: 'oil-look',
    onlyOn: ({ cooling }) => cooling === 'water',
    words: ['cooling water'],
  },
  COND: {
    name: 'Condensation: short runs, low load, cold place',
    minutes: 30,
    state: 'run',
    place: { screw: 'oil', other: 'crankcase' },
    verifiedBy: 'oil-look',
    isElsewhere: true,
  },
  BRG: {
    name: 'Bearing: rod, main, crank pin, airend or motor end',
    minutes: 180,
    state: 'open',
    place: { screw: 'airend', other: 'stage-1' },
    verifiedBy: 'vibration-sound',
    guide: 'bearing',
    takes: ['bearing', 'shaft seal'],
    words: ['bearing'],
  },
  FAST: {
    name: 'Something loose: bolt, pulley, guard, panel or foot',
    minutes: 15,
    state: 'lock',
    place: 'drive',
    verifiedBy: 'vibration-sound',
    task: 'fasteners-check',
  },
  AIRE: {
    name: 'Airend worn: rotors or seals',
    minutes: 360,
    state: 'open',
    place: 'airend',
    verifiedBy: 'pump-up',
    words: ['airend'],
  },
  INTV: {
    name: 'Intake valve sticks, or does not seal at stop',
    minutes: 60,
    state: 'open',
    place: 'intake-valve',
    verifiedBy: 'vessel-off-load',
    task: 'valves-inspect',
    takes: ['intake valve kit'],
    words: ['intake valve'],
  },
  BLDN: {
    name: 'Blow-down valve or its solenoid',
    minutes: 40,
    state: 'open',
    place: 'separator',
    verifiedBy: 'vessel-off-load',
    takes: ['blow-down valve kit'],
    words: ['blow-down'],
  },
  MPV: {
    name: 'Minimum-pressure valve stuck open, leaks back or opens wrongly',
    minutes: 45,
    state: 'open',
    place: 'minimum-pressure-valve',
    verifiedBy: 'vessel-off-load',
    task: 'valves-inspect',
    takes: ['minimum-pressure valve kit'],
    words: ['minimum-pressure'],
  },
  SEP: {
    name: 'Separator element blocked, collapsed or not sealed',
    minutes: 60,
    state: 'open',
    place: 'separator',
    verifiedBy: 'separator-drop',
    task: 'separator-replace',
    guide: 'separator',
    takes: ['separator element', 'vessel gasket'],
    words: ['separator element'],
  },
  SCAV: {
    name: 'Scavenge line, screen or restrictor blocked',
    minutes: 20,
    state: 'open',
    place: 'separator',
    verifiedBy: 'separator-drop',
    task: 'scavenge-clean',
    words: ['scavenge'],
  },
  THEO: {
    name: 'Thermostatic valve stuck open: always through the cooler',
    minutes: 45,
    state: 'open',
    place: 'thermostatic-valve',
    verifiedBy: 'thermostat',
    takes: ['thermostatic valve kit'],
    words: ['thermostat'],
  },
  THEC: {
    name: 'Thermostatic valve stuck shut: never through the cooler',
    minutes: 45,
    state: 'open',
    place: 'thermostatic-valve',
    verifiedBy: 'thermostat',
    takes: ['thermostatic valve kit'],
    words: ['thermostat'],
  },
  SENS: {
    name: 'Pressure or temperature sensor wrong',
    minutes: 20,
    state: 'lock',
    place: { screw: 'airend', other: 'receiver' },
    verifiedBy: 'discharge-temperature',
    takes: ['sensor'],
    words: ['sensor'],
  },
  DRY: {
    name: 'Dryer fault, bypass open, or overloaded',
    minutes: 60,
    state: 'lock',
    place: 'dryer',
    verifiedBy: 'dew-point',
    trade: 'The refrigerant circuit is for a licensed person.',
    onlyOn: ({ hasDryer }) => hasDryer === true,
    words: ['dryer'],
  },
  TWR: {
    name: 'Starts against pressure left in tower and stages',
    minutes: 15,
    state: 'lock',
    place: 'tower',
    verifiedBy: 'unloaded-start',
  },
  HOLD: {
    name: 'Pressure-maintaining valve stuck, or out of its setting',
    minutes: 40,
    state: 'open',
    place: 'pressure-maintaining-valve',
    verifiedBy: 'holding-valve',
    takes: ['pressure-maintaining valve kit'],
    words: ['holding valve', 'pressure-maintaining'],
  },
  NRV: {
    name: 'Check valve after the tower leaks back',
    minutes: 35,
    state: 'open',
    place: 'check-valve',
    verifiedBy: 'holding-valve',
    takes: ['check valve kit'],
    words: ['check valve'],
  },
  CART: {
    name: 'Cartridge spent, misfitted or not sealed',
    minutes: 25,
    state: 'open',
    place: 'tower',
    verifiedBy: 'water-content',
    task: 'cartridge-replace',
    guide: 'cartridge',
    takes: ['cartridge', 'head O-ring'],
    words: ['cartridge'],
  },
  HOTS: {
    name: 'Last separator too hot: more water reaches the cartridge',
    minutes: 30,
    state: 'lock',
    place: 'cooling',
    verifiedBy: 'water-content',
    task: 'cooling-clean',
  },
  INTK: {
    name: 'Intake draws exhaust, solvent or other foul air',
    minutes: 20,
    state: 'lock',
    place: 'intake',
    verifiedBy: 'co',
    isElsewhere: true,
  },
  COS: {
    name: 'CO monitor: dead cell, no sample flow or out of calibration',
    minutes: 30,
    state: 'lock',
    place: 'co-monitor',
    verifiedBy: 'co-monitor',
    onlyOn: isBreathed,
    task: 'co-calibrate',
    takes: ['sensor cell', 'calibration gas'],
    words: ['co monitor'],
  },
  OTHER: { name: 'None of these', minutes: 240, state: 'lock' },
} as const satisfies Record<string, CauseData>;

export type CauseCode = keyof typeof data;

export const causeCodes = Object.keys(data) as CauseCode[];

/** What stands in for a part that a machine does not have, before its share is spread over the rest. */
export const standsIn: Readonly<Partial<Record<CauseCode, CauseCode>>> = {
  CAP: 'SUP',
  SUP: 'ENG',
  MOT: 'ENG',
};

/** A cause as it is on one machine. */
export interface Cause extends Omit<CauseData, 'place' | 'onlyOn'> {
  readonly code: CauseCode;
  /** Code of its station; null where the machine has none. */
  readonly station: string | null;
}

/** What is known of a cause whatever the machine. */
export function causeData(code: CauseCode): CauseData {
  return data[code];
}

/** Whether a machine can have a cause at all. */
export function canHave(code: CauseCode, plate: DataPlate): boolean {
  if (isEngine(plate) && ELECTRIC_PARTS.has(code)) return false;
  return causeData(code).onlyOn?.(plate) ?? true;
}

const ELECTRIC_PARTS: ReadonlySet<CauseCode> = new Set(['SUP', 'CAP', 'MOT']);

/** A cause on a machine, with where it sits there. */
export function causeOn(code: CauseCode, plate: DataPlate): Cause {
  const { place, onlyOn: _onlyOn, ...more } = causeData(code);
  const station = typeof place === 'function' ? place(plate) : placeOf(place, plate.family);
  return { ...more, code, station: station !== null && stationCodes(plate).has(station) ? station : null };
}

function placeOf(place: Place | undefined, family: Family): string | null {
  if (place === undefined || typeof place === 'string') return place ?? null;
  return place[family] ?? place.other ?? null;
}
