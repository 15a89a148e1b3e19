import { admitReturn, standingStops, stopText, type LastVerdict, type TakenOut } from './index.js';

const measured = (check: string, verdict: LastVerdict['verdict'], takenAt: number): LastVerdict => ({
  id: `${check}-${takenAt}`,
  check,
  verdict,
  takenAt,
  by: 'mira',
  reason: 'It does not open: do not run it.',
});
const taken: TakenOut = {
  id: 'out',
  since: 100,
  by: 'mira',
  scope: 'unit',
  place: null,
  ground: 'other',
  why: 'Waits for a part',
  toShow: null,
  informed: 'Shift leader',
};

describe('what stands against using a unit', () => {
  test('a stop that was measured stands until it is withdrawn, measured better, or decided', () => {
    const stops = standingStops([measured('relief-valve', 'stop', 50)], [], []);
    expect(stops).toMatchObject([{ scope: 'unit', ground: 'relief', check: 'relief-valve', since: 50 }]);
    expect(stops[0]!.why).toMatch(/does not open/);
    // The last of its check is given: a later good one ends it, and one that was withdrawn is not given at all.
    expect(standingStops([measured('relief-valve', 'good', 60)], [], [])).toEqual([]);
    expect(standingStops([], [], [])).toEqual([]);
    const back = { at: 70, by: 'jon', ends: 'relief-valve-50' };
    expect(standingStops([measured('relief-valve', 'stop', 50)], [], [back])).toEqual([]);
    // Coming back before it was measured says nothing of it.
    expect(
      standingStops([measured('relief-valve', 'stop', 80)], [], [{ ...back, ends: 'relief-valve-80' }]),
    ).toHaveLength(1);
  });

  test('a hose and a regulator stop what hangs on them; the inner ring of a tower its air; a pitted receiver is a vessel', () => {
    const scopes = ['hose', 'regulator', 'fill-hose', 'tower-ring', 'co-alarm', 'receiver-inside'].map(
      (check, index) => standingStops([measured(check, 'stop', index + 1)], [], [])[0]!,
    );
    expect(scopes.map(({ scope, ground }) => [scope, ground])).toEqual([
      ['point', 'finding'],
      ['point', 'finding'],
      ['unit', 'finding'],
      ['breathing', 'breathing-air'],
      ['breathing', 'breathing-air'],
      ['unit', 'vessel'],
    ]);
    const decided = admitReturn(scopes[5]!, { reason: 'It looks fine', decidedBy: 'Mira Kolden' });
    expect(decided.ok || decided.problem.code).toBe('no-reason-ends-it');
  });

  test('air to breathe is a scope of its own, and so is a bowl', () => {
    expect(
      standingStops([measured('co', 'stop', 1), measured('bowl', 'stop', 2)], [], []).map(
        ({ scope }) => scope,
      ),
    ).toEqual(['breathing', 'point']);
    // Where nobody breathes it, bad air stops the set itself.
    expect(standingStops([measured('co', 'stop', 1)], [], [], false)).toMatchObject([
      { scope: 'unit', ground: 'finding' },
    ]);
    expect(stopText({ scope: 'breathing', place: null })).toBe('Not for breathing');
    expect(stopText({ scope: 'side', place: '300 bar' })).toBe('Panel side out of service: 300 bar');
  });

  test('whoever takes it out is who stands for it until it comes back', () => {
    expect(standingStops([], [taken], [])).toHaveLength(1);
    expect(standingStops([], [taken], [{ at: 200, by: 'jon', ends: 'out' }])).toEqual([]);
    expect(standingStops([], [taken], [{ at: 200, by: 'jon', ends: 'other' }])).toHaveLength(1);
  });
});

describe('coming back', () => {
  const [relief] = standingStops([measured('relief-valve', 'stop', 50)], [], []);
  const [takenOut] = standingStops([], [taken], []);
  const code = (outcome: ReturnType<typeof admitReturn>) => (outcome.ok ? null : outcome.problem.code);

  test('by a later better verdict of the same check', () => {
    const shown = (check: string, verdict: LastVerdict['verdict'], takenAt: number) =>
      code(admitReturn(relief!, { shown: { check, verdict, takenAt } }));
    expect(shown('relief-valve', 'good', 60)).toBeNull();
    expect(shown('relief-valve', 'watch', 60)).toBeNull();
    expect(shown('relief-valve', 'act', 60)).toBe('not-better');
    expect(shown('relief-valve', 'good', 50)).toBe('not-later');
    expect(shown('oil-level', 'good', 60)).toBe('another-check');
  });

  test('by a decision with a name and a reason, except where no reason helps', () => {
    const decision = { reason: 'Part is in', decidedBy: 'Jon Velk' };
    expect(code(admitReturn(takenOut!, decision))).toBeNull();
    expect(code(admitReturn(takenOut!, { reason: 'Part is in' }))).toBe('missing');
    expect(code(admitReturn(takenOut!, { reason: '  ', decidedBy: 'Jon Velk' }))).toBe('missing');
    expect(code(admitReturn(takenOut!, {}))).toBe('missing');
    expect(code(admitReturn(relief!, decision))).toBe('no-reason-ends-it');
    for (const ground of ['vessel', 'breathing-air', 'relief'] as const)
      expect(code(admitReturn({ ...takenOut!, ground }, decision))).toBe('no-reason-ends-it');
  });

  test('a vessel by an examination that it passed since', () => {
    const vessel = { ...takenOut!, ground: 'vessel' as const };
    expect(code(admitReturn(vessel, { examinedAt: 150 }))).toBeNull();
    expect(code(admitReturn(vessel, { examinedAt: 90 }))).toBe('not-later');
    const good = { check: 'relief-valve', verdict: 'good' as const, takenAt: 150 };
    expect(code(admitReturn(vessel, { shown: good }))).toBe('another-check');
    expect(code(admitReturn({ ...takenOut!, ground: 'relief' }, { shown: good }))).toBeNull();
    expect(code(admitReturn(relief!, { examinedAt: 150 }))).toBe('another-check');
  });
});
