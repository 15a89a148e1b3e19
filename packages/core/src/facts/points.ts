import type { Instant } from '../basics/index.js';
import { checkByCode, type Judgement } from '../checks/index.js';
import { pointTaskNames } from '../points/index.js';
import { factKind } from './fact-kind.js';

interface Point {
  readonly details: object;
}

const point = factKind<Point>({
  kind: 'point',
  content: ['details'],
  at: ({ recordedAt }) => recordedAt,
});

interface PointChange {
  readonly pointId: string;
  readonly changes: object;
}

const pointChange = factKind<PointChange>({
  kind: 'point-change',
  content: ['pointId', 'changes'],
  at: ({ recordedAt }) => recordedAt,
});

interface PointWorkFact {
  readonly pointId: string;
  readonly doneAt: Instant;
  readonly tasks: readonly { readonly code: string }[];
  readonly looks: readonly { readonly check: string }[];
  /** Of each look, in its order. */
  readonly judgements: readonly Judgement[];
  readonly steps: readonly object[];
  /** What the point was called then. */
  readonly tag: string;
}

const pointWork = factKind<PointWorkFact>({
  kind: 'point-work',
  title: 'Points of use',
  content: ['pointId', 'doneAt', 'tasks', 'looks', 'steps'],
  at: ({ doneAt }) => doneAt,
  moment: 'doneAt',
  text: ({ tag, tasks, looks, judgements }) =>
    `Point of use ${tag}: ${(tasks.length + looks.length === 0
      ? ['nothing done']
      : [
          ...tasks.map(({ code }) => pointTaskNames[code] ?? code),
          ...looks.map(
            ({ check }, index) => `${checkByCode(check)?.name ?? check}, ${judgements[index]?.verdict ?? ''}`,
          ),
        ]
    ).join('; ')}`,
});

interface PointWithdrawal {
  readonly pointId: string;
  readonly workId: string;
  readonly reason: string;
}

const pointWithdrawal = factKind<PointWithdrawal>({
  kind: 'point-withdrawal',
  content: ['pointId', 'workId', 'reason'],
  at: ({ recordedAt }) => recordedAt,
});

/** Points of use, and what was done at them. */
export const pointFacts = { point, pointChange, pointWork, pointWithdrawal } as const;
