import { reasonAgainst } from './against.js';
import { byMoment, STILL, type IsolateBody, type IsolationEvent, type RestartBody } from './body.js';
import {
  ZERO_BAR,
  type Sign,
  type Given,
  type VentState,
  type IsolationFold,
  NOTHING_ISOLATED,
  placeKey,
  personKey,
  isAnotherDay,
  isEmptyBy,
} from './fold-state.js';
import { isOfPointOfUse, pointOf } from './lists/index.js';
import type { IsolationPoint } from './point.js';
import { type Guarded, rulesOf, pauseMs } from './rules.js';

/** Brings together what was said, in the order of its moments; ties by id. */
export function isolationOf(guarded: Guarded, events: readonly IsolationEvent[]): IsolationFold {
  return [...events].sort(byMoment).reduce((fold, event) => addEvent(guarded, fold, event), NOTHING_ISOLATED);
}

/** The isolation after one more thing happened; what may not count changes nothing. */
export function addEvent(guarded: Guarded, before: IsolationFold, event: IsolationEvent): IsolationFold {
  const fold = withPresence(guarded, before, event);
  if (event.body.kind === 'restart') return afterRestart(guarded, fold, event.body as RestartBody);
  if (event.body.kind !== 'isolate') return fold;
  const body = event.body as IsolateBody;
  if (reasonAgainst(guarded, fold, { ...event, body }) !== null) return fold;
  if (!body.confirmed) return afterTakingBack(guarded, fold, body, event.by);
  const given = { at: event.doneAt, by: event.by, session: event.session };
  if (body.step === STILL) return afterStill(fold, event);
  const point = pointOf(guarded.plate, body.step);
  if (point === undefined) return fold;
  switch (point.kind) {
    case 'drive':
      return afterLocking(guarded, fold, event.by, given);
    case 'vent':
      return afterVent(guarded, fold, point, body, given);
    case 'look':
      return afterLook(guarded, fold, body, given);
    default:
      return afterHolding(guarded, fold, body, given);
  }
}

function withPresence(guarded: Guarded, fold: IsolationFold, event: IsolationEvent): IsolationFold {
  const { doneAt } = event;
  const presence = new Map(fold.presence);
  const known = presence.get(personKey(event));
  presence.set(
    personKey(event),
    known && doneAt - known.last <= pauseMs(guarded)
      ? { ...known, last: doneAt }
      : { since: doneAt, last: doneAt, still: null },
  );
  const kept = isAnotherDay(guarded, fold, doneAt) ? NOTHING_ISOLATED : fold;
  return { ...kept, presence, last: doneAt };
}

function afterRestart(guarded: Guarded, fold: IsolationFold, { scope }: RestartBody): IsolationFold {
  if (!rulesOf(guarded).has('restart-erases')) return fold;
  const isPoint = scope === 'point';
  const stays = <Value>(entries: ReadonlyMap<string, Value>) =>
    new Map([...entries].filter(([key]) => isOfPointOfUse(key.split('/')[0]!) !== isPoint));
  return {
    ...fold,
    locks: isPoint ? fold.locks : new Map(),
    held: stays(fold.held),
    vents: stays(fold.vents),
    look: isPoint ? fold.look : null,
  };
}

function afterTakingBack(
  guarded: Guarded,
  fold: IsolationFold,
  { step, tile }: IsolateBody,
  by: string,
): IsolationFold {
  const rules = rulesOf(guarded);
  const point = pointOf(guarded.plate, step);
  const key = placeKey(step, tile);
  switch (point?.kind) {
    case 'drive': {
      const locks = new Map(fold.locks);
      locks.delete(by);
      return rules.has('lock-off-erases')
        ? { ...fold, locks, vents: withoutMachine(fold.vents), look: null }
        : { ...fold, locks };
    }
    case 'vent': {
      if (!rules.has('vent-shut-erases')) return fold;
      const vents = new Map(fold.vents);
      vents.delete(key);
      return { ...fold, vents, look: fold.look?.covers.includes(key) ? null : fold.look };
    }
    case 'look':
      return { ...fold, look: null };
    default: {
      const held = new Map(fold.held);
      held.delete(key);
      const next = { ...fold, held };
      return rules.has('valve-open-erases') ? withoutRestingOn(guarded, next, step) : next;
    }
  }
}

function withoutMachine(vents: IsolationFold['vents']): IsolationFold['vents'] {
  return new Map([...vents].filter(([key]) => isOfPointOfUse(key.split('/')[0]!)));
}

/** Without the proofs whose sources include a point. */
function withoutRestingOn({ plate }: Guarded, fold: IsolationFold, source: string): IsolationFold {
  const rests = (key: string) => pointOf(plate, key.split('/')[0]!)?.after?.includes(source) === true;
  const vents = new Map([...fold.vents].filter(([key]) => !rests(key)));
  const look = fold.look?.covers.some(rests) ? null : fold.look;
  return { ...fold, vents, look };
}

function afterStill(fold: IsolationFold, event: IsolationEvent): IsolationFold {
  const presence = new Map(fold.presence);
  const key = personKey(event);
  presence.set(key, { ...presence.get(key)!, still: event.doneAt });
  return { ...fold, presence };
}

/** Who puts on a lock that is on record as on has found it off: what was proved since proves nothing. */
function afterLocking(guarded: Guarded, fold: IsolationFold, by: string, given: Given): IsolationFold {
  const locks = new Map(fold.locks).set(by, given);
  const wasOff = fold.locks.has(by) && rulesOf(guarded).has('lock-off-erases');
  return wasOff ? { ...fold, locks, vents: withoutMachine(fold.vents), look: null } : { ...fold, locks };
}

function afterHolding(guarded: Guarded, fold: IsolationFold, body: IsolateBody, given: Given): IsolationFold {
  const key = placeKey(body.step, body.tile);
  if (body.answer !== 'holds' && rulesOf(guarded).has('answer-needed')) return fold;
  const next = { ...fold, held: new Map(fold.held).set(key, given) };
  // A valve that is shut again had been moved.
  const wasMoved = fold.held.has(key) && pointOf(guarded.plate, body.step)?.kind === 'shut';
  return wasMoved && rulesOf(guarded).has('valve-open-erases')
    ? withoutRestingOn(guarded, next, body.step)
    : next;
}

function afterLook(guarded: Guarded, fold: IsolationFold, body: IsolateBody, given: Given): IsolationFold {
  if (body.answer === 'is-fed' && rulesOf(guarded).has('against')) {
    const vents = new Map(
      [...fold.vents].map(([key, vent]) => [key, { ...vent, signs: [], against: 'is-fed' } as VentState]),
    );
    return { ...fold, vents, look: null };
  }
  const covers = [...fold.vents].flatMap(([key, vent]) => (isEmptyBy(guarded, fold, key, vent) ? [key] : []));
  return { ...fold, look: { ...given, covers } };
}

function afterVent(
  guarded: Guarded,
  fold: IsolationFold,
  point: IsolationPoint,
  body: IsolateBody,
  given: Given,
): IsolationFold {
  const key = placeKey(point.code, body.tile);
  const known = fold.vents.get(key);
  const vent = ventAfter(guarded, point, body, given, known);
  const isAnew = vent.signs.length === 0 || body.answer === 'let-in';
  const look = fold.look?.covers.includes(key) && isAnew ? null : fold.look;
  return { ...fold, vents: new Map(fold.vents).set(key, vent), look };
}

function ventAfter(
  guarded: Guarded,
  point: IsolationPoint,
  body: IsolateBody,
  given: Given,
  known: VentState | undefined,
): VentState {
  const opened: VentState = {
    ...given,
    openedAt: given.at,
    openedBy: given.by,
    hasPassed: false,
    silentAt: null,
    signs: [],
    against: null,
    pressureBar: null,
  };
  const add = (from: VentState, ...signs: readonly Sign[]): VentState => ({
    ...from,
    ...given,
    silentAt: given.at,
    // A needle that is off its rest takes back that it fell.
    signs: [
      ...new Set([...from.signs.filter((sign) => sign !== 'needle' || body.needle !== 'off'), ...signs]),
    ],
    against: null,
    pressureBar: body.pressureBar ?? from.pressureBar,
  });
  const needle: readonly Sign[] = needleIsSign(guarded, body) ? ['needle'] : [];
  switch (body.answer) {
    case 'passes':
      return { ...opened, hasPassed: true, signs: keptByReopening(guarded, known) };
    case 'silent':
      return add(
        known ?? opened,
        'vent',
        ...(point.hasTwoOpenings ? (['second-opening'] as const) : []),
        ...needle,
      );
    case 'found-empty':
      return add(opened, 'vent', ...(point.hasTwoOpenings ? (['second-opening'] as const) : []));
    case 'let-in':
      // Air was let in: what was seen before it proves nothing of what stays behind.
      return add({ ...(known ?? opened), signs: [] }, 'vent', ...needle);
    case 'second-opening':
    case 'second-gauge':
    case 'seen-free':
    case 'stood':
      return add(known ?? opened, body.answer, ...needle);
    default: {
      const isStruck = rulesOf(guarded).has('against');
      // A needle that was seen to fall fell, whatever the drain does.
      const state: VentState = {
        ...opened,
        openedAt: known?.openedAt ?? given.at,
        against: body.answer ?? 'nothing',
      };
      return isStruck
        ? { ...state, signs: needle }
        : { ...state, ...known, signs: known?.signs ?? [], against: null };
    }
  }
}

/** Without the rule, what was seen before still speaks when a vent is opened again. */
function keptByReopening(guarded: Guarded, known: VentState | undefined): readonly Sign[] {
  return rulesOf(guarded).has('against') ? [] : (known?.signs ?? []);
}

function needleIsSign(guarded: Guarded, { needle, pressureBar = 0 }: IsolateBody): boolean {
  if (needle === 'stood') return !rulesOf(guarded).has('needle-seen-to-fall');
  return needle === 'fell' && pressureBar <= ZERO_BAR;
}
