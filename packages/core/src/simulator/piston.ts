import { ATMOSPHERE_BAR } from '../air/index.js';
import { stagesOf, type DataPlate } from '../machine/index.js';
import { Assembly, steel, type Setting } from './assembly.js';
import { Drive, USUAL_OIL, type Prime } from './drive.js';
import { areaOf, CheckValve, Demand, KeepingValve, Regulator, type Passage } from './elements.js';
import { ZERO_C } from './gas.js';
import { Block, BLOCK, type Machine, type Turnable } from './parts.js';
import {
  Cooling,
  coolingFaults,
  driveFaults,
  noiseFaults,
  settleCooling,
  stageFaults,
  switchFaults,
} from './piston-faults.js';
import { designPower, equalRatios, sizeStages } from './size-stages.js';
import { Stage } from './stage.js';
import { SwitchControl } from './switch-control.js';

/** Built alike unless the plate says otherwise (common practice). */
const USUAL = {
  clearance: 0.045,
  exponent: 1.25,
  /** Share of the way to the coolant: an intercooler, a finned delivery pipe, the line of a small set. */
  cooling: { inter: 0.9, after: 0.75, small: 0.5 },
} as const;

/** Free air of a machine, m³/s swept, when the plate does not say. */
const USUAL_LPM = { piston: 350, 'piston-oil-free': 120 } as const;
const NETWORK_L = 60;
const ROOM_K = 293.15;

/** Where the pressure switch stands, bar. */
function switchOf(plate: DataPlate): { cutIn: number; cutOut: number; relief: number; working: number } {
  const usual = plate.cooling === 'water' ? 30 : plate.family === 'piston-oil-free' ? 8 : 10;
  const working = plate.workingPressureBar ?? plate.cutOutBar ?? usual;
  const cutOut = plate.cutOutBar ?? working;
  return { cutOut, working, cutIn: plate.cutInBar ?? cutOut * 0.8, relief: plate.reliefBar ?? cutOut * 1.12 };
}

interface Places {
  /** From the intake to the check valve, one after each stage. */
  readonly after: readonly string[];
  /** The last space before the check valve. */
  readonly last: string;
}

function spacesOf(
  plate: DataPlate,
  bar: number,
): { readonly specs: ReturnType<typeof steel>[]; readonly places: Places } {
  const receiverL =
    plate.receiverL ?? (plate.family === 'piston-oil-free' ? 24 : plate.cooling === 'water' ? 1000 : 100);
  const receiver = steel('receiver', 'Receiver', receiverL, bar);
  const network = steel('network', 'Network', NETWORK_L, bar);
  if (plate.cooling === 'water') {
    return {
      specs: [
        steel('low', 'After the low-pressure stage', 6, bar / 4, { holdsKg: 0.8 }),
        steel('high', 'After the high-pressure stage', 3, bar, { holdsKg: 0.5 }),
        steel('separator', 'Delivery separator', 8, bar, { holdsKg: 2 }),
        receiver,
        network,
      ],
      places: { after: ['low', 'high'], last: 'separator' },
    };
  }
  const head = steel(
    'head-side',
    'Delivery line to the check valve',
    plate.family === 'piston' ? 1.5 : 0.4,
    bar,
  );
  if (plate.family === 'piston-oil-free')
    return {
      specs: [head, receiver, steel('outlet', 'Hose after the regulator', 1, bar)],
      places: { after: ['head-side'], last: 'head-side' },
    };
  if (stagesOf(plate) === 1)
    return { specs: [head, receiver, network], places: { after: ['head-side'], last: 'head-side' } };
  return {
    specs: [steel('intercooler', 'Intercooler', 2, bar / 3, { holdsKg: 0.3 }), head, receiver, network],
    places: { after: ['intercooler', 'head-side'], last: 'head-side' },
  };
}

/** Stages sized for this machine. */
function stagesFor(plate: DataPlate, count: number, working: number) {
  const lpm = plate.displacementLpm ?? (plate.fadLpm === undefined ? undefined : plate.fadLpm / 0.75);
  const usual = plate.family === 'piston-oil-free' ? USUAL_LPM['piston-oil-free'] : USUAL_LPM.piston;
  const isSmall = plate.family === 'piston-oil-free';
  const design = {
    pressuresBarAbs: equalRatios(count, ATMOSPHERE_BAR, working + ATMOSPHERE_BAR),
    intakeBarAbs: ATMOSPHERE_BAR,
    intakeK: ROOM_K,
    sweptM3S: (lpm ?? usual) / 60_000,
    exponents: Array.from({ length: count }, () => USUAL.exponent),
    clearances: Array.from({ length: count }, () => USUAL.clearance),
    coolings: Array.from({ length: count }, (_, index) =>
      index < count - 1 ? USUAL.cooling.inter : isSmall ? USUAL.cooling.small : USUAL.cooling.after,
    ),
  };
  const { specs, flow } = sizeStages(design);
  return { specs, flow, power: designPower(design, flow), design };
}

/** A piston set: workshop, oil-free or water-cooled. */
export function buildPiston(plate: DataPlate, setting: Setting): Machine {
  const { cutIn, cutOut, relief, working } = switchOf(plate);
  const { specs, places } = spacesOf(plate, relief);
  const assembly = new Assembly(plate, specs, setting);
  const { plant } = assembly;
  const isWater = plate.cooling === 'water';
  const isOilFree = plate.family === 'piston-oil-free';
  const sized = stagesFor(plate, places.after.length, working);
  const chain = places.after.map((code) => assembly.at(code));
  const stages = sized.specs.map((spec, index) =>
    assembly.add(new Stage(index === 0 ? plant.room : chain[index - 1]!, chain[index]!, spec)),
  );
  const ratedW = sized.power * 1.25;
  const drive = driveOf(plate, ratedW, isOilFree);
  const block = assembly.add(new Block(stages, 600 * (6 + ratedW / 120), ratedW / 160));
  const lastAt = assembly.at(places.last);
  if (isWater) assembly.hole('high', 'separator', 15, 1);
  const check = checkOf(assembly, lastAt, isOilFree);
  const drains = isWater
    ? waterCooledValves(assembly, check)
    : airCooledValves(assembly, isOilFree, places.after.length > 1);
  reliefsOf(assembly, places, sized.design.pressuresBarAbs, relief);
  const unload = unloaderOf(assembly, places.last, isOilFree ? 2 : isWater ? 6 : 4);
  const cooling = new Cooling();
  const turn = (isOpen: boolean) => drains.forEach(({ turn: to }) => to(isOpen ? 1 : 0));
  const control = new SwitchControl(
    {
      drive,
      feels: () => plant.gaugeBar(assembly.at('receiver')),
      held: () => Math.max(0, plant.gaugeBar(lastAt) / working) * 1.6,
      oilC: () => plant.extra[BLOCK]! - ZERO_C,
      unload,
      tooHot: () => (isWater ? stages.at(-1)!.outletK - ZERO_C - 205 : -1),
      restarts: true,
      bleedS: isWater ? 8 : 3,
      drains: isWater ? { everyS: 900, forS: 6, turn } : null,
    },
    cutIn,
    cutOut,
  );
  gaugesOf(assembly, places, relief);
  stageFaults(assembly, stages, sized.flow);
  coolingFaults(assembly, cooling);
  driveFaults(assembly, drive, control);
  noiseFaults(assembly, drive);
  switchFaults(assembly, control, cutIn, cutOut);
  if (isWater) timerFault(assembly, control);
  leaksOf(assembly, isOilFree, sized.flow);
  assembly.leak('gasket', 'Head gasket', places.after[0]!, 4, 'Head', 'puffs out at a seam');
  if (isWater) assembly.seep('cooling-water', 'Cooling water leaks into the air', 'low', 2e-3);
  stages.forEach((stage, index) => coverThermometers(assembly, stage, index, drive));
  assembly.thermometer('block', 'Head and block', () => plant.extra[BLOCK]! - ZERO_C);
  const oil = isOilFree ? null : oilOf(plate, stages, sized.flow, assembly);
  for (const code of ['receiver', 'network'])
    if (assembly.spaces.has(code)) assembly.fill(code, cutOut, 0.02);
  if (isOilFree) assembly.fill('outlet', Math.min(cutOut, 6));
  const settle = settlePiston(assembly, { stages, drive, block, cooling });
  return assembly.machine({ stages, airend: null, drive, block, control, oil, settle });
}

/** What follows from drive and room at every look: speeds, friction, cooling. */
export function settlePiston(
  { plant }: Assembly,
  {
    stages,
    drive,
    block,
    cooling,
  }: {
    readonly stages: readonly Stage[];
    readonly drive: Drive;
    readonly block: Block;
    readonly cooling: Cooling;
  },
): () => void {
  return () => {
    const speed = drive.speed();
    for (const stage of stages) stage.speed = speed;
    block.friction = drive.friction(plant.extra[BLOCK]! - ZERO_C) * drive.ratedW * speed;
    settleCooling(cooling, stages, block, plant.roomK, drive.state === 'runs');
  };
}

function driveOf({ motor }: DataPlate, ratedW: number, isOilFree: boolean): Drive {
  const kind: Prime = motor ?? (isOilFree ? 'single-phase' : 'three-phase');
  return new Drive(kind, ratedW, ratedW / voltsOf(kind), isOilFree ? null : USUAL_OIL);
}

/** W of shaft for each ampere, by the supply. */
export const voltsOf = (kind: Prime): number => (kind === 'single-phase' ? 190 : 560);

function checkOf(assembly: Assembly, lastAt: number, isOilFree: boolean): CheckValve {
  const check = assembly.add(new CheckValve(lastAt, assembly.at('receiver'), areaOf(isOilFree ? 8 : 15)));
  assembly.fault('check-valve', 'Check valve leaks back', (size) => (check.leak = 0.25 * size ** 2));
  assembly.fault('check-valve-shut', 'Check valve hangs shut', (size) => (check.opens = 1 - size));
  return check;
}

/** The relief valve of the receiver, and those between the stages. */
function reliefsOf(
  assembly: Assembly,
  { after }: Places,
  pressuresBarAbs: readonly number[],
  relief: number,
): void {
  const { room } = assembly.plant;
  const final = assembly.add(new KeepingValve(assembly.at('receiver'), room, areaOf(8), relief));
  reliefFaults(assembly, final, relief);
  assembly.hissing('relief', 'Relief valve of the receiver', () => final.passes);
  after.slice(0, -1).forEach((code, index) => {
    const bar = (pressuresBarAbs[index]! - ATMOSPHERE_BAR) * 1.6;
    const valve = assembly.add(new KeepingValve(assembly.at(code), room, areaOf(6), bar, 0.15));
    assembly.hissing('relief-between', 'Relief valve between the stages', () => valve.passes);
  });
}

/** Vents the head while it stands. */
function unloaderOf(assembly: Assembly, space: string, boreMm: number): (isOpen: boolean) => void {
  const unloader = assembly.hole(space, assembly.plant.room, boreMm);
  const state = { stuckShut: 0, stuckOpen: 0, isOpen: true };
  const set = () => {
    unloader.open = state.isOpen ? 1 - state.stuckShut : state.stuckOpen;
  };
  set();
  assembly.hissing('unloader', 'Unloader', () => Math.abs(unloader.passes));
  assembly.fault('unloader-shut', 'Unloader or start bleed does not vent', (size) => {
    state.stuckShut = size;
    set();
  });
  assembly.fault('unloader-open', 'Unloader does not shut', (size) => {
    state.stuckOpen = size;
    set();
  });
  return (isOpen) => {
    state.isOpen = isOpen;
    set();
  };
}

export function timerFault(assembly: Assembly, control: SwitchControl): void {
  assembly.fault(
    'drain-timer',
    'Timer of the drains does not open them',
    (size) => (control.timerRuns = size < 0.5),
  );
}

function leaksOf(assembly: Assembly, isOilFree: boolean, flow: number): void {
  assembly.leak('machine-leak', 'Leak on the machine', 'receiver', 4, 'A joint of the machine');
  const end = assembly.at(isOilFree ? 'outlet' : 'network');
  if (!isOilFree) assembly.leak('network-leak', 'Leaks of the network', 'network', 8, 'The network');
  const demand = assembly.add(new Demand(end, assembly.plant.room));
  assembly.fault('demand', 'More air taken than it makes', (size) => (demand.takes = 1.5 * size * flow));
}

function airCooledValves(
  assembly: Assembly,
  isOilFree: boolean,
  hasIntercooler: boolean,
): readonly Turnable[] {
  const litres = assembly.specs[assembly.at('receiver')]!.litres;
  const drain = assembly.drain('drain-receiver', 'Drain of the receiver', 'receiver', drainMm(litres));
  assembly.drainFaults('drain-receiver', 'Drain of the receiver', drain);
  assembly.fault('waterlogged', 'Receiver full of water', (size) => assembly.waterlog('receiver', size));
  if (hasIntercooler) {
    const bleed = assembly.drain('bleed-intercooler', 'Bleed of the intercooler', 'intercooler', 3);
    assembly.drainFaults('bleed-intercooler', 'Bleed of the intercooler', bleed);
  }
  if (isOilFree) {
    const regulator = assembly.add(
      new Regulator(assembly.at('receiver'), assembly.at('outlet'), areaOf(5), 6),
    );
    assembly.turnable(
      'valve-outlet',
      'Outlet valve',
      'valve',
      'outlet',
      (share) => (regulator.gate = share),
      {},
      1,
    );
    assembly.vent('trigger', 'Trigger or open coupling', 'outlet', 4);
    return [];
  }
  networkValves(assembly);
  return [];
}

function waterCooledValves(assembly: Assembly, check: CheckValve): readonly Turnable[] {
  assembly.turnable(
    'valve-delivery',
    'Delivery valve',
    'valve',
    'separator',
    (share) => (check.gate = share),
    {},
    1,
  );
  assembly.fault('valve-delivery-passes', 'Delivery valve passes', (size) => (check.gateLeak = 0.02 * size));
  const drains = [
    ['drain-low', 'Unloader drain, low-pressure stage', 'low'],
    ['drain-high', 'Unloader drain, high-pressure stage', 'high'],
    ['drain-separator', 'Drain of the delivery separator', 'separator'],
  ].map(([code, name, space]) => {
    const drain = assembly.drain(code!, name!, space!, 6);
    assembly.drainFaults(code!, name!, drain);
    return assembly.turnables.get(code!)!;
  });
  const receiver = assembly.drain('drain-receiver', 'Drain of the receiver', 'receiver', 10);
  assembly.drainFaults('drain-receiver', 'Drain of the receiver', receiver);
  networkValves(assembly);
  return drains;
}

/** The hand valve to the network, and another set that may stand on it. */
function networkValves(assembly: Assembly): void {
  const valve = assembly.hole('receiver', 'network', 15, 1);
  assembly.turnable(
    'valve-network',
    'Valve to the network',
    'valve',
    'network',
    (share) => (valve.open = share),
    {},
    1,
  );
  assembly.fault('valve-network-passes', 'Valve to the network passes', (size) => (valve.leak = 0.02 * size));
  const other: Passage = assembly.hole('network', assembly.plant.supply, 12);
  assembly.fault('other-set', 'Another set feeds the network', (size) => (other.open = size));
}

function gaugesOf(assembly: Assembly, places: Places, relief: number): void {
  const scale = (bar: number) => [4, 6, 10, 16, 25, 40, 60].find((one) => one > bar * 1.2) ?? 100;
  assembly.gauge('receiver', 'Gauge of the receiver', 'receiver', scale(relief));
  for (const code of new Set([...places.after, places.last])) {
    if (code === 'head-side') continue;
    const isBetween = code === 'intercooler' || code === 'low';
    assembly.gauge(
      code,
      `Gauge: ${assembly.specs[assembly.at(code)]!.name.toLowerCase()}`,
      code,
      scale(isBetween ? relief / 2.2 : relief),
    );
  }
  if (assembly.spaces.has('outlet')) assembly.gauge('outlet', 'Regulated gauge', 'outlet', scale(relief));
}

export function reliefFaults(assembly: Assembly, valve: KeepingValve, setBar: number): void {
  assembly.fault('relief-weeps', 'Final relief valve weeps', (size) => (valve.leak = 0.1 * size));
  assembly.fault(
    'relief-low',
    'Final relief valve opens low',
    (size) => (valve.setBar = setBar * (1 - 0.6 * size)),
  );
  assembly.fault(
    'relief-stuck',
    'Final relief valve does not open',
    (size) => (valve.stuck = size >= 1 ? 0 : null),
  );
}

/** Bore of the usual drain, mm (practice). */
export function drainMm(litres: number): number {
  if (litres <= 10) return 3;
  if (litres <= 50) return 4;
  if (litres <= 300) return 6;
  return litres <= 600 ? 8 : 10;
}

/** Oil of a splash-lubricated set: what goes by the rings, and how far from the mark it stands. */
export function oilOf(
  plate: DataPlate,
  stages: readonly Stage[],
  flow: number,
  assembly: Assembly,
): NonNullable<Machine['oil']> {
  const markL = plate.oilChargeL ?? 1.5;
  let [overfilled, isWrong, breather] = [0, 0, 0];
  const oil = {
    litres: markL,
    markL,
    lossLPerS: () => {
      const ring = stages.reduce((sum, stage) => sum + stage.ring, 0);
      const runs = stages[0]!.speed > 0 ? 1 : 0;
      const intake =
        stages[0]!.resistance > 0 ? 2 * Math.min(1, stages[0]!.resistance * flow ** 2 * 1e-5) : 0;
      return runs * 1e-6 * markL * (1 + 15 * ring + 6 * overfilled + intake + 2 * isWrong + 8 * breather);
    },
  };
  assembly.fault('oil-low', 'Oil too low', (size) => (oil.litres = markL * (1 - 0.8 * size)));
  assembly.fault('oil-overfilled', 'Oil overfilled', (size) => {
    overfilled = size;
    oil.litres = markL * (1 + 0.5 * size);
  });
  assembly.fault('oil-wrong', 'Wrong or mixed oil', (size) => (isWrong = size));
  assembly.fault('breather-blocked', 'Crankcase breather blocked', (size) => (breather = size));
  assembly.senses.push({
    code: 'oil-mist',
    place: 'Air delivered',
    text: 'oil in the air',
    strength: () => Math.min(1, (oil.lossLPerS() / (1e-6 * markL) - 1) / 10),
  });
  return oil;
}

/** Covers over suction and discharge valve; while it stands as warm as the block. */
export function coverThermometers(assembly: Assembly, stage: Stage, index: number, drive: Drive): void {
  const { plant } = assembly;
  const stands = () => plant.extra[BLOCK]! - ZERO_C;
  for (const [code, name, runs] of [
    ['suction-cover', 'Suction valve cover', () => stage.suctionCoverK - ZERO_C],
    ['cover', 'Discharge valve cover', () => stage.outletK - ZERO_C - 8],
  ] as const)
    assembly.thermometer(`${code}-${index + 1}`, `${name}, stage ${index + 1}`, () =>
      drive.state === 'runs' ? runs() : stands(),
    );
}
