import type { DataPlate } from '../machine/index.js';
import { formatFigure } from '../quantities/index.js';

/** One joint of a machine with the figure that its bolts are tightened to. */
export interface KnownTorque {
  /** As it was written: “head bolts”. */
  readonly joint: string;
  readonly newtonMetres: number;
  /** In how many rounds, each across and across. */
  readonly rounds: number;
  /** Whatever else was written: tool, sequence, where the figure is from. */
  readonly more: string;
}

/** Where nobody says otherwise (common practice). */
export const USUAL_ROUNDS = 3;
const MOST_ROUNDS = 6;
/** 1 lbf·ft in N·m. */
const POUND_FOOT = 1.3558179483;
const FIGURE = /(\d+(?:[.,]\d+)?)\s*(n\s*[·.]?\s*m|lbf?\s*[·.-]?\s*ft|ft\s*[·.-]?\s*lbf?)\b/i;
const ROUNDS = /(\d)\s*rounds?/i;

/**
 * The torques of a plate as they were written, one a line or parted by semicolons: “head bolts: 24 Nm, 3 rounds,
 * manual”. What holds no figure with its unit is not among them.
 */
export function torquesOf({ torques = '' }: Pick<DataPlate, 'torques'>): readonly KnownTorque[] {
  return torques.split(/[\n;]/).flatMap((line) => {
    const figure = FIGURE.exec(line);
    const joint = line
      .slice(0, figure?.index ?? 0)
      .replace(/[:,\s–-]+$/, '')
      .trim();
    if (!figure || joint === '') return [];
    const value = Number(figure[1]!.replace(',', '.'));
    const newtonMetres = /f/i.test(figure[2]!) ? value * POUND_FOOT : value;
    if (!(newtonMetres > 0)) return [];
    const rest = line.slice(figure.index + figure[0].length);
    const rounds = Number(ROUNDS.exec(rest)?.[1] ?? USUAL_ROUNDS);
    const more = rest
      .replace(ROUNDS, '')
      .split(',')
      .map((part) => part.trim())
      .filter(Boolean)
      .join(', ');
    return [{ joint, newtonMetres, rounds: Math.min(MOST_ROUNDS, Math.max(1, rounds)), more }];
  });
}

/**
 * The figure for what a step tightens. A word too many or too few is another joint: “cover bolts” may be those of the
 * valves or of a bearing.
 *
 * @returns null where none is known for just that, or two that differ
 */
export function torqueFor(what: string, plate: Pick<DataPlate, 'torques'>): KnownTorque | null {
  const wanted = wordsOf(what);
  const [found, ...others] = torquesOf(plate).filter(({ joint }) => wordsOf(joint) === wanted);
  if (!found || others.some(({ newtonMetres }) => newtonMetres !== found.newtonMetres)) return null;
  return found;
}

/** The figure of each round: even steps up to the whole. */
export function roundsOf({
  newtonMetres,
  rounds,
}: Pick<KnownTorque, 'newtonMetres' | 'rounds'>): readonly number[] {
  return Array.from({ length: rounds }, (_, index) => (newtonMetres * (index + 1)) / rounds);
}

/** “24 N·m” */
export function formatNewtonMetres(value: number): string {
  return `${formatFigure(value, { figures: 3, maxDecimals: 1 })} N·m`;
}

/** Words that are in every line of such a table. */
const COMMON = new Set(['bolt', 'screw', 'nut', 'the', 'of', 'and']);

/** The words that tell a joint, in one order. */
function wordsOf(text: string): string {
  const words = text.toLowerCase().match(/\p{L}+/gu) ?? [];
  const plain = words.map((word) => word.replace(/s$/, '')).filter((word) => !COMMON.has(word));
  return [...new Set(plain)].sort().join(' ');
}
