import { DAY_MS, err, ok, type Instant, type Result } from '../basics/index.js';
import type { DataPlate } from '../machine/index.js';
import { openingsOf } from '../isolation/index.js';

/** What is looked at again by itself: a joint, plug or glass that was opened; a new belt. */
export const followUpKinds = ['joint', 'belt'] as const;
export type FollowUpKind = (typeof followUpKinds)[number];

/** What a second look found. */
export const followUpFindings = ['sound', 'not-sound'] as const;
export type FollowUpFinding = (typeof followUpFindings)[number];

/** A joint weeps after some warm and cold runs: looked at after so many days, late after more (common practice). */
export const JOINT_DAYS = { from: 3, late: 14 } as const;
/** A new belt gives in its first hours (24 to 48 h of running, common practice). */
export const BELT_HOURS = { from: 24, late: 48 } as const;
/** The same where nobody knows the hours: days. */
export const BELT_DAYS = { from: 7, late: 21 } as const;
/** After so many days whatever was opened has been under pressure for long: nobody is asked any more. */
export const FORGOTTEN_DAYS = 90;
/** A look that was taken sooner has seen nothing yet. */
export const TOO_SOON = { jointHours: 12, beltHours: 8 } as const;

/** Work that opened something, or fitted a belt. */
export interface OpeningWork {
  /** Id of the fact. */
  readonly id: string;
  readonly at: Instant;
  /** Codes of what was opened; nothing outside the air path is among it. */
  readonly opened: readonly string[];
  readonly isNewBelt: boolean;
}

/** A look that was taken at one of them. */
export interface SecondLook {
  readonly kind: FollowUpKind;
  readonly at: Instant;
}

/** Something to look at again. */
export interface FollowUp {
  readonly kind: FollowUpKind;
  /** The oldest work that waits for it. */
  readonly since: Instant;
  /** Everything that was opened since, in words. */
  readonly what: readonly string[];
  /** `coming`: too early to show; `due`; `late`. */
  readonly state: 'coming' | 'due' | 'late';
  /** From when on; null where it goes by run hours that are not reached. */
  readonly dueFrom: Instant | null;
  /** Run hours since, where it goes by them. */
  readonly hoursSince: number | null;
}

/** Run hours between a moment and now; null where nobody knows. */
type HoursSince = (at: Instant) => number | null;

/** Places that hold nothing in: opening them leaves no joint to weep. */
const NO_JOINT = new Set(['outside', 'belt']);

/** The names of what was opened that can weep, in the order of the machine’s own list. */
export function jointsAmong(opened: readonly string[], plate: DataPlate): readonly string[] {
  return openingsOf(plate)
    .filter(({ code }) => opened.includes(code) && !NO_JOINT.has(code))
    .map(({ name }) => name);
}

/**
 * What of a machine is to be looked at again: one of each kind, for everything that was done since it was last
 * looked at.
 *
 * @param work in any order; what was withdrawn is not among it
 * @param looks that were taken, in any order
 * @param hoursSince run hours from a moment until now
 */
export function followUpsOf(
  work: readonly OpeningWork[],
  looks: readonly SecondLook[],
  {
    plate,
    now,
    hoursSince,
  }: { readonly plate: DataPlate; readonly now: Instant; readonly hoursSince: HoursSince },
): readonly FollowUp[] {
  return followUpKinds.flatMap((kind) => {
    const open = work
      .filter((one) => isOf(kind, one, plate) && one.at <= now && now - one.at < FORGOTTEN_DAYS * DAY_MS)
      .filter(
        ({ at }) =>
          !looks.some((look) => look.kind === kind && sawEnough(kind, at, look.at, now, hoursSince)),
      )
      .sort((a, b) => a.at - b.at);
    const [first] = open;
    if (!first) return [];
    const what =
      kind === 'belt' ? ['the belt'] : jointsAmong([...new Set(open.flatMap(({ opened }) => opened))], plate);
    return [{ kind, since: first.at, what, ...stateOf(kind, first.at, now, hoursSince) }];
  });
}

/** Whether a look that is taken at a moment can say anything of what waits for it. */
export function admitLook(
  kind: FollowUpKind,
  at: Instant,
  work: readonly OpeningWork[],
  plate: DataPlate,
): Result<null> {
  const before = work.filter((one) => isOf(kind, one, plate) && one.at <= at);
  if (before.length === 0)
    return err(
      'nothing-opened',
      kind === 'belt'
        ? 'No new belt is on record before that.'
        : 'Nothing that can weep was opened before that.',
      'lookedAt',
    );
  if (before.some((one) => at - one.at >= leastMs(kind))) return ok(null);
  return err(
    'too-soon',
    kind === 'belt'
      ? 'A new belt gives in its first hours of running: look at it after 24 to 48 h.'
      : 'That was opened just now: a joint shows after some warm and cold runs, in a few days.',
    'lookedAt',
  );
}

function isOf(kind: FollowUpKind, { opened, isNewBelt }: OpeningWork, plate: DataPlate): boolean {
  return kind === 'belt' ? isNewBelt : jointsAmong(opened, plate).length > 0;
}

/** The machine may have stood since: hours on the wall clock are the most that it can have run. */
function leastMs(kind: FollowUpKind): number {
  return (kind === 'belt' ? TOO_SOON.beltHours : TOO_SOON.jointHours) * 3_600_000;
}

function sawEnough(
  kind: FollowUpKind,
  workAt: Instant,
  lookAt: Instant,
  now: Instant,
  hoursSince: HoursSince,
): boolean {
  if (lookAt - workAt < leastMs(kind)) return false;
  if (kind === 'joint' || lookAt > now) return true;
  const [work, look] = [hoursSince(workAt), hoursSince(lookAt)];
  // A belt that did not run since it was fitted has nothing to show.
  return work === null || look === null || work - look >= TOO_SOON.beltHours;
}

function stateOf(
  kind: FollowUpKind,
  since: Instant,
  now: Instant,
  hoursSince: HoursSince,
): Pick<FollowUp, 'state' | 'dueFrom' | 'hoursSince'> {
  const hours = kind === 'belt' ? hoursSince(since) : null;
  if (hours !== null) {
    const state = hours < BELT_HOURS.from ? 'coming' : hours < BELT_HOURS.late ? 'due' : 'late';
    return { state, dueFrom: null, hoursSince: hours };
  }
  const days = kind === 'belt' ? BELT_DAYS : JOINT_DAYS;
  const passed = (now - since) / DAY_MS;
  const state = passed < days.from ? 'coming' : passed < days.late ? 'due' : 'late';
  return { state, dueFrom: since + days.from * DAY_MS, hoursSince: null };
}

/** Whether a part is a belt, by its name. */
export function isBelt(name: string): boolean {
  return /\b(v-)?belts?\b/i.test(name) && !/guard|cover|puller|gauge/i.test(name);
}

/** What is asked, in a sentence. */
export function followUpText({ kind, what }: Pick<FollowUp, 'kind' | 'what'>): string {
  return kind === 'belt'
    ? 'New belt: its tension again, it gives in its first hours.'
    : `${what.join('; ')}: dry and tight?`;
}
