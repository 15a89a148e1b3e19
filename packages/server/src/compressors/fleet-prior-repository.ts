import { Inject, Injectable } from '@nestjs/common';
import { EARLIEST_INSTANT } from '@entretien/core/basics';
import { learnPrior, practicePrior, type FleetPrior, type LearntFrom } from '@entretien/core/hours';
import type { DatedPrior } from '@entretien/core/plan';
import { CLOCK, type Clock } from '../common/tokens.js';
import { Database } from '../persistence/database.js';
import { FleetPriorEntity } from '../persistence/entities/fleet-prior.entity.js';

/**
 * What is believed of machines at large, by the day it was fixed. A stored fact, never worked out on the way:
 * else what one machine does would move the dates of all the others.
 */
@Injectable()
export class FleetPriorRepository {
  private known: readonly DatedPrior[] | null = null;

  constructor(
    private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** By the day they were fixed; common practice from the beginning. */
  all(): readonly DatedPrior[] {
    this.known ??= [
      { fixedAt: EARLIEST_INSTANT, prior: practicePrior },
      ...this.database
        .all<{ fixedAt: number; prior: string }>(
          'SELECT "fixed_at" AS "fixedAt", "prior" FROM "fleet_prior" ORDER BY "fixed_at"',
        )
        .map(({ fixedAt, prior }) => ({ fixedAt, prior: JSON.parse(prior) as FleetPrior })),
    ];
    return this.known;
  }

  /** When the last was fixed by the fleet itself; null while common practice holds. */
  learntAt(): number | null {
    const own = this.all().slice(1);
    return own.at(-1)?.fixedAt ?? null;
  }

  /** Fixes what the fleet shows today; nothing when there is too little of it to learn from. */
  learn(machines: readonly LearntFrom[]): void {
    const prior = learnPrior(machines, this.all().at(-1)!.prior);
    if (!prior) return;
    const fixedAt = this.clock();
    this.database.transact(() =>
      this.database.insert(
        FleetPriorEntity,
        { fixedAt, machines: machines.length, prior },
        { orIgnore: true },
      ),
    );
    this.known = null;
  }
}
