/** So many counts are kept at most; whoever fills them up waits with everybody else. */
const MOST_KEPT = 50_000;

/** Counts what comes from somebody within a length of time that begins with the first. */
export class Counts {
  private readonly counts = new Map<string, { readonly until: number; so: number }>();

  /** @param spanMs after this long a count begins again */
  constructor(
    private readonly spanMs: number,
    private readonly clock: () => number,
  ) {}

  /** Counts one more, and says how many that makes. */
  add(whose: string): number {
    const now = this.clock();
    let count = this.counts.get(whose);
    // A clock that was set back must not shut anybody out for as long as it was wrong.
    if (!count || count.until <= now || count.until > now + this.spanMs) {
      if (this.counts.size >= MOST_KEPT) this.forget(now);
      if (this.counts.size >= MOST_KEPT) return Infinity;
      this.counts.set(whose, (count = { until: now + this.spanMs, so: 0 }));
    }
    return (count.so += 1);
  }

  /** Takes one back. */
  takeBack(whose: string): void {
    const count = this.counts.get(whose);
    if (count) count.so -= 1;
  }

  drop(whose: string): void {
    this.counts.delete(whose);
  }

  private forget(now: number): void {
    for (const [whose, { until }] of this.counts) if (until <= now) this.counts.delete(whose);
  }
}
