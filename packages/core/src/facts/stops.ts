import type { Instant } from '../basics/index.js';
import { stopText, type CameBack, type TakenOut } from '../stop/index.js';
import { factKind } from './fact-kind.js';

type Taken = TakenOut & { readonly compressorId: string; readonly finding: string | null };

const outOfService = factKind<Taken>({
  kind: 'out-of-service',
  title: 'Out of service',
  content: ['compressorId', 'since', 'scope', 'place', 'ground', 'why', 'finding', 'toShow', 'informed'],
  at: ({ since }) => since,
  text: ({ why, informed, ...stop }) =>
    `${stopText(stop)}: ${why}${informed === null ? '' : `, told to ${informed}`}`,
});

interface Back extends CameBack {
  readonly compressorId: string;
  readonly at: Instant;
  readonly shownBy: string | null;
  readonly decidedBy: string | null;
  readonly reason: string | null;
}

const returnToService = factKind<Back>({
  kind: 'return-to-service',
  title: 'Back in service',
  content: ['compressorId', 'at', 'ends', 'shownBy', 'decidedBy', 'reason'],
  at: ({ at }) => at,
  text: ({ decidedBy, reason }) =>
    decidedBy === null
      ? 'Back in service, shown by a better verdict'
      : `Back in service, decided by ${decidedBy}: ${reason ?? ''}`,
});

/** What must not be used, and when it came back. */
export const stopFacts = { outOfService, returnToService } as const;
