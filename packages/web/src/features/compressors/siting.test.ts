import type { DataPlate } from '@entretien/core/machine';
import { describeCommissioned, sitingPoints } from './siting.js';

const plate = (more: Partial<DataPlate>): DataPlate => ({
  siteId: 's',
  tag: 'T-1',
  family: 'piston',
  commissionedOn: '2026-01-01',
  history: 'new',
  ...more,
});
const codes = (more: Partial<DataPlate>) => sitingPoints(plate(more)).map(({ code }) => code);

test('an engine stands outdoors, a motor is an electrician’s', () => {
  expect(codes({ motor: 'diesel' })).toContain('outdoors');
  expect(codes({ motor: 'diesel' })).not.toContain('electrician');
  expect(codes({ motor: 'three-phase' })).toContain('electrician');
  expect(codes({})).toContain('electrician');
});

test('oil and lubricator only where there are any', () => {
  expect(codes({ family: 'piston-oil-free' })).not.toContain('oil');
  expect(codes({ cooling: 'water' })).toContain('lubricator');
  expect(codes({})).not.toContain('lubricator');
});

test('the record names what was seen to and what is open', () => {
  expect(describeCommissioned(plate({}), [])).toBe('');
  const some = describeCommissioned(plate({}), ['base', 'filter']);
  expect(some).toMatch(
    /^Checked: On a firm and dust-free base, level within 5°; Intake filter fitted\. Open: No transit damage/,
  );
  expect(describeCommissioned(plate({}), codes({}))).not.toContain('Open:');
});
