import { Injectable } from '@nestjs/common';
import type {
  Page,
  PageQuery,
  DeferTask,
  DeferralView,
  SetStartingPoints,
  StartingPointsView,
} from '@entretien/contracts';
import { dayNumberOf, formatInstant, localDayAt, type Instant } from '@entretien/core/basics';
import { planVersionAt, stickerProblem, type ServiceTask, type TaskStanding } from '@entretien/core/plan';
import { impossible, malformed } from '../common/problem.js';
import { CompressorHistories } from '../compressors/compressor-histories.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { PeopleService } from '../people/people.js';
import {
  DeferralEntity,
  StartingPointEntity,
  type StartingPointColumns,
} from '../persistence/entities/plan-facts.entity.js';
import { factView, FactPages } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { StandingsService } from '../standings/standings.service.js';

/** Longer than this is no putting off but another interval: that belongs into the plan. */
const LONGEST_DAYS = 366;

/** What is put off, and where tasks of unknown history count from. */
@Injectable()
export class DeferralsService {
  constructor(
    private readonly facts: FactStore,
    private readonly pages: FactPages,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    private readonly histories: CompressorHistories,
    private readonly standings: StandingsService,
  ) {}

  deferral(compressorId: string, sent: DeferTask, by: string): DeferralView {
    const unit = this.register.require(compressorId);
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      task: sent.task,
      deferredAt: Date.parse(sent.deferredAt),
      reason: sent.reason,
      untilHours: sent.untilHours ?? null,
      untilOn: sent.untilOn ?? null,
      risk: sent.risk ?? null,
      note: sent.note ?? null,
      corrects: sent.corrects?.toLowerCase() ?? null,
      by: this.people.require(by),
    };
    if (content.untilHours === null && content.untilOn === null) {
      throw malformed([{ field: 'untilOn', message: 'Say until when: a day, or run hours.' }]);
    }
    const { row } = this.facts.record(DeferralEntity, content, (recordedAt) => {
      const { plate, standing } = this.standings.judge(unit, content.deferredAt);
      this.register.refuseFuture(unit, content.deferredAt, 'deferredAt', recordedAt);
      const task = this.requireTask(unit, content.task, 'task', content.deferredAt);
      const due = standing.tasks.find(({ code }) => code === content.task);
      this.refuseEarly(task, due);
      if (task.safety && !content.risk) {
        throw impossible({
          code: 'risk-unnamed',
          field: 'risk',
          sentence: `${task.name} keeps somebody safe: name the risk of waiting.`,
        });
      }
      this.refuseLimits(content, this.register.timeZoneOf(plate), standing.runHours);
      return { marks: task.safety ? ['safety-put-off'] : [] };
    });
    return toDeferralView(row);
  }

  setStartingPoints(compressorId: string, sent: SetStartingPoints, by: string): StartingPointsView {
    const unit = this.register.require(compressorId);
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      setAt: Date.parse(sent.setAt),
      basis: sent.basis,
      points: sent.points.map(({ task, hoursUsed, hoursThen, countsFromOn }) => ({
        task,
        ...(hoursThen === undefined || hoursThen === null ? {} : { hoursThen }),
        ...(hoursUsed === undefined || hoursUsed === null ? {} : { hoursUsed }),
        ...(countsFromOn === undefined || countsFromOn === null ? {} : { countsFromOn }),
      })),
      note: sent.note ?? null,
      corrects: sent.corrects?.toLowerCase() ?? null,
      by: this.people.require(by),
    };
    const { row } = this.facts.record(StartingPointEntity, content, (recordedAt) => {
      this.register.refuseFuture(unit, content.setAt, 'setAt', recordedAt);
      const timeZone = this.register.timeZoneOf(this.register.plateOf(unit, content.setAt));
      const lookedOn = localDayAt(content.setAt, timeZone);
      content.points.forEach((point, index) => {
        const { task, countsFromOn } = point;
        const known = this.requireTask(unit, task, `points.${index}.task`, content.setAt);
        const { name, safety } = known;
        this.refuseBoth(point, name, index);
        if (content.basis === 'sticker') {
          const history = this.histories.of(unit, this.register.plateOf(unit, content.setAt));
          const wrong = stickerProblem(point, known, content.setAt, history);
          if (wrong) throw impossible({ ...wrong, field: `points.${index}.${wrong.field}` });
        } else if (point.hoursThen !== undefined) {
          throw impossible({
            code: 'not-a-sticker',
            field: `points.${index}.hoursThen`,
            sentence: `${name}: the figure on the meter then is what a sticker says; say so.`,
          });
        }
        if (safety && content.basis === 'estimate') {
          throw impossible({
            code: 'needs-seeing',
            field: `points.${index}.task`,
            sentence: `${name} keeps somebody safe: no estimate stands for it. It is due until it was seen.`,
          });
        }
        if (countsFromOn !== undefined && dayNumberOf(countsFromOn) > lookedOn) {
          throw impossible({
            code: 'in-the-future',
            field: `points.${index}.countsFromOn`,
            sentence: `${name} cannot count from ${countsFromOn}, after the day it was looked at.`,
          });
        }
      });
      return { marks: [] };
    });
    return toStartingView(row);
  }

  deferrals(compressorId: string, query: PageQuery): Promise<Page<DeferralView>> {
    return this.pages.page(
      DeferralEntity,
      'deferredAt',
      this.register.require(compressorId).id,
      query,
      toDeferralView,
    );
  }

  startingPoints(compressorId: string, query: PageQuery): Promise<Page<StartingPointsView>> {
    const { id } = this.register.require(compressorId);
    return this.pages.page(StartingPointEntity, 'setAt', id, query, toStartingView);
  }

  private refuseBoth({ hoursUsed, hoursThen }: StartingPointColumns, name: string, index: number): void {
    if (hoursUsed === undefined || hoursThen === undefined) return;
    throw malformed([
      { field: `points.${index}.hoursUsed`, message: `${name}: give the hours used, or the figure then.` },
    ]);
  }

  private requireTask(unit: CompressorRecord, code: string, field: string, at: Instant): ServiceTask {
    const { plan } = planVersionAt(unit.planVersions, at)!;
    const task = plan.tasks.find((one) => one.code === code);
    if (task) return task;
    throw impossible({ code: 'unknown-task', field, sentence: `“${code}” is no task of this unit’s plan.` });
  }

  private refuseEarly({ name }: ServiceTask, due: TaskStanding | undefined): void {
    const waits = due && ['nearing', 'due', 'overdue', 'put-off'].includes(due.state);
    if (waits) return;
    throw impossible({
      code: 'nothing-to-put-off',
      field: 'task',
      sentence: `${name} is neither due nor nearing: there is nothing to put off.`,
    });
  }

  private refuseLimits(
    { deferredAt, untilHours, untilOn }: Pick<DeferralEntity, 'deferredAt' | 'untilHours' | 'untilOn'>,
    timeZone: string,
    hours: number | null,
  ): void {
    const today = localDayAt(deferredAt, timeZone);
    const refuse = (field: string, sentence: string) => impossible({ code: 'limit', field, sentence });
    if (untilOn !== null) {
      const days = dayNumberOf(untilOn) - today;
      if (days <= 0) throw refuse('untilOn', 'The limit must lie after the day it is put off.');
      if (days > LONGEST_DAYS) {
        throw refuse('untilOn', 'More than a year is no putting off: change the interval in the plan.');
      }
    }
    if (untilHours === null) return;
    if (hours === null) throw refuse('untilHours', 'Its run hours are not known: give a day as the limit.');
    if (untilHours <= hours) {
      throw refuse('untilHours', `It has run ${Math.round(hours)} h already: the limit must lie above.`);
    }
    if (untilOn === null && untilHours - hours > LONGEST_DAYS * 24) {
      throw refuse('untilHours', 'That is more than a year day and night: change the interval in the plan.');
    }
  }
}

function toDeferralView(row: DeferralEntity): DeferralView {
  return {
    ...factView(row),
    task: row.task,
    deferredAt: formatInstant(row.deferredAt),
    reason: row.reason,
    ...(row.untilHours === null ? {} : { untilHours: row.untilHours }),
    ...(row.untilOn === null ? {} : { untilOn: row.untilOn }),
    ...(row.risk === null ? {} : { risk: row.risk }),
  };
}

function toStartingView(row: StartingPointEntity): StartingPointsView {
  return { ...factView(row), setAt: formatInstant(row.setAt), basis: row.basis, points: row.points };
}
