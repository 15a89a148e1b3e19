import { isBreathed, type DataPlate } from '../machine/index.js';

/** What is known of a part. Whatever is left out is unknown. */
export interface PartFigures {
  /** Free air it lets through at its rated drop, L/min. */
  readonly ratedFlowLpm?: number | undefined;
  /** Finest particle it holds back, µm. */
  readonly micron?: number | undefined;
  readonly thread?: string | undefined;
  readonly maxTempC?: number | undefined;
  readonly maxBar?: number | undefined;
  /** Dust it holds before its drop doubles, g. */
  readonly dustG?: number | undefined;
  /** Room it takes: length and width, mm. */
  readonly lengthMm?: number | undefined;
  readonly widthMm?: number | undefined;
}

/** What kind of thing it is, where that decides whether something else may take its place. */
export const partClasses = ['element', 'oil', 'cartridge', 'seal', 'other'] as const;
export type PartClass = (typeof partClasses)[number];

const classNames: Readonly<Record<PartClass, string>> = {
  element: 'a filter element',
  oil: 'an oil',
  cartridge: 'a cartridge',
  seal: 'a seal',
  other: 'another kind of part',
};

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

export interface ComparedPart {
  readonly name: string;
  readonly class: PartClass;
  readonly figures: PartFigures;
}

/** How a figure of the substitute stands beside the original's. */
export interface ComparedFigure {
  readonly figure: 'flow' | 'fineness' | 'thread' | 'room' | 'dust' | 'temperature' | 'pressure';
  /** `better` is never asked for: a figure is enough, not enough, or not known. */
  readonly holds: 'yes' | 'no' | 'unknown';
  readonly sentence: string;
}

export interface Substitution {
  /** `reason`: only with a stated reason, whatever the figures say. */
  readonly verdict: 'fits' | 'unsure' | 'does-not-fit' | 'reason';
  readonly sentence: string;
  readonly figures: readonly ComparedFigure[];
}

export type SubstitutedOn = Pick<DataPlate, 'fadLpm' | 'displacementLpm' | 'dust' | 'airUse' | 'family'>;

/** Figures of which the substitute's must reach the original's. */
const AT_LEAST = [
  { figure: 'temperature', field: 'maxTempC', unit: '°C', what: 'Temperature' },
  { figure: 'pressure', field: 'maxBar', unit: 'bar', what: 'Pressure' },
] as const;

/**
 * Judges whether a part may take the place of another: rated flow not under what the machine draws in, no
 * coarser, same thread (or by an adapter), temperature and pressure no lower, room for it, dust capacity no
 * less (common practice). What is not known leaves it unsure.
 *
 * Oil and cartridges of breathing air are never judged by figures alone: they need a stated reason.
 *
 * @param hasAdapter whether another thread is fitted by an adapter
 */
export function judgeSubstitute(
  original: ComparedPart,
  offered: ComparedPart,
  unit: SubstitutedOn,
  hasAdapter = false,
): Substitution {
  if (original.class !== offered.class) {
    const sentence = `${capital(classNames[offered.class])} cannot stand in for ${classNames[original.class]}.`;
    return { verdict: 'does-not-fit', sentence, figures: [] };
  }
  const figures = [
    ...flow(original, offered, unit),
    ...fineness(original, offered),
    ...thread(original, offered, hasAdapter),
    ...room(original, offered),
    ...dust(original, offered, unit),
    ...AT_LEAST.flatMap(({ figure, field, unit: written, what }) =>
      atLeast(figure, what, written, original.figures[field], offered.figures[field]),
    ),
  ];
  const wrong = figures.filter(({ holds }) => holds === 'no');
  if (wrong.length > 0) {
    return { verdict: 'does-not-fit', sentence: wrong.map(({ sentence }) => sentence).join(' '), figures };
  }
  if (isBreathed(unit) && (original.class === 'oil' || original.class === 'cartridge')) {
    const what = original.class === 'oil' ? 'Oil' : 'A cartridge';
    return {
      verdict: 'reason',
      sentence: `${what} for breathing air is not exchanged for another unless the lead says so, with a reason.`,
      figures,
    };
  }
  const unknown = figures.filter(({ holds }) => holds === 'unknown');
  if (unknown.length > 0 || figures.length === 0) {
    const what = unknown.map(({ sentence }) => sentence).join(' ') || 'Nothing of it can be compared.';
    return { verdict: 'unsure', sentence: what, figures };
  }
  return { verdict: 'fits', sentence: 'Every figure that is known holds.', figures };
}

/**
 * Whether using a part on a unit has to be given a reason: oil and cartridges of breathing air, unless the
 * catalogue names the unit among those that they are for.
 */
export function needsReason(
  part: { readonly class: PartClass; readonly fits: readonly string[] },
  unit: Pick<SubstitutedOn, 'family' | 'airUse'>,
  compressorId: string,
): boolean {
  const isWatched = part.class === 'oil' || part.class === 'cartridge';
  return isBreathed(unit) && isWatched && !part.fits.includes(compressorId);
}

function flow(original: ComparedPart, { figures }: ComparedPart, unit: SubstitutedOn): ComparedFigure[] {
  if (original.class !== 'element') return [];
  // An intake element has to pass what the machine draws in, which is its displacement.
  const needed = unit.displacementLpm ?? unit.fadLpm ?? original.figures.ratedFlowLpm;
  return atLeast('flow', 'Rated flow', 'L/min', needed, figures.ratedFlowLpm);
}

function fineness({ figures: before }: ComparedPart, { figures: after }: ComparedPart): ComparedFigure[] {
  if (before.micron === undefined) return [];
  if (after.micron === undefined) return [unknown('fineness', 'Fineness', `${before.micron} µm`)];
  const holds = after.micron <= before.micron;
  return [
    {
      figure: 'fineness',
      holds: holds ? 'yes' : 'no',
      sentence: `Fineness ${after.micron} µm, ${holds ? 'no coarser than' : 'coarser than'} ${before.micron} µm.`,
    },
  ];
}

function thread(
  { figures: before }: ComparedPart,
  { figures: after }: ComparedPart,
  hasAdapter: boolean,
): ComparedFigure[] {
  if (before.thread === undefined) return [];
  if (after.thread === undefined) return [unknown('thread', 'Thread', before.thread)];
  const same = before.thread.trim().toLowerCase() === after.thread.trim().toLowerCase();
  const how = same ? 'the same' : hasAdapter ? `by an adapter to ${before.thread}` : `not ${before.thread}`;
  return [
    {
      figure: 'thread',
      holds: same || hasAdapter ? 'yes' : 'no',
      sentence: `Thread ${after.thread}, ${how}.`,
    },
  ];
}

function room({ figures: before }: ComparedPart, { figures: after }: ComparedPart): ComparedFigure[] {
  const [length, width] = [before.lengthMm, before.widthMm];
  if (length === undefined || width === undefined) return [];
  if (after.lengthMm === undefined || after.widthMm === undefined) {
    return [unknown('room', 'Room', `${length} × ${width} mm`)];
  }
  const holds = after.lengthMm <= length && after.widthMm <= width;
  const size = `${after.lengthMm} × ${after.widthMm} mm`;
  return [
    {
      figure: 'room',
      // Larger than the original may still find room: only a look tells.
      holds: holds ? 'yes' : 'unknown',
      sentence: holds
        ? `Room: ${size}, no larger than ${length} × ${width} mm.`
        : `Room: ${size} is larger than ${length} × ${width} mm. Look whether there is room.`,
    },
  ];
}

function dust(
  { figures: before }: ComparedPart,
  { figures: after }: ComparedPart,
  { dust: level }: SubstitutedOn,
): ComparedFigure[] {
  const compared = atLeast('dust', 'Dust capacity', 'g', before.dustG, after.dustG);
  if (level !== 'dusty') return compared;
  return compared.map((one) => ({
    ...one,
    sentence: `${one.sentence} In dust, larger is better on purpose.`,
  }));
}

function atLeast(
  figure: ComparedFigure['figure'],
  what: string,
  unit: string,
  needed: number | undefined,
  offered: number | undefined,
): ComparedFigure[] {
  if (needed === undefined) return [];
  if (offered === undefined) return [unknown(figure, what, `${needed} ${unit}`)];
  const holds = offered >= needed;
  return [
    {
      figure,
      holds: holds ? 'yes' : 'no',
      sentence: `${what} ${offered} ${unit}, ${holds ? 'enough for' : 'under'} ${needed} ${unit}.`,
    },
  ];
}

function unknown(figure: ComparedFigure['figure'], what: string, needed: string): ComparedFigure {
  return { figure, holds: 'unknown', sentence: `${what} is not known; ${needed} is needed.` };
}
