import { guessOptions, importQuery, missingColumns, openList, rowRanges } from './import-options.js';

const file = (text: string) => new File([text], 'hours.csv');

describe('a list that was chosen', () => {
  test('is looked at: columns, sign between them, and how it is likely to be read', async () => {
    const list = (await openList(file('Tag;Datum;Date;Hours\nHC-1;x;24.11.2026;1234,5\n')))!;
    expect(list).toMatchObject({ columns: ['Tag', 'Datum', 'Date', 'Hours'], delimiter: 'semicolon' });
    const options = guessOptions(list, 'Europe/Zurich');
    expect(options).toMatchObject({
      unitColumn: 'Tag',
      hoursColumn: 'Hours',
      timeColumn: '',
      decimal: 'comma',
      dateOrder: 'dmy',
      timeZone: 'Europe/Zurich',
    });
    expect(missingColumns(options)).toEqual([]);
    expect(missingColumns({ ...options, unitColumn: '', hoursColumn: '' })).toEqual([
      'the unit',
      'the hours',
    ]);
    const query = new URLSearchParams(importQuery('commit', options, list.delimiter, [3, 9, 8, 7]));
    expect(Object.fromEntries(query)).toMatchObject({
      mode: 'commit',
      delimiter: 'semicolon',
      leaveOut: '3,7-9',
    });
  });

  test.each(['', 'only one column\n1\n', 'a,b\0c\n'])('is no list: %j', async (text) => {
    expect(await openList(file(text))).toBeNull();
  });
});

test.each([
  [[], ''],
  [[4], '4'],
  [[4, 5], '4-5'],
  [[9, 2, 3, 4, 7], '2-4,7,9'],
])('rows %j are written “%s”', (rows, text) => {
  expect(rowRanges(rows)).toBe(text);
});
