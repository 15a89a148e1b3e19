import { flowThrough } from './elements.js';
import { BAR, CP_AIR, LATENT, R_AIR, ZERO_C } from './gas.js';
import type { Element, Plant } from './plant.js';

/** Looked up once: the right-hand side asks for them millions of times. */
const { max, min, sqrt } = Math;

/** How a screw is built. */
export interface AirendSpec {
  /** m³/s at its rated speed. */
  readonly sweptM3S: number;
  /** Pressure ratio that its ports are made for. */
  readonly builtIn: number;
  /** Its oil, J/K with the metal that it warms. */
  readonly oilJPerK: number;
  /** Oil injected, kg/s at rated pressure. */
  readonly oilKgS: number;
  /** Cooler, W/K at full fan. */
  readonly coolerWPerK: number;
  /** Gap between the rotors, m². */
  readonly gap: number;
}

const OIL_HEAT = 2000;
/** Polytropic exponent of compression in an oil bath (common practice). */
const EXPONENT = 1.12;
/** Heat that the hot vessel gives to the room without any fan, W/K. */
const OWN_LOSS = 3;
/** Thermostat: begins to let oil through the cooler, and lets all, °C. */
const THERMOSTAT_C = [71, 85] as const;
/** Air by-passes the rotors even where the intake is shut. */
const SHUT_INTAKE = 0.04;
const MECHANICAL = 0.9;

/** A screw airend with oil, thermostat and cooler; its oil is as warm as an amount beside the spaces. */
export class Airend implements Element {
  /** Share of its rated speed. */
  speed = 0;
  /** Share that its intake valve stands open while it runs. */
  intake = 1;
  /** Does not seal at the stop: share of its bore. */
  intakeLeak = 0;
  /** Resistance of the intake filter, Pa per (kg/s)². */
  resistance = 0;
  /** 0 as built, 1 worn out. */
  worn = 0;
  fouled = 0;
  /** Held by this share; null where it moves with the temperature. */
  thermostatStuck: number | null = null;
  /** Oil that reaches the rotors, share: low level, blocked filter. */
  oilShare = 1;
  coolantK = 293;
  /** Closes its intake little by little between two pressures, bar, instead of loading and unloading. */
  throttles: { readonly from: number; readonly to: number } | null = null;

  draws = 0;
  /** Air that comes back out of the intake while it stands, kg/s. */
  comesBack = 0;
  work = 0;
  outletK = 293;
  suction = 1e5;
  private readonly area: number;

  constructor(
    readonly to: number,
    readonly oilAt: number,
    readonly workAt: number,
    readonly spec: AirendSpec,
  ) {
    this.area = spec.sweptM3S / 60;
  }

  oilK(plant: Plant): number {
    return plant.extra[this.oilAt]!;
  }

  /** Share of the oil that goes through the cooler. */
  throughCooler(plant: Plant): number {
    if (this.thermostatStuck !== null) return this.thermostatStuck;
    const [opens, open] = THERMOSTAT_C;
    return min(1, max(0, (this.oilK(plant) - ZERO_C - opens) / (open - opens)));
  }

  flow(plant: Plant): void {
    const oil = this.oilK(plant);
    this.draws = 0;
    this.comesBack = 0;
    this.work = 0;
    let heat = -OWN_LOSS * (oil - plant.roomK);
    if (this.speed > 0) heat += this.runs(plant, oil);
    else if (this.intakeLeak > 0) this.breathesOut(plant);
    plant.dExtra[this.oilAt]! += heat / this.spec.oilJPerK;
    plant.dEnergy[plant.room]! += OWN_LOSS * (oil - plant.roomK);
    const speed = (this.spec.coolerWPerK + this.spec.oilKgS * OIL_HEAT) / this.spec.oilJPerK;
    if (speed > plant.otherSpeed) plant.otherSpeed = speed;
  }

  /** Air and oil come back out of the intake when its valve does not seal at the stop. */
  private breathesOut(plant: Plant): void {
    const flow = flowThrough(plant, this.to, plant.pressure[plant.room]!, this.area * this.intakeLeak * 0.1);
    plant.addSlope(this.to, plant.room, plant.lastSlope);
    plant.move(this.to, plant.room, flow);
    this.comesBack = flow;
  }

  /** @returns heat that stays in the oil, W */
  private runs(plant: Plant, oil: number): number {
    const { room } = plant;
    const { to, spec } = this;
    const before = plant.pressure[room]!;
    const perPa = plant.density[room]! / before;
    const open = SHUT_INTAKE + (1 - SHUT_INTAKE) * this.intake * this.throttled(plant);
    const swept = spec.sweptM3S * this.speed;
    // The throttle lets through what its opening leaves; the filter resists with the square of the flow.
    const k = this.resistance * (swept * perPa) ** 2;
    const throttled = before * open;
    this.suction = k === 0 ? throttled : (sqrt(1 + 4 * k * throttled) - 1) / (2 * k);
    const ratio = max(1, plant.pressure[to]! / this.suction);
    const gap = spec.gap * (1 + 12 * this.worn) * sqrt(this.speed);
    const back = flowThrough(plant, to, this.suction, gap);
    const slope = plant.lastSlope;
    const charge = swept * this.suction * perPa;
    const draws = max(0, charge - back);
    this.draws = draws;
    // The ports are made for one ratio: above it the rest is done at once, at the outlet.
    const inner = min(ratio, spec.builtIn);
    const inside = (EXPONENT / (EXPONENT - 1)) * (inner ** ((EXPONENT - 1) / EXPONENT) - 1);
    const outside = (ratio - inner) * inner ** (-1 / EXPONENT);
    const gas = charge * R_AIR * plant.kelvin[room]! * (inside + outside);
    const churn = 0.12 * spec.sweptM3S * 4e5 * this.speed ** 2;
    this.work = (gas + churn) / MECHANICAL;
    const oilFlow = max(0.02, this.oilShare) * spec.oilKgS * max(0.35, min(1.3, sqrt(ratio / 8)));
    const bypassed = 1 - this.throughCooler(plant);
    const cooler = this.coolerHeat(oil, bypassed);
    const injected = oil - cooler / (oilFlow * OIL_HEAT);
    this.outletK =
      (oilFlow * OIL_HEAT * injected + draws * CP_AIR * plant.kelvin[room]! + this.work) /
      (oilFlow * OIL_HEAT + draws * CP_AIR);
    const drawn = draws * (plant.enthalpy[room]! + LATENT * plant.vapour[room]!);
    const vapour = draws * plant.vapour[room]!;
    const sent =
      draws * (plant.enthalpy[to]! + CP_AIR * (this.outletK - plant.kelvin[to]!)) + LATENT * vapour;
    plant.dAir[room]! -= draws;
    plant.dAir[to]! += draws;
    plant.dVapour[room]! -= vapour;
    plant.dVapour[to]! += vapour;
    plant.dEnergy[room]! += cooler - drawn;
    plant.dEnergy[to]! += sent;
    plant.dExtra[this.workAt]! += this.work;
    plant.addSlope(to, room, slope + charge / plant.pressure[to]!);
    return drawn + this.work - sent - cooler;
  }

  private throttled(plant: Plant): number {
    if (this.throttles === null) return 1;
    const { from, to } = this.throttles;
    const share = min(1, max(0, (to - plant.gaugeBar(this.to)) / (to - from)));
    if (share > 0 && share < 1)
      plant.addSlope(this.to, plant.room, (this.spec.sweptM3S * 1.2) / ((to - from) * BAR));
    return share;
  }

  private coolerHeat(oil: number, bypassed: number): number {
    const share = (1 - bypassed) * (1 - this.fouled);
    return share * this.spec.coolerWPerK * max(0, oil - this.coolantK) * min(1, 0.3 + 0.7 * this.speed);
  }
}
