import { causeOn, type CauseCode } from '../faults/index.js';
import type { DataPlate } from '../machine/index.js';
import { openingsOf } from '../isolation/index.js';

/** What putting a cause right opens, the first of these that the machine has. */
const OPENS: Readonly<Partial<Record<CauseCode, readonly string[]>>> = {
  BELT: ['belt'],
  OILL: ['oil'],
  OILH: ['oil'],
  OILW: ['oil'],
  OILF: ['oil'],
  COLD: ['oil'],
  CHK: ['check-valve', 'stages'],
  UNL: ['check-valve', 'valves', 'stages'],
  NRV: ['panel', 'tower'],
  HOLD: ['tower'],
  CART: ['tower'],
  REL: ['receiver', 'tower', 'separator'],
  DRNB: ['receiver', 'stages', 'separator'],
  GAUG: ['receiver', 'stages', 'separator'],
  LEAK: ['stages', 'separator'],
};

/** Codes of what is opened to put a cause right; empty where nothing under pressure is. */
export function opensForRepair(cause: CauseCode, plate: DataPlate): readonly string[] {
  const known = new Set(openingsOf(plate).map(({ code }) => code));
  const named = OPENS[cause]?.find((code) => known.has(code));
  if (named !== undefined) return [named];
  if (causeOn(cause, plate).state !== 'open') return [];
  const inside = ['stages', 'separator'].find((code) => known.has(code));
  return inside === undefined ? [] : [inside];
}
