import {
  AirState,
  BAR,
  CV_AIR,
  GAMMA,
  LATENT,
  R_WATER,
  ZERO_C,
  densityAt,
  energyAt,
  saturatedDensity,
} from './gas.js';

/** Looked up once: the right-hand side asks for them millions of times. */
const { abs, max, min, sqrt } = Math;

/** A space that holds air and water, as it is built. */
export interface SpaceSpec {
  readonly code: string;
  readonly name: string;
  readonly litres: number;
  /** Heat that its walls take up, J/K, and how well it passes from the air to them and on to the room, W/K. */
  readonly wallJPerK: number;
  readonly airToWall: number;
  readonly wallToRoom: number;
  /** Water that it holds before some goes along with the air, kg. */
  readonly holdsKg?: number;
  /** Its water lies where no air passes over it, and does not dry up: below a cartridge. */
  readonly keepsWater?: true;
  readonly startBar?: number;
}

/** Something through which air or heat moves, each time the rates are asked for. */
export interface Element {
  flow(plant: Plant): void;
}

/** How fast vapour falls out above saturation, and water dries up below it, 1/s. */
const [CONDENSES, DRIES] = [0.5, 0.004];
/** So little water dries up ever more slowly, kg. */
const LAST_DROPS = 1e-4;
const WATER_DENSITY = 1000;
/** Kinds of amounts that the state keeps for each space, in this order: air, vapour, water, energy; then walls. */
const KINDS = 4;
/** Vapour and water together may not fill a space. */
const LEAST_SHARE_FREE = 0.02;

/** The room: what the air is drawn from and goes back to. */
export interface Room {
  readonly tempC: number;
  readonly barAbs: number;
  /** 0 to 1 */
  readonly humidity: number;
}

export const USUAL_ROOM: Room = { tempC: 20, barAbs: 1.01325, humidity: 0.6 };

/**
 * Spaces of air joined by elements, with everything that is kept: air, water and energy. What one place loses
 * another gains in the same line, the room included, so that sums stay what they are.
 */
export class Plant {
  readonly count: number;
  /** The room's place among the spaces. */
  readonly room: number;
  /** Another supply of air that stays at its pressure: a second set on the same network. */
  readonly supply: number;
  /** Pa, K, kg/m³, J/kg, kg of vapour and of water per kg of air: of each space, at the state last asked for. */
  readonly pressure: Float64Array;
  readonly kelvin: Float64Array;
  readonly density: Float64Array;
  readonly enthalpy: Float64Array;
  readonly vapour: Float64Array;
  readonly mist: Float64Array;
  readonly water: Float64Array;
  readonly airMass: Float64Array;
  readonly volume: Float64Array;
  /** How fast each settles, 1/s per (kg/s per Pa): γ·p/m. */
  readonly stiffness: Float64Array;

  /** Where elements write: kg/s, kg/s, kg/s, W. */
  readonly dAir: Float64Array;
  readonly dVapour: Float64Array;
  readonly dWater: Float64Array;
  readonly dEnergy: Float64Array;
  /** Heat to walls, W. */
  readonly dWall: Float64Array;
  /** Slope of the flows, kg/s per Pa, twice between spaces. */
  readonly slope: Float64Array;
  /** Amounts beside the spaces: metal and oil by their heat, work done, heat given away, water in a cartridge. */
  readonly extra: Float64Array;
  readonly dExtra: Float64Array;
  /** Speeds that elements know of themselves, 1/s. */
  otherSpeed = 0;
  /** Slope of the flow that was reckoned last, kg/s per Pa. */
  lastSlope = 0;
  /** Spaces come level no faster than this, 1/s: while it runs, and while it stands and nobody waits for it. */
  quickest = 60;

  roomK = 0;
  private readonly air = new AirState();
  private readonly specs: readonly SpaceSpec[];
  readonly elements: Element[] = [];

  constructor(specs: readonly SpaceSpec[], extras: number, room: Room, supplyBar: number) {
    this.specs = specs;
    this.count = specs.length + 2;
    this.room = specs.length;
    this.supply = specs.length + 1;
    const made = () => new Float64Array(this.count);
    [this.pressure, this.kelvin, this.density, this.enthalpy] = [made(), made(), made(), made()];
    [this.vapour, this.mist, this.water, this.airMass] = [made(), made(), made(), made()];
    [this.volume, this.stiffness, this.slope] = [made(), made(), made()];
    [this.dAir, this.dVapour, this.dWater, this.dEnergy, this.dWall] = [
      made(),
      made(),
      made(),
      made(),
      made(),
    ];
    [this.extra, this.dExtra] = [new Float64Array(extras), new Float64Array(extras)];
    specs.forEach(({ litres }, index) => (this.volume[index] = litres / 1000));
    this.setRoom(room, supplyBar);
  }

  /** The room and the other supply, which stay as they are whatever flows. */
  setRoom({ tempC, barAbs, humidity }: Room, supplyBar: number): void {
    this.roomK = tempC + ZERO_C;
    for (const [index, bar, share] of [
      [this.room, barAbs, humidity],
      [this.supply, barAbs + supplyBar, 1],
    ] as const) {
      const pressure = bar * BAR;
      const vapourDensity = share * saturatedDensity(this.roomK, pressure) * (index === this.room ? 1 : 0.3);
      const dry = densityAt(pressure - vapourDensity * R_WATER * this.roomK, this.roomK);
      this.air.set(dry, this.roomK);
      this.pressure[index] = pressure;
      this.kelvin[index] = this.roomK;
      this.density[index] = dry;
      this.enthalpy[index] = this.air.enthalpy;
      this.vapour[index] = vapourDensity / dry;
    }
  }

  /** Length of the state: four amounts a space, its wall, and what stands beside. */
  get size(): number {
    return this.count * (KINDS + 1) + this.extra.length;
  }

  /** The state that it is built in: everything as warm as the room, at the pressures of its spaces. */
  initial(): Float64Array {
    const state = new Float64Array(this.size);
    this.specs.forEach((spec, index) => {
      const { startBar = 0 } = spec;
      this.fill(state, index, this.pressure[this.room]! + startBar * BAR, 0);
    });
    for (let i = 0; i < this.count; i++) state[this.wallAt(i)] = this.roomK;
    return state;
  }

  /** Puts a space at a pressure, Pa absolute, as warm as the room, its air saturated where it is above the room's. */
  fill(state: Float64Array, index: number, pressure: number, waterKg: number): void {
    const free = this.freeVolume(index, waterKg);
    const isPressed = pressure > this.pressure[this.room]! * 1.01;
    const humidity = this.vapour[this.room]! * this.density[this.room]!;
    const vapour = isPressed ? saturatedDensity(this.roomK, pressure) : humidity;
    const dry = densityAt(pressure - vapour * R_WATER * this.roomK, this.roomK);
    const n = this.count;
    state[index] = dry * free;
    state[n + index] = vapour * free;
    state[2 * n + index] = waterKg;
    state[3 * n + index] = dry * free * energyAt(dry, this.roomK) + LATENT * vapour * free;
  }

  wallAt(index: number): number {
    return KINDS * this.count + index;
  }

  extraAt(index: number): number {
    return (KINDS + 1) * this.count + index;
  }

  private freeVolume(index: number, waterKg: number): number {
    const whole = this.volume[index]!;
    return max(whole * LEAST_SHARE_FREE, whole - waterKg / WATER_DENSITY);
  }

  /** How fast everything changes at a state. */
  readonly rates = (state: Float64Array, rates: Float64Array): void => {
    this.read(state);
    this.dAir.fill(0);
    this.dVapour.fill(0);
    this.dWater.fill(0);
    this.dEnergy.fill(0);
    this.dWall.fill(0);
    this.slope.fill(0);
    this.dExtra.fill(0);
    this.otherSpeed = 0;
    this.settleWater();
    this.passWalls(state);
    const { elements } = this;
    for (let i = 0; i < elements.length; i++) elements[i]!.flow(this);
    this.write(rates);
  };

  /** Pressures, temperatures and what else follows from the amounts. */
  private read(state: Float64Array): void {
    const n = this.count;
    for (let i = 0; i < this.room; i++) {
      const mass = state[i]!;
      const vapour = max(0, state[n + i]!);
      const water = max(0, state[2 * n + i]!);
      const free = this.freeVolume(i, water);
      const density = mass / free;
      const kelvin = this.kelvinOf(density, (state[3 * n + i]! - LATENT * state[n + i]!) / mass, i);
      this.airMass[i] = mass;
      this.water[i] = water;
      this.kelvin[i] = kelvin;
      this.density[i] = density;
      this.pressure[i] = this.air.pressure + (vapour / free) * R_WATER * kelvin;
      this.enthalpy[i] = this.air.energy + this.pressure[i]! / density;
      this.vapour[i] = vapour / mass;
      this.stiffness[i] = (GAMMA * this.pressure[i]!) / mass;
      const { holdsKg = Infinity } = this.specs[i]!;
      this.mist[i] = water > holdsKg ? min(0.5, (water - holdsKg) / mass) : 0;
    }
    const at = (KINDS + 1) * n;
    for (let i = 0; i < this.extra.length; i++) this.extra[i] = state[at + i]!;
  }

  /** The temperature at which air of this density has this energy; leaves the air set there. */
  private kelvinOf(density: number, energy: number, index: number): number {
    let kelvin = this.kelvin[index]! || energy / CV_AIR;
    for (let round = 0; round < 6; round++) {
      this.air.set(density, kelvin);
      const step = (energy - this.air.energy) / this.air.heatAtVolume;
      kelvin = min(900, max(120, kelvin + step));
      if (abs(step) < 1e-9 * kelvin) break;
    }
    this.air.set(density, kelvin);
    return kelvin;
  }

  private settleWater(): void {
    for (let i = 0; i < this.room; i++) {
      const holds =
        saturatedDensity(this.kelvin[i]!, this.pressure[i]!) * (this.airMass[i]! / this.density[i]!);
      const over = this.vapour[i]! * this.airMass[i]! - holds;
      const water = this.water[i]!;
      const dries = this.specs[i]!.keepsWater ? 0 : DRIES;
      const rate = over > 0 ? CONDENSES * over : (dries * over * water) / (water + LAST_DROPS);
      this.dVapour[i]! -= rate;
      this.dWater[i]! += rate;
    }
    this.otherSpeed = 2 * CONDENSES;
  }

  private passWalls(state: Float64Array): void {
    for (let i = 0; i < this.room; i++) {
      const { airToWall, wallToRoom, wallJPerK } = this.specs[i]!;
      const wall = state[this.wallAt(i)]!;
      const inward = airToWall * (this.kelvin[i]! - wall);
      const outward = wallToRoom * (wall - this.roomK);
      this.dEnergy[i]! -= inward;
      this.dWall[i] = (inward - outward) / wallJPerK;
      this.dEnergy[this.room]! += outward;
      const speed = airToWall / (this.airMass[i]! * CV_AIR) + (airToWall + wallToRoom) / wallJPerK;
      if (speed > this.otherSpeed) this.otherSpeed = speed;
    }
  }

  private write(rates: Float64Array): void {
    const n = this.count;
    for (let i = 0; i < n; i++) {
      rates[i] = this.dAir[i]!;
      rates[n + i] = this.dVapour[i]!;
      rates[2 * n + i] = this.dWater[i]!;
      rates[3 * n + i] = this.dEnergy[i]!;
      rates[4 * n + i] = this.dWall[i]!;
    }
    rates.set(this.dExtra, (KINDS + 1) * n);
  }

  /** Upper bound of how fast anything settles, 1/s. */
  readonly fastest = (): number => {
    let worst = this.otherSpeed;
    for (let i = 0; i < this.room; i++) {
      const speed = this.stiffness[i]! * this.slope[i]!;
      if (speed > worst) worst = speed;
    }
    return 1.25 * worst;
  };

  /** Moves air, kg/s, with the vapour and the mist in it, from one place to another at the first one's energy. */
  move(from: number, to: number, flow: number): void {
    const vapour = flow * this.vapour[from]!;
    const mist = flow * this.mist[from]!;
    const energy = flow * this.enthalpy[from]! + LATENT * vapour;
    this.dAir[from]! -= flow;
    this.dAir[to]! += flow;
    this.dVapour[from]! -= vapour;
    this.dVapour[to]! += vapour;
    this.dWater[from]! -= mist;
    this.dWater[to]! += mist;
    this.dEnergy[from]! -= energy;
    this.dEnergy[to]! += energy;
  }

  /** Steepest that a flow between two places may hang on their pressures, kg/s per Pa. */
  evensOut(from: number, to: number): number {
    return this.quickest / max(this.stiffness[from]!, this.stiffness[to]!);
  }

  /** Notes how steeply a flow hangs on the pressures between two places, kg/s per Pa. */
  addSlope(from: number, to: number, slope: number): void {
    const isBetween = from < this.room && to < this.room;
    this.slope[from]! += isBetween ? 2 * slope : slope;
    this.slope[to]! += isBetween ? 2 * slope : slope;
  }

  nameOf(index: number): string {
    return this.specs[index]!.name;
  }

  gaugeBar(index: number): number {
    return (this.pressure[index]! - this.pressure[this.room]!) / BAR;
  }

  tempC(index: number): number {
    return this.kelvin[index]! - ZERO_C;
  }

  /** Scales that errors are small beside. */
  scales(state: Float64Array): Float64Array {
    const scales = new Float64Array(state.length);
    const n = this.count;
    for (let i = 0; i < n; i++) {
      const mass = i < this.room ? 1.2 * this.volume[i]! : 1;
      scales[i] = mass;
      scales[n + i] = 0.02 * mass + 1e-4;
      scales[2 * n + i] = 0.02 * mass + 1e-3;
      scales[3 * n + i] = mass * CV_AIR * 300;
      scales[4 * n + i] = 50;
    }
    for (let i = 0; i < this.extra.length; i++) scales[5 * n + i] = 100;
    return scales;
  }

  /** Conserved sums: air, kg; water, kg; energy, J, without what stands beside. */
  sums(state: Float64Array): { readonly air: number; readonly water: number; readonly energy: number } {
    const n = this.count;
    let [air, water, energy] = [0, 0, 0];
    for (let i = 0; i < n; i++) {
      air += state[i]!;
      water += state[n + i]! + state[2 * n + i]!;
      energy += state[3 * n + i]!;
      if (i < this.room) energy += this.specs[i]!.wallJPerK * state[4 * n + i]!;
    }
    return { air, water, energy };
  }

  /** Gas constant times temperature over which a flow through a hole scales: √(Z·R·T). */
  root(index: number): number {
    return sqrt(this.pressure[index]! / this.density[index]!);
  }
}
