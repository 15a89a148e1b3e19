import {
  addEvent,
  missingFor,
  reasonAgainst,
  restartProblem,
  type Guarded,
  type IsolateBody,
  type IsolationFold,
  type Needle,
} from '../isolation/index.js';
import {
  afterAWhile,
  faults,
  flows,
  shown,
  withFault,
  withSpace,
  type Plant,
  type SpaceState,
} from './plant.js';

/** A machine under the guard, as the search sees it. */
export interface Model {
  readonly name: string;
  readonly guarded: Guarded;
  /** Codes of what is opened. */
  readonly opens: readonly string[];
  /** Vented points, one for each space of the plant. */
  readonly vents: readonly string[];
  /** The point of the valve that shuts them off. */
  readonly valve: string;
  readonly lookMinutes: number;
  /** Left out: what others do unseen during a pause, older pages, machines that stand by themselves. */
  readonly isQuiet?: boolean;
  /** Left out: the ways of a machine found empty. */
  readonly isPlain?: boolean;
  /** One person who may reload the page, or two who each have a lock. */
  readonly people: 'one' | 'two';
}

/** Where plant and guard stand together. */
export interface Node {
  readonly plant: Plant;
  readonly fold: IsolationFold;
  readonly now: number;
  /** Page that the first person has open. */
  readonly session: string;
  readonly faultsLeft: number;
  readonly isIdle: boolean;
}

export interface Move {
  readonly name: string;
  /** Whether a technician does it, or chance. */
  readonly isHonest: boolean;
  /** Minutes that pass by it; while it stands by itself, where it says so. */
  readonly minutes?: number;
  readonly stands?: boolean;
  /** Where it leads. */
  readonly to: () => Node;
}

const MINUTE = 60_000;
/** A pause in the model: barely longer than a second look, so that few moments have to be told apart. */
export const PAUSE_MINUTES = 3;
const SECOND_PERSON = 'b';

/** Everything that can happen next. */
export function* moves(model: Model, node: Node): Generator<Move> {
  for (const person of peopleOf(model, node.session)) yield* movesOf(model, node, person);
  if (model.people === 'one' && node.session === 'a1')
    yield { name: 'a reloads', isHonest: true, to: () => ({ ...node, session: 'a2' }) };
  yield* passing(model, node);
  if (node.faultsLeft > 0) yield* chances(node);
}

/** Time passes: long enough for a second look, for a pause, or a night. */
function* passing({ lookMinutes, isQuiet }: Model, node: Node): Generator<Move> {
  const after = (minutes: number) => (): Node => ({
    ...node,
    plant: afterAWhile(node.plant),
    now: node.now + minutes * MINUTE,
    isIdle: true,
  });
  if (!node.isIdle)
    yield { name: `${lookMinutes} min pass`, isHonest: true, minutes: lookMinutes, to: after(lookMinutes) };
  yield { name: 'a pause passes', isHonest: true, minutes: PAUSE_MINUTES + 1, to: after(PAUSE_MINUTES + 1) };
  yield { name: 'a night passes', isHonest: true, minutes: 24 * 60, to: after(24 * 60) };
  if (isQuiet) return;
  if (node.plant.locks.length === 0) {
    const plant = afterAWhile(node.plant, true);
    const to = { ...node, plant, now: node.now + lookMinutes * MINUTE, isIdle: true };
    yield {
      name: 'it stands by itself for a while',
      isHonest: false,
      minutes: lookMinutes,
      stands: true,
      to: () => to,
    };
  }
  for (const [name, plant] of meddledWith(node.plant)) {
    const to = {
      ...node,
      plant: afterAWhile(plant),
      now: node.now + (PAUSE_MINUTES + 1) * MINUTE,
      isIdle: true,
    };
    yield { name: `a pause passes: ${name}`, isHonest: false, minutes: PAUSE_MINUTES + 1, to: () => to };
  }
}

/** What others do while nobody is there, and tell nobody. */
function meddledWith(plant: Plant): readonly (readonly [string, Plant])[] {
  const shut = { isOpen: false, secondIsOpen: false };
  const found: [string, Plant][] = [];
  if (!plant.valveIsOpen) found.push(['somebody opens the valve', { ...plant, valveIsOpen: true }]);
  if (plant.locks.length > 0) found.push(['somebody takes the locks off', { ...plant, locks: [] }]);
  plant.spaces.forEach(({ isOpen }, index) => {
    if (isOpen) found.push([`somebody shuts vent ${index}`, withSpace(plant, index, shut)]);
  });
  return found;
}

function* chances(node: Node): Generator<Move> {
  for (const fault of faults) {
    for (let index = 0; index < node.plant.spaces.length; index += 1) {
      const plant = withFault(node.plant, fault, index);
      const to = { ...node, plant, faultsLeft: node.faultsLeft - 1 };
      yield { name: `${fault} at ${index}`, isHonest: false, to: () => to };
      if (fault === 'valve-passes' || fault === 'check-leaks' || fault === 'check-sticks') break;
    }
  }
}

/** Who is at the machine, on which page. */
export function peopleOf({ people }: Model, session: string): readonly Person[] {
  const first = { by: 'a', session };
  return people === 'one' ? [first] : [first, { by: SECOND_PERSON, session: 'b1' }];
}

interface Person {
  readonly by: string;
  readonly session: string;
}

/** What the person’s own lock, the tagged valve, the vents and the needles look like, against what was said of them. */
function isAsItWas({ plant, fold }: Node, { vents, valve }: Model, by: string): boolean {
  const isMoved = ({ shownThen, ...space }: SpaceState) =>
    shownThen !== null && shown({ ...space, shownThen }) > shownThen;
  return (
    plant.locks.includes(by) &&
    (!plant.valveIsOpen || !fold.held.has(valve)) &&
    plant.spaces.every(
      (space, index) => !flows(space) && !isMoved(space) && (space.isOpen || !fold.vents.has(vents[index]!)),
    )
  );
}

function* movesOf(model: Model, node: Node, person: Person): Generator<Move> {
  const { plant } = node;
  const format = (name: string, body: Omit<IsolateBody, 'kind'>, becomes: Plant = plant): Move[] =>
    recordMove(model, node, person, `${person.by}: ${name}`, { kind: 'isolate', ...body }, becomes);
  const hasLock = plant.locks.includes(person.by);
  if (hasLock) {
    const locks = plant.locks.filter((one) => one !== person.by);
    yield* format('lock off', { step: 'lock-out', confirmed: false }, { ...plant, locks });
  } else {
    const locks = [...plant.locks, person.by].sort();
    yield* format('lock on', { step: 'lock-out', confirmed: true, answer: 'holds' }, { ...plant, locks });
  }
  if (person.by === SECOND_PERSON) {
    yield* besides(model, node, person, format);
    yield* starting(model, node, person);
    return;
  }
  if (plant.valveIsOpen) {
    const shut = { ...plant, valveIsOpen: false };
    yield* format('valve shut', { step: model.valve, confirmed: true, answer: 'holds' }, shut);
  } else {
    yield* format('valve open', { step: model.valve, confirmed: false }, { ...plant, valveIsOpen: true });
  }
  for (let index = 0; index < plant.spaces.length; index += 1) yield* atVent(model, node, index, format);
  if (!hasLock && !model.isQuiet)
    yield* format('an old page ticks the lock', { step: 'lock-out', confirmed: true });
  yield* looking(model, node, person, format);
  yield* starting(model, node, person);
}

/** The second person does not begin an isolation of their own: they look, shut a vent, say when it is silent. */
function* besides(model: Model, node: Node, person: Person, format: Recorder): Generator<Move> {
  yield* looking(model, node, person, format);
  for (let index = 0; index < node.plant.spaces.length; index += 1) {
    const space = node.plant.spaces[index]!;
    const step = model.vents[index]!;
    if (!space.isOpen) continue;
    const shut = { isOpen: false, sawUp: false, shownThen: null, secondIsOpen: false };
    yield* format(`${step} shut`, { step, confirmed: false }, withSpace(node.plant, index, shut));
    if (flows(space)) continue;
    const noted = withSpace(node.plant, index, { shownThen: shown(space) });
    const needle = needleOf(space, space.sawUp);
    yield* format(`${step} silent`, { step, confirmed: true, answer: 'silent', ...needle }, noted);
  }
}

type Recorder = (name: string, body: Omit<IsolateBody, 'kind'>, becomes?: Plant) => Move[];

function* atVent(model: Model, { plant }: Node, index: number, format: Recorder): Generator<Move> {
  const space = plant.spaces[index]!;
  const step = model.vents[index]!;
  const confirmed = true;
  const name = (text: string) => `${step} ${text}`;
  if (!space.isOpen) {
    const opened = withSpace(plant, index, { isOpen: true, sawUp: shown(space) > 0, shownThen: null });
    const isHeard = flows({ ...space, isOpen: true });
    const needle = needleOf(space, shown(space) > 0);
    if (isHeard) yield* format(name('passes'), { step, confirmed, answer: 'passes' }, opened);
    else {
      // Whoever hears nothing may have expected it, or not.
      yield* format(name('nothing comes'), { step, confirmed, answer: 'nothing', ...needle }, opened);
      if (!model.isPlain)
        yield* format(name('found empty'), { step, confirmed, answer: 'found-empty', ...needle }, opened);
    }
    return;
  }
  const shut = withSpace(plant, index, { isOpen: false, sawUp: false, shownThen: null, secondIsOpen: false });
  yield* format(name('shut'), { step, confirmed: false }, shut);
  const isHeard = flows(space);
  if (isHeard) {
    yield* format(name('passes'), { step, confirmed, answer: 'passes' });
    return;
  }
  const noted = withSpace(plant, index, { shownThen: shown(space) });
  const needle = needleOf(space, space.sawUp);
  yield* format(name('silent'), { step, confirmed, answer: 'silent', ...needle }, noted);
  // With two people the ways of the machine found empty are left to the model of one.
  if (model.people === 'two' || model.isPlain) return;
  if (!space.secondIsOpen) {
    const both = withSpace(noted, index, { secondIsOpen: true });
    const second = both.spaces[index]!;
    // A second opening that passes is waited for: it is silent by itself in a while.
    if (flows(second))
      yield* format(name('second opening passes'), { step, confirmed, answer: 'passes' }, both);
    else
      yield* format(name('second opening'), { step, confirmed, answer: 'second-opening', ...needle }, both);
  } else
    yield* format(
      name('second opening silent'),
      { step, confirmed, answer: 'second-opening', ...needle },
      noted,
    );
  if (space.drain === 'free' && space.level === 0)
    yield* format(name('bore seen free'), { step, confirmed, answer: 'seen-free', ...needle }, noted);
  yield* letIn(plant, index, step, format);
}

/** A little air is let in, seen to pass and to stop: what stays behind a half blocked drain stays. */
function* letIn(plant: Plant, index: number, step: string, format: Recorder): Generator<Move> {
  const space = plant.spaces[index]!;
  if (space.drain === 'blocked') return;
  const level = space.drain === 'free' ? space.level : (Math.max(1, space.level) as 1 | 2);
  const after: SpaceState = { ...space, level };
  const rose = space.gauge === 'true';
  const needle = needleOf(after, rose || space.sawUp);
  const becomes = withSpace(plant, index, { level, sawUp: rose || space.sawUp, shownThen: shown(after) });
  yield* format(`${step} air let in`, { step, confirmed: true, answer: 'let-in', ...needle }, becomes);
}

function needleOf(space: SpaceState, wasUp: boolean): { needle: Needle; pressureBar?: number } {
  if (shown(space) > 0) return { needle: 'off', pressureBar: 4 * shown(space) };
  return { needle: wasUp ? 'fell' : 'stood' };
}

/** What is seen at a second look, or after a pause: something comes, a needle has moved, or neither. */
function* looking(model: Model, node: Node, { by }: Person, format: Recorder): Generator<Move> {
  const { plant } = node;
  const hasMoved = plant.spaces.some(
    (space) => flows(space) || (space.shownThen !== null && shown(space) > space.shownThen),
  );
  const answer = hasMoved ? 'is-fed' : 'holds';
  yield* format(`second look: ${answer}`, { step: 'second-look', confirmed: true, answer });
  if (isAsItWas(node, model, by)) yield* format('still', { step: 'still', confirmed: true, answer: 'holds' });
}

function* starting(model: Model, node: Node, person: Person): Generator<Move> {
  if (!node.plant.locks.includes(person.by)) return;
  if (restartProblem(node.fold, person.by) !== null) return;
  const { plant, fold, now } = node;
  const body = { kind: 'restart', steps: [] };
  const event = { id: '', doneAt: now, ...person, body };
  const shut = { isOpen: false, sawUp: false, shownThen: null, secondIsOpen: false };
  const spaces = plant.spaces.map((space) => ({ ...space, ...shut }));
  const becomes = {
    ...plant,
    locks: plant.locks.filter((one) => one !== person.by),
    spaces,
    valveIsOpen: true,
  };
  yield {
    name: `${person.by}: started again`,
    isHonest: true,
    to: () => ({ ...node, plant: becomes, fold: addEvent(model.guarded, fold, event), isIdle: false }),
  };
}

function recordMove(
  { guarded }: Model,
  node: Node,
  person: Person,
  name: string,
  body: IsolateBody,
  becomes: Plant,
): Move[] {
  const event = { id: '', doneAt: node.now, ...person, body };
  const isRefused = reasonAgainst(guarded, node.fold, event) !== null;
  const done = isRefused ? unnoted(node.plant, becomes) : becomes;
  if (isRefused && done === null) return [];
  return [
    {
      name: isRefused ? `${name} (refused)` : name,
      isHonest: true,
      to: () => ({
        ...node,
        plant: done ?? node.plant,
        // What the guard refuses may have been done all the same.
        fold: isRefused ? node.fold : addEvent(guarded, node.fold, event),
        isIdle: false,
      }),
    },
  ];
}

/** What was done though nobody took it down; null where it was only said. */
function unnoted(before: Plant, after: Plant): Plant | null {
  if (after === before) return null;
  const spaces = after.spaces.map((space, index) => ({
    ...space,
    shownThen: before.spaces[index]!.shownThen,
  }));
  const isSame =
    after.valveIsOpen === before.valveIsOpen &&
    after.locks === before.locks &&
    spaces.every((space, index) => isSameSpace(space, before.spaces[index]!));
  return isSame ? null : { ...after, spaces };
}

function isSameSpace(a: SpaceState, b: SpaceState): boolean {
  return (Object.keys(a) as (keyof SpaceState)[]).every((key) => a[key] === b[key]);
}

/** Who would be let to open it now. */
export function admittedAt(model: Model, node: Node): readonly string[] {
  const { guarded, opens } = model;
  const { fold, now } = node;
  return peopleOf(model, node.session).flatMap((person) =>
    missingFor(guarded, fold, opens, { at: now, ...person }).length === 0 ? [person.by] : [],
  );
}

/** Whether what somebody would open holds more than 0.1 bar, or can be started on them. */
export function isDangerousFor({ plant }: Node, by: string): boolean {
  return plant.spaces.some(({ level }) => level > 0) || !plant.locks.includes(by);
}
