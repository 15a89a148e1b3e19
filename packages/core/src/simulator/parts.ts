import type { DataPlate } from '../machine/index.js';
import type { Airend } from './airend.js';
import type { Drive } from './drive.js';
import type { Element, Plant } from './plant.js';
import type { Stage } from './stage.js';

/** What stands beside the spaces in the state: the block or its oil, K; work done, J; water in a cartridge, kg. */
export const BLOCK = 0;
export const WORK = 1;
export const CARTRIDGE = 2;
export const EXTRAS = 3;

/** Something that a person turns. */
export interface Turnable {
  readonly code: string;
  readonly name: string;
  readonly kind: 'valve' | 'drain';
  /** The space that it opens to the air, or that it parts from the next. */
  readonly space: string;
  /** 0 shut, 1 open. */
  share: number;
  readonly turn: (share: number) => void;
  /** What passes to the air, kg/s; 0 where it leads on into another space. */
  readonly passes: () => number;
  /** Water that comes out, kg/s. */
  readonly passesWater: () => number;
}

/** A pressure gauge with its faults. */
export class Gauge {
  /** What it shows, bar. */
  reading = 0;
  /** Shifted by so much, share of full scale. */
  offset = 0;
  /** The needle sticks until the pressure is further away than this share of full scale; 1 never moves. */
  sticks = 0;

  constructor(
    readonly code: string,
    readonly name: string,
    readonly at: number,
    readonly fullScaleBar: number,
    /** Accuracy class, per cent of full scale. */
    readonly classPercent: number,
  ) {}

  follow(bar: number): void {
    const shows = bar + this.offset * this.fullScaleBar;
    const play = (this.sticks >= 1 ? Infinity : this.sticks) * this.fullScaleBar;
    const off = shows - this.reading;
    if (Math.abs(off) > play) this.reading = shows - Math.sign(off) * play;
    this.reading = Math.min(this.fullScaleBar * 1.05, Math.max(-0.02 * this.fullScaleBar, this.reading));
  }
}

/** Something that is heard, smelt or seen without an instrument, 0 nothing to 1 very plain. */
export interface Sense {
  readonly code: string;
  readonly place: string;
  readonly text: string;
  readonly strength: () => number;
}

/** A thermometer that is held or built in somewhere. */
export interface Thermometer {
  readonly code: string;
  readonly name: string;
  readonly tempC: () => number;
}

/** How a fault acts, by its size: 0 nothing, 1 total. */
export interface FaultPart {
  readonly code: string;
  readonly name: string;
  readonly set: (size: number) => void;
}

/** What runs the machine by itself. */
export interface Control {
  /** Above 0 something is due, by what the instruments of the control feel; reckoned again at every step. */
  readonly trigger: () => number;
  /** When something is due by the clock, s. */
  nextAt: number;
  /** Does what is due. */
  readonly act: (now: number) => void;
  /** Started by hand between the two points of its switch; left out where that is nothing else. */
  readonly startNow?: (now: number) => void;
  /** Isolator, plug or key. */
  hasPower: boolean;
  /** Switched on: it starts by itself when it should. */
  isOn: boolean;
  /** Why it stopped by itself, in words. */
  trip: string | null;
  /** It does work: not idling. */
  readonly isLoaded: () => boolean;
}

/** A machine put together from spaces and elements. */
export interface Machine {
  readonly plate: DataPlate;
  readonly plant: Plant;
  readonly state: Float64Array;
  readonly spaces: ReadonlyMap<string, number>;
  readonly stages: readonly Stage[];
  readonly airend: Airend | null;
  readonly drive: Drive;
  readonly block: Block;
  readonly control: Control;
  readonly turnables: ReadonlyMap<string, Turnable>;
  readonly gauges: ReadonlyMap<string, Gauge>;
  readonly thermometers: readonly Thermometer[];
  readonly senses: readonly Sense[];
  readonly faults: ReadonlyMap<string, FaultPart>;
  /** Oil in it, litres, and the mark it should stand at. */
  readonly oil: { litres: number; readonly markL: number; lossLPerS: () => number } | null;
  /** Sets speeds, coolants and friction by what stands now. */
  readonly settle: () => void;
}

/** The block: warmed by cylinders and friction, cooled by its fan. */
export class Block implements Element {
  /** W */
  friction = 0;
  /** Share of the cooling, by fan, fins and panels. */
  cooling = 1;
  coolantK = 293;
  private shaft = 0;

  constructor(
    private readonly stages: readonly Stage[],
    private readonly joulePerK: number,
    private readonly wattPerK: number,
  ) {}

  /** W, with friction. */
  shaftW(): number {
    return this.shaft;
  }

  flow(plant: Plant): void {
    let [warms, work] = [this.friction, this.friction];
    for (const stage of this.stages) {
      warms += stage.warms;
      work += stage.work;
    }
    this.shaft = work;
    const lost = this.wattPerK * this.cooling * (plant.extra[BLOCK]! - this.coolantK);
    plant.dExtra[BLOCK]! += (warms - lost) / this.joulePerK;
    plant.dExtra[WORK]! += work;
    plant.dEnergy[plant.room]! += lost;
  }

  get capacity(): number {
    return this.joulePerK;
  }
}
