import {
  faultTestByCode,
  simulatedCauses as faultsOf,
  type CauseCode,
  type SimulatedFamily,
} from '../faults/index.js';
import { boardMachines, Simulation, type Seen } from '../simulator/index.js';

type Random = () => number;

/** What is read at a machine, before it is judged beside the same of a sound one. */
interface Readings {
  /** Seconds of the pump-up; Infinity where it never got there. */
  readonly pumpUpS?: number;
  /** Whether air keeps coming 25 s after the stop, and whether there was any hiss at it. */
  readonly keepsComing?: boolean;
  readonly hissed?: boolean;
  /** Fall in ten minutes, shut in, bar. */
  readonly fallBar?: number;
  /** °C by thermometer, bar by gauge, while it runs. */
  readonly temps?: ReadonlyMap<string, number>;
  readonly stages?: ReadonlyMap<string, number>;
  /** The same gauges two minutes after the stop. */
  readonly stagesAfter?: ReadonlyMap<string, number>;
  /** Vessel of a screw, bar: unloaded, and a minute after the stop. */
  readonly vessel?: { readonly unloaded: number; readonly stopped: number };
}

const barOf = (seen: Seen, code: string) => seen.gauges.find((gauge) => gauge.code === code)?.bar ?? 0;
const stagesOf = ({ gauges }: Seen, but: readonly string[]) =>
  new Map(gauges.filter(({ code }) => !but.includes(code)).map(({ code, bar }) => [code, bar]));
const tempsOf = ({ temps }: Seen) => new Map(temps.map(({ code, tempC }) => [code, tempC]));
const isHeard = (seen: Seen, ...codes: readonly string[]) =>
  seen.senses.some(({ code }) => codes.includes(code));

/** Lets time pass until something is so; false where it never was. */
function until(simulation: Simulation, isSo: () => boolean, mostS: number, stepS = 1): boolean {
  for (let seconds = 0; seconds < mostS; seconds += stepS) {
    if (isSo()) return true;
    simulation.advance(stepS);
  }
  return isSo();
}

/** Seconds from the start until temperatures and stages of a piston set are read. */
const READ_AFTER_S = 20;

/** A piston set with its network shut: pumped up, stopped, left alone. */
function readPiston(simulation: Simulation, valve: string, cutOutBar: number): Readings {
  const see = () => simulation.see();
  simulation.turn(valve, 0);
  simulation.put('receiver', 0.5 * cutOutBar);
  simulation.press('start');
  const begun = simulation.now;
  // As warm and as high as a sound one is then: read soon after the start.
  simulation.advance(READ_AFTER_S);
  const [temps, stages] = [tempsOf(see()), stagesOf(see(), ['receiver', 'outlet'])];
  const isUp = until(simulation, () => barOf(see(), 'receiver') >= 0.9 * cutOutBar, 3600, 2);
  const pumpUpS = isUp ? simulation.now - begun : Infinity;
  simulation.press('stop');
  // A small head is empty in less than a second.
  simulation.advance(0.1);
  const hissed = isHeard(see(), 'unloader');
  simulation.advance(25);
  const keepsComing = isHeard(see(), 'unloader', 'intake-back');
  // Full of air as warm as the room: warm air that cools falls as a leak does.
  simulation.press('power-off');
  simulation.put('receiver', cutOutBar);
  const from = barOf(see(), 'receiver');
  simulation.advance(600);
  return { pumpUpS, hissed, keepsComing, fallBar: from - barOf(see(), 'receiver'), temps, stages };
}

/** A screw: loaded, run unloaded with its outlet shut, stopped. */
function readScrew(simulation: Simulation): Readings {
  simulation.put('receiver', 5);
  simulation.press('start');
  simulation.advance(240);
  simulation.turn('valve-receiver-out', 0);
  until(simulation, () => !simulation.see().isLoaded, 1200, 2);
  simulation.advance(60);
  const unloaded = barOf(simulation.see(), 'vessel');
  simulation.press('stop');
  simulation.advance(60);
  return { vessel: { unloaded, stopped: barOf(simulation.see(), 'vessel') } };
}

/** Pressure that a high-pressure set is read at, bar. */
const HIGH_BAR = 150;

/** A high-pressure set under way, then stopped with everything shut. */
function readHighPressure(simulation: Simulation): Readings {
  // Onto a bank, so that its end pressure hardly moves whatever is wrong with it.
  simulation.put('bank-1', HIGH_BAR);
  simulation.put('tower', HIGH_BAR);
  simulation.turn('valve-bank-1', 1);
  simulation.press('start');
  simulation.advance(600);
  const [temps, stages] = [tempsOf(simulation.see()), stagesOf(simulation.see(), ['tower', 'panel'])];
  simulation.press('stop');
  simulation.turn('valve-bank-1', 0);
  simulation.advance(120);
  return { temps, stages, stagesAfter: stagesOf(simulation.see(), ['tower', 'panel']) };
}

function read(machine: SimulatedFamily, fault: string | null, size: number): Readings {
  const { plate } = boardMachines.find(({ code }) => code === machine)!;
  const simulation = new Simulation(plate);
  if (fault !== null) simulation.fault(fault, size);
  if (machine === 'screw') return readScrew(simulation);
  if (machine === 'high-pressure') return readHighPressure(simulation);
  // It begins full.
  return readPiston(
    simulation,
    machine === 'piston' ? 'valve-network' : 'valve-outlet',
    simulation.trueBar('receiver'),
  );
}

/** How well people read: a stop-watch, a thermometer, a gauge (common practice). */
const NOISE = { time: 0.02, tempK: 3, bar: 0.015, fallBar: 0.02 } as const;

/** A figure about nought with scatter 1. */
const scatter = (random: Random) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** Answers of the tests that the readings give, by test; the usual one as the table of the tests has it. */
function judge(found: Readings, sound: Readings, random: Random): ReadonlyMap<string, string> {
  const answers = new Map<string, string>();
  const blur = (value: number, by: number) => value + by * scatter(random);
  if (found.pumpUpS !== undefined) {
    const delivery = sound.pumpUpS! / (found.pumpUpS * (1 + NOISE.time * scatter(random)));
    answers.set('T18', delivery < 0.8 ? 'slow' : 'usual');
    answers.set('T6', found.keepsComing ? 'keeps' : 'usual');
    answers.set('T7', found.hissed ? 'usual' : 'silent');
    const fall = blur(found.fallBar!, NOISE.fallBar);
    answers.set('T15', fall > 1 ? 'fast' : fall > 0.1 ? 'slow' : 'usual');
  }
  if (found.temps && [...found.temps.keys()].some((code) => code.startsWith('suction-cover'))) {
    answers.set(
      'T20',
      hottest(found.temps, sound.temps!, (value) => blur(value, NOISE.tempK)),
    );
  }
  if (found.stages && found.stages.size > 0 && sound.stages) {
    answers.set(
      'T22',
      offStage(found.stages, sound.stages, (value) => value * (1 + NOISE.bar * scatter(random))),
    );
    if (found.stagesAfter) answers.set('T23', afterStop(found, sound));
  }
  if (found.vessel && sound.vessel) {
    const isHigh =
      found.vessel.unloaded > sound.vessel.unloaded + 1 || found.vessel.stopped > sound.vessel.stopped + 1;
    const isLow = found.vessel.unloaded < sound.vessel.unloaded - 1;
    answers.set('T29', isHigh ? 'stays' : isLow ? 'drops' : 'usual');
  }
  return answers;
}

/**
 * Which cover is over 20 K hotter than on a sound machine, and than the others are beside theirs; a whole head where
 * both of a stage are. Where all are, it is no cover that is to blame.
 */
function hottest(
  found: ReadonlyMap<string, number>,
  sound: ReadonlyMap<string, number>,
  blur: (value: number) => number,
): string {
  const rises = [...found].flatMap(([code, tempC]) =>
    code.includes('cover') ? [{ code, rise: blur(tempC) - sound.get(code)! }] : [],
  );
  const ofAll = Math.min(...rises.map(({ rise }) => rise));
  const hot = rises
    .filter(({ rise }) => rise > 20 && rise - Math.max(0, ofAll) > 20)
    .sort((a, b) => b.rise - a.rise);
  if (hot.length === 0) return 'usual';
  const stage = hot[0]!.code.split('-').at(-1);
  const ofStage = hot.filter(({ code }) => code.split('-').at(-1) === stage);
  if (ofStage.length > 1) return 'head';
  return hot[0]!.code.startsWith('suction') ? 'suction' : 'discharge';
}

function offStage(
  found: ReadonlyMap<string, number>,
  sound: ReadonlyMap<string, number>,
  blur: (value: number) => number,
): string {
  const off = [...found].map(([code, bar]) => blur(bar) / Math.max(0.1, sound.get(code)!) - 1);
  const most = off.reduce((far, one) => (Math.abs(one) > Math.abs(far) ? one : far), 0);
  return most > 0.1 ? 'high' : most < -0.1 ? 'low' : 'usual';
}

/** Two minutes after the stop: a gauge that rises, or falls far faster than on a sound machine. */
function afterStop(found: Readings, sound: Readings): string {
  const shares = (of: Readings) =>
    new Map([...of.stages!].map(([code, bar]) => [code, of.stagesAfter!.get(code)! / Math.max(0.1, bar)]));
  const usual = shares(sound);
  const moved = [...shares(found)].map(([code, share]) => share - usual.get(code)!);
  if (Math.max(...moved) > 0.1) return 'rises';
  return Math.min(...moved) < -0.15 ? 'falls' : 'usual';
}

/** How often each answer came, by test and cause; `sound` is a machine with nothing wrong. */
export type SimulatedAnswers = Readonly<
  Record<string, Readonly<Record<string, Readonly<Record<string, number>>>>>
>;

export interface AnswersWanted {
  readonly machine: SimulatedFamily;
  /** Machines of each cause. */
  readonly each: number;
  readonly random: (cause: string) => Random;
  /** Left out: all that the simulator has on that machine. */
  readonly causes?: readonly (CauseCode | 'sound')[];
}

/** Sizes of faults are drawn evenly, from a fifth to total. */
const LEAST_SIZE = 0.2;

/** Lets simulated machines with each cause answer the tests that the simulator can. */
export function simulateAnswers({ machine, each, random, causes }: AnswersWanted): SimulatedAnswers {
  const { plate } = boardMachines.find(({ code }) => code === machine)!;
  const sound = read(machine, null, 0);
  const known = faultsOf[machine];
  const wanted = causes ?? (['sound', ...Object.keys(known)] as (CauseCode | 'sound')[]);
  const counts: Record<string, Record<string, Record<string, number>>> = {};
  for (const cause of wanted) {
    const draw = random(cause);
    for (let k = 0; k < each; k++) {
      const faults = cause === 'sound' ? [] : (known[cause] ?? []);
      const fault = faults[Math.floor(draw() * faults.length)] ?? null;
      const size = LEAST_SIZE + (1 - LEAST_SIZE) * draw();
      for (const [test, answer] of judge(fault === null ? sound : read(machine, fault, size), sound, draw)) {
        if (!faultTestByCode(test)!.fits(plate)) continue;
        const ofTest = (counts[test] ??= {});
        const ofCause = (ofTest[cause] ??= {});
        ofCause[answer] = (ofCause[answer] ?? 0) + 1;
      }
    }
  }
  return counts;
}

/** Where simulation and table differ in how often a test finds something, by more than a factor. */
export interface Difference {
  readonly test: string;
  readonly cause: CauseCode;
  readonly table: number;
  readonly simulated: number;
}

export function differences(answers: SimulatedAnswers, factor = 2): readonly Difference[] {
  return Object.entries(answers).flatMap(([test, byCause]) => {
    const { tells, others } = faultTestByCode(test)!;
    return Object.entries(byCause).flatMap(([cause, counts]): Difference[] => {
      if (cause === 'sound') return [];
      const count = Object.values(counts).reduce((sum, one) => sum + one, 0);
      // One in twenty is the least that so few machines can show.
      const simulated = Math.min(0.95, Math.max(0.05, 1 - (counts.usual ?? 0) / count));
      const table = Math.max(0.05, tells[cause as CauseCode] ?? others);
      const isFar = simulated / table > factor || table / simulated > factor;
      return isFar ? [{ test, cause: cause as CauseCode, table, simulated }] : [];
    });
  });
}
