import type { DataPlate } from '../machine/index.js';
import { Airend, type AirendSpec } from './airend.js';
import { Assembly, steel, type Setting } from './assembly.js';
import { Drive, SCREW_OIL } from './drive.js';
import { areaOf, CheckValve, Demand, KeepingValve, type Passage } from './elements.js';
import { ZERO_C } from './gas.js';
import { Block, BLOCK, WORK, type Machine } from './parts.js';
import { Cooling, coolingFaults, driveFaults, noiseFaults, resistanceOf } from './piston-faults.js';
import { drainMm, reliefFaults } from './piston.js';
import type { SpaceSpec } from './plant.js';
import { ScrewControl } from './screw-control.js';

const USUAL_LPM = 3000;
const [VESSEL_L, SIDE_L, RECEIVER_L, NETWORK_L] = [40, 5, 500, 300];
/** Minimum-pressure valve, bar (practice: 4 to 5). */
const KEEPS_BAR = 4.5;
/** Its element drops so much when clean, at full flow, bar. */
const CLEAN_DROP = 0.25;
/** Holds back the start above so much in the vessel, bar. */
const STARTS_BELOW = 1.5;
/** Kilowatts for each m³/min at 7 bar (common practice), to size oil and cooler. */
const KW_PER_M3_MIN = 6.5;
const USUAL_OIL_L = 12;
const VENT_MM = 8;
/** Share of the drive's friction that ends in the oil. */
const OIL_FRICTION = 0.3;

/** Figures that follow from a plate. */
function figuresOf(plate: DataPlate) {
  const working = plate.workingPressureBar ?? plate.cutOutBar ?? 8;
  const lpm = plate.displacementLpm ?? (plate.fadLpm ?? USUAL_LPM) / 0.92;
  const sweptM3S = lpm / 60_000;
  return {
    working,
    relief: plate.reliefBar ?? working * 1.15 + 0.5,
    cutIn: plate.cutInBar ?? working * 0.88,
    cutOut: plate.cutOutBar ?? working,
    sweptM3S,
    ratedW: (lpm / 1000) * KW_PER_M3_MIN * 1000 * (0.55 + (0.45 * working) / 7),
    /** kg/s */
    flow: sweptM3S * 1.19,
    oilL: plate.oilChargeL ?? USUAL_OIL_L,
  };
}
type Figures = ReturnType<typeof figuresOf>;

function spacesOf(plate: DataPlate, isPortable: boolean, { relief }: Figures): readonly SpaceSpec[] {
  const side = isPortable ? 'Manifold' : 'Between minimum-pressure valve and outlet valve';
  return [
    steel('vessel', 'Separator vessel', VESSEL_L, relief),
    steel('outlet-side', side, SIDE_L, relief, { holdsKg: 1 }),
    ...(isPortable
      ? [steel('hose', 'Hose and tools', 10, relief)]
      : [
          steel('receiver', 'Receiver', plate.receiverL ?? RECEIVER_L, relief),
          steel('network', 'Network', NETWORK_L, relief),
        ]),
  ];
}

function airendSpec({ sweptM3S, working, oilL, ratedW, flow }: Figures): AirendSpec {
  return {
    sweptM3S,
    builtIn: working * 0.9 + 1,
    oilJPerK: oilL * 1750 + ratedW * 1.5,
    oilKgS: (ratedW * 0.9) / (1900 * 10),
    coolerWPerK: ratedW / 48,
    gap: (0.08 * flow * 290) / (0.8 * 0.685 * (working + 1) * 1e5),
  };
}

/** A screw with its vessel, on a receiver and a network; or a portable one with cocks. */
export function buildScrew(plate: DataPlate, setting: Setting): Machine {
  const isPortable = plate.motor === 'diesel';
  const figures = figuresOf(plate);
  const { working, ratedW, flow } = figures;
  const assembly = new Assembly(plate, spacesOf(plate, isPortable, figures), setting);
  const { plant } = assembly;
  const vessel = assembly.at('vessel');
  const airend = assembly.add(new Airend(vessel, BLOCK, WORK, airendSpec(figures)));
  const { cutIn, cutOut } = figures;
  if (isPortable) airend.throttles = { from: cutIn, to: cutOut };
  const drive = new Drive(plate.motor ?? 'three-phase', ratedW, ratedW / 560, SCREW_OIL);
  const block = assembly.add(new Block([], airend.spec.oilJPerK, 0));
  separatorOf(assembly, figures);
  const blowDown = ventsOf(assembly, isPortable, figures);
  const demand = isPortable ? portableEnd(assembly) : networkEnd(assembly);
  const valves = { blowShut: 0, blowOpen: 0, intakeShut: 0, intakeOpen: 0, stopSticks: 0 };
  const control = new ScrewControl(
    {
      drive,
      feels: () => plant.gaugeBar(isPortable ? vessel : assembly.at('receiver')),
      vesselBar: () => plant.gaugeBar(vessel),
      oilC: () => plant.extra[BLOCK]! - ZERO_C,
      outletC: () => (drive.state === 'runs' ? airend.outletK : plant.extra[BLOCK]!) - ZERO_C,
      set: (isLoaded, isRunning) => {
        airend.intake = isLoaded ? 1 - valves.intakeShut : valves.intakeOpen;
        airend.intakeLeak = isRunning ? 0 : valves.intakeOpen;
        // A portable set keeps its vessel full while it idles.
        const isShut = isLoaded || (isPortable && isRunning);
        blowDown.open = isShut ? valves.blowOpen : 1 - valves.blowShut;
      },
      startsBelow: STARTS_BELOW,
      cannotStop: () => valves.stopSticks >= 0.5,
    },
    isPortable ? figures.relief : cutIn,
    isPortable ? figures.relief : cutOut,
    isPortable ? 120 : 110,
  );
  const cooling = new Cooling();
  coolingFaults(assembly, cooling);
  driveFaults(assembly, drive, control);
  noiseFaults(assembly, drive);
  airendFaults(assembly, airend, flow);
  valveFaults(assembly, valves, control, isPortable);
  assembly.fault('demand', 'More air taken than it makes', (size) => (demand.takes = 1.5 * size * flow));
  const oil = oilOf(figures.oilL, assembly, airend, control, vessel);
  assembly.thermometer('outlet', 'Outlet of the airend', () => control.parts.outletC());
  assembly.thermometer('oil', 'Oil', () => plant.extra[BLOCK]! - ZERO_C);
  assembly.fill('vessel', 0.3);
  if (!isPortable)
    for (const code of ['outlet-side', 'receiver', 'network']) assembly.fill(code, working * 0.95, 0.05);
  const settle = () => {
    airend.speed = drive.speed();
    airend.coolantK = plant.roomK + cooling.above;
    airend.fouled = 1 - cooling.share;
    block.friction = drive.friction(plant.extra[BLOCK]! - ZERO_C) * ratedW * airend.speed * OIL_FRICTION;
    airend.oilShare = Math.min(1, oil.litres / oil.markL);
  };
  return assembly.machine({ stages: [], airend, drive, block, control, oil, settle });
}

/** Separator element and minimum-pressure valve: air goes on from the vessel, and back only where the valve leaks. */
function separatorOf(assembly: Assembly, { flow, working }: Figures): void {
  const [vessel, side] = [assembly.at('vessel'), assembly.at('outlet-side')];
  // Wide enough for the clean drop at full flow.
  const bar = working + 1;
  const wide = flow / ((0.8 * (bar * 1e5) * Math.sqrt((2 * CLEAN_DROP) / bar)) / 290);
  const keeping = assembly.add(new KeepingValve(vessel, side, wide, KEEPS_BAR, 0.15));
  const back = assembly.add(new CheckValve(side, vessel, areaOf(6), 0));
  back.opens = 0;
  assembly.fault('minimum-pressure-open', 'Minimum-pressure valve stands open', (size) => {
    keeping.setBar = KEEPS_BAR * (1 - size);
    back.leak = 0.5 * size;
  });
  assembly.fault('separator-blocked', 'Separator element blocked', (size) => {
    keeping.narrowed = Math.max(0.02, (1 - size) ** 1.5);
  });
}

/** What opens to the air: blow-down, hand vent, relief valve, drain, and a seam that weeps. */
function ventsOf(assembly: Assembly, isPortable: boolean, { relief }: Figures): Passage {
  const { room } = assembly.plant;
  const blowDown = assembly.hole('vessel', room, 3);
  assembly.hissing('blow-down', 'Blow-down at the intake', () => blowDown.passes);
  assembly.vent('vent-vessel', 'Hand vent of the vessel', 'vessel', VENT_MM);
  const final = assembly.add(new KeepingValve(assembly.at('vessel'), room, areaOf(12), relief));
  reliefFaults(assembly, final, relief);
  assembly.hissing('relief', 'Relief valve of the vessel', () => final.passes);
  const name = isPortable ? 'Drain of the manifold' : 'Drain of the water separator';
  assembly.drainFaults('drain-separator', name, assembly.drain('drain-separator', name, 'outlet-side', 6));
  assembly.leak(
    'vessel-crack',
    'Vessel weeps at a seam',
    'vessel',
    2,
    'A seam of the vessel',
    'weeps oil and air',
  );
  assembly.gauge('vessel', 'Gauge of the vessel', 'vessel', 16);
  return blowDown;
}

function airendFaults(assembly: Assembly, airend: Airend, flow: number): void {
  assembly.fault(
    'intake-blocked',
    'Intake element blocked',
    (size) => (airend.resistance = size === 0 ? 0 : resistanceOf(size, flow)),
  );
  assembly.fault('airend-worn', 'Airend worn', (size) => (airend.worn = size));
  assembly.fault(
    'thermostat-open',
    'Thermostat stuck open: always through the cooler',
    (size) => (airend.thermostatStuck = size === 0 ? null : size),
  );
  assembly.fault(
    'thermostat-shut',
    'Thermostat stuck shut: never through the cooler',
    (size) => (airend.thermostatStuck = size === 0 ? null : 1 - size),
  );
  // Oil and air come back out of an intake that does not seal at the stop.
  assembly.hissing('intake', 'Intake', () => airend.comesBack, 'air and oil come back out');
}

function valveFaults(
  assembly: Assembly,
  valves: Record<'blowShut' | 'blowOpen' | 'intakeShut' | 'intakeOpen' | 'stopSticks', number>,
  control: ScrewControl,
  isPortable: boolean,
): void {
  for (const [code, name, key] of [
    ['blow-down-shut', 'Blow-down does not open', 'blowShut'],
    ['blow-down-open', 'Blow-down does not shut', 'blowOpen'],
    ['intake-valve-shut', 'Intake valve does not open', 'intakeShut'],
    ['intake-valve-open', 'Intake valve does not shut or seal', 'intakeOpen'],
    ...(isPortable ? [['stop-solenoid', 'Stop solenoid sticks: it runs on', 'stopSticks'] as const] : []),
  ] as const)
    assembly.fault(code, name, (size) => {
      valves[key] = size;
      control.refresh();
    });
}

function networkEnd(assembly: Assembly): Demand {
  const outlet = assembly.hole('outlet-side', 'receiver', 25, 1);
  const gate = { outlet: 1, before: 1 };
  const set = () => (outlet.open = Math.min(gate.outlet, gate.before));
  assembly.turnable(
    'valve-outlet',
    'Outlet valve',
    'valve',
    'receiver',
    (share) => ((gate.outlet = share), set()),
    {},
    1,
  );
  assembly.turnable(
    'valve-receiver-in',
    'Valve before the receiver',
    'valve',
    'receiver',
    (share) => ((gate.before = share), set()),
    {},
    1,
  );
  assembly.fault('valve-outlet-passes', 'Outlet valve passes', (size) => (outlet.leak = 0.01 * size));
  const after = assembly.hole('receiver', 'network', 25, 1);
  assembly.turnable(
    'valve-receiver-out',
    'Valve after the receiver',
    'valve',
    'network',
    (share) => (after.open = share),
    {},
    1,
  );
  const drain = assembly.drain(
    'drain-receiver',
    'Drain of the receiver',
    'receiver',
    drainMm(assembly.specs[assembly.at('receiver')]!.litres),
  );
  assembly.drainFaults('drain-receiver', 'Drain of the receiver', drain);
  assembly.gauge('receiver', 'Gauge of the receiver', 'receiver', 16);
  assembly.leak('network-leak', 'Leaks of the network', 'network', 10, 'The network');
  const other = assembly.hole('network', assembly.plant.supply, 15);
  assembly.fault('other-set', 'Another set feeds the network', (size) => (other.open = size));
  return assembly.add(new Demand(assembly.at('network'), assembly.plant.room));
}

function portableEnd(assembly: Assembly): Demand {
  const cock = assembly.hole('outlet-side', 'hose', 15, 1);
  assembly.turnable(
    'valve-hose',
    'Outlet cock to the hose',
    'valve',
    'hose',
    (share) => (cock.open = share),
    {},
    1,
  );
  assembly.vent('vent-outlet', 'Outlet cock open to the air', 'outlet-side', 10);
  assembly.vent('vent-hose', 'Tool at the hose', 'hose', 6);
  return assembly.add(new Demand(assembly.at('hose'), assembly.plant.room));
}

/** Oil of a screw: what goes along with the air, and how far from the mark it stands. */
function oilOf(
  markL: number,
  assembly: Assembly,
  airend: Airend,
  control: ScrewControl,
  vessel: number,
): NonNullable<Machine['oil']> {
  let [scavenge, seal, isWrong] = [0, 0, 0];
  const carries = () => {
    const low = Math.max(0, 1 - assembly.plant.gaugeBar(vessel) / Math.max(1, KEEPS_BAR));
    const over = Math.max(0, oil.litres / markL - 1.1);
    return (
      3 + 400 * scavenge + 600 * seal + (control.isLoaded() ? 150 * low + 1500 * over : 0) + 60 * isWrong
    );
  };
  const oil = {
    litres: markL,
    markL,
    /** mg of each m³ that is drawn in, at 0.87 kg/L. */
    lossLPerS: () => ((airend.draws / 1.19) * carries() * 1e-6) / 0.87,
  };
  assembly.fault('scavenge', 'Scavenge line or screen blocked', (size) => (scavenge = size));
  assembly.fault('separator-seal', 'Separator element leaks at its seal', (size) => (seal = size));
  assembly.fault('oil-low', 'Oil too low', (size) => (oil.litres = markL * (1 - 0.8 * size)));
  assembly.fault('oil-overfilled', 'Oil overfilled', (size) => (oil.litres = markL * (1 + 0.5 * size)));
  assembly.fault('oil-wrong', 'Wrong or mixed oil', (size) => (isWrong = size));
  assembly.senses.push(
    {
      code: 'oil-mist',
      place: 'Air delivered',
      text: 'oil in the air',
      strength: () => Math.min(1, Math.max(0, (carries() - 6) / 100)),
    },
    {
      code: 'scavenge-glass',
      place: 'Sight glass of the scavenge line',
      text: 'oil moves',
      strength: () => (control.isLoaded() ? 0.6 * (1 - scavenge) : 0),
    },
    {
      code: 'milky',
      place: 'Oil',
      text: 'milky',
      strength: () => Math.min(1, assembly.plant.water[vessel]! / 0.3),
    },
  );
  return oil;
}
