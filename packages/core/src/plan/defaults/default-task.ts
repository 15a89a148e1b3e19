import type { DataPlate } from '../../machine/index.js';
import type { CalendarTrigger, HoursTrigger, ServiceTask } from '../service-plan.js';

/** A task of a default plan: for which machines it stands, and how the place changes it. */
export interface DefaultTask extends Omit<ServiceTask, 'counting' | 'origin' | 'triggers'> {
  readonly counting?: ServiceTask['counting'];
  readonly triggers: ServiceTask['triggers'] | ((plate: DataPlate) => ServiceTask['triggers']);
  /** Left out: every machine of the family. */
  readonly when?: (plate: DataPlate) => boolean;
  /** Multiplies its intervals in a dusty place (practice). */
  readonly inDust?: { readonly factor: number; readonly because: string };
}

export function hours(every: number, options: { first?: number } = {}): HoursTrigger {
  return { kind: 'hours', every, ...options };
}

export function months(every: number): CalendarTrigger {
  return { kind: 'calendar', every: { months: every } };
}

/** Belts are assumed until the data plate says direct drive: a check too many beats one forgotten. */
export function maybeBelt(plate: DataPlate): boolean {
  return plate.drive !== 'direct';
}
