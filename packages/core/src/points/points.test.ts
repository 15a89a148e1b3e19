import fc from 'fast-check';
import { judgeCheck, type CheckValues } from '../checks/index.js';
import { honestCourse, pointRestartSteps, type IsolateBody } from '../isolation/index.js';
import {
  pointChecks,
  pointDoubts,
  pointGuarded,
  pointProblem,
  pointStanding,
  pointTasks,
  pointWorkProblem,
  type PointPlate,
  type PointStep,
  type PointTelling,
  type PointWork,
} from './index.js';

const plate: PointPlate = {
  siteId: 'mill',
  tag: 'P-01',
  compressorIds: ['screw'],
  vesselIds: [],
  fittedOn: '2026-01-10',
  whenAirGoes: 'The clamp lets go',
  isBreathed: false,
  filterMicron: 5,
  bowl: 'plastic',
  hasGuard: true,
  drain: 'manual',
  regulatorBar: 6,
  isRelieving: true,
  lubricator: 'direct',
  oil: 'mineral',
};
const zone = { timeZone: 'Europe/Oslo' };
const at = (iso: string) => Date.parse(iso);
const now = at('2026-06-01T10:00:00Z');

function look(check: string, values: CheckValues) {
  const judged = judgeCheck(check, values, { on: '2026-05-01' });
  if (!judged.ok) throw new Error(judged.problem.sentence);
  return { check, values, judgement: judged.value };
}

function work(id: string, iso: string, more: Partial<PointWork>): PointWork {
  return { id, doneAt: at(iso), tasks: [], looks: [], ...more };
}

const standing = (done: readonly PointWork[], when = now, of = plate) =>
  pointStanding(of, done, { now: when, ...zone });
const taskOf = (done: readonly PointWork[], code: string, when = now) =>
  standing(done, when).tasks.find((task) => task.code === code)!;

describe('what a point of use is', () => {
  test.each([
    [{ compressorIds: [] }, 'no-unit'],
    [{ filterMicron: null, regulatorBar: null, lubricator: null }, 'nothing-there'],
    [{ isBreathed: true }, 'oil-breathed'],
    [{ ratedBar: 5.9 }, 'above-rating'],
    [{ ratedBar: 6 }, null],
    [{ isBreathed: true, lubricator: null }, null],
  ])('%j: %s', (changes, code) => {
    expect(pointProblem({ ...plate, ...changes })?.code ?? null).toBe(code);
  });

  test('what is better put right is said', () => {
    const screw = { tag: 'S-1', reachesBar: 10, isBreathable: false };
    const codes = (changes: Partial<PointPlate>) =>
      pointDoubts({ ...plate, ...changes }, [screw]).map((doubt) => doubt.code);
    expect(codes({})).toEqual([]);
    expect(codes({ hasGuard: false })).toEqual(['no-guard']);
    expect(codes({ hasGuard: false, bowl: 'metal' })).toEqual([]);
    expect(codes({ isRelieving: false })).toEqual(['not-relieving']);
    expect(codes({ ratedBar: 8, regulatorBar: null })).toEqual(['rated-below']);
    expect(codes({ ratedBar: 10, regulatorBar: null })).toEqual([]);
    expect(codes({ isBreathed: true, lubricator: null })).toEqual(['not-for-breathing']);
  });

  test('it has the tasks and checks of what is in it', () => {
    const codes = (changes: Partial<PointPlate>) =>
      pointTasks({ ...plate, ...changes }).map((task) => task.code);
    expect(codes({})).toEqual(['point-element', 'point-bowl', 'point-drain', 'point-setting', 'point-oil']);
    expect(codes({ filterMicron: null, lubricator: null })).toEqual(['point-setting']);
    expect(pointChecks({ ...plate, drain: 'automatic' })).toContain('auto-drain');
    expect(pointChecks(plate)).not.toContain('auto-drain');
  });
});

describe('what is due', () => {
  // Fitted on 10 January: element on 10 January 2027, nearing 30 days before; bowl on 10 April, late after half of
  // its 90 days more, on 25 May; drain on 17 January.
  test('counts from the day it was fitted', () => {
    expect(taskOf([], 'point-element')).toMatchObject({ dueOn: '2027-01-10', state: 'fresh' });
    expect(taskOf([], 'point-bowl')).toMatchObject({ dueOn: '2026-04-10', state: 'overdue' });
    expect(taskOf([], 'point-bowl', at('2026-05-25T10:00:00Z')).state).toBe('due');
    expect(taskOf([], 'point-bowl', at('2026-05-26T10:00:00Z')).state).toBe('overdue');
    expect(taskOf([], 'point-element', at('2026-12-10T10:00:00Z')).state).toBe('fresh');
    expect(taskOf([], 'point-element', at('2026-12-11T10:00:00Z')).state).toBe('nearing');
    expect(taskOf([], 'point-element', at('2027-01-10T10:00:00Z')).state).toBe('due');
  });

  test('counts from when it was done, by the day at the place', () => {
    // 23:30 UTC on 30 April is 1 May in Oslo: the bowl comes on 1 August.
    const done = [work('a', '2026-04-30T23:30:00Z', { tasks: ['point-bowl'] })];
    expect(taskOf(done, 'point-bowl')).toMatchObject({ dueOn: '2026-08-01', state: 'fresh' });
  });

  test('a grey element nears, a dark one is due, a new one ends both; what came before says nothing', () => {
    const grey = work('a', '2026-05-01T08:00:00Z', { looks: [look('line-element', { element: 'grey' })] });
    const dark = work('b', '2026-05-02T08:00:00Z', { looks: [look('line-element', { element: 'dark' })] });
    const change = work('c', '2026-05-03T08:00:00Z', { tasks: ['point-element'] });
    expect(taskOf([grey], 'point-element').state).toBe('nearing');
    expect(taskOf([dark, grey], 'point-element')).toMatchObject({ state: 'due', dueOn: '2026-05-02' });
    expect(taskOf([dark, grey], 'point-element').because).toMatch(/dark or wet/);
    expect(taskOf([change, dark, grey], 'point-element')).toMatchObject({ state: 'fresh', because: null });
  });

  test('a crazed bowl stops the point until a sound one was seen', () => {
    const crazed = work('a', '2026-05-01T08:00:00Z', { looks: [look('bowl', { bowl: 'crazed' })] });
    const sound = work('b', '2026-05-02T08:00:00Z', { looks: [look('bowl', { bowl: 'sound' })] });
    expect(standing([crazed])).toMatchObject({ state: 'stopped', stops: [{ check: 'bowl', workId: 'a' }] });
    expect(standing([sound, crazed]).stops).toEqual([]);
    // Told later of a time before, it does not end what was found after.
    expect(standing([{ ...sound, doneAt: crazed.doneAt - 1 }, crazed]).state).toBe('stopped');
    // What lies ahead by a fast clock has not happened.
    expect(standing([crazed], crazed.doneAt - 1).stops).toEqual([]);
  });
});

describe('opening it while the compressor runs', () => {
  const start = at('2026-06-01T08:00:00Z');
  const course = honestCourse(pointGuarded('UTC').plate, ['point']);
  const isolated: PointStep[] = course.map(({ seconds, body }) => ({ at: start + seconds * 1000, body }));
  const open = isolated.at(-1)!.at;
  const restart: PointStep = {
    at: open + 600_000,
    body: { kind: 'restart', scope: 'point', steps: pointRestartSteps.map(({ code }) => code) },
  };
  const telling: PointTelling = {
    doneAt: open + 660_000,
    by: 'jorun',
    tasks: [{ code: 'point-element', at: open + 300_000 }],
    looks: [{ code: 'line-element', at: open + 240_000 }],
    steps: [...isolated, restart],
  };
  const problem = (changes: Partial<PointTelling>) =>
    pointWorkProblem(plate, { ...telling, ...changes }, pointGuarded('UTC'))?.code ?? null;

  test('is told whole, or not at all', () => {
    expect(problem({})).toBeNull();
    expect(problem({ steps: [] })).toBe('not-isolated');
    expect(problem({ steps: isolated })).toBe('no-air-back');
    expect(problem({ steps: [restart] })).toBe('not-isolated');
    expect(
      problem({
        steps: [...isolated, { ...restart, body: { kind: 'restart', scope: 'point', steps: ['clear'] } }],
      }),
    ).toBe('no-air-back');
    expect(problem({ tasks: [], looks: [] })).toBe('nothing-done');
    expect(problem({ tasks: [], looks: [], note: 'Its valve passes' })).toBeNull();
    expect(problem({ tasks: [{ code: 'oil-change', at: open }] })).toBe('unknown-task');
    expect(problem({ looks: [{ code: 'dew-point', at: open }] })).toBe('unknown-check');
  });

  test('no step of it can be left out, and none comes after what was opened', () => {
    for (const [index] of isolated.entries())
      expect(problem({ steps: [...isolated.filter((_, one) => one !== index), restart] })).not.toBeNull();
    expect(problem({ tasks: [{ code: 'point-element', at: isolated.at(-2)!.at }] })).toBe('not-isolated');
    // Its air was back, and then it was opened.
    expect(problem({ tasks: [{ code: 'point-element', at: restart.at + 1 }] })).toBe('not-isolated');
  });

  test('what is only looked at needs none of it; an element held in the hand does', () => {
    const bowl = { tasks: [{ code: 'point-bowl', at: open }], looks: [], steps: [] };
    expect(problem(bowl)).toBeNull();
    expect(problem({ tasks: [], steps: [] })).toBe('not-isolated');
  });

  test('after a pause of more than twenty minutes it is looked at again', () => {
    const late = open + 21 * 60_000;
    const later = { ...restart, at: late + 120_000 };
    const tasks = [{ code: 'point-element', at: late }];
    const told = { doneAt: late + 180_000, tasks, looks: [] };
    expect(problem({ ...told, steps: [...isolated, later] })).toBe('not-isolated');
    const still: PointStep = {
      at: late - 1000,
      body: { kind: 'isolate', step: 'still', confirmed: true, answer: 'holds' },
    };
    expect(problem({ ...told, steps: [...isolated, still, later] })).toBeNull();
  });

  test('a step of another day, or after the end, is refused', () => {
    expect(problem({ steps: [{ ...isolated[0]!, at: start - 13 * 3_600_000 }, ...isolated, restart] })).toBe(
      'another-time',
    );
    expect(problem({ doneAt: restart.at - 1 })).toBe('another-time');
  });

  test('whatever is said in whatever order, nothing is opened unless shut off, vented and silent', () => {
    const one = fc.oneof(
      { weight: 9, arbitrary: fc.constantFrom(...isolated.map(({ body }) => body)) },
      {
        weight: 1,
        arbitrary: fc.record({
          kind: fc.constant('isolate' as const),
          step: fc.constantFrom('point-told', 'point-supply', 'point-empty', 'still'),
          confirmed: fc.boolean(),
          answer: fc.constantFrom('holds', 'passes', 'found-empty', 'nothing', 'keeps-coming', 'let-in'),
          needle: fc.constantFrom('fell', 'stood', 'off', 'rises', 'none'),
        }),
      },
    );
    const said = fc.array(fc.record({ body: one, after: fc.integer({ min: 30, max: 300 }) }), {
      minLength: 4,
      maxLength: 9,
    });
    let admitted = 0;
    fc.assert(
      fc.property(said, (list) => {
        let moment = start;
        const steps = list.map(({ after, body }): PointStep => {
          moment += after * 1000;
          return { at: moment, body };
        });
        const opened = moment + 1000;
        const back = { ...restart, at: opened + 1000 };
        const tasks = [{ code: 'point-element', at: opened }];
        const found = problem({ doneAt: opened + 2000, tasks, looks: [], steps: [...steps, back] });
        if (found !== null) return;
        admitted += 1;
        const bodies = list.map(({ body }) => body as IsolateBody);
        const last = (code: string) => bodies.findLastIndex(({ step }) => step === code);
        const end = bodies[last('point-empty')]!;
        expect(bodies[last('point-supply')]!.confirmed).toBe(true);
        expect(end.confirmed).toBe(true);
        expect(['silent', 'found-empty', 'let-in', 'second-opening']).toContain(end.answer);
        expect(last('point-empty')).toBeGreaterThan(bodies.findIndex(({ step }) => step === 'point-supply'));
      }),
      { numRuns: 8000, seed: 7 },
    );
    expect(admitted).toBeGreaterThan(20);
  });
});
