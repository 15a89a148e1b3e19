import { DAY_MS, HOUR_MS } from '../basics/index.js';
import type { DataPlate } from '../machine/index.js';
import { admitLook, followUpsOf, followUpText, isBelt, type OpeningWork, type SecondLook } from './index.js';

const plate: DataPlate = {
  siteId: 's',
  tag: 'T-1',
  family: 'piston',
  commissionedOn: '2024-01-01',
  history: 'new',
};
const opening = (days: number, opened: readonly string[], isNewBelt = false): OpeningWork => ({
  id: `w${days}`,
  at: days * DAY_MS,
  opened,
  isNewBelt,
});
/** Runs a quarter of the day. */
const asOf = (days: number, hours: ((at: number) => number | null) | null = null) => ({
  plate,
  now: days * DAY_MS,
  hoursSince: hours ?? ((at: number) => ((days * DAY_MS - at) / HOUR_MS) * 0.25),
});
const states = (work: readonly OpeningWork[], looks: readonly SecondLook[], days: number) =>
  followUpsOf(work, looks, asOf(days)).map(({ kind, state }) => `${kind} ${state}`);

describe('a joint that was opened', () => {
  const work = [opening(100, ['stages', 'oil'])];

  test('is looked at after three days, late after fourteen, and nobody is asked after ninety', () => {
    expect(states(work, [], 100)).toEqual(['joint coming']);
    expect(states(work, [], 102.99)).toEqual(['joint coming']);
    expect(states(work, [], 103)).toEqual(['joint due']);
    expect(states(work, [], 113.99)).toEqual(['joint due']);
    expect(states(work, [], 114)).toEqual(['joint late']);
    expect(states(work, [], 189.99)).toEqual(['joint late']);
    expect(states(work, [], 190)).toEqual([]);
  });

  test('is named as the machine’s own list names it, and the day from which it shows', () => {
    const [one] = followUpsOf(work, [], asOf(104));
    expect(one).toMatchObject({ since: 100 * DAY_MS, dueFrom: 103 * DAY_MS, hoursSince: null });
    expect(followUpText(one!)).toBe(
      'Oil plug, oil filter or strainer; Head, valves, coolers, unloader: dry and tight?',
    );
  });

  test('what was done from outside leaves nothing to weep; nor does work that lies ahead', () => {
    expect(states([opening(100, ['outside', 'belt']), opening(100, [])], [], 105)).toEqual([]);
    expect(states([opening(110, ['oil'])], [], 105)).toEqual([]);
    expect(states([opening(100, ['no-such-place'])], [], 105)).toEqual([]);
  });

  test('waits for what was opened first, and names all of it; a look answers everything before it', () => {
    const twice = [opening(107, ['receiver']), opening(100, ['oil'])];
    expect(followUpsOf(twice, [], asOf(110))).toMatchObject([
      { since: 100 * DAY_MS, what: ['Oil plug, oil filter or strainer', expect.stringMatching(/^Receiver/)] },
    ]);
    const between = [{ kind: 'joint', at: 106 * DAY_MS }] as const;
    expect(followUpsOf(twice, between, asOf(110))).toMatchObject([{ since: 107 * DAY_MS, state: 'due' }]);
    expect(states(twice, [{ kind: 'joint', at: 109 * DAY_MS }], 110)).toEqual([]);
    expect(states(twice, [{ kind: 'belt', at: 109 * DAY_MS }], 110)).toEqual(['joint due']);
  });

  test('a look within half a day has seen nothing yet', () => {
    const soon = [{ kind: 'joint', at: 100 * DAY_MS + 11.9 * HOUR_MS }] as const;
    expect(states(work, soon, 105)).toEqual(['joint due']);
    expect(states(work, [{ kind: 'joint', at: 100 * DAY_MS + 12 * HOUR_MS }], 105)).toEqual([]);
  });
});

describe('a new belt', () => {
  const work = [opening(100, ['belt'], true)];

  test('goes by run hours: 24 until it is looked at, 48 until it is late', () => {
    // Six hours a day: 24 h on the fourth day, 48 h on the eighth.
    expect(states(work, [], 103.9)).toEqual(['belt coming']);
    expect(states(work, [], 104)).toEqual(['belt due']);
    expect(states(work, [], 107.9)).toEqual(['belt due']);
    expect(states(work, [], 108)).toEqual(['belt late']);
    expect(followUpsOf(work, [], asOf(104))).toMatchObject([{ hoursSince: 24, dueFrom: null }]);
  });

  test('stands still with a machine that does; by days where nobody knows its hours', () => {
    expect(
      followUpsOf(
        work,
        [],
        asOf(150, () => 0),
      ),
    ).toMatchObject([{ state: 'coming' }]);
    const unknown = (days: number) =>
      followUpsOf(
        work,
        [],
        asOf(days, () => null),
      ).map(({ state }) => state);
    expect([unknown(106.9), unknown(107), unknown(121)]).toEqual([['coming'], ['due'], ['late']]);
  });

  test('a look before it ran says nothing; one after eight hours of running does', () => {
    const look = (days: number) => [{ kind: 'belt', at: days * DAY_MS }] as const;
    expect(states(work, look(101), 105)).toEqual(['belt due']);
    expect(states(work, look(101.4), 105)).toEqual([]);
  });

  test('is known by its name, and not by its guard', () => {
    expect(['V-belt A-1250', 'Belt set', 'drive belts'].map(isBelt)).toEqual([true, true, true]);
    expect(['Belt guard', 'Beltane cup', 'Oil filter'].map(isBelt)).toEqual([false, false, false]);
  });
});

describe('a look that is told', () => {
  const code = (kind: 'joint' | 'belt', at: number, work: readonly OpeningWork[]) => {
    const outcome = admitLook(kind, at * DAY_MS, work, plate);
    return outcome.ok ? null : [outcome.problem.code, outcome.problem.field];
  };

  test('is refused where nothing was opened, and where it comes too soon', () => {
    expect(code('joint', 105, [])).toEqual(['nothing-opened', 'lookedAt']);
    expect(code('joint', 105, [opening(106, ['oil'])])).toEqual(['nothing-opened', 'lookedAt']);
    expect(code('belt', 105, [opening(100, ['oil'])])).toEqual(['nothing-opened', 'lookedAt']);
    expect(code('joint', 100.1, [opening(100, ['oil'])])).toEqual(['too-soon', 'lookedAt']);
    expect(code('belt', 100.1, [opening(100, [], true)])).toEqual(['too-soon', 'lookedAt']);
    expect(code('joint', 100.5, [opening(100, ['oil'])])).toBeNull();
    expect(code('belt', 102, [opening(100, [], true)])).toBeNull();
  });
});
