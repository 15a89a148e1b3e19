import { honestCourse, restartSteps } from '../isolation/index.js';
import { defaultPlan, type ServiceTask } from '../plan/index.js';
import {
  admitStep,
  beforeReadings,
  describeOpen,
  isDoneRunning,
  missingIsolation,
  namesOn,
  opensOf,
  prepare,
  progressOf,
  readRecordedBody,
  stepModules,
  stepText,
  summaryOf,
  verificationsOf,
  type StepBody,
  type VisitCompressor,
  type VisitStep,
} from '../visit/index.js';
import { machines } from './machines.js';
import { onDay, shared, shown } from './shown.js';

/* How a visit reads from its beginning to its end, as it was read and approved. */

const NOW = onDay(1000) + 9 * 3_600_000;
const MINUTE = 60_000;

/** One of each kind of step, some with something wrong. */
function samples(first: string, second: string): readonly StepBody[] {
  return [
    { kind: 'plan', tasks: [first, second] },
    { kind: 'hours', hours: 1234.5 },
    {
      kind: 'measure',
      check: 'separator-drop',
      phase: 'before',
      values: { dropBar: 1.1 },
      verdict: 'act',
      reason: 'It is high.',
    },
    {
      kind: 'measure',
      check: 'separator-drop',
      phase: 'proof',
      values: { dropBar: 0.2 },
      verdict: 'good',
      reason: 'It is low.',
    },
    { kind: 'skip', check: 'discharge-temp', reason: 'No thermometer' },
    { kind: 'task', task: first, outcome: 'done' },
    { kind: 'task', task: second, outcome: 'not-done', reason: 'No part' },
    { kind: 'task', task: second, outcome: 'open' },
    { kind: 'look', task: first, found: 'half' },
    { kind: 'look', task: second, found: 'unknown' },
    { kind: 'station', station: 'motor', tasks: [first, second] },
    { kind: 'close', task: first, reason: 'No gauge' },
    { kind: 'part', name: 'Oil filter', count: 1 },
    { kind: 'part', name: 'Oil filter', count: -1, reason: 'Taken back' },
    { kind: 'photo', photo: 'p1' },
    { kind: 'note', text: 'Key at the gate' },
    { kind: 'fault', found: 'Hose clip loose' },
    { kind: 'isolate', step: 'lock', answer: 'holds', confirmed: true },
    { kind: 'isolate', step: 'lock', answer: 'stuck', confirmed: true },
    { kind: 'restart', steps: ['guards'] },
    { kind: 'tight', tight: true },
    { kind: 'tight', tight: false, text: 'At the drain' },
    { kind: 'sign', name: 'Mira Kolden', signature: [] } as unknown as StepBody,
    { kind: 'leave', reason: 'Called away' },
  ];
}

function steps(bodies: readonly (readonly [minute: number, body: StepBody])[]): VisitStep[] {
  return bodies.map(([minute, body], index) => ({
    id: `s${String(index).padStart(3, '0')}`,
    doneAt: NOW + minute * MINUTE,
    recordedAt: NOW + minute * MINUTE,
    by: 'mira',
    session: 'one',
    body,
  }));
}

const codesOf = (tasks: readonly ServiceTask[]) => tasks.slice(0, 6).map(({ code }) => code);

function visitOf(name: string): VisitCompressor {
  const plate = machines[name]!;
  const { tasks } = defaultPlan(plate);
  return { plate, plan: tasks, planned: codesOf(tasks), timeZone: 'UTC' };
}

/** A whole visit: isolated, everything done, proved, restarted, signed for. */
function whole(unit: VisitCompressor): VisitStep[] {
  const course = honestCourse(unit.plate, null).map(
    ({ seconds, body }) => [seconds / 60, body as StepBody] as const,
  );
  const start = course.at(-1)![0];
  return steps([
    ...course,
    ...unit.planned.map(
      (task, index) => [start + 1 + index, { kind: 'task', task, outcome: 'done' }] as const,
    ),
    [start + 20, { kind: 'restart', steps: restartSteps(unit.plate).map(({ code }) => code) }],
    [start + 21, { kind: 'tight', tight: true }],
    [start + 22, { kind: 'leave', reason: 'Proofs tomorrow' }],
  ]);
}

const names = Object.keys(machines);

test.each(names)('what each task of a visit needs, opens and is proved by: %s', (name) => {
  const unit = visitOf(name);
  const lines = unit.plan.map((task) =>
    shown([
      task.code,
      opensOf(task, unit.plate),
      isDoneRunning(task, unit.plate),
      verificationsOf(task, unit.plate),
      beforeReadings([task], unit.plate),
    ]),
  );
  expect([...lines, shown(prepare(unit.plan, unit.plate))].join('\n')).toMatchSnapshot();
});

test.each(names)('a whole visit, after each step: %s', (name) => {
  const unit = visitOf(name);
  const all = whole(unit);
  let before = '';
  const lines = all.flatMap((step, index) => {
    const { tasks, obstacles, ...rest } = progressOf(unit, all.slice(0, index + 1));
    const now = shown([tasks, obstacles, rest]);
    const line = `${stepText(step.body, namesOn(unit.plate, unit.plan))}: ${now === before ? 'as before' : now}`;
    before = now;
    return [line];
  });
  const progress = progressOf(unit, all);
  expect(lines.slice(-6).join('\n')).toMatchSnapshot();
  expect([
    ...summaryOf(unit, progress).map(({ sentence }) => sentence),
    describeOpen(progress.obstacles),
  ]).toMatchSnapshot();
});

test('how each kind of step reads, is admitted early and late, and what it still needs', () => {
  const lines = ['piston', 'screw', 'filling'].flatMap((name) => {
    const unit = visitOf(name);
    const [first, second] = unit.planned as [string, string];
    const isolated = whole(unit).filter(({ body }) => body.kind === 'isolate');
    return samples(first, second).flatMap((body) => {
      const [step] = steps([[400, body]]) as [VisitStep];
      const text = stepText(body, namesOn(unit.plate, unit.plan));
      const fresh = { ...step, doneAt: isolated.at(-1)!.doneAt + MINUTE };
      const admitted = [
        admitStep(unit, [], step, step.doneAt),
        admitStep(unit, [], step, step.doneAt + 3_600_000),
        admitStep(unit, isolated, fresh, fresh.doneAt),
        admitStep(unit, whole(unit), step, step.doneAt),
      ];
      const missing = missingIsolation(unit, [], step);
      return [[name, `${text} ${shown(admitted)} ${shown(missing)}`] as const];
    });
  });
  expect(shared(lines)).toMatchSnapshot();
});

test('what came of each sample brought together, and its summary', () => {
  const lines = ['piston', 'screw', 'filling'].flatMap((name) => {
    const unit = visitOf(name);
    const [first, second] = unit.planned as [string, string];
    const bodies = samples(first, second);
    return bodies.map((body, index) => {
      const taken = steps(bodies.slice(0, index + 1).map((one, at) => [at, one] as const));
      const progress = progressOf(unit, taken);
      const said = summaryOf(unit, progress).map(({ about, sentence }) => `${about}: ${sentence}`);
      return `${name} ${body.kind}: ${said.join(' ')} ${describeOpen(progress.obstacles) ?? 'nothing open'} ${shown(progress.tasks.slice(0, 2))}`;
    });
  });
  expect(lines.join('\n')).toMatchSnapshot();
});

test('steps on record are read by their fields, and what is none is none', () => {
  const lines = stepModules.map(({ kind, fields }) => {
    const given: Record<string, unknown> = {
      text: 't',
      number: 1.5,
      flag: true,
      codes: ['a'],
      values: { a: 1 },
    };
    const full = Object.fromEntries(
      Object.entries(fields).map(([field, type]) => [field, given[type.replace('?', '')]]),
    );
    const wrong = Object.keys(fields).map((field) => [
      field,
      readRecordedBody(kind, { ...full, [field]: null }),
    ]);
    return shown([kind, fields, readRecordedBody(kind, full), wrong, readRecordedBody(kind, {})]);
  });
  expect([...lines, shown(readRecordedBody('nothing', {}))].join('\n')).toMatchSnapshot();
});
