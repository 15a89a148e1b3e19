import fc from 'fast-check';
import type { DataPlate } from '../machine/index.js';
import { openingsOf } from '../isolation/index.js';
import { defaultPlan, type TaskState } from '../plan/index.js';
import { compressorOf, done, isolated, MINUTE, restart, screw, START, step } from './fixtures.js';
import {
  admitStep,
  beforeReadings,
  countedTasks,
  LIVE_MS,
  prepare,
  progressOf,
  verificationsOf,
  namesOn,
  stepText,
  opensOf,
  summaryOf,
  worthPlanning,
  type StepBody,
  type VisitStep,
  type LookFinding,
} from './index.js';

const highPressure: DataPlate = {
  ...screw,
  tag: 'SP-1',
  family: 'high-pressure',
  stages: 3,
  airUse: 'breathing',
};
const oilFree: DataPlate = { ...screw, tag: 'LD-1', family: 'piston-oil-free', motor: 'single-phase' };

test('what a task opens: by itself, by the default, or everything', () => {
  const task = (
    code: string,
    isolation: 'running' | 'stopped' | 'isolated-and-vented',
    opens?: string[],
  ) => ({
    code,
    isolation,
    opens,
  });
  expect(opensOf(task('own', 'running'), screw)).toEqual([]);
  expect(opensOf(task('own', 'stopped'), screw)).toEqual(['outside']);
  expect(opensOf(task('own', 'isolated-and-vented'), screw)).toBeNull();
  expect(opensOf(task('own', 'isolated-and-vented', ['belt']), screw)).toEqual(['belt']);
  // A plan that was saved when a sample needed the lock alone.
  expect(opensOf(task('oil-sample', 'stopped'), screw)).toEqual(['oil']);
});

test('every default task that opens something says what, and its machine knows it', () => {
  for (const plate of [screw, highPressure, oilFree, { ...oilFree, family: 'piston' as const }]) {
    for (const task of defaultPlan(plate, {}).tasks) {
      const opens = opensOf(task, plate);
      expect(opens === null ? task.code : null).toBeNull();
      for (const code of opens ?? []) expect(openingsOf(plate).map((one) => one.code)).toContain(code);
    }
  }
});

describe('work that opens the machine', () => {
  const unit = compressorOf(screw, ['oil-change', 'bearing-check']);

  test('is refused while it is not isolated, told as it happens', () => {
    const now = step(1, done('oil-change'));
    const refused = admitStep(unit, isolated(screw, 0).slice(0, 4), now, now.doneAt);
    expect(refused).toMatchObject({ ok: false, problem: { code: 'not-isolated' } });
    expect(!refused.ok && refused.problem.sentence).toBe(
      'Not isolated for that. Still to do: Second look; Oil warm, not hot: 40 to 60 °C.',
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

  test('running work is not done while one’s own lock is on', () => {
    const locked = isolated(screw, 0);
    const running = step(1, done('bearing-check'));
    expect(admitStep(unit, locked, running, running.doneAt)).toMatchObject({
      problem: { code: 'is-isolated' },
    });
    const after = step(6, done('bearing-check'));
    expect(admitStep(unit, [...locked, restart(screw, 5)], after, after.doneAt)).toEqual({
      ok: true,
      value: [],
    });
  });

  test('a cartridge is weighed only where its tower may be opened', () => {
    const tower = compressorOf(highPressure, ['cartridge-replace']);
    const weigh: StepBody = { kind: 'measure', phase: 'before', check: 'cartridge-weight', values: {} };
    const before = step(1, weigh);
    expect(admitStep(tower, [], before, before.doneAt)).toMatchObject({ problem: { code: 'not-isolated' } });
    expect(admitStep(tower, isolated(highPressure, 0), before, before.doneAt)).toEqual({
      ok: true,
      value: [],
    });
  });

  test('the mark is worked out when it is read: whatever order things became known in, it is the same', () => {
    const work = step(1, done('oil-change'), { marks: ['isolation-not-confirmed'], recordedAt: START });
    const whole = progressOf(unit, [...isolated(screw, 0), work]);
    expect(whole.isolationNotConfirmed).toEqual([]);
    expect(progressOf(unit, [work]).isolationNotConfirmed).toEqual(['oil-change']);
    // Told under the rules of before, its marks stand as they were given.
    const old = { ...work, marks: [], isBeforeSpaces: true };
    expect(progressOf(unit, [old]).isolationNotConfirmed).toEqual([]);
  });

  test('what was isolated in a repair holds for the visit', () => {
    const elsewhere = isolated(screw, 0).map(({ id, doneAt, by, session, body }) => ({
      id,
      doneAt,
      by,
      session,
      body,
    }));
    const now = step(1, done('oil-change'));
    expect(admitStep({ ...unit, elsewhere }, [], now, now.doneAt)).toEqual({ ok: true, value: [] });
    expect(progressOf({ ...unit, elsewhere }, [now]).isolationNotConfirmed).toEqual([]);
  });

  test('what was locked is started again before it is signed for, whatever was done', () => {
    const task = step(2, { kind: 'task', task: 'oil-change', outcome: 'not-done', reason: 'no oil' });
    const codes = (steps: VisitStep[]) =>
      progressOf(compressorOf(screw, ['oil-change']), steps).obstacles.map(({ code }) => code);
    expect(codes([...isolated(screw, 0), task])).toEqual(['not-restarted']);
    expect(codes([...isolated(screw, 0), task, restart(screw, 3)])).toEqual([]);
  });

  test('a test is done with its result, whatever comes out, and not by closing it', () => {
    const testing = compressorOf(screw, ['relief-test']);
    const result = step(3, {
      kind: 'measure',
      phase: 'work',
      check: 'relief-valve',
      values: {},
      verdict: 'act',
      reason: 'It weeps.',
    });
    const codes = (...steps: VisitStep[]) => progressOf(testing, steps).obstacles.map(({ code }) => code);
    const ticked = step(2, done('relief-test'));
    expect(codes(ticked)).toEqual(['unproved']);
    const closed = step(4, { kind: 'close', task: 'relief-test', reason: 'No time' });
    expect(codes(ticked, closed)).toEqual([]);
    expect(countedTasks(progressOf(testing, [ticked, closed]))).toEqual([]);
    expect(countedTasks(progressOf(testing, [ticked, result]))).toHaveLength(1);
    // Before it was ticked will do: the result is the work.
    expect(countedTasks(progressOf(testing, [{ ...result, id: 'r', doneAt: START }, ticked]))).toHaveLength(
      1,
    );
  });

  test('a stop that stands keeps it from being signed for, unless it is left out of service and told', () => {
    const stopped = { ...unit, planned: [], stops: ['Relief valve: it does not open.'] };
    const sign = (informed?: string) =>
      step(5, { kind: 'sign', name: 'Mara', ...(informed === undefined ? {} : { informed }) });
    expect(admitStep(stopped, [], sign(), START + 5 * MINUTE)).toMatchObject({
      problem: { code: 'stop-stands' },
    });
    expect(admitStep(stopped, [], sign(' '), START + 5 * MINUTE)).toMatchObject({ ok: false });
    expect(admitStep(stopped, [], sign('shift leader'), START + 5 * MINUTE)).toEqual({ ok: true, value: [] });
  });

  test('a task that is not answered can leave the visit; what is answered stays in it', () => {
    const out = (minute: number) => step(minute, { kind: 'take-out', tasks: ['oil-filter'] });
    const planned = { ...unit, planned: ['oil-filter', 'oil-change'] };
    const codes = (...steps: VisitStep[]) => progressOf(planned, steps).tasks.map(({ code }) => code);
    expect(codes(out(1))).toEqual(['oil-change']);
    expect(codes(out(1), step(2, { kind: 'plan', tasks: ['oil-filter'] }))).toEqual([
      'oil-change',
      'oil-filter',
    ]);
    const answer = step(2, { kind: 'task', task: 'oil-filter', outcome: 'not-done', reason: 'No part' });
    expect(admitStep(planned, [answer], out(3), out(3).doneAt)).toMatchObject({
      problem: { code: 'already-answered' },
    });
    // Told late, from another device: the answer stands, whichever came first.
    expect(admitStep(planned, [answer], out(3), out(3).doneAt + LIVE_MS + 1)).toEqual({
      ok: true,
      value: [],
    });
    expect(codes(answer, out(3))).toContain('oil-filter');
    expect(codes(out(1), answer)).toContain('oil-filter');
    const back = step(4, { kind: 'task', task: 'oil-filter', outcome: 'open' });
    expect(codes(answer, back, out(5))).toEqual(['oil-change']);
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
  const verifications = (plate: DataPlate, code: string) =>
    verificationsOf(
      defaultPlan(plate, {}).tasks.find((task) => task.code === code)!,
      plate,
    );

  test('what is opened is looked at under pressure, what should change is measured', () => {
    expect(verifications(screw, 'separator-replace')).toEqual([
      { kind: 'tight' },
      { kind: 'check', anyOf: ['separator-drop', 'discharge-temperature'] },
    ]);
    expect(verifications(oilFree, 'ring-kit')).toEqual([
      { kind: 'tight' },
      { kind: 'check', anyOf: ['pump-up', 'highest-pressure'] },
    ]);
    expect(verifications(highPressure, 'cartridge-replace')).toEqual([
      { kind: 'tight' },
      { kind: 'check', anyOf: ['co', 'water-content'] },
    ]);
    expect(verifications(screw, 'valves-inspect')).toEqual([
      { kind: 'tight' },
      { kind: 'check', anyOf: ['discharge-temperature'] },
    ]);
    expect(verifications(screw, 'belt-check')).toEqual([{ kind: 'result', anyOf: ['belt-deflection'] }]);
    expect(verifications(screw, 'intake-replace')).toEqual([]);
    expect(beforeReadings([{ code: 'separator-replace' }, { code: 'oil-change' }], screw)).toEqual([
      'separator-drop',
      'discharge-temperature',
    ]);
  });

  const unit = compressorOf(screw, ['oil-change']);
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
    const verification = (...steps: VisitStep[]) => progressOf(unit, steps).tasks[0]!.verification;
    expect(verification(...opened)).toBe('missing');
    expect(verification(...opened, tight(22, true))).toBe('missing');
    expect(verification(...opened, tight(22, true), measured(30, 'act'))).toBe('failed');
    expect(verification(...opened, tight(22, false), measured(30, 'good'))).toBe('failed');
    expect(verification(...opened, tight(22, true), measured(30, 'act'), measured(35, 'good'))).toBe(
      'passed',
    );
    // What was measured before the work proves nothing.
    expect(verification(measured(5, 'good'), tight(6, true), ...opened)).toBe('missing');
  });

  test('it stays open, and says so, until it is proved or closed with a reason', () => {
    const failed = [...opened, tight(22, true), measured(30, 'act')];
    const progress = progressOf(unit, failed);
    expect(countedTasks(progress)).toEqual([]);
    expect(progress.obstacles.map(({ code }) => code)).toEqual(['proof-failed']);
    const sign = step(40, { kind: 'sign', name: 'Mara' });
    expect(admitStep(unit, failed, sign, sign.doneAt)).toMatchObject({
      problem: { code: 'proof-failed', sentence: expect.stringMatching(/^The check failed: Oil change/) },
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
    // Done before the signature and told after it: it was not signed for.
    const at = (minute: number) => START + minute * MINUTE;
    const known = signed.map((one) => ({ ...one, recordedAt: one.doneAt }));
    const late = step(35, done('bearing-check'), { recordedAt: at(60), marks: ['after-signing'] });
    expect(progressOf(unit, [...known, late]).signed).toBeNull();
    expect(progressOf(unit, [...known, { ...late, recordedAt: at(36) }]).signed).not.toBeNull();
    const note = step(43, { kind: 'note', text: 'The key is at the gate.' });
    expect(admitStep(unit, signed, note, note.doneAt)).toEqual({ ok: true, value: [] });
  });
});

test('a part said by mistake is taken back', () => {
  const part = (count: number) => step(1, { kind: 'part', name: 'oil filter', count });
  const used = (...steps: VisitStep[]) =>
    progressOf(compressorOf(screw, []), steps).parts.map(({ count }) => count);
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
    // Warm oil first: the rest is done while it runs out.
    'isolated-and-vented oil',
    'isolated-and-vented separator',
    'isolated-and-vented oil-filter',
  ]);
  // The oil filter goes with the oil: it is packed once.
  expect(kit.find(({ part }) => part === 'oil filter')).toEqual({ part: 'oil filter', count: 1 });
  expect(minutes).toBe(60 + 20 + 60 + 15 + 15 + 20);
});

test.each<[StepBody, string]>([
  [
    { kind: 'isolate', step: 'vessel', confirmed: true, answer: 'silent', needle: 'off', pressureBar: 0.3 },
    'Isolated: Separator vessel empty, silent, 0.3 bar',
  ],
  [
    { kind: 'isolate', step: 'lock-out', confirmed: false },
    'Isolation taken back: Off, locked, tried, automatic off',
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
  [{ kind: 'tight', tight: false, text: 'at the lid' }, 'It leaks: at the lid'],
  [{ kind: 'close', task: 'oil-change', reason: 'hot hall' }, 'Closed without proof: Oil change. hot hall'],
  [{ kind: 'sign', name: 'Mara' }, 'Signed for by Mara'],
])('%j is said in a line', (body, text) =>
  expect(stepText(body, namesOn(screw, defaultPlan(screw).tasks))).toBe(text),
);

test('what is worth planning: due and nearing, not what a bigger task covers, nor dates of vessels', () => {
  const standing = (code: string, state: TaskState, more: object = {}) => ({
    code,
    state,
    coveredBy: null,
    vessel: null,
    startedBy: 'done' as const,
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
      standing('g', 'unknown', { startedBy: null }),
      // Its history is known, it was only never measured.
      standing('h', 'unknown'),
    ]),
  ).toEqual(['a', 'b', 'g']);
});

describe('a first visit to a machine of unknown history', () => {
  const unit = compressorOf(screw, ['oil-change', 'intake-replace', 'bearing-check']);
  const look = (task: string, found: LookFinding): StepBody => ({ kind: 'look', task, found });

  test('what looks sound is answered by the look, and is no work that was done', () => {
    const progress = progressOf(unit, [
      step(1, look('oil-change', 'half')),
      step(2, look('intake-replace', 'new')),
    ]);
    expect(progress.tasks.map(({ outcome, found }) => [outcome, found])).toEqual([
      ['looked', 'half'],
      ['looked', 'new'],
      ['open', null],
    ]);
    expect(countedTasks(progress)).toEqual([]);
  });

  test('what is used up, or cannot be told, stays to be done', () => {
    const steps = [step(1, look('intake-replace', 'unknown')), step(2, look('oil-change', 'spent'))];
    const { tasks, obstacles } = progressOf(unit, steps);
    expect(tasks.map(({ outcome }) => outcome)).toEqual(['open', 'open', 'open']);
    expect(obstacles[0]).toMatchObject({ code: 'unanswered' });
    const after = progressOf(unit, [
      ...steps,
      step(3, { kind: 'task', task: 'intake-replace', outcome: 'not-done', reason: 'part missing' }),
    ]);
    expect(after.tasks.find(({ code }) => code === 'intake-replace')).toMatchObject({ outcome: 'not-done' });
  });

  test('looking needs no isolation, even at what only work would open', () => {
    const admitted = admitStep(unit, [], step(1, look('oil-change', 'half')), START + MINUTE);
    expect(admitted).toEqual({ ok: true, value: [] });
  });

  test('the summary says what was looked at apart from what was done', () => {
    const progress = progressOf(unit, [step(1, look('oil-change', 'half'))]);
    expect(summaryOf(unit, progress).map(({ sentence }) => sentence)).toContain(
      'Looked at, and counted from there: Oil change.',
    );
  });
});

describe('whatever happens', () => {
  const unit = compressorOf(screw, ['oil-change']);
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
