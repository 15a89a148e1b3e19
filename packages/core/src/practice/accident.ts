import { openingsOf } from '../isolation/index.js';
import type { DataPlate } from '../machine/index.js';
import type { Handling, Place, Simulation } from '../simulator/index.js';
import type { Accident } from './exercise.js';

/** What is unscrewed holds no more than this, bar. */
export const EMPTY_BAR = 0.1;
/** What is unscrewed with no more than this hisses, and throws nothing, bar. */
export const HISSES_BAR = 0.3;
/** Oil is no hotter than this when something of it is opened, °C (common practice). */
export const OIL_MOST_C = 60;
/** What is thrown, by its width, mm: a plug, or the lid of a separator vessel. */
const [PLUG_MM, LID_MM] = [25, 200];
const GRAVITY = 9.81;

/** What is known of a space beside what stands in it now. */
export interface SpaceHistory {
  /** When it was last empty, s; null where it never was. */
  readonly emptyAt: number | null;
  readonly wasOpened: (vent: string) => boolean;
  /** Whether what vents it lets nothing through. */
  readonly isBlocked: (vent: string) => boolean;
  readonly wasInterruptedSince: boolean;
}

/** Name of a thing that is opened, as its isolation has it. */
export function openingName(plate: DataPlate, code: string): string {
  return openingsOf(plate).find((one) => one.code === code)?.name ?? code;
}

/** What is thrown when a space is opened under pressure, and the step that was left out. */
export function thrownOpen(
  simulation: Simulation,
  { handling, plate }: { readonly handling: Handling; readonly plate: DataPlate },
  { opening, space }: { readonly opening: string; readonly space: string },
  history: SpaceHistory,
): Accident {
  const { plant, spaces } = simulation.machine;
  const bar = simulation.trueBar(space);
  const isLid = opening === 'separator' && space === 'vessel';
  const mm = isLid ? LID_MM : PLUG_MM;
  const kg = Math.round((bar * 1e5 * (Math.PI / 4) * (mm / 1000) ** 2) / GRAVITY);
  const name = plant.nameOf(spaces.get(space)!);
  const work = openingName(plate, opening);
  return {
    happened: `${work}: the last thread lets go with ${bar.toFixed(bar < 10 ? 1 : 0)} bar in it (${name}). On a ${isLid ? 'lid' : 'plug'} of ${mm} mm that is ${kg} kg, in the face of whoever holds the spanner.`,
    leftOut: leftOut(simulation, handling, space, history),
  };
}

/** The step that would have shown that a space was not empty, or kept it so. */
function leftOut(
  simulation: Simulation,
  handling: Handling,
  space: string,
  { emptyAt, wasOpened, isBlocked, wasInterruptedSince }: SpaceHistory,
): string {
  const { turnables } = simulation.machine;
  const isOpen = (code: string) => turnables.get(code)!.share > 0;
  const nameOf = (code: string) => turnables.get(code)!.name.toLowerCase();
  if (emptyAt !== null) {
    const minutes = Math.max(1, Math.round((simulation.now - emptyAt) / 60));
    const feeds = feedsOf(handling).filter(isOpen);
    const fed = feeds.length > 0 ? ` ${sentence(feeds.map(nameOf))} stood open.` : '';
    const again = wasInterruptedSince
      ? 'After the interruption nobody looked again: one look at every gauge and vent, and the hold once more, before anything is unscrewed.'
      : 'What feeds it was not shut for certain, and the second look after five minutes was left out.';
    return `It was empty ${minutes} min before and filled again.${fed} ${again}`;
  }
  const vents = Object.values(handling.places).flatMap((place: Place) =>
    place.space === space ? (place.opens ?? []) : [],
  );
  const open = vents.filter(isOpen);
  const blocked = open.find(isBlocked);
  if (blocked !== undefined)
    return `The ${nameOf(blocked)} stood open and passed nothing: it is blocked, and a needle that does not move proves nothing. A second opening on the same space was due.`;
  if (open.length > 0)
    return `The ${sentence(open.map(nameOf)).toLowerCase()} was open and not yet silent. It is waited for until nothing comes and the needle has fallen.`;
  if (vents.length === 0)
    return 'It vents by itself when the set stops, and nobody listened whether it did. No hiss at the stop means that it is still full.';
  if (vents.some(wasOpened))
    return `The ${sentence(vents.map(nameOf)).toLowerCase()} was opened and shut again before it was empty. A vent stays open until the work is done.`;
  return `The ${sentence(vents.map(nameOf)).toLowerCase()} was never opened: what holds air is vented until it is silent and its needle has fallen.`;
}

const feedsOf = ({ places }: Handling) => [
  ...new Set(Object.values(places).flatMap(({ shuts }: Place) => shuts ?? [])),
];

function sentence(names: readonly string[]): string {
  const text = names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** Hands in it, and it could start. */
export function startedOnHands(plate: DataPlate, opening: string, runs: boolean): Accident {
  const work = openingName(plate, opening);
  return {
    happened: runs
      ? `${work}: it is running, and takes the hand along.`
      : `${work}: it stood, waiting for the pressure to fall, and starts by itself while the hand is in it.`,
    leftOut:
      'Stopped is not locked: power off, your own lock on it, and a try at the switch, before a guard or a cover comes off.',
  };
}

export function scalded(plate: DataPlate, opening: string, tempC: number): Accident {
  return {
    happened: `${openingName(plate, opening)}: the oil stands at ${Math.round(tempC)} °C. It comes out foaming, over hands and face.`,
    leftOut: `Oil is opened under ${OIL_MOST_C} °C by instrument: it was not waited for, or not measured.`,
  };
}
