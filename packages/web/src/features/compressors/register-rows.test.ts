import type { FleetCompressorView } from '@entretien/contracts';
import { filterOf, matches } from './register-rows.js';

const unit = {
  tag: 'CJ-1',
  siteName: 'Coppel Joinery',
  description: 'two-stage piston',
  family: 'piston',
  siteId: 'joinery',
  tasks: [
    { name: 'Belt check', state: 'overdue' },
    { name: 'Leak survey', state: 'fresh' },
  ],
  counts: { fresh: 3, unknown: 0, nearing: 1, due: 0, overdue: 2 },
} as unknown as FleetCompressorView;

const found = (query: string) => matches(unit, filterOf(new URLSearchParams(query)));

test.each([
  ['', true],
  ['find=cj', true],
  ['find=joinery+piston', true],
  ['find=joinery+screw', false],
  ['find=belt', true],
  ['find=survey', false], // not due
  ['family=piston', true],
  ['family=screw', false],
  ['family=turbine', true], // no such family: not a filter
  ['site=joinery', true],
  ['site=quarry', false],
  ['state=late', true],
  ['state=due', false],
  ['state=nearing&find=CJ-1', true],
])('“%s” finds it: %s', (query, expected) => {
  expect(found(query)).toBe(expected);
});
