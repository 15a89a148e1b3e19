import type { Drive } from './drive.js';
import type { Control } from './parts.js';

/** What the controller of a screw feels and moves. */
export interface ScrewParts {
  readonly drive: Drive;
  readonly feels: () => number;
  readonly vesselBar: () => number;
  readonly oilC: () => number;
  readonly outletC: () => number;
  readonly set: (isLoaded: boolean, isRunning: boolean) => void;
  /** It does not start above this in the vessel, bar. */
  readonly startsBelow: number;
  /** The engine runs on though it was told to stop. */
  readonly cannotStop: () => boolean;
}

/** Seconds unloaded after the start, and idling before it stops (practice). */
const [WARMS_S, IDLES_S] = [5, 300];

/** What is due is due, however the sum of two moments was rounded, s. */
const ROUNDED_S = 1e-6;

/** Loads, idles, stops and starts a screw. */
export class ScrewControl implements Control {
  nextAt = Infinity;
  hasPower = true;
  isOn = true;
  trip: string | null = null;
  pullsIn = true;
  cutIn: number;
  cutOut: number;
  private loaded = false;
  private since = 0;
  /** Has run long enough unloaded. */
  private mayLoad = false;

  constructor(
    readonly parts: ScrewParts,
    cutIn: number,
    cutOut: number,
    private readonly tripC: number,
  ) {
    this.cutIn = cutIn;
    this.cutOut = cutOut;
  }

  readonly isLoaded = (): boolean => this.loaded;

  private get mayRun(): boolean {
    return this.hasPower && this.isOn && this.pullsIn && this.trip === null;
  }

  readonly trigger = (): number => {
    const { drive, feels, outletC, vesselBar, startsBelow } = this.parts;
    if (drive.state === 'off')
      return this.mayRun ? Math.min(this.cutIn - feels(), startsBelow - vesselBar()) : -1;
    const due = this.loaded ? feels() - this.cutOut : -1;
    const loads = !this.loaded && this.mayLoad && drive.state === 'runs' ? this.cutIn - feels() : -1;
    return Math.max(due, loads, drive.state === 'runs' ? outletC() - this.tripC : -1);
  };

  readonly act = (now: number): void => {
    const { drive, feels, outletC, vesselBar, startsBelow, oilC, cannotStop } = this.parts;
    if (drive.hasTripped && this.trip === null) this.trip = 'overload';
    if (drive.state === 'runs' && outletC() >= this.tripC) this.trip = 'temperature';
    if (!this.mayRun && drive.state !== 'off' && !cannotStop()) this.halt();
    if (this.mayRun && drive.state === 'off' && feels() <= this.cutIn && vesselBar() <= startsBelow) {
      drive.start(Math.max(0, vesselBar() / 8), oilC());
      [this.loaded, this.since] = [false, now];
    } else if (drive.state === 'runs') this.carryOn(now, feels());
    this.refresh();
    this.plan(now);
  };

  private carryOn(now: number, bar: number): void {
    const rests = now - this.since;
    if (this.loaded && bar >= this.cutOut) [this.loaded, this.since] = [false, now];
    else if (!this.loaded && rests >= WARMS_S - ROUNDED_S && bar < this.cutIn + 1e-6)
      [this.loaded, this.since] = [true, now];
    else if (!this.loaded && rests >= IDLES_S - ROUNDED_S && bar >= this.cutIn && !this.parts.cannotStop())
      this.halt();
  }

  private plan(now: number): void {
    const { drive } = this.parts;
    const rests = now - this.since;
    this.mayLoad = rests >= WARMS_S - ROUNDED_S;
    if (drive.state !== 'runs' || this.loaded) this.nextAt = Infinity;
    else if (!this.mayLoad) this.nextAt = this.since + WARMS_S;
    else this.nextAt = rests < IDLES_S - ROUNDED_S ? this.since + IDLES_S : Infinity;
  }

  private halt(): void {
    this.parts.drive.stop();
    this.loaded = false;
  }

  /** Sets the valves as they should stand, with what is wrong with them. */
  refresh(): void {
    this.parts.set(this.loaded, this.parts.drive.state === 'runs');
  }
}
