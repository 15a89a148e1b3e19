import { Injectable } from '@nestjs/common';
import {
  isolationContracts,
  type AddRepairEntry,
  type FaultCountsView,
  type OpenRepair,
  type RecordRepairStep,
  type RepairStepView,
  type RepairEntryView,
  type RepairsQuery,
  type RepairView,
  type WithdrawFact,
} from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import { stationCodes } from '@entretien/core/machine';
import { checkByCode, outcomeOf } from '@entretien/core/checks';
import { describeMissing, type IsolateBody, type RestartBody } from '@entretien/core/isolation';
import {
  admitEntry,
  admitRewording,
  checksThatProve,
  openedByEntry,
  repairStanding,
  type RepairEntry,
} from '@entretien/core/repairs';
import { LIVE_MS, moduleOf } from '@entretien/core/visit';
import { v5 as idFrom } from 'uuid';
import { groupBy } from '../common/group-by.js';
import { refuseLongAgo } from '../common/long-ago.js';
import { conflict, impossible, notFound } from '../common/problem.js';
import { checkedBody, checkedByKind } from '../common/validation.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { IsolationService } from '../isolation/isolation.service.js';
import { MeasurementsService } from '../measurements/measurements.service.js';
import { PartsService } from '../parts/parts.service.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { MeasurementEntity } from '../persistence/entities/measurement.entity.js';
import { RepairEntity, RepairEntryEntity, RepairStepEntity } from '../persistence/entities/repair.entity.js';
import { factView } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { EntryRegistry } from './entry-registry.js';

/** So many of those that were never closed are looked into. */
const MOST_OPEN = 1000;

const STAND = stands('repair_entry');

/** Faults from found to proved; and what was changed on purpose. */
@Injectable()
export class RepairsService {
  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    private readonly measurements: MeasurementsService,
    private readonly parts: PartsService,
    private readonly registry: EntryRegistry,
    private readonly isolation: IsolationService,
  ) {}

  report(compressorId: string, sent: OpenRepair, by: string): RepairView {
    const unit = this.register.require(compressorId);
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      kind: sent.kind,
      foundAt: Date.parse(sent.foundAt),
      found: sent.found,
      station: sent.station ?? null,
      note: sent.note ?? null,
      by: this.people.require(by),
    };
    const { row } = this.facts.record(RepairEntity, content, (recordedAt) => {
      this.register.refuseFuture(unit, content.foundAt, 'foundAt', recordedAt);
      refuseLongAgo(content.foundAt, 'foundAt');
      const plate = this.register.plateOf(unit, content.foundAt);
      if (content.station !== null && !stationCodes(plate).has(content.station)) {
        throw impossible({
          code: 'unknown-station',
          field: 'station',
          sentence: `“${content.station}” is no station of this machine.`,
        });
      }
      return { marks: [] };
    });
    return this.view(row);
  }

  add(repairId: string, body: object, by: string): RepairView {
    const repair = this.require(repairId);
    const sent = checkedBody(this.registry.contracts, body) as AddRepairEntry;
    const corrected = sent.corrects === undefined ? null : this.requireEntry(repair, sent.corrects);
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: repair.compressorId,
      repairId: repair.id,
      kind: sent.kind,
      at: Date.parse(sent.at),
      text: sent.text,
      minutes: sent.minutes ?? null,
      count: sent.count ?? null,
      part: sent.part?.toLowerCase() ?? null,
      check: sent.check ?? null,
      values: sent.values ?? null,
      cause: sent.cause ?? null,
      search: sent.search ?? null,
      opens: sent.opens ?? null,
      session: sent.session ?? null,
      note: sent.reason ?? null,
      corrects: corrected?.id ?? null,
      by: this.people.require(by),
      // Its words are put right: it stays when it was, and what it opened.
      ...(corrected && { at: corrected.at, opens: corrected.opens, session: corrected.session }),
    };
    this.facts.record(RepairEntryEntity, content, (recordedAt) => {
      if (corrected) {
        const reworded = admitRewording(corrected, content, this.registry.kinds);
        if (!reworded.ok) throw impossible(reworded.problem);
        return { marks: [], outcome: null };
      }
      this.register.refuseFuture(this.register.require(repair.compressorId), content.at, 'at', recordedAt);
      if (content.at < repair.foundAt) {
        throw impossible({
          code: 'before-it-was-found',
          field: 'at',
          sentence: 'That lies before the fault was found.',
        });
      }
      this.refuseUnisolated(repair, content, recordedAt);
      this.refuseIdle(repair, content);
      const outcome = this.measure(repair, content, by);
      const admitted = admitEntry(repair.kind, this.entriesOf(repair.id), {
        kind: content.kind,
        verdict: outcome?.verdict,
        cause: content.cause ?? undefined,
      });
      if (!admitted.ok) {
        const { problem } = admitted;
        if (problem.code !== 'already-settled') throw impossible(problem);
        throw conflict(problem.code, 'It is settled.', problem.sentence);
      }
      return { marks: [...this.useOf(content)], outcome };
    });
    return this.view(repair);
  }

  /** An entry was wrong: it stays on record with the reason, and counts no longer; nor does what came of it. */
  takeBack(repairId: string, entryId: string, sent: WithdrawFact, by: string): RepairView {
    const repair = this.require(repairId);
    const entry = this.requireEntry(repair, entryId);
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: repair.compressorId,
      factId: entry.id,
      reason: sent.reason,
      note: null,
      by: this.people.require(by),
    };
    this.facts.withdraw(RepairEntryEntity, content, (movedAt) => {
      this.parts.bringBack({ usedIn: entry.id, movedAt, by: content.by });
      const modification = modificationOf(entry);
      if (this.facts.find(RepairEntity, modification) && !this.isVoided(modification)) {
        const also = { ...content, id: idFrom('also changed', content.id), factId: modification };
        this.facts.withdraw(RepairEntity, also, () => []);
      }
      const measurement = measurementOf(entry);
      if (entry.outcome && !this.isVoided(measurement)) {
        const also = { ...content, id: idFrom('also', content.id), factId: measurement };
        this.facts.withdraw(MeasurementEntity, also, () => []);
      }
      return [];
    });
    return this.view(repair);
  }

  private useOf({
    id,
    at,
    by,
    part,
    count,
    note,
    compressorId,
  }: Pick<
    RepairEntryEntity,
    'id' | 'at' | 'by' | 'part' | 'count' | 'note' | 'compressorId'
  >): readonly string[] {
    if (part === null) return [];
    const plate = this.register.plateOf(this.register.require(compressorId), at);
    this.parts.refuseUnreasoned({ part, reason: note ?? undefined }, plate, {
      compressorId,
      field: 'reason',
    });
    const marks = this.parts.use(part, { count: count ?? 1, usedIn: id, usedAt: at, by });
    this.recordSubstitute({ part, reason: note ?? undefined }, { id, at, compressorId, by });
    return marks;
  }

  /** A part that is not the unit’s own changes it: from then on that stands on record, and parts must fit it as it is. */
  recordSubstitute(
    used: { readonly part: string; readonly reason?: string | undefined },
    { id, at, compressorId, by }: Pick<RepairEntryEntity, 'id' | 'at' | 'compressorId' | 'by'>,
  ): void {
    const plate = this.register.plateOf(this.register.require(compressorId), at);
    const found = this.parts.modificationBy(used, plate, compressorId);
    if (found === null) return;
    const sent = {
      id: modificationOf({ id }),
      kind: 'modification',
      foundAt: formatInstant(at),
      found,
    } as const;
    this.report(compressorId, sent, by);
  }

  /** A step of isolating, or of starting again: the same as in a visit, told of a repair. */
  step(repairId: string, sent: RecordRepairStep, by: string): RepairStepView {
    const repair = this.require(repairId);
    const unit = this.register.require(repair.compressorId);
    const details = checkedByKind(isolationContracts, sent, 'details');
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      repairId: repair.id,
      kind: sent.kind as RepairStepEntity['kind'],
      doneAt: Date.parse(sent.doneAt),
      session: sent.session,
      details,
      note: null,
      by: this.people.require(by),
    };
    const { row } = this.facts.record(RepairStepEntity, content, (recordedAt) => {
      this.register.refuseFuture(unit, content.doneAt, 'doneAt', recordedAt);
      refuseLongAgo(content.doneAt, 'doneAt');
      const body = { kind: content.kind, ...details } as IsolateBody | RestartBody;
      const problem = moduleOf(body)?.problem?.(body, this.register.plateOf(unit, content.doneAt));
      if (problem) throw impossible(problem);
      const against = this.isolation.reasonAgainst(unit, { ...content, body }, recordedAt);
      if (against) throw conflict(against.code, 'Not as it stands.', against.sentence);
      return { marks: [] };
    });
    const { kind, session, compressorId } = row;
    return {
      ...factView(row),
      repairId: row.repairId,
      compressorId,
      kind,
      doneAt: formatInstant(row.doneAt),
      session,
      details: row.details,
    };
  }

  /** What opens the machine waits for its isolation, told as it happens; told later it has happened. */
  private refuseUnisolated(
    { compressorId }: RepairEntity,
    {
      at,
      by,
      session,
      kind,
      text,
      opens,
    }: Pick<RepairEntryEntity, 'at' | 'by' | 'session' | 'kind' | 'text' | 'opens'>,
    recordedAt: number,
  ): void {
    if (recordedAt - at > LIVE_MS) return;
    const unit = this.register.require(compressorId);
    const plate = this.register.plateOf(unit, at);
    const opened = openedByEntry({ kind, text, opens: opens ?? undefined }, plate, this.registry.kinds);
    const missing = this.isolation.missingFor(unit, opened, { at, by, session: session ?? '' });
    if (missing.length === 0) return;
    const unsaid = opened === null && opens === null ? ' Or say what it opened: nothing, or what.' : '';
    throw conflict('not-isolated', 'Not as it stands.', `${describeMissing(plate, missing)}${unsaid}`);
  }

  /** A check that the work cannot move proves nothing of it. */
  private refuseIdle(repair: RepairEntity, { kind, check }: Pick<RepairEntryEntity, 'kind' | 'check'>): void {
    if (kind !== 'proof' || check === null) return;
    const plate = this.register.plateOf(this.register.require(repair.compressorId), repair.foundAt);
    const able = checksThatProve(this.entriesOf(repair.id), repair.station, plate);
    if (able === null || able.includes(check)) return;
    const names = able.map((code) => checkByCode(code)?.name ?? code).join('; ');
    throw impossible({
      code: 'cannot-prove',
      field: 'check',
      sentence: `${checkByCode(check)?.name ?? check} does not move with this work. What does: ${names}.`,
    });
  }

  /** Everything that is open on any unit, the latest first. */
  open(): RepairView[] {
    const neverClosed = `"id" NOT IN (SELECT "repair_id" FROM "repair_entry" WHERE "kind" = 'close' AND ${STAND})`;
    return this.views(neverClosed, [], MOST_OPEN).filter(({ isOpen }) => isOpen);
  }

  /** How often each cause was confirmed behind each symptom that the fault finder was asked about. */
  faultCounts(): FaultCountsView {
    const rows = this.database.findAll(
      RepairEntryEntity,
      `WHERE "kind" IN ('search', 'confirmed') AND ${STAND} ORDER BY "at", "id"`,
    );
    const counts: Record<string, Record<string, number>> = {};
    for (const [, entries] of groupBy(rows, ({ repairId }) => repairId)) {
      const symptom = entries.findLast(({ search }) => search !== null)?.search?.symptom;
      const cause = entries.findLast(({ kind }) => kind === 'confirmed')?.cause;
      if (symptom === undefined || cause === undefined || cause === null) continue;
      const ofIt = (counts[symptom] ??= {});
      ofIt[cause] = (ofIt[cause] ?? 0) + 1;
    }
    return { counts };
  }

  list(compressorId: string, { show }: RepairsQuery): RepairView[] {
    const views = this.views('"compressor_id" = ?', [this.register.require(compressorId).id]);
    return show === 'open' ? views.filter(({ isOpen }) => isOpen) : views;
  }

  /** Repairs that a condition picks, the latest first, with their entries read in one go. */
  private views(condition: string, cells: readonly string[], most = -1): RepairView[] {
    const chosen = `WHERE ${condition} AND ${stands('repair')} ORDER BY "found_at" DESC, "id" DESC LIMIT ${most}`;
    const repairs = this.database.findAll(RepairEntity, chosen, ...cells);
    const entries = groupBy(
      this.standing(
        this.database.findAll(
          RepairEntryEntity,
          `WHERE "repair_id" IN (SELECT "id" FROM "repair" ${chosen}) AND ${STAND} ORDER BY "at", "id"`,
          ...cells,
        ),
      ),
      ({ repairId }) => repairId,
    );
    return repairs.map((repair) => this.view(repair, entries.get(repair.id) ?? []));
  }

  require(id: string): RepairEntity {
    const repair = this.facts.find(RepairEntity, id.toLowerCase());
    if (!repair) throw notFound('no-such-repair', 'There is no such repair.');
    return repair;
  }

  /** @param rows its entries, where they were read already */
  view(row: RepairEntity, rows: readonly RepairEntryEntity[] = this.rowsOf(row.id)): RepairView {
    const { steps: _steps, ...standing } = repairStanding(row.kind, rows.map(toEntry), this.registry.kinds);
    return {
      ...factView(row),
      compressorId: row.compressorId,
      kind: row.kind,
      foundAt: formatInstant(row.foundAt),
      found: row.found,
      ...(row.station === null ? {} : { station: row.station }),
      ...standing,
      entries: rows.map(toEntryView),
    };
  }

  /** What proves a repair is a measurement of the unit like any other. */
  private measure(
    { compressorId }: RepairEntity,
    { id, check, values, at }: Pick<RepairEntryEntity, 'id' | 'check' | 'values' | 'at'>,
    by: string,
  ): RepairEntryEntity['outcome'] {
    if (check === null || values === null) return null;
    const taken = { id: measurementOf({ id }), check, values, takenAt: formatInstant(at) };
    return outcomeOf(this.measurements.record(compressorId, taken, by).judgement);
  }

  private entriesOf(repairId: string): RepairEntry[] {
    return this.rowsOf(repairId).map(toEntry);
  }

  /** What was said of a repair and stands, in its order. */
  rowsOf(repairId: string): RepairEntryEntity[] {
    const ofIt = `WHERE "repair_id" = ? AND ${STAND} ORDER BY "at", "id"`;
    return this.standing(this.database.findAll(RepairEntryEntity, ofIt, repairId));
  }

  /** A proof stands as long as what was measured for it does. */
  private standing(rows: RepairEntryEntity[]): RepairEntryEntity[] {
    return rows.filter((row) => row.outcome === null || !this.isVoided(measurementOf(row)));
  }

  private isVoided(factId: string): boolean {
    return this.database.all('SELECT 1 FROM "voided" WHERE "fact_id" = ?', factId).length > 0;
  }

  private requireEntry(repair: RepairEntity, id: string): RepairEntryEntity {
    const entry = this.facts.find(RepairEntryEntity, id.toLowerCase());
    if (entry?.repairId === repair.id) return entry;
    throw notFound('no-such-entry', 'There is no such entry in this repair.');
  }
}

/** The measurement that a proof rests on. */
function measurementOf({ id }: Pick<RepairEntryEntity, 'id'>): string {
  return idFrom('measurement', id);
}

/** The modification that a part which is not the unit’s own comes to. */
function modificationOf({ id }: Pick<RepairEntryEntity, 'id'>): string {
  return idFrom('modification', id);
}

/** An entry as the core asks about it. */
export function toEntry({
  id,
  at,
  by,
  kind,
  text,
  minutes,
  count,
  check,
  outcome,
  cause,
  search,
  opens,
  session,
}: RepairEntryEntity): RepairEntry {
  return {
    id,
    at,
    by,
    kind,
    text,
    minutes: minutes ?? undefined,
    count: count ?? undefined,
    check: check ?? undefined,
    verdict: outcome?.verdict,
    cause: cause ?? undefined,
    search: search ?? undefined,
    opens: opens ?? undefined,
    session: session ?? undefined,
  };
}

function toEntryView(row: RepairEntryEntity): RepairEntryView {
  return {
    ...factView(row),
    kind: row.kind,
    at: formatInstant(row.at),
    text: row.text,
    ...(row.minutes === null ? {} : { minutes: row.minutes }),
    ...(row.count === null ? {} : { count: row.count }),
    ...(row.part === null ? {} : { part: row.part }),
    ...(row.check === null ? {} : { check: row.check }),
    ...(row.cause === null ? {} : { cause: row.cause }),
    ...(row.search === null ? {} : { search: row.search }),
    ...(row.opens === null ? {} : { opens: row.opens }),
    ...(row.session === null ? {} : { session: row.session }),
    ...(row.outcome === null ? {} : { outcome: row.outcome }),
  };
}
