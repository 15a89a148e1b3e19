import { lower, type Instant } from '../basics/index.js';
import { STILL, type IsolateBody, type IsolationEvent, type RestartBody } from './body.js';
import { ZERO_BAR, type IsolationFold, placeKey, isEmptyBy, allHold, lastSilence } from './fold-state.js';
import { pointOf } from './lists/index.js';
import { tilesOf, type IsolationPoint } from './point.js';
import { type Guarded, rulesOf } from './rules.js';
import { leastVentSeconds } from './vent-time.js';

const MINUTE = 60_000;

/** How long a space without an opening stands. */
export const STOOD_MINUTES = 10;

/** What is silent sooner than this share of the least time is asked about. */
const TOO_SOON = 0.5;

/** Why something said at a point cannot count as it stands: nothing is changed by it. */
export interface Against {
  readonly code:
    | 'unknown-point'
    | 'old-device'
    | 'not-in-order'
    | 'not-opened'
    | 'another-opened'
    | 'too-fast'
    | 'too-soon'
    | 'contradicts'
    | 'missing-figure'
    | 'too-hot'
    | 'not-here'
    | 'anothers-lock';
  readonly sentence: string;
}

const against = (code: Against['code'], sentence: string): Against => ({ code, sentence });

/** Why something cannot be said of the isolation as it stands. */
export function reasonAgainst(
  guarded: Guarded,
  fold: IsolationFold,
  event: IsolationEvent & { readonly body: IsolateBody },
): Against | null {
  const { plate } = guarded;
  const { body, by, doneAt } = event;
  const rules = rulesOf(guarded);
  if (body.step === STILL) {
    return rules.has('own-lock') && fold.locks.size > 0 && !fold.locks.has(by)
      ? against('not-in-order', 'Your own lock first: another’s does not hold for you.')
      : null;
  }
  const point = pointOf(plate, body.step);
  const isOfThis = point !== undefined && tilesOf(point).some(({ code }) => code === (body.tile ?? ''));
  if (!isOfThis) {
    return rules.has('answer-needed') && body.answer === undefined
      ? against('old-device', 'Told by an older page: confirm it again.')
      : against('unknown-point', `“${body.step}” is no part of isolating this machine.`);
  }
  if (!body.confirmed) return null;
  if (rules.has('answer-needed') && body.answer === undefined)
    return against('old-device', 'Told by an older page: confirm it again.');
  const first = rules.has('sources-first') ? unmet(guarded, fold, point, by) : null;
  if (first !== null) return against('not-in-order', `First: ${first}.`);
  switch (point.kind) {
    case 'vent':
      return ventProblem(guarded, fold, point, body, by, doneAt);
    case 'look':
      return lookProblem(guarded, fold, point, body, doneAt);
    case 'heat':
      return heatProblem(point, body);
    default:
      return body.answer === 'holds' || body.answer === undefined
        ? null
        : against('not-here', `${point.name}: it does not hold yet. Leave it shut, and find out why.`);
  }
}

/** The first source that does not hold. */
function unmet(
  guarded: Guarded,
  fold: IsolationFold,
  { after = [] }: IsolationPoint,
  by: string,
): string | null {
  const own = rulesOf(guarded).has('own-lock');
  for (const code of after) {
    const source = pointOf(guarded.plate, code)!;
    const holds = source.kind === 'drive' && own ? fold.locks.has(by) : allHold(guarded, fold, code);
    if (!holds) return source.name;
  }
  return null;
}

function ventProblem(
  guarded: Guarded,
  fold: IsolationFold,
  point: IsolationPoint,
  { answer, needle, pressureBar, tile, isSure }: IsolateBody,
  by: string,
  at: Instant,
): Against | null {
  const rules = rulesOf(guarded);
  const known = fold.vents.get(placeKey(point.code, tile));
  if (answer === 'holds' || answer === 'is-fed')
    return against('not-here', 'Open it: it passes, and then it is silent.');
  if (needle === 'off' && pressureBar === undefined)
    return against('missing-figure', 'What does the needle show?');
  const isSaidEmpty = answer !== undefined && SAYS_EMPTY.has(answer);
  if (isSaidEmpty && needle === 'rises')
    return against(
      'contradicts',
      'Silent, and yet the needle rises: the space is being fed, or the vent is blocked. It stays shut.',
    );
  if (needle === 'fell' && (pressureBar ?? 0) > ZERO_BAR)
    return against('contradicts', `Fallen, and yet it shows ${pressureBar} bar. Is it off its rest?`);
  if (point.isHigh && (answer === 'seen-free' || answer === 'stood'))
    return against('not-here', 'Not above 15 bar: the maker or a licensed firm decides.');
  // Only a head lets its air off past valves and rings; behind a drain that is blocked it stays for days.
  if (answer === 'stood' && point.emptiesInto === undefined)
    return against(
      'not-here',
      'Standing empties nothing here: open a second opening, or fit a second gauge.',
    );
  const isFed = known?.against === 'keeps-coming' || known?.against === 'is-fed';
  if (isSaidEmpty && isFed)
    return against('not-opened', 'It kept coming: find what feeds it, then open it again and let it pass.');
  if (answer === 'silent') {
    if (!known?.hasPassed || known.against !== null)
      return against('not-opened', 'First open it, and let it pass.');
    if (rules.has('one-pair-of-ears') && known.openedBy !== by)
      return against(
        'another-opened',
        'Somebody else has opened this one. Who opened it says when it is silent; or open it again.',
      );
    const least = leastSecondsOf(point);
    if (rules.has('least-time') && isSure !== true && (at - known.openedAt) / 1000 < least * TOO_SOON) {
      return against(
        'too-fast',
        `It needs at least about ${formatTime(least)} through such a drain. Did it really go silent?`,
      );
    }
  } else if (answer === 'stood') {
    const since = Math.max(
      lastSilence(fold, placeKey(point.code, tile)),
      ...[...fold.locks.values()].map((lock) => lock.at),
    );
    if (at - since < STOOD_MINUTES * MINUTE)
      return against('too-soon', `It stands ${STOOD_MINUTES} min after everything else is silent.`);
  } else if (isSaidEmpty && answer !== 'found-empty' && !known) {
    return against('not-opened', 'First its own vent: what came when it was opened?');
  }
  return null;
}

const SAYS_EMPTY: ReadonlySet<string> = new Set([
  'silent',
  'found-empty',
  'second-opening',
  'second-gauge',
  'let-in',
  'seen-free',
  'stood',
]);

/** Least time until a vent falls silent, s. */
export function leastSecondsOf({ vented, waitMinutes = 0 }: IsolationPoint): number {
  // Where an own wait is asked, half of twice the wait is it.
  return Math.max(vented ? leastVentSeconds(vented) : 0, 120 * waitMinutes);
}

function formatTime(seconds: number): string {
  return seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`;
}

function lookProblem(
  guarded: Guarded,
  fold: IsolationFold,
  { waitMinutes = 0 }: IsolationPoint,
  { answer }: IsolateBody,
  at: Instant,
): Against | null {
  if (answer !== 'holds' && answer !== 'is-fed')
    return against('not-here', 'Nothing comes and no needle moved; or what?');
  if (answer === 'is-fed') return null;
  if (![...fold.vents].some(([key, vent]) => isEmptyBy(guarded, fold, key, vent)))
    return against('not-in-order', 'First the spaces themselves.');
  const left = waitMinutes * MINUTE - (at - lastSilence(fold));
  if (rulesOf(guarded).has('look-waits') && left > 0)
    return against('too-soon', `Not yet: ${formatTime(Math.ceil(left / 1000))} more, everything open.`);
  return null;
}

function heatProblem({ betweenC, name }: IsolationPoint, { tempC, answer }: IsolateBody): Against | null {
  if (answer !== 'holds') return against('not-here', `${name}: wait, and measure again.`);
  if (tempC === undefined || betweenC === undefined) return null;
  return tempC > betweenC[1] || tempC < betweenC[0]
    ? against('too-hot', `${tempC} °C is not ${lower(name)}. Wait.`)
    : null;
}

/**
 * What the guard has against something told of the isolation, or of starting again. What an older page confirms
 * stays on record, and counts for nothing.
 */
export function againstTelling(
  guarded: Guarded,
  fold: IsolationFold,
  event: IsolationEvent,
  nameOf?: (person: string) => string,
): Against | null {
  const { body, by } = event;
  if (body.kind === 'restart')
    return (body as RestartBody).scope === 'point' ? null : restartProblem(fold, by, nameOf);
  if (body.kind !== 'isolate') return null;
  const found = reasonAgainst(guarded, fold, { ...event, body: body as IsolateBody });
  return found?.code === 'old-device' ? null : found;
}

/** Why power and air cannot come back yet: a lock of somebody else. */
export function restartProblem(
  fold: IsolationFold,
  by: string,
  nameOf: (person: string) => string = (person) => person,
): Against | null {
  const other = [...fold.locks.keys()].find((person) => person !== by);
  return other === undefined
    ? null
    : against('anothers-lock', `The lock of ${nameOf(other)} is on: each takes off their own.`);
}
