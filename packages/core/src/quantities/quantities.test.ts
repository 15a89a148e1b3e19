import fc from 'fast-check';
import {
  convert,
  formatFigure,
  formatQuantity,
  fromStored,
  parseQuantity,
  readNumber,
  typedFigure,
  toStored,
  unitByCode,
  unitsOf,
} from './index.js';
import { quantityDefinitions, type QuantityKind } from './units.js';

const bar = unitByCode('pressure', 'bar');
const psi = unitByCode('pressure', 'psi');
const cfm = unitByCode('flow', 'cfm');
const lpm = unitByCode('flow', 'L/min');

function parsed(text: string, kind: QuantityKind, options = {}): number {
  const outcome = parseQuantity(text, kind, options);
  if (!outcome.ok) throw new Error(outcome.problem.sentence);
  return outcome.value.value;
}

function problem(text: string, kind: QuantityKind, options = {}): { code: string; sentence: string } {
  const outcome = parseQuantity(text, kind, options);
  if (outcome.ok) throw new Error(`understood as ${outcome.value.value}`);
  return outcome.problem;
}

describe('conversion, against NIST SP 811', () => {
  // Published factors carry six figures: half a unit of the sixth is at most 5 in a million.
  test.each([
    ['1 bar in psi', convert(1, bar, psi), 14.5038],
    ['1 psi in bar', convert(1, psi, bar), 0.0689476],
    ['1 MPa in bar', toStored(1, 'pressure', unitByCode('pressure', 'MPa')), 10],
    ['1 cfm in L/min', convert(1, cfm, lpm), 28.3168],
    ['1 inch in mm', toStored(1, 'length', unitByCode('length', 'in')), 25.4],
    ['1 foot in m', toStored(1, 'altitude', unitByCode('altitude', 'ft')), 0.3048],
    ['1 lbf in N', toStored(1, 'force', unitByCode('force', 'lbf')), 4.44822],
    ['1 US gal in L', toStored(1, 'volume', unitByCode('volume', 'gal')), 3.78541],
    ['1 US qt in L', toStored(1, 'volume', unitByCode('volume', 'qt')), 0.946353],
    ['1 oz in g', toStored(1, 'mass', unitByCode('mass', 'oz')), 28.3495],
    ['1 m³/h in L/min', toStored(1, 'flow', unitByCode('flow', 'm³/h')), 1000 / 60],
    ['100 °F in °C', toStored(100, 'temperature', unitByCode('temperature', '°F')), (100 - 32) / 1.8],
    ['−40 °F in °C', toStored(-40, 'temperature', unitByCode('temperature', '°F')), -40],
    ['300 bar in psi', fromStored(300, 'pressure', psi), 4351.13],
    ['2 bar in psi', fromStored(2, 'pressure', psi), 29.0075],
  ])('%s', (_name, value, published) => {
    expect(Math.abs(value - published)).toBeLessThanOrEqual(Math.abs(published) * 5e-6);
  });

  test('a temperature difference converts without the offset', () => {
    expect(toStored(18, 'temperature-rise', unitByCode('temperature-rise', '°F rise'))).toBeCloseTo(10, 9);
  });

  test('every unit of every kind survives the way to the stored unit and back', () => {
    const everyUnit = (Object.keys(quantityDefinitions) as QuantityKind[]).flatMap((kind) =>
      unitsOf(kind).map((unit) => ({ kind, unit })),
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...everyUnit),
        fc.double({ min: -200, max: 1e6, noNaN: true }),
        ({ kind, unit }, value) => {
          const back = fromStored(toStored(value, kind, unit), kind, unit);
          expect(Math.abs(back - value)).toBeLessThanOrEqual(1e-9 * Math.max(1000, Math.abs(value)));
        },
      ),
    );
  });
});

describe('understanding what is typed', () => {
  test.each([
    ['145 psi', 'pressure', 9.9974],
    ['10 bar', 'pressure', 10],
    ['10', 'pressure', 10],
    ['  7,5bar ', 'pressure', 7.5],
    ['0.8 MPa', 'pressure', 8],
    ['12 cfm', 'flow', 339.802],
    ['340 L/min', 'flow', 340],
    ['0,34 m³/min', 'flow', 340],
    ['20.4 m3/h', 'flow', 340],
    ['100 °F', 'temperature', 37.7778],
    ['100F', 'temperature', 37.7778],
    ['-5 c', 'temperature', -5],
    ['9 412 h', 'hours', 9412],
    ["9'412.5", 'hours', 9412.5],
    ['15,930.4', 'hours', 15930.4],
    ['90 min', 'hours', 1.5],
    ['45 µF', 'capacitance', 45],
    ['1.5 l', 'volume', 1.5],
  ] as const)('%s as %s', (text, kind, expected) => {
    expect(parsed(text, kind)).toBeCloseTo(expected, 3);
  });

  test('a bare figure takes the unit that the person reads in', () => {
    expect(parsed('145', 'pressure', { assumed: psi })).toBeCloseTo(9.9974, 4);
  });

  test.each([
    ['', 'pressure', 'no-figure'],
    ['   ', 'pressure', 'no-figure'],
    ['bar', 'pressure', 'not-a-number'],
    ['NaN', 'pressure', 'not-a-number'],
    ['Infinity', 'pressure', 'not-a-number'],
    ['1e308', 'pressure', 'unknown-unit'],
    ['--5', 'pressure', 'not-a-number'],
    ['1.2.3', 'pressure', 'not-a-number'],
    ['12 cfm', 'pressure', 'unknown-unit'],
    ['10 bara', 'pressure', 'absolute-pressure'],
    ['150 psia', 'pressure', 'absolute-pressure'],
    ['9,412', 'hours', 'ambiguous-comma'],
    ['1.500', 'hours', 'ambiguous-point'],
    ['-1.500', 'temperature', 'ambiguous-point'],
    ['1.500 bar', 'pressure', 'ambiguous-point'],
    ['-500 °F', 'temperature', 'below-absolute-zero'],
    ['-300', 'temperature', 'below-absolute-zero'],
  ] as const)('refuses “%s” as %s: %s', (text, kind, code) => {
    expect(problem(text, kind).code).toBe(code);
  });

  test('bounds are told in the unit that was typed', () => {
    expect(problem('9000 psi', 'pressure', { min: 0, max: 600 }).sentence).toBe(
      'This must be at most 8,702 psi.',
    );
    expect(problem('-1 bar', 'pressure', { min: 0, max: 600 }).sentence).toBe('This must be at least 0 bar.');
  });

  test('a comma that may group or divide is asked back', () => {
    expect(problem('9,412', 'hours').sentence).toBe('Is that 9412, or 9.412? Write it without the comma.');
    expect(problem('1.500', 'hours').sentence).toBe('Is that 1500, or 1.5? Write 1500, or 1.5000.');
    for (const plain of ['0.412', '1.5', '1.50', '1.5000', '1234.567'])
      expect(readNumber(plain)).toEqual({ ok: true, value: Number(plain) });
    expect(readNumber('0,412')).toEqual({ ok: true, value: 0.412 });
    expect(readNumber('1,234,567')).toEqual({ ok: true, value: 1234567 });
  });

  test.each([
    // 14.7 psi, 60 °F: 1.01353/1.01325·293.15/288.706 = 1.01567; 10 cfm are 283.168 L/min.
    ['10 scfm', 287.61, '14.7 psi, 60 °F, to free air at 1.013 bar, 20 °C'],
    // 0 °C, 1.01325 bar: 293.15/273.15 = 1.07322.
    ['60 Nm³/h', 1073.22, '1.013 bar, 0 °C, to free air at 1.013 bar, 20 °C'],
    ['1 Nm3/min', 1073.22, '1.013 bar, 0 °C, to free air at 1.013 bar, 20 °C'],
    ['100 NL/min', 107.32, '1.013 bar, 0 °C, to free air at 1.013 bar, 20 °C'],
  ])('%s is stated for other air: %d L/min as it is drawn in', (text, lpm, reference) => {
    const outcome = parseQuantity(text, 'flow');
    expect(outcome).toMatchObject({ ok: true, value: { reference } });
    expect(parsed(text, 'flow')).toBeCloseTo(lpm, 1);
  });

  test('what is shown can be typed again, and is never asked back', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), fc.nat(3), (value, decimals) => {
        const shown = value.toLocaleString('en', { maximumFractionDigits: decimals });
        const outcome = readNumber(typedFigure(shown));
        expect(outcome).toEqual({ ok: true, value: Number(shown.replaceAll(',', '')) });
      }),
    );
  });

  test('whatever is typed, the answer is a finite figure or a sentence', () => {
    fc.assert(
      fc.property(
        fc.string(),
        fc.constantFrom<QuantityKind>('pressure', 'flow', 'temperature', 'hours'),
        (text, kind) => {
          const outcome = parseQuantity(text, kind, { min: -1e6, max: 1e6 });
          if (outcome.ok) expect(Number.isFinite(outcome.value.value)).toBe(true);
          else expect(outcome.problem.sentence.length).toBeGreaterThan(10);
        },
      ),
    );
  });
});

describe('writing figures', () => {
  test.each([
    [9.9974, '10'],
    [145.038, '145'],
    [0.72, '0.72'],
    [0.7249, '0.72'],
    [15930.4, '15,930'],
    [1.005, '1'],
    [27.12, '27.1'],
    [-0.001, '0'],
    [0, '0'],
  ])('%d is written %s', (value, written) => {
    expect(formatFigure(value)).toBe(written);
  });

  test('in the chosen unit, with its label apart', () => {
    expect(formatQuantity(10, 'pressure', psi)).toEqual({ figure: '145', unit: 'psi' });
    expect(formatQuantity(340, 'flow', cfm)).toEqual({ figure: '12', unit: 'cfm' });
    expect(formatQuantity(487.26, 'hours', undefined, { decimals: 1 })).toEqual({
      figure: '487.3',
      unit: 'h',
    });
  });
});
