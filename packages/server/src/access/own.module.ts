import { Controller, Get, Inject, Module } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { OwnPaperView, OwnSiteView, OwnUnitView } from '@entretien/contracts';
import { describeDay, describeDayAt } from '@entretien/core/basics';
import { describeMachine } from '@entretien/core/machine';
import { stopText } from '@entretien/core/stop';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { nextOf } from '../documents/next-due.js';
import { Database } from '../persistence/database.js';
import { RepairEntity } from '../persistence/entities/repair.entity.js';
import { SitesModule } from '../sites/sites.module.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { SitesService } from '../sites/sites.service.js';
import { StandingsModule } from '../standings/standings.module.js';
import { StandingsService } from '../standings/standings.service.js';
import { StopsModule } from '../stops/stops.module.js';
import { StopsService } from '../stops/stops.service.js';
import { VisitsModule } from '../visits/visits.module.js';
import { VisitsService } from '../visits/visits.service.js';
import { actorNow } from './actor.js';
import { May } from './may.js';

/** So many papers of a site are told of. */
const MOST_PAPERS = 50;

/** What a customer sees: their sites, how their machines stand, and the reports of what was done. */
@ApiTags('own sites')
@Controller('own')
export class OwnController {
  constructor(
    private readonly database: Database,
    private readonly sites: SitesService,
    private readonly register: CompressorRegister,
    private readonly standings: StandingsService,
    private readonly stops: StopsService,
    private readonly visits: VisitsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  @Get()
  @May('see-own')
  @ApiOperation({ summary: 'One’s own sites with their machines and reports; staff: none' })
  own(): readonly OwnSiteView[] {
    const customerId = actorNow()?.customerId ?? null;
    if (customerId === null) return [];
    const now = this.clock();
    const units = [...this.register.all()];
    const repairs = this.database.findAll(RepairEntity, `WHERE ${stands('repair')} ORDER BY "found_at" DESC`);
    return this.sites
      .list()
      .filter((site) => site.customerId === customerId)
      .map(({ id, name, timeZone }) => ({
        id,
        name,
        units: units
          .filter(
            (unit) =>
              this.stoodAt(unit, now) === id &&
              !this.register.isRetired(this.register.plateOf(unit, now), now),
          )
          .map((unit) => this.unitOf(unit, now)),
        visits: this.visitsOf(id),
        repairs: this.repairsOf(repairs, id, timeZone),
      }));
  }

  private stoodAt(unit: CompressorRecord, at: number): string {
    return this.register.plateOf(unit, at).siteId;
  }

  private unitOf(unit: CompressorRecord, now: number): OwnUnitView {
    const { plate, standing } = this.standings.judge(unit, now);
    return {
      id: unit.id,
      tag: plate.tag,
      description: describeMachine(plate),
      stops: this.stops.views(unit.id).map((stop) => `${stopText(stop)}: ${stop.why}`),
      next: nextOf(standing),
    };
  }

  private visitsOf(siteId: string): OwnPaperView[] {
    const { items } = this.visits.list({ siteId, limit: String(MOST_PAPERS) });
    return items
      .filter(({ state }) => state === 'finished')
      .map(({ id, plannedOn, units }) => ({
        id,
        day: describeDay(plannedOn),
        text: units.map(({ tag }) => tag).join(', '),
      }));
  }

  /** Those of machines that stood there when they were found. */
  private repairsOf(repairs: readonly RepairEntity[], siteId: string, timeZone: string): OwnPaperView[] {
    return repairs
      .filter((repair) => this.stoodAt(this.register.require(repair.compressorId), repair.foundAt) === siteId)
      .slice(0, MOST_PAPERS)
      .map(({ id, found, foundAt, compressorId }) => ({
        id,
        day: describeDayAt(foundAt, timeZone),
        text: `${this.register.plateOf(this.register.require(compressorId), foundAt).tag}: ${found}`,
      }));
  }
}

@Module({
  imports: [CompressorsModule, SitesModule, StandingsModule, StopsModule, VisitsModule],
  controllers: [OwnController],
})
export class OwnModule {}
