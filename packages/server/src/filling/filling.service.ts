import { Inject, Injectable } from '@nestjs/common';
import type { FillableCylinderView, FillingView, FillView, RecordFill } from '@entretien/contracts';
import { airPressureAt } from '@entretien/core/air';
import {
  dayNumberOf,
  formatDay,
  formatInstant,
  HOUR_MS,
  localDayAt,
  startOfLocalDay,
  type Instant,
} from '@entretien/core/basics';
import {
  checksBeforeFill,
  endFill,
  fillDoubts,
  fillLooks,
  fillProblems,
  sumFills,
  testedUntil,
  USUAL_AMBIENT_C,
  waterTakenUp,
  type FillCylinder,
  type FillSet,
} from '@entretien/core/filling';
import type { DataPlate } from '@entretien/core/machine';
import { groupBy } from '../common/group-by.js';
import { refuseLongAgo } from '../common/long-ago.js';
import { impossible, malformed } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { VesselRepository, type KnownVessel } from '../compressors/vessel-repository.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { FillEntity } from '../persistence/entities/fill.entity.js';
import { factView } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { SitesService } from '../sites/sites.service.js';
import { StandingsService } from '../standings/standings.service.js';
import { StopsService } from '../stops/stops.service.js';

const LATEST = 10;
/** Nobody fills for longer. */
const LONGEST_MS = 24 * HOUR_MS;
/** Tasks of a set that a fill hangs on. */
const ASKED = new Set(['cartridge-replace', 'co-calibrate']);
/** Where the holding valve’s setting is not known, it holds about half of what the set is made for (common practice). */
const USUAL_HOLDING_SHARE = 0.5;

/** What a set can fill, and what was filled. */
@Injectable()
export class FillingService {
  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    private readonly sites: SitesService,
    private readonly register: CompressorRegister,
    private readonly vessels: VesselRepository,
    private readonly standings: StandingsService,
    private readonly stops: StopsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  view(compressorId: string): FillingView {
    const unit = this.register.require(compressorId);
    const now = this.clock();
    const { plate, standing } = this.standings.judge(unit, now);
    const timeZone = this.register.timeZoneOf(plate);
    const today = startOfLocalDay(localDayAt(now, timeZone), timeZone);
    const read = this.lastReadingOf(unit.id);
    const changed = standing.tasks.find(({ code }) => code === 'cartridge-replace')?.lastDoneAt ?? null;
    // No further back than any of what is asked: the log of a set goes on for years.
    const fills = this.fillsOf(unit.id, Math.min(today, read, changed ?? Infinity), Infinity);
    const since = (at: Instant) => fills.filter(({ endedAt }) => endedAt > at);
    return {
      compressorId: unit.id,
      timeZone,
      atmosphereBarAbs: this.airAt(plate),
      set: this.setOf(unit, plate, standing.tasks, now),
      cylinders: this.cylindersFor(unit, plate),
      filledToday: fills.filter(({ endedAt }) => endedAt >= today).length,
      latest: this.latestOf(unit.id).map(toView),
      sinceReading: sumFills(since(read), plate.fadLpm),
      cartridge: changed === null ? null : this.takenUp(plate, since(changed), changed),
    };
  }

  record(compressorId: string, sent: RecordFill, by: string): FillView {
    const unit = this.register.require(compressorId);
    const vessel = this.cylinder(sent.vesselId);
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      vesselId: vessel.id,
      startedAt: Date.parse(sent.startedAt),
      endedAt: Date.parse(sent.endedAt),
      fromBar: sent.fromBar,
      toBar: sent.toBar,
      connectorBar: sent.connectorBar,
      ambientC: sent.ambientC ?? USUAL_AMBIENT_C,
      wallC: sent.wallC ?? null,
      coPpm: sent.coPpm ?? null,
      outcome: sent.outcome,
      note: sent.note ?? null,
      by: this.people.require(by),
    };
    const { row } = this.facts.record(FillEntity, content, (recordedAt) => {
      this.register.refuseFuture(unit, content.endedAt, 'endedAt', recordedAt);
      refuseLongAgo(content.startedAt, 'startedAt');
      refuseOddTimes(content);
      refuseUnlooked(sent.looked);
      return this.judged(unit, vessel, content);
    });
    return toView(row);
  }

  /** Fills that ended within a time, by a unit, the first first. */
  fillsOf(compressorId: string, from: Instant, until: Instant): readonly FillEntity[] {
    return this.database.findAll(
      FillEntity,
      `WHERE "compressor_id" = ? AND "ended_at" >= ? AND "ended_at" < ? AND ${stands('fill')} ORDER BY "ended_at", "id"`,
      compressorId,
      from,
      Math.min(until, Number.MAX_SAFE_INTEGER),
    );
  }

  private latestOf(compressorId: string): readonly FillEntity[] {
    return this.database.findAll(
      FillEntity,
      `WHERE "compressor_id" = ? AND ${stands('fill')} ORDER BY "ended_at" DESC, "id" DESC LIMIT ${LATEST}`,
      compressorId,
    );
  }

  /** What may be refused is refused as it was when air began to flow; what a fill came to follows. */
  private judged(
    unit: CompressorRecord,
    vessel: KnownVessel,
    fill: Pick<
      FillEntity,
      'startedAt' | 'endedAt' | 'fromBar' | 'toBar' | 'connectorBar' | 'ambientC' | 'wallC' | 'coPpm'
    >,
  ) {
    const { plate, standing } = this.standings.judge(unit, fill.startedAt);
    const cylinder = this.cylinderOf(vessel);
    const today = formatDay(localDayAt(fill.startedAt, this.register.timeZoneOf(plate)));
    const { ratedBar, volumeL } = cylinder;
    // What it shows while it is hot may stand above its stamp; where it settles may not: that is asked below.
    const toBar = ratedBar ? Math.min(fill.toBar, ratedBar) : fill.toBar;
    const problems = fillProblems(this.setOf(unit, plate, standing.tasks, fill.startedAt), {
      ...fill,
      cylinder,
      toBar,
      today,
    });
    const [first] = problems;
    if (first) throw impossible({ ...first, sentence: problems.map(({ sentence }) => sentence).join(' ') });
    const result = endFill({
      ...fill,
      ratedBar: ratedBar!,
      volumeL: volumeL!,
      atmosphereBarAbs: this.airAt(plate),
      minutes: (fill.endedAt - fill.startedAt) / 60_000,
    });
    if (!result.ok) throw impossible(result.problem);
    const { settledBar, airL, marks } = result.value;
    return { marks: [...marks], tag: cylinder.tag, volumeL: volumeL!, settledBar, airL };
  }

  private setOf(unit: CompressorRecord, plate: DataPlate, tasks: FillSet['tasks'], at: Instant): FillSet {
    return {
      plate,
      stops: this.stops.of(unit.id).map(({ scope, place, why }) => ({ scope, place, why })),
      tasks: tasks
        .filter(({ code }) => ASKED.has(code))
        .map(({ code, name, state }) => ({ code, name, state })),
      findings: this.findingsOf(unit.id, at),
    };
  }

  /** Of each check that a fill hangs on the last until a moment, where it is to be mended first; a stop stands by itself. */
  private findingsOf(compressorId: string, at: Instant): NonNullable<FillSet['findings']> {
    const marks = checksBeforeFill.map(() => '?').join(', ');
    const last = this.database.all<{ check: string; verdict: string; reason: string }>(
      `SELECT "check_code" AS "check", "verdict", json_extract("judgement", '$.reason') AS "reason" FROM "measurement" WHERE "compressor_id" = ? AND "check_code" IN (${marks}) AND "taken_at" <= ? AND ${stands('measurement')} ORDER BY "taken_at", "recorded_at"`,
      compressorId,
      ...checksBeforeFill,
      at,
    );
    return [...new Map(last.map((one) => [one.check, one])).values()]
      .filter(({ verdict }) => verdict === 'act')
      .map(({ check, reason }) => ({ check, reason }));
  }

  /** Cylinders of the place, and those that are brought to this set. */
  private cylindersFor(unit: CompressorRecord, plate: DataPlate): readonly FillableCylinderView[] {
    const last = new Map(
      this.database
        .all<{ id: string; at: number }>(
          `SELECT "vessel_id" AS "id", max("ended_at") AS "at" FROM "fill" WHERE ${stands('fill')} GROUP BY "vessel_id"`,
        )
        .map(({ id, at }) => [id, at]),
    );
    return [...this.vessels.all().values()]
      .filter(({ kind }) => kind === 'cylinder')
      .filter((vessel) => vessel.compressorIds.includes(unit.id) || vessel.siteId === plate.siteId)
      .sort((one, other) => one.tag.localeCompare(other.tag, 'en', { numeric: true }))
      .map((vessel) => ({
        ...this.cylinderOf(vessel),
        id: vessel.id,
        siteName: this.sites.find(vessel.siteId)?.name ?? '',
        lastFilledAt: last.has(vessel.id) ? formatInstant(last.get(vessel.id)!) : null,
      }));
  }

  private cylinderOf({ tag, details, examinations }: KnownVessel): FillCylinder {
    const { ratedBar, volumeL, connectorBar, gas, lifeEndsOn, retiredOn } = details;
    return {
      tag,
      ratedBar,
      volumeL,
      connectorBar,
      gas,
      lifeEndsOn,
      retiredOn,
      ...testedUntil(examinations, details),
    };
  }

  private cylinder(vesselId: string): KnownVessel {
    const vessel = this.vessels.all().get(vesselId.toLowerCase());
    if (vessel?.kind === 'cylinder') return vessel;
    throw impossible({
      code: 'no-such-cylinder',
      field: 'vesselId',
      sentence: 'That is no cylinder in the register.',
    });
  }

  private airAt({ siteId }: DataPlate): number {
    return airPressureAt(this.sites.find(siteId)?.altitudeM);
  }

  private lastReadingOf(compressorId: string): Instant {
    const [row] = this.database.all<{ at: number | null }>(
      `SELECT max("taken_at") AS "at" FROM "reading" WHERE "compressor_id" = ? AND "counts" = 'total' AND ${stands('reading')}`,
      compressorId,
    );
    return row?.at ?? 0;
  }

  private takenUp(
    plate: DataPlate,
    fills: readonly FillEntity[],
    changed: Instant,
  ): FillingView['cartridge'] {
    const { maintainingValveBar, workingPressureBar, moistureCapacityG } = plate;
    const holdingBar = maintainingValveBar ?? (workingPressureBar ?? 0) * USUAL_HOLDING_SHARE;
    const atmosphereBarAbs = this.airAt(plate);
    // Water goes with the air, and what air holds with its temperature: most fills share theirs.
    const grams = [...groupBy(fills, ({ ambientC }) => ambientC)].map(([ambientC, alike]) => {
      const airL = alike.reduce((sum, one) => sum + one.airL, 0);
      return waterTakenUp(airL, { ambientC, holdingBar, atmosphereBarAbs });
    });
    return {
      since: formatInstant(changed),
      takenUpG: grams.reduce((sum, one) => sum + (one.ok ? one.value : 0), 0),
      capacityG: moistureCapacityG ?? null,
    };
  }
}

function refuseOddTimes({ startedAt, endedAt }: Pick<FillEntity, 'startedAt' | 'endedAt'>): void {
  const field = 'endedAt';
  if (endedAt <= startedAt)
    throw impossible({ code: 'ends-before', field, sentence: 'A fill ends after it began.' });
  if (endedAt - startedAt > LONGEST_MS)
    throw impossible({ code: 'too-long', field, sentence: 'No fill takes longer than a day.' });
}

/** Each look is asked for itself; one that is missing was not taken. */
function refuseUnlooked(looked: readonly string[]): void {
  const missing = fillLooks.filter((look) => !looked.includes(look));
  if (missing.length > 0)
    throw malformed([{ field: 'looked', message: `Still to be looked at: ${missing.join(', ')}.` }]);
}

export function toView(row: FillEntity): FillView {
  const minutes = (row.endedAt - row.startedAt) / 60_000;
  const marks = row.marks as ('fast' | 'hot')[];
  return {
    ...factView(row),
    vesselId: row.vesselId,
    tag: row.tag,
    startedAt: formatInstant(row.startedAt),
    endedAt: formatInstant(row.endedAt),
    fromBar: row.fromBar,
    toBar: row.toBar,
    connectorBar: row.connectorBar,
    ambientC: row.ambientC,
    wallC: row.wallC,
    coPpm: row.coPpm,
    outcome: row.outcome,
    settledBar: row.settledBar,
    airL: row.airL,
    doubts: fillDoubts({ barPerMinute: (row.toBar - row.fromBar) / minutes, marks }),
  };
}

/** The days of a log, as moments at the machine. */
export function daysOf(
  { from, to }: { from?: string; to?: string },
  timeZone: string,
): readonly [Instant, Instant] {
  return [
    from === undefined ? 0 : startOfLocalDay(dayNumberOf(from), timeZone),
    to === undefined ? Infinity : startOfLocalDay(dayNumberOf(to) + 1, timeZone),
  ];
}
