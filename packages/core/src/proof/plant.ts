/** How full a space is: empty (no more than 0.1 bar), some, full. */
export type Level = 0 | 1 | 2;
/** `half`: it falls silent with pressure behind it. */
export type Drain = 'free' | 'half' | 'blocked';
export type Gauge = 'true' | 'zero' | 'high';

/** One space seen closely. */
export interface SpaceState {
  readonly level: Level;
  readonly drain: Drain;
  readonly isOpen: boolean;
  readonly gauge: Gauge;
  /** Whether its needle was seen above zero since the vent was opened. */
  readonly sawUp: boolean;
  /** What the needle showed when it was called silent. */
  readonly shownThen: Level | null;
  readonly secondIsOpen: boolean;
  readonly secondIsBlocked: boolean;
}

/** A machine as far as the guard can be deceived by it. Whoever has no lock on lets it run. */
export interface Plant {
  readonly spaces: readonly SpaceState[];
  readonly valveIsOpen: boolean;
  readonly valvePasses: boolean;
  readonly checkLeaks: boolean;
  readonly checkSticks: boolean;
  /** Who has a lock on. */
  readonly locks: readonly string[];
}

/** What can be wrong with it, one at a time. */
export const faults = [
  'drain-half',
  'drain-blocked',
  'gauge-zero',
  'gauge-high',
  'second-blocked',
  'valve-passes',
  'check-leaks',
  'check-sticks',
] as const;
export type Fault = (typeof faults)[number];

const sound: SpaceState = {
  level: 2,
  drain: 'free',
  isOpen: false,
  gauge: 'true',
  sawUp: false,
  shownThen: null,
  secondIsOpen: false,
  secondIsBlocked: false,
};

/** A sound machine in use, or one that has stood empty. */
export function plantOf(spaces: number, level: Level): Plant {
  return {
    spaces: Array.from({ length: spaces }, () => ({ ...sound, level })),
    valveIsOpen: true,
    valvePasses: false,
    checkLeaks: false,
    checkSticks: false,
    locks: [],
  };
}

export function withSpace(plant: Plant, index: number, change: Partial<SpaceState>): Plant {
  return { ...plant, spaces: plant.spaces.map((one, at) => (at === index ? { ...one, ...change } : one)) };
}

/** What its needle shows. */
export function shown({ gauge, level }: SpaceState): Level {
  return gauge === 'true' ? level : gauge === 'zero' ? 0 : 2;
}

/** Whether air is heard at its open vents. */
export function flows({ level, drain, isOpen, secondIsOpen, secondIsBlocked }: SpaceState): boolean {
  if (level === 0) return false;
  if (secondIsOpen && !secondIsBlocked) return true;
  return isOpen && (drain === 'free' || (drain === 'half' && level === 2));
}

/** The plant after a fault in one of its spaces; the same where it has that fault already. */
export function withFault(plant: Plant, fault: Fault, index: number): Plant {
  switch (fault) {
    case 'drain-half':
      return withSpace(plant, index, { drain: 'half' });
    case 'drain-blocked':
      return withSpace(plant, index, { drain: 'blocked' });
    case 'gauge-zero':
      return withSpace(plant, index, { gauge: 'zero' });
    case 'gauge-high':
      return withSpace(plant, index, { gauge: 'high' });
    case 'second-blocked':
      return withSpace(plant, index, { secondIsBlocked: true });
    case 'valve-passes':
      return { ...plant, valvePasses: true };
    case 'check-leaks':
      return { ...plant, checkLeaks: true };
    case 'check-sticks':
      return { ...plant, checkSticks: true };
  }
}

/**
 * The plant after a while: it rises where it is fed, falls through a vent that is open and free.
 *
 * @param stands whether the machine stands by itself just now, between two starts
 */
export function afterAWhile(plant: Plant, stands = false): Plant {
  let next = plant;
  for (let tick = 0; tick < 3; tick += 1) next = afterATick(next, stands);
  return next;
}

function afterATick(plant: Plant, stands: boolean): Plant {
  const [receiver, headSide] = plant.spaces;
  const isRunning = plant.locks.length === 0 && !stands;
  const spaces = [
    changed(receiver!, isRunning || plant.valveIsOpen, plant.valvePasses),
    ...(headSide ? [headAfter(headSide, receiver!, isRunning, plant)] : []),
  ];
  return { ...plant, spaces };
}

function headAfter(headSide: SpaceState, receiver: SpaceState, isRunning: boolean, plant: Plant): SpaceState {
  const next = changed(headSide, isRunning, plant.checkLeaks && receiver.level > 0);
  // Forward through the check valve, into a receiver that holds less.
  const falls = !isRunning && !plant.checkSticks && receiver.level < next.level;
  return falls ? { ...next, level: (next.level - 1) as Level } : next;
}

/** How its air gets out: a half blocked vent lets off what is more than it holds. */
function outletOf({ isOpen, drain, secondIsOpen, secondIsBlocked }: SpaceState): Drain {
  if ((isOpen && drain === 'free') || (secondIsOpen && !secondIsBlocked)) return 'free';
  return isOpen && drain === 'half' ? 'half' : 'blocked';
}

function changed(space: SpaceState, isFed: boolean, isFedALittle: boolean): SpaceState {
  return seen({ ...space, level: levelAfter(space.level, outletOf(space), isFed, isFedALittle) });
}

function levelAfter(level: Level, outlet: Drain, isFed: boolean, isFedALittle: boolean): Level {
  const up = Math.min(2, level + 1) as Level;
  if (isFed) return outlet === 'blocked' ? up : 1;
  if (outlet === 'free') return Math.max(0, level - 1) as Level;
  // A passing valve fills a half blocked vent's space no further than the vent holds.
  if (outlet === 'half') return level > 0 || isFedALittle ? 1 : 0;
  return isFedALittle ? up : level;
}

/** A needle that rises while somebody stands there was seen to do so. */
function seen(space: SpaceState): SpaceState {
  return space.isOpen && shown(space) > 0 ? { ...space, sawUp: true } : space;
}
