import { describeDay, describeDayAt, type Instant } from '../basics/index.js';
import { formatHoursSeen } from '../hours/index.js';
import { formatFigure } from '../quantities/index.js';
import type { ExplainedTrigger, Explanation } from './explain.js';
import type { IntervalOrigin } from './service-plan.js';
import type { NoPoint } from './judged.js';
import { formatHours, formatMeasured, formatStored, type FormatQuantity } from './format-figures.js';
import { formatInterval } from './describe-trigger.js';
import { describeTrigger } from './triggers/index.js';

/** A step of the reasoning, to be read aloud. */
export interface ExplanationLine {
  readonly step: 'rule' | 'source' | 'factor' | 'start' | 'use' | 'point' | 'due';
  readonly text: string;
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
export function describeExplanation(
  explanation: Explanation,
  timeZone: string,
  format: FormatQuantity = formatStored,
): readonly ExplanationLine[] {
  const { triggers, factors, due } = explanation;
  const day = (at: Instant) => describeDayAt(at, timeZone);
  const steps: ExplanationLine[] = [
    { step: 'rule', text: describeRule(explanation, format) },
    ...describeSources(explanation, format),
    ...factors.map((factor): ExplanationLine => {
      const times = `× ${formatFigure(factor.times, { maxDecimals: 2 })}`;
      return {
        step: 'factor',
        text:
          factor.insteadOf === null
            ? `${factor.because} (${times})`
            : `Decided here ${times}, instead of × ${formatFigure(factor.insteadOf, { maxDecimals: 2 })}: ${factor.because}`,
      };
    }),
    { step: 'start', text: describeStart(explanation) },
    ...describeUse(explanation),
    ...triggers.flatMap((trigger, index): ExplanationLine[] =>
      trigger.rule.kind === 'run'
        ? []
        : [{ step: 'point', trigger: index, text: describePoint(trigger, explanation, day, format) }],
    ),
    { step: 'due', text: describeDue(explanation, day) },
  ];
  if (due.deferral) {
    const { reason, untilHours, untilOn, risk } = due.deferral;
    const until = [
      untilHours === null ? '' : formatHoursSeen(explanation.meter, untilHours),
      untilOn === null ? '' : describeDay(untilOn),
    ]
      .filter(Boolean)
      .join(' or ');
    steps.push({
      step: 'due',
      text: `Put off until ${until}: ${reason}${risk === null ? '' : `. The risk: ${risk}`}`,
    });
  }
  if (due.coveredBy !== null) {
    steps.push({ step: 'due', text: 'A bigger task that is due as well does this one, too.' });
  }
  return steps;
}

function describeRule({ triggers, origin, because, once }: Explanation, format: FormatQuantity): string {
  if (triggers.length === 0) return `No interval: it is done on failure. ${because ?? ''}`.trim();
  const rule = formatInterval({ triggers: triggers.map(({ rule: one }) => one), once }, format);
  const first = triggers.length > 1 ? ', whichever comes first' : '';
  return `${capital(rule)}${first}: ${origins[origin]}.${because === null ? '' : ` ${because}`}`;
}

/** How it is used lately, where that changed and a date by hours follows it. */
function describeUse({ useChange, triggers, start }: Explanation): readonly ExplanationLine[] {
  const isByHours = start !== null && triggers.some(({ dueAtHours }) => dueAtHours !== null);
  if (useChange === null || !isByHours) return [];
  return [{ step: 'use', text: `${useChange}: its hours are calculated with what it runs now.` }];
}

/** What other sources say of the interval, and who decided between them. */
function describeSources(
  { others, choice, origin }: Explanation,
  format: FormatQuantity,
): readonly ExplanationLine[] {
  if (others.length === 0) return [];
  const lines = others.map(
    (other) =>
      `${capital(originNames[other.origin])}: ${other.triggers.map((one) => describeTrigger(one, format)).join(' or ')}.`,
  );
  const decided = choice === null ? '.' : `, by ${choice.by}: ${choice.because}`;
  return [{ step: 'source', text: `${lines.join(' ')} Chosen: ${originNames[origin]}${decided}` }];
}

function describeStart({ start, counting, triggers, meter, safety }: Explanation): string {
  if (start === null) {
    return safety
      ? 'Nobody has seen when it was last done, and it keeps somebody safe: no estimate stands for that.'
      : 'No record of when it was last done: inspect it first.';
  }
  const hours = start.hours === null ? '' : `, at ${formatHoursSeen(meter, start.hours)}`;
  const grid =
    counting === 'grid' && triggers.some(({ rule }) => rule.kind === 'hours' || rule.kind === 'calendar')
      ? ' It keeps to fixed multiples: doing one late does not move the next.'
      : '';
  switch (start.basis) {
    case 'done':
      return `Last done on ${describeDay(start.on)}${hours}.${grid}`;
    case 'commissioned':
      return `No record yet; counted from commissioning on ${describeDay(start.on)}${hours}.${grid}`;
    case 'inspection':
      return `A first inspection set it: ${describeDay(start.on)}${hours}.${grid}`;
    case 'sticker':
      return `By the sticker on the machine: ${describeDay(start.on)}${hours}.${grid}`;
    case 'estimate':
      return `Estimate agreed with the customer: ${describeDay(start.on)}${hours}.${grid}`;
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
  'cannot-be-reckoned': 'its figures cannot be calculated with',
  'within-a-run': 'part of every run',
};

function describePoint(
  trigger: ExplainedTrigger,
  { meter, once }: Explanation,
  day: (at: Instant) => string,
  format: FormatQuantity,
): string {
  const name = capital(formatInterval({ triggers: [trigger.applied], once }, format));
  const { measured, lives, noPoint, dueAtHours, dueOn, likelyAt, earlyAt, lateAt } = trigger;
  const last = measured
    ? ` (${formatMeasured(measured.check, measured.latest, format)} on ${day(measured.latestAt)}, limit ${formatMeasured(measured.check, measured.limit, format)})`
    : '';
  const lasting = lives
    ? ` (${formatHours(lives.warm)} of warm weather, ${formatHours(lives.cold)} of cold)`
    : '';
  if (noPoint !== null) return `${name}: ${noPoints[noPoint]}${last}.`;
  if (dueOn !== null) return `${name}: ${describeDay(dueOn)}.`;
  const date =
    likelyAt === null
      ? 'no date while it stands still or its use is not known'
      : earlyAt === null || earlyAt === lateAt
        ? day(likelyAt)
        : `about ${day(likelyAt)}, between ${day(earlyAt)} and ${lateAt === null ? 'much later' : day(lateAt)}`;
  return `${name}${trigger.rule.kind === 'water' ? lasting : ''}${last}: at ${formatHoursSeen(meter, dueAtHours!, 'full')}, ${date}.`;
}

function describeDue({ triggers, due, meter }: Explanation, day: (at: Instant) => string): string {
  const ruling = triggers.find(({ isRuling }) => isRuling);
  if (!ruling) {
    if (due.state === 'due') return 'So it is due now.';
    return due.state === 'unknown' ? 'So nobody can say when it is due.' : 'Not due now.';
  }
  const many = triggers.filter(({ noPoint }) => noPoint === null).length > 1;
  const by = ruling.dueAtHours === null ? 'The calendar' : ruling.measured ? 'Its condition' : 'The hours';
  const when =
    due.likelyAt === null
      ? `at ${formatHoursSeen(meter, due.dueAtHours!)}, without a date`
      : due.ruledBy === 'hours'
        ? `at ${formatHoursSeen(meter, ruling.dueAtHours ?? due.dueAtHours!)}, about ${day(due.likelyAt)}`
        : `on ${day(due.likelyAt)}`;
  return many ? `${by} come${by === 'The hours' ? '' : 's'} first: due ${when}.` : `So it is due ${when}.`;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
