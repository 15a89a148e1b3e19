import { Inject, Injectable } from '@nestjs/common';
import type { OpenRepairView, OpenWorkView, RepairView } from '@entretien/contracts';
import { shortagesOf, type Job } from '@entretien/core/parts';
import { worthPlanning } from '@entretien/core/visit';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { PartsService } from '../parts/parts.service.js';
import { RepairsService } from '../repairs/repairs.service.js';
import { SitesService } from '../sites/sites.service.js';
import { FleetService } from '../standings/fleet.service.js';
import { StandingsService } from '../standings/standings.service.js';
import { VisitsService } from '../visits/visits.service.js';

/** So many of the most urgent units the van is packed for. */
const UNITS_PACKED_FOR = 60;

/** What is open anywhere: repairs, visits that nobody signed for, and what the van is short of for all of it. */
@Injectable()
export class OpenWorkService {
  constructor(
    private readonly register: CompressorRegister,
    private readonly fleet: FleetService,
    private readonly standings: StandingsService,
    private readonly repairs: RepairsService,
    private readonly visits: VisitsService,
    private readonly parts: PartsService,
    private readonly sites: SitesService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  view(): OpenWorkView {
    const visits = this.visits.list({ show: 'open', limit: '200' }).items;
    return {
      repairs: this.repairs.open().flatMap((repair) => this.toOpen(repair)),
      visits,
      short: shortagesOf(this.jobs(), this.parts.list()),
    };
  }

  private jobs(): Job[] {
    return this.fleet.mostUrgent(UNITS_PACKED_FOR).flatMap((compressorId) => {
      const { plan, plate, standing } = this.standings.judge(
        this.register.require(compressorId),
        this.clock(),
      );
      // What nobody knows the history of is looked at first: nothing is packed for it.
      const codes = new Set(worthPlanning(standing.tasks.filter(({ state }) => state !== 'unknown')));
      const tasks = plan.tasks.filter(({ code }) => codes.has(code));
      return tasks.length === 0 ? [] : [{ compressorId, tag: plate.tag, plate, tasks }];
    });
  }

  private toOpen({ id, compressorId, kind, found, foundAt, state, waitsFor }: RepairView): OpenRepairView[] {
    const unit = this.register.find(compressorId);
    if (!unit) return [];
    const plate = this.register.plateOf(unit, this.clock());
    if (this.register.isRetired(plate, this.clock())) return [];
    const { tag, siteId } = plate;
    const siteName = this.sites.find(siteId)?.name ?? '';
    return [{ id, compressorId, tag, siteId, siteName, kind, found, foundAt, state, waitsFor }];
  }
}
