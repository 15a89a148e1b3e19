import { sayDay, sayDayAt, type Instant } from '../basics/index.js';
import { sayHoursSeen, type MeterScale } from '../hours/index.js';
import { formatFigure } from '../quantities/index.js';
import type { ExplainedTrigger, Explanation } from './explain.js';
import type { IntervalOrigin } from './service-plan.js';
import type { NoPoint } from './judged.js';
import { sayHours, sayMeasured, sayStored, type SayQuantity } from './say-figures.js';
import { sayInterval } from './say-trigger.js';
import { sayTrigger } from './triggers/index.js';

/** A step of the reasoning, to be read aloud. */
export interface SaidStep {
  readonly step: 'rule' | 'source' | 'factor' | 'start' | 'use' | 'point' | 'due';
  readonly words: string;
  /** The trigger it speaks of, by its place in the explanation. */
  readonly trigger?: number;
}

/** A source of intervals by name. */
export const originNames: Record<IntervalOrigin, string> = {
  book: 'manual',
  label: 'label',
  practice: 'common practice',
  regulation: 'regulation',
  'own-history': 'own history',
};

const origins: Record<IntervalOrigin, string> = {
  book: 'by the maker’s manual',
  label: 'by the label on the machine',
  practice: 'common practice',
  regulation: 'by regulation',
  'own-history': 'from this machine’s own history',
};

/** The reasoning behind a date in plain sentences: the rule, what bears on it, where it counts from, what comes first. */
export function sayExplanation(
  explanation: Explanation,
  timeZone: string,
  say: SayQuantity = sayStored,
): readonly SaidStep[] {
  const { triggers, factors, due } = explanation;
  const day = (at: Instant) => sayDayAt(at, timeZone);
  const steps: SaidStep[] = [
    { step: 'rule', words: sayRule(explanation, say) },
    ...saySources(explanation, say),
    ...factors.map((factor): SaidStep => {
      const times = `× ${formatFigure(factor.times, { maxDecimals: 2 })}`;
      return {
        step: 'factor',
        words:
          factor.insteadOf === null
            ? `${factor.because} (${times})`
            : `Decided here ${times}, instead of × ${formatFigure(factor.insteadOf, { maxDecimals: 2 })}: ${factor.because}`,
      };
    }),
    { step: 'start', words: sayStart(explanation) },
    ...sayUse(explanation),
    ...triggers.flatMap((trigger, index): SaidStep[] =>
      trigger.rule.kind === 'run'
        ? []
        : [{ step: 'point', trigger: index, words: sayPoint(trigger, explanation.meter, day, say) }],
    ),
    { step: 'due', words: sayDue(explanation, day) },
  ];
  if (due.putOff) {
    const { reason, untilHours, untilOn, risk } = due.putOff;
    const until = [
      untilHours === null ? '' : sayHoursSeen(explanation.meter, untilHours),
      untilOn === null ? '' : sayDay(untilOn),
    ]
      .filter(Boolean)
      .join(' or ');
    steps.push({
      step: 'due',
      words: `Put off until ${until}: ${reason}${risk === null ? '' : `. The risk: ${risk}`}`,
    });
  }
  if (due.coveredBy !== null) {
    steps.push({ step: 'due', words: 'A bigger task that is due as well does this one, too.' });
  }
  return steps;
}

function sayRule({ triggers, origin, because, once }: Explanation, say: SayQuantity): string {
  if (triggers.length === 0) return `No interval: it is done on failure. ${because ?? ''}`.trim();
  const rule = sayInterval({ triggers: triggers.map(({ rule: one }) => one), once }, say);
  const first = triggers.length > 1 ? ', whichever comes first' : '';
  return `${capital(rule)}${first}: ${origins[origin]}.${because === null ? '' : ` ${because}`}`;
}

/** How it is used lately, where that changed and a date by hours follows it. */
function sayUse({ useChange, triggers, start }: Explanation): readonly SaidStep[] {
  const isByHours = start !== null && triggers.some(({ dueAtHours }) => dueAtHours !== null);
  if (useChange === null || !isByHours) return [];
  return [{ step: 'use', words: `${useChange}: its hours are reckoned on at what it runs now.` }];
}

/** What other sources say of the interval, and who decided between them. */
function saySources({ others, choice, origin }: Explanation, say: SayQuantity): readonly SaidStep[] {
  if (others.length === 0) return [];
  const said = others.map(
    (other) =>
      `${capital(originNames[other.origin])}: ${other.triggers.map((one) => sayTrigger(one, say)).join(' or ')}.`,
  );
  const decided = choice === null ? '.' : `, by ${choice.by}: ${choice.because}`;
  return [{ step: 'source', words: `${said.join(' ')} Chosen: ${originNames[origin]}${decided}` }];
}

function sayStart({ start, counting, triggers, meter, safety }: Explanation): string {
  if (start === null) {
    return safety
      ? 'Nobody has seen when it was last done, and it keeps somebody safe: no estimate stands for that.'
      : 'No record of when it was last done: inspect it first.';
  }
  const hours = start.hours === null ? '' : `, at ${sayHoursSeen(meter, start.hours)}`;
  const grid =
    counting === 'grid' && triggers.some(({ rule }) => rule.kind === 'hours' || rule.kind === 'calendar')
      ? ' It keeps to fixed multiples: doing one late does not move the next.'
      : '';
  switch (start.basis) {
    case 'done':
      return `Last done on ${sayDay(start.on)}${hours}.${grid}`;
    case 'commissioned':
      return `No record yet; counted from commissioning on ${sayDay(start.on)}${hours}.${grid}`;
    case 'inspection':
      return `A first inspection set it: ${sayDay(start.on)}${hours}.${grid}`;
    case 'estimate':
      return `Estimate agreed with the customer: ${sayDay(start.on)}${hours}.${grid}`;
  }
}

const noPoints: Record<NoPoint, string> = {
  'no-start': 'nothing to count from',
  'hours-unknown': 'its run hours are not known',
  'not-measured': 'not measured yet',
  'too-few-measurements': 'within its limit; three measurements make a trend',
  'not-worsening':
    'within its limit, and not worsening by more than measuring tells: no end can be foreseen by measuring',
  'no-milestone-left': 'its last fixed figure is behind',
  'cannot-be-reckoned': 'its figures cannot be reckoned with',
  'within-a-run': 'part of every run',
};

function sayPoint(
  trigger: ExplainedTrigger,
  meter: MeterScale,
  day: (at: Instant) => string,
  say: SayQuantity,
): string {
  const name = capital(sayTrigger(trigger.applied, say));
  const { measured, lives, noPoint, dueAtHours, dueOn, likelyAt, earlyAt, lateAt } = trigger;
  const last = measured
    ? ` (${sayMeasured(measured.check, measured.latest, say)} on ${day(measured.latestAt)}, limit ${sayMeasured(measured.check, measured.limit, say)})`
    : '';
  const lasting = lives ? ` (${sayHours(lives.warm)} of warm weather, ${sayHours(lives.cold)} of cold)` : '';
  if (noPoint !== null) return `${name}: ${noPoints[noPoint]}${last}.`;
  if (dueOn !== null) return `${name}: ${sayDay(dueOn)}.`;
  const date =
    likelyAt === null
      ? 'no date while it stands still or its use is not known'
      : earlyAt === null || earlyAt === lateAt
        ? day(likelyAt)
        : `about ${day(likelyAt)}, between ${day(earlyAt)} and ${lateAt === null ? 'much later' : day(lateAt)}`;
  return `${name}${trigger.rule.kind === 'water' ? lasting : ''}${last}: at ${sayHoursSeen(meter, dueAtHours!, 'full')}, ${date}.`;
}

function sayDue({ triggers, due, meter }: Explanation, day: (at: Instant) => string): string {
  const ruling = triggers.find(({ isRuling }) => isRuling);
  if (!ruling) {
    if (due.state === 'due') return 'So it is due now.';
    return due.state === 'unknown' ? 'So nobody can say when it is due.' : 'Not due now.';
  }
  const many = triggers.filter(({ noPoint }) => noPoint === null).length > 1;
  const by = ruling.dueAtHours === null ? 'The calendar' : ruling.measured ? 'Its condition' : 'The hours';
  const when =
    due.likelyAt === null
      ? `at ${sayHoursSeen(meter, due.dueAtHours!)}, without a date`
      : due.ruledBy === 'hours'
        ? `at ${sayHoursSeen(meter, ruling.dueAtHours ?? due.dueAtHours!)}, about ${day(due.likelyAt)}`
        : `on ${day(due.likelyAt)}`;
  return many ? `${by} come${by === 'The hours' ? '' : 's'} first: due ${when}.` : `So it is due ${when}.`;
}

function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}
