import { Inject, Injectable } from '@nestjs/common';
import { describeDay, describeDayAt, formatMoment } from '@entretien/core/basics';
import { checkByCode } from '@entretien/core/checks';
import type { StopView, WorkshopSettings } from '@entretien/contracts';
import { stopText } from '@entretien/core/stop';
import { describeMachine, stationName, type DataPlate } from '@entretien/core/machine';
import { BELT_HOURS } from '@entretien/core/follow-ups';
import { fromMeter, meterScaleAt, formatHoursSeen } from '@entretien/core/hours';
import { clockHours, hourClockOf, type ServiceTask } from '@entretien/core/plan';
import {
  NOT_CONFIRMED,
  describeOpen,
  summaryOf,
  type CompressorProgress,
  type VisitTask,
} from '@entretien/core/visit';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import type { Settings } from '../config.js';
import { FollowUpsService } from '../follow-ups/follow-ups.service.js';
import { WorkshopSettingsService } from '../workshop/workshop-settings.js';
import { PartsService } from '../parts/parts.service.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { PhotoEntity, type VisitEntity } from '../persistence/entities/visit.entity.js';
import { SitesService } from '../sites/sites.service.js';
import { StandingsService, type JudgedCompressor } from '../standings/standings.service.js';
import { StopsService } from '../stops/stops.service.js';
import { PhotosService } from '../visits/photos.service.js';
import { VisitRepository } from '../visits/visit-repository.js';
import {
  drawReport,
  type ReportContent,
  type ReportedCheck,
  type ReportedCompressor,
  type ReportedReading,
} from './visit-report.js';
import { amountOf, billOf, plateLine, readingOf } from './report-words.js';
import { nextOf } from './next-due.js';
import { baseOf } from './paper-codes.js';
import { drawRedTag, drawTag, type RedTagContent, type TagContent } from './service-tag.js';

const PROOFS: Readonly<Record<VisitTask['verification'], string>> = {
  'none-needed': '',
  missing: 'not proved yet',
  failed: 'proof failed',
  passed: 'proved',
  closed: 'closed without proof',
};

/** Brings together what stands on the papers that leave the application. */
@Injectable()
export class DocumentsService {
  constructor(
    private readonly database: Database,
    private readonly register: CompressorRegister,
    private readonly sites: SitesService,
    private readonly people: PeopleService,
    private readonly standings: StandingsService,
    private readonly book: VisitRepository,
    private readonly photos: PhotosService,
    private readonly stops: StopsService,
    private readonly parts: PartsService,
    private readonly followUps: FollowUpsService,
    private readonly workshop: WorkshopSettingsService,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /** @param origin where the page is, as the asker sees it; a fixed public address goes before it */
  tag(compressorId: string, origin: string): Promise<Buffer> {
    const unit = this.register.require(compressorId);
    const now = this.clock();
    const judged = this.standings.judge(unit, now);
    const { plate, history, standing } = judged;
    const base = baseOf(this.settings, origin);
    const stops = this.stops.views(unit.id);
    if (stops.length > 0)
      return drawRedTag(this.redTagOf(plate, stops, `${base}/units/${unit.id}`, history.timeZone));
    const last = [...history.services].sort((a, b) => a.doneAt - b.doneAt).at(-1);
    const lastTask = standing.tasks.filter((task) => task.lastDoneAt === last?.doneAt);
    const content: TagContent = {
      tag: plate.tag,
      description: describeMachine(plate),
      site: this.sites.find(plate.siteId)?.name ?? '',
      doneOn: last ? describeDayAt(last.doneAt, history.timeZone) : null,
      doneHours: doneHoursOf(judged),
      doneBy: last ? this.doneBy(unit.id, last.doneAt) : null,
      work: lastTask.length > 0 ? lastTask.map(({ name }) => name).join(', ') : null,
      next: [...this.lookAgain(unit.id, history.timeZone), ...nextOf(standing)],
      address: `${base}/units/${unit.id}`,
      printedAt: new Date(now),
    };
    return drawTag(content);
  }

  /** What is to be looked at again stands before what is due: it comes first. */
  private lookAgain(compressorId: string, timeZone: string): TagContent['next'] {
    return this.followUps.of(compressorId).map(({ kind, dueFrom, hoursSince }) => ({
      name: kind === 'belt' ? 'New belt: look again' : 'Joints opened: look again',
      due:
        dueFrom === null
          ? `after ${BELT_HOURS.from} h of running${hoursSince === null ? '' : `, ${Math.round(hoursSince)} h so far`}`
          : `from ${describeDayAt(Date.parse(dueFrom), timeZone)}`,
    }));
  }

  private redTagOf(
    plate: DataPlate,
    stops: readonly StopView[],
    address: string,
    timeZone: string,
  ): RedTagContent {
    return {
      tag: plate.tag,
      description: describeMachine(plate),
      site: this.sites.find(plate.siteId)?.name ?? '',
      stops: stops.map((stop) => ({
        what: stopText(stop),
        why: stop.why,
        since: `Since ${formatMoment(Date.parse(stop.since), timeZone)}, ${stop.byName}`,
        toShow: stop.toShow,
        informed: stop.informed,
      })),
      address,
      printedAt: new Date(this.clock()),
    };
  }

  report(visitId: string): Promise<Buffer> {
    return drawReport(this.reportOf(this.book.require(visitId)));
  }

  reportOf(visit: VisitEntity): ReportContent {
    const site = this.sites.require(visit.siteId);
    const workshop = this.workshop.read();
    return {
      title: 'Service report',
      workshop: workshop.workshopName,
      logo: this.workshop.logo(),
      site: site.name,
      address: site.address ?? null,
      contact: site.contact ?? null,
      day: describeDay(visit.plannedOn),
      by: this.nameOf(visit.by),
      units: this.book
        .compressorsOf(visit)
        .map((unit) => this.reportedCompressor(visit, unit, site.timeZone, workshop)),
      printedAt: new Date(this.clock()),
    };
  }

  private reportedCompressor(
    visit: VisitEntity,
    compressorId: string,
    timeZone: string,
    workshop: WorkshopSettings,
  ): ReportedCompressor {
    const unit = this.book.compressorOf(visit, compressorId);
    const judged = this.standings.judge(this.register.require(compressorId), this.clock());
    const progress = this.book.progressOf(visit, compressorId);
    const nameOf = (code: string) => unit.plan.find((task) => task.code === code)?.name ?? code;
    const lines = summaryOf(unit, progress);
    const { signed, left } = progress;
    const prices = progress.parts.map(({ part, count }) => this.parts.centsOf(part, count));
    const open = signed || left ? null : describeOpen(progress.obstacles);
    return {
      tag: unit.plate.tag,
      description: describeMachine(unit.plate),
      plate: plateLine(unit.plate),
      hours: this.reportedHours(judged, progress),
      state: signed
        ? 'Signed for'
        : left
          ? `Left for another day: ${left.reason}`
          : (open ?? 'Not signed for yet'),
      summary: lines.filter(({ about }) => about !== 'warning').map(({ sentence }) => sentence),
      warnings: lines.filter(({ about }) => about === 'warning').map(({ sentence }) => sentence),
      tasks: progress.tasks.map(({ code, outcome, verification, reason, marks }) => ({
        name: nameOf(code),
        outcome:
          outcome === 'not-done' || outcome === 'looked'
            ? `${outcome === 'looked' ? 'looked at' : 'not done'}: ${reason ?? ''}`
            : outcome,
        verification: [PROOFS[verification], marks.includes(NOT_CONFIRMED) ? 'isolation not confirmed' : '']
          .filter((word) => word !== '')
          .join(', '),
      })),
      checks: checksOf(progress),
      parts: progress.parts.map(({ name, count }, index) => ({
        name,
        count: `${count} ×`,
        cost: amountOf(prices[index]!, workshop),
      })),
      repairs: progress.faults.map(({ found }) => found),
      notes: progress.notes.map(({ text }) => text),
      photos: progress.photos.flatMap(({ photo, caption, station }) => {
        const row = this.database.find(PhotoEntity, photo);
        if (!row) return [];
        const { widthPx, heightPx } = row;
        const text = caption ?? (station === undefined ? '' : stationName(unit.plate, station));
        return [{ picture: this.photos.picture(row), widthPx, heightPx, caption: text }];
      }),
      ...billOf({ minutes: minutesDone(unit.plan, progress), how: 'Labour, by the plan' }, prices, workshop),
      next: nextOf(judged.standing),
      toSign: [],
      signed: signed && {
        name: signed.name,
        on: formatMoment(signed.at, timeZone),
        strokes: signed.strokes ?? null,
      },
      customer:
        signed?.customer === undefined
          ? null
          : { name: signed.customer, strokes: signed.customerStrokes ?? null },
    };
  }

  /** The figure that was read; what was not read says that it is an estimate. The total beside it after a change. */
  private reportedHours(
    { standing, history }: JudgedCompressor,
    { hours, signed }: Pick<CompressorProgress, 'hours' | 'signed'>,
  ): string | null {
    const at = signed?.at ?? standing.at;
    const clock = hourClockOf(history, standing.at);
    const scale = meterScaleAt(history.meterChanges, clock.runHours.counts, at);
    if (hours !== null) return formatHoursSeen(scale, fromMeter(scale, Math.round(hours)), 'full');
    const known = clockHours(clock, at);
    return known && `about ${formatHoursSeen(scale, Math.round(known.hours), 'full')} (estimated)`;
  }

  private doneBy(compressorId: string, doneAt: number): string | null {
    const [row] = this.database.all<{ by: string }>(
      'SELECT "by" FROM "service" WHERE "compressor_id" = ? AND "done_at" = ? ORDER BY "recorded_at" DESC LIMIT 1',
      compressorId,
      doneAt,
    );
    return row ? this.nameOf(row.by) : null;
  }

  private nameOf(person: string): string {
    return this.people.list().find(({ id }) => id === person)?.name ?? 'Technician';
  }
}

/** Minutes of the plan for what was done. */
function minutesDone(plan: readonly ServiceTask[], { tasks }: Pick<CompressorProgress, 'tasks'>): number {
  const done = new Set(tasks.flatMap(({ code, outcome }) => (outcome === 'done' ? [code] : [])));
  return plan.reduce((sum, task) => sum + (done.has(task.code) ? task.minutes : 0), 0);
}

/** Each check once, with the last that it showed before the work and after it. */
function checksOf({ measured }: Pick<CompressorProgress, 'measured'>): readonly ReportedCheck[] {
  const codes = [...new Set(measured.map(({ check }) => check))];
  const last = (code: string, isBefore: boolean): ReportedReading | null => {
    const found = measured.findLast(
      ({ check, phase }) => check === code && (phase === 'before') === isBefore,
    );
    return found ? readingOf(found) : null;
  };
  return codes.map((code) => ({
    name: checkByCode(code)?.name ?? code,
    before: last(code, true),
    after: last(code, false),
  }));
}

/** The hours at the last service, on the meter fitted now; as an estimate where the meter was not read. */
function doneHoursOf({ standing, history }: JudgedCompressor): string | null {
  const last = history.services.at(-1);
  if (!last) return null;
  const known = clockHours(hourClockOf(history, standing.at), last.doneAt);
  if (!known) return null;
  const text = formatHoursSeen(standing.meter, Math.round(known.hours), 'full');
  return known.basis === 'read' ? text : `about ${text} (estimated)`;
}
