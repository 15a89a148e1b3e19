import { judgeCapacitor } from './index.js';

test.each([
  [40, 'within'],
  [37.6, 'within'],
  [37.5, 'low'],
  [42.4, 'within'],
  [42.5, 'high'],
  [0, 'low'],
])('a 40 µF capacitor that measures %d µF is %s, at 6 %', (measured, verdict) => {
  expect(judgeCapacitor(measured, 40)).toMatchObject({ ok: true, value: { verdict } });
});

test('the label’s own tolerance counts where it states one', () => {
  expect(judgeCapacitor(37, 40, 0.1)).toMatchObject({
    value: { verdict: 'within', deviation: expect.closeTo(-0.075, 9) },
  });
});

test.each([
  [-1, 40, 0.06, 'measuredUf'],
  [40, 0, 0.06, 'labelUf'],
  [40, 40, 0.9, 'tolerance'],
])('%d µF against %d at %d is refused', (measured, label, tolerance, field) => {
  expect(judgeCapacitor(measured, label, tolerance)).toMatchObject({ ok: false, problem: { field } });
});
