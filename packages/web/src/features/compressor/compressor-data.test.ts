import { PlateDetails } from '@entretien/contracts';
import { families } from '@entretien/core/machine';
import { getMetadataStorage } from 'class-validator';
import type { CompressorFacts } from '../../data/queries.js';
import { hourLogOf, lastFigure } from '../../components/meter/hour-log.js';
import { allPlateGroups, fieldsFor } from '../../components/plate-fields.js';

const asked = allPlateGroups.flatMap((group) => group.fields);

describe('the fields of a data plate', () => {
  test('are all those of the contract, each once', () => {
    const metadata = getMetadataStorage().getTargetValidationMetadatas(PlateDetails, '', false, false);
    const contract = [...new Set(metadata.map((one) => one.propertyName))].sort();
    expect(asked.map((field) => field.name as string).sort()).toEqual(contract);
  });

  test.each(families)('%s is asked only what it can have', (family) => {
    const names = fieldsFor(asked, family).map((field) => field.name);
    expect(names.includes('oilChargeL')).toBe(family !== 'piston-oil-free');
    expect(names.includes('hasDryer')).toBe(family === 'screw');
    expect(names).toContain('workingPressureBar');
  });
});

describe('the hour log of a page', () => {
  const facts = {
    readings: [
      {
        takenAt: '2026-11-10T08:00:00Z',
        recordedAt: '2026-11-10T08:00:00Z',
        hours: 180,
        counts: 'total',
        source: 'typed',
      },
      {
        takenAt: '2026-11-12T08:00:00Z',
        recordedAt: '2026-11-12T08:00:00Z',
        hours: 90,
        counts: 'loaded',
        source: 'typed',
      },
    ],
    services: [
      {
        doneAt: '2026-11-14T08:00:00Z',
        recordedAt: '2026-11-14T08:00:00Z',
        hours: 200,
        tasks: ['oil-change'],
      },
      { doneAt: '2026-11-16T08:00:00Z', recordedAt: '2026-11-16T08:00:00Z', tasks: ['belt-check'] },
    ],
    meterChanges: [
      {
        changedAt: '2026-11-20T08:00:00Z',
        recordedAt: '2026-11-20T08:00:00Z',
        oldFinalHours: 220,
        newStartHours: 0,
        reason: 'replaced',
      },
    ],
  } as unknown as CompressorFacts;
  const log = hourLogOf(facts);

  test('holds readings, figures noted with services, and meter changes', () => {
    expect(log.readings.map((reading) => reading.hours)).toEqual([180, 90, 200]);
    expect(log.meterChanges).toEqual([
      expect.objectContaining({ changedAt: Date.UTC(2026, 10, 20, 8), oldFinalHours: 220, newStartHours: 0 }),
    ]);
  });

  test('knows the last figure of the total counter up to a moment', () => {
    expect(lastFigure(log, Date.UTC(2026, 10, 13))?.hours).toBe(180);
    expect(lastFigure(log, Date.UTC(2026, 10, 24))?.hours).toBe(200);
    expect(lastFigure(log, Date.UTC(2026, 10, 1))).toBeUndefined();
  });
});
