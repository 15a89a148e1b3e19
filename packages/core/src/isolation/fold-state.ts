import { localDayAt, type Instant } from '../basics/index.js';
import type { IsolationEvent } from './body.js';
import { pointOf } from './lists/index.js';
import { tilesOf, type IsolationPoint } from './point.js';
import { type Guarded, rulesOf, pauseMs } from './rules.js';

/** A needle no further off than this rests at zero. */
export const ZERO_BAR = 0.1;

/** What speaks for an empty space; each hangs on something else. */
export type Sign = 'vent' | 'needle' | 'second-opening' | 'second-gauge' | 'seen-free' | 'stood';

export interface Given {
  readonly at: Instant;
  readonly by: string;
  readonly session: string;
}

/** A vent as it stands. */
export interface VentState extends Given {
  readonly openedAt: Instant;
  readonly openedBy: string;
  /** Whether air was seen to pass. */
  readonly hasPassed: boolean;
  readonly silentAt: Instant | null;
  readonly signs: readonly Sign[];
  /** Why it keeps its space shut: what was last said. */
  readonly against: string | null;
  readonly pressureBar: number | null;
}

interface Presence {
  /** Beginning of the time without a pause. */
  readonly since: Instant;
  readonly last: Instant;
  /** When it was last said that all of it still holds. */
  readonly still: Instant | null;
}

/** The isolation of one machine: everything that was said of it, brought together. */
export interface IsolationFold {
  readonly locks: ReadonlyMap<string, Given>;
  /** Shut valves, and what else is said to hold, by point and place. */
  readonly held: ReadonlyMap<string, Given>;
  readonly vents: ReadonlyMap<string, VentState>;
  readonly look: (Given & { readonly covers: readonly string[] }) | null;
  readonly presence: ReadonlyMap<string, Presence>;
  readonly last: Instant | null;
}

export const NOTHING_ISOLATED: IsolationFold = {
  locks: new Map(),
  held: new Map(),
  vents: new Map(),
  look: null,
  presence: new Map(),
  last: null,
};

export function placeKey(point: string, tile = ''): string {
  return tile === '' ? point : `${point}/${tile}`;
}

export function placesOf(point: IsolationPoint): readonly string[] {
  return tilesOf(point).map(({ code }) => placeKey(point.code, code));
}

export const personKey = ({ by, session }: Pick<IsolationEvent, 'by' | 'session'>) => `${by} ${session}`;

/** Nobody was there over the turn of a day. */
export function isAnotherDay(guarded: Guarded, { last }: IsolationFold, at: Instant): boolean {
  if (last === null || !rulesOf(guarded).has('another-day') || at - last <= pauseMs(guarded)) return false;
  const { timeZone = 'UTC' } = guarded;
  return localDayAt(last, timeZone) !== localDayAt(at, timeZone);
}

/** Signs that hang neither on the first vent nor on the first gauge. */
const LOOKS_AGAIN: ReadonlySet<Sign> = new Set(['second-opening', 'second-gauge']);

/** Whether a space is proved empty: two signs that do not hang on each other, and nothing against it. */
export function isEmptyBy(guarded: Guarded, fold: IsolationFold, key: string, vent: VentState): boolean {
  if (vent.against !== null || vent.signs.length === 0 || vent.silentAt === null) return false;
  if (!rulesOf(guarded).has('two-signs') || vent.signs.includes('seen-free')) return true;
  // A needle off its rest is outweighed only by what looks at the same space in another way.
  if (
    vent.pressureBar !== null &&
    vent.pressureBar > ZERO_BAR &&
    !vent.signs.some((sign) => LOOKS_AGAIN.has(sign))
  )
    return false;
  const point = pointOf(guarded.plate, key.split('/')[0]!);
  const into = point?.emptiesInto;
  const isOpenForward = into !== undefined && isPointEmpty(guarded, fold, into);
  return vent.signs.length + (isOpenForward ? 1 : 0) >= 2;
}

/** Under a lid nothing at all may be left: a needle that shows something is no sign there, however little it is. */
export function isEmptyUnderLid({ pressureBar, signs }: VentState): boolean {
  if (pressureBar === null || pressureBar === 0 || signs.includes('seen-free')) return true;
  return signs.filter((sign) => sign !== 'needle').length >= 2;
}

/** Whether every place of a vented point is proved empty. */
function isPointEmpty(guarded: Guarded, fold: IsolationFold, code: string): boolean {
  const point = pointOf(guarded.plate, code);
  return (
    point !== undefined &&
    placesOf(point).every((key) => {
      const vent = fold.vents.get(key);
      return vent !== undefined && isEmptyBy(guarded, fold, key, vent);
    })
  );
}

/** Whether one place of a point holds as it was said, whoever said it. */
export function holdsAt(
  guarded: Guarded,
  fold: IsolationFold,
  code: string,
  tile = '',
  by?: string,
): boolean {
  const point = pointOf(guarded.plate, code);
  const key = placeKey(code, tile);
  switch (point?.kind) {
    case 'drive':
      return by === undefined ? fold.locks.size > 0 : fold.locks.has(by);
    case 'vent': {
      const vent = fold.vents.get(key);
      return vent !== undefined && isEmptyBy(guarded, fold, key, vent);
    }
    case 'look':
      return fold.look !== null;
    default:
      return fold.held.has(key);
  }
}

export function allHold(guarded: Guarded, fold: IsolationFold, code: string): boolean {
  const point = pointOf(guarded.plate, code);
  return point === undefined || tilesOf(point).every((tile) => holdsAt(guarded, fold, code, tile.code));
}

/** When the last vent fell silent, but for one; of one that did not yet, when it was opened. */
export function lastSilence({ vents }: Pick<IsolationFold, 'vents'>, except?: string): Instant {
  const silences = [...vents].flatMap(([key, { silentAt, openedAt }]) =>
    key === except ? [] : [silentAt ?? openedAt],
  );
  return Math.max(0, ...silences);
}

/** Whether somebody’s lock is on the machine: it must not be started, and what runs is not looked at. */
export function isLockedBy(fold: IsolationFold, by: string): boolean {
  return fold.locks.has(by);
}
