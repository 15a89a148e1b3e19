import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { DAY_MS } from '@entretien/core/basics';
import type { LearntFrom } from '@entretien/core/hours';
import { hourClockOf } from '@entretien/core/plan';
import { CLOCK, type Clock } from '../common/tokens.js';
import { FleetPriors } from '../compressors/fleet-priors.js';
import { UnitRegister } from '../compressors/unit-register.js';

/** A fleet does not change its ways within a quarter; dates should not move more often than they must. */
const LEARNS_EVERY_DAYS = 90;

/** Lets the fleet's own machines teach what to expect of one that has hardly been read yet, at a start. */
@Injectable()
export class FleetTeacher implements OnApplicationBootstrap {
  constructor(
    private readonly register: UnitRegister,
    private readonly priors: FleetPriors,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  onApplicationBootstrap(): void {
    const now = this.clock();
    const last = this.priors.learntAt();
    if (last !== null && now - last < LEARNS_EVERY_DAYS * DAY_MS) return;
    const units = [...this.register.all()];
    this.register.prepare(units.map((unit) => unit.id));
    this.priors.learn(
      units.flatMap((unit): LearntFrom[] => {
        const history = this.register.historyOf(unit, this.register.plateOf(unit, now));
        const { model } = hourClockOf(history, now);
        if (!model) return [];
        const { typical, scatter, windowDays, season, basedOn } = model;
        return [
          { intervals: basedOn.intervals, typical, scatter, windowDays, seasonTrust: season?.trust ?? null },
        ];
      }),
    );
  }
}
