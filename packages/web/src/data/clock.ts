import { formatInstant, type Instant } from '@entretien/core/basics';

/**
 * The page's one clock: everything that happens now asks here, and lint keeps it so. Workers and the service
 * worker have none; what they need of the time comes with what they are asked.
 */
export function currentInstant(): Instant {
  return Date.now();
}

/** Now, as the wire writes it. */
export function currentInstantText(): string {
  return formatInstant(currentInstant());
}

/** The time zone that this device lies in. */
export function deviceZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone;
}
