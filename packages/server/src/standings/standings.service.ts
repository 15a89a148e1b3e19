import { FIRST_METER } from '@entretien/core/hours';
import { Inject, Injectable } from '@nestjs/common';
import type {
  ExplanationView,
  FleetCompressorView,
  StandingView,
  TaskStandingView,
} from '@entretien/contracts';
import { formatInstant, type Instant } from '@entretien/core/basics';
import { describeMachine, type DataPlate } from '@entretien/core/machine';
import {
  clockHours,
  explainAll,
  hourClockOf,
  meterQuestion,
  historyUpTo,
  judgePlan,
  planVersionAt,
  readingNeed,
  useWarning,
  describeExplanation,
  type Explanation,
  type JudgedPlan,
  type ServicePlan,
  type TaskStanding,
  type CompressorHistory,
} from '@entretien/core/plan';
import { wantsLook } from '@entretien/core/visit';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorHistories } from '../compressors/compressor-histories.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { SitesService } from '../sites/sites.service.js';
import { countStates } from './count-states.js';

/** How many of its tasks a unit shows in the fleet's list: all that press, and at least so many. */
const LEAST_TASKS_SHOWN = 6;

/** How many past services the ruler shows there. */
const SERVICES_SHOWN = 6;

/** A unit's standing with what it was computed from. */
export interface JudgedCompressor extends JudgedPlan {
  readonly unit: CompressorRecord;
  readonly plate: DataPlate;
  /** Whether it was out of service by then. */
  readonly isRetired: boolean;
  /** What had happened by then, as known then. */
  readonly history: CompressorHistory;
}

/** Works out what is due, on one unit at any moment. */
@Injectable()
export class StandingsService {
  constructor(
    private readonly register: CompressorRegister,
    private readonly histories: CompressorHistories,
    private readonly sites: SitesService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  of(compressorId: string, at = this.clock(), knownAt = Number.POSITIVE_INFINITY): StandingView {
    const unit = this.register.require(compressorId);
    return this.orUnjudged(unit, at, () => toStandingView(this.judge(unit, at, knownAt)));
  }

  /** The same with the reasons. */
  explained(compressorId: string, at = this.clock(), knownAt = Number.POSITIVE_INFINITY): StandingView {
    const unit = this.register.require(compressorId);
    return this.orUnjudged(unit, at, () => {
      const judged = this.judge(unit, at, knownAt);
      const { history } = judged;
      const reasons = explainAll(judged);
      const view = toStandingView(judged);
      return {
        ...view,
        tasks: view.tasks.map((task) => {
          const reason = reasons.get(task.code);
          return reason ? { ...task, explanation: toExplanationView(reason, history.timeZone) } : task;
        }),
      };
    });
  }

  /** What would be due now under another plan. */
  underPlan(unit: CompressorRecord, plan: ServicePlan): StandingView {
    const at = this.clock();
    const judged = this.judge(unit, at);
    return toStandingView({ ...judged, ...judgePlan(plan, judged.history, at) });
  }

  /** Never asks the machine's future: facts after `at` are left out by the core. */
  judge(unit: CompressorRecord, at: Instant, knownAt = Number.POSITIVE_INFINITY): JudgedCompressor {
    const plate = this.register.plateOf(unit, at, knownAt);
    const history = historyUpTo(this.histories.of(unit, plate, knownAt), at, knownAt);
    const versions = unit.planVersions.filter(
      (version) => version.recordedAt <= knownAt || version.version === 1,
    );
    const { plan } = planVersionAt(versions, at)!;
    const isRetired = this.register.isRetired(plate, at);
    return { unit, plate, isRetired, history, ...judgePlan(plan, history, at) };
  }

  private orUnjudged(unit: CompressorRecord, at: Instant, judge: () => StandingView): StandingView {
    return this.register.orUnjudged(unit, judge, () => unjudgedView(unit, at));
  }

  /** A unit that cannot be judged, as the fleet's list shows it: nobody else is kept from being shown. */
  unjudgedFleetView(unit: CompressorRecord, at: Instant): FleetCompressorView {
    const { siteId, tag, family } = unit.registered;
    return {
      ...unjudgedView(unit, at),
      siteId,
      siteName: this.sites.find(siteId)?.name ?? '',
      tag,
      family,
      description: describeMachine(unit.registered),
      counts: countStates([]),
      recentServices: [],
    };
  }

  /** A unit as the fleet's list shows it. */
  fleetView(judged: JudgedCompressor): FleetCompressorView {
    const { plate, standing: due, history } = judged;
    const counts = countStates(due.tasks.flatMap((task) => (task.coveredBy === null ? [task.state] : [])));
    const clock = hourClockOf(history, due.at);
    const recent = history.services.slice(-SERVICES_SHOWN);
    const view = toStandingView(judged);
    return {
      ...view,
      tasks: view.tasks.slice(0, Math.max(LEAST_TASKS_SHOWN, due.tasks.filter(staysInSight).length)),
      siteId: plate.siteId,
      siteName: this.sites.find(plate.siteId)?.name ?? '',
      tag: plate.tag,
      family: plate.family,
      description: describeMachine(plate),
      counts,
      recentServices: recent.map(({ doneAt }) => ({
        doneAt: formatInstant(doneAt),
        runHours: clockHours(clock, doneAt)?.hours ?? null,
      })),
    };
  }
}

/** What presses comes first in a standing; a safety task that was put off is among it. */
function staysInSight(task: TaskStanding): boolean {
  const { state, safety, coveredBy } = task;
  if (coveredBy !== null) return false;
  // What nobody knows the history of is all looked at in its first visit.
  if (wantsLook(task)) return true;
  return state === 'overdue' || state === 'due' || state === 'nearing' || (state === 'put-off' && safety);
}

function unjudgedView(unit: CompressorRecord, at: Instant): StandingView {
  return {
    compressorId: unit.id,
    at: formatInstant(at),
    revision: unit.revision,
    runHours: null,
    runHoursBasis: null,
    meter: FIRST_METER,
    meterQuestion: null,
    hoursPerDay: null,
    lastReadingAt: null,
    readingNeed: null,
    useWarning: null,
    retired: false,
    tasks: [],
    routine: [],
    unjudged:
      'It cannot be judged: something on record of it makes no sense. Look at its data plate and plan.',
  };
}

function toStandingView({ unit, plate, isRetired, history, standing: due }: JudgedCompressor): StandingView {
  // Both come in the order of time.
  const reading = history.readings.at(-1);
  const noted = history.services.findLast(({ hours }) => hours !== undefined);
  const lastReadingAt = Math.max(reading?.takenAt ?? -Infinity, noted?.doneAt ?? -Infinity);
  return {
    compressorId: unit.id,
    at: formatInstant(due.at),
    revision: unit.revision,
    runHours: due.runHours,
    runHoursBasis: due.runHoursBasis,
    meter: due.meter,
    meterQuestion: plate.hasHourMeter === false || isRetired ? null : meterQuestion(history, due.at),
    hoursPerDay: due.hoursPerDay,
    lastReadingAt: Number.isFinite(lastReadingAt) ? formatInstant(lastReadingAt) : null,
    // What has no meter cannot be read.
    readingNeed:
      plate.hasHourMeter === false || isRetired
        ? null
        : readingNeed(hourClockOf(history, due.at), due.tasks, due.at),
    useWarning: isRetired
      ? null
      : useWarning(hourClockOf(history, due.at), due.tasks, due.at, history.timeZone),
    retired: isRetired,
    // What is out of service is not due; its record stays readable.
    tasks: isRetired ? [] : due.tasks.map(toTaskView),
    routine: due.routine,
  };
}

function toTaskView({
  earlyAt: _early,
  likelyAt: _likely,
  lateAt: _late,
  lastDoneAt,
  ...task
}: TaskStanding): TaskStandingView {
  return { ...task, lastDoneAt: lastDoneAt === null ? null : formatInstant(lastDoneAt) };
}

function toExplanationView(explanation: Explanation, timeZone: string): ExplanationView {
  const { due: _due, triggers, ...rest } = explanation;
  const written = (at: Instant | null) => (at === null ? null : formatInstant(at));
  return {
    ...rest,
    triggers: triggers.map(({ earlyAt, likelyAt, lateAt, measured, ...trigger }) => ({
      ...trigger,
      earlyAt: written(earlyAt),
      likelyAt: written(likelyAt),
      lateAt: written(lateAt),
      measured: measured && { ...measured, latestAt: formatInstant(measured.latestAt) },
    })),
    lines: describeExplanation(explanation, timeZone),
  };
}
