import type { Instant } from '@entretien/core/basics';
import type { TaskStanding } from '@entretien/core/plan';

/** Where a unit stands in the order of urgency. */
export interface Place {
  readonly compressorId: string;
  readonly tag: string;
  readonly siteId: string;
  /** Whether it was in service at the moment judged. */
  readonly isInService: boolean;
  /** Whether it can be judged at all: what cannot wants somebody to look. */
  readonly isJudged: boolean;
  /** Its most pressing task; none when there is nothing to do at all. */
  readonly top?: TaskStanding | undefined;
  /** From this moment on the place must be worked out anew, though nothing was recorded. */
  readonly steadyUntil: Instant;
}
