import { Inject, Injectable } from '@nestjs/common';
import type { FindingsQuery, FindingsView, FindingView } from '@entretien/contracts';
import { DAY_MS } from '@entretien/core/basics';
import { checkByCode } from '@entretien/core/checks';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorHistories } from '../compressors/compressor-histories.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { Database } from '../persistence/database.js';
import { MeasurementEntity } from '../persistence/entities/measurement.entity.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { SitesService } from '../sites/sites.service.js';
import { MeasurementsService } from './measurements.service.js';

/** How far back something counts as lately. */
const LATELY_DAYS = 60;
const MOST_SHOWN = 40;

/** What was lately judged watch, act or stop anywhere, and not found better since. */
@Injectable()
export class FindingsService {
  constructor(
    private readonly database: Database,
    private readonly register: CompressorRegister,
    private readonly histories: CompressorHistories,
    private readonly sites: SitesService,
    private readonly measurements: MeasurementsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  list({ verdict }: FindingsQuery): FindingsView {
    const since = this.clock() - LATELY_DAYS * DAY_MS;
    const wanted = verdict === undefined ? ['stop', 'act', 'watch'] : [verdict];
    const found = wanted.flatMap((one) =>
      this.database.all<{ id: string; unit: string }>(LATELY, one, since),
    );
    const inService = found.filter(({ unit }) => {
      const plate = this.plateOf(unit);
      return plate === undefined || !this.register.isRetired(plate, this.clock());
    });
    return {
      items: inService.slice(0, MOST_SHOWN).map(({ id, unit }) => this.toView(id, unit)),
      total: inService.length,
    };
  }

  private plateOf(unit: string) {
    const record = this.register.find(unit);
    return record && this.register.plateOf(record, this.clock());
  }

  private toView(id: string, unit: string): FindingView {
    const row = this.database.find(MeasurementEntity, id)!;
    const record = this.register.require(unit);
    const { tag, siteId } = this.plateOf(unit)!;
    return {
      measurement: this.measurements.toView(row, this.histories.clockOf(record, this.clock())),
      checkName: checkByCode(row.check)?.name ?? row.check,
      tag,
      siteId,
      siteName: this.sites.find(siteId)?.name ?? '',
    };
  }
}

/** Of one verdict, the latest first: only where no later measurement of the same check stands on the unit. */
const LATELY = `SELECT "m"."id", "m"."compressor_id" AS "unit" FROM "measurement" "m"
  WHERE "m"."verdict" = ? AND "m"."taken_at" >= ? AND ${stands('m')}
  AND NOT EXISTS (SELECT 1 FROM "measurement" "later" WHERE "later"."compressor_id" = "m"."compressor_id" AND "later"."check_code" = "m"."check_code"
    AND ("later"."taken_at" > "m"."taken_at" OR ("later"."taken_at" = "m"."taken_at" AND "later"."recorded_at" > "m"."recorded_at")) AND ${stands('later')})
  ORDER BY "m"."taken_at" DESC LIMIT 2000`;
