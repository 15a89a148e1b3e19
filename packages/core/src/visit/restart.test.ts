import { pointRestartSteps, restartSteps } from '../isolation/index.js';
import { screw } from './fixtures.js';
import { moduleOf, namesOn, stepText, type StepBody } from './index.js';

const codes = (steps: readonly { readonly code: string }[]) => steps.map(({ code }) => code);
const problemOf = (body: StepBody) => moduleOf(body)!.problem!(body, screw);

test('a machine is not started before each step to it is done, and what is forgotten is named', () => {
  const all = restartSteps(screw);
  expect(problemOf({ kind: 'restart', steps: codes(all) })).toBeNull();
  for (const { code, name } of all) {
    const problem = problemOf({ kind: 'restart', steps: codes(all).filter((one) => one !== code) });
    expect(problem).toMatchObject({ code: 'not-ready', sentence: `Before it starts: ${name}.` });
  }
});

test('a point of use asks for its own steps, and is said to be one', () => {
  const body = { kind: 'restart', scope: 'point', steps: codes(pointRestartSteps) } as const;
  expect(problemOf(body)).toBeNull();
  expect(problemOf({ ...body, steps: [] })).toMatchObject({ code: 'not-ready' });
  expect(stepText(body, namesOn(screw, []))).toBe('Point of use: air back');
  expect(stepText({ kind: 'restart', steps: [] }, namesOn(screw, []))).toBe('Started again');
});
