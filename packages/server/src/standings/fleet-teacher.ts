import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { DAY_MS, type Instant } from '@entretien/core/basics';
import type { LearntFrom } from '@entretien/core/hours';
import { CLOCK, type Clock } from '../common/tokens.js';
import { FleetPriorRepository } from '../compressors/fleet-prior-repository.js';
import { CompressorHistories } from '../compressors/compressor-histories.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';

/** A fleet does not change its ways within a quarter; dates should not move more often than they must. */
const LEARNS_EVERY_DAYS = 90;

/** Lets the fleet's own machines teach what to expect of one that has hardly been read yet, at a start. */
@Injectable()
export class FleetTeacher implements OnApplicationBootstrap {
  constructor(
    private readonly register: CompressorRegister,
    private readonly histories: CompressorHistories,
    private readonly priors: FleetPriorRepository,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  onApplicationBootstrap(): void {
    const now = this.clock();
    const last = this.priors.learntAt();
    if (last !== null && now - last < LEARNS_EVERY_DAYS * DAY_MS) return;
    this.priors.learn(
      [...this.register.all()].flatMap((unit): LearntFrom[] => {
        const model = this.modelOf(unit, now);
        if (!model) return [];
        const { typical, scatter, windowDays, season, basedOn } = model;
        return [
          { intervals: basedOn.intervals, typical, scatter, windowDays, seasonTrust: season?.trust ?? null },
        ];
      }),
    );
  }

  /** What its use is like; nothing is to be learnt of a unit that cannot be judged, and it must not end the start. */
  private modelOf(unit: CompressorRecord, now: Instant) {
    return this.register.orUnjudged(
      unit,
      () => this.histories.clockOf(unit, now).model,
      () => null,
    );
  }
}
