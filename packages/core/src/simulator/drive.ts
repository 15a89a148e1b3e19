import { viscosityAt } from '../oil/index.js';

/** Moment at standstill and at its most, as shares of the rated one (common practice for small motors and engines). */
const START = { 'single-phase': 1.7, 'three-phase': 2.2, petrol: 1.4, diesel: 1.6 } as const;
const MOST = { 'single-phase': 2.1, 'three-phase': 2.6, petrol: 1.25, diesel: 1.35 } as const;
/** Without its capacitor a single-phase motor hums at this share of its moment. */
const WITHOUT_CAPACITOR = 0.08;
const LOCKED_CURRENT = 6;
/** Seconds at so many times its current until the overload trips: I²t. */
const TRIPS_AT = 290;
/** Slip at rated load. */
const SLIP = 0.04;
/** Friction of the warm machine, share of its rated moment, and how much of it goes with the oil. */
const FRICTION = 0.06;
const OIL_SHARE = 0.5;
const WARM_C = 70;

export type Prime = keyof typeof START;

/** What turns the machine: a motor or an engine with its supply, belt and friction. */
export class Drive {
  /** Share of the rated volts that reach it. */
  volts = 1;
  /** Share of its capacitor that is left. */
  capacitor = 1;
  /** Share of the rated moment that the pump itself holds back, beyond friction. */
  seized = 0;
  /** Share of the speed that a slack belt loses at full load. */
  beltSlip = 0;
  /** Fuel or preheat that is missing: share of the power of an engine. */
  starved = 0;
  state: 'off' | 'runs' | 'stalls' = 'off';
  /** Heat in the overload relay: 1 trips. */
  overload = 0;
  hasTripped = false;
  /** Share of its rated load. */
  load = 0;

  constructor(
    readonly kind: Prime,
    readonly ratedW: number,
    readonly ratedAmps: number,
    private readonly grade: { readonly at40: number; readonly at100: number } | null,
  ) {}

  /** Friction as a share of the rated moment: with cold oil more. */
  friction(oilC: number): number {
    if (this.grade === null) return FRICTION + this.seized;
    const viscosity = (tempC: number) => {
      const read = viscosityAt(this.grade!, Math.min(150, Math.max(-30, tempC)));
      return read.ok ? read.value : this.grade!.at40;
    };
    const thicker = Math.sqrt(viscosity(oilC) / viscosity(WARM_C));
    return FRICTION * (1 - OIL_SHARE + OIL_SHARE * thicker) + this.seized;
  }

  private get strength(): number {
    const capacitor =
      this.kind === 'single-phase' ? Math.max(WITHOUT_CAPACITOR, Math.min(1, this.capacitor)) ** 1.2 : 1;
    const isEngine = this.kind === 'petrol' || this.kind === 'diesel';
    return isEngine ? 1 - this.starved : this.volts ** 2 * capacitor;
  }

  /**
   * Tries to start against what holds it.
   *
   * @param held moment of the pressure on the pistons, share of the rated one
   */
  start(held: number, oilC: number): void {
    if (this.hasTripped) return;
    const needs = 0.25 + 2 * this.friction(oilC) + held;
    this.state = START[this.kind] * this.strength > needs ? 'runs' : 'stalls';
  }

  stop(): void {
    this.state = 'off';
    this.load = 0;
  }

  /** Speed, share of the rated one, at a load. */
  speed(): number {
    if (this.state !== 'runs') return 0;
    const slip = (SLIP * this.load) / Math.max(0.2, this.strength) - SLIP;
    return Math.max(0.3, 1 - slip) * (1 - this.beltSlip * Math.min(1, 0.4 + 0.6 * this.load));
  }

  /** Current, A. */
  amps(): number {
    if (this.state === 'off') return 0;
    if (this.state === 'stalls') return LOCKED_CURRENT * this.ratedAmps * this.volts;
    const load = this.load / Math.max(0.3, this.volts);
    return this.ratedAmps * Math.hypot(0.35, load * 0.94);
  }

  /** What passes in some seconds at a load, W on the shaft with friction: the relay warms, the motor stalls. */
  pass(seconds: number, shaftW: number): void {
    this.load = this.state === 'runs' ? shaftW / this.ratedW : 0;
    if (this.state === 'runs' && this.load > MOST[this.kind] * this.strength) this.state = 'stalls';
    const ratio = this.amps() / this.ratedAmps;
    const over = ratio > 1.1 ? ratio ** 2 / TRIPS_AT : -0.004;
    this.overload = Math.max(0, this.overload + over * seconds);
    if (this.overload >= 1 && this.state !== 'off') {
      this.hasTripped = true;
      this.stop();
    }
  }

  reset(): void {
    this.hasTripped = false;
    this.overload = 0;
  }
}

/** The usual oil by its viscosities, mm²/s. */
export const USUAL_OIL = { at40: 100, at100: 11.2 } as const;
export const SCREW_OIL = { at40: 46, at100: 6.9 } as const;
