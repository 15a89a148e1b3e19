import { Inject, Injectable } from '@nestjs/common';
import type { ReturnToService, StopView, TakeOutOfService } from '@entretien/contracts';
import { dayNumberOf, formatInstant, startOfLocalDay } from '@entretien/core/basics';
import { isBreathed } from '@entretien/core/machine';
import {
  admitReturn,
  standingStops,
  type Ground,
  type LastVerdict,
  type StandingStop,
} from '@entretien/core/stop';
import { groupBy } from '../common/group-by.js';
import { refuseLongAgo } from '../common/long-ago.js';
import { conflict, impossible, notFound } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { RepairEntity } from '../persistence/entities/repair.entity.js';
import { OutOfServiceEntity, ReturnToServiceEntity } from '../persistence/entities/stop.entity.js';
import {
  VesselChangeEntity,
  VesselEntity,
  VesselExaminationEntity,
} from '../persistence/entities/vessel.entity.js';
import { FactStore } from '../persistence/fact-store.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { SitesService } from '../sites/sites.service.js';

type VerdictRow = LastVerdict & { readonly compressorId: string };

/** What must not be used: taken out by somebody, or by a verdict that is on record. */
@Injectable()
export class StopsService {
  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    private readonly sites: SitesService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  private plateOf(unit: CompressorRecord) {
    return this.register.plateOf(unit, this.clock());
  }

  /** Everything in the fleet that must not be used, the oldest first. */
  all(): readonly StopView[] {
    const verdicts = groupBy(
      this.database.all<VerdictRow>(`${STOPPED} ORDER BY 1`),
      ({ compressorId }) => compressorId,
    );
    const taken = groupBy(this.database.findAll(OutOfServiceEntity, ''), ({ compressorId }) => compressorId);
    const back = groupBy(
      this.database.findAll(ReturnToServiceEntity, ''),
      ({ compressorId }) => compressorId,
    );
    const units = [...new Set([...verdicts.keys(), ...taken.keys()])];
    return units
      .flatMap((id) => {
        const unit = this.register.find(id);
        if (!unit || this.register.isRetired(this.plateOf(unit), this.clock())) return [];
        const breathed = isBreathed(this.plateOf(unit));
        const stops = standingStops(
          verdicts.get(id) ?? [],
          taken.get(id) ?? [],
          back.get(id) ?? [],
          breathed,
        );
        return stops.map((stop) => this.view(unit, stop));
      })
      .sort((a, b) => (a.since < b.since ? -1 : a.since > b.since ? 1 : a.id < b.id ? -1 : 1));
  }

  /** What stands against using one unit. */
  of(compressorId: string): readonly StandingStop[] {
    return standingStops(
      this.database.all<VerdictRow>(`${STOPPED} AND "m"."compressor_id" = ?`, compressorId),
      this.database.findAll(OutOfServiceEntity, 'WHERE "compressor_id" = ?', compressorId),
      this.database.findAll(ReturnToServiceEntity, 'WHERE "compressor_id" = ?', compressorId),
      isBreathed(this.plateOf(this.register.require(compressorId))),
    );
  }

  views(compressorId: string): readonly StopView[] {
    const unit = this.register.require(compressorId);
    return this.of(unit.id).map((stop) => this.view(unit, stop));
  }

  takeOut(compressorId: string, sent: TakeOutOfService, by: string): readonly StopView[] {
    const unit = this.register.require(compressorId);
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      since: Date.parse(sent.since),
      scope: sent.scope,
      place: sent.place ?? null,
      ground: sent.ground,
      why: sent.why,
      finding: sent.finding?.toLowerCase() ?? null,
      toShow: sent.toShow ?? null,
      informed: sent.informed ?? null,
      note: sent.note ?? null,
      by: this.people.require(by),
    };
    this.facts.record(OutOfServiceEntity, content, (recordedAt) => {
      this.register.refuseFuture(unit, content.since, 'since', recordedAt);
      refuseLongAgo(content.since, 'since');
      if (
        content.finding !== null &&
        this.facts.find(RepairEntity, content.finding)?.compressorId !== unit.id
      )
        throw impossible({
          code: 'no-such-repair',
          field: 'finding',
          sentence: 'That finding is not of this unit.',
        });
      return { marks: [] };
    });
    return this.views(unit.id);
  }

  /** A stop ends with something better that is on record, or with a decision; some with no decision at all. */
  bringBack(compressorId: string, sent: ReturnToService, by: string): readonly StopView[] {
    const unit = this.register.require(compressorId);
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      at: Date.parse(sent.at),
      ends: sent.ends.toLowerCase(),
      shownBy: sent.shownBy?.toLowerCase() ?? null,
      decidedBy: sent.decidedBy ?? null,
      reason: sent.reason ?? null,
      note: sent.note ?? null,
      by: this.people.require(by),
    };
    this.facts.record(ReturnToServiceEntity, content, (recordedAt) => {
      this.register.refuseFuture(unit, content.at, 'at', recordedAt);
      const stop = this.of(unit.id).find(({ id }) => id === content.ends);
      if (!stop) throw notFound('no-such-stop', 'Nothing of that kind stands against using this unit.');
      if (content.at < stop.since)
        throw impossible({
          code: 'not-later',
          field: 'at',
          sentence: 'That lies before it was taken out of service.',
        });
      const admitted = admitReturn(stop, this.groundOf(unit, content));
      if (!admitted.ok) {
        const { problem } = admitted;
        throw problem.code === 'missing'
          ? impossible(problem)
          : conflict(problem.code, 'It stays out of service.', problem.sentence);
      }
      return { marks: [] };
    });
    return this.views(unit.id);
  }

  private groundOf(
    unit: CompressorRecord,
    { shownBy, reason, decidedBy }: Pick<ReturnToServiceEntity, 'shownBy' | 'reason' | 'decidedBy'>,
  ): Ground {
    const decision = { reason: reason ?? undefined, decidedBy: decidedBy ?? undefined };
    if (shownBy === null) return decision;
    const [measured] = this.database.all<VerdictRow>(
      `SELECT "id", "check_code" AS "check", "verdict", "taken_at" AS "takenAt" FROM "measurement" "m" WHERE "id" = ? AND "compressor_id" = ? AND ${stands('m')}`,
      shownBy,
      unit.id,
    );
    if (measured) return { ...decision, shown: measured };
    const examination = this.facts.find(VesselExaminationEntity, shownBy);
    if (examination?.passed && this.isVesselOf(examination.vesselId, unit)) {
      const zone = this.register.timeZoneOf(this.plateOf(unit));
      // A day: from its end on it is known to have been passed.
      return { ...decision, examinedAt: startOfLocalDay(dayNumberOf(examination.doneOn) + 1, zone) - 1 };
    }
    throw impossible({
      code: 'no-such-measurement',
      field: 'shownBy',
      sentence: 'What is to show it is not on record for this unit.',
    });
  }

  private isVesselOf(vesselId: string, unit: CompressorRecord): boolean {
    const known = [
      this.facts.find(VesselEntity, vesselId)?.details,
      ...this.database
        .findAll(VesselChangeEntity, 'WHERE "vessel_id" = ?', vesselId)
        .map(({ changes }) => changes),
    ];
    return known.some((fields) => fields?.compressorIds?.includes(unit.id));
  }

  private view(unit: CompressorRecord, { since, by, ...stop }: StandingStop): StopView {
    const { tag, siteId } = this.plateOf(unit);
    return {
      ...stop,
      compressorId: unit.id,
      tag,
      siteName: this.sites.find(siteId)?.name ?? '',
      since: formatInstant(since),
      by,
      byName: this.people.nameOf(by),
    };
  }
}

/** Measurements that say stop, and are the last of their check that stands. */
const STOPPED = `SELECT "m"."compressor_id" AS "compressorId", "m"."id", "m"."check_code" AS "check", "m"."verdict", "m"."taken_at" AS "takenAt", "m"."by", json_extract("m"."judgement", '$.reason') AS "reason" FROM "measurement" "m" WHERE "m"."verdict" = 'stop' AND ${stands('m')} AND NOT EXISTS (SELECT 1 FROM "measurement" "n" WHERE "n"."compressor_id" = "m"."compressor_id" AND "n"."check_code" = "m"."check_code" AND ("n"."taken_at", "n"."id") > ("m"."taken_at", "m"."id") AND ${stands('n')})`;
