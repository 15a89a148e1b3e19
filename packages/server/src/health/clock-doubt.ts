import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { formatInstant } from '@entretien/core/basics';
import type { Logger } from 'pino';
import { CLOCK, LOGGER, type Clock } from '../common/tokens.js';
import { Spine } from '../persistence/spine.js';

/** Clocks of one machine differ by no more between two starts, once it has asked what time it is. */
const TOLERATED_MS = 10 * 60_000;

/**
 * Whether this machine's clock can be right: it cannot be earlier than what it recorded itself. Something is wrong
 * then, or was; which of the two, only a person can say.
 */
@Injectable()
export class ClockDoubt implements OnApplicationBootstrap {
  constructor(
    private readonly spine: Spine,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(LOGGER) private readonly logger: Logger,
  ) {}

  onApplicationBootstrap(): void {
    const doubt = this.sentence();
    if (doubt !== null) this.logger.warn(doubt);
  }

  /** Null where there is nothing to doubt. */
  sentence(): string | null {
    const last = this.spine.lastRecordedAt();
    const now = this.clock();
    if (last === null || last <= now + TOLERATED_MS) return null;
    return `The server’s clock says ${minute(now)}, but something was recorded at ${minute(last)}. Is it wrong now, or was it then? Until that is settled, dates and what is due cannot be trusted.`;
  }
}

/** A moment to the minute, in UTC. */
function minute(instant: number): string {
  return `${formatInstant(instant).slice(0, 16).replace('T', ' ')} UTC`;
}
