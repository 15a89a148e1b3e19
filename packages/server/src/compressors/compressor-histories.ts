import { Injectable } from '@nestjs/common';
import type { Instant } from '@entretien/core/basics';
import type { DataPlate } from '@entretien/core/machine';
import { hourClockOf, type HourClock, type CompressorHistory } from '@entretien/core/plan';
import { Database } from '../persistence/database.js';
import { FleetPriorRepository } from './fleet-prior-repository.js';
import { readFacts, type KnownFacts, type CompressorFacts } from './compressor-facts.js';
import { CompressorRegister, type CompressorRecord } from './compressor-register.js';
import { VesselRepository } from './vessel-repository.js';

/** Histories kept at most; at a hundred readings each they take some 10 kB a unit. */
const MOST_HISTORIES = 12_000;

/** The histories of compressors as the core wants them, kept in memory until something of them is committed. */
@Injectable()
export class CompressorHistories {
  private readonly facts = new Map<string, KnownFacts>();
  /** The history made of some facts last: as long as it is the same object, what was worked out for it is kept. */
  private readonly histories = new WeakMap<CompressorFacts, CompressorHistory>();

  constructor(
    private readonly database: Database,
    private readonly register: CompressorRegister,
    private readonly fleetPriors: FleetPriorRepository,
    private readonly vessels: VesselRepository,
  ) {
    register.onChange((compressorId) => this.facts.delete(compressorId));
  }

  /**
   * Everything that decides what is due on a unit, under the plate of a moment. Asked about what was known at
   * a moment, facts found to be wrong since then are among it, with the moment they were.
   */
  of(record: CompressorRecord, plate: DataPlate, knownAt = Number.POSITIVE_INFINITY): CompressorHistory {
    const known = this.factsOf(record.id);
    const facts = knownAt === Number.POSITIVE_INFINITY ? known.standing : known.all;
    const papers = {
      timeZone: this.register.timeZoneOf(plate),
      commissionedOn: plate.commissionedOn,
      history: plate.history,
      meterFrom: plate.meterFrom,
      declaredHoursPerWeek: plate.declaredHoursPerWeek,
      closedWeekdays: plate.closedWeekdays,
      closures: plate.closures,
      fleetPriors: this.fleetPriors.all(),
      vessels: this.vessels.filledBy(record.id),
    };
    const { dust, humidity, oilRatedTempC } = plate;
    const place = { dust, humidity, oilRatedTempC };
    const kept = this.histories.get(facts);
    if (kept && isIn(papers, kept) && isIn(place, kept.place!)) return kept;
    const history = { ...papers, place, ...facts };
    this.histories.set(facts, history);
    return history;
  }

  /** The run hours of a unit by all that is known at a moment, under the plate of that moment. */
  clockOf(record: CompressorRecord, at: Instant): HourClock {
    return hourClockOf(this.of(record, this.register.plateOf(record, at)), at);
  }

  private factsOf(id: string): KnownFacts {
    // In the midst of what may yet be undone, what is read holds for this moment only.
    if (this.database.isChanging(id)) return readFacts(this.database, id);
    let facts = this.facts.get(id);
    if (facts) return facts;
    facts = readFacts(this.database, id);
    if (this.facts.size >= MOST_HISTORIES) this.facts.delete(this.facts.keys().next().value!);
    this.facts.set(id, facts);
    return facts;
  }
}

/** Whether every field of one stands in the other as the very same value. */
function isIn(fields: object, other: object): boolean {
  return Object.entries(fields).every(([field, value]) => other[field as keyof typeof other] === value);
}
