import { err, ok, type Result } from '../basics/index.js';
import type { DataPlate } from '../machine/index.js';
import type { Procedure } from './procedure.js';

/** What is set by turning a screw and looking again. */
export const settingKinds = ['relief', 'stop'] as const;
export type SettingKind = (typeof settingKinds)[number];

export const settingTurns = ['in', 'out', 'none'] as const;

/** One look at a setting: how far its screw was turned since the last, and the pressure at which it acts now. */
export interface SettingAttempt {
  /** `none`: as it was found. */
  readonly turned: (typeof settingTurns)[number];
  /** Turns of the screw; 0 where nothing was turned. */
  readonly turns: number;
  /** The gauge when it opened, or when the set stopped, bar. */
  readonly actsBar: number;
}

/** Bounds of one look. */
export const settingBounds = { turns: { min: 0, max: 4 }, actsBar: { min: 0.1, max: 500 } } as const;

/** Within so much of what is wanted it is set: the larger of the two (ISO 4126 *(memory)*). */
const SET = { share: 0.03, bar: 0.1 } as const;
/** No screw is turned further at once, whatever the figures say (common practice). */
const MOST_TURNS = 0.5;
/** What decimal figures lose in a subtraction. */
const SAME = 1e-9;
/** Where nobody knows what a turn does yet: a quarter. */
const FIRST_TURNS = 0.25;

/** What it may never act above: the weakest of what is on record. */
export function settingCeiling(
  { maximumPressureBar, reliefBar }: Pick<DataPlate, 'maximumPressureBar' | 'reliefBar'>,
  of: SettingKind,
  weakestBar?: number,
): number | null {
  const known = [maximumPressureBar, weakestBar, of === 'stop' ? reliefBar : undefined].filter(
    (figure): figure is number => figure !== undefined,
  );
  return known.length === 0 ? null : Math.min(...known);
}

export interface SettingAdvice {
  /** `set`: it stays as it is; `stop-now`: it must not run so. */
  readonly next: 'turn-in' | 'turn-out' | 'set' | 'stop-now' | 'odd';
  /** Turns of the screw, where one is to be turned. */
  readonly turns: number | null;
  readonly sentence: string;
}

/**
 * What to do next with a screw: in raises, a little at a time, by what the last turn did.
 *
 * @param attempts in their order, the first as it was found
 * @returns a problem `above-ceiling` where what is wanted must not be set at all, `no-attempt` without a look
 */
export function adviseSetting(
  wantedBar: number,
  attempts: readonly SettingAttempt[],
  ceilingBar: number | null,
): Result<SettingAdvice> {
  if (ceilingBar !== null && wantedBar > ceilingBar)
    return err(
      'above-ceiling',
      `${wantedBar} bar is above the ${ceilingBar} bar of the weakest part: it is not set there.`,
      'wantedBar',
    );
  const last = attempts.at(-1);
  if (!last) return err('no-attempt', 'First as it was found: at what pressure does it act?', 'actsBar');
  const off = wantedBar - last.actsBar;
  const tolerance = Math.max(SET.share * wantedBar, SET.bar);
  if (ceilingBar !== null && last.actsBar > ceilingBar)
    return ok({
      next: 'stop-now',
      turns: turnsFor(off, attempts),
      sentence: `It acts at ${last.actsBar} bar, above the ${ceilingBar} bar of the weakest part: it does not run so. Stopped and vented, out.`,
    });
  if (Math.abs(off) <= tolerance + SAME)
    return ok({
      next: 'set',
      turns: null,
      sentence: `${last.actsBar} bar: set. Lock nut and seal on, the figure on its tag, and tested once more.`,
    });
  const before = attempts.at(-2);
  const moved = before ? last.actsBar - before.actsBar : 0;
  const isAgainst =
    before !== undefined && last.turned !== 'none' && moved !== 0 && (last.turned === 'in') !== moved > 0;
  if (isAgainst)
    return ok({
      next: 'odd',
      turns: null,
      sentence: `Turned ${last.turned}, and it acts at ${moved > 0 ? 'more' : 'less'}: a spring that is broken, a screw that turns the other way, or a gauge that stands. Find out first.`,
    });
  const turns = turnsFor(off, attempts);
  const way = off > 0 ? 'in' : 'out';
  return ok({
    next: off > 0 ? 'turn-in' : 'turn-out',
    turns,
    sentence: `Stopped and vented: ${formatTurns(turns)} ${way}. Then close, build up from nothing, note the figure.`,
  });
}

/** How far to turn: by what the last turn did, half a turn at most. */
function turnsFor(off: number, attempts: readonly SettingAttempt[]): number {
  const [before, last] = [attempts.at(-2), attempts.at(-1)];
  const perTurn = before && last && last.turns > 0 ? Math.abs(last.actsBar - before.actsBar) / last.turns : 0;
  if (perTurn === 0) return FIRST_TURNS;
  // Rather twice than too far.
  const eighths = Math.floor(((Math.abs(off) / perTurn) * 0.9) / 0.125);
  return Math.min(MOST_TURNS, Math.max(0.125, eighths * 0.125));
}

const fractions: Readonly<Record<number, string>> = {
  0.125: 'an eighth of a turn',
  0.25: 'a quarter turn',
  0.375: 'three eighths of a turn',
  0.5: 'half a turn',
};

function formatTurns(turns: number): string {
  return fractions[turns] ?? `${turns} turns`;
}

/** A look as a line of the repair, and what is read back from it. */
export function attemptText(of: SettingKind, { turned, turns, actsBar }: SettingAttempt): string {
  const acts = of === 'relief' ? 'opens at' : 'stops at';
  const how = turned === 'none' ? 'as found' : `${turns} turn ${turned}`;
  return `Setting of the ${of === 'relief' ? 'relief valve' : 'pressure switch'}: ${how}, ${acts} ${actsBar} bar`;
}

const LINE =
  /^Setting of the (relief valve|pressure switch): (?:as found|([\d.]+) turn (in|out)), (?:opens|stops) at ([\d.]+) bar$/;

/** @returns null for a line that is none of these */
export function readAttempt(text: string): ({ readonly of: SettingKind } & SettingAttempt) | null {
  const found = LINE.exec(text);
  if (!found) return null;
  const [, what, turns, turned, acts] = found;
  return {
    of: what === 'relief valve' ? 'relief' : 'stop',
    turned: (turned as 'in' | 'out' | undefined) ?? 'none',
    turns: turns === undefined ? 0 : Number(turns),
    actsBar: Number(acts),
  };
}

/** Setting a relief valve and a pressure switch, as guides of a repair. */
export const settingProcedures: readonly Procedure[] = [
  {
    code: 'relief-setting',
    name: 'Setting a relief valve',
    fits: () => true,
    renew: ['seal'],
    // A screw is turned, nothing is opened; between the turns it must run.
    opens: () => [],
    provedBy: 'relief-valve',
    steps: [
      {
        code: 'who-may',
        name: 'Who may',
        how: 'A sealed valve is set by its maker or a licensed bench. On the machine only where manual and local law allow it, by who may seal it again; else it is exchanged for a tested one.',
        caution:
          'A valve that does not open bursts something. It is never plugged, wired or turned to make a set run.',
      },
      {
        code: 'figure',
        name: 'The figure, and what is weakest',
        how: 'Of block, vessel, hose, connector and cylinder the lowest rating: it is set there or lower, whatever the old seal says.',
      },
      {
        code: 'vent',
        name: 'Before each turn: stopped, locked, vented',
        how: 'The screw is turned without pressure under it. In raises, out lowers; a little at a time.',
        caution: 'Never turned while it blows: hot air, a spring and a screw in the face.',
      },
      {
        code: 'build-up',
        name: 'After each turn: from nothing up to where it opens',
        how: 'By a test gauge, standing beside the outlet, ears and eyes covered. Its figure noted each time, below.',
      },
      {
        code: 'seal',
        name: 'Locked, sealed, tagged',
        how: 'Lock nut on, opened once more by pressure, reseats tight; seal with the mark of who set it, figure and day on the tag.',
      },
    ],
  },
  {
    code: 'stop-setting',
    name: 'Setting where it stops',
    fits: ({ stopsBy }) => stopsBy !== 'hand' && stopsBy !== 'relief',
    renew: [],
    opens: () => [],
    provedBy: 'pressure-settings',
    steps: [
      {
        code: 'relief-first',
        name: 'The relief valve works first',
        how: 'Tested, in date: while a switch is set, it is all that is left.',
      },
      {
        code: 'figure',
        name: 'The figure, and what is weakest',
        how: 'Below the relief valve by a tenth, at high pressure by as much as its manual says; never above the lowest rating connected.',
      },
      {
        code: 'power',
        name: 'Before each turn: power off and locked',
        how: 'Under the cover of the switch are live parts. Main spring: both points rise; the small one: their distance.',
        caution: 'Live parts: by a licensed person where the law asks for one.',
      },
      {
        code: 'build-up',
        name: 'After each turn: from nothing up to where it stops',
        how: 'A hand on the switch, eyes on the gauge: past its figure it is stopped by hand. Its figure noted each time, below.',
      },
      {
        code: 'cover',
        name: 'Cover on, figure on the tag',
        how: 'Cut-in looked at too: it starts where it should.',
      },
    ],
  },
];
