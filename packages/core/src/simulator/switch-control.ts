import type { Drive } from './drive.js';
import type { Control } from './parts.js';

/** How a machine that goes by a pressure switch is run. */
export interface SwitchParts {
  readonly drive: Drive;
  /** What the switch feels, bar. */
  readonly feels: () => number;
  /** Moment of what stands in the head when it starts, share of the rated one. */
  readonly held: () => number;
  readonly oilC: () => number;
  /** Opens and shuts the unloader, and the start bleed for its seconds. */
  readonly unload: (isOpen: boolean) => void;
  /** Hottest that it runs, °C, where it has such a switch. */
  readonly tooHot: () => number;
  /** Starts again by itself when the pressure has fallen. */
  readonly restarts: boolean;
  /** Seconds after the start until the head is closed. */
  readonly bleedS: number;
  /** Drains by a timer: every so many seconds for so long; null by hand. */
  readonly drains: {
    readonly everyS: number;
    readonly forS: number;
    readonly turn: (isOpen: boolean) => void;
  } | null;
}

/** A head and its thermometer take so long to follow, s. */
const WARMS_S = 60;

/** Tries to start again after a stall only once the relay has tripped. */
export class SwitchControl implements Control {
  nextAt = Infinity;
  hasPower = true;
  isOn = true;
  trip: string | null = null;
  /** Gauge pressures, bar. */
  cutIn: number;
  cutOut: number;
  /** The contactor pulls in. */
  pullsIn = true;
  /** The drains' timer has no power, or is set to nothing. */
  timerRuns = true;
  private isClosed = false;
  /** From when the heat counts: a head takes its time to warm, and empty stages pass hot at the start. */
  private warmAt = Infinity;
  private isWarm = false;
  private bleedsUntil = Infinity;
  private drainsAt = Infinity;
  private drainsUntil = Infinity;

  constructor(
    private readonly parts: SwitchParts,
    cutIn: number,
    cutOut: number,
  ) {
    this.cutIn = cutIn;
    this.cutOut = cutOut;
  }

  private get mayRun(): boolean {
    return this.hasPower && this.isOn && this.pullsIn && this.trip === null;
  }

  readonly isLoaded = (): boolean => this.parts.drive.state === 'runs';

  readonly trigger = (): number => {
    const { drive, feels, tooHot } = this.parts;
    if (drive.state === 'off') return this.mayRun && !this.isClosed ? this.cutIn - feels() : -1;
    if (drive.state === 'stalls') return -1;
    return Math.max(feels() - this.cutOut, this.isWarm ? tooHot() : -1);
  };

  readonly act = (now: number): void => {
    const { drive, feels, tooHot } = this.parts;
    if (drive.hasTripped && this.trip === null) this.trip = 'overload';
    if (now >= this.warmAt) {
      this.isWarm = true;
      this.warmAt = Infinity;
    }
    if (drive.state === 'runs' && this.isWarm && tooHot() >= 0) this.trip = 'temperature';
    const isFull = feels() >= this.cutOut;
    if (drive.state !== 'off' && (!this.mayRun || isFull)) this.stop(isFull);
    else if (drive.state === 'off' && this.mayRun && !this.isClosed && feels() <= this.cutIn) this.start(now);
    if (now >= this.bleedsUntil) {
      this.parts.unload(false);
      this.bleedsUntil = Infinity;
    }
    this.timeDrains(now);
    this.nextAt = Math.min(this.bleedsUntil, this.drainsAt, this.drainsUntil, this.warmAt);
  };

  /** Switched on by hand: it starts even between the two points of the switch. */
  readonly startNow = (now: number): void => {
    this.isClosed = false;
    const { drive, feels } = this.parts;
    if (drive.state === 'off' && this.mayRun && feels() < this.cutOut) this.start(now);
    this.act(now);
  };

  private start(now: number): void {
    const { drive, held, oilC, bleedS, drains } = this.parts;
    drive.start(held(), oilC());
    this.isWarm = false;
    this.warmAt = now + WARMS_S;
    this.bleedsUntil = now + bleedS;
    if (drains) this.drainsAt = now + drains.everyS;
  }

  private stop(isFull: boolean): void {
    const { drive, unload, restarts, drains } = this.parts;
    drive.stop();
    unload(true);
    this.bleedsUntil = this.warmAt = Infinity;
    if (drains) {
      this.drainsAt = this.drainsUntil = Infinity;
      drains.turn(false);
    }
    if (isFull && !restarts) this.isClosed = true;
  }

  private timeDrains(now: number): void {
    const { drains } = this.parts;
    if (!drains) return;
    if (now >= this.drainsUntil) {
      drains.turn(false);
      this.drainsUntil = Infinity;
    }
    if (now >= this.drainsAt) {
      drains.turn(this.timerRuns);
      this.drainsUntil = now + drains.forS;
      this.drainsAt = now + drains.everyS;
    }
  }
}
