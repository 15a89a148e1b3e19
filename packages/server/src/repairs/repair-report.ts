import { Inject, Injectable } from '@nestjs/common';
import { describeDayAt, formatMoment } from '@entretien/core/basics';
import { checkByCode } from '@entretien/core/checks';
import { describeMachine, stationName } from '@entretien/core/machine';
import { procedures, ourEntryKinds, repairBegan, repairStanding } from '@entretien/core/repairs';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { amountOf, billOf, plateLine, readingOf } from '../documents/report-words.js';
import { drawReport, type ReportContent, type ReportedCheck } from '../documents/visit-report.js';
import { WorkshopSettingsService } from '../workshop/workshop-settings.js';
import { PartsService } from '../parts/parts.service.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { MeasurementEntity } from '../persistence/entities/measurement.entity.js';
import type { RepairEntity, RepairEntryEntity } from '../persistence/entities/repair.entity.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { SitesService } from '../sites/sites.service.js';
import { RepairsService, toEntry } from './repairs.service.js';

const LAST_BEFORE = `WHERE "compressor_id" = ? AND "check_code" = ? AND "taken_at" < ? AND ${stands('measurement')} ORDER BY "taken_at" DESC LIMIT 1`;

/** The paper of a repair: what was wrong, why, what was done about it, and what shows that it helped. */
@Injectable()
export class RepairReports {
  constructor(
    private readonly database: Database,
    private readonly repairs: RepairsService,
    private readonly register: CompressorRegister,
    private readonly sites: SitesService,
    private readonly people: PeopleService,
    private readonly parts: PartsService,
    private readonly workshop: WorkshopSettingsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  draw(repairId: string): Promise<Buffer> {
    return drawReport(this.contentOf(this.repairs.require(repairId)));
  }

  private contentOf(repair: RepairEntity): ReportContent {
    const now = this.clock();
    const unit = this.register.require(repair.compressorId);
    const plate = this.register.plateOf(unit, now);
    const timeZone = this.register.timeZoneOf(plate);
    const site = this.sites.require(plate.siteId);
    const workshop = this.workshop.read();
    const rows = this.repairs.rowsOf(repair.id);
    const { state, cause, minutes, waitsFor } = repairStanding(repair.kind, rows.map(toEntry));
    const where = repair.station === null ? '' : `, ${stationName(plate, repair.station)}`;
    const closed = rows.findLast(({ kind }) => kind === 'close');
    const states = {
      found: 'Not mended yet',
      'worked-on': 'Worked on, not proved yet',
      'proof-failed': 'The check failed after the work',
      proved: repair.kind === 'fault' ? 'Mended, and proved by measurement' : 'Done',
      closed: `Closed without proof: ${closed?.text ?? ''}`,
    };
    const used = rows.filter(({ kind }) => kind === 'part');
    const prices = used.map(({ part, count }) => this.parts.centsOf(part, count ?? 1));
    const by = this.people.nameOf(repair.by);
    return {
      title: 'Repair report',
      workshop: workshop.workshopName,
      logo: this.workshop.logo(),
      site: site.name,
      address: site.address ?? null,
      contact: site.contact ?? null,
      day: describeDayAt(repair.foundAt, timeZone),
      by,
      printedAt: new Date(now),
      units: [
        {
          tag: plate.tag,
          description: describeMachine(plate),
          plate: plateLine(plate),
          hours: null,
          state: states[state],
          summary: [
            `${repairBegan[repair.kind]} ${formatMoment(repair.foundAt, timeZone)}${where}: ${repair.found}`,
            ...(cause === null ? [] : [`Cause: ${cause}`]),
            ...(repair.note === null ? [] : [repair.note]),
          ],
          warnings: waitsFor === null ? [] : [waitsFor],
          tasks: this.workOf(rows, timeZone),
          checks: this.checksOf(repair, rows),
          parts: used.map(({ text, count, note }, index) => ({
            name: note === null ? text : `${text}. ${note}`,
            count: `${count ?? 1} ×`,
            cost: amountOf(prices[index]!, workshop),
          })),
          repairs: [],
          notes: rows.filter(({ kind }) => kind === 'note').map(({ text }) => text),
          photos: [],
          ...billOf({ minutes, how: 'Labour' }, prices, workshop),
          next: [],
          toSign: ['Done by', 'Taken over by'],
          signed: null,
          customer: null,
        },
      ],
    };
  }

  /** Work line by line, an overhaul as one line. */
  private workOf(rows: readonly RepairEntryEntity[], timeZone: string) {
    const work = rows
      .filter(({ kind }) => kind === 'work')
      .map(({ text, minutes, at, by }) => ({
        name: text,
        outcome: minutes === null ? '' : `${minutes} min`,
        verification: `${formatMoment(at, timeZone)}, ${this.people.nameOf(by)}`,
      }));
    const gone = new Set(rows.flatMap(({ kind, text }) => (kind === 'step' ? [text] : [])));
    const overhauls = procedures.flatMap(({ code, name, steps }) => {
      const count = steps.filter((step) => gone.has(`${code}/${step.code}`)).length;
      return count === 0 ? [] : [{ name, outcome: `${count} of ${steps.length} steps`, verification: '' }];
    });
    return [...work, ...overhauls];
  }

  /** Each check that was to prove it, with the last that it showed before the work. */
  private checksOf(
    { compressorId }: RepairEntity,
    rows: readonly RepairEntryEntity[],
  ): readonly ReportedCheck[] {
    const proofs = rows.filter(({ outcome }) => outcome !== null);
    const begun = rows.find(({ kind }) => ourEntryKinds.get(kind)?.isWork)?.at;
    const codes = [...new Set(proofs.map(({ check }) => check!))];
    return codes.map((code) => {
      const after = proofs.findLast(({ check }) => check === code)!;
      const [before] = this.database.findAll(
        MeasurementEntity,
        LAST_BEFORE,
        compressorId,
        code,
        Math.min(begun ?? after.at, after.at),
      );
      return {
        name: checkByCode(code)?.name ?? code,
        before: before ? readingOf(before.judgement) : null,
        after: readingOf(after.outcome!),
      };
    });
  }
}
