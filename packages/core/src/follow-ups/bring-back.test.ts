import { DAY_MS } from '../basics/index.js';
import type { HourLog, HourReading } from '../hours/index.js';
import type { DataPlate } from '../machine/index.js';
import { bringBackSteps, stoodSince } from './index.js';

const plate = (more: Partial<DataPlate>): DataPlate => ({
  siteId: 's',
  tag: 'T-1',
  family: 'piston',
  commissionedOn: '2024-01-01',
  history: 'new',
  ...more,
});
const codes = (more: Partial<DataPlate>) => bringBackSteps(plate(more)).map(({ code }) => code);

describe('the list for a machine that stood', () => {
  test('goes by what the machine has', () => {
    expect(codes({ family: 'screw', motor: 'diesel', drive: 'direct' })).toEqual([
      'locked',
      'vermin',
      'drains',
      'oil',
      'fuel',
      'engine',
      'running-gear',
      'papers',
      'by-hand',
      'first-minutes',
    ]);
    expect(codes({ family: 'high-pressure', motor: 'petrol' })).toEqual(
      expect.arrayContaining(['fuel', 'belt', 'cartridge', 'air']),
    );
    expect(codes({ family: 'piston-oil-free' })).not.toContain('oil');
    expect(codes({ cooling: 'water', stages: 2 })).toContain('water');
    expect(codes({ airUse: 'breathing' })).toContain('air');
  });

  test('begins with proving it empty; it is turned by hand before it runs, and runs before anybody breathes', () => {
    for (const family of ['piston', 'piston-oil-free', 'screw', 'high-pressure'] as const) {
      const list = codes({ family });
      expect(list[0]).toBe('locked');
      expect(list.indexOf('by-hand')).toBeLessThan(list.indexOf('first-minutes'));
      if (list.includes('air')) expect(list.at(-1)).toBe('air');
    }
  });
});

describe('since when a machine stands', () => {
  const read = (days: number, hours: number, more: Partial<HourReading> = {}): HourReading => ({
    takenAt: days * DAY_MS,
    hours,
    counts: 'total',
    source: 'typed',
    recordedAt: days * DAY_MS,
    ...more,
  });
  const log = (readings: readonly HourReading[], changed: readonly number[] = []): HourLog => ({
    readings,
    meterChanges: changed.map((days) => ({
      changedAt: days * DAY_MS,
      oldFinalHours: 9,
      newStartHours: 0,
      reason: 'replaced',
      recordedAt: days * DAY_MS,
    })),
  });
  const days = (of: HourLog, back: readonly number[] = []) => {
    const since = stoodSince(
      of,
      back.map((one) => one * DAY_MS),
    );
    return since === null ? null : since / DAY_MS;
  };

  test('ninety days without hours on its meter, whoever read it in between; a turn by hand counts for nothing', () => {
    expect(days(log([read(0, 90), read(10, 100), read(99, 100)]))).toBeNull();
    expect(days(log([read(0, 90), read(10, 100), read(100, 100)]))).toBe(10);
    expect(days(log([read(100, 101.5), read(60, 100.5), read(10, 100), read(0, 90)]))).toBe(10);
    expect(days(log([read(10, 100), read(100, 103)]))).toBeNull();
    expect(days(log([]))).toBeNull();
  });

  test('estimates, loaded hours and another meter say nothing of it', () => {
    expect(days(log([read(10, 100), read(100, 100, { source: 'estimated' })]))).toBeNull();
    expect(days(log([read(10, 100), read(100, 100, { counts: 'loaded' })]))).toBeNull();
    expect(days(log([read(10, 0), read(100, 0)], [50]))).toBeNull();
  });

  test('brought back it stands no more, until it has stood as long again', () => {
    const stood = log([read(10, 100), read(100, 100)]);
    expect(days(stood, [101])).toBeNull();
    expect(days(stood, [50])).toBeNull();
    expect(days(log([read(10, 100), read(100, 100), read(200, 100)]), [101])).toBe(101);
  });
});
