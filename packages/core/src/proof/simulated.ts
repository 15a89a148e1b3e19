import {
  addEvent,
  againstTelling,
  missingFor,
  NOTHING_ISOLATED,
  pointOf,
  STILL,
  tilesOf,
  ZERO_BAR,
  type Guarded,
  type GuardRule,
  type IsolateBody,
  type IsolationEvent,
  type IsolationFold,
  type IsolationPoint,
  type Missing,
} from '../isolation/index.js';
import { AUDIBLE, Simulation, type Place } from '../simulator/index.js';
import { type Liar, type Site, sites } from './machine-sites.js';

/** What became of many courses. */
export interface CoursesRun {
  readonly courses: number;
  readonly steps: number;
  /** How often the guard let somebody open something. */
  readonly admitted: number;
  /** How often it did so with a liar in one of the spaces that were opened. */
  readonly admittedWithLiar: number;
  /** Courses at whose end somebody was let to open more than 0.1 bar, as stories. */
  readonly unsafe: readonly (readonly string[])[];
}

export interface CoursesWanted {
  readonly courses: number;
  /** The same seed, the same courses. */
  readonly random: () => number;
  /** Liars in one space at the most: with two nothing is promised. */
  readonly liars: 1 | 2;
  /** Names of machines; default all. */
  readonly machines?: readonly string[];
  /** Rules of the guard; default all: to show what happens without one. */
  readonly rules?: ReadonlySet<GuardRule>;
}

const START = Date.UTC(2026, 0, 5, 7);
const MOST_ACTS = 60;
/** What is let to be opened holds no more than this, bar. */
const EMPTY_BAR = 0.1;
/** A person hears that air comes for so long before they say that it keeps coming, s. */
const PATIENCE_S = 900;

/** Random courses of one or two people at simulated machines, steered toward what the guard lets them open. */
export function runCourses({
  courses,
  random,
  liars,
  machines = Object.keys(sites),
  rules,
}: CoursesWanted): CoursesRun {
  let [steps, admitted, admittedWithLiar] = [0, 0, 0];
  const unsafe: (readonly string[])[] = [];
  for (let index = 0; index < courses; index++) {
    const name = machines[index % machines.length]!;
    const course = new Course(name, sites[name]!, random, liars, rules);
    course.run();
    steps += course.steps;
    admitted += course.admitted;
    admittedWithLiar += course.admittedWithLiar;
    if (course.danger !== null) unsafe.push([...course.story, course.danger]);
  }
  return { courses, steps, admitted, admittedWithLiar, unsafe };
}

type Who = 'mira' | 'jorun';

/** One course: a machine with its liars, what the people do, and what the guard makes of it. */
class Course {
  readonly story: string[] = [];
  steps = 0;
  admitted = 0;
  admittedWithLiar = 0;
  danger: string | null = null;

  private readonly simulation: Simulation;
  private readonly guarded: Guarded;
  private fold: IsolationFold = NOTHING_ISOLATED;
  private readonly locks = new Set<Who>();
  private readonly target: string;
  private readonly clogs: { code: string; space: string; bar: number }[] = [];
  private readonly lying = new Set<string>();
  /** Vents whose bore is not free. */
  private readonly blocked = new Set<string>();
  /** Needles as they stood when their vent was opened, and when they were looked at last. */
  private readonly needles = new Map<string, { opened: number; last: number }>();
  private count = 0;

  constructor(
    name: string,
    private readonly site: Site,
    private readonly random: () => number,
    liars: number,
    rules?: ReadonlySet<GuardRule>,
  ) {
    this.guarded = { plate: site.plate, rules };
    this.simulation = new Simulation(site.plate, {
      supplyBar: site.supplyBar,
      tolerance: 1e-3,
      longestS: 120,
    });
    this.simulation.press('stop');
    for (const [code, [least, most]] of Object.entries(site.holds))
      this.simulation.put(code, this.between(least, most));
    for (const [code, size] of Object.entries(site.begins)) this.simulation.fault(code, size);
    this.target = this.pick(Object.keys(site.opened).filter((code) => site.opened[code]!.length > 0));
    this.tell(`${name}: ${this.target} is to be opened`);
    for (const [space, known] of Object.entries(site.liars)) {
      const many = this.random() < 0.45 ? (liars === 2 && this.random() < 0.7 ? 2 : 1) : 0;
      for (let each = 0; each < many; each++) this.plant(space, this.pick(known));
    }
    if (this.random() < 0.6) this.simulation.press('start');
    this.pass(this.between(1, 20));
  }

  private between(least: number, most: number): number {
    return least + (most - least) * this.random();
  }

  private pick<One>(from: readonly One[]): One {
    return from[Math.floor(this.random() * from.length)]!;
  }

  private tell(what: string): void {
    this.story.push(`${Math.round(this.simulation.now)} s: ${what}`);
  }

  private plant(space: string, liar: Liar): void {
    this.lying.add(space);
    switch (liar.kind) {
      case 'fault': {
        const size = this.between(liar.least, liar.most);
        for (const code of liar.codes) {
          this.simulation.fault(code, size);
          if (code.endsWith('-blocked')) this.blocked.add(code);
        }
        this.tell(`in ${space}: ${liar.codes.join(' and ')} ${size.toFixed(3)}`);
        break;
      }
      case 'clogs': {
        const bar = this.simulation.trueBar(liar.space) * this.between(0.02, 0.9);
        this.clogs.push({ code: liar.code, space: liar.space, bar });
        this.tell(`in ${space}: ${liar.code} at ${bar.toFixed(2)} bar`);
        break;
      }
      case 'needle-at-zero': {
        const gauge = this.simulation.machine.gauges.get(liar.gauge)!;
        gauge.reading = 0;
        gauge.sticks = 1;
        this.tell(`in ${space}: the needle ${liar.gauge} stands at zero`);
      }
    }
  }

  /** Time passes; a vent that clogs does so on the way. */
  private pass(seconds: number): void {
    let left = seconds;
    while (left > 1e-9) {
      const isClogging = this.clogs.some(({ code }) => this.isOpen(code.replace('-blocked', '')));
      const waits = isClogging ? Math.min(left, 2 + 0.2 * (seconds - left)) : left;
      this.simulation.advance(waits);
      left -= waits;
      for (const [index, { code, space, bar }] of this.clogs.entries()) {
        if (this.simulation.trueBar(space) > bar || !this.isOpen(code.replace('-blocked', ''))) continue;
        this.simulation.fault(code, 1);
        this.blocked.add(code);
        this.clogs.splice(index, 1);
        this.tell(`${code} now, at ${this.simulation.trueBar(space).toFixed(2)} bar`);
        break;
      }
    }
  }

  private isOpen(code: string): boolean {
    return (this.simulation.machine.turnables.get(code)?.share ?? 0) > 0;
  }

  run(): void {
    for (let act = 0; act < MOST_ACTS && this.danger === null; act++) {
      this.steps += 1;
      this.act();
      this.check();
      if (this.admitted > 3) return;
    }
  }

  private act(): void {
    const who: Who = this.random() < 0.85 ? 'mira' : 'jorun';
    const chance = this.random();
    if (chance < 0.03) return this.takeLockOff(who);
    if (chance < 0.05) return this.takeBack(who);
    if (chance < 0.12) {
      const seconds = this.between(5, this.random() < 0.2 ? 1800 : 150);
      this.tell(`${Math.round(seconds)} s pass`);
      return this.pass(seconds);
    }
    if (this.locks.size === 0 && chance < 0.3) this.colleague();
    const missing = this.missing(who, this.target);
    if (missing.length === 0) return this.pass(this.between(5, 120));
    const next = chance < 0.85 ? missing[0]! : this.pick(missing);
    this.doPoint(who, next);
  }

  private missing(who: Who, opening: string): readonly Missing[] {
    return missingFor(this.guarded, this.fold, [opening], { at: this.at(), by: who, session: who });
  }

  private at(): number {
    return START + Math.round(this.simulation.now * 1000);
  }

  private event(who: Who, body: IsolationEvent['body']): IsolationEvent {
    this.count += 1;
    return { id: `e${String(this.count).padStart(6, '0')}`, doneAt: this.at(), by: who, session: who, body };
  }

  /** Tells the guard something; what it has against it, or null where it stands. */
  private say(who: Who, body: IsolateBody): string | null {
    const event = this.event(who, body);
    const against = againstTelling(this.guarded, this.fold, event);
    const words = [body.step, body.tile, body.answer, body.needle, body.pressureBar, body.isSure && 'sure']
      .filter((word) => word !== undefined && word !== false)
      .join(' ');
    this.tell(`${who}: ${words}${against === null ? '' : ` (refused: ${against.code})`}`);
    if (against !== null) return against.code;
    this.fold = addEvent(this.guarded, this.fold, event);
    return null;
  }

  private takeLockOff(who: Who): void {
    if (!this.locks.delete(who)) return;
    this.say(who, { kind: 'isolate', step: 'lock-out', confirmed: false });
    if (this.locks.size === 0) this.colleague();
  }

  /** With no lock on, somebody restores power, and the machine starts where it wants to. */
  private colleague(): void {
    if (this.random() < 0.4) return;
    this.simulation.press('power-on');
    if (this.random() < 0.7) this.simulation.press('start');
    const seconds = this.between(2, 90);
    this.pass(seconds);
    this.tell(`a colleague restored power for ${Math.round(seconds)} s, ${this.simulation.see().drive}`);
  }

  /** Opens a shut valve, or shuts an open vent, and says so. */
  private takeBack(who: Who): void {
    const [key, place] = this.pick(Object.entries(this.site.places));
    const [step, tile] = key.split('/') as [string, string | undefined];
    if (place.shuts) for (const code of place.shuts) this.simulation.turn(code, 1);
    else for (const code of place.opens ?? []) this.simulation.turn(code, 0);
    this.say(who, { kind: 'isolate', step, tile, confirmed: false });
  }

  private doPoint(who: Who, { point: code, tiles }: Missing): void {
    if (code === STILL) return this.still(who);
    const point = pointOf(this.site.plate, code)!;
    const tile = tiles.length > 0 ? this.pick(tiles) : (tilesOf(point)[0]?.code ?? '');
    const key = tile === '' ? code : `${code}/${tile}`;
    const place = this.site.places[key] ?? {};
    const body = { kind: 'isolate', step: code, confirmed: true, ...(tile === '' ? {} : { tile }) } as const;
    switch (point.kind) {
      case 'drive':
        this.simulation.press('power-off');
        // A set that will not stop is not locked; it is let run dry first.
        if (this.simulation.see().drive !== 'off') return this.pass(60);
        this.pass(this.between(3, 20));
        this.locks.add(who);
        this.say(who, { ...body, answer: 'holds' });
        return;
      case 'shut':
        for (const valve of place.shuts ?? []) this.simulation.turn(valve, 0);
        for (const vent of place.opens ?? []) this.simulation.turn(vent, 1);
        this.pass(this.between(2, 15));
        this.say(who, { ...body, answer: 'holds' });
        return;
      case 'vent':
        return this.vent(who, point, place, body);
      case 'look':
        return this.look(who, body);
      case 'heat': {
        const tempC = this.simulation.see().temps.at(-1)!.tempC;
        if (this.say(who, { ...body, answer: 'holds', tempC: Math.round(tempC) }) !== null) this.pass(900);
        return;
      }
      default:
        this.say(who, { ...body, answer: 'holds' });
    }
  }

  private flowAt(place: Place): number {
    const { turnables, senses } = this.simulation.machine;
    const vents = (place.opens ?? []).map((code) => Math.abs(turnables.get(code)!.passes()));
    const heard = senses.find(({ code }) => code === place.hears)?.strength() ?? 0;
    return Math.max(...vents, heard > 0 ? 1 : 0, 0);
  }

  private reading(place: Place): number | null {
    return place.gauge === undefined ? null : this.simulation.machine.gauges.get(place.gauge)!.reading;
  }

  private vent(who: Who, point: IsolationPoint, place: Place, body: Omit<IsolateBody, 'answer'>): void {
    const key = place.space ?? point.code;
    const isOpen =
      place.opens === undefined ? this.needles.has(key) : place.opens.every((code) => this.isOpen(code));
    const state = this.fold.vents.get(body.tile === undefined ? body.step : `${body.step}/${body.tile}`);
    if (!isOpen || state === undefined || state.against !== null) return this.open(who, place, key, body);
    const patience = this.between(3, this.random() < 0.2 ? PATIENCE_S : 240);
    for (let waited = 0; waited < patience && this.flowAt(place) > AUDIBLE; waited += 5 + waited / 4)
      this.pass(5 + waited / 4);
    if (this.flowAt(place) > AUDIBLE) {
      if (this.random() < 0.2) this.say(who, { ...body, answer: 'keeps-coming' });
      return;
    }
    const needle = this.needleOf(place, key);
    if (state.silentAt === null) {
      const refused = this.say(who, { ...body, answer: 'silent', ...needle });
      if (refused === 'too-fast') this.say(who, { ...body, answer: 'silent', ...needle, isSure: true });
      return;
    }
    this.secondSign(who, point, place, body, needle);
  }

  private open(who: Who, place: Place, key: string, body: Omit<IsolateBody, 'answer'>): void {
    const before = this.reading(place) ?? 0;
    for (const code of place.opens ?? []) {
      if (this.isOpen(code)) this.simulation.turn(code, 0);
      this.simulation.turn(code, 1);
    }
    this.pass(0.5);
    this.needles.set(key, { opened: before, last: before });
    if (this.flowAt(place) > AUDIBLE) {
      this.say(who, { ...body, answer: 'passes' });
      return;
    }
    // Nothing comes: who expects nothing calls it empty.
    const expects = before > ZERO_BAR;
    if (expects && this.random() < 0.9) this.say(who, { ...body, answer: 'nothing', needle: 'stood' });
    else this.say(who, { ...body, answer: 'found-empty', ...this.needleOf(place, key) });
  }

  private needleOf(place: Place, key: string): Pick<IsolateBody, 'needle' | 'pressureBar'> {
    const shows = this.reading(place);
    const known = this.needles.get(key);
    if (shows === null || known === undefined) return { needle: 'none' };
    const rises = shows > known.last + 0.05;
    known.last = shows;
    if (rises) return { needle: 'rises' };
    if (shows > ZERO_BAR) return { needle: 'off', pressureBar: Math.round(shows * 100) / 100 };
    return known.opened > ZERO_BAR ? { needle: 'fell' } : { needle: 'stood' };
  }

  /** What else can be seen of an empty space: each told as it is found. */
  private secondSign(
    who: Who,
    point: IsolationPoint,
    place: Place,
    body: Omit<IsolateBody, 'answer'>,
    needle: Pick<IsolateBody, 'needle' | 'pressureBar'>,
  ): void {
    const bar = place.space === undefined ? 0 : this.simulation.trueBar(place.space);
    const isFree = (place.opens ?? []).every((code) => !this.blocked.has(`${code}-blocked`));
    const sign = this.pick(
      point.isHigh
        ? (['second-opening', 'second-gauge'] as const)
        : (['second-opening', 'second-gauge', 'seen-free', 'stood'] as const),
    );
    switch (sign) {
      case 'second-opening':
        // Another opening on the same space: air comes while there is some, and it lets it off.
        if (bar > 0.01) {
          this.say(who, { ...body, answer: 'keeps-coming' });
          return;
        }
        break;
      case 'second-gauge':
        if (bar > ZERO_BAR) {
          this.say(who, {
            ...body,
            answer: 'nothing',
            needle: 'off',
            pressureBar: Math.round(bar * 100) / 100,
          });
          return;
        }
        break;
      case 'seen-free':
        if (!isFree || place.opens === undefined) return;
        break;
      case 'stood':
        this.pass(600);
        if (this.flowAt(place) > AUDIBLE) return;
    }
    this.say(who, { ...body, answer: sign, ...needle });
  }

  private look(who: Who, body: Omit<IsolateBody, 'answer'>): void {
    const refused = this.say(who, { ...body, answer: this.isQuiet() ? 'holds' : 'is-fed' });
    if (refused !== 'too-soon') return;
    const seconds = this.between(60, 320);
    this.tell(`${Math.round(seconds)} s pass`);
    this.pass(seconds);
  }

  /** Nothing comes anywhere, and no needle has moved since it was looked at. */
  private isQuiet(): boolean {
    return Object.entries(this.site.places).every(([key, place]) => {
      if (place.opens?.every((code) => this.isOpen(code)) !== true) return true;
      if (place.shuts === undefined && this.flowAt(place) > AUDIBLE) return false;
      const known = this.needles.get(place.space ?? key);
      const shows = this.reading(place);
      if (known === undefined || shows === null) return true;
      // A needle that was seen to fall rests where it rests when empty, or it has moved.
      return shows <= known.last + 0.05 && !(known.last <= ZERO_BAR && shows > ZERO_BAR);
    });
  }

  private still(who: Who): void {
    this.pass(this.between(5, 30));
    if (this.isQuiet()) this.say(who, { kind: 'isolate', step: STILL, confirmed: true, answer: 'holds' });
    else {
      const [key] =
        Object.entries(this.site.places).find(([, { opens }]) => opens?.some((code) => this.isOpen(code))) ??
        [];
      if (key === undefined) return;
      const [step, tile] = key.split('/') as [string, string | undefined];
      this.say(who, { kind: 'isolate', step, tile, confirmed: true, answer: 'keeps-coming' });
    }
  }

  /** Whatever the guard lets somebody open now must be empty, and the machine must stand. */
  private check(): void {
    for (const who of ['mira', 'jorun'] as const) {
      for (const [opening, spaces] of Object.entries(this.site.opened)) {
        if (spaces.length === 0 || this.missing(who, opening).length > 0) continue;
        this.admitted += 1;
        if (spaces.some((space) => this.lying.has(space))) this.admittedWithLiar += 1;
        const full = spaces.find((space) => this.simulation.trueBar(space) > EMPTY_BAR);
        const runs = !this.site.mayRun.includes(opening) && this.simulation.see().drive !== 'off';
        if (full !== undefined || runs) {
          const bar = full === undefined ? '' : ` at ${this.simulation.trueBar(full).toFixed(2)} bar`;
          this.danger = `${Math.round(this.simulation.now)} s: ${who} may open ${opening}, ${runs ? 'and it runs' : `${full}${bar}`}`;
          return;
        }
      }
    }
  }
}
