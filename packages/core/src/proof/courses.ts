import { admittedAt, isDangerousFor, moves, type Model, type Move, type Node } from './moves.js';
import type { Level, Plant } from './plant.js';

/** A machine with real pressures: what the levels of the search stand for. */
export interface Physics {
  readonly bar: number;
  /** Where a half blocked vent falls silent, bar. */
  readonly halfAtBar: number;
  /** What the machine, an open valve and a passing valve bring, bar a minute. */
  readonly runBarMin: number;
  readonly valveBarMin: number;
  readonly leakBarMin: number;
  /** How fast a free vent lets it off, s. */
  readonly ventS: number;
}

/** No more than this is empty; up to there a half blocked vent may hold, bar. */
const [EMPTY_BAR, SOME_BAR] = [0.1, 1.5];
const SUPPLY_BAR = 10;
const STEP_S = 0.5;
/** After this long nothing changes any more. */
const LONGEST_S = 600;

/** Which level a pressure is. */
export function levelOf(bar: number): Level {
  if (bar <= EMPTY_BAR) return 0;
  return bar <= SOME_BAR ? 1 : 2;
}

/** A machine whose figures lie where those of real ones do. */
export function physicsOf(level: Level, random: () => number): Physics {
  const between = (least: number, most: number) => least + (most - least) * random();
  return {
    bar: level === 0 ? 0 : between(6, SUPPLY_BAR),
    halfAtBar: between(0.3, 0.85),
    runBarMin: between(1.8, 2.2),
    valveBarMin: between(3, 4),
    leakBarMin: between(0.85, 1),
    ventS: between(4, 5),
  };
}

/** The pressure after some time, by what is open, shut, blocked and locked. */
function flowed(physics: Physics, plant: Plant, seconds: number, stands: boolean): number {
  const space = plant.spaces[0]!;
  const isRunning = plant.locks.length === 0 && !stands;
  const isFree = (space.isOpen && space.drain === 'free') || (space.secondIsOpen && !space.secondIsBlocked);
  const holds = isFree ? 0 : space.isOpen && space.drain === 'half' ? physics.halfAtBar : Infinity;
  const fed =
    (isRunning ? physics.runBarMin : 0) +
    (plant.valveIsOpen ? physics.valveBarMin : plant.valvePasses ? physics.leakBarMin : 0);
  let { bar } = physics;
  if (fed === 0 && bar <= holds) return bar;
  for (let time = 0; time < Math.min(seconds, LONGEST_S); time += STEP_S) {
    const out = bar > holds ? ((bar - holds) / physics.ventS) * STEP_S : 0;
    bar = Math.min(SUPPLY_BAR, Math.max(0, bar + (fed / 60) * STEP_S - out));
  }
  return bar;
}

/** What air that is let in leaves behind: a half blocked vent holds some of it. */
function letIn(physics: Physics, plant: Plant): number {
  return plant.spaces[0]!.drain === 'half' ? Math.max(physics.bar, physics.halfAtBar) : physics.bar;
}

function movedBy(physics: Physics, move: Move, after: Plant): Physics {
  if (move.name.includes('air let in')) return { ...physics, bar: letIn(physics, after) };
  if (move.minutes === undefined) return physics;
  return { ...physics, bar: flowed(physics, after, move.minutes * 60, move.stands === true) };
}

/** What became of many random courses on machines with real pressures. */
export interface Walked {
  readonly courses: number;
  readonly steps: number;
  /** How often somebody was let to open it. */
  readonly admitted: number;
  /** The first course at whose end somebody was let to open more than 0.1 bar. */
  readonly unsafe: readonly string[] | null;
  /** The first course with a step that the search does not allow: its levels are not those of the machine. */
  readonly strange: readonly string[] | null;
}

/**
 * Random courses on machines with real pressures, each step held against the search: what it does to the pressure
 * must be what the search allows. Half begin where an honest isolation has come to its end.
 *
 * @param prefix an honest course by its moves, up to the opening
 */
export function walk(
  model: Model,
  starts: readonly Node[],
  prefix: readonly string[],
  { courses, steps, random }: { courses: number; steps: number; random: () => number },
): Walked {
  let [recorded, admitted] = [0, 0];
  const pick = <One>(from: readonly One[]): One => from[Math.floor(random() * from.length)]!;
  for (let course = 0; course < courses; course += 1) {
    const start = course % 2 === 0 ? pick(starts) : starts[0]!;
    let node = start;
    let physics = physicsOf(node.plant.spaces[0]!.level, random);
    const names: string[] = [];
    const end = (more: Partial<Walked>): Walked => ({
      courses: course + 1,
      steps: recorded,
      admitted,
      unsafe: null,
      strange: null,
      ...more,
    });
    // To the boundary of the search first: where one thing more may let somebody in.
    const given = course % 2 === 0 ? [] : prefix.slice(0, Math.ceil(random() * prefix.length));
    for (let step = 0; step < given.length + steps; step += 1) {
      const all = [...moves(model, node)];
      const asked = given[step];
      const move = asked === undefined ? pick(all) : all.find(({ name }) => name === asked);
      if (!move) break;
      node = move.to();
      physics = movedBy(physics, move, node.plant);
      names.push(move.name);
      recorded += 1;
      if (levelOf(physics.bar) !== node.plant.spaces[0]!.level)
        return end({ strange: [...names, `${physics.bar.toFixed(2)} bar`] });
      const who = admittedAt(model, node);
      if (who.length > 0) admitted += 1;
      const isUnsafe = physics.bar > EMPTY_BAR || who.some((by) => isDangerousFor(node, by));
      if (who.length > 0 && isUnsafe) return end({ unsafe: names });
    }
  }
  return { courses, steps: recorded, admitted, unsafe: null, strange: null };
}
