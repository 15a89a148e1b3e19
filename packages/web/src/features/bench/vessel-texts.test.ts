import fc from 'fast-check';
import { readCylinders, readVessels, writeCylinders, writeVessels } from './vessel-texts.js';

test('rows go into the address and come back as they were typed', () => {
  const cell = fc.string({ maxLength: 12 }).filter((text) => !/[~*]/.test(text));
  const row = fc.record({ volumeL: cell, bar: cell, ratedBar: cell, testedUntil: cell });
  fc.assert(
    fc.property(fc.array(row, { minLength: 1, maxLength: 20 }), (rows) => {
      expect(readCylinders(writeCylinders(rows))).toEqual(rows);
      const vessels = rows.map(({ volumeL, bar }) => ({ volumeL, bar }));
      expect(readVessels(writeVessels(vessels))).toEqual(vessels);
    }),
  );
});

test('decimal commas keep, what parts the rows does not', () => {
  expect(writeVessels([{ volumeL: '6,8', bar: '2~0*0' }])).toBe('6,8*200');
  expect(readVessels('6,8*200~50')).toEqual([
    { volumeL: '6,8', bar: '200' },
    { volumeL: '50', bar: '' },
  ]);
  expect(readVessels(undefined)).toEqual([]);
  expect(readVessels(Array(200).fill('1*1').join('~'))).toHaveLength(60);
});
