import { BREATHED_CO_PPM } from '../air/index.js';
import type { LocalDate, Problem } from '../basics/index.js';
import { isBreathed, type DataPlate } from '../machine/index.js';
import { bar, connectorBars, cylinderProblems, type FillCylinder } from './cylinder.js';

/** What somebody says to have looked at before air flows. Nobody can measure it, so each is asked. */
export const fillLooks = ['valve', 'connector', 'secured', 'built-up'] as const;
export type FillLook = (typeof fillLooks)[number];

/** How a task of the set stands, as far as a fill hangs on it. */
export interface AnsweringTask {
  readonly code: string;
  readonly name: string;
  readonly state: string;
}

/** The set that is to fill. */
export interface FillSet {
  readonly plate: DataPlate;
  /** What stands against using it, each in words. */
  readonly stops: readonly { readonly scope: string; readonly place: string | null; readonly why: string }[];
  readonly tasks: readonly AnsweringTask[];
  /** What was last measured or looked at and found to be mended first, of the checks that a fill hangs on. */
  readonly findings?: readonly { readonly check: string; readonly reason: string }[];
}

/** Checks that a fill hangs on: what is found to be mended first is mended before anything is filled. */
const checksOfAir = ['co-monitor', 'co-alarm', 'tower-ring'] as const;
const checksOfPressure = ['fill-hose'] as const;
export const checksBeforeFill: readonly string[] = [...checksOfAir, ...checksOfPressure];

/** A fill before it begins. */
export interface FillIntent {
  readonly cylinder: FillCylinder;
  /** What stands in it, bar by gauge; null before it was read: then it stands against nothing. */
  readonly fromBar: number | null;
  /** Where it is to stop. */
  readonly toBar: number;
  /** What the connector is marked with. */
  readonly connectorBar: number;
  readonly today: LocalDate;
  /** What the CO monitor shows, ppm; null where it was not read. */
  readonly coPpm?: number | null;
}

/** Below this a cylinder was found empty: water, salt and dirt may have come in. */
export const LEAST_FOUND_BAR = 1;

/** Tasks that what is breathed hangs on, and what is said where one of them is past its point. */
const breathedTasks: Readonly<Record<string, string>> = {
  'cartridge-replace': 'the cartridge is spent',
  'co-calibrate': 'the CO monitor is past its calibration',
};
const past = new Set(['due', 'overdue', 'unknown']);

/** Whether a stop is about one side of the panel alone, and not the one that is meant. */
function isOtherSide({ scope, place }: FillSet['stops'][number], connectorBar: number): boolean {
  if (scope !== 'side' || place === null) return false;
  const named = connectorBars.filter((one) => new RegExp(`\\b${one}\\b`).test(place));
  return named.length > 0 && !named.includes(connectorBar as 200);
}

/** Why a set must fill nothing now, through a connector. */
export function setProblems(
  { plate, stops, tasks, findings = [] }: FillSet,
  connectorBar: number,
): readonly Problem[] {
  const found: Problem[] = [];
  if (plate.family !== 'high-pressure')
    found.push({ code: 'no-filling-set', sentence: `${plate.tag} fills no cylinders.` });
  for (const stop of stops) {
    if (isOtherSide(stop, connectorBar)) continue;
    found.push({ code: 'out-of-service', sentence: `${plate.tag} is out of service: ${stop.why}` });
  }
  const asked: readonly string[] = isBreathed(plate) ? checksBeforeFill : checksOfPressure;
  for (const { check, reason } of findings) {
    if (asked.includes(check))
      found.push({ code: `${check}-found`, sentence: `First on ${plate.tag}: ${reason}` });
  }
  if (!isBreathed(plate)) return found;
  for (const { code, state } of tasks) {
    const because = breathedTasks[code];
    if (because !== undefined && past.has(state))
      found.push({
        code: `${code}-due`,
        sentence:
          state === 'unknown'
            ? `Nobody is to breathe from ${plate.tag}: nothing is on record that says that ${because.replace('is ', 'is not ')}.`
            : `Nobody is to breathe from ${plate.tag}: ${because}.`,
      });
  }
  return found;
}

/** A switch stops at its setting; a hand is slower, and stops earlier (common practice: a tenth under). */
const BY_HAND = 0.9;

/** Where a fill is to stop: the weakest of stamp, connector and set, bar by gauge; by hand a tenth under. 0 where nothing is known. */
export function usualAim({ plate }: FillSet, { ratedBar, connectorBar }: FillCylinder): number {
  const { cutOutBar, workingPressureBar, stopsBy } = plate;
  const known = [ratedBar, connectorBar, cutOutBar ?? workingPressureBar].filter(
    (figure): figure is number => figure !== null && figure !== undefined,
  );
  const most = known.length === 0 ? 0 : Math.min(...known);
  return stopsBy === 'hand' ? Math.floor(most * BY_HAND) : most;
}

/** Everything that stands against a fill, before air flows; none where it may begin. */
export function fillProblems(set: FillSet, intent: FillIntent): readonly Problem[] {
  const { cylinder, fromBar, toBar, connectorBar, today, coPpm } = intent;
  const { ratedBar, connectorBar: valveBar } = cylinder;
  const { maximumPressureBar, workingPressureBar } = set.plate;
  const found = [...setProblems(set, connectorBar), ...cylinderProblems(cylinder, today)];
  const refuse = (code: string, sentence: string, field?: string) =>
    found.push(field === undefined ? { code, sentence } : { code, sentence, field });
  if (valveBar && connectorBar !== valveBar)
    refuse(
      'wrong-connector',
      `The connector is marked ${connectorBar} bar, the valve of the cylinder ${valveBar} bar. One does not belong on the other.`,
      'connectorBar',
    );
  if (ratedBar && toBar > ratedBar)
    refuse('over-rating', `It is stamped ${bar(ratedBar)}; ${bar(toBar)} is more.`, 'toBar');
  const most = maximumPressureBar ?? workingPressureBar;
  if (most !== undefined && toBar > most)
    refuse('over-set', `${set.plate.tag} is made for ${bar(most)}; ${bar(toBar)} is more.`, 'toBar');
  if (toBar > connectorBar)
    refuse('over-connector', `The connector is marked ${connectorBar} bar; ${bar(toBar)} is more.`, 'toBar');
  if (isBreathed(set.plate) && typeof coPpm === 'number' && coPpm > BREATHED_CO_PPM)
    refuse(
      'co-high',
      `The CO monitor shows ${coPpm} ppm; above ${BREATHED_CO_PPM} ppm nobody breathes it. Stop the set, look at its intake and its heat.`,
      'coPpm',
    );
  if (fromBar === null) return found;
  if (fromBar < LEAST_FOUND_BAR)
    refuse(
      'found-empty',
      'It was found empty: water or dirt may be in it. It is looked into first, by who may open it.',
      'fromBar',
    );
  if (fromBar >= toBar) refuse('full-already', 'It holds that much already.', 'fromBar');
  return found;
}
