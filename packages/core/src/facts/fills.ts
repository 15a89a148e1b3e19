import type { Instant } from '../basics/index.js';
import { bar } from '../filling/index.js';
import { factKind } from './fact-kind.js';

interface Fill {
  readonly compressorId: string;
  readonly vesselId: string;
  readonly startedAt: Instant;
  readonly endedAt: Instant;
  readonly fromBar: number;
  readonly toBar: number;
  readonly connectorBar: number;
  readonly ambientC: number;
  readonly wallC: number | null;
  readonly coPpm: number | null;
  readonly outcome: 'full' | 'stopped';
  /** What the cylinder was called then. */
  readonly tag: string;
  readonly settledBar: number;
}

const fill = factKind<Fill>({
  kind: 'fill',
  title: 'Fills',
  content: [
    'compressorId',
    'vesselId',
    'startedAt',
    'endedAt',
    'fromBar',
    'toBar',
    'connectorBar',
    'ambientC',
    'wallC',
    'coPpm',
    'outcome',
  ],
  at: ({ endedAt }) => endedAt,
  moment: 'endedAt',
  collection: 'fills',
  text: ({ tag, fromBar, settledBar, outcome }) =>
    `${outcome === 'full' ? 'Filled' : 'Fill stopped'}: ${tag} from ${bar(fromBar)}, settles at ${bar(settledBar)}`,
  lead: ({ outcome }) => (outcome === 'full' ? 'Filled: ' : null),
});

/** Cylinders that were filled. */
export const fillFacts = { fill } as const;
