import { DISCHARGE, forward, through } from './elements.js';
import { BAR, CP_AIR, LATENT, R_AIR, nozzle, saturatedDensity } from './gas.js';
import type { Element, Plant } from './plant.js';

/** Looked up once: the right-hand side asks for them millions of times. */
const { max, min, sqrt } = Math;

/** How a stage is built. */
export interface StageSpec {
  /** What it sweeps at its rated speed, m³/s. */
  readonly sweptM3S: number;
  /** Dead space, share of the swept volume. */
  readonly clearance: number;
  /** Polytropic exponent of its compression. */
  readonly exponent: number;
  /** Share of the way to the coolant’s temperature that its cooler brings the air. */
  readonly cooling: number;
  /** What leaks back or out when a valve or a ring is gone altogether, m²; and the bore of its valves, m². */
  readonly totalArea: number;
  readonly valveArea: number;
  /** Share of everything that a sound valve and a sound ring let through. */
  readonly sound: { readonly valve: number; readonly ring: number };
}

/** Of the heat that comes back through a suction valve, what goes on into the pipe before it. */
const WARMS_PIPE = 0.3;
/** Of its heat, what stays in the gas that comes back; the rest goes into the walls. */
const KEEPS_HEAT = { suction: 0.7, discharge: 0.85 } as const;
/** Share of the rise to the outlet's temperature at which the suction cover stands, and how a leak adds to it (practice). */
const COVER = { plain: 0.2, leak: 2 } as const;
/** Springs of valves hold so much, bar. */
const SPRING_BAR = 0.15;
/** Share of the work that warms the cylinder and with it the block. */
const WARMS_BLOCK = 0.12;

/** A stage of a piston compressor with its cooler, averaged over the stroke. */
export class Stage implements Element {
  /** Share of its rated speed. */
  speed = 0;
  /** 0 sound, 1 gone. */
  suctionValve = 0;
  dischargeValve = 0;
  ring = 0;
  /** Share of the cooling that is lost: in its own cooler, and of what cools them all. */
  fouled = 0;
  lost = 0;
  /** Resistance of the intake before it, Pa per (kg/s)²: only where it draws from the room. */
  resistance = 0;

  /** kg/s of air drawn in and sent on. */
  draws = 0;
  delivers = 0;
  /** Through the ring to the crankcase, kg/s. */
  blowsBy = 0;
  /** Back through the valve, kg/s. */
  breathesBack = 0;
  /** W */
  work = 0;
  /** K */
  outletK = 293;
  /** At the cover over the suction valve, which a leak of hot air warms: K. */
  suctionCoverK = 293;
  /** Heat to the block, W. */
  warms = 0;
  coolantK = 293;
  /** Water that a cartridge takes out of what it sends on, kg/s: set by what stands behind it. */
  readonly dries: ((vapour: number, flow: number) => number) | null;

  constructor(
    readonly from: number,
    readonly to: number,
    readonly spec: StageSpec,
    dries: ((vapour: number, flow: number) => number) | null = null,
  ) {
    this.dries = dries;
  }

  flow(plant: Plant): void {
    this.draws = 0;
    this.delivers = 0;
    this.blowsBy = 0;
    this.breathesBack = 0;
    this.work = 0;
    this.warms = 0;
    this.stands(plant);
    if (this.speed > 0) this.runs(plant);
  }

  private area(size: number, sound: number): number {
    return this.spec.totalArea * max(size, sound);
  }

  /** What passes without a stroke: forward through both valves, back through what leaks, out past the ring. */
  private stands(plant: Plant): void {
    const { from, to } = this;
    const rest = 1 - this.speed;
    const ring = this.area(this.ring, this.spec.sound.ring);
    const over = plant.pressure[from]! - plant.pressure[to]! - SPRING_BAR * BAR;
    if (over > 0) forward(plant, from, to, this.spec.valveArea, over);
    if (rest <= 0) return;
    const suction = this.area(this.suctionValve, this.spec.sound.valve);
    const discharge = this.area(this.dischargeValve, this.spec.sound.valve);
    const back = inSeries(suction, discharge) * rest;
    if (plant.pressure[to]! > plant.pressure[from]!) this.breathesBack = through(plant, to, from, back);
    this.blowsBy = through(plant, to, plant.room, inSeries(discharge, ring) * rest);
    if (from < plant.room)
      this.blowsBy += through(plant, from, plant.room, inSeries(this.spec.valveArea, ring) * rest);
  }

  private runs(plant: Plant): void {
    const { from, to } = this;
    const { exponent, clearance, sweptM3S } = this.spec;
    const swept = sweptM3S * this.speed;
    const before = plant.pressure[from]!;
    const densityPerPa = plant.density[from]! / before;
    const suction = this.drawnDown(before, swept * densityPerPa);
    const ratio = max(1, plant.pressure[to]! / suction);
    const growth = ratio ** ((exponent - 1) / exponent);
    const volumetric = max(0, 0.98 - clearance * (ratio ** (1 / exponent) - 1));
    const t1 = plant.kelvin[from]!;
    const charge = swept * suction * densityPerPa * volumetric;
    // Half the stroke stands against the pressure in the middle, half against that of the next space.
    const middle = suction * sqrt(ratio);
    const root = sqrt((suction / (suction * densityPerPa)) * sqrt(growth));
    const leak = (size: number, sound: number, high: number, low: number) =>
      (0.5 * this.speed * DISCHARGE * this.area(size, sound) * high * nozzle(low / high)) / root;
    let back = leak(this.suctionValve, this.spec.sound.valve, middle, suction);
    let again = leak(this.dischargeValve, this.spec.sound.valve, plant.pressure[to]!, suction);
    const squeeze = min(1, charge / (back + again + 1e-12));
    back *= squeeze;
    again *= squeeze;
    // What comes back is hotter than what is drawn in, takes its room, and is compressed again: the temperature of
    // the mixture, as a multiple of the fresh air's, solves k·τ² − (charge + leaks)·τ + charge = 0.
    const k =
      back * (1 + KEEPS_HEAT.suction * (sqrt(growth) - 1)) +
      again * (1 + KEEPS_HEAT.discharge * (growth - 1));
    const sum = charge + back + again;
    const hotter = charge > 0 ? (2 * charge) / (sum + sqrt(max(0, sum * sum - 4 * k * charge))) : 1;
    const fresh = max(0, charge - hotter * k);
    const past = min(fresh, leak(this.ring, this.spec.sound.ring, middle, plant.pressure[plant.room]!));
    const whole = fresh + back + again;
    const mixedK = hotter * t1;
    this.outletK = mixedK * growth;
    const hot = min(1, COVER.plain + (COVER.leak * back) / (fresh + back + 1e-12));
    this.suctionCoverK = t1 + hot * (this.outletK - t1);
    const z = before / (plant.density[from]! * R_AIR * t1);
    this.work = whole * (exponent / (exponent - 1)) * z * R_AIR * mixedK * (growth - 1);
    this.draws = fresh;
    this.delivers = fresh - past;
    this.blowsBy = past;
    this.breathesBack = back;
    this.passOn(plant, growth, back);
    // How it hangs on the pressures: the charge on the one before, the dead space and the leaks on the one after.
    const slope = (fresh + back + again) / suction;
    plant.addSlope(from, from, 0.5 * slope);
    plant.addSlope(
      to,
      to,
      (clearance * ratio ** (1 / exponent) * charge) / plant.pressure[to]! + again / plant.pressure[to]!,
    );
  }

  /** Moves the air with its water, and shares the heat out: what is left of it goes to the room by fins and water. */
  private passOn(plant: Plant, growth: number, back: number): void {
    const { from, to, draws, delivers, blowsBy } = this;
    const cooling = this.spec.cooling * (1 - this.fouled) * (1 - this.lost);
    const cooledK = this.outletK - cooling * (this.outletK - this.coolantK);
    const arrives = delivers * plant.vapour[from]!;
    const most = (delivers / plant.density[to]!) * saturatedDensity(cooledK, plant.pressure[to]!);
    const vapour = min(arrives, most);
    const fallen = arrives - vapour;
    const dried = this.dries ? this.dries(vapour, delivers) : 0;
    const mist = draws * plant.mist[from]!;
    const drawn = draws * (plant.enthalpy[from]! + LATENT * plant.vapour[from]!);
    const sent = delivers * (plant.enthalpy[to]! + CP_AIR * (cooledK - plant.kelvin[to]!)) + LATENT * vapour;
    const pipe = WARMS_PIPE * back * CP_AIR * plant.kelvin[from]! * (sqrt(growth) - 1);
    plant.dAir[from]! -= draws;
    plant.dAir[to]! += delivers;
    plant.dAir[plant.room]! += blowsBy;
    plant.dVapour[from]! -= draws * plant.vapour[from]!;
    plant.dVapour[to]! += vapour - dried;
    plant.dVapour[plant.room]! += blowsBy * plant.vapour[from]!;
    plant.dWater[from]! -= mist;
    plant.dWater[to]! += fallen + mist;
    this.warms = WARMS_BLOCK * this.work;
    plant.dEnergy[from]! += pipe - drawn;
    plant.dEnergy[to]! += sent;
    plant.dEnergy[plant.room]! += drawn + this.work - this.warms - pipe - sent;
  }

  /** Pressure at the suction valve, Pa, when the intake resists: p = p₀ − K·ṁ², with ṁ proportional to p. */
  private drawnDown(before: number, perPa: number): number {
    if (this.resistance === 0) return before;
    const k = this.resistance * perPa * perPa;
    return (sqrt(1 + 4 * k * before) - 1) / (2 * k);
  }
}

/** Two bores one after the other. */
function inSeries(one: number, other: number): number {
  return one > 0 && other > 0 ? 1 / sqrt(1 / one ** 2 + 1 / other ** 2) : 0;
}
