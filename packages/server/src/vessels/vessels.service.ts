import { Inject, Injectable } from '@nestjs/common';
import type {
  ChangeVessel,
  Page,
  RecordExamination,
  RegisterVessel,
  VesselsQuery,
  VesselView,
} from '@entretien/contracts';
import { dayNumberOf, formatDay, localDayAt } from '@entretien/core/basics';
import { isRetiredOn, reachedBar } from '@entretien/core/machine';
import type { VesselExamination } from '@entretien/core/plan';
import { v5 as idFrom } from 'uuid';
import { saidOf } from '../common/asset-fields.js';
import { pageOf } from '../common/page.js';
import { impossible, malformed, notFound } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { VesselRepository, type KnownVessel } from '../compressors/vessel-repository.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import {
  VesselChangeEntity,
  VesselEntity,
  VesselExaminationEntity,
  type VesselFields,
} from '../persistence/entities/vessel.entity.js';
import { FactStore } from '../persistence/fact-store.js';
import { SitesService } from '../sites/sites.service.js';

/** Receivers, banks and cylinders: assets of their own, shared by the compressors that fill them. */
@Injectable()
export class VesselsService {
  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    private readonly sites: SitesService,
    private readonly register: CompressorRegister,
    private readonly book: VesselRepository,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  add(sent: RegisterVessel, by: string): VesselView {
    const { id: sentId, by: _by, note, kind, lastTestOn, lastInspectionOn, ...details } = sent;
    const id = sentId.toLowerCase();
    const fields = saidOf({ ...details, tag: sent.tag.trim() });
    const content = { id, by: this.people.require(by), note: note ?? null, kind, details: fields };
    this.database.transact(() => {
      const { isNew } = this.facts.record(VesselEntity, content, () => {
        this.refuseUnknown(fields);
        this.refuseTagInUse(id, fields);
        return { marks: [] };
      });
      if (!isNew) return;
      const dates = { test: lastTestOn, inspection: lastInspectionOn };
      for (const [examination, doneOn] of Object.entries(dates) as [
        VesselExamination,
        string | undefined,
      ][]) {
        if (!doneOn) continue;
        // The dates in its papers are examinations of their own, under ids that follow from its own.
        const record = { id: idFrom(examination, id), kind: examination, doneOn, passed: true };
        this.store(id, record, content.by, fields.siteId!);
      }
    });
    this.changed(fields.compressorIds);
    return this.view(this.require(id));
  }

  change(vesselId: string, sent: ChangeVessel, by: string): VesselView {
    const before = this.require(vesselId);
    const { id, by: _by, note, ...fields } = sent;
    const changes = saidOf(fields);
    if (Object.keys(changes).length === 0) {
      throw malformed([{ field: 'changes', message: 'Say at least one thing that changed.' }]);
    }
    const content = {
      id: id.toLowerCase(),
      vesselId: before.id,
      changes,
      note: note ?? null,
      by: this.people.require(by),
    };
    this.facts.record(VesselChangeEntity, content, () => {
      this.refuseUnknown(changes);
      if (changes.tag !== undefined || changes.siteId !== undefined) {
        this.refuseTagInUse(before.id, { ...before.details, ...changes });
      }
      return { marks: [] };
    });
    this.changed([...before.compressorIds, ...(changes.compressorIds ?? [])]);
    return this.view(this.require(vesselId));
  }

  examine(vesselId: string, sent: RecordExamination, by: string): VesselView {
    const vessel = this.require(vesselId);
    this.store(vessel.id, sent, this.people.require(by), vessel.siteId);
    this.changed(vessel.compressorIds);
    return this.view(this.require(vesselId));
  }

  list(query: VesselsQuery): Page<VesselView> {
    const { compressorId, show } = query;
    const unit = compressorId === undefined ? null : this.register.require(compressorId);
    const vessels = [...this.book.all().values()]
      .filter(({ compressorIds }) => unit === null || compressorIds.includes(unit.id))
      .filter(({ siteId, details }) => show === 'all' || !this.isRetired(siteId, details))
      .sort((a, b) => (a.tag < b.tag ? -1 : a.tag > b.tag ? 1 : a.id < b.id ? -1 : 1));
    const { items, nextCursor } = pageOf(vessels, query, ({ id }) => id);
    return { items: items.map((vessel) => this.view(vessel)), nextCursor };
  }

  private isRetired(siteId: string, details: KnownVessel['details']): boolean {
    const today = localDayAt(this.clock(), this.sites.find(siteId)?.timeZone ?? 'UTC');
    return isRetiredOn(details, formatDay(today));
  }

  private store(
    vesselId: string,
    { id, kind, doneOn, passed, note }: Omit<RecordExamination, 'by'>,
    by: string,
    siteId: string,
  ): void {
    const content = { id: id.toLowerCase(), vesselId, kind, doneOn, passed, note: note ?? null, by };
    this.facts.record(VesselExaminationEntity, content, (recordedAt) => {
      const zone = this.sites.find(siteId)?.timeZone ?? 'UTC';
      if (dayNumberOf(doneOn) > localDayAt(recordedAt, zone)) {
        throw impossible({
          code: 'in-the-future',
          field: 'doneOn',
          sentence: `${doneOn} has not come yet.`,
        });
      }
      return { marks: [] };
    });
  }

  private changed(compressorIds: readonly string[] = []): void {
    this.book.forget();
    for (const id of new Set(compressorIds)) this.register.touched(id);
  }

  private refuseUnknown({ siteId, compressorIds = [] }: VesselFields): void {
    if (siteId !== undefined && !this.sites.find(siteId)) {
      throw impossible({
        code: 'no-such-site',
        field: 'siteId',
        sentence: 'This site is not in the register.',
      });
    }
    if (compressorIds.some((id) => !this.register.find(id))) {
      throw impossible({
        code: 'no-such-unit',
        field: 'compressorIds',
        sentence: 'One of the units that fill it is not in the register.',
      });
    }
  }

  /** At one site a tag says which vessel is meant: the next test must not be recorded of the other. */
  private refuseTagInUse(id: string, { siteId, tag }: VesselFields): void {
    const isTaken = [...this.book.all().values()].some(
      (other) =>
        other.id !== id &&
        other.siteId === siteId &&
        other.tag.toLowerCase() === tag?.toLowerCase() &&
        !this.isRetired(other.siteId, other.details),
    );
    if (!isTaken) return;
    throw impossible({
      code: 'tag-in-use',
      field: 'tag',
      sentence: `“${tag}” is another vessel at this site. Give each its own tag.`,
    });
  }

  private require(vesselId: string): KnownVessel {
    const vessel = this.book.all().get(vesselId.toLowerCase());
    if (!vessel) throw notFound('no-such-vessel', 'This vessel is not in the register.');
    return vessel;
  }

  private view(vessel: KnownVessel): VesselView {
    const { id, kind, note, details, siteId, tag, compressorIds, examinations } = vessel;
    const known = Object.fromEntries(
      Object.entries(details).filter(([, value]) => value !== null && value !== undefined),
    );
    return {
      ...known,
      id,
      kind,
      siteId,
      tag,
      compressorIds,
      ...(note === null ? {} : { note }),
      examinations: [...examinations]
        .reverse()
        .map(({ id: examined, kind: how, doneOn, passed, by, note: remark }) => ({
          id: examined,
          kind: how,
          doneOn,
          passed,
          by,
          ...(remark === null ? {} : { note: remark }),
        })),
      doubts: this.doubtsOf(vessel),
    };
  }

  /** The highest pressure allowed is that of the weakest. */
  private doubtsOf({ details, compressorIds, tag }: KnownVessel): VesselView['doubts'] {
    const { ratedBar } = details;
    if (ratedBar === undefined || ratedBar === null) return [];
    return compressorIds.flatMap((id) => {
      const unit = this.register.find(id);
      if (!unit) return [];
      const plate = this.register.plateOf(unit, this.clock());
      const reaches = reachedBar(plate);
      if (reaches === undefined || reaches <= ratedBar) return [];
      return [
        {
          code: 'rated-below',
          sentence: `${tag} is rated for ${ratedBar} bar, and ${plate.tag} can reach ${reaches} bar. The weakest part sets the highest pressure.`,
        },
      ];
    });
  }
}
