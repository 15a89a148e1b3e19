import type { CompressorView, MeterView, SiteMetersView, SiteView } from '@entretien/contracts';
import type { DataPlate } from '@entretien/core/machine';
import type { CompressorFacts } from '../data/queries.js';
import { daysAgo } from './render-page.js';

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

/** The meter of a unit that ran eight hours a day, read every five days, last five days ago. */
export function meterOf(more: object = {}): MeterView {
  const readings = [30, 25, 20, 15, 10, 5].map((days) => ({
    id: `r${days}`,
    takenAt: daysAgo(days),
    recordedAt: daysAgo(days),
    hours: 1200 - days * 8,
    counts: 'total',
    source: 'typed',
  }));
  return { compressorId: 'unit', tag: 'CJ-1', readings, meterChanges: [], ...more } as unknown as MeterView;
}

export function siteMetersOf(meter: MeterView): SiteMetersView {
  const { id, name, timeZone } = site;
  return {
    siteId: id,
    siteName: name,
    timeZone,
    at: daysAgo(0),
    items: [meter],
  } as unknown as SiteMetersView;
}
