import { ATMOSPHERE_BAR } from '../air/index.js';
import { stagesOf, type DataPlate } from '../machine/index.js';
import { Assembly, steel, type Setting } from './assembly.js';
import { Drive, USUAL_OIL } from './drive.js';
import { areaOf, CheckValve, KeepingValve, type Passage } from './elements.js';
import { ZERO_C } from './gas.js';
import { Block, BLOCK, CARTRIDGE, type Machine, type Turnable } from './parts.js';
import {
  Cooling,
  coolingFaults,
  driveFaults,
  noiseFaults,
  stageFaults,
  switchFaults,
} from './piston-faults.js';
import { coverThermometers, oilOf, reliefFaults, settlePiston, timerFault, voltsOf } from './piston.js';
import type { Plant, SpaceSpec } from './plant.js';
import { designPower, equalRatios, sizeStages, type StagesDesign } from './size-stages.js';
import { Stage } from './stage.js';
import { SwitchControl } from './switch-control.js';

const ROOM_K = 293.15;
const USUAL_LPM = 250;
/** Bottles of the bank, litres (practice), and how many. */
const [BANK_L, BANKS] = [50, 2];
const TOWER_L = 2;
const [DRAIN_MM, BLEED_MM, VENT_MM] = [1.5, 2, 2];
/** Separators from the first stage on, litres. */
const SEPARATOR_L = [1.2, 0.6, 0.4, 0.3];
/** Water that the cartridge takes up, g, and the share of CO that a dry one turns into CO₂. */
const USUAL_MOISTURE_G = 180;
const TURNS_CO = 0.9;

/** How a set is drawn that differs from the usual one: for the benches that want many. */
export interface StagesOf {
  readonly pressuresBarAbs: readonly number[];
  readonly exponents: readonly number[];
  readonly clearances: readonly number[];
  readonly coolings: readonly number[];
}

/** Water that a cartridge holds back, from dry to spent. */
class Cartridge {
  isMissing = 0;
  /** What it has taken up, kg. */
  taken = 0;

  constructor(readonly capacityKg: number) {}

  /** Share of the vapour that it holds back, the less the fuller. */
  get holdsBack(): number {
    const full = Math.min(1, Math.max(0, this.taken / this.capacityKg));
    return (1 - this.isMissing) * (full < 0.8 ? 0.998 : 0.998 * Math.max(0, (1 - full) / 0.2));
  }
}

/** A high-pressure set with separators, tower, panel and bank. */
export function buildHighPressure(plate: DataPlate, setting: Setting, own?: StagesOf): Machine {
  const count = own?.pressuresBarAbs.length ?? stagesOf(plate);
  const working = plate.workingPressureBar ?? 300;
  const relief = plate.reliefBar ?? working * 1.08;
  const separators = separatorsOf(count);
  const assembly = new Assembly(plate, [...separators, ...restOf(working)], setting);
  const { plant } = assembly;
  const { design, sized } = designOf(plate, count, working, own);
  const cartridge = new Cartridge((plate.moistureCapacityG ?? USUAL_MOISTURE_G) / 1000);
  const chain = [...separators.map(({ code }) => assembly.at(code)), assembly.at('tower')];
  const stages = chain.map((at, index) =>
    assembly.add(stageAt(plant, chain, index, at, sized.specs[index]!, cartridge, count)),
  );
  const kind = plate.motor ?? 'three-phase';
  const ratedW = designPower(design, sized.flow) * 1.3;
  const drive = new Drive(kind, ratedW, ratedW / voltsOf(kind), USUAL_OIL);
  const block = assembly.add(new Block(stages, 600 * (15 + ratedW / 120), ratedW / 160));
  reliefsOf(assembly, chain, design, relief);
  const drains = drainsOf(assembly, separators);
  afterTheTower(assembly, plate);
  const cooling = new Cooling();
  const turn = (isOpen: boolean) => drains.forEach(({ turn: to }) => to(isOpen ? 1 : 0));
  const isAutomatic = plate.drainsBy === 'automatic';
  const control = new SwitchControl(
    {
      drive,
      feels: () => plant.gaugeBar(assembly.at('tower')),
      held: () => heldBack(plant, chain, design),
      oilC: () => plant.extra[BLOCK]! - ZERO_C,
      unload: () => undefined,
      tooHot: () => stages.at(-1)!.outletK - ZERO_C - 205,
      restarts: false,
      bleedS: 0,
      drains: isAutomatic ? { everyS: (plate.drainEveryMin ?? 15) * 60, forS: 6, turn } : null,
    },
    0,
    plate.stopsBy === 'relief' ? working * 2 : (plate.cutOutBar ?? working),
  );
  control.isOn = false;
  stageFaults(assembly, stages, sized.flow);
  coolingFaults(assembly, cooling);
  driveFaults(assembly, drive, control);
  noiseFaults(assembly, drive);
  switchFaults(assembly, control, 0, working);
  if (isAutomatic) timerFault(assembly, control);
  cartridgeFaults(assembly, cartridge);
  gaugesOf(assembly, separators, design);
  stages.forEach((stage, index) => coverThermometers(assembly, stage, index, drive));
  assembly.thermometer('block', 'Crankcase', () => plant.extra[BLOCK]! - ZERO_C);
  airSenses(assembly, cartridge, stages);
  const oil = oilOf(plate, stages, sized.flow, assembly);
  for (let index = 1; index <= BANKS; index++) assembly.fill(`bank-${index}`, working * 0.6);
  const settles = settlePiston(assembly, { stages, drive, block, cooling });
  const settle = () => {
    cartridge.taken = plant.extra[CARTRIDGE]!;
    settles();
  };
  return assembly.machine({ stages, airend: null, drive, block, control, oil, settle });
}

const separatorsOf = (count: number): readonly SpaceSpec[] =>
  Array.from({ length: count - 1 }, (_, index) =>
    steel(
      `stage-${index + 1}`,
      `Separator of stage ${index + 1}`,
      SEPARATOR_L[index]!,
      10 * (index + 1) ** 2,
      { holdsKg: 0.06 + 0.1 / (index + 1) },
    ),
  );

const restOf = (working: number): readonly SpaceSpec[] => [
  steel('tower', 'Last separator and tower', TOWER_L, working, { holdsKg: 0.25, keepsWater: true }),
  steel('panel', 'Panel and hoses', 0.4, working),
  ...Array.from({ length: BANKS }, (_, index) =>
    steel(`bank-${index + 1}`, `Bottle ${index + 1} of the bank`, BANK_L, working),
  ),
];

/** A relief valve after each stage, above what it stands at, and the final one. */
function reliefsOf(
  assembly: Assembly,
  chain: readonly number[],
  { pressuresBarAbs }: StagesDesign,
  relief: number,
): void {
  chain.forEach((at, index) => {
    const isLast = index === chain.length - 1;
    const bar = pressuresBarAbs[index]! - ATMOSPHERE_BAR;
    const setBar = isLast ? relief : bar * 1.35;
    const valve = assembly.add(
      new KeepingValve(at, assembly.plant.room, areaOf(isLast ? 2 : 3), setBar, 0.06),
    );
    if (isLast) {
      reliefFaults(assembly, valve, relief);
      assembly.hissing('relief', 'Final relief valve', () => valve.passes);
      return;
    }
    const name = `Relief valve after stage ${index + 1}`;
    assembly.hissing(`relief-${index + 1}`, name, () => valve.passes);
    assembly.fault(`relief-${index + 1}-low`, `${name} opens low`, (size) => {
      valve.setBar = bar * (1.35 - 0.9 * size);
    });
  });
}

function drainsOf(assembly: Assembly, separators: readonly SpaceSpec[]): readonly Turnable[] {
  const all = [
    ...separators.map(
      ({ code, name }, index) =>
        [`drain-${index + 1}`, `Drain of ${name.toLowerCase()}`, code, DRAIN_MM] as const,
    ),
    ['bleed-tower', 'Bleed of the tower', 'tower', BLEED_MM] as const,
  ];
  return all.map(([code, name, space, boreMm]) => {
    assembly.drainFaults(code, name, assembly.drain(code, name, space, boreMm));
    return assembly.turnables.get(code)!;
  });
}

function cartridgeFaults(assembly: Assembly, cartridge: Cartridge): void {
  assembly.fault('cartridge', 'Cartridge spent', (size) => {
    assembly.state[assembly.plant.extraAt(CARTRIDGE)] = size * cartridge.capacityKg;
  });
  assembly.fault(
    'cartridge-misfitted',
    'Cartridge misfitted, or its seal nicked',
    (size) => (cartridge.isMissing = size),
  );
}

function gaugesOf(assembly: Assembly, separators: readonly SpaceSpec[], design: StagesDesign): void {
  separators.forEach(({ code }, index) =>
    assembly.gauge(code, `Gauge of stage ${index + 1}`, code, scaleFor(design.pressuresBarAbs[index]! * 1.6)),
  );
  assembly.gauge('tower', 'Final gauge', 'tower', 400);
  assembly.gauge('panel', 'Gauge of the panel', 'panel', 400);
}

function designOf(plate: DataPlate, count: number, working: number, own?: StagesOf) {
  const lpm = plate.displacementLpm ?? (plate.fadLpm === undefined ? USUAL_LPM : plate.fadLpm / 0.8);
  const alike = (value: number) => Array.from({ length: count }, () => value);
  const design: StagesDesign = {
    pressuresBarAbs: own?.pressuresBarAbs ?? equalRatios(count, ATMOSPHERE_BAR, working + ATMOSPHERE_BAR),
    intakeBarAbs: ATMOSPHERE_BAR,
    intakeK: ROOM_K,
    sweptM3S: lpm / 60_000,
    exponents: own?.exponents ?? alike(1.25),
    clearances: own?.clearances ?? alike(0.05),
    coolings: own?.coolings ?? alike(0.92),
  };
  return { design, sized: sizeStages(design) };
}

function stageAt(
  plant: Plant,
  chain: readonly number[],
  index: number,
  at: number,
  spec: Stage['spec'],
  cartridge: Cartridge,
  count: number,
): Stage {
  const from = index === 0 ? plant.room : chain[index - 1]!;
  if (index < count - 1) return new Stage(from, at, spec);
  return new Stage(from, at, spec, (vapour) => {
    const dried = vapour * cartridge.holdsBack;
    plant.dExtra[CARTRIDGE]! += dried;
    return dried;
  });
}

/** Moment of what is left in stages and tower, share of the rated one: each stage pushes against what it was made for. */
function heldBack(plant: Plant, chain: readonly number[], design: StagesDesign): number {
  const shares = chain.map(
    (at, index) => plant.gaugeBar(at) / (design.pressuresBarAbs[index]! - ATMOSPHERE_BAR),
  );
  const held = shares.reduce(
    (sum, share, index) =>
      sum + Math.max(0, share - (index === 0 ? 0 : Math.max(0, shares[index - 1]!) * 0.4)),
    0,
  );
  return (2.2 * held) / chain.length;
}

function scaleFor(bar: number): number {
  return [10, 16, 25, 40, 60, 100, 160, 250, 400].find((one) => one > bar) ?? 600;
}

/** Holding valve, check valve, panel and bank. */
function afterTheTower(assembly: Assembly, plate: DataPlate): void {
  const setBar = plate.maintainingValveBar ?? 120;
  const seats = { holding: 0, check: 0 };
  const tower = assembly.at('tower');
  const panel = assembly.at('panel');
  const holding = assembly.add(new KeepingValve(tower, panel, areaOf(3), setBar, 0.05));
  const back = assembly.add(new CheckValve(panel, tower, areaOf(3), 0));
  back.opens = 0;
  const setBack = () => (back.leak = 0.05 * Math.min(seats.holding, seats.check));
  assembly.fault('holding-valve', 'Holding valve passes', (size) => {
    seats.holding = size;
    holding.leak = 0.02 * size;
    setBack();
  });
  assembly.fault(
    'holding-valve-low',
    'Holding valve opens too soon',
    (size) => (holding.setBar = setBar * (1 - 0.9 * size)),
  );
  assembly.fault('tower-check', 'Check valve after the tower leaks back', (size) => {
    seats.check = size;
    setBack();
  });
  const bankLeaks: Passage[] = [];
  for (let index = 1; index <= BANKS; index++) {
    const valve = assembly.hole('panel', `bank-${index}`, 4, 1);
    assembly.turnable(
      `valve-bank-${index}`,
      `Valve of bottle ${index}`,
      'valve',
      `bank-${index}`,
      (share) => (valve.open = share),
      {},
      1,
    );
    bankLeaks.push(valve);
  }
  assembly.fault('bank-valve', 'A valve of the bank passes', (size) => (bankLeaks[0]!.leak = 0.002 * size));
  assembly.vent('vent-panel', 'Fill valve open to the air', 'panel', VENT_MM);
  assembly.leak('machine-leak', 'Leak behind the tower', 'panel', 1, 'A joint behind the tower');
}

/** What whoever breathes it smells, and what the monitor shows. */
function airSenses(assembly: Assembly, cartridge: Cartridge, stages: readonly Stage[]): void {
  let exhaust = 0;
  assembly.fault('exhaust-at-intake', 'Exhaust drawn in at the intake', (size) => (exhaust = size));
  const passes = () => 1 - TURNS_CO * cartridge.holdsBack;
  assembly.senses.push(
    {
      code: 'smell',
      place: 'Air delivered',
      text: 'smells and tastes',
      strength: () =>
        stages[0]!.speed > 0 ? Math.max(exhaust * passes(), 1 - cartridge.holdsBack / 0.998) : 0,
    },
    {
      code: 'co',
      place: 'CO monitor',
      text: 'alarm',
      strength: () => (stages[0]!.speed > 0 && 120 * exhaust * passes() > 5 ? 1 : 0),
    },
  );
}
