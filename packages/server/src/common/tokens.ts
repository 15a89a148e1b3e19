/** The clock: now, in ms. The demonstration sets its own. */
export const CLOCK = Symbol('clock');
export type Clock = () => number;

export const LOGGER = Symbol('logger');

export const SETTINGS = Symbol('settings');

/** What tells this build from every other; null where nobody can say. */
export const BUILD = Symbol('build');
