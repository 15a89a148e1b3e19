import { Inject, Injectable } from '@nestjs/common';
import type { MeterView, SiteMetersView } from '@entretien/contracts';
import { formatInstant, type Instant } from '@entretien/core/basics';
import { hoursAhead, meterScaleAt, onMeter, type HourReading } from '@entretien/core/hours';
import { describeMachine, type DataPlate } from '@entretien/core/machine';
import { allReadings, historyUpTo, hourClockOf, clockRate } from '@entretien/core/plan';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorHistories } from '../compressors/compressor-histories.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { SitesService } from '../sites/sites.service.js';

/** Figures sent of each unit: a habit can be told by them, and a new figure judged without a connection. */
const FIGURES = 14;

/** The walk through a site. */
@Injectable()
export class MetersService {
  constructor(
    private readonly register: CompressorRegister,
    private readonly histories: CompressorHistories,
    private readonly sites: SitesService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  ofSite(siteId: string): SiteMetersView {
    const site = this.sites.require(siteId);
    const now = this.clock();
    const here = [...this.register.all()].flatMap((unit) => {
      const plate = this.register.plateOf(unit, now);
      return plate.siteId === site.id && !this.register.isRetired(plate, now) ? [{ unit, plate }] : [];
    });
    const walk = new Map((site.walk ?? []).map((id, place) => [id.toLowerCase(), place]));
    const placeOf = ({ unit }: (typeof here)[number]) => walk.get(unit.id) ?? Infinity;
    here.sort(
      (a, b) => placeOf(a) - placeOf(b) || a.plate.tag.localeCompare(b.plate.tag, 'en', { numeric: true }),
    );
    return {
      siteId: site.id,
      siteName: site.name,
      timeZone: site.timeZone,
      at: formatInstant(now),
      items: here.map(({ unit, plate }) => this.meterOf(unit, plate, now)),
      nextCursor: null,
    };
  }

  /** One that cannot be judged can be read all the same, and keeps nobody from walking on. */
  private meterOf(unit: CompressorRecord, plate: DataPlate, now: Instant): MeterView {
    const about = {
      compressorId: unit.id,
      tag: plate.tag,
      ...(plate.name === undefined ? {} : { name: plate.name }),
      description: describeMachine(plate),
      hasHourMeter: plate.hasHourMeter ?? true,
    };
    return this.register.orUnjudged<MeterView>(
      unit,
      () => ({ ...about, ...this.figuresOf(unit, plate, now) }),
      () => ({ ...about, hoursPerDay: null, readings: [], meterChanges: [], expected: null }),
    );
  }

  private figuresOf(
    unit: CompressorRecord,
    plate: DataPlate,
    now: Instant,
  ): Pick<MeterView, 'hoursPerDay' | 'readings' | 'meterChanges' | 'expected'> {
    const history = historyUpTo(this.histories.of(unit, plate), now, Infinity);
    const clock = hourClockOf(history, now);
    const figures = [...allReadings(history)].sort((a, b) => b.takenAt - a.takenAt || b.hours - a.hours);
    const ahead = clock.grounds === 'readings' && clock.model ? hoursAhead(clock.model, now) : null;
    // The forecast counts continuous hours; the eye reads the meter that is fitted now.
    const scale = meterScaleAt(history.meterChanges, clock.runHours.counts, now);
    return {
      hoursPerDay: clockRate(clock, now),
      readings: figures.slice(0, FIGURES).map(written),
      meterChanges: history.meterChanges.map((change) => ({
        changedAt: formatInstant(change.changedAt),
        oldFinalHours: change.oldFinalHours,
        newStartHours: change.newStartHours,
        reason: change.reason,
      })),
      expected: ahead && {
        low: onMeter(scale, ahead.low),
        likely: onMeter(scale, ahead.likely),
        high: onMeter(scale, ahead.high),
      },
    };
  }
}

function written({ takenAt, hours, counts, source, recordedAt }: HourReading): MeterView['readings'][number] {
  return { takenAt: formatInstant(takenAt), hours, counts, source, recordedAt: formatInstant(recordedAt) };
}
