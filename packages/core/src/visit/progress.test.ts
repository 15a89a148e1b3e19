import type { ServiceTask } from '../plan/index.js';
import { compressorOf, done, isolated, MINUTE, restart, screw, START, step } from './fixtures.js';
import {
  admitStep,
  beforeReadings,
  missingIsolation,
  opensAir,
  opensOf,
  opensTogether,
  prepare,
  progressOf,
  summaryOf,
  verificationsOf,
  type StepBody,
  type VisitCompressor,
  type VisitStep,
} from './index.js';

const unit = (planned: string[], more: Partial<VisitCompressor> = {}): VisitCompressor => ({
  ...compressorOf(screw, planned),
  ...more,
});
const measured = (
  minute: number,
  verdict: 'good' | 'watch' | 'act' | 'stop',
  phase: 'before' | 'proof' = 'proof',
) =>
  step(minute, {
    kind: 'measure',
    phase,
    check: 'discharge-temperature',
    values: {},
    verdict,
    reason: `${verdict}!`,
  });
const tight = (minute: number, isTight = true) => step(minute, { kind: 'tight', tight: isTight });
const oil = unit(['oil-change']);
const opened = [...isolated(screw, 0), step(10, done('oil-change')), restart(screw, 20)];
const codes = (of: VisitCompressor, steps: readonly VisitStep[]) =>
  progressOf(of, steps).obstacles.map(({ code }) => code);

describe('what proves work', () => {
  const verification = (...steps: VisitStep[]) => progressOf(oil, steps).tasks[0]!.verification;

  test.each([
    ['good', 'passed'],
    ['watch', 'passed'],
    ['act', 'failed'],
    ['stop', 'failed'],
  ] as const)('a check that says %s after it: %s', (verdict, state) => {
    expect(verification(...opened, tight(22), measured(30, verdict))).toBe(state);
  });

  test('tight before the work proves nothing, whatever else is proved', () => {
    expect(verification(tight(5), ...opened, measured(30, 'good'))).toBe('missing');
    expect(verification(tight(5, false), ...opened, tight(22), measured(30, 'good'))).toBe('passed');
  });

  test('measured before the work, or for another reason than to prove it, proves nothing', () => {
    expect(verification(measured(5, 'good'), ...opened, tight(22))).toBe('missing');
    expect(verification(...opened, tight(22), measured(30, 'good', 'before'))).toBe('missing');
  });

  test('work that is done again wants to be proved again; what it was closed for is gone', () => {
    const closed = step(30, { kind: 'close', task: 'oil-change', reason: 'No time' });
    const again = [...isolated(screw, 40), step(50, done('oil-change')), restart(screw, 60)];
    expect(verification(...opened, closed)).toBe('closed');
    expect(verification(...opened, closed, ...again)).toBe('missing');
  });

  test('a guard or a terminal box holds no air: there is nothing that could leak', () => {
    const tightOn = (station: string) =>
      verificationsOf({ code: 'own', station, isolation: 'isolated-and-vented' }, screw).some(
        ({ kind }) => kind === 'tight',
      );
    expect([tightOn('drive'), tightOn('motor'), tightOn('separator')]).toEqual([false, false, true]);
  });

  test('a check that the machine does not have proves nothing', () => {
    const task = {
      code: 'own',
      station: 'airend',
      isolation: 'running',
      verifiedBy: ['cartridge-weight'],
    } as const;
    expect(verificationsOf(task, screw)).toEqual([]);
    expect(verificationsOf({ ...task, verifiedBy: ['separator-drop'] }, screw)).toEqual([
      { kind: 'check', anyOf: ['separator-drop'] },
    ]);
  });
});

test('a plan that says what verifies its task is believed before what is usual', () => {
  const task = { code: 'oil-change', station: 'separator', isolation: 'running' } as const;
  const checks = (more: object) =>
    verificationsOf({ ...task, ...more }, screw).flatMap((one) => (one.kind === 'check' ? one.anyOf : []));
  expect(checks({})).toContain('discharge-temperature');
  expect(checks({ verifiedBy: ['separator-drop'] })).toEqual(['separator-drop']);
  expect(checks({ verifiedBy: [] })).toEqual([]);
});

test('before the work the first of its checks is taken, not all that would do', () => {
  const task = { code: 'own', verifiedBy: ['separator-drop', 'discharge-temperature'] };
  expect(beforeReadings([task], screw)).toEqual(['separator-drop']);
});

test('what opens the air is what wants a space empty', () => {
  const task = (opens: string[]) => ({ code: 'own', isolation: 'isolated-and-vented', opens }) as const;
  expect(opensAir(task(['oil']), screw)).toBe(true);
  expect(opensAir(task(['outside']), screw)).toBe(false);
  // Behind the belt the vessel is vented, and no valve is shut.
  expect(opensAir(task(['belt']), screw)).toBe(true);
});

describe('a machine that was opened is started again', () => {
  test('a start before the opening is none', () => {
    expect(codes(oil, [restart(screw, -30), ...isolated(screw, 0), step(10, done('oil-change'))])).toContain(
      'not-restarted',
    );
    expect(codes(oil, opened)).not.toContain('not-restarted');
  });

  test('a lock that was taken off again holds nobody up; one that is on does', () => {
    const lock = (minute: number, confirmed: boolean) =>
      step(minute, {
        kind: 'isolate',
        step: 'lock-out',
        confirmed,
        ...(confirmed ? { answer: 'holds' as const } : {}),
      });
    expect(codes(unit([]), [lock(1, false)])).not.toContain('not-restarted');
    expect(codes(unit([]), [lock(1, true)])).toEqual(['not-restarted']);
  });

  test('a visit that came to nothing is not signed for; whatever was seen makes it one', () => {
    expect(codes(unit([]), [])).toEqual(['nothing-done']);
    for (const body of [
      { kind: 'note', text: 'It runs quietly.' },
      { kind: 'hours', hours: 120 },
      { kind: 'fault', found: 'A hose is blistered' },
    ] as const) {
      expect(codes(unit([]), [step(1, body)])).toEqual([]);
    }
  });

  test('a point of use has its own way back', () => {
    const own = {
      code: 'own',
      name: 'Its filter',
      station: 'outlet',
      isolation: 'isolated-and-vented',
      opens: ['point'],
    } as unknown as ServiceTask;
    const one = unit(['own'], { plan: [own] });
    expect(codes(one, [step(1, done('own'))])).not.toContain('not-restarted');
  });
});

describe('what is said later replaces what was said', () => {
  const gauge = (minute: number, needle: 'off' | 'fell', pressureBar?: number) =>
    step(minute, {
      kind: 'isolate',
      step: 'vessel',
      confirmed: true,
      needle,
      ...(pressureBar === undefined ? {} : { pressureBar }),
    } as StepBody);

  test('a needle off its rest is remembered until it is seen to fall; nothing is off by nothing', () => {
    const off = (...steps: VisitStep[]) => progressOf(unit([]), steps).gaugesOffRest;
    expect(off(gauge(1, 'off', 0.8))).toEqual([{ point: 'vessel', tile: '', pressureBar: 0.8 }]);
    expect(off(gauge(1, 'off', 0.8), gauge(5, 'fell'))).toEqual([]);
    expect(off(gauge(1, 'off', 0))).toEqual([]);
  });

  test('a check that was skipped is taken after all', () => {
    const skip = step(1, { kind: 'skip', check: 'discharge-temperature', reason: 'no thermometer' });
    expect([...progressOf(oil, [skip]).skipped.keys()]).toEqual(['discharge-temperature']);
    expect([...progressOf(oil, [skip, measured(5, 'good', 'before')]).skipped.keys()]).toEqual([]);
  });

  test('left for another day, then signed for: it is not left any more', () => {
    const leave = step(1, { kind: 'leave', reason: 'No time left' });
    const none = unit([]);
    expect(progressOf(none, [leave]).left).toMatchObject({ reason: 'No time left' });
    expect(progressOf(none, [leave, step(5, { kind: 'sign', name: 'Mara' })]).left).toBeNull();
  });
});

describe('the guard', () => {
  test('knows nothing of what happened after the moment that it is asked about', () => {
    const before = step(-5, done('oil-change'));
    const missing = missingIsolation(oil, isolated(screw, 0), before);
    expect(missing.length).toBeGreaterThan(0);
    expect(missingIsolation(oil, isolated(screw, 0), { ...before, doneAt: START + MINUTE })).toEqual([]);
  });

  test('what opens nothing needs nothing', () => {
    expect(missingIsolation(oil, [], step(1, { kind: 'note', text: 'Key at the gate' }))).toEqual([]);
    expect(missingIsolation(oil, [], step(1, done('bearing-check')))).toEqual([]);
  });

  test('work that is not done opens nothing', () => {
    const not: StepBody = { kind: 'task', task: 'oil-change', outcome: 'not-done', reason: 'no oil' };
    expect(admitStep(oil, [], step(1, not), START + MINUTE)).toEqual({ ok: true, value: [] });
  });

  test('one task that opens everything makes the whole open everything', () => {
    const task = (code: string, opens?: string[]) => ({
      code,
      isolation: 'isolated-and-vented' as const,
      ...(opens ? { opens } : {}),
    });
    expect(opensOf(task('own'), screw)).toBeNull();
    expect(opensTogether([task('a', ['belt']), task('own')], screw)).toBeNull();
    expect(opensTogether([task('a', ['belt']), task('b', ['belt', 'oil'])], screw)).toEqual(['belt', 'oil']);
  });
});

test('parts of the kit are counted together, each once', () => {
  const task = (code: string, kit: object[], more: object = {}) =>
    ({
      code,
      name: code,
      station: 'separator',
      isolation: 'stopped',
      minutes: 5,
      kit,
      ...more,
    }) as unknown as ServiceTask;
  const filter = { part: 'oil filter', count: 1 };
  expect(prepare([task('a', [filter]), task('b', [{ part: 'oil filter', count: 2 }])], screw).kit).toEqual([
    { part: 'oil filter', count: 3 },
  ]);
  expect(prepare([task('a', [filter], { covers: ['b'] }), task('b', [filter])], screw).kit).toEqual([filter]);
});

test('work whose isolation nobody confirmed is warned of in the summary', () => {
  const late = step(1, done('oil-change'));
  const lines = summaryOf(oil, progressOf(oil, [late])).map(({ sentence }) => sentence);
  expect(lines).toContain('Isolation not confirmed for: Oil change.');
});

test('what was found before the work is not among what was found by it', () => {
  const lines = (phase: 'before' | 'proof') =>
    summaryOf(oil, progressOf(oil, [measured(1, 'act', phase)])).map(({ sentence }) => sentence);
  expect(lines('before').join()).not.toContain('act!');
  expect(lines('proof').join()).toContain('act!');
});
