import type { Assembly } from './assembly.js';
import type { Drive } from './drive.js';
import type { Block } from './parts.js';
import type { Stage } from './stage.js';
import type { SwitchControl } from './switch-control.js';

/** An intake so blocked that this share of the delivery is lost is blocked by a tenth, and so on (practice). */
const INTAKE_PA = 60_000;
/** A panel left off or a hot room warms what cools the machine by so much, K. */
const [HOT_ROOM_K, PANEL_K] = [30, 35];

/** What cools a machine, and what spoils it. */
export class Cooling {
  fouled = 0;
  hotRoom = 0;
  panelOff = 0;
  fan = 0;

  /** Kelvin above the room at which the air reaches fins and coolers. */
  get above(): number {
    return HOT_ROOM_K * this.hotRoom + PANEL_K * this.panelOff;
  }

  /** Share of the cooling that is left. */
  get share(): number {
    return Math.max(0.05, (1 - this.fouled) * (1 - 0.9 * this.fan));
  }
}

export function coolingFaults(assembly: Assembly, cooling: Cooling): void {
  assembly.fault('cooler-dirty', 'Cooler or fins dirty', (size) => (cooling.fouled = size));
  assembly.fault('room-hot', 'Hot room, own warm air drawn in again', (size) => (cooling.hotRoom = size));
  assembly.fault('panel-off', 'A panel or the shroud left off', (size) => (cooling.panelOff = size));
  assembly.fault('fan', 'Fan: stands, or turns the wrong way', (size) => (cooling.fan = size));
}

export function driveFaults(assembly: Assembly, drive: Drive, control: { pullsIn: boolean }): void {
  assembly.fault(
    'supply-low',
    'Supply: low volts, long lead, a phase lost',
    (size) => (drive.volts = 1 - 0.6 * size),
  );
  if (drive.kind === 'single-phase')
    assembly.fault('capacitor', 'Capacitor: lost part of its value', (size) => (drive.capacitor = 1 - size));
  if (drive.kind === 'petrol' || drive.kind === 'diesel')
    assembly.fault(
      'engine-starved',
      'Engine: fuel, filter, injector or preheat',
      (size) => (drive.starved = size),
    );
  assembly.fault('contactor', 'Switch or contactor does not close', (size) => (control.pullsIn = size < 0.5));
  assembly.fault('seized', 'Pump stiff or seized', (size) => (drive.seized = 3 * size));
  assembly.fault('belt-slack', 'Belt slack, slipping', (size) => (drive.beltSlip = 0.9 * size));
  assembly.senses.push({
    code: 'belt',
    place: 'Belt',
    text: 'squeals',
    strength: () => (drive.state === 'runs' ? Math.min(1, 3 * drive.beltSlip) : 0),
  });
  assembly.senses.push({
    code: 'motor',
    place: 'Motor',
    text: 'hums and does not turn',
    strength: () => (drive.state === 'stalls' ? 1 : 0),
  });
}

/** Loose things and worn bearings are heard and felt, and nothing else. */
export function noiseFaults(assembly: Assembly, drive: Drive): void {
  for (const [code, name, text] of [
    ['bolts-loose', 'Bolts, feet or a guard loose', 'rattles and shakes'],
    ['bearing-worn', 'A bearing worn', 'knocks under load'],
  ] as const) {
    let size = 0;
    assembly.fault(code, name, (to) => (size = to));
    assembly.senses.push({
      code,
      place: 'Machine',
      text,
      strength: () => (drive.state === 'runs' ? size : 0),
    });
  }
}

/** Valves, rings and coolers of every stage, and the intake. */
export function stageFaults(assembly: Assembly, stages: readonly Stage[], flowKgS: number): void {
  stages.forEach((stage, index) => {
    const number = index + 1;
    const name = stages.length === 1 ? '' : ` of stage ${number}`;
    assembly.fault(`suction-valve-${number}`, `Suction valve${name}`, (size) => (stage.suctionValve = size));
    assembly.fault(
      `discharge-valve-${number}`,
      `Discharge valve${name}`,
      (size) => (stage.dischargeValve = size),
    );
    assembly.fault(`ring-${number}`, `Ring or sleeve${name}`, (size) => (stage.ring = size));
    assembly.fault(`cooler-${number}`, `Cooler${name} fouled`, (size) => (stage.fouled = size));
  });
  const [first] = stages;
  assembly.fault('intake-blocked', 'Intake element blocked', (size) => {
    first!.resistance = size === 0 ? 0 : resistanceOf(size, flowKgS);
  });
  assembly.senses.push({
    code: 'breather',
    place: 'Crankcase breather',
    text: 'puffs with every stroke',
    strength: () => Math.min(1, (stages.reduce((sum, { blowsBy }) => sum + blowsBy, 0) / flowKgS) * 5),
  });
  assembly.senses.push({
    code: 'intake-back',
    place: 'Intake',
    text: 'air breathes back out',
    strength: () => Math.min(1, (first!.breathesBack / flowKgS) * 4),
  });
}

/** Pa per (kg/s)²: a tenth takes a twentieth of a bar at full flow, all of it lets nothing through. */
export function resistanceOf(size: number, flowKgS: number): number {
  const share = Math.min(0.9999, size);
  return (INTAKE_PA * share) / (1 - share) ** 2 / flowKgS ** 2;
}

/** Passes on how warm the coolers are cooled, and how much. */
export function settleCooling(
  cooling: Cooling,
  stages: readonly Stage[],
  block: Block,
  coolantK: number,
  runs: boolean,
): void {
  for (const stage of stages) {
    stage.coolantK = coolantK + cooling.above;
    stage.lost = 1 - cooling.share;
  }
  block.coolantK = coolantK + cooling.above;
  block.cooling = runs ? cooling.share : 0.25;
}

export function switchFaults(
  assembly: Assembly,
  control: SwitchControl,
  cutIn: number,
  cutOut: number,
): void {
  assembly.fault('switch-high', 'Switch opens too high', (size) => (control.cutOut = cutOut * (1 + size)));
  assembly.fault('switch-narrow', 'Band of the switch too narrow', (size) => {
    control.cutIn = cutIn + (cutOut - cutIn) * 0.97 * size;
  });
}
