import { Inject, Injectable } from '@nestjs/common';
import type { IsolationView } from '@entretien/contracts';
import { DAY_MS, formatInstant, type Instant } from '@entretien/core/basics';
import {
  againstTelling,
  holdsAt,
  isolationList,
  isolationOf,
  missingFor,
  tilesOf,
  type Against,
  type Asking,
  type Guarded,
  type IsolationEvent,
  type IsolationFold,
  type Missing,
} from '@entretien/core/isolation';
import { LIVE_MS } from '@entretien/core/visit';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { WorkshopSettingsService } from '../workshop/workshop-settings.js';

/** Nothing that was said longer ago can hold: a night ends it. */
const AS_FAR_BACK = 2 * DAY_MS;

interface Row {
  readonly id: string;
  readonly doneAt: number;
  readonly by: string;
  readonly session: string;
  readonly kind: string;
  readonly details: string | null;
}

/** The isolation of units, from whatever was said of it: in visits, in repairs. */
@Injectable()
export class IsolationService {
  constructor(
    private readonly database: Database,
    private readonly register: CompressorRegister,
    private readonly people: PeopleService,
    private readonly settings: WorkshopSettingsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** What happened at a unit that bears on its isolation, in its order; of one visit nothing where it is named. */
  eventsOf(compressorId: string, from: Instant, to: Instant, withoutVisit = ''): readonly IsolationEvent[] {
    const rows = this.database.all<Row>(
      EVENTS,
      compressorId,
      from,
      to,
      withoutVisit,
      compressorId,
      from,
      to,
      compressorId,
      from,
      to,
    );
    return rows.map(({ id, doneAt, by, session, kind, details }) => ({
      id,
      doneAt,
      by,
      session,
      body: { kind, ...(details === null ? {} : (JSON.parse(details) as object)) },
    }));
  }

  /** What was said elsewhere while a visit went on. */
  besideVisit(
    compressorId: string,
    visitId: string,
    first: Instant,
    last: Instant,
  ): readonly IsolationEvent[] {
    return this.eventsOf(compressorId, first - AS_FAR_BACK, last, visitId);
  }

  guardedOf(unit: CompressorRecord, at: Instant): Guarded {
    const plate = this.register.plateOf(unit, at);
    return { plate, pauseMinutes: this.settings.pauseOf(plate), timeZone: this.register.timeZoneOf(plate) };
  }

  /** How it stands at a moment. */
  foldAt(
    unit: CompressorRecord,
    at: Instant,
  ): { guarded: Guarded; fold: IsolationFold; events: readonly IsolationEvent[] } {
    const guarded = this.guardedOf(unit, at);
    const events = this.eventsOf(unit.id, at - AS_FAR_BACK, at);
    return { guarded, events, fold: isolationOf(guarded, events) };
  }

  /** What the guard has against something said of the isolation, told as it happens; told later it has happened. */
  reasonAgainst(unit: CompressorRecord, event: IsolationEvent, recordedAt: Instant): Against | null {
    const { guarded, fold } = this.foldAt(unit, event.doneAt);
    if (recordedAt - event.doneAt > LIVE_MS) return null;
    return againstTelling(guarded, fold, event, (by) => this.people.nameOf(by));
  }

  missingFor(unit: CompressorRecord, opens: readonly string[] | null, asking: Asking): readonly Missing[] {
    if (opens?.length === 0) return [];
    const { guarded, fold } = this.foldAt(unit, asking.at);
    return missingFor(guarded, fold, opens, asking);
  }

  view(compressorId: string): IsolationView {
    const unit = this.register.require(compressorId);
    const at = this.clock();
    const { guarded, fold, events } = this.foldAt(unit, at);
    return {
      compressorId: unit.id,
      at: formatInstant(at),
      timeZone: guarded.timeZone ?? 'UTC',
      pauseMinutes: guarded.pauseMinutes!,
      points: isolationList(guarded.plate).points.map((point) => {
        const places = tilesOf(point).map(({ code }) => code);
        const holds = places.filter((tile) => holdsAt(guarded, fold, point.code, tile));
        return {
          code: point.code,
          name: point.name,
          holds,
          lacks: places.filter((tile) => !holds.includes(tile)),
        };
      }),
      locks: [...fold.locks.keys()].map((by) => ({ by, byName: this.people.nameOf(by) })),
      events,
    };
  }
}

const OWN = `"compressor_id" = ? AND "done_at" BETWEEN ? AND ?`;
/** In a repair work itself shows that somebody was there. */
const EVENTS = `SELECT "id", "done_at" AS "doneAt", "by", "session", "kind", "details" FROM "visit_step" WHERE ${OWN} AND "kind" IN ('isolate', 'restart') AND "visit_id" <> ?
  UNION ALL SELECT "id", "done_at", "by", "session", "kind", "details" FROM "repair_step" WHERE ${OWN}
  UNION ALL SELECT "id", "at", "by", "session", 'work', NULL FROM "repair_entry" WHERE "compressor_id" = ? AND "at" BETWEEN ? AND ? AND "session" IS NOT NULL
  ORDER BY 2, 1`;
