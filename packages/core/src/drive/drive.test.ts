import { beltDeflection } from './index.js';

test('a span of 480 mm gives by 7.5 mm (1/64 inch an inch, belt makers’ common practice)', () => {
  expect(beltDeflection(480)).toEqual({ ok: true, value: 7.5 });
  expect(beltDeflection(100)).toMatchObject({ value: expect.closeTo(1.6, 1) });
});

test.each([0, -480, NaN, 1e6])('a span of %d mm is refused', (span) => {
  expect(beltDeflection(span)).toMatchObject({ ok: false, problem: { field: 'spanMm' } });
});
