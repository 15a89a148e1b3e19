import { Inject, Injectable } from '@nestjs/common';
import type {
  ChangePoint,
  Page,
  PageQuery,
  PointBriefView,
  PointsQuery,
  PointView,
  PointWorkView,
  RecordPointWork,
  RegisterPoint,
  WithdrawPointWork,
} from '@entretien/contracts';
import {
  dayNumberOf,
  formatDay,
  formatInstant,
  localDayAt,
  type Instant,
  type LocalDate,
} from '@entretien/core/basics';
import { judgeCheck, type Judgement } from '@entretien/core/checks';
import type { IsolateBody, RestartBody } from '@entretien/core/isolation';
import { isBreathed, isRetiredOn, reachedBar } from '@entretien/core/machine';
import {
  pointDoubts,
  pointGuarded,
  pointProblem,
  pointStanding,
  pointStates,
  pointWorkProblem,
  type Feeding,
  type PointPlate,
  type PointStanding,
  type PointTelling,
} from '@entretien/core/points';
import { requireRight } from '../access/actor.js';
import { refuseAhead, refuseLongAgo } from '../common/long-ago.js';
import { saidOf } from '../common/asset-fields.js';
import { pageOf } from '../common/page.js';
import { conflict, impossible, malformed, notFound } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { VesselRepository } from '../compressors/vessel-repository.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import {
  PointChangeEntity,
  PointEntity,
  PointWithdrawalEntity,
  PointWorkEntity,
  type StoredLook,
} from '../persistence/entities/point.entity.js';
import { FactStore } from '../persistence/fact-store.js';
import { SitesService } from '../sites/sites.service.js';
import { WorkshopSettingsService } from '../workshop/workshop-settings.js';
import { PointRegister, type KnownPoint } from './point-register.js';

/** Points of use: assets of a site, behind whichever compressors feed its network. */
@Injectable()
export class PointsService {
  /** By the point as it is known: a change makes another of it. */
  private readonly standings = new WeakMap<KnownPoint, { day: number; standing: PointStanding }>();

  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    private readonly sites: SitesService,
    private readonly register: CompressorRegister,
    private readonly vessels: VesselRepository,
    private readonly points: PointRegister,
    private readonly settings: WorkshopSettingsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  add(sent: RegisterPoint, by: string): PointView {
    const { id: sentId, by: _by, note, ...fields } = sent;
    const id = sentId.toLowerCase();
    const details = saidOf({ ...fields, tag: sent.tag.trim() });
    const siteId = details.siteId!;
    const content = { id, siteId, details, note: note ?? null, by: this.people.require(by) };
    this.facts.record(PointEntity, content, (recordedAt) => {
      this.refuseWrong(id, details as PointPlate, recordedAt);
      this.refuseDayAhead(details.fittedOn!, siteId, recordedAt);
      return { marks: [] };
    });
    this.points.forget();
    return this.view(this.require(id));
  }

  change(pointId: string, sent: ChangePoint, by: string): PointView {
    const before = this.require(pointId);
    const { id, by: _by, note, ...fields } = sent;
    const changes = saidOf(fields);
    if (Object.keys(changes).length === 0)
      throw malformed([{ field: 'changes', message: 'Say at least one thing that changed.' }]);
    const content = {
      id: id.toLowerCase(),
      siteId: before.siteId,
      pointId: before.id,
      changes,
      note: note ?? null,
      by: this.people.require(by),
    };
    this.facts.record(PointChangeEntity, content, (recordedAt) => {
      this.refuseWrong(before.id, { ...before.plate, ...changes }, recordedAt);
      return { marks: [] };
    });
    this.points.forget();
    return this.view(this.require(pointId));
  }

  record(pointId: string, sent: RecordPointWork, by: string): PointView {
    const point = this.require(pointId);
    const content = { ...contentOf(point, sent), by: this.people.require(by) };
    this.facts.record(PointWorkEntity, content, (recordedAt) => {
      const timeZone = this.zoneOf(point.siteId);
      refuseAhead(content.doneAt, 'doneAt', { now: recordedAt, timeZone });
      refuseLongAgo(content.doneAt, 'doneAt');
      const { tasks, steps, doneAt } = content;
      const looks = content.looks.map(({ check, at }) => ({ code: check, at }));
      const telling: PointTelling = { doneAt, by: content.by, tasks, looks, steps, note: content.note };
      const guarded = pointGuarded(timeZone, this.settings.usualPause());
      const problem = pointWorkProblem(point.plate, telling, guarded);
      if (problem?.code === 'not-isolated')
        throw conflict(problem.code, 'Not as it stands.', problem.sentence);
      if (problem) throw impossible(problem);
      const judgements = content.looks.map((look) => judged(look, timeZone));
      return { marks: [], judgements, tag: point.plate.tag };
    });
    this.points.forget();
    return this.view(this.require(pointId));
  }

  withdraw(pointId: string, sent: WithdrawPointWork, by: string): PointView {
    const point = this.require(pointId);
    const workId = sent.workId.toLowerCase();
    const content = {
      id: sent.id.toLowerCase(),
      siteId: point.siteId,
      pointId: point.id,
      workId,
      reason: sent.reason,
      note: null,
      by: this.people.require(by),
    };
    this.facts.record(PointWithdrawalEntity, content, () => {
      const work = this.facts.find(PointWorkEntity, workId);
      if (work?.pointId !== point.id)
        throw notFound('no-such-fact', 'What is to be withdrawn is not on record for this point of use.');
      if (!point.work.some(({ id }) => id === workId))
        throw conflict('already-voided', 'That was corrected before.', 'It has been withdrawn already.');
      // It would be a way back into use that nobody answers for.
      if (work.judgements.some(({ verdict }) => verdict === 'stop'))
        requireRight('sign', 'What stops a point of use is withdrawn by who may sign for it.');
      return { marks: [] };
    });
    this.points.forget();
    return this.view(this.require(pointId));
  }

  one(pointId: string): PointView {
    return this.view(this.require(pointId));
  }

  /** By what is most urgent, then by tag. */
  list(query: PointsQuery): Page<PointBriefView> {
    const { compressorId, siteId, show = 'in-service' } = query;
    const unit = compressorId === undefined ? null : this.register.require(compressorId).id;
    const site = siteId === undefined ? null : this.sites.require(siteId).id;
    const views = [...this.points.all().values()]
      .filter((point) => site === null || point.siteId === site)
      .filter(({ plate }) => unit === null || plate.compressorIds.includes(unit))
      .filter((point) => show === 'all' || !this.isRetired(point))
      .map((point) => this.brief(point))
      .filter(({ state }) => show !== 'due' || state === 'stopped' || state === 'overdue' || state === 'due')
      .sort(
        (one, other) =>
          pointStates.indexOf(one.state) - pointStates.indexOf(other.state) ||
          one.tag.localeCompare(other.tag, 'en', { numeric: true }) ||
          (one.id < other.id ? -1 : 1),
      );
    return pageOf(views, query, ({ id }) => id);
  }

  /** What was done at it, the latest first; what was withdrawn with its reason. */
  history(pointId: string, query: PageQuery): Page<PointWorkView> {
    const { id } = this.require(pointId);
    const rows = this.database.findAll(
      PointWorkEntity,
      'WHERE "point_id" = ? ORDER BY "done_at" DESC, "id" DESC',
      id,
    );
    const withdrawals = new Map(
      this.database
        .findAll(PointWithdrawalEntity, 'WHERE "point_id" = ?', id)
        .map((withdrawal) => [withdrawal.workId, withdrawal]),
    );
    const { items, nextCursor } = pageOf(rows, query, (row) => row.id, 50);
    return { items: items.map((row) => workView(row, withdrawals.get(row.id))), nextCursor };
  }

  /** How a point stands; the same all day, as long as nothing about it changes. */
  private standingOf(point: KnownPoint): PointStanding {
    const now = this.clock();
    const timeZone = this.zoneOf(point.siteId);
    const day = localDayAt(now, timeZone);
    const known = this.standings.get(point);
    if (known?.day === day) return known.standing;
    const standing = pointStanding(point.plate, point.work, { now, timeZone });
    // What a fast clock put ahead of now comes true within the day.
    if (point.work.every(({ doneAt }) => doneAt <= now)) this.standings.set(point, { day, standing });
    return standing;
  }

  private brief(point: KnownPoint, feeding = this.feedingOf(point.plate, this.clock())): PointBriefView {
    const { id, siteId, plate } = point;
    const { tasks, stops, state } = this.standingOf(point);
    return {
      id,
      siteId,
      siteName: this.sites.find(siteId)?.name ?? '',
      tag: plate.tag,
      ...(plate.place ? { place: plate.place } : {}),
      units: feeding.map(({ id: unit, tag }) => ({ id: unit, tag })),
      state,
      stops: stops.map((stop) => ({ ...stop, since: formatInstant(stop.since) })),
      tasks: tasks.map(({ code, name, state: due, used, dueOn }) => ({
        code,
        name,
        state: due,
        used,
        dueOn,
      })),
    };
  }

  private view(point: KnownPoint): PointView {
    const { siteId, note, plate } = point;
    const feeding = this.feedingOf(plate, this.clock());
    return {
      ...known(plate),
      ...this.brief(point, feeding),
      timeZone: this.zoneOf(siteId),
      ...(note === null ? {} : { note }),
      vessels: plate.vesselIds.flatMap((vesselId) => {
        const vessel = this.vessels.all().get(vesselId);
        return vessel ? [{ id: vesselId, tag: vessel.tag }] : [];
      }),
      tasks: this.standingOf(point).tasks.map((task) => ({
        ...task,
        lastDoneAt: task.lastDoneAt === null ? null : formatInstant(task.lastDoneAt),
      })),
      doubts: pointDoubts(plate, feeding),
    };
  }

  private feedingOf({ compressorIds }: PointPlate, at: Instant): readonly (Feeding & { id: string })[] {
    return compressorIds.flatMap((id) => {
      const unit = this.register.find(id);
      if (!unit) return [];
      const plate = this.register.plateOf(unit, at);
      return [{ id, tag: plate.tag, reachesBar: reachedBar(plate), isBreathable: isBreathed(plate) }];
    });
  }

  /** Of a known point, or one that is to be known: what cannot be so. */
  private refuseWrong(id: string, plate: PointPlate, at: Instant): void {
    const site = this.sites.find(plate.siteId);
    if (!site)
      throw impossible({
        code: 'no-such-site',
        field: 'siteId',
        sentence: 'This site is not in the register.',
      });
    for (const compressorId of plate.compressorIds) {
      const unit = this.register.find(compressorId);
      const feeds = unit && this.register.plateOf(unit, at);
      // A unit that has gone since it was set down is no reason to refuse what else changed.
      const wasKnown = this.points.all().get(id)?.plate.compressorIds.includes(compressorId);
      if (!feeds || (!wasKnown && (feeds.siteId !== site.id || this.register.isRetired(feeds, at))))
        throw impossible({
          code: 'no-such-unit',
          field: 'compressorIds',
          sentence: 'One of the units that feed it is not in service at this site.',
        });
    }
    const strange = plate.vesselIds.some((vesselId) => this.vessels.all().get(vesselId)?.siteId !== site.id);
    if (strange)
      throw impossible({
        code: 'no-such-vessel',
        field: 'vesselIds',
        sentence: 'One of the vessels that feed it is not at this site.',
      });
    const problem = pointProblem(plate);
    if (problem) throw impossible(problem);
    this.refuseTagInUse(id, plate);
  }

  private refuseTagInUse(id: string, { siteId, tag }: PointPlate): void {
    const isTaken = [...this.points.all().values()].some(
      (other) =>
        other.id !== id &&
        other.siteId === siteId &&
        other.plate.tag.toLowerCase() === tag.toLowerCase() &&
        !this.isRetired(other),
    );
    if (!isTaken) return;
    throw impossible({
      code: 'tag-in-use',
      field: 'tag',
      sentence: `“${tag}” is another point of use at this site. Give each its own tag.`,
    });
  }

  private refuseDayAhead(day: LocalDate, siteId: string, recordedAt: Instant): void {
    if (dayNumberOf(day) <= localDayAt(recordedAt, this.zoneOf(siteId))) return;
    throw impossible({ code: 'in-the-future', field: 'fittedOn', sentence: `${day} has not come yet.` });
  }

  private isRetired({ siteId, plate }: KnownPoint): boolean {
    return isRetiredOn(plate, formatDay(localDayAt(this.clock(), this.zoneOf(siteId))));
  }

  private zoneOf(siteId: string): string {
    return this.sites.find(siteId)?.timeZone ?? 'UTC';
  }

  private require(pointId: string): KnownPoint {
    const point = this.points.all().get(pointId.toLowerCase());
    if (!point) throw notFound('no-such-point', 'This point of use is not in the register.');
    return point;
  }
}

function contentOf({ id, siteId }: KnownPoint, sent: RecordPointWork) {
  return {
    id: sent.id.toLowerCase(),
    siteId,
    pointId: id,
    doneAt: Date.parse(sent.doneAt),
    tasks: sent.tasks.map(({ code, at }) => ({ code, at: Date.parse(at) })),
    looks: sent.looks.map(({ check, values, at }) => ({ check, values, at: Date.parse(at) })),
    steps: sent.steps.map(({ at, ...body }) => ({
      at: Date.parse(at),
      body: body as IsolateBody | RestartBody,
    })),
    note: sent.note ?? null,
  };
}

/** Judged by itself: a point of use has no data plate of a machine. */
function judged({ check, values, at }: StoredLook, timeZone: string): Judgement {
  const found = judgeCheck(check, values, { on: formatDay(localDayAt(at, timeZone)) });
  if (found.ok) return found.value;
  const { problem } = found;
  throw impossible({ ...problem, field: 'looks' });
}

function workView(row: PointWorkEntity, withdrawal: PointWithdrawalEntity | undefined): PointWorkView {
  return {
    id: row.id,
    doneAt: formatInstant(row.doneAt),
    recordedAt: formatInstant(row.recordedAt),
    by: row.by,
    ...(row.note === null ? {} : { note: row.note }),
    tasks: row.tasks.map(({ code, at }) => ({ code, at: formatInstant(at) })),
    looks: row.looks.map(({ at, ...look }, index) => ({
      ...look,
      at: formatInstant(at),
      judgement: row.judgements[index]!,
    })),
    steps: row.steps.map(({ at, body }) => ({ at: formatInstant(at), ...body })),
    ...(withdrawal === undefined
      ? {}
      : {
          withdrawn: {
            at: formatInstant(withdrawal.recordedAt),
            by: withdrawal.by,
            reason: withdrawal.reason,
          },
        }),
  };
}

function known(plate: PointPlate): PointPlate {
  return Object.fromEntries(
    Object.entries(plate).filter(([, value]) => value !== null && value !== undefined),
  ) as unknown as PointPlate;
}
