import type { Instant } from '../basics/index.js';
import type { StartingBasis } from '../plan/index.js';
import { listed } from '../visit/index.js';
import { factKind } from './fact-kind.js';

interface Deferral {
  readonly compressorId: string;
  readonly task: string;
  readonly deferredAt: Instant;
  readonly reason: string;
  readonly untilHours: number | null;
  readonly untilOn: string | null;
  readonly risk: string | null;
  readonly corrects: string | null;
}

const deferral = factKind<Deferral>({
  kind: 'put-off',
  title: 'Put off',
  collection: 'deferrals',
  content: ['compressorId', 'task', 'deferredAt', 'reason', 'untilHours', 'untilOn', 'risk', 'corrects'],
  at: ({ deferredAt }) => deferredAt,
  text: ({ task, reason, risk, untilOn, untilHours, deferredAt }, names) => {
    const hours = untilHours === null ? null : names.hours(untilHours, deferredAt);
    const until = [untilOn, hours].filter((one) => one !== null);
    return `Put off: ${names.task(task)}, until ${until.join(' or ')}. ${reason}${risk === null ? '' : ` The risk: ${risk}`}`;
  },
});

interface StartingPoint {
  readonly compressorId: string;
  readonly setAt: Instant;
  readonly basis: StartingBasis;
  readonly points: readonly { readonly task: string }[];
  readonly corrects: string | null;
}

const basisTexts: Readonly<Record<StartingBasis, string>> = {
  inspection: 'First inspection',
  estimate: 'Accepted estimate',
  sticker: 'By the sticker',
};

const startingPoint = factKind<StartingPoint>({
  kind: 'starting-point',
  title: 'Starting points',
  collection: 'starting-points',
  content: ['compressorId', 'setAt', 'basis', 'points', 'corrects'],
  at: ({ setAt }) => setAt,
  text: ({ basis, points }, names) =>
    `${basisTexts[basis]}: ${listed(points.map(({ task }) => names.task(task)))}`,
});

/** What moves due dates besides the work itself. */
export const planningFacts = { deferral, startingPoint } as const;
