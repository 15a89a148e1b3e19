import type { DataPlate } from '../machine/index.js';
import { engineListsOf, faultLists, pointLists } from './index.js';

test.each(faultLists)('$code $text: whole, the likeliest first, each with what shows it', ({ causes }) => {
  const shares = causes.map(({ percent }) => percent);
  expect(shares.reduce((sum, share) => sum + share, 0)).toBe(100);
  // Whatever else comes last.
  const named = shares.slice(0, -1);
  expect(named).toEqual([...named].sort((a, b) => b - a));
  for (const { look, text } of causes) {
    expect(look).toMatch(/^[A-Z].*\.$/);
    expect(text).toMatch(/^[A-Z]/);
  }
});

test('engines have theirs, points of use have theirs, and nobody else', () => {
  expect(faultLists.map(({ code }) => code)).toEqual([
    'X1',
    'X2',
    'X3',
    'X4',
    'X5',
    'U1',
    'U2',
    'U3',
    'U4',
    'U5',
  ]);
  const listsOf = (motor: DataPlate['motor']) =>
    engineListsOf({
      siteId: 's',
      tag: 'X-1',
      family: 'screw',
      commissionedOn: '2024-01-01',
      history: 'new',
      ...(motor === undefined ? {} : { motor }),
    }).length;
  expect(
    [undefined, 'three-phase', 'single-phase', 'petrol', 'diesel'].map((motor) =>
      listsOf(motor as DataPlate['motor']),
    ),
  ).toEqual([0, 0, 0, 5, 5]);
  expect(pointLists.every(({ caution }) => caution !== undefined)).toBe(true);
});

test('where it can hurt it says so: fuel, a hot radiator, an engine that runs on', () => {
  const cautionOf = (code: string) => faultLists.find((one) => one.code === code)!.caution;
  expect(cautionOf('X2')).toMatch(/flame/);
  expect(cautionOf('X3')).toMatch(/battery is not unhooked/);
  expect(cautionOf('X5')).toMatch(/hot radiator/i);
});
