import { DAY_MS, type Instant } from '../basics/index.js';
import type { HourLog } from '../hours/index.js';
import { hasEngine, isBreathed, isOilLubricated, type DataPlate } from '../machine/index.js';

/** A machine that stood for so long is brought back by a list, not by its switch (common practice). */
export const STOOD_DAYS = 90;
/** Turned over for a moment, it stood all the same, h. */
const STOOD_HOURS = 2;

/** One thing to see to before a machine that stood runs again. */
export interface BringBackStep {
  readonly code: string;
  readonly name: string;
  /** How, and what standing did to it. */
  readonly how: string;
  readonly caution?: string;
}

interface Step extends BringBackStep {
  readonly when?: (plate: DataPlate) => boolean;
}

const isDiesel = ({ motor }: DataPlate) => motor === 'diesel';

/** In the order in which it is gone through: nothing turns before the last two. */
const steps: readonly Step[] = [
  {
    code: 'locked',
    name: 'Locked out and vented',
    how: 'It stood, and may hold pressure all the same: every drain opened slowly and left open until nothing comes.',
    caution: 'Months of standing are no proof that it is empty.',
  },
  {
    code: 'vermin',
    name: 'Intake, shroud and cooler',
    how: 'Nests, leaves, gnawed cables and hoses; a new element where the old one is damp.',
  },
  {
    code: 'drains',
    name: 'Drains',
    how: 'Each one free, rust and sludge out; automatic ones tried. A receiver that gives rust is looked at inside.',
  },
  {
    code: 'oil',
    name: 'Oil',
    when: isOilLubricated,
    how: 'Water settles under it: some let out at the lowest point until clean oil comes. Milky or older than its months: changed.',
    caution: 'Used oil goes to licensed disposal.',
  },
  {
    code: 'fuel',
    name: 'Fuel',
    when: hasEngine,
    how: 'Stale or gelled, water at its bottom, or the wrong one: drained and new; the filter bled.',
    caution: 'No flame, no spark, engine cold.',
  },
  {
    code: 'engine',
    name: 'Engine oil, coolant, battery',
    when: hasEngine,
    how: 'Levels, frost; battery charged away from the fuel; lamps and preheat tried.',
  },
  {
    code: 'running-gear',
    name: 'Brakes, tyres, lights',
    when: (plate) => plate.family === 'screw' && isDiesel(plate),
    how: 'Brakes rust fast where they stood; chocked until they are free and hold.',
    caution: 'On level ground, wheels chocked.',
  },
  {
    code: 'water',
    name: 'Cooling water',
    when: ({ cooling }) => cooling === 'water',
    how: 'Frost cracks, lime and a seized pump: filled, vented, seen to run.',
  },
  {
    code: 'belt',
    name: 'Belt and coupling',
    when: ({ drive }) => drive !== 'direct',
    how: 'A belt that lay for months is set in its bend: cracks, and its tension again after 24 to 48 h of running.',
  },
  {
    code: 'motor',
    name: 'Motor and panel',
    when: (plate) => !hasEngine(plate),
    how: 'Where it stood damp an electrician measures the insulation first.',
    caution: 'Panels with live parts are an electrician’s.',
  },
  {
    code: 'cartridge',
    name: 'Purifier cartridge',
    when: ({ family }) => family === 'high-pressure',
    how: 'New: an opened one has taken up water while it stood.',
  },
  {
    code: 'papers',
    name: 'What ran out meanwhile',
    how: 'Examinations of vessels and cylinders, the relief test, hoses by their date.',
  },
  {
    code: 'by-hand',
    name: 'Turned over by hand',
    how: 'Two full turns, still locked out. A hard spot is looked for before power is near it.',
    caution: 'Fingers clear of fan and belt.',
  },
  {
    code: 'first-minutes',
    name: 'First minutes watched',
    how: 'Without load, a hand at the switch: sound, oil pressure, every gauge, leaks. Stopped after five minutes and looked over, then loaded.',
    caution: 'Nobody in line with hoses and relief valves.',
  },
  {
    code: 'air',
    name: 'Air measured before anybody breathes',
    when: isBreathed,
    how: 'CO and water at the outlet after the first run; what was filled before that is let out.',
  },
];

/** The list for a machine. */
export function bringBackSteps(plate: DataPlate): readonly BringBackStep[] {
  return steps.filter(({ when }) => when?.(plate) ?? true).map(({ when: _when, ...step }) => step);
}

/**
 * Since when a machine has stood by its meter, where that is long enough to matter; null where it ran, where nobody
 * knows, and where it was brought back since.
 *
 * @param log what its meters said; estimates say nothing
 * @param broughtBack moments at which the list was gone through
 */
export function stoodSince(log: HourLog, broughtBack: readonly Instant[] = []): Instant | null {
  const since = Math.max(-Infinity, ...log.meterChanges.map(({ changedAt }) => changedAt));
  const read = log.readings
    .filter(({ counts, source, takenAt }) => counts === 'total' && source !== 'estimated' && takenAt > since)
    .sort((a, b) => a.takenAt - b.takenAt);
  const last = read.at(-1);
  if (!last) return null;
  let first = last;
  for (let index = read.length - 1; index >= 0 && last.hours - read[index]!.hours <= STOOD_HOURS; index -= 1)
    first = read[index]!;
  const from = Math.max(first.takenAt, ...broughtBack.filter((at) => at <= last.takenAt));
  const isBack = broughtBack.some((at) => at > last.takenAt);
  return !isBack && last.takenAt - from >= STOOD_DAYS * DAY_MS ? from : null;
}
