import type { Clock } from './tokens.js';

/** This machine's clock: the one place where it enters the server. */
export const systemClock: Clock = () => Date.now();
