import { admittedAt, isDangerousFor, moves, peopleOf, type Model, type Node } from './moves.js';

const MINUTE = 60_000;

/** What a search through everything that can happen has found. */
export interface Found {
  readonly states: number;
  readonly transitions: number;
  /** States in which somebody is let to open it. */
  readonly admitting: number;
  /** The shortest course to an opening under pressure; null where there is none. */
  readonly counterexample: readonly string[] | null;
  /** States of sound instruments from which no honest course leads to an opening. */
  readonly jailed: number;
  /** One of them, as the course that leads there; null where there is none. */
  readonly jail: readonly string[] | null;
  /** Whether the bound on states ended it early. */
  readonly isCut: boolean;
}

/** Two nodes of one key go on alike: moments count only by how long ago, and by what came before what. */
export function keyOf(model: Model, node: Node): string {
  const { plant, session, faultsLeft, isIdle } = node;
  const spaces = plant.spaces
    .map((one) =>
      [
        one.level,
        one.drain[0],
        +one.isOpen,
        one.gauge[0],
        +one.sawUp,
        one.shownThen ?? '-',
        +one.secondIsOpen,
        +one.secondIsBlocked,
      ].join(''),
    )
    .join(' ');
  const flags = [plant.valveIsOpen, plant.valvePasses, plant.checkLeaks, plant.checkSticks, isIdle]
    .map(Number)
    .join('');
  return `${spaces}|${flags}${plant.locks.join('')}${session}${faultsLeft}|${foldKey(model, node)}`;
}

/**
 * What of the guard's memory can still matter. Of when and by whom something was said only this: whether each
 * person has seen it without a pause since; a look after the pause makes all of it seen, the next pause none.
 */
function foldKey(model: Model, { fold, now, session }: Node): string {
  const pause = (model.guarded.pauseMinutes ?? 20) * MINUTE;
  const people = peopleOf(model, session).map((person) => ({
    ...person,
    here: fold.presence.get(`${person.by} ${person.session}`),
  }));
  const age = (at: number) => Math.min(2, Math.floor((now - at) / MINUTE / 2));
  const idle = (at: number) => (now - at > pause ? 'x' : String(Math.floor((now - at) / MINUTE)));
  const given = ({ at, by, session: page }: Given) =>
    people
      .map((person) => {
        const { since = Infinity, still = null } = person.here ?? {};
        const isOwn = by === person.by && page === person.session;
        // Without a rule the other matters by itself.
        return (still ?? -Infinity) >= at ? 's' : `${isOwn ? 'o' : '-'}${at >= since ? 'l' : '-'}`;
      })
      .join('');
  const sorted = <Value>(entries: ReadonlyMap<string, Value>, format: (value: Value) => string) =>
    [...entries]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, value]) => `${key}:${format(value)}`)
      .join(',');
  return [
    sorted(fold.locks, given),
    sorted(fold.held, given),
    sorted(fold.vents, (vent) =>
      [
        given(vent),
        people.length > 1 ? vent.openedBy : '',
        +vent.hasPassed,
        vent.against ?? '',
        [...vent.signs].sort().join('+'),
        vent.silentAt === null ? `-${+(now > vent.openedAt)}${age(vent.openedAt)}` : age(vent.silentAt),
      ].join('.'),
    ),
    fold.look ? `${given(fold.look)}${[...fold.look.covers].sort().join('+')}` : '',
    people.map(({ here }) => (here ? idle(here.last) : '-')).join(','),
    fold.last === null || idle(fold.last) !== 'x' ? '' : dayKey(fold.last, now),
  ].join(';');
}

function dayKey(last: number, now: number): string {
  return Math.floor(last / 86_400_000) === Math.floor(now / 86_400_000) ? 'd' : 'n';
}

interface Given {
  readonly at: number;
  readonly by: string;
  readonly session: string;
}

interface Reached {
  readonly node: Node;
  readonly from: number;
  readonly by: string;
}

/**
 * Breadth first through everything that can happen, with the guard’s own functions: whether anybody is ever let
 * to open what holds pressure, and whether an honest course always leads on.
 */
export function search(
  model: Model,
  starts: readonly Node[],
  { mostStates = 3_000_000, looksForJail = false }: { mostStates?: number; looksForJail?: boolean } = {},
): Found {
  const reached: Reached[] = [];
  const known = new Map<string, number>();
  const back: number[][] = [];
  const admitting: number[] = [];
  let transitions = 0;
  const course = (index: number): string[] => {
    const names: string[] = [];
    for (let at = index; at >= 0; at = reached[at]!.from) names.unshift(reached[at]!.by);
    return names.slice(1);
  };
  const visit = (node: Node, from: number, by: string): number => {
    const key = keyOf(model, node);
    const before = known.get(key);
    if (before !== undefined) return before;
    known.set(key, reached.length);
    reached.push({ node, from, by });
    return reached.length - 1;
  };
  starts.forEach((node) => visit(node, -1, ''));
  const end = (more: Partial<Found>): Found => ({
    states: reached.length,
    transitions,
    admitting: admitting.length,
    counterexample: null,
    jailed: 0,
    jail: null,
    isCut: false,
    ...more,
  });
  for (let index = 0; index < reached.length; index += 1) {
    if (reached.length > mostStates) return end({ isCut: true });
    const { node } = reached[index]!;
    const who = admittedAt(model, node);
    if (who.length > 0) {
      admitting.push(index);
      const inDanger = who.find((by) => isDangerousFor(node, by));
      if (inDanger !== undefined) return end({ counterexample: [...course(index), `${inDanger}: opens it`] });
    }
    for (const move of moves(model, node)) {
      transitions += 1;
      const to = visit(move.to(), index, move.name);
      if (looksForJail && move.isHonest) (back[to] ??= []).push(index);
    }
  }
  if (!looksForJail) return end({});
  const free = new Set(admitting);
  const queue = [...admitting];
  for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
    for (const from of back[next] ?? []) {
      if (!free.has(from)) {
        free.add(from);
        queue.push(from);
      }
    }
  }
  const jailed = reached.findIndex((_, index) => !free.has(index));
  return end({ jailed: reached.length - free.size, jail: jailed < 0 ? null : course(jailed) });
}
