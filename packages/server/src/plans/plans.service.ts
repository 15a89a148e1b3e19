import { Inject, Injectable } from '@nestjs/common';
import type {
  PlanContent,
  PlanLibraryQuery,
  PlanLibraryView,
  PlanPreviewView,
  PlanView,
  SavePlan,
} from '@entretien/contracts';
import { DAY_MS, formatInstant } from '@entretien/core/basics';
import type { DataPlate } from '@entretien/core/machine';
import {
  comingPoints,
  defaultPlan,
  planDifference,
  planFileOf,
  planFileSchema,
  planProblems,
  planVersionAt,
  practicesFor,
} from '@entretien/core/plan';
import { conflict, impossible, malformed, ProblemError } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { PlanRepository } from '../compressors/plan-repository.js';
import { CompressorHistories } from '../compressors/compressor-histories.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { Spine } from '../persistence/spine.js';
import { StandingsService } from '../standings/standings.service.js';
import { readPlan, refuseImpossible } from './read-plan.js';

/** A change takes effect within a year of now, or it is no plan yet. */
const FURTHEST_AHEAD_MS = 366 * DAY_MS;
/** Clocks differ, and a change may be written down the day after. */
const FURTHEST_BACK_MS = DAY_MS;
/** How many due points a preview looks ahead. */
const POINTS_AHEAD = 3;

/** What is to be done to each unit, version by version. */
@Injectable()
export class PlansService {
  constructor(
    private readonly database: Database,
    private readonly spine: Spine,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    private readonly histories: CompressorHistories,
    private readonly store: PlanRepository,
    private readonly standings: StandingsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  find(compressorId: string): PlanView {
    return this.view(this.register.require(compressorId));
  }

  /**
   * Saves a plan as the next version. What was due before it took effect stays as it was.
   *
   * @param basedOn the version that the change was made on, as its sender knew it
   */
  save(compressorId: string, sent: SavePlan, basedOn: string | undefined, by: string): PlanView {
    const unit = this.register.require(compressorId);
    const id = sent.id.toLowerCase();
    const plan = readPlan(sent);
    const person = this.people.require(by);
    const now = this.clock();
    const effectiveAt = sent.effectiveAt === undefined ? null : Date.parse(sent.effectiveAt);
    this.database.transact(() => {
      const content = this.store.contentOf(plan);
      if (this.spine.find(id)) {
        const known = this.store.versionById(id);
        if (known?.compressorId === unit.id && known.contentId === content.id) return;
        throw conflict(
          'id-already-used',
          'This id already belongs to another record.',
          'Something else was recorded under the same id. Send it again with a new id.',
        );
      }
      const latest = unit.planVersions.at(-1)!;
      this.refuseStale(basedOn, latest.version);
      refuseImpossible(plan, this.register.plateOf(unit, effectiveAt ?? now));
      const from = effectiveAt ?? Math.max(now, latest.effectiveAt);
      this.refuseMoment(from, latest.effectiveAt, now);
      this.store.add(content, {
        id,
        compressorId: unit.id,
        version: latest.version + 1,
        effectiveAt: from,
        recordedAt: now,
        by: person,
        note: sent.note ?? null,
      });
    });
    return this.view(this.register.require(unit.id));
  }

  /** What a plan would mean for a unit. Nothing is stored. */
  preview(compressorId: string, sent: PlanContent): PlanPreviewView {
    const unit = this.register.require(compressorId);
    const now = this.clock();
    const plan = readPlan(sent);
    const plate = this.register.plateOf(unit, now);
    const before = planVersionAt(unit.planVersions, now)!.plan;
    const coming = comingPoints(plan, this.histories.of(unit, plate), now, POINTS_AHEAD);
    return {
      problems: planProblems(plan, plate),
      standing: this.standings.underPlan(unit, plan),
      coming: Object.fromEntries(
        [...coming].map(([code, points]) => [
          code,
          points.map(({ at, ...point }) => ({ ...point, at: at === null ? null : formatInstant(at) })),
        ]),
      ),
      differences: planDifference(before, plan),
    };
  }

  library({ compressorId, family }: PlanLibraryQuery): PlanLibraryView {
    const plate =
      compressorId === undefined
        ? plateOfFamily(family)
        : this.register.plateOf(this.register.require(compressorId), this.clock());
    return {
      plan: planFileOf(defaultPlan(plate), plate.family),
      practices: practicesFor(plate),
      schema: planFileSchema,
    };
  }

  private view(unit: CompressorRecord): PlanView {
    const now = this.clock();
    const inForce = planVersionAt(unit.planVersions, now)!;
    const latest = unit.planVersions.at(-1)!;
    const { by, note } = this.store.papersOf(unit.id, inForce.version);
    const ahead = unit.planVersions.find(
      ({ version, effectiveAt }) => version > inForce.version && effectiveAt > now,
    );
    return {
      compressorId: unit.id,
      version: inForce.version,
      effectiveAt: formatInstant(inForce.effectiveAt),
      latest: latest.version,
      nextEffectiveAt: ahead ? formatInstant(ahead.effectiveAt) : null,
      by,
      ...(note === null ? {} : { note }),
      ...inForce.plan,
      practices: practicesFor(this.register.plateOf(unit, now), inForce.plan.choices),
    };
  }

  private refuseStale(basedOn: string | undefined, latest: number): void {
    if (basedOn === undefined) {
      throw new ProblemError(
        428,
        'version-missing',
        'Say which version you changed.',
        'A plan is saved with the version that it was based on, in If-Match.',
      );
    }
    const version = /^(?:W\/)?"?(\d{1,9})"?$/.exec(basedOn.trim())?.[1];
    if (Number(version) === latest) return;
    throw new ProblemError(
      412,
      'plan-changed',
      'The plan was changed meanwhile.',
      `You changed version ${version ?? basedOn.slice(0, 20)}, and the latest is version ${latest}. Look at what changed, then save again.`,
    );
  }

  private refuseMoment(effectiveAt: number, latestAt: number, now: number): void {
    const refuse = (sentence: string) => impossible({ code: 'effective-at', field: 'effectiveAt', sentence });
    if (effectiveAt < now - FURTHEST_BACK_MS) {
      throw refuse('A plan takes effect from now on: what was due before stays as it was.');
    }
    if (effectiveAt > now + FURTHEST_AHEAD_MS) throw refuse('A plan takes effect within a year.');
    if (effectiveAt < latestAt) {
      throw refuse(
        `The version before takes effect only on ${formatInstant(latestAt).slice(0, 10)}: choose a later moment.`,
      );
    }
  }
}

function plateOfFamily(family: PlanLibraryQuery['family']): DataPlate {
  if (family === undefined) {
    throw malformed([{ field: 'family', message: 'Ask for a unit or for a family.' }]);
  }
  return { siteId: '', tag: '', family, commissionedOn: '2026-01-01', history: 'new' };
}
