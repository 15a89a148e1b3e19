import type { CompressorView, SiteView } from '@entretien/contracts';
import type { DataPlate } from '@entretien/core/machine';
import type { CompressorFacts } from '../data/queries.js';

/** Ids as the contracts want them, told apart by a digit. */
export function idOf(digit: number): string {
  return `01890a5d-ac96-774b-bcce-b30209900${String(digit).padStart(3, '0')}`;
}

/** A unit as the server tells of one. */
export function unitOf(more: object): CompressorView {
  const plate = { tag: 'CJ-1', family: 'piston', siteId: 'site', commissionedOn: '2026-01-01', marks: [] };
  return { id: 'unit', revision: 1, ...plate, ...more } as unknown as CompressorView;
}

/** A piston set with a receiver, as the core knows it. */
export const pistonPlate = {
  siteId: 's',
  tag: 'X-1',
  family: 'piston',
  commissionedOn: '2024-01-01',
  history: 'new',
  motor: 'three-phase',
  receiverL: 100,
} as DataPlate;

export const site = {
  id: 'site',
  name: 'Coppel Joinery',
  timeZone: 'Europe/Zurich',
  altitudeM: 640,
} as unknown as SiteView;

/** What is on record of a unit; nothing where nothing is said. */
export function factsOf(more: object = {}): CompressorFacts {
  const none = { readings: [], meterChanges: [], services: [], measurements: [] };
  return { ...none, ...more } as unknown as CompressorFacts;
}
