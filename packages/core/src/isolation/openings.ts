import type { DataPlate } from '../machine/index.js';
import { isolationList } from './lists/index.js';

/** What work opens in a machine, by code, with its name and the points that it needs. */
export interface KnownOpening {
  readonly code: string;
  readonly name: string;
}

/** Everything that can be opened at a machine, from the outside in. */
export function openingsOf(plate: DataPlate): readonly KnownOpening[] {
  return Object.entries(isolationList(plate).openings).map(([code, { name }]) => ({ code, name }));
}
