import fc from 'fast-check';
import type { DataPlate } from '../machine/index.js';
import { defaultPlan, type TaskState } from '../plan/index.js';
import {
  admitStep,
  beforeReadings,
  countedTasks,
  isolationFor,
  isolationSteps,
  LIVE_MS,
  prepare,
  progressOf,
  proofsOf,
  restartSteps,
  sayInterruption,
  namesOn,
  stepText,
  stepsNeededFor,
  summaryOf,
  worthPlanning,
  type StepBody,
  type VisitStep,
  type VisitUnit,
} from './index.js';

const MINUTE = 60_000;
const START = Date.UTC(2026, 10, 24, 9);

const screw: DataPlate = {
  siteId: 's',
  tag: 'HC-1',
  family: 'screw',
  commissionedOn: '2024-01-01',
  history: 'new',
  motor: 'three-phase',
};
const highPressure: DataPlate = {
  ...screw,
  tag: 'SP-1',
  family: 'high-pressure',
  stages: 3,
  airUse: 'breathing',
};
const oilFree: DataPlate = { ...screw, tag: 'LD-1', family: 'piston-oil-free', motor: 'single-phase' };

function unitOf(plate: DataPlate, planned: string[]): VisitUnit {
  return { plate, plan: defaultPlan(plate, {}).tasks, planned };
}

let count = 0;
function step(minute: number, body: StepBody, more: Partial<VisitStep> = {}): VisitStep {
  return {
    id: `step-${++count}`,
    doneAt: START + minute * MINUTE,
    by: 'mara',
    session: 'one',
    body,
    ...more,
  };
}

function isolated(plate: DataPlate, minute: number, more: Partial<VisitStep> = {}): VisitStep[] {
  return isolationSteps(plate).map(({ code, reads }) =>
    step(
      minute,
      { kind: 'isolate', step: code, confirmed: true, ...(reads ? { pressureBar: 0 } : {}) },
      more,
    ),
  );
}

function restart(plate: DataPlate, minute: number): VisitStep {
  return step(minute, { kind: 'restart', steps: restartSteps(plate).map(({ code }) => code) });
}

const done = (task: string): StepBody => ({ kind: 'task', task, outcome: 'done' });
const asking = (minute: number, more = {}) => ({
  at: START + minute * MINUTE,
  by: 'mara',
  session: 'one',
  ...more,
});

describe('isolating', () => {
  test('each machine has the steps of its drive, its family and its cooling', () => {
    const codes = (more: Partial<DataPlate>) => isolationSteps({ ...screw, ...more }).map(({ code }) => code);
    expect(codes({})).toEqual(['lock-out', 'close-network', 'open-drains', 'gauge-zero', 'cool']);
    expect(codes({ family: 'high-pressure' })).toContain('close-storage');
    expect(codes({ family: 'piston', cooling: 'water' })).toContain('shut-water');
    expect(isolationSteps({ ...screw, motor: 'petrol' })[0]!.name).toMatch(/spark lead/);
    expect(isolationSteps({ ...screw, motor: 'diesel' })[0]!.name).toMatch(/battery/);
  });

  test('what is only stopped needs its lock, what runs needs nothing', () => {
    expect(stepsNeededFor('running', screw)).toEqual([]);
    expect(stepsNeededFor('stopped', screw)).toEqual(['lock-out']);
    expect(stepsNeededFor('stopped-under-pressure', screw)).toEqual(['lock-out']);
    expect(stepsNeededFor('isolated-and-vented', screw)).toHaveLength(5);
  });

  test('a gauge that shows something stands only with zero proved otherwise', () => {
    const zero = (more: object) =>
      isolationFor([step(0, { kind: 'isolate', step: 'gauge-zero', confirmed: true, ...more })], asking(1))
        .confirmed;
    expect(zero({ pressureBar: 0 })).toContain('gauge-zero');
    expect(zero({ pressureBar: 0.4 })).not.toContain('gauge-zero');
    expect(zero({})).not.toContain('gauge-zero');
    expect(zero({ pressureBar: 0.4, provedBy: 'drain open, nothing comes' })).toContain('gauge-zero');
  });

  test('it holds while nobody is away for longer than the limit', () => {
    const steps = isolated(screw, 0);
    expect(isolationFor(steps, asking(20)).confirmed.size).toBe(5);
    const late = isolationFor(steps, asking(25));
    expect(late.confirmed.size).toBe(0);
    expect(sayInterruption(late.interrupted!, String)).toBe(
      'You were away 25 min. Is it still locked out and at zero?',
    );
    // Something done in between shows that one was there.
    const busy = [...steps, step(15, { kind: 'note', text: 'screws are tight' })];
    expect(isolationFor(busy, asking(34)).confirmed.size).toBe(5);
    // An absence that is over by now has been one all the same.
    const back = [...steps, step(30, { kind: 'note', text: 'back from the telephone' })];
    expect(isolationFor(back, asking(31))).toMatchObject({ interrupted: { why: 'away', minutes: 30 } });
  });

  test('a reload and another person ask again; power coming back ends it for all', () => {
    const steps = isolated(screw, 0);
    expect(isolationFor(steps, asking(5, { session: 'two' })).interrupted).toEqual({ why: 'reload' });
    const other = isolationFor(steps, asking(5, { by: 'jon', session: 'two' }));
    expect(other.confirmed.size).toBe(0);
    expect(other.interrupted).toEqual({ why: 'person', by: 'mara' });
    const started = [...steps, restart(screw, 6)];
    expect(isolationFor(started, asking(7)).interrupted).toEqual({ why: 'restarted' });
    // Each under their own lock: a colleague who isolates too takes nothing from the first.
    const both = [...steps, ...isolated(screw, 3, { by: 'jon', session: 'two' })];
    expect(isolationFor(both, asking(5)).confirmed.size).toBe(5);
    // Pressure that one finds is there for everybody.
    const found = step(
      4,
      { kind: 'isolate', step: 'gauge-zero', confirmed: true, pressureBar: 2 },
      { by: 'jon', session: 'two' },
    );
    expect(isolationFor([...both, found], asking(5)).confirmed).not.toContain('gauge-zero');
  });
});

describe('work that opens the machine', () => {
  const unit = unitOf(screw, ['oil-change', 'bearing-check']);

  test('is refused while it is not isolated, told as it happens', () => {
    const now = step(1, done('oil-change'));
    const refused = admitStep(unit, isolated(screw, 0).slice(0, 3), now, now.doneAt);
    expect(refused).toMatchObject({ ok: false, problem: { code: 'not-isolated' } });
    expect(!refused.ok && refused.problem.sentence).toBe(
      'The machine is not isolated for that. Still to do: Gauge at zero, Cool enough to touch.',
    );
    expect(admitStep(unit, isolated(screw, 0), now, now.doneAt)).toEqual({ ok: true, value: [] });
    expect(admitStep(unit, [], step(1, done('bearing-check')), START + MINUTE)).toEqual({
      ok: true,
      value: [],
    });
  });

  test('told later it has happened: it is taken, and marked where the isolation was stale', () => {
    const old = step(40, done('oil-change'));
    const later = old.doneAt + LIVE_MS + 1;
    expect(admitStep(unit, isolated(screw, 0), old, later)).toEqual({
      ok: true,
      value: ['isolation-not-confirmed'],
    });
    expect(admitStep(unit, isolated(screw, 30), old, later)).toEqual({ ok: true, value: [] });
  });

  test('a whole station as expected is held to the same', () => {
    const body: StepBody = { kind: 'station', station: 'separator', tasks: ['scavenge-clean'] };
    expect(admitStep(unit, [], step(1, body), START + MINUTE)).toMatchObject({
      problem: { code: 'not-isolated' },
    });
  });

  test('power comes back only when everything before it was gone through', () => {
    const rash = step(5, { kind: 'restart', steps: ['clear'] });
    expect(admitStep(unit, isolated(screw, 0), rash, rash.doneAt)).toMatchObject({
      problem: { code: 'not-ready' },
    });
  });

  test('a task of no plan and a step of no isolation are refused', () => {
    expect(admitStep(unit, [], step(1, done('paint-it')), START)).toMatchObject({
      problem: { code: 'unknown-task' },
    });
    const strange: StepBody = { kind: 'isolate', step: 'pray', confirmed: true };
    expect(admitStep(unit, [], step(1, strange), START)).toMatchObject({ ok: false });
  });
});

describe('proving', () => {
  const proofs = (plate: DataPlate, code: string) =>
    proofsOf(
      defaultPlan(plate, {}).tasks.find((task) => task.code === code)!,
      plate,
    );

  test('what is opened is looked at under pressure, what should change is measured', () => {
    expect(proofs(screw, 'separator-replace')).toEqual([
      { kind: 'tight' },
      { kind: 'check', anyOf: ['separator-drop', 'discharge-temperature'] },
    ]);
    expect(proofs(oilFree, 'ring-kit')).toEqual([
      { kind: 'tight' },
      { kind: 'check', anyOf: ['pump-up', 'highest-pressure'] },
    ]);
    expect(proofs(highPressure, 'cartridge-replace')).toEqual([
      { kind: 'tight' },
      { kind: 'check', anyOf: ['cartridge-weight'] },
    ]);
    expect(proofs(screw, 'valves-inspect')).toEqual([
      { kind: 'tight' },
      { kind: 'check', anyOf: ['discharge-temperature'] },
    ]);
    expect(proofs(screw, 'belt-check')).toEqual([]);
    expect(proofs(screw, 'intake-replace')).toEqual([]);
    expect(beforeReadings([{ code: 'separator-replace' }, { code: 'oil-change' }], screw)).toEqual([
      'separator-drop',
      'discharge-temperature',
    ]);
  });

  const unit = unitOf(screw, ['oil-change']);
  const measured = (minute: number, verdict: 'good' | 'act'): VisitStep =>
    step(minute, {
      kind: 'measure',
      phase: 'proof',
      check: 'discharge-temperature',
      values: {},
      verdict,
      reason: `${verdict}!`,
    });
  const tight = (minute: number, isTight: boolean) => step(minute, { kind: 'tight', tight: isTight });
  const opened = [...isolated(screw, 0), step(10, done('oil-change')), restart(screw, 20)];

  test('missing, failed, passed: only the last word after the work counts', () => {
    const proof = (...steps: VisitStep[]) => progressOf(unit, steps).tasks[0]!.proof;
    expect(proof(...opened)).toBe('missing');
    expect(proof(...opened, tight(22, true))).toBe('missing');
    expect(proof(...opened, tight(22, true), measured(30, 'act'))).toBe('failed');
    expect(proof(...opened, tight(22, false), measured(30, 'good'))).toBe('failed');
    expect(proof(...opened, tight(22, true), measured(30, 'act'), measured(35, 'good'))).toBe('passed');
    // What was measured before the work proves nothing.
    expect(proof(measured(5, 'good'), tight(6, true), ...opened)).toBe('missing');
  });

  test('it stays open, and says so, until it is proved or closed with a reason', () => {
    const failed = [...opened, tight(22, true), measured(30, 'act')];
    const progress = progressOf(unit, failed);
    expect(countedTasks(progress)).toEqual([]);
    expect(progress.obstacles.map(({ code }) => code)).toEqual(['proof-failed']);
    const sign = step(40, { kind: 'sign', name: 'Mara' });
    expect(admitStep(unit, failed, sign, sign.doneAt)).toMatchObject({
      problem: { code: 'proof-failed', sentence: expect.stringMatching(/^The proof failed: Oil change/) },
    });
    const closed = [
      ...failed,
      step(38, { kind: 'close', task: 'oil-change', reason: 'Cooler to be cleaned next week.' }),
    ];
    expect(admitStep(unit, closed, sign, sign.doneAt)).toEqual({ ok: true, value: [] });
    expect(countedTasks(progressOf(unit, closed))).toHaveLength(1);
    expect(summaryOf(unit, progressOf(unit, closed)).map(({ sentence }) => sentence)).toContain(
      'Closed without its proof: Oil change. Cooler to be cleaned next week.',
    );
  });

  test('an open task, one not done without a reason, and a machine left standing hold up signing', () => {
    const codes = (...steps: VisitStep[]) => progressOf(unit, steps).obstacles.map(({ code }) => code);
    expect(codes()).toEqual(['unanswered']);
    expect(codes(step(1, { kind: 'task', task: 'oil-change', outcome: 'not-done' }))).toEqual(['no-reason']);
    expect(
      codes(step(1, { kind: 'task', task: 'oil-change', outcome: 'not-done', reason: 'no oil' })),
    ).toEqual([]);
    expect(codes(...isolated(screw, 0), step(10, done('oil-change')))).toEqual(['not-restarted', 'unproved']);
  });

  test('signed, nothing more is taken as it happens; what comes later opens it again', () => {
    const all = [...opened, tight(22, true), measured(30, 'good')];
    const signed = [...all, step(40, { kind: 'sign', name: 'Mara' })];
    expect(progressOf(unit, signed).signed).toMatchObject({ name: 'Mara' });
    const more = step(41, { kind: 'task', task: 'bearing-check', outcome: 'done' });
    expect(admitStep(unit, signed, more, more.doneAt)).toMatchObject({ problem: { code: 'already-signed' } });
    const again = step(42, { kind: 'sign', name: 'Jon' }, { by: 'jon' });
    expect(admitStep(unit, signed, again, again.doneAt + 10 * LIVE_MS)).toMatchObject({ ok: false });
    expect(admitStep(unit, signed, more, more.doneAt + LIVE_MS + 1)).toEqual({
      ok: true,
      value: ['after-signing'],
    });
    expect(progressOf(unit, [...signed, more]).signed).toBeNull();
    const note = step(43, { kind: 'note', text: 'The key is at the gate.' });
    expect(admitStep(unit, signed, note, note.doneAt)).toEqual({ ok: true, value: [] });
  });
});

test('a part said by mistake is taken back', () => {
  const part = (count: number) => step(1, { kind: 'part', name: 'oil filter', count });
  const used = (...steps: VisitStep[]) =>
    progressOf(unitOf(screw, []), steps).parts.map(({ count }) => count);
  expect(used(part(1), part(1))).toEqual([2]);
  expect(used(part(1), part(-1))).toEqual([]);
});

test('the work is ordered so that a machine is stopped, opened and started once', () => {
  const plan = defaultPlan(screw, {}).tasks;
  const chosen = plan.filter(({ code }) =>
    [
      'oil-change',
      'oil-filter',
      'separator-replace',
      'bearing-check',
      'intake-replace',
      'cooling-clean',
    ].includes(code),
  );
  const { work, kit, minutes } = prepare(chosen, screw);
  expect(work.map(({ isolation, station }) => `${isolation} ${station}`)).toEqual([
    'running airend',
    'stopped intake',
    'stopped cooling',
    'isolated-and-vented separator',
    'isolated-and-vented oil',
    'isolated-and-vented oil-filter',
  ]);
  // The oil filter goes with the oil: it is packed once.
  expect(kit.find(({ part }) => part === 'oil filter')).toEqual({ part: 'oil filter', count: 1 });
  expect(minutes).toBe(60 + 20 + 60 + 15 + 15 + 20);
});

test.each<[StepBody, string]>([
  [
    { kind: 'isolate', step: 'gauge-zero', confirmed: true, pressureBar: 0 },
    'Isolated: Gauge at zero, 0 bar',
  ],
  [
    { kind: 'isolate', step: 'lock-out', confirmed: false },
    'Isolation taken back: Stop, switch off, lock out',
  ],
  [
    { kind: 'task', task: 'oil-change', outcome: 'not-done', reason: 'no oil' },
    'Not done: Oil change. no oil',
  ],
  [
    { kind: 'station', station: 'airend', tasks: ['bearing-check'] },
    'All as expected: Bearings and coolant condition',
  ],
  [{ kind: 'part', name: 'oil filter', count: -1 }, 'Not used after all: 1 × oil filter'],
  [{ kind: 'tight', tight: false, words: 'at the lid' }, 'It leaks: at the lid'],
  [{ kind: 'close', task: 'oil-change', reason: 'hot hall' }, 'Closed without proof: Oil change. hot hall'],
  [{ kind: 'sign', name: 'Mara' }, 'Signed for by Mara'],
])('%j is said in a line', (body, said) =>
  expect(stepText(body, namesOn(screw, defaultPlan(screw).tasks))).toBe(said),
);

test('what is worth planning: due and nearing, not what a bigger task covers, nor dates of vessels', () => {
  const standing = (code: string, state: TaskState, more: object = {}) => ({
    code,
    state,
    coveredBy: null,
    vessel: null,
    ...more,
  });
  expect(
    worthPlanning([
      standing('a', 'overdue'),
      standing('b', 'nearing'),
      standing('c', 'fresh'),
      standing('d', 'put-off'),
      standing('e', 'due', { coveredBy: 'a' }),
      standing('f', 'due', { vessel: { id: 'v', tag: 'R-1', kind: 'receiver' } }),
    ]),
  ).toEqual(['a', 'b']);
});

/**
 * Two people with a page each, who isolate, work, go away, reload, start the machine and come back, connected.
 * Whether an opening step may stand is found here by going backwards through what happened, in another way
 * than the code does.
 */
describe('whatever happens', () => {
  type Deed =
    | { do: 'wait'; minutes: number }
    | { do: 'reload'; who: 0 | 1 }
    | { do: 'isolate'; who: 0 | 1; which: number; bar: number }
    | { do: 'undo'; who: 0 | 1; which: number }
    | { do: 'isolate-all'; who: 0 | 1 }
    | { do: 'open'; who: 0 | 1 }
    | { do: 'note'; who: 0 | 1 }
    | { do: 'restart'; who: 0 | 1 };
  const who = fc.constantFrom(0 as const, 1 as const);
  const deed: fc.Arbitrary<Deed> = fc.oneof(
    fc.record({ do: fc.constant('wait' as const), minutes: fc.integer({ min: 1, max: 30 }) }),
    fc.record({ do: fc.constant('reload' as const), who }),
    fc.record({
      do: fc.constant('isolate' as const),
      who,
      which: fc.nat(4),
      bar: fc.constantFrom(0, 0, 0, 1.5),
    }),
    fc.record({ do: fc.constant('undo' as const), who, which: fc.nat(4) }),
    { weight: 3, arbitrary: fc.record({ do: fc.constant('isolate-all' as const), who }) },
    { weight: 4, arbitrary: fc.record({ do: fc.constant('open' as const), who }) },
    fc.record({ do: fc.constant('note' as const), who }),
    fc.record({ do: fc.constant('restart' as const), who }),
  );
  const codes = isolationSteps(screw).map(({ code }) => code);
  const unit = unitOf(screw, ['oil-change']);

  /** Going backwards from a moment: is each step confirmed by this page with nothing in between that ends it? */
  function heldBefore(taken: readonly VisitStep[], now: number, by: string, session: string): boolean {
    return codes.every((code) => {
      let next = now;
      for (const past of [...taken].reverse()) {
        const own = past.by === by && past.session === session;
        if (own && next - past.doneAt > 20 * MINUTE) return false;
        if (own) next = past.doneAt;
        const { body } = past;
        if (body.kind === 'restart') return false;
        if (body.kind !== 'isolate' || body.step !== code) continue;
        const says = body.confirmed && (code !== 'gauge-zero' || body.pressureBar === 0);
        if (!says) return false;
        if (own) return true;
      }
      return false;
    });
  }

  test('no opening step is taken on stale isolation, none that holds is refused, and nothing taken is lost', () => {
    let opened = 0;
    let refused = 0;
    fc.assert(
      fc.property(fc.array(deed, { minLength: 5, maxLength: 60 }), (deeds) => {
        let now = START;
        const sessions = ['a0', 'b0'];
        const people = ['mara', 'jon'];
        const taken: VisitStep[] = [];
        let notes = 0;
        const post = (which: 0 | 1, body: StepBody): boolean => {
          now += 1000;
          const told = step(0, body, { doneAt: now, by: people[which]!, session: sessions[which]! });
          const outcome = admitStep(unit, taken, told, now);
          if (outcome.ok) taken.push({ ...told, marks: outcome.value });
          return outcome.ok;
        };
        for (const one of deeds) {
          if (one.do === 'wait') now += one.minutes * MINUTE;
          else if (one.do === 'reload') sessions[one.who] = `${sessions[one.who]}x`;
          else if (one.do === 'isolate')
            post(one.who, {
              kind: 'isolate',
              step: codes[one.which]!,
              confirmed: true,
              pressureBar: one.bar,
            });
          else if (one.do === 'undo')
            post(one.who, { kind: 'isolate', step: codes[one.which]!, confirmed: false });
          else if (one.do === 'isolate-all')
            codes.forEach((code) =>
              post(one.who, { kind: 'isolate', step: code, confirmed: true, pressureBar: 0 }),
            );
          else if (one.do === 'note') notes += Number(post(one.who, { kind: 'note', text: 'seen' }));
          else if (one.do === 'restart')
            post(one.who, { kind: 'restart', steps: restartSteps(screw).map(({ code }) => code) });
          else {
            const expected = heldBefore(taken, now + 1000, people[one.who]!, sessions[one.who]!);
            const was = post(one.who, done('oil-change'));
            if (was) opened += 1;
            else refused += 1;
            if (was !== expected) return false;
          }
        }
        const progress = progressOf(unit, taken);
        return progress.notes.length === notes && progress.isolationNotConfirmed.length === 0;
      }),
      { numRuns: 400, seed: 20261125 },
    );
    // It was put to the test both ways.
    expect(opened).toBeGreaterThan(100);
    expect(refused).toBeGreaterThan(100);
  });

  test('in whatever order things become known, they come to the same', () => {
    const steps = [
      ...isolated(screw, 0),
      step(10, done('oil-change')),
      step(11, { kind: 'part', name: 'oil filter', count: 1 }),
      restart(screw, 20),
      step(25, { kind: 'tight', tight: true }),
      step(26, { kind: 'note', text: 'seal weeps a little' }),
      step(30, {
        kind: 'measure',
        phase: 'proof',
        check: 'discharge-temperature',
        values: {},
        verdict: 'good',
      }),
    ];
    // Steps of one minute keep their order: they are told together.
    const times = steps.map((one, index) => ({ ...one, doneAt: one.doneAt + index }));
    const whole = progressOf(unit, times);
    fc.assert(
      fc.property(
        fc.shuffledSubarray(times, { minLength: times.length, maxLength: times.length }),
        (mixed) => {
          expect(progressOf(unit, mixed)).toEqual(whole);
        },
      ),
      { numRuns: 60, seed: 7 },
    );
    expect(whole.obstacles).toEqual([]);
  });
});
