import type { DataPlate } from '../machine/index.js';
import { canHave, causeData, standsIn, type CauseCode } from './cause.js';
import type { Rates, Symptom } from './symptom.js';

/** How often a workshop confirmed each cause behind each symptom. */
export type Counts = Readonly<Record<string, Readonly<Partial<Record<CauseCode, number>>>>>;

/** What is known of one machine that moves the odds before anything is asked. */
export interface KnownOfMachine {
  /** Causes that were confirmed on it before, within two years. */
  readonly before?: readonly CauseCode[];
  /** Notes on its model. */
  readonly notes?: readonly { readonly about: string; readonly text: string }[];
}

/** Why the odds of a cause begin where they do. */
export interface RateReason {
  readonly cause: CauseCode;
  readonly text: string;
}

export interface StartingOdds {
  readonly causes: readonly CauseCode[];
  /** Chance of each, summing to 1. */
  readonly rates: readonly number[];
  readonly reasons: readonly RateReason[];
}

/** So many cases does common practice count for, beside the workshop’s own. */
export const PRIOR_CASES = 30;

/** What happened once on a machine happens to it more easily than to others (common practice). */
const AGAIN = 2;
const TROUBLESOME = 1.5;
const DEPENDABLE = 0.6;

/** Where a symptom’s causes begin on a machine: by practice, the workshop’s own cases, and what is known of it. */
export function startingOdds(
  symptom: Symptom,
  plate: DataPlate,
  counts: Counts = {},
  known: KnownOfMachine = {},
): StartingOdds {
  const spread = ratesOn(symptom.rates, plate);
  const own = counts[symptom.code] ?? {};
  const causes = [...new Set([...spread.keys(), ...(Object.keys(own) as CauseCode[])])].filter((code) =>
    canHave(code, plate),
  );
  const cases = causes.reduce((sum, code) => sum + (own[code] ?? 0), 0);
  const reasons: RateReason[] = [];
  const weights = causes.map((code) => {
    const learnt = (PRIOR_CASES * (spread.get(code) ?? 0) + (own[code] ?? 0)) / (PRIOR_CASES + cases);
    if (own[code]) reasons.push({ cause: code, text: `confirmed in ${own[code]} of ${cases} cases here` });
    const { factor, texts } = factorOf(code, known);
    reasons.push(...texts.map((text) => ({ cause: code, text })));
    return learnt * factor;
  });
  const sum = weights.reduce((total, weight) => total + weight, 0);
  return { causes, rates: weights.map((weight) => weight / sum), reasons };
}

/** Chances by practice on a machine: what it does not have goes to what stands in for it, or over the rest. */
function ratesOn(rates: Rates, plate: DataPlate): Map<CauseCode, number> {
  const found = new Map<CauseCode, number>();
  let sum = 0;
  for (const [code, rate] of Object.entries(rates) as [CauseCode, number][]) {
    let holder: CauseCode | undefined = code;
    while (holder !== undefined && !canHave(holder, plate)) holder = standsIn[holder];
    if (holder === undefined) continue;
    found.set(holder, (found.get(holder) ?? 0) + rate);
    sum += rate;
  }
  for (const [code, rate] of found) found.set(code, rate / sum);
  return found;
}

function factorOf(code: CauseCode, { before = [], notes = [] }: KnownOfMachine) {
  const texts: string[] = [];
  let factor = 1;
  if (before.includes(code)) {
    factor *= AGAIN;
    texts.push('confirmed on this unit before');
  }
  const words = causeData(code).words ?? [];
  const speaking = notes.filter(({ text }) => words.some((word) => text.toLowerCase().includes(word)));
  if (speaking.some(({ about }) => about === 'troublesome')) {
    factor *= TROUBLESOME;
    texts.push('a note on this model calls it troublesome');
  } else if (speaking.some(({ about }) => about === 'dependable')) {
    factor *= DEPENDABLE;
    texts.push('a note on this model calls it dependable');
  }
  return { factor, texts };
}
