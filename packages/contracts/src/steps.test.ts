import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { stepModules, type StepKind } from '@entretien/core/visit';
import { stepContracts } from './index.js';

const ID = '01890a5d-ac96-774b-bcce-b302099a8057';

/** The sentences with which the contract of a kind refuses details. */
function sentences(kind: StepKind, details: object): string {
  const errors = validateSync(plainToInstance(stepContracts[kind], details), {
    whitelist: true,
    forbidNonWhitelisted: true,
  });
  return errors.flatMap(({ constraints }) => Object.values(constraints ?? {})).join(' ');
}

test('every kind of step has its contract, and no contract is without a kind', () => {
  expect(Object.keys(stepContracts).sort()).toEqual(stepModules.map(({ kind }) => kind).sort());
});

test.each<[StepKind, object, RegExp]>([
  ['task', { task: 'oil-change', outcome: 'perhaps' }, /done, not-done, open/],
  ['task', { task: 'oil-change' }, /What became of it/],
  ['hours', { hours: -1 }, /from 0 to 1,000,000/],
  ['isolate', { step: 'gauge-zero', confirmed: true, pressureBar: 1e9 }, /from 0 to 1,000\./],
  ['note', { text: '   ' }, /must not be blank/],
  ['note', { text: 'x'.repeat(2001) }, /2000 characters/],
  ['part', { name: 'oil filter', count: 0 }, /must not be nothing/],
  ['part', { name: 'oil filter', count: 1e6 }, /from -1000 to 1,000/],
  ['sign', { name: 'Mara', seal: 'wax' }, /should not exist/],
  ['restart', { steps: ['Clear!'] }, /named by its code/],
  ['measure', { phase: 'proof', check: 'pump-up', values: [] }, /figures by their fields/],
  ['photo', { photo: 'holiday' }, /UUID/],
])('%s %j is refused in a sentence', (kind, details, sentence) => {
  expect(sentences(kind, details)).toMatch(sentence);
});

test.each<[StepKind, object]>([
  ['isolate', { step: 'gauge-zero', confirmed: true, pressureBar: 1000, provedBy: 'Second gauge' }],
  ['isolate', { step: 'gauge-zero', confirmed: false, pressureBar: 0 }],
  ['task', { task: 'oil-change', outcome: 'done', reason: null }],
  ['part', { name: 'oil filter', count: -1000, part: ID }],
  ['part', { name: 'oil filter', count: 0.01 }],
  ['hours', { hours: 1_000_000 }],
  ['sign', { name: 'Mara' }],
])('%s %j is taken', (kind, details) => expect(sentences(kind, details)).toBe(''));
