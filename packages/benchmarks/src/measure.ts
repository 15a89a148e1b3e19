/** The middle of some times; of an even count the lower middle. */
export function median(times: readonly number[]): number {
  return [...times].sort((a, b) => a - b)[Math.floor((times.length - 1) / 2)]!;
}

/** How long something takes, in ms. */
export function timed(work: () => void): number {
  const start = performance.now();
  work();
  return performance.now() - start;
}

/** What timing two things by turns gave: the middle time of each, and the middle of their ratios by round. */
export interface ByTurns {
  readonly first: number;
  readonly second: number;
  /** First over second, round by round: what else the machine does falls on both alike. */
  readonly ratio: number;
}

export async function byTurns(
  rounds: number,
  first: () => Promise<number> | number,
  second: () => Promise<number> | number,
): Promise<ByTurns> {
  const times: { first: number; second: number }[] = [];
  for (let round = 0; round < rounds; round++) times.push({ first: await first(), second: await second() });
  return {
    first: median(times.map((time) => time.first)),
    second: median(times.map((time) => time.second)),
    ratio: median(times.map((time) => time.first / time.second)),
  };
}

/** Prints a ratio beside its target, and what was measured; null where there is no target to meet. */
export function report(
  name: string,
  ratio: number,
  isMet: boolean | null,
  target: string,
  detail: string,
): void {
  const mark = isMet === null ? '' : isMet ? 'met' : 'MISSED';
  const more = detail === '' ? '' : `\n  ${detail}`;
  console.log(`${name}\n  ratio ${ratio.toFixed(3)}  target ${target}  ${mark}${more}\n`);
}
