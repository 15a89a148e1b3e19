/** The moment at which the interface is tested, whatever day it is; the page and the server are given the same. */
export const NOW = Date.parse(process.env['ENTRETIEN_TEST_NOW'] ?? '2026-11-24T09:00:00Z');

/** The zone that the page is in. */
export const ZONE = process.env['ENTRETIEN_TEST_ZONE'] ?? 'Europe/Zurich';

const started = performance.now();

/** That moment, and as long as this worker has been at work: the time runs on as it does for a person. */
export function now(): number {
  return Math.round(NOW + performance.now() - started);
}
