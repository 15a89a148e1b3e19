import { NOTHING_ISOLATED, type GuardRule, guardRules } from '../isolation/index.js';
import type { DataPlate } from '../machine/index.js';
import { PAUSE_MINUTES, type Model, type Node } from './moves.js';
import { plantOf, withFault } from './plant.js';

const piston: DataPlate = {
  siteId: 's',
  tag: 'P',
  family: 'piston',
  commissionedOn: '2024-01-01',
  history: 'new',
  motor: 'three-phase',
  receiverL: 100,
  workingPressureBar: 10,
};

const rulesWithout = (without: readonly GuardRule[]) =>
  new Set(guardRules.filter((rule) => !without.includes(rule)));

/** A receiver on a network: one space, one valve. */
export function receiverModel(people: Model['people'], without: readonly GuardRule[] = []): Model {
  return {
    name: 'receiver on a network',
    guarded: { plate: piston, pauseMinutes: PAUSE_MINUTES, rules: rulesWithout(without) },
    opens: ['receiver'],
    vents: ['receiver'],
    valve: 'network',
    lookMinutes: 2,
    people,
  };
}

/** Receiver and head side, coupled by the check valve between them. */
export function coupledModel(people: Model['people'], without: readonly GuardRule[] = []): Model {
  return {
    ...receiverModel(people, without),
    name: 'receiver and head side',
    opens: ['check-valve'],
    vents: ['receiver', 'head-side'],
  };
}

/** An honest isolation of the receiver by its moves, up to its opening. */
export const honestMoves: readonly string[] = [
  'a: lock on',
  'a: valve shut',
  'a: receiver passes',
  '2 min pass',
  'a: receiver silent',
  '2 min pass',
  'a: second look: holds',
];

/** A morning: the machine in use, and one that stood empty; with a needle that tells nothing from the start, too. */
export function startsOf({ vents }: Model, faultsLeft: number, hasDeadGauge = false): readonly Node[] {
  return ([2, 0] as const).map((level) => ({
    plant: hasDeadGauge
      ? withFault(plantOf(vents.length, level), 'gauge-zero', 0)
      : plantOf(vents.length, level),
    fold: NOTHING_ISOLATED,
    now: Date.UTC(2026, 10, 24, 8),
    session: 'a1',
    faultsLeft,
    isIdle: false,
  }));
}
