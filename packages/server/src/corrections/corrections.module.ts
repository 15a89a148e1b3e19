import { ReadsAndWrites } from '../access/may.js';
import { Body, Controller, Injectable, Module, Param, Post } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import { WithdrawFact, type WithdrawalView } from '@entretien/contracts';
import type { Instant } from '@entretien/core/basics';
import { logProblem } from '@entretien/core/hours';
import { allReadings } from '@entretien/core/plan';
import { impossible, notFound } from '../common/problem.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { CompressorHistories } from '../compressors/compressor-histories.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { PeopleModule, PeopleService } from '../people/people.js';
import { MeterChangeEntity } from '../persistence/entities/hour-facts.entity.js';
import { factView } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { StoredKinds } from '../persistence/stored-kinds.js';

/** Takes back facts that were wrong. They stay on record, with the reason, and stand no longer. */
@Injectable()
export class CorrectionsService {
  constructor(
    private readonly facts: FactStore,
    private readonly kinds: StoredKinds,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    private readonly histories: CompressorHistories,
  ) {}

  withdraw(
    collection: string,
    compressorId: string,
    factId: string,
    withdrawal: WithdrawFact,
    by: string,
  ): WithdrawalView {
    const stored = this.kinds.inCollection(collection);
    if (!stored)
      throw notFound('no-such-collection', `Nothing of a unit is kept under “${collection.slice(0, 40)}”.`);
    const unit = this.register.require(compressorId);
    const content = {
      id: withdrawal.id.toLowerCase(),
      compressorId: unit.id,
      factId: factId.toLowerCase(),
      reason: withdrawal.reason,
      note: null,
      by: this.people.require(by),
    };
    const { row } = this.facts.withdraw(stored.entity, content, (recordedAt, fact) => {
      if (fact instanceof MeterChangeEntity) this.refuseBroken(unit, recordedAt);
      return [];
    });
    return { ...factView(row), factId: row.factId, reason: row.reason };
  }

  /** Without a meter change, the readings after it may no longer follow from those before. */
  private refuseBroken(unit: CompressorRecord, now: Instant): void {
    const without = this.histories.of(unit, this.register.plateOf(unit, now));
    const log = { readings: allReadings(without), meterChanges: without.meterChanges };
    const problem = logProblem(log, { now, timeZone: without.timeZone });
    if (problem) throw impossible(problem);
  }
}

@ApiTags('corrections')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller('compressors/:compressorId')
export class CorrectionsController {
  constructor(private readonly corrections: CorrectionsService) {}

  @Post(':collection/:factId/withdrawal')
  @ApiOperation({
    summary: 'Withdraw a fact of a unit, with the reason: readings, services, measurements and others',
  })
  withdraw(
    @Param('compressorId') compressorId: string,
    @Param('collection') collection: string,
    @Param('factId') factId: string,
    @Body() withdrawal: WithdrawFact,
    @RequestPerson() by: string,
  ): WithdrawalView {
    return this.corrections.withdraw(collection, compressorId, factId, withdrawal, by);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule],
  controllers: [CorrectionsController],
  providers: [CorrectionsService],
})
export class CorrectionsModule {}
