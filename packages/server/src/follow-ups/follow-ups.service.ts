import { Inject, Injectable } from '@nestjs/common';
import type {
  BringBackView,
  FollowUpLookView,
  FollowUpView,
  RecordBroughtBack,
  RecordFollowUp,
} from '@entretien/contracts';
import { DAY_MS, formatInstant, type Instant } from '@entretien/core/basics';
import {
  admitLook,
  bringBackSteps,
  FORGOTTEN_DAYS,
  followUpsOf,
  followUpText,
  isBelt,
  stoodSince,
  type FollowUp,
  type OpeningWork,
  type SecondLook,
} from '@entretien/core/follow-ups';
import { openingsOf } from '@entretien/core/isolation';
import type { DataPlate } from '@entretien/core/machine';
import { clockHours, planVersionAt, type HourClock } from '@entretien/core/plan';
import { LOOKED_AT, opensTogether } from '@entretien/core/visit';
import { groupBy } from '../common/group-by.js';
import { refuseLongAgo } from '../common/long-ago.js';
import { impossible } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorHistories } from '../compressors/compressor-histories.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { BroughtBackEntity, FollowUpEntity } from '../persistence/entities/follow-up.entity.js';
import { factView } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { SitesService } from '../sites/sites.service.js';

/** So many of the fleet's: nobody reads more of them at once. */
const MOST_SHOWN = 200;

/** Something that was done, as it is on record. */
interface WorkRow {
  readonly id: string;
  readonly compressorId: string;
  readonly at: Instant;
  /** Codes of tasks as JSON, for a service. */
  readonly tasks: string | null;
  readonly marks: string;
  /** Codes of what it opened as JSON, for an entry of a repair. */
  readonly opens: string | null;
  /** What the part is called, where one was used. */
  readonly part: string | null;
}

type LookRow = SecondLook & { readonly compressorId: string };

/** What comes due by itself after work: a second look at what was opened, and at a new belt. */
@Injectable()
export class FollowUpsService {
  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    private readonly histories: CompressorHistories,
    private readonly sites: SitesService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /**
   * Of the whole fleet, what waits the longest first; what is too early to show anything is not among it. Of
   * thousands so many as anybody reads: whoever looks at a unit asks about it.
   */
  all(): readonly FollowUpView[] {
    const since = this.clock() - FORGOTTEN_DAYS * DAY_MS;
    const rows = groupBy(this.database.all<WorkRow>(worksSince(''), since, since, since), unitOf);
    const looks = groupBy(this.database.all<LookRow>(looksSince(''), since, since), unitOf);
    const found: FollowUpView[] = [];
    for (const [id, work] of rows) {
      const unit = this.register.find(id);
      if (unit) found.push(...this.viewsOf(unit, work, looks.get(id) ?? []).filter(isDue));
      if (found.length >= MOST_SHOWN) break;
    }
    return found.sort((a, b) => gravity(b) - gravity(a) || (a.since < b.since ? -1 : 1));
  }

  /** Of one unit, what is too early included: it stands on the tag. */
  of(compressorId: string): readonly FollowUpView[] {
    const unit = this.register.require(compressorId);
    const since = this.clock() - FORGOTTEN_DAYS * DAY_MS;
    return this.viewsOf(unit, this.workOn(unit, since), this.looksAt(unit, since));
  }

  record(compressorId: string, sent: RecordFollowUp, by: string): FollowUpLookView {
    const unit = this.register.require(compressorId);
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      lookedAt: Date.parse(sent.lookedAt),
      of: sent.of,
      found: sent.found,
      note: sent.note ?? null,
      by: this.people.require(by),
    };
    const { row } = this.facts.record(FollowUpEntity, content, (recordedAt) => {
      this.register.refuseFuture(unit, content.lookedAt, 'lookedAt', recordedAt);
      refuseLongAgo(content.lookedAt, 'lookedAt');
      const plate = this.register.plateOf(unit, content.lookedAt);
      const since = content.lookedAt - FORGOTTEN_DAYS * DAY_MS;
      const work = this.workOn(unit, since).map((one) => this.toWork(unit, one));
      const admitted = admitLook(content.of, content.lookedAt, work, plate);
      if (!admitted.ok) throw impossible(admitted.problem);
      return { marks: [] };
    });
    return toLookView(row);
  }

  /** Since when a unit has stood, and what it is brought back by. */
  bringBack(compressorId: string): BringBackView {
    const unit = this.register.require(compressorId);
    const now = this.clock();
    const plate = this.register.plateOf(unit, now);
    const since = this.register.isRetired(plate, now)
      ? null
      : stoodSince(
          this.histories.of(unit, plate),
          this.database
            .all<{ at: Instant }>(
              `SELECT "done_at" AS "at" FROM "brought_back" WHERE "compressor_id" = ? AND ${stands('brought_back')}`,
              unit.id,
            )
            .map(({ at }) => at),
        );
    return {
      compressorId: unit.id,
      stoodSince: since === null ? null : formatInstant(since),
      steps: bringBackSteps(plate),
    };
  }

  /** Brought back is what was seen to point by point: one that is missing was not. */
  recordBack(compressorId: string, sent: RecordBroughtBack, by: string): BringBackView {
    const unit = this.register.require(compressorId);
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      doneAt: Date.parse(sent.doneAt),
      steps: sent.steps,
      note: sent.note ?? null,
      by: this.people.require(by),
    };
    this.facts.record(BroughtBackEntity, content, (recordedAt) => {
      this.register.refuseFuture(unit, content.doneAt, 'doneAt', recordedAt);
      refuseLongAgo(content.doneAt, 'doneAt');
      const asked = bringBackSteps(this.register.plateOf(unit, content.doneAt));
      const missing = asked.filter(({ code }) => !content.steps.includes(code));
      if (missing.length > 0)
        throw impossible({
          code: 'not-all-seen-to',
          field: 'steps',
          sentence: `Still to be seen to: ${missing.map(({ name }) => name).join(', ')}.`,
        });
      return { marks: [] };
    });
    return this.bringBack(unit.id);
  }

  private viewsOf(
    unit: CompressorRecord,
    rows: readonly WorkRow[],
    looks: readonly SecondLook[],
  ): FollowUpView[] {
    const now = this.clock();
    const plate = this.register.plateOf(unit, now);
    if (this.register.isRetired(plate, now)) return [];
    let clock: HourClock | undefined;
    const run = (at: Instant) => clockHours((clock ??= this.histories.clockOf(unit, now)), at)?.hours ?? null;
    // Only belts go by hours: the clock of a unit is not worked out for its joints.
    const hoursSince = (at: Instant) => {
      const [then, today] = [run(at), run(now)];
      return then === null || today === null ? null : Math.max(0, today - then);
    };
    const work = rows.map((row) => this.toWork(unit, row));
    return followUpsOf(work, looks, { plate, now, hoursSince }).map((one) => this.toView(unit, plate, one));
  }

  /** What a fact opened, by the plan and the plate of its moment. */
  private toWork(unit: CompressorRecord, { id, at, tasks, marks, opens, part }: WorkRow): OpeningWork {
    const plate = this.register.plateOf(unit, at);
    const isNewBelt = part !== null && isBelt(part);
    if (tasks === null)
      return { id, at, opened: opens === null ? [] : (JSON.parse(opens) as string[]), isNewBelt };
    const looked = new Set(JSON.parse(marks) as string[]);
    const done = (JSON.parse(tasks) as string[]).filter((code) => !looked.has(`${LOOKED_AT}${code}`));
    const { plan } = planVersionAt(unit.planVersions, at)!;
    const opened = opensTogether(
      plan.tasks.filter(({ code }) => done.includes(code)),
      plate,
    );
    // Where nobody said what it opens, it may be anything.
    return { id, at, opened: opened ?? openingsOf(plate).map(({ code }) => code), isNewBelt };
  }

  private workOn({ id }: CompressorRecord, since: Instant): readonly WorkRow[] {
    return this.database.all<WorkRow>(
      worksSince('AND "f"."compressor_id" = ?'),
      since,
      id,
      since,
      id,
      since,
      id,
    );
  }

  private looksAt({ id }: CompressorRecord, since: Instant): readonly SecondLook[] {
    return this.database.all<LookRow>(looksSince('AND "f"."compressor_id" = ?'), since, id, since, id);
  }

  private toView(
    { id }: CompressorRecord,
    plate: DataPlate,
    { since, dueFrom, ...rest }: FollowUp,
  ): FollowUpView {
    return {
      ...rest,
      compressorId: id,
      tag: plate.tag,
      siteName: this.sites.find(plate.siteId)?.name ?? '',
      timeZone: this.register.timeZoneOf(plate),
      text: followUpText(rest),
      since: formatInstant(since),
      dueFrom: dueFrom === null ? null : formatInstant(dueFrom),
    };
  }
}

const unitOf = ({ compressorId }: { readonly compressorId: string }) => compressorId;
const isDue = ({ state }: Pick<FollowUp, 'state'>) => state !== 'coming';
const gravity = ({ state }: Pick<FollowUp, 'state'>) => ['coming', 'due', 'late'].indexOf(state);

export function toLookView(row: FollowUpEntity): FollowUpLookView {
  return { ...factView(row), lookedAt: formatInstant(row.lookedAt), of: row.of, found: row.found };
}

/** Services, entries of repairs and parts used in visits, since a moment: asked three times, each with what narrows it. */
function worksSince(only: string): string {
  const unit = '"f"."compressor_id" AS "compressorId"';
  return `SELECT "f"."id", ${unit}, "f"."done_at" AS "at", "f"."tasks", "f"."marks", NULL AS "opens", NULL AS "part" FROM "service" "f" WHERE "f"."done_at" >= ? ${only} AND ${stands('f')}
UNION ALL SELECT "f"."id", ${unit}, "f"."at", NULL, '[]', "f"."opens", CASE "f"."kind" WHEN 'part' THEN coalesce("p"."name", "f"."text") END FROM "repair_entry" "f" LEFT JOIN "part" "p" ON "p"."id" = "f"."part" WHERE "f"."at" >= ? ${only} AND ${stands('f')}
UNION ALL SELECT "f"."id", ${unit}, "f"."done_at", NULL, '[]', NULL, json_extract("f"."details", '$.name') FROM "visit_step" "f" WHERE "f"."done_at" >= ? ${only} AND "f"."kind" = 'part' AND ${stands('f')} ORDER BY "at"`;
}

/** Second looks; a belt that was measured was looked at. */
function looksSince(only: string): string {
  return `SELECT "f"."compressor_id" AS "compressorId", "f"."of" AS "kind", "f"."looked_at" AS "at" FROM "follow_up" "f" WHERE "f"."looked_at" >= ? ${only} AND ${stands('f')}
UNION ALL SELECT "f"."compressor_id", 'belt', "f"."taken_at" FROM "measurement" "f" WHERE "f"."check_code" = 'belt-deflection' AND "f"."taken_at" >= ? ${only} AND ${stands('f')}`;
}
