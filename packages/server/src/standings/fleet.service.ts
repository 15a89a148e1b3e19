import type { Logger } from 'pino';
import { Inject, Injectable, type BeforeApplicationShutdown } from '@nestjs/common';
import type { FleetStandingView, StandingsQuery } from '@entretien/contracts';
import { dayNumberOf, formatInstant, startOfLocalDay, type Instant } from '@entretien/core/basics';
import { compareUrgency } from '@entretien/core/plan';
import { pageOf, USUAL_PAGE } from '../common/page.js';
import { CLOCK, LOGGER, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { countStates } from './count-states.js';
import { KeptOrder } from './kept-order.js';
import type { Place } from './place.js';
import { StandingsService } from './standings.service.js';

/**
 * The whole fleet, most urgent first. The order is kept between requests, because working it out means
 * judging every unit; it is renewed for the units of which a fact was recorded and for those whose states
 * change by the passing of time. The page itself is always judged afresh.
 */
@Injectable()
export class FleetService implements BeforeApplicationShutdown {
  private readonly places = new Map<string, Place>();
  private readonly changed = new Set<string>();
  private order: Place[] | null = null;
  private orderSteadyUntil: Instant = -Infinity;
  private judgedAt: Instant = -Infinity;
  private isBegun = false;

  constructor(
    private readonly register: CompressorRegister,
    private readonly standings: StandingsService,
    private readonly kept: KeptOrder,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(LOGGER) private readonly logger: Logger,
  ) {
    register.onChange((compressorId) => this.changed.add(compressorId));
  }

  beforeApplicationShutdown(): void {
    if (this.order) this.keep();
  }

  /** Without the places that are stale: those are worked out anew by whoever takes the rest up. */
  private keep(): void {
    const sound = [...this.places.values()].filter(({ compressorId }) => !this.changed.has(compressorId));
    try {
      this.kept.save(sound, this.judgedAt);
    } catch (error) {
      // A full disk, or somebody else at work: without it the order is worked out again, and that is all.
      this.logger.warn({ err: error }, 'the order of the fleet could not be kept');
    }
  }

  page(query: StandingsQuery): FleetStandingView {
    const now = this.clock();
    const at = query.at === undefined ? now : Date.parse(query.at);
    const order = query.at === undefined ? this.currentOrder(now) : this.orderAt(at);
    const shown = pageOf(order, query, ({ compressorId }) => compressorId, USUAL_PAGE);
    return {
      at: formatInstant(at),
      total: order.length,
      ...tally(order),
      items: shown.items.map(({ compressorId, isJudged }) => {
        const unit = this.register.require(compressorId);
        return isJudged
          ? this.standings.fleetView(this.standings.judge(unit, at))
          : this.standings.unjudgedFleetView(unit, at);
      }),
      nextCursor: shown.nextCursor,
    };
  }

  /** Ids of the units that press most and can be judged. */
  mostUrgent(count: number): readonly string[] {
    const judged = this.currentOrder(this.clock()).filter(({ isJudged }) => isJudged);
    return judged.slice(0, count).map(({ compressorId }) => compressorId);
  }

  private currentOrder(now: Instant): readonly Place[] {
    // A clock that was set back makes everything judged since then doubtful.
    if (now < this.judgedAt) this.order = null;
    if (this.order && this.changed.size === 0 && now < this.orderSteadyUntil) return this.order;
    if (!this.isBegun) this.takeUp(now);
    const isAnew = this.order === null;
    for (const unit of this.register.all()) {
      const place = this.places.get(unit.id);
      if (isAnew || !place || this.changed.has(unit.id) || now >= place.steadyUntil) {
        this.places.set(unit.id, this.placeOf(unit.id, now));
      }
    }
    this.changed.clear();
    this.judgedAt = now;
    this.order = sorted(this.places.values());
    // What took so long is kept at once: not every server is told before it ends.
    if (isAnew) this.keep();
    this.orderSteadyUntil = this.order.reduce((first, place) => Math.min(first, place.steadyUntil), Infinity);
    return this.order;
  }

  /** Begins with the order that was kept, and with what has changed since. */
  private takeUp(now: Instant): void {
    this.isBegun = true;
    const kept = this.kept.read(now);
    if (!kept) return;
    for (const place of kept.places) this.places.set(place.compressorId, place);
    for (const id of kept.changed) this.changed.add(id);
    this.order = [];
  }

  private orderAt(at: Instant): readonly Place[] {
    return sorted([...this.register.all()].map((unit) => this.placeOf(unit.id, at)));
  }

  private placeOf(compressorId: string, at: Instant): Place {
    const unit = this.register.require(compressorId);
    return this.register.orUnjudged<Place>(
      unit,
      () => {
        const { plate, isRetired, standing, history } = this.standings.judge(unit, at);
        const { tag, siteId, retiredOn } = plate;
        const retiresAt =
          isRetired || retiredOn === undefined
            ? Infinity
            : startOfLocalDay(dayNumberOf(retiredOn), history.timeZone);
        return {
          compressorId,
          tag,
          siteId,
          isInService: !isRetired,
          isJudged: true,
          top: standing.tasks[0],
          steadyUntil: Math.min(standing.steadyUntil ?? Infinity, retiresAt),
        };
      },
      () => {
        const { tag, siteId } = unit.registered;
        const unknown = { isJudged: false, top: undefined, steadyUntil: Infinity };
        return { compressorId, tag, siteId, isInService: true, ...unknown };
      },
    );
  }
}

/** Units in service, by their most pressing task. */
function sorted(places: Iterable<Place>): Place[] {
  return [...places].filter((place) => place.isInService).sort(byUrgency);
}

/** The whole list in figures, so that a page can speak of more than it holds. */
function tally(order: readonly Place[]): Pick<FleetStandingView, 'compressorsByState' | 'overdueSites'> {
  const overdue = order.filter(({ top }) => top?.state === 'overdue');
  return {
    compressorsByState: countStates(order.map(({ top }) => top?.state ?? 'fresh')),
    overdueSites: new Set(overdue.map(({ siteId }) => siteId)).size,
  };
}

function byUrgency(a: Place, b: Place): number {
  if (a.isJudged !== b.isJudged) return a.isJudged ? 1 : -1;
  if (a.top && b.top) {
    const urgency = compareUrgency(a.top, b.top);
    if (urgency !== 0) return urgency;
  } else if (a.top || b.top) return a.top ? -1 : 1;
  return a.tag === b.tag ? (a.compressorId < b.compressorId ? -1 : 1) : a.tag < b.tag ? -1 : 1;
}
