import { BAR, nozzle, nozzleSlope } from './gas.js';
import type { Element, Plant } from './plant.js';

/** Looked up once: the right-hand side asks for them millions of times. */
const { max, min, sqrt } = Math;

/** A drain or a cock is no rounded nozzle (practice). */
export const DISCHARGE = 0.8;

export const areaOf = (boreMm: number): number => (Math.PI / 4) * (boreMm / 1000) ** 2;

/** A valve, a hole or a joint: air passes from the higher side to the lower. */
export class Passage implements Element {
  /** 0 shut, 1 open. */
  open: number;
  /** What passes though it is shut, share of its bore. */
  leak = 0;
  /** Share of its bore that is caked, frozen or bent shut. */
  blocked = 0;
  /** What passes now, kg/s; against its direction negative. */
  passes = 0;

  constructor(
    readonly from: number,
    readonly to: number,
    readonly area: number,
    open = 0,
  ) {
    this.open = open;
  }

  flow(plant: Plant): void {
    const share = max(this.open, this.leak) * (1 - this.blocked);
    this.passes = share > 0 ? through(plant, this.from, this.to, this.area * share) : 0;
  }
}

/** Air through a bore between two places, kg/s, from the first to the second; moves it, too. */
export function through(plant: Plant, from: number, to: number, area: number): number {
  const isForward = plant.pressure[from]! >= plant.pressure[to]!;
  const high = isForward ? from : to;
  const low = isForward ? to : from;
  let flow = flowThrough(plant, high, plant.pressure[low]!, area);
  let slope = plant.lastSlope;
  // No two spaces come level faster than this: what is quicker is over before anybody looks.
  const most = plant.evensOut(from, to);
  const capped = most * (plant.pressure[high]! - plant.pressure[low]!);
  if (capped < flow) {
    flow = capped;
    slope = most;
  }
  plant.addSlope(from, to, slope);
  plant.move(high, low, flow);
  return isForward ? flow : -flow;
}

/** The same without moving it: from a place to a pressure, Pa. */
export function flowThrough(plant: Plant, from: number, to: number, area: number): number {
  const before = plant.pressure[from]!;
  const scale = (DISCHARGE * area) / plant.root(from);
  const share = nozzle(to / before);
  plant.lastSlope = scale * nozzleSlope(share);
  return scale * before * share;
}

/**
 * Air through a valve that opens by itself: as much as its bore lets through, and no faster than spaces come level.
 *
 * @param over what the pressure before it is above that after it and its spring, Pa
 */
export function forward(plant: Plant, from: number, to: number, area: number, over: number): number {
  const wide = flowThrough(plant, from, plant.pressure[to]!, area);
  const most = plant.evensOut(from, to);
  const capped = most * over;
  const flow = min(wide, capped);
  plant.addSlope(from, to, capped < wide ? most : plant.lastSlope);
  plant.move(from, to, flow);
  return flow;
}

/** A check valve: opens when the pressure before it is so much higher, and leaks back by what it has lost of its seat. */
export class CheckValve implements Element {
  /** Share of its bore that stays open backwards. */
  leak: number;
  /** Share of its bore that it opens forwards; 0 hangs shut. */
  opens = 1;
  /** A hand valve in the same pipe, and what its seat lets through though it is shut. */
  gate = 1;
  gateLeak = 0;
  passes = 0;

  constructor(
    readonly from: number,
    readonly to: number,
    readonly area: number,
    readonly crackPa = 0.02 * BAR,
    leak = 0,
  ) {
    this.leak = leak;
  }

  flow(plant: Plant): void {
    this.passes = 0;
    const { from, to } = this;
    const gate = max(this.gate, this.gateLeak);
    const over = plant.pressure[from]! - plant.pressure[to]! - this.crackPa;
    if (over > 0 && this.opens > 0) {
      this.passes = forward(plant, from, to, this.area * min(this.opens, gate), over);
    } else if (this.leak > 0) {
      this.passes = through(plant, from, to, this.area * min(this.leak, gate));
    }
  }
}

/**
 * A valve that keeps the pressure before it: relief, holding and minimum-pressure valve. It opens in a straight
 * line from its setting over a band, lets nothing back but what its seat has lost, and stands where it is stuck.
 */
export class KeepingValve implements Element {
  /** Gauge pressure at which it begins to open, bar. */
  setBar: number;
  /** How much above that it is wide open, share of its setting. */
  band: number;
  /** Share of its bore that passes forward though it is shut; back it lets nothing. */
  leak = 0;
  /** Held open or shut by this share; null where it moves. */
  stuck: number | null = null;
  /** Share of its bore that is left by what stands in the same pipe. */
  narrowed = 1;
  passes = 0;

  constructor(
    readonly from: number,
    readonly to: number,
    readonly area: number,
    setBar: number,
    band = 0.08,
  ) {
    this.setBar = setBar;
    this.band = band;
  }

  lift(plant: Plant): number {
    if (this.stuck !== null) return this.stuck;
    const over = plant.gaugeBar(this.from) - this.setBar;
    return min(1, max(0, over / (this.band * max(0.5, this.setBar))));
  }

  flow(plant: Plant): void {
    const isForward = plant.pressure[this.from]! > plant.pressure[this.to]!;
    const lift = isForward || this.stuck !== null ? this.lift(plant) : 0;
    const share = isForward ? max(lift, this.leak) : 0;
    this.passes = share > 0 ? through(plant, this.from, this.to, this.area * share * this.narrowed) : 0;
    // It opens further the more it holds back.
    if (lift > 0 && lift < 1 && this.stuck === null)
      plant.addSlope(
        this.from,
        this.from,
        (0.25 * this.passes) / (lift * this.band * max(0.5, this.setBar) * BAR),
      );
  }
}

/** A regulator is wide open when the pressure after it is so much too low, bar. */
const REGULATES_OVER = 0.3;

/** A valve that keeps the pressure after it, and lets nothing back unless it relieves. */
export class Regulator implements Element {
  gate = 1;
  passes = 0;

  constructor(
    readonly from: number,
    readonly to: number,
    readonly area: number,
    public setBar: number,
  ) {}

  flow(plant: Plant): void {
    const under = this.setBar - plant.gaugeBar(this.to);
    const isForward = plant.pressure[this.from]! > plant.pressure[this.to]!;
    const share = isForward ? this.gate * min(1, max(0, under / REGULATES_OVER)) : 0;
    this.passes = share > 0 ? through(plant, this.from, this.to, this.area * share) : 0;
    if (share > 0 && share < this.gate)
      plant.addSlope(this.to, this.to, (0.25 * this.gate * this.passes) / (share * REGULATES_OVER * BAR));
  }
}

/** People who take air: so much free air as long as there is pressure. */
export class Demand implements Element {
  /** Free air that is taken, kg/s. */
  takes = 0;

  constructor(
    readonly from: number,
    readonly to: number,
  ) {}

  flow(plant: Plant): void {
    const bar = plant.gaugeBar(this.from);
    if (this.takes <= 0 || bar <= 0) return;
    const flow = this.takes * min(1, bar / 0.5);
    plant.addSlope(this.from, this.to, this.takes / 5e4);
    plant.move(this.from, this.to, flow);
  }
}

/** Water at the bottom of a space goes out before the air, kg: with less than this some air goes along. */
const LAST_WATER = { small: 0.005, large: 0.05 } as const;
const WATER_DENSITY = 1000;

/** A drain at the bottom of a space: water first, then air. */
export class Drain implements Element {
  open = 0;
  /** Share of its bore that its seat passes. */
  leak = 0;
  /** Share of its bore that is caked, frozen or whose actuator does not move. */
  blocked = 0;
  /** Air that passes, kg/s. */
  passes = 0;
  /** Water that passes, kg/s. */
  passesWater = 0;
  private readonly last: number;

  constructor(
    readonly from: number,
    readonly to: number,
    readonly area: number,
    litres: number,
  ) {
    this.last = litres > 20 ? LAST_WATER.large : LAST_WATER.small;
  }

  flow(plant: Plant): void {
    const share = max(this.open, this.leak) * (1 - this.blocked);
    this.passes = 0;
    this.passesWater = 0;
    if (share <= 0) return;
    const water = plant.water[this.from]!;
    const wet = water / (water + this.last);
    const over = max(0, plant.pressure[this.from]! - plant.pressure[this.to]!);
    const area = this.area * share;
    // Bernoulli, straight near nothing.
    const speed = sqrt((2 * over) / WATER_DENSITY) * min(1, over / 1000);
    this.passesWater = wet * DISCHARGE * area * WATER_DENSITY * speed;
    plant.dWater[this.from]! -= this.passesWater;
    plant.dWater[this.to]! += this.passesWater;
    const settles = (DISCHARGE * area * WATER_DENSITY * speed) / (water + this.last);
    if (settles > plant.otherSpeed) plant.otherSpeed = settles;
    this.passes = through(plant, this.from, this.to, area * (1 - wet));
  }
}
