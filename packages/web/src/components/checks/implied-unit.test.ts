import { parseQuantity, unitByCode } from '@entretien/core/quantities';
import { asTyped, withMeantUnit } from './implied-unit.js';

const bar = unitByCode('pressure', 'bar');
const psi = unitByCode('pressure', 'psi');

test('a bare figure keeps the unit that was meant, unseen by who reads in it', () => {
  const kept = withMeantUnit('100', psi);
  expect(asTyped(kept, psi)).toBe('100');
  expect(asTyped(kept, bar)).toBe('100 psi');
  expect(parseQuantity(kept, 'pressure', { assumed: bar })).toMatchObject({
    value: { value: expect.closeTo(6.895, 3) },
  });
});

test.each(['7 bar', '7 b', '', ' ', '-', 'seven'])('“%s” is kept as it is', (text) => {
  expect(withMeantUnit(text, psi)).toBe(text);
  expect(asTyped(text, psi)).toBe(text);
});

test.each(['7', '7,5', ' 7.', '-3', "1'200"])('“%s” comes back as it was typed', (text) => {
  expect(asTyped(withMeantUnit(text, bar), bar)).toBe(text);
});
