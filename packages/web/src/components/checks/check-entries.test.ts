import { checkByCode, fieldsOf } from '@entretien/core/checks';
import type { DataPlate } from '@entretien/core/machine';
import { plateText, readTexts, stayingTexts, textOf } from './check-entries.js';
import { formatCheckFigure } from './format-figure.js';

const plate: DataPlate = {
  siteId: 's',
  tag: 'T-1',
  family: 'piston',
  commissionedOn: '2024-01-01',
  history: 'new',
  receiverL: 270,
  cutOutBar: 8,
};
const pumpUp = fieldsOf(checkByCode('pump-up')!, plate);
const field = (code: string) => pumpUp.find((one) => one.code === code)!;

test('texts are understood in the unit typed, or the one that the person reads in', () => {
  const texts = { fromBar: '87', toBar: '8 bar', seconds: ' 61,5 ', volumeL: '' };
  const { values, problems } = readTexts(pumpUp, texts, { pressure: 'psi' });
  expect(values).toEqual({ fromBar: expect.closeTo(5.998, 3), toBar: 8, seconds: 61.5 });
  expect(problems).toEqual({});
});

test('what is not understood, or out of bounds, is said beside its field; the rest counts', () => {
  const { values, problems } = readTexts(
    pumpUp,
    { fromBar: 'six', toBar: '8', seconds: '-3', intakeTempC: '212' },
    {},
  );
  expect(values).toEqual({ toBar: 8 });
  expect(Object.keys(problems).sort()).toEqual(['fromBar', 'intakeTempC', 'seconds']);
  expect(problems['intakeTempC']).toContain('Was it read in °F?');
});

test('the plate stands in where nothing is typed, in the unit read in', () => {
  expect(plateText(field('toBar'), plate, { pressure: 'psi' })).toBe('116');
  expect(plateText(field('volumeL'), plate, {})).toBe('270');
  expect(plateText(field('fadLpm'), plate, {})).toBeUndefined();
  expect(plateText(field('seconds'), plate, {})).toBeUndefined();
});

test('limits and labels stay from one measurement to the next, readings do not', () => {
  const capacitor = checkByCode('capacitor')!.fields;
  expect(stayingTexts(capacitor, { measuredUf: 44, labelUf: 45, tolerancePercent: 10 }, {})).toEqual({
    labelUf: '45',
    tolerancePercent: '10',
  });
  expect(stayingTexts(capacitor, undefined, {})).toEqual({});
});

test('a known figure is written as it would be typed', () => {
  expect(textOf(field('volumeL'), 12500.5, {})).toBe('12500.5');
  expect(textOf(field('seconds'), 61.5, {})).toBe('61.5');
  expect(formatCheckFigure(1, { quantity: 'pressure' }, { pressure: 'psi' })).toBe('14.5 psi');
  expect(formatCheckFigure(12.34, { unit: '% of delivery' }, {})).toBe('12.3 % of delivery');
});
