/** No gauge of such machines reads further. */
export const MOST_GAUGE_BAR = 1000;
/** Hottest that is noted before work. */
export const MOST_NOTED_C = 400;

/** What can be said at a point of isolation. */
export const isolationAnswers = [
  /** Off, locked, tried; a valve shut; told, drained: the point’s own sentence holds. */
  'holds',
  /** The vent was opened, and air passes. */
  'passes',
  /** It passed, went silent, and stays open. */
  'silent',
  /** The vent was opened; nothing came, and nothing was expected. */
  'found-empty',
  /** The vent was opened; nothing came, though it should have. */
  'nothing',
  'keeps-coming',
  /** The valve or the drain will not move. */
  'stuck',
  'no-such-vent',
  /** A second opening on the same space is open, and silent too. */
  'second-opening',
  /** A second gauge on the same space shows nothing. */
  'second-gauge',
  /** A little air was let in, seen to pass and to stop. */
  'let-in',
  /** The open vent’s bore is seen free, from the side. */
  'seen-free',
  /** It stood ten minutes after everything else was silent. */
  'stood',
  /** At the second look something comes, or a needle has moved. */
  'is-fed',
] as const;

export const needles = [
  /** It was seen to fall, and rests where it rests when empty. */
  'fell',
  /** It stood at zero beforehand. */
  'stood',
  /** It shows something still. */
  'off',
  'rises',
  'none',
] as const;
export type Needle = (typeof needles)[number];

/** The one confirmation after a pause: own lock on, vents open, nothing comes, needles at rest. */
export const STILL = 'still';

/** Something was done, seen or taken back at a point of the isolation. */
export interface IsolateBody {
  readonly kind: 'isolate';
  /** The point; `still` after a pause. */
  readonly step: string;
  /** False takes it back: a lock off, a valve open, a vent shut. */
  readonly confirmed: boolean;
  /** Which of equal places. */
  readonly tile?: string | undefined;
  /** Left out by devices of earlier releases: then it is on record and counts for nothing. */
  readonly answer?: string | undefined;
  readonly needle?: string | undefined;
  readonly pressureBar?: number | undefined;
  readonly tempC?: number | undefined;
  /** Asked whether it really went silent so soon: yes. */
  readonly isSure?: boolean | undefined;
  /** How zero was proved, by devices of earlier releases; or who was told. */
  readonly provedBy?: string | undefined;
}

/** Power and air are back: whatever was isolated is so no more. */
export interface RestartBody {
  readonly kind: 'restart';
  /** Codes of what was gone through before. */
  readonly steps: readonly string[];
  /** Only a point of use was given its air back. */
  readonly scope?: string | undefined;
}

/** The order in which things happened; what happened in one millisecond by its id, whenever each became known. */
export function byMoment(
  a: Pick<IsolationEvent, 'doneAt' | 'id'>,
  b: Pick<IsolationEvent, 'doneAt' | 'id'>,
): number {
  return a.doneAt - b.doneAt || (a.id < b.id ? -1 : 1);
}

/** One thing that happened at a machine, as the guard sees it; of other kinds it sees only that somebody was there. */
export interface IsolationEvent {
  readonly id: string;
  readonly doneAt: number;
  readonly by: string;
  /** One opening of the page on one device. */
  readonly session: string;
  readonly body: IsolateBody | RestartBody | { readonly kind: string };
}
