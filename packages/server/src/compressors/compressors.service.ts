import { Inject, Injectable } from '@nestjs/common';
import type {
  ChangePlate,
  CompressorsQuery,
  CompressorView,
  Page,
  PlateChangeView,
  RegisterCompressor,
} from '@entretien/contracts';
import { dayNumberOf, formatInstant, localDayAt, type Instant, type Problem } from '@entretien/core/basics';
import { plateDoubts, plateProblems, type DataPlate } from '@entretien/core/machine';
import { defaultPlan } from '@entretien/core/plan';
import { pageSize, readCursor, toPage } from '../common/page.js';
import { malformed, ProblemError } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { PeopleService } from '../people/people.js';
import {
  CompressorEntity,
  PlateChangeEntity,
  type PlateFields,
} from '../persistence/entities/compressor.entity.js';
import { factView } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { SitesService } from '../sites/sites.service.js';
import { PlanRepository } from './plan-repository.js';
import { CompressorRegister, type CompressorRecord } from './compressor-register.js';

/** Takes compressors into the register, and keeps their plates and plans. */
@Injectable()
export class CompressorsService {
  constructor(
    private readonly plans: PlanRepository,
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    private readonly sites: SitesService,
    private readonly register: CompressorRegister,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  add(request: RegisterCompressor, by: string): CompressorView {
    const { id: sentId, by: _by, note, history, ...details } = request;
    const plate = {
      ...withoutNulls(details),
      siteId: request.siteId.toLowerCase(),
      tag: request.tag.trim(),
      history: history ?? 'new',
    } as DataPlate;
    const id = sentId.toLowerCase();
    const content = { id, by: this.people.require(by), note: note ?? null, plate };
    this.facts.record(CompressorEntity, content, (recordedAt) => {
      this.refuseImpossible(plate);
      this.startPlan(id, plate, content.by, recordedAt);
      return { marks: this.tagInUse(plate, id) ? ['tag-in-use'] : [] };
    });
    return this.view(this.register.require(id));
  }

  changePlate(compressorId: string, request: ChangePlate, by: string): PlateChangeView {
    const record = this.register.require(compressorId);
    const { id, by: _by, note, changedAt: sentAt, ...fields } = request;
    const changes = given(fields);
    if (Object.keys(changes).length === 0) {
      throw malformed([{ field: 'changes', message: 'Say at least one thing that changed.' }]);
    }
    const changedAt = Date.parse(sentAt);
    const content = {
      id: id.toLowerCase(),
      compressorId: record.id,
      changedAt,
      changes,
      note: note ?? null,
      by: this.people.require(by),
    };
    const { row } = this.facts.record(PlateChangeEntity, content, (recordedAt) => {
      const before = this.register.plateOf(record, changedAt);
      this.register.refuseFuture(record, changedAt, 'changedAt', recordedAt);
      this.refuseImpossible({ ...before, ...withoutNulls(changes) } as DataPlate);
      return { marks: [] };
    });
    return plateChangeView(row);
  }

  list(query: CompressorsQuery): Page<CompressorView> {
    const size = pageSize(query.limit);
    const now = this.clock();
    const after = query.cursor === undefined ? null : readCursor(query.cursor, 2).map(String);
    const keys = [...this.register.all()].flatMap((record) => {
      const plate = this.register.plateOf(record, now);
      const isShown =
        query.show === 'all' || this.register.isRetired(plate, now) === (query.show === 'retired');
      return isShown ? [{ record, key: [plate.tag, record.id] }] : [];
    });
    const rest = keys
      .sort((a, b) => compareKeys(a.key, b.key))
      .filter(({ key }) => after === null || compareKeys(key, after) > 0);
    return toPage(
      rest,
      size,
      ({ record }) => this.view(record),
      ({ key }) => key,
    );
  }

  find(compressorId: string): CompressorView {
    return this.view(this.register.require(compressorId));
  }

  private view(record: CompressorRecord): CompressorView {
    const plate = this.register.plateOf(record, this.clock());
    const doubts = plateDoubts(plate);
    return {
      id: record.id,
      revision: record.revision,
      registeredAt: formatInstant(record.registeredAt),
      by: record.by,
      ...plate,
      marks: [...record.marks, ...doubts.map((doubt) => doubt.code)],
      doubts,
    };
  }

  private refuseImpossible(plate: DataPlate): void {
    const problems: Problem[] = plateProblems(plate);
    const site = this.sites.find(plate.siteId);
    if (!site) {
      problems.push({ code: 'no-such-site', field: 'siteId', sentence: 'This site is not in the register.' });
    } else if (dayNumberOf(plate.commissionedOn) > localDayAt(this.clock(), site.timeZone)) {
      problems.push({
        code: 'in-the-future',
        field: 'commissionedOn',
        sentence: `${plate.commissionedOn} has not come yet. Register the unit when it is commissioned.`,
      });
    }
    const [first] = problems;
    if (!first) return;
    throw new ProblemError(
      422,
      first.code,
      'That cannot be.',
      first.sentence,
      problems.flatMap((one) => (one.field ? [{ field: one.field, message: one.sentence }] : [])),
    );
  }

  /** The plan that a unit starts with is copied to it, so that a later default does not rewrite its past. */
  private startPlan(compressorId: string, plate: DataPlate, by: string, now: Instant): void {
    const version = { compressorId, version: 1, effectiveAt: now, recordedAt: now, by };
    this.plans.add(this.plans.contentOf(defaultPlan(plate)), { ...version, id: null, note: null });
  }

  private tagInUse(plate: DataPlate, id: string): boolean {
    return [...this.register.all()].some((record) => {
      const now = this.clock();
      const other = this.register.plateOf(record, now);
      return record.id !== id && other.tag === plate.tag && !this.register.isRetired(other, now);
    });
  }
}

function withoutNulls<Fields extends object>(fields: Fields): Partial<Fields> {
  return Object.fromEntries(
    Object.entries(fields).filter(([, value]) => value !== null && value !== undefined),
  ) as Partial<Fields>;
}

/** Only what was sent: a field left out stays as it is, null makes it unknown. */
function given(fields: PlateFields): PlateFields {
  return Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined));
}

function compareKeys(a: readonly string[], b: readonly string[]): number {
  const index = a.findIndex((part, place) => part !== b[place]);
  if (index < 0) return 0;
  return a[index]! < b[index]! ? -1 : 1;
}

function plateChangeView(row: PlateChangeEntity): PlateChangeView {
  return { ...factView(row), changedAt: formatInstant(row.changedAt), changes: row.changes };
}
