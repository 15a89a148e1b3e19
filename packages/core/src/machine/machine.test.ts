import {
  describeMachine,
  plateAt,
  plateDoubts,
  plateProblems,
  stationName,
  stationsOf,
  type DataPlate,
} from './index.js';

function plate(more: Partial<DataPlate> = {}): DataPlate {
  return {
    siteId: 'creamery',
    tag: 'HC-1',
    family: 'piston',
    commissionedOn: '2024-03-01',
    history: 'new',
    ...more,
  };
}

const walk = (one: DataPlate) => stationsOf(one).path.map((station) => station.code);

describe('the air path', () => {
  test('a two-stage piston set has an intercooler between its stages', () => {
    expect(walk(plate({ stages: 2 }))).toEqual([
      'intake',
      'stage-1',
      'intercooler-1',
      'stage-2',
      'aftercooler',
      'separator',
      'check-valve',
      'receiver',
      'outlet',
    ]);
  });

  test('a high-pressure set cools after each stage and separates from the second on', () => {
    expect(walk(plate({ family: 'high-pressure', stages: 3 }))).toEqual([
      'intake',
      'stage-1',
      'intercooler-1',
      'stage-2',
      'intercooler-2',
      'separator-2',
      'stage-3',
      'final-separator',
      'tower',
      'pressure-maintaining-valve',
      'check-valve',
      'fill',
    ]);
    expect(
      walk(plate({ family: 'high-pressure', stages: 5 })).filter((code) => code.startsWith('stage')),
    ).toHaveLength(5);
  });

  test('a screw shows its dryer only when it has one, an oil-free set no crankcase', () => {
    expect(walk(plate({ family: 'screw', hasDryer: true }))).toContain('dryer');
    expect(walk(plate({ family: 'screw' }))).not.toContain('dryer');
    expect(
      stationsOf(plate({ family: 'piston-oil-free' })).beside.map((station) => station.code),
    ).not.toContain('crankcase');
  });

  test('stations are named for the machine at hand', () => {
    expect(stationName(plate({ drive: 'direct' }), 'drive')).toBe('Coupling');
    expect(stationName(plate(), 'drive')).toBe('Belt');
    expect(stationName(plate(), 'odd-place')).toBe('odd place');
  });
});

describe('naming a machine', () => {
  test.each([
    [{ stages: 2, cooling: 'water' as const }, 'two-stage piston, water-cooled'],
    [
      { family: 'high-pressure' as const, stages: 5, motor: 'diesel' as const },
      '5-stage high pressure, diesel',
    ],
    [{ family: 'screw' as const, motor: 'diesel' as const }, 'portable diesel screw'],
    [{ family: 'screw' as const, hasDryer: true }, 'screw with dryer'],
    [{ family: 'piston-oil-free' as const }, 'oil-free piston'],
  ])('%j is a %s', (more, text) => {
    expect(describeMachine(plate(more))).toBe(text);
  });
});

describe('the plate through time', () => {
  const changes = [
    { changedAt: 200, recordedAt: 210, changes: { workingPressureBar: null, siteId: 'joinery' } },
    { changedAt: 100, recordedAt: 300, changes: { workingPressureBar: 9 } },
  ];

  test.each([
    [99, { workingPressureBar: 8, siteId: 'creamery' }],
    [100, { workingPressureBar: 9, siteId: 'creamery' }],
    [200, { siteId: 'joinery' }],
  ])('as it was at %d', (at, expected) => {
    const found = plateAt(plate({ workingPressureBar: 8 }), changes, at);
    expect(found).toMatchObject(expected);
    expect('workingPressureBar' in found).toBe('workingPressureBar' in expected);
  });
});

describe('doubting a plate', () => {
  const codes = (more: Partial<DataPlate>) =>
    plateDoubts(plate(more)).map((doubt) => `${doubt.code} ${doubt.field}`);

  test('settings in order raise no doubt', () => {
    expect(
      codes({ cutInBar: 6, workingPressureBar: 8, cutOutBar: 8, reliefBar: 9, maximumPressureBar: 9 }),
    ).toEqual([]);
  });

  test.each([
    [{ cutInBar: 8, workingPressureBar: 8 }, 'pressure-order workingPressureBar'],
    [{ cutOutBar: 9, reliefBar: 9 }, 'relief-order reliefBar'],
    [{ reliefBar: 12, maximumPressureBar: 11 }, 'relief-order maximumPressureBar'],
    [{ stages: 1, workingPressureBar: 300 }, 'stages-for-pressure stages'],
    [{ workingPressureBar: 13 }, ''],
    [{ workingPressureBar: 14 }, 'stages-for-pressure workingPressureBar'],
    [{ stages: 2, workingPressureBar: 40 }, ''],
    [{ workingPressureBar: 12, maximumPressureBar: 11 }, 'pressure-order maximumPressureBar'],
    [{ cutInBar: 10, maximumPressureBar: 10 }, 'pressure-order maximumPressureBar'],
    [{ displacementLpm: 300, fadLpm: 290 }, 'fad-share fadLpm'],
    [{ displacementLpm: 300, fadLpm: 110 }, 'fad-share fadLpm'],
  ])('%j', (more, doubt) => {
    expect(codes(more)).toEqual(doubt === '' ? [] : [doubt]);
  });

  test('a share of 0.4 to 0.95 of displacement is believed', () => {
    expect(codes({ displacementLpm: 100, fadLpm: 40 })).toEqual([]);
    expect(codes({ displacementLpm: 100, fadLpm: 95 })).toEqual([]);
  });

  test('what cannot be is refused', () => {
    expect(plateProblems(plate({ stages: 6 }))[0]?.sentence).toBe(
      'A piston compressor has 1 to 2 stages, not 6.',
    );
    expect(plateProblems(plate({ family: 'high-pressure', stages: 5 }))).toEqual([]);
    expect(plateProblems(plate({ retiredOn: '2024-01-01' }))[0]?.code).toBe('retired-before-commissioned');
  });
});
