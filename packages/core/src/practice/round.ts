import seedrandom from 'seedrandom';
import {
  answersOf,
  answerText,
  beginFinding,
  beliefAfter,
  causeOn,
  chanceOfBoth,
  faultTestByCode,
  isDaring,
  machineStates,
  standFinding,
  summingToOne,
  symptomByCode,
  USUAL,
  type CauseCode,
  type FaultTest,
  type Finding,
  type GivenAnswer,
} from '../faults/index.js';
import { Simulation, type Button } from '../simulator/index.js';
import { EMPTY_BAR, HISSES_BAR, OIL_MOST_C, scalded, startedOnHands, thrownOpen } from './accident.js';
import type { About, Accident, Drawn, Exercise, Hands, HiddenFault, PracticeAct, Risk } from './exercise.js';
import { opensForRepair } from './openings.js';

/** What the learner does. */
export type PracticeAsk =
  | { readonly kind: 'turn'; readonly code: string; readonly share: number }
  | { readonly kind: 'press'; readonly button: Button }
  | { readonly kind: 'lock' | 'unlock' | 'advise' | 'prove' | 'give-up' }
  | { readonly kind: 'test'; readonly code: string }
  | { readonly kind: 'repair'; readonly cause: CauseCode }
  | { readonly kind: 'act'; readonly code: string };

/** What was done, and when: with exercise and seed it is the whole round. */
export interface DoneAt {
  /** Since the beginning, s. */
  readonly at: number;
  readonly ask: PracticeAsk;
}

export interface LogLine {
  readonly seconds: number;
  readonly text: string;
}

/** How it ended. */
export type RoundEnd =
  | { readonly kind: 'accident'; readonly accident: Accident }
  | { readonly kind: 'mended'; readonly missing: readonly string[]; readonly text: string }
  | { readonly kind: 'given-up' };

/** Minutes to lock and to take the lock off again (common practice). */
const [LOCKING_MIN, UNLOCKING_MIN] = [3, 2];
/** Tools are fetched and the last screws loosened for so long before something lets go. */
const LOOSENING_MIN = 2;
/** An electrician is sent for. */
export const ELECTRICIAN_MIN = 15;
/** What the fault finder’s advice costs. */
export const ADVICE_MIN = 10;
/** What a part counts for, fetched and used up. */
export const PART_MIN = 20;
/** What is counted for something risked. */
export const RISK_MIN = 30;
/** Rounds end after so long at the latest, h of the machine. */
const LONGEST_H = 12;

/**
 * An exercise being played: the simulated machine, its clock, and what the learner has done. Given the same exercise,
 * seed, acts and moments it comes out the same; time passes in whole seconds.
 */
export class Round implements Hands {
  readonly simulation: Simulation;
  readonly finding: Finding;
  readonly log: LogLine[] = [];
  readonly answers: GivenAnswer[] = [];
  readonly done: DoneAt[] = [];
  readonly mended: CauseCode[] = [];
  readonly tried: CauseCode[] = [];
  readonly risks: Risk[] = [];
  isLocked = false;
  private interruptedAt: number | null = null;
  end: RoundEnd | null = null;
  /** What the fault finder said last. */
  advice: string | null = null;
  advices = 0;
  parts = 0;
  readonly opened = new Set<string>();
  /** What was ever turned open. */
  private readonly turned = new Set<string>();
  private readonly acts = new Set<string>();
  private readonly emptyAt = new Map<string, number>();
  private readonly wrong: ReadonlyMap<string, number>;
  private readonly begunAt: number;

  constructor(
    readonly exercise: Exercise,
    readonly seed: string,
  ) {
    const { plate, supplyBar, holds, sets, hidden, deceives, runsBefore, symptom } = exercise;
    const random = seedrandom(`${exercise.code}/${seed}`);
    const draw = ([least, most]: Drawn) => least + (most - least) * random();
    this.simulation = new Simulation(plate, supplyBar === undefined ? {} : { supplyBar });
    this.simulation.press('stop');
    for (const [code, size] of Object.entries(sets ?? {})) this.simulation.fault(code, size);
    for (const [code, bar] of Object.entries(holds)) this.simulation.put(code, draw(bar));
    const faults = [...hidden.flatMap((one) => Object.entries(one.faults)), ...Object.entries(deceives)];
    this.wrong = new Map(faults.map(([code, size]) => [code, draw(size)]));
    for (const [code, size] of this.wrong) this.simulation.fault(code, size);
    if (runsBefore > 0) {
      this.simulation.press('start');
      this.simulation.advance(runsBefore);
    }
    exercise.prepares?.(this.simulation);
    this.begunAt = this.simulation.now;
    this.finding = beginFinding(symptomByCode(symptom)!, plate);
    this.watch();
  }

  get seconds(): number {
    return Math.round(this.simulation.now - this.begunAt);
  }

  readonly did = (act: string): boolean => this.acts.has(act);
  readonly hasMended = (cause: CauseCode): boolean => this.mended.includes(cause);
  readonly hasAnswered = (test: string): boolean => this.answers.some((one) => one.test === test);

  /** Lets time pass, whole seconds; nothing more passes once it has ended. */
  readonly pass = (seconds: number): void => {
    for (let second = 0; second < seconds; second++) {
      if (this.end !== null) return;
      this.simulation.advance(1);
      this.watch();
      this.interrupt();
      if (this.seconds >= LONGEST_H * 3600) this.finish({ kind: 'given-up' });
    }
  };

  /** Remembers which spaces have been empty. */
  private watch(): void {
    for (const space of this.simulation.machine.spaces.keys())
      if (this.simulation.trueBar(space) <= EMPTY_BAR) this.emptyAt.set(space, this.simulation.now);
  }

  /** Does what the learner asks for; what cannot be done is said in the log and nothing else happens. */
  ask(ask: PracticeAsk): void {
    if (this.end !== null) return;
    this.done.push({ at: this.seconds, ask });
    this.perform(ask);
  }

  private perform(ask: PracticeAsk): void {
    switch (ask.kind) {
      case 'turn':
        return this.turn(ask.code, ask.share);
      case 'press':
        return this.press(ask.button);
      case 'lock':
        return this.lock();
      case 'unlock':
        return this.unlock();
      case 'test':
        return this.test(ask.code);
      case 'repair':
        return this.repair(ask.cause);
      case 'act':
        return this.act(ask.code);
      case 'advise':
        return this.advise();
      case 'prove':
        return this.prove();
      case 'give-up':
        return this.finish({ kind: 'given-up' });
    }
  }

  tell(text: string): void {
    this.log.push({ seconds: this.seconds, text });
  }

  private finish(end: RoundEnd): void {
    this.end ??= end;
  }

  private hurt(accident: Accident): void {
    this.tell(accident.happened);
    this.finish({ kind: 'accident', accident });
  }

  private turn(code: string, share: number): void {
    const turnable = this.simulation.machine.turnables.get(code);
    if (!turnable || !Number.isFinite(share)) return;
    this.simulation.turn(code, share);
    if (share > 0) this.turned.add(code);
    this.pass(5);
    this.tell(`${turnable.name} ${share > 0 ? 'opened' : 'shut'}`);
  }

  private press(button: Button): void {
    if (this.isLocked && (button === 'power-on' || button === 'start')) {
      this.tell('Your lock is on it: it does not switch on.');
      return;
    }
    if (button === 'start' || button === 'power-on') this.startedWithVentsOpen();
    this.simulation.press(button);
    this.pass(2);
  }

  /** Started while a drain or a vent stands open: whoever is near has it in the face. */
  private startedWithVentsOpen(): void {
    const open = [...this.simulation.machine.turnables.values()].filter(
      ({ kind, share, code }) => kind === 'drain' && share > 0 && code !== 'trigger' && code !== 'vent-hose',
    );
    if (open.length > 0)
      this.risk({
        text: `Started with an opening to the air: ${open.map(({ name }) => name.toLowerCase()).join(', ')}`,
        minutes: RISK_MIN / 2,
      });
  }

  private risk(risk: Risk): void {
    if (!this.risks.some(({ text }) => text === risk.text)) this.risks.push(risk);
  }

  private lock(): void {
    if (this.isLocked) return;
    this.simulation.press('stop');
    this.simulation.press('power-off');
    this.pass(60 * LOCKING_MIN);
    if (this.simulation.see().drive !== 'off') {
      this.tell('Switched off, and it runs on: there is nothing to lock yet.');
      return;
    }
    this.isLocked = true;
    this.people(0);
    this.tell('Stopped, power off, your lock on it, tried at the switch: it stays off.');
  }

  private unlock(): void {
    if (!this.isLocked) return;
    this.pass(60 * UNLOCKING_MIN);
    this.isLocked = false;
    this.people(this.exercise.sets?.demand ?? 0);
    this.simulation.press('power-on');
    this.tell('Tools counted, guards on, your lock off, power on.');
  }

  /** Who takes air is told, and stops while it is locked. */
  private people(demand: number): void {
    if (this.exercise.sets?.demand !== undefined) this.simulation.fault('demand', demand);
  }

  /** A test of the fault finder that this machine can have. */
  private test(code: string): void {
    const at = this.finding.tests.findIndex((one) => one.code === code);
    const test = this.finding.tests[at];
    if (!test || this.hasAnswered(code)) return;
    const against = this.againstTest(test);
    if (against !== null) {
      this.tell(against);
      return;
    }
    if (this.isHurtBy({ test: code })) return;
    if (this.isDaringNow(at))
      this.risk({ text: `${test.name} before a safer test that tells as much`, minutes: RISK_MIN / 2 });
    const isHere = test.states.includes(this.isLocked ? 'lock' : 'run');
    if (!isHere && !this.opens(test.opens?.(this.exercise.plate) ?? [])) return;
    this.pass(60 * (test.minutes + (test.trade ? ELECTRICIAN_MIN : 0)));
    const answer = this.answerOf(test);
    this.answers.push({ test: code, answer });
    this.tell(`${test.name}: ${this.answerTextOf(test, answer)}`);
  }

  /** Why a test cannot be done as the machine stands; null where it can, or where it opens something. */
  againstTest({ states }: FaultTest): string | null {
    if (states.includes(this.isLocked ? 'lock' : 'run') || states.includes('open')) return null;
    return this.isLocked
      ? 'For this it has to be able to run: the lock comes off first.'
      : 'For this it is stopped and locked first.';
  }

  private isDaringNow(at: number): boolean {
    const { tests } = this.finding;
    return isDaring(this.finding, at, {
      belief: summingToOne(beliefAfter(this.finding, this.answers).odds()),
      state: machineStates.indexOf(this.isLocked ? 'lock' : 'run'),
      asked: tests.map(({ code }) => this.hasAnswered(code)),
    });
  }

  /**
   * What a test shows at this machine: plain where the exercise says so, else drawn once for all by the seed.
   *
   * @param mended what is in it no more; default as it stands
   */
  answerOf(test: FaultTest, mended: readonly CauseCode[] = this.mended): string {
    const shown = this.exercise.shows?.[test.code];
    if (shown !== undefined && mended.length === 0) return shown;
    const left = this.exercise.hidden.filter(({ cause }) => !mended.includes(cause));
    if (left.length === 0) return USUAL;
    const { tests, tables, causes } = this.finding;
    const { full, others } = tables[tests.indexOf(test)]!;
    const columns = left.flatMap(({ cause }) => {
      const column = causes.findIndex(({ code }) => code === cause);
      return column < 0 ? [] : [full.map((row) => row[column]!)];
    });
    const [a, b] = columns;
    if (a === undefined) return USUAL;
    const chances = full.map((_row, at) => (b === undefined ? a[at]! : chanceOfBoth(a, b, others, at)));
    const random = seedrandom(`${this.exercise.code}/${this.seed}/${test.code}`);
    return answersOf(test)[drawPlain(chances, random())]!.code;
  }

  /** Unscrews something. False where that ended the round. */
  private opens(codes: readonly string[]): boolean {
    const { exercise, simulation } = this;
    const { plate, handling } = exercise;
    this.pass(60 * LOOSENING_MIN);
    for (const opening of codes) {
      const runs = simulation.see().drive !== 'off';
      if (!this.isLocked && !handling.mayRun.includes(opening)) {
        this.hurt(startedOnHands(plate, opening, runs));
        return false;
      }
      const spaces = handling.opened[opening] ?? [];
      const full = spaces
        .filter((space) => simulation.trueBar(space) > EMPTY_BAR)
        .sort((a, b) => simulation.trueBar(b) - simulation.trueBar(a))[0];
      if (full !== undefined && simulation.trueBar(full) <= HISSES_BAR)
        this.risk({
          text: `Opened with ${simulation.trueBar(full).toFixed(1)} bar in it: it hissed, and nothing flew this time`,
          minutes: RISK_MIN,
        });
      else if (full !== undefined) {
        const emptyAt = this.emptyAt.get(full) ?? null;
        this.hurt(
          thrownOpen(
            simulation,
            exercise,
            { opening, space: full },
            {
              emptyAt,
              wasOpened: (vent) => this.turned.has(vent),
              isBlocked: (vent) => (this.wrong.get(`${vent}-blocked`) ?? 0) > 0.5,
              wasInterruptedSince: this.filledWhileAway(emptyAt),
            },
          ),
        );
        return false;
      }
      if (!this.isCool(opening)) return false;
      this.unproved(spaces);
      this.opened.add(opening);
    }
    return true;
  }

  private filledWhileAway(emptyAt: number | null): boolean {
    const { interruptedAt, exercise } = this;
    if (emptyAt === null || interruptedAt === null) return false;
    return Math.abs(emptyAt - interruptedAt) <= 60 * (exercise.interruption!.minutes + 1);
  }

  private isCool(opening: string): boolean {
    const { plate } = this.exercise;
    if (plate.family !== 'screw' || !['oil', 'separator'].includes(opening)) return true;
    const tempC = this.simulation.machine.thermometers.find(({ code }) => code === 'oil')!.tempC();
    if (tempC <= OIL_MOST_C) return true;
    this.hurt(scalded(plate, opening, tempC));
    return false;
  }

  /** Empty, and nobody saw to it: it went well this time. */
  private unproved(spaces: readonly string[]): void {
    const { turnables } = this.simulation.machine;
    const vents = Object.values(this.exercise.handling.places).filter(
      ({ space, opens }) => space !== undefined && opens !== undefined && spaces.includes(space),
    );
    const shut = vents.flatMap(({ opens }) => opens!).filter((code) => turnables.get(code)!.share === 0);
    if (shut.length > 0)
      this.risk({
        text: `Opened with a vent shut: ${shut.map((code) => turnables.get(code)!.name.toLowerCase()).join(', ')}`,
        minutes: RISK_MIN,
      });
  }

  /** An answer in words. */
  answerTextOf(test: FaultTest, answer: string, mended: readonly CauseCode[] = this.mended): string {
    const said = mended.length === 0 ? this.exercise.says?.[test.code] : undefined;
    return said ?? answerText(test, answer) ?? 'Cannot tell';
  }

  private hiddenOf(cause: CauseCode): HiddenFault | undefined {
    return this.exercise.hidden.find((one) => one.cause === cause);
  }

  /** Codes of what is opened to put a cause right at this machine. */
  opensFor(cause: CauseCode): readonly string[] {
    const hidden = this.hiddenOf(cause);
    if (hidden?.isByHand) return [];
    return hidden?.opens ?? opensForRepair(cause, this.exercise.plate);
  }

  private isHurtBy(about: About): boolean {
    const accident = this.exercise.hurts?.(this, about) ?? null;
    if (accident !== null) this.hurt(accident);
    return accident !== null;
  }

  private repair(cause: CauseCode): void {
    const { plate } = this.exercise;
    if (this.tried.includes(cause) || !this.finding.causes.some(({ code }) => code === cause)) return;
    const hidden = this.hiddenOf(cause);
    const { name, minutes, state, takes } = causeOn(cause, plate);
    const opens = this.opensFor(cause);
    if (this.isHurtBy({ repair: cause })) return;
    if (state !== 'run' && !hidden?.isByHand && !this.isLocked && opens.length === 0) {
      this.tell('For this it is stopped and locked first.');
      return;
    }
    if (opens.length > 0 && !this.opens(opens)) return;
    this.pass(60 * (hidden?.minutes ?? minutes));
    this.tried.push(cause);
    if (takes && !hidden?.isByHand) this.parts += 1;
    if (!hidden) {
      this.tell(`${name}: gone into, and there was nothing wrong with it.`);
      return;
    }
    for (const code of Object.keys(hidden.faults)) this.simulation.fault(code, 0);
    this.mended.push(cause);
    this.tell(`${name}: found, and mended.`);
  }

  private act(code: string): void {
    const act = this.exercise.acts.find((one) => one.code === code);
    if (!act || !this.isOffered(act)) return;
    if (act.opens && !this.opens(act.opens)) return;
    this.pass(60 * act.minutes);
    if (this.end !== null) return;
    if (act.risk) this.risk(act.risk);
    const came = act.does(this);
    this.acts.add(code);
    if (typeof came === 'string') this.tell(came);
    else this.hurt(came);
  }

  isOffered({ code, isOffered }: PracticeAct): boolean {
    return !this.did(code) && (isOffered?.(this) ?? true);
  }

  private advise(): void {
    this.pass(60 * ADVICE_MIN);
    this.advices += 1;
    const { plate } = this.exercise;
    const wrongOnes = this.tried.filter((cause) => !this.hasMended(cause));
    const view = standFinding(this.finding, this.answers, this.isLocked ? 'lock' : 'run', wrongOnes);
    const proposal = view.next ?? view.worth;
    const [first] = view.odds;
    const leading = `${causeOn(first!.cause, plate).name}: ${Math.round(100 * first!.odds)} %.`;
    const text =
      view.isKnown || proposal === null
        ? `${leading} More testing only costs: mend “${causeOn(view.repair, plate).name}”.`
        : `${leading} Next: ${faultTestByCode(proposal.test)!.question}`;
    this.advice = text;
    this.tell(`Asked the fault finder. ${text}`);
  }

  private prove(): void {
    if (this.isLocked) {
      this.tell('Your lock is still on it.');
      return;
    }
    const { text, isMet } = this.exercise.proves(this);
    this.tell(text);
    if (this.end !== null || !isMet) return;
    const left = this.exercise.hidden.filter(({ cause }) => !this.hasMended(cause));
    if (left.length > 0) {
      this.tell('It got there this time. What was wrong with it is still in it.');
      return;
    }
    const missing = this.exercise.ends.filter(({ isMet: met }) => !met(this)).map((one) => one.text);
    for (const one of missing) this.risk({ text: `Left undone: ${one}`, minutes: RISK_MIN });
    this.finish({ kind: 'mended', missing, text });
  }

  private interrupt(): void {
    const { interruption } = this.exercise;
    if (!interruption || this.interruptedAt !== null || this.end !== null || !interruption.comes(this))
      return;
    this.interruptedAt = this.simulation.now;
    this.tell(interruption.text);
    interruption.does(this);
    this.pass(60 * interruption.minutes);
  }
}

/** What comes more seldom does not come in practice: a machine that answers against its fault teaches nothing. */
const PLAIN_FROM = 0.25;

function drawPlain(chances: readonly number[], drawn: number): number {
  const plain = chances.map((chance) => (chance >= PLAIN_FROM ? chance : 0));
  let left = drawn * plain.reduce((sum, chance) => sum + chance, 0);
  const at = plain.findIndex((chance) => chance > 0 && (left -= chance) <= 0);
  return at < 0 ? chances.indexOf(Math.max(...chances)) : at;
}

/** Plays a round again as it was played, until a second. */
export function replay(exercise: Exercise, seed: string, done: readonly DoneAt[], until: number): Round {
  const round = new Round(exercise, seed);
  for (const { at, ask } of done) {
    if (at > round.seconds) round.pass(at - round.seconds);
    round.ask(ask);
  }
  if (until > round.seconds) round.pass(until - round.seconds);
  return round;
}
