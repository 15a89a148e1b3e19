import { err, ok, type Result } from '../basics/index.js';
import type { DataPlate } from '../machine/index.js';
import type {
  CheckSubject,
  JudgedLimit,
  JudgedOutcome,
  Judgement,
  LimitOrigin,
  Suggestion,
  Verdict,
} from './check.js';
import { verdicts } from './check.js';

/** A judgement from its parts; what is left out is empty. */
export function judged(
  verdict: Verdict,
  reason: string,
  parts: Partial<Omit<Judgement, 'verdict' | 'reason'>> = {},
): Result<Judgement> {
  return ok({ verdict, reason, limit: null, figure: null, figures: [], suggests: [], ...parts });
}

const said: Readonly<Record<Verdict, string>> = {
  good: 'good',
  watch: 'keep an eye on it',
  act: 'act now',
  stop: 'stop: do not run',
};
const saidInShort: typeof said = { ...said, watch: 'keep an eye', stop: 'stop' };

/** A verdict as it is said: with nothing to compare with none was given. */
export function describeVerdict({
  verdict,
  noComparison,
}: {
  readonly verdict: Verdict;
  readonly noComparison?: true | undefined;
}): string {
  return noComparison ? 'no comparison yet' : said[verdict];
}

/** The same where there is room for a word or two, as in a drawing. */
export function verdictInShort(verdict: Verdict): string {
  return saidInShort[verdict];
}

/** What is kept of a judgement beside the work that it was for. */
export function outcomeOf({ verdict, reason, figure, noComparison }: Judgement): JudgedOutcome {
  return { verdict, reason, figure: figure?.value ?? null, ...(noComparison ? { noComparison } : {}) };
}

/** One thing that a measurement shows. */
export interface Shown {
  readonly verdict: Verdict;
  /** A sentence of its own. */
  readonly reason: string;
  readonly limit?: JudgedLimit | null;
  readonly suggests?: readonly Suggestion[];
}

/**
 * Everything that a measurement shows, together: the worst of it gives verdict and limit and is named first, what
 * else is not good follows. Where all is good, what was said first stands for it.
 *
 * @param shown at least one
 */
export function worstOf(
  shown: readonly [Shown, ...Shown[]],
  parts: Partial<Omit<Judgement, 'verdict' | 'reason'>> = {},
): Result<Judgement> {
  const inOrder = [...shown].sort((a, b) => verdicts.indexOf(b.verdict) - verdicts.indexOf(a.verdict));
  const worst = inOrder[0]!;
  const shownParts = worst.verdict === 'good' ? [worst] : inOrder.filter(({ verdict }) => verdict !== 'good');
  return judged(worst.verdict, shownParts.map(({ reason }) => reason).join(' '), {
    ...parts,
    limit: worst.limit ?? null,
    suggests: shownParts.flatMap(({ suggests = [] }) => suggests),
  });
}

/** What the gauge may be off, bar: its class of its full scale; null where they are not known. */
export function gaugeErrorBar(given: CheckSubject): number | null {
  const [percentOfScale, scale] = [given.number('gaugeClass'), given.number('gaugeScaleBar')];
  return percentOfScale === undefined || scale === undefined ? null : (percentOfScale / 100) * scale;
}

/** Refuses a figure that the check cannot do without. */
export function missing(field: string, sentence: string): Result<never> {
  return err('missing', sentence, field);
}

export function limit(value: number | null, text: string, origin: LimitOrigin): JudgedLimit {
  return { value, text, origin };
}

export function doTask(task: string, text: string): Suggestion {
  return { task, text };
}

export function lookAt(station: string, text: string): Suggestion {
  return { station, text };
}

/** The graver of two verdicts. */
export function worse(a: Verdict, b: Verdict): Verdict {
  return verdicts.indexOf(a) >= verdicts.indexOf(b) ? a : b;
}

/** Bounds past which a figure is watched, acted on, or stops the machine; a figure on its bound is past it. */
export interface Thresholds {
  readonly watch?: number;
  readonly act?: number;
  readonly stop?: number;
}

/** The verdict on a figure that is worse when higher. */
export function verdictAbove(
  value: number,
  { watch = Infinity, act = Infinity, stop = Infinity }: Thresholds,
): Verdict {
  if (value >= stop) return 'stop';
  if (value >= act) return 'act';
  return value >= watch ? 'watch' : 'good';
}

/** Shares of what is asked for beyond which a figure is watched or acted on, on either side. */
export interface Band {
  readonly actLow: number;
  readonly watchLow: number;
  readonly watchHigh: number;
  readonly actHigh: number;
}

/** On which side of its band a share lies, how it is judged, and the step that it has passed; null within it. */
export function outsideBand(
  share: number,
  { actLow, watchLow, watchHigh, actHigh }: Band,
): { readonly side: 'low' | 'high'; readonly verdict: 'watch' | 'act'; readonly step: number } | null {
  if (share < actLow) return { side: 'low', verdict: 'act', step: actLow };
  if (share < watchLow) return { side: 'low', verdict: 'watch', step: watchLow };
  if (share > actHigh) return { side: 'high', verdict: 'act', step: actHigh };
  if (share > watchHigh) return { side: 'high', verdict: 'watch', step: watchHigh };
  return null;
}

/** The step that a verdict was given for; the nearest one while it is good. */
export function thresholdOf(verdict: Verdict, steps: Thresholds): number | null {
  const { watch, act, stop } = steps;
  const byVerdict = { good: watch ?? act ?? stop, watch: watch ?? act, act, stop } as const;
  return byVerdict[verdict] ?? null;
}

/** Whole per cent. */
export function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}

/** Two figures nearer than this are one: what a share comes to in binary. */
export const SAME = 1e-9;

/** One decimal where the figure is small, none where it is large. */
export function figure(value: number): string {
  const decimals = Math.abs(value) < 10 ? 2 : Math.abs(value) < 100 ? 1 : 0;
  return String(Number(value.toFixed(decimals)));
}

export const isHighPressure = ({ family }: DataPlate) => family === 'high-pressure';
export const isScrew = ({ family }: DataPlate) => family === 'screw';
export const isPiston = ({ family }: DataPlate) => family === 'piston' || family === 'piston-oil-free';

/** The service of the valves by the code that the family's plan has for it. */
export function valveTask(plate: DataPlate | undefined): string {
  return plate && isHighPressure(plate) ? 'valves-all' : 'valves-inspect';
}
