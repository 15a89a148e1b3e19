import { drainsOf, plateDoubts, type DataPlate } from './index.js';

const plate = (more: Partial<DataPlate>): DataPlate => ({
  siteId: 's',
  tag: 'T',
  family: 'piston',
  commissionedOn: '2020-01-01',
  history: 'unknown',
  ...more,
});
const where = (more: Partial<DataPlate>) => drainsOf(plate(more)).map(({ station }) => station);

test.each<[Partial<DataPlate>, string[]]>([
  [{ family: 'piston' }, ['separator', 'receiver']],
  [{ family: 'piston', stages: 2 }, ['intercooler-1', 'separator', 'receiver']],
  [{ family: 'piston-oil-free' }, ['separator', 'receiver']],
  // The foot of a screw’s separator vessel holds oil.
  [{ family: 'screw' }, ['water-separator', 'receiver']],
  [{ family: 'screw', hasDryer: true }, ['water-separator', 'dryer', 'receiver']],
  [{ family: 'high-pressure', stages: 3 }, ['separator-2', 'final-separator', 'tower']],
  [
    { family: 'high-pressure', stages: 5 },
    ['separator-2', 'separator-3', 'separator-4', 'final-separator', 'tower'],
  ],
])('%j is drained at %j', (more, stations) => {
  expect(where(more)).toEqual(stations);
});

test.each<[Partial<DataPlate>, number, boolean]>([
  [{ family: 'high-pressure' }, 12, true],
  [{ family: 'high-pressure', drainsBy: 'automatic' }, 10, true],
  [{ family: 'high-pressure', drainEveryMin: 7 }, 7, false],
  [{ family: 'piston', stages: 2 }, 480, true],
  [{ family: 'piston' }, 1440, true],
  [{ family: 'screw' }, 1440, true],
])('%j: every %d min', (more, everyMin, isUsual) => {
  expect(drainsOf(plate(more))[0]).toMatchObject({ everyMin, isUsual });
});

test('at high pressure more than a quarter of an hour is asked about', () => {
  const codes = (more: Partial<DataPlate>) =>
    plateDoubts(plate({ family: 'high-pressure', ...more })).map(({ code }) => code);
  expect(codes({ drainEveryMin: 15 })).toEqual([]);
  expect(codes({ drainEveryMin: 16 })).toEqual(['drained-seldom']);
  expect(plateDoubts(plate({ drainEveryMin: 480 }))).toEqual([]);
});
