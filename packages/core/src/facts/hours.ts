import type { Instant } from '../basics/index.js';
import type { CounterKind, ReadingSource, MeterChangeReason } from '../hours/index.js';
import { factKind, hoursText } from './fact-kind.js';

interface Reading {
  readonly compressorId: string;
  readonly takenAt: Instant;
  readonly hours: number;
  readonly counts: CounterKind;
  readonly source: ReadingSource;
  readonly corrects: string | null;
}

/** What a reading says; of these there are so many that they are worded when they are shown. */
export function readingText({ hours, counts, source }: Pick<Reading, 'hours' | 'counts' | 'source'>): string {
  const what =
    source === 'estimated' ? 'Hours estimated' : counts === 'loaded' ? 'Loaded hours read' : 'Hours read';
  const how = source === 'imported' ? ', from a list' : source === 'gateway' ? ', by the machine itself' : '';
  return `${what}: ${hoursText(hours)}${how}`;
}

const reading = factKind<Reading>({
  kind: 'reading',
  title: 'Hours read',
  collection: 'readings',
  content: ['compressorId', 'takenAt', 'hours', 'counts', 'source', 'corrects'],
  at: ({ takenAt }) => takenAt,
  text: readingText,
});

interface MeterChange {
  readonly compressorId: string;
  readonly changedAt: Instant;
  readonly oldFinalHours: number;
  readonly newStartHours: number;
  readonly reason: MeterChangeReason;
  readonly corrects: string | null;
}

const reasons = { replaced: 'replaced', reset: 'reset', 'rolled-over': 'rolled over' } as const;

const meterChange = factKind<MeterChange>({
  kind: 'meter-change',
  title: 'Meter changes',
  collection: 'meter-changes',
  content: ['compressorId', 'changedAt', 'oldFinalHours', 'newStartHours', 'reason', 'corrects'],
  at: ({ changedAt }) => changedAt,
  text: ({ reason, oldFinalHours, newStartHours }) =>
    `Meter ${reasons[reason]} at ${hoursText(oldFinalHours)}, goes on from ${hoursText(newStartHours)}`,
});

/** Hours: what the meter showed, and where it jumped. */
export const hourFacts = { reading, meterChange } as const;
