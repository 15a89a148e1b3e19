import type { DataPlate } from '../machine/index.js';
import { areaOf, Drain, Passage } from './elements.js';
import { BAR } from './gas.js';
import {
  BLOCK,
  EXTRAS,
  Gauge,
  type FaultPart,
  type Machine,
  type Sense,
  type Thermometer,
  type Turnable,
} from './parts.js';
import { Plant, type Element, type Room, type SpaceSpec } from './plant.js';

/** How a machine is set up beside its plate. */
export interface Setting {
  readonly room: Room;
  /** Pressure of another set on the same network, bar. */
  readonly supplyBar: number;
}

/** Steel, J/(kg·K), and what a litre of a vessel weighs at the least, kg (practice). */
const STEEL = 480;

/** A space of steel: walls by its litres and the pressure that it is made for. */
export function steel(
  code: string,
  name: string,
  litres: number,
  bar: number,
  more: Partial<SpaceSpec> = {},
): SpaceSpec {
  const kg = 0.4 * litres * (1 + bar / 25);
  const squareM = 0.06 * litres ** (2 / 3);
  return {
    code,
    name,
    litres,
    wallJPerK: STEEL * Math.max(0.5, kg),
    airToWall: squareM * (15 + bar * 0.4),
    wallToRoom: squareM * 9,
    ...more,
  };
}

/** Least that an ear catches beside a machine that stands, kg/s: about a litre and a half a minute. */
export const AUDIBLE = 3e-5;

/** How plain a hiss is, by what passes, kg/s. */
export function hiss(flow: number): number {
  return flow <= AUDIBLE ? 0 : Math.min(1, 0.15 + 0.28 * Math.log10(flow / AUDIBLE));
}

/** Puts a machine together: spaces first, then what joins them. */
export class Assembly {
  readonly plant: Plant;
  readonly spaces: ReadonlyMap<string, number>;
  readonly turnables = new Map<string, Turnable>();
  readonly gauges = new Map<string, Gauge>();
  readonly thermometers: Thermometer[] = [];
  readonly senses: Sense[] = [];
  readonly faults = new Map<string, FaultPart>();
  /** What the machine begins with; later what it stands at. */
  readonly state: Float64Array;

  constructor(
    readonly plate: DataPlate,
    readonly specs: readonly SpaceSpec[],
    { room, supplyBar }: Setting,
  ) {
    this.plant = new Plant(specs, EXTRAS, room, supplyBar);
    this.spaces = new Map(specs.map(({ code }, index) => [code, index]));
    this.state = this.plant.initial();
    this.state[this.plant.extraAt(BLOCK)] = this.plant.roomK;
  }

  /** Puts a space at a gauge pressure, bar, with water in it, kg. */
  fill(code: string, bar: number, waterKg = 0): void {
    this.plant.fill(this.state, this.at(code), this.plant.pressure[this.plant.room]! + bar * BAR, waterKg);
  }

  /** Fills a space with water instead of air, at the pressure that it has: a share of its litres. */
  waterlog(code: string, share: number): void {
    this.plant.rates(this.state, new Float64Array(this.state.length));
    const at = this.at(code);
    this.fill(code, this.plant.gaugeBar(at), share * 0.9 * this.specs[at]!.litres);
  }

  at(code: string): number {
    const index = this.spaces.get(code);
    if (index === undefined) throw new Error(`No space ${code}`);
    return index;
  }

  add<Made extends Element>(element: Made): Made {
    this.plant.elements.push(element);
    return element;
  }

  /** A hole of a bore in mm; nothing passes until it is opened. */
  hole(from: string | number, to: string | number, boreMm: number, open = 0): Passage {
    const index = (place: string | number) => (typeof place === 'number' ? place : this.at(place));
    return this.add(new Passage(index(from), index(to), areaOf(boreMm), open));
  }

  drain(code: string, name: string, space: string, boreMm: number): Drain {
    const at = this.at(space);
    const drain = this.add(new Drain(at, this.plant.room, areaOf(boreMm), this.specs[at]!.litres));
    this.turnable(code, name, 'drain', space, (share) => (drain.open = share), {
      passes: () => drain.passes,
      passesWater: () => drain.passesWater,
    });
    this.hissing(code, name, () => drain.passes);
    this.senses.push({
      code: `${code}-water`,
      place: name,
      text: 'water runs out',
      strength: () => (drain.passesWater > 1e-5 ? 0.8 : 0),
    });
    return drain;
  }

  turnable(
    code: string,
    name: string,
    kind: Turnable['kind'],
    space: string,
    turn: (share: number) => void,
    { passes = () => 0, passesWater = () => 0 }: Partial<Pick<Turnable, 'passes' | 'passesWater'>> = {},
    share = 0,
  ): Turnable {
    const made: Turnable = {
      code,
      name,
      kind,
      space,
      share,
      turn: (to) => {
        made.share = to;
        turn(to);
      },
      passes,
      passesWater,
    };
    this.turnables.set(code, made);
    return made;
  }

  /** A vent without water: a bleed, a fill valve. */
  vent(code: string, name: string, space: string, boreMm: number): Passage {
    const passage = this.hole(space, this.plant.room, boreMm);
    this.turnable(code, name, 'drain', space, (share) => (passage.open = share), {
      passes: () => Math.abs(passage.passes),
    });
    this.hissing(code, name, () => Math.abs(passage.passes));
    this.fault(`${code}-blocked`, `${name}: blocked`, (size) => (passage.blocked = size));
    return passage;
  }

  hissing(code: string, place: string, flow: () => number, text = 'air hisses out'): void {
    this.senses.push({ code, place, text, strength: () => hiss(flow()) });
  }

  gauge(code: string, name: string, space: string, fullScaleBar: number, classPercent = 1.6): Gauge {
    const gauge = new Gauge(code, name, this.at(space), fullScaleBar, classPercent);
    this.gauges.set(code, gauge);
    this.fault(`gauge-${code}-sticks`, `${name}: the needle sticks`, (size) => (gauge.sticks = size));
    this.fault(`gauge-${code}-off`, `${name}: shows too little`, (size) => (gauge.offset = -0.5 * size));
    return gauge;
  }

  thermometer(code: string, name: string, tempC: () => number): void {
    this.thermometers.push({ code, name, tempC });
  }

  fault(code: string, name: string, set: (size: number) => void): void {
    this.faults.set(code, { code, name, set });
  }

  drainFaults(code: string, name: string, drain: Drain): void {
    this.fault(`${code}-open`, `${name}: open, or its seat passing`, (size) => (drain.leak = size));
    this.fault(`${code}-blocked`, `${name}: blocked`, (size) => (drain.blocked = size));
  }

  /** Relief valves, leaks: a hole that a fault opens, and that is heard. */
  leak(code: string, name: string, space: string, boreMm: number, place: string, text?: string): void {
    const hole = this.hole(space, this.plant.room, boreMm);
    this.fault(code, name, (size) => (hole.open = size));
    this.hissing(code, place, () => hole.passes, text);
  }

  /** Water that comes in from outside: a tube that leaks, kg/s at the most. */
  seep(code: string, name: string, space: string, mostKgS: number): void {
    const at = this.at(space);
    let size = 0;
    this.fault(code, name, (to) => (size = to));
    this.add({
      flow: (plant) => {
        plant.dWater[at]! += size * mostKgS;
        plant.dWater[plant.room]! -= size * mostKgS;
      },
    });
  }

  /** Whole, with what drives and runs it. */
  machine(
    rest: Pick<Machine, 'stages' | 'airend' | 'drive' | 'block' | 'control' | 'oil' | 'settle'>,
  ): Machine {
    const { plate, plant, state, spaces, turnables, gauges, thermometers, senses, faults } = this;
    rest.settle();
    return { plate, plant, state, spaces, turnables, gauges, thermometers, senses, faults, ...rest };
  }
}
