import type { Instant } from '../basics/index.js';
import type { FollowUpFinding, FollowUpKind } from '../follow-ups/index.js';
import { factKind } from './fact-kind.js';

interface FollowUpLook {
  readonly compressorId: string;
  readonly lookedAt: Instant;
  readonly of: FollowUpKind;
  readonly found: FollowUpFinding;
}

const said: Readonly<Record<FollowUpKind, Readonly<Record<FollowUpFinding, string>>>> = {
  joint: { sound: 'dry and tight', 'not-sound': 'not tight' },
  belt: { sound: 'still right', 'not-sound': 'it has given' },
};

const followUp = factKind<FollowUpLook>({
  kind: 'follow-up',
  title: 'Second looks',
  content: ['compressorId', 'lookedAt', 'of', 'found'],
  at: ({ lookedAt }) => lookedAt,
  moment: 'lookedAt',
  collection: 'follow-ups',
  text: ({ of, found }) =>
    `${of === 'belt' ? 'New belt' : 'What was opened'}, looked at again: ${said[of][found]}`,
});

interface BroughtBack {
  readonly compressorId: string;
  readonly doneAt: Instant;
  /** Codes of everything that was seen to. */
  readonly steps: readonly string[];
}

const broughtBack = factKind<BroughtBack>({
  kind: 'brought-back',
  title: 'Brought back after standing',
  content: ['compressorId', 'doneAt', 'steps'],
  at: ({ doneAt }) => doneAt,
  moment: 'doneAt',
  collection: 'brought-back',
  text: ({ steps }) => `Brought back after standing: ${steps.length} points seen to`,
});

/** Second looks at what was opened or fitted, and machines that stood. */
export const followUpFacts = { followUp, broughtBack } as const;
