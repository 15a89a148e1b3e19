import type { Instant } from '../basics/index.js';
import type { DataPlate } from '../machine/index.js';
import { STILL } from './body.js';
import {
  type Given,
  type IsolationFold,
  NOTHING_ISOLATED,
  placesOf,
  personKey,
  isAnotherDay,
  holdsAt,
  isEmptyUnderLid,
  placeKey,
} from './fold-state.js';
import { isolationList, opensLid, pointOf, pointsNeeded } from './lists/index.js';
import { tilesOf, type IsolationPoint } from './point.js';
import { type Guarded, rulesOf, pauseMs } from './rules.js';

/** Who wants to open something, on which page, when. */
export interface Asking {
  readonly at: Instant;
  readonly by: string;
  readonly session: string;
}

/** A point that does not hold for somebody; `still` where only the look after a pause is missing. */
export interface Missing {
  readonly point: string;
  readonly tiles: readonly string[];
}

/**
 * What somebody lacks to open something now.
 *
 * @param opens codes of what is opened; null where nobody said: then everything
 * @returns empty where it can be opened
 */
export function missingFor(
  guarded: Guarded,
  fold: IsolationFold,
  opens: readonly string[] | null,
  asking: Asking,
): readonly Missing[] {
  const { plate } = guarded;
  const rules = rulesOf(guarded);
  const asked = isAnotherDay(guarded, fold, asking.at) ? NOTHING_ISOLATED : fold;
  const needed = pointsNeeded(plate, opens).map((code) => pointOf(plate, code)!);
  const hasLid = opensLid(plate, opens);
  const vents = needed.filter(({ kind }) => kind === 'vent').flatMap(placesOf);
  const lacking = needed.flatMap((point): Missing[] => {
    if (point.kind === 'drive') {
      const isOn = !rules.has('own-lock') || asked.locks.has(asking.by);
      return isOn ? [] : [{ point: point.code, tiles: [''] }];
    }
    if (point.kind === 'look') {
      const isSeen = !rules.has('second-look') || vents.every((key) => asked.look?.covers.includes(key));
      return isSeen ? [] : [{ point: point.code, tiles: [''] }];
    }
    const tiles = tilesOf(point).filter(({ code }) => {
      const vent = asked.vents.get(placeKey(point.code, code));
      const isLeft = hasLid && vent !== undefined && !isEmptyUnderLid(vent);
      return isLeft || !holdsAt(guarded, asked, point.code, code);
    });
    return tiles.length === 0 ? [] : [{ point: point.code, tiles: tiles.map(({ code }) => code) }];
  });
  if (lacking.length > 0) return lacking;
  return needed.length === 0 || isAllSeen(guarded, asked, needed, asking)
    ? []
    : [{ point: STILL, tiles: [''] }];
}

/** Whether somebody has seen all of it, without a pause since, or looked at it again. */
function isAllSeen(
  guarded: Guarded,
  fold: IsolationFold,
  needed: readonly IsolationPoint[],
  { at, by, session }: Asking,
): boolean {
  const rules = rulesOf(guarded);
  const here = fold.presence.get(personKey({ by, session }));
  const isHere = here !== undefined && at - here.last <= pauseMs(guarded);
  if (!isHere && rules.has('pause')) return false;
  const since = here?.since ?? at;
  const still = here?.still ?? -Infinity;
  return needed.flatMap(givenAt).every(({ at: givenAtMoment, by: giver, session: page }) => {
    if (still >= givenAtMoment) return true;
    if ((giver !== by || page !== session) && rules.has('see-for-yourself')) return false;
    return givenAtMoment >= since || !rules.has('pause');
  });

  function givenAt(point: IsolationPoint): readonly Given[] {
    const found = (key: string): Given | undefined =>
      point.kind === 'drive' ? fold.locks.get(by) : (fold.vents.get(key) ?? fold.held.get(key));
    if (point.kind === 'look') return fold.look ? [fold.look] : [];
    return placesOf(point).flatMap((key) => found(key) ?? []);
  }
}

/** The points of a machine’s own list in words, for a sentence. */
export function describeMissing(plate: DataPlate, missing: readonly Missing[]): string {
  if (missing.some(({ point }) => point === STILL))
    return 'After a pause, look again: your lock and tags on, vents open, nothing comes, needles at rest.';
  const names = missing.map(({ point, tiles }) => {
    const found = isolationList(plate).points.find(({ code }) => code === point)!;
    const places = tilesOf(found).filter(({ code }) => code !== '' && tiles.includes(code));
    return places.length === 0 || found.tiles === undefined
      ? found.name
      : `${found.name} (${places.map(({ name }) => name).join(', ')})`;
  });
  return `Not isolated for that. Still to do: ${names.join('; ')}.`;
}
