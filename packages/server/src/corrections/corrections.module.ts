import { Body, Controller, Inject, Injectable, Module, Param, Post } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import { WithdrawFact, type WithdrawalView } from '@entretien/contracts';
import type { Instant } from '@entretien/core/basics';
import { logProblem } from '@entretien/core/hours';
import { allReadings, type UnitHistory } from '@entretien/core/plan';
import type { EntityTarget } from 'typeorm';
import { impossible } from '../common/problem.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { UnitRegister } from '../compressors/unit-register.js';
import { PeopleModule, PeopleService } from '../people/people.js';
import type { UnitFactColumns } from '../persistence/entities/columns.js';
import { MeterChangeEntity, ReadingEntity } from '../persistence/entities/hour-facts.entity.js';
import { MeasurementEntity } from '../persistence/entities/measurement.entity.js';
import { PutOffEntity, StartingPointEntity } from '../persistence/entities/plan-facts.entity.js';
import { ServiceEntity } from '../persistence/entities/service.entity.js';
import { factView } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';

/** Takes back facts that were wrong. They stay on record, with the reason, and stand no longer. */
@Injectable()
export class CorrectionsService {
  constructor(
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    private readonly register: UnitRegister,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  withdraw(
    entity: EntityTarget<UnitFactColumns>,
    compressorId: string,
    factId: string,
    withdrawal: WithdrawFact,
    by: string,
  ): WithdrawalView {
    const unit = this.register.require(compressorId);
    const content = {
      id: withdrawal.id.toLowerCase(),
      compressorId: unit.id,
      factId: factId.toLowerCase(),
      reason: withdrawal.reason,
      note: null,
      by: this.people.require(by),
    };
    // Before anything is written: what is read in the midst of a transaction could be kept though it is undone.
    const history = this.register.historyOf(unit, this.register.plateOf(unit, this.clock()));
    const { row, isNew } = this.facts.withdraw(entity, content, (recordedAt, fact) => {
      if (fact instanceof MeterChangeEntity) refuseBroken(history, fact, recordedAt);
      return [];
    });
    if (isNew) this.register.factRecorded(unit.id);
    return { ...factView(row), factId: row.factId, reason: row.reason };
  }
}

/** Without a meter change, the readings after it may no longer follow from those before. */
function refuseBroken(history: UnitHistory, change: MeterChangeEntity, now: Instant): void {
  const rest = history.meterChanges.filter(
    ({ changedAt, recordedAt }) => changedAt !== change.changedAt || recordedAt !== change.recordedAt,
  );
  const log = { readings: allReadings(history), meterChanges: rest };
  const problem = logProblem(log, { now, timeZone: history.timeZone });
  if (problem) throw impossible(problem);
}

@ApiTags('corrections')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@Controller('compressors/:compressorId')
export class CorrectionsController {
  constructor(private readonly corrections: CorrectionsService) {}

  @Post('readings/:readingId/withdrawal')
  @ApiOperation({ summary: 'Withdraw a reading, with the reason' })
  reading(
    @Param('compressorId') compressorId: string,
    @Param('readingId') readingId: string,
    @Body() withdrawal: WithdrawFact,
    @RequestPerson() by: string,
  ): WithdrawalView {
    return this.corrections.withdraw(ReadingEntity, compressorId, readingId, withdrawal, by);
  }

  @Post('meter-changes/:changeId/withdrawal')
  @ApiOperation({ summary: 'Withdraw a meter change, with the reason' })
  meterChange(
    @Param('compressorId') compressorId: string,
    @Param('changeId') changeId: string,
    @Body() withdrawal: WithdrawFact,
    @RequestPerson() by: string,
  ): WithdrawalView {
    return this.corrections.withdraw(MeterChangeEntity, compressorId, changeId, withdrawal, by);
  }

  @Post('services/:serviceId/withdrawal')
  @ApiOperation({ summary: 'Withdraw a service record, with the reason' })
  service(
    @Param('compressorId') compressorId: string,
    @Param('serviceId') serviceId: string,
    @Body() withdrawal: WithdrawFact,
    @RequestPerson() by: string,
  ): WithdrawalView {
    return this.corrections.withdraw(ServiceEntity, compressorId, serviceId, withdrawal, by);
  }

  @Post('measurements/:measurementId/withdrawal')
  @ApiOperation({ summary: 'Withdraw a measurement, with the reason' })
  measurement(
    @Param('compressorId') compressorId: string,
    @Param('measurementId') measurementId: string,
    @Body() withdrawal: WithdrawFact,
    @RequestPerson() by: string,
  ): WithdrawalView {
    return this.corrections.withdraw(MeasurementEntity, compressorId, measurementId, withdrawal, by);
  }

  @Post('put-offs/:putOffId/withdrawal')
  @ApiOperation({ summary: 'Withdraw a putting off, with the reason' })
  putOff(
    @Param('compressorId') compressorId: string,
    @Param('putOffId') putOffId: string,
    @Body() withdrawal: WithdrawFact,
    @RequestPerson() by: string,
  ): WithdrawalView {
    return this.corrections.withdraw(PutOffEntity, compressorId, putOffId, withdrawal, by);
  }

  @Post('starting-points/:pointId/withdrawal')
  @ApiOperation({ summary: 'Withdraw what tasks were said to count from, with the reason' })
  startingPoint(
    @Param('compressorId') compressorId: string,
    @Param('pointId') pointId: string,
    @Body() withdrawal: WithdrawFact,
    @RequestPerson() by: string,
  ): WithdrawalView {
    return this.corrections.withdraw(StartingPointEntity, compressorId, pointId, withdrawal, by);
  }
}

@Module({
  imports: [CompressorsModule, PeopleModule],
  controllers: [CorrectionsController],
  providers: [CorrectionsService],
})
export class CorrectionsModule {}
