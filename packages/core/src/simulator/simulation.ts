import type { DataPlate } from '../machine/index.js';
import { buildHighPressure, type StagesOf } from './high-pressure.js';
import type { Machine } from './parts.js';
import { buildPiston } from './piston.js';
import { USUAL_ROOM, type Room } from './plant.js';
import { buildScrew } from './screw.js';
import { Stepper, stepFactor } from './stepper.js';

export interface SimulationOptions {
  readonly room?: Partial<Room>;
  /** Pressure of another set on the same network, bar. */
  readonly supplyBar?: number;
  /** Error that a step may make, beside each amount; default 1e-4. */
  readonly tolerance?: number;
  /** Longest step, s; default 60. */
  readonly longestS?: number;
  /** Stages drawn otherwise than usual; high-pressure sets and two-stage pistons. */
  readonly stages?: StagesOf;
}

/** What a switch does. */
export const buttons = ['power-on', 'power-off', 'start', 'stop', 'reset'] as const;
export type Button = (typeof buttons)[number];

/** What is seen, heard and felt at a machine, as a person beside it does. */
export interface Seen {
  /** Since the beginning, s. */
  readonly seconds: number;
  readonly drive: 'off' | 'runs' | 'stalls';
  readonly isLoaded: boolean;
  readonly hasPower: boolean;
  readonly isOn: boolean;
  /** Why it stopped by itself. */
  readonly trip: string | null;
  /** A */
  readonly amps: number;
  /** Hours that its counters show: running, and under load. */
  readonly hours: { readonly total: number; readonly loaded: number };
  readonly gauges: readonly {
    readonly code: string;
    readonly name: string;
    readonly bar: number;
    readonly fullScaleBar: number;
  }[];
  readonly temps: readonly { readonly code: string; readonly name: string; readonly tempC: number }[];
  readonly senses: readonly {
    readonly code: string;
    readonly place: string;
    readonly text: string;
    readonly strength: number;
  }[];
  /** Oil over its mark, share; null where it has none. */
  readonly oilShare: number | null;
}

const [TOLERANCE, LONGEST_S, FIRST_S, SHORTEST_S] = [1e-4, 60, 0.02, 1e-6];
/** What is due is found to this, s. */
const FOUND_WITHIN = 1e-3;
/** Spaces come level no faster than this, 1/s. */
const QUICKEST = { runs: 40, stands: 1.5 } as const;
/** While it runs, load and friction are looked at again this often, s. */
const SETTLES_S = 5;

/**
 * One machine and its air in time: built from a data plate, with faults of any size, turned and switched by hand.
 * Everything in it is given: the room, the faults, the moments. Twice the same is twice the same.
 */
export class Simulation {
  readonly machine: Machine;
  /** Since the beginning, s. */
  now = 0;
  private readonly stepper: Stepper;
  private step = FIRST_S;
  private totalS = 0;
  private loadedS = 0;
  private readonly longestS: number;

  constructor(plate: DataPlate, options: SimulationOptions = {}) {
    const { room = {}, supplyBar = 0, tolerance = TOLERANCE, longestS = LONGEST_S } = options;
    const setting = { room: { ...USUAL_ROOM, ...room }, supplyBar };
    this.machine = build(plate, setting, options.stages);
    this.longestS = longestS;
    const { plant, state } = this.machine;
    this.stepper = new Stepper(state, {
      rates: plant.rates,
      fastest: plant.fastest,
      scales: plant.scales(state),
      tolerance,
    });
    this.readGauges();
    this.due();
  }

  /** Evaluations of the rates until now. */
  get evaluations(): number {
    return this.stepper.evaluations;
  }

  /** Lets time pass, s. */
  advance(seconds: number): void {
    const { control } = this.machine;
    const end = this.now + seconds;
    while (this.now < end - 1e-9) {
      const left = Math.min(end, control.nextAt) - this.now;
      if (left <= 1e-9) {
        // At the moment itself, for what is due looks whether it has come.
        this.now = Math.max(this.now, Math.min(end, control.nextAt));
        this.due();
        continue;
      }
      const isRunning = this.machine.drive.state !== 'off';
      const cap = Math.min(left, this.stepper.longest(), this.longestS, isRunning ? SETTLES_S : Infinity);
      let taken = Math.min(this.step, cap);
      let error = this.stepper.attempt(taken);
      while (error > 1 && taken > SHORTEST_S) {
        taken *= stepFactor(error);
        error = this.stepper.attempt(taken);
      }
      const isDue = control.trigger() > 0;
      if (isDue && taken > FOUND_WITHIN) taken = this.locate(taken);
      this.stepper.accept();
      this.now += taken;
      if (!isDue)
        this.step = Math.max(
          SHORTEST_S,
          taken < cap ? taken * stepFactor(error) : Math.max(this.step, taken * stepFactor(error)),
        );
      this.passed(taken);
      if (isDue || this.machine.drive.hasTripped !== (control.trip === 'overload')) this.due();
      else if (isRunning) {
        this.machine.settle();
        this.stepper.refresh();
      }
    }
  }

  /** The shortest step after which something is due; leaves it tried. */
  private locate(longest: number): number {
    const { control } = this.machine;
    let [low, high] = [0, longest];
    while (high - low > FOUND_WITHIN) {
      const middle = (low + high) / 2;
      this.stepper.attempt(middle);
      if (control.trigger() > 0) high = middle;
      else low = middle;
    }
    this.stepper.attempt(high);
    return high;
  }

  private due(): void {
    this.machine.control.act(this.now);
    this.changed();
  }

  /** Something was turned, switched or broke: the next step is a short one. */
  private changed(): void {
    const { machine } = this;
    machine.plant.quickest = machine.drive.state === 'off' ? QUICKEST.stands : QUICKEST.runs;
    machine.settle();
    this.stepper.refresh();
    this.step = FIRST_S;
  }

  private passed(seconds: number): void {
    const { drive, block, airend, control, oil } = this.machine;
    if (drive.state === 'runs') {
      this.totalS += seconds;
      if (control.isLoaded()) this.loadedS += seconds;
    }
    drive.pass(seconds, block.shaftW() + (airend?.work ?? 0));
    if (oil) oil.litres = Math.max(0, oil.litres - oil.lossLPerS() * seconds);
    this.readGauges();
  }

  private readGauges(): void {
    const { plant, gauges } = this.machine;
    for (const gauge of gauges.values()) gauge.follow(plant.gaugeBar(gauge.at));
  }

  /** Turns a valve, a drain or a vent: 0 shut, 1 open. */
  turn(code: string, share: number): void {
    const turnable = this.machine.turnables.get(code);
    if (!turnable) throw new Error(`Nothing to turn: ${code}`);
    turnable.turn(Math.min(1, Math.max(0, share)));
    this.changed();
  }

  /** Sets how large a fault is: 0 nothing, 1 total. */
  fault(code: string, size: number): void {
    const fault = this.machine.faults.get(code);
    if (!fault) throw new Error(`No such fault: ${code}`);
    fault.set(Math.min(1, Math.max(0, size)));
    this.machine.control.act(this.now);
    this.changed();
  }

  press(button: Button): void {
    const { control, drive } = this.machine;
    switch (button) {
      case 'power-on':
      case 'power-off':
        control.hasPower = button === 'power-on';
        break;
      case 'start':
      case 'stop':
        control.isOn = button === 'start';
        break;
      case 'reset':
        control.trip = null;
        drive.reset();
    }
    control.act(this.now);
    if (button === 'start' && control.startNow) control.startNow(this.now);
    this.changed();
  }

  /** What a person beside it sees, hears and reads now. */
  see(): Seen {
    const { control, drive, gauges, thermometers, senses, oil } = this.machine;
    return {
      seconds: this.now,
      drive: drive.state,
      isLoaded: control.isLoaded(),
      hasPower: control.hasPower,
      isOn: control.isOn,
      trip: control.trip,
      amps: drive.amps(),
      hours: { total: this.totalS / 3600, loaded: this.loadedS / 3600 },
      gauges: [...gauges.values()].map(({ code, name, reading, fullScaleBar }) => ({
        code,
        name,
        bar: reading,
        fullScaleBar,
      })),
      temps: thermometers.map(({ code, name, tempC }) => ({ code, name, tempC: tempC() })),
      senses: senses
        .map(({ code, place, text, strength }) => ({ code, place, text, strength: strength() }))
        .filter(({ strength }) => strength > 0.08),
      oilShare: oil && oil.litres / oil.markL,
    };
  }

  /** Puts a space at a gauge pressure, bar, with the air as warm as the room: where a course begins. */
  put(code: string, bar: number): void {
    if (!Number.isFinite(bar)) throw new Error(`No pressure: ${bar}`);
    const { plant } = this.machine;
    const at = this.spaceAt(code);
    plant.fill(this.state, at, plant.pressure[plant.room]! + bar * 1e5, this.state[2 * plant.count + at]!);
    this.changed();
    this.readGauges();
  }

  /** Pressure of a space as it is, bar gauge, whatever its gauge says. */
  trueBar(code: string): number {
    return this.machine.plant.gaugeBar(this.spaceAt(code));
  }

  private spaceAt(code: string): number {
    const at = this.machine.spaces.get(code);
    if (at === undefined) throw new Error(`No such space: ${code}`);
    return at;
  }

  /** The amounts as they stand. */
  get state(): Float64Array {
    return this.stepper.state;
  }
}

function build(plate: DataPlate, setting: { room: Room; supplyBar: number }, stages?: StagesOf): Machine {
  switch (plate.family) {
    case 'piston':
    case 'piston-oil-free':
      return buildPiston(plate, setting);
    case 'screw':
      return buildScrew(plate, setting);
    case 'high-pressure':
      return buildHighPressure(plate, setting, stages);
  }
}
