import type { DataPlate } from '../../machine/index.js';
import type { KitItem, ServiceTask, SeverityRule } from '../service-plan.js';
import type { CalendarTrigger, HoursTrigger, RunMoment, RunTrigger } from '../triggers/index.js';

/** A machine and the option chosen for it in each practice choice. */
export interface Circumstances {
  readonly plate: DataPlate;
  /** The option chosen in a practice choice. */
  readonly option: (practice: string) => string;
}

type Depends<Value> = Value | ((circumstances: Circumstances) => Value);

/** A task of a default plan: for which machines it stands, and what depends on the machine or on a practice choice. */
export interface DefaultTask extends Omit<
  ServiceTask,
  | 'counting'
  | 'origin'
  | 'triggers'
  | 'how'
  | 'because'
  | 'severity'
  | 'action'
  | 'station'
  | 'verifiedBy'
  | 'opens'
> {
  readonly action: Depends<ServiceTask['action']>;
  readonly station: Depends<string>;
  readonly counting?: ServiceTask['counting'];
  readonly triggers: Depends<ServiceTask['triggers']>;
  readonly verifiedBy?: Depends<ServiceTask['verifiedBy']>;
  readonly opens?: Depends<ServiceTask['opens']>;
  readonly how?: Depends<string | undefined>;
  readonly because?: Depends<string | undefined>;
  readonly severity?: Depends<readonly SeverityRule[] | undefined>;
  /** Left out: every machine of the family. */
  readonly when?: (circumstances: Circumstances) => boolean;
}

export function hours(every: number, options: { first?: number | undefined } = {}): HoursTrigger {
  return options.first === undefined
    ? { kind: 'hours', every }
    : { kind: 'hours', every, first: options.first };
}

export function months(every: number): CalendarTrigger {
  return { kind: 'calendar', every: { months: every } };
}

export function run(when: RunMoment, everyMinutes?: number): RunTrigger {
  return everyMinutes === undefined ? { kind: 'run', when } : { kind: 'run', when, everyMinutes };
}

/** What is taken along: `kit('oil filter', ['drain washer', 2])`. */
export function kit(...items: readonly (string | readonly [string, number])[]): readonly KitItem[] {
  return items.map((item) =>
    typeof item === 'string' ? { part: item, count: 1 } : { part: item[0], count: item[1] },
  );
}

/** Belts are assumed until the data plate says direct drive: a check too many beats one forgotten. */
export function maybeBelt({ plate }: Circumstances): boolean {
  return plate.drive !== 'direct';
}

/** Factors that come up again and again (practice). */
export const dustHalves: SeverityRule = { kind: 'dust', times: 0.5, because: 'Dust halves its life.' };
export const dustMonthly: SeverityRule = {
  kind: 'dust',
  times: 1 / 3,
  because: 'A dusty place: monthly instead of every three months.',
};
export const heatHalves: SeverityRule = {
  kind: 'heat',
  on: 'hours',
  because: 'Its life halves for every 10 °C above.',
};
export const dampHalves: SeverityRule = {
  kind: 'damp',
  times: 0.5,
  because: 'Damp air: drained twice as often.',
};

/** How a belt is judged, by practice choice. */
export function beltHow({ option }: Circumstances): string {
  const judged =
    option('belt') === 'feel'
      ? 'Tension by feel, recorded as not measured.'
      : 'Pressed to the deflection of the manual, or span/64, and the force read.';
  return `Cracks, fraying, glazing. ${judged} A new belt is looked at again after 24 to 48 h.`;
}

/** A fifth less air than at the baseline: what a pump-up test calls act. */
export const pumpUpWorn = { kind: 'condition', check: 'pump-up', limit: 0.8, of: 'baseline' } as const;

/** When valves are opened, by practice choice. */
export function valveTriggers(every: number) {
  return ({ option }: Circumstances): ServiceTask['triggers'] => {
    if (option('valves') === 'failure') return [];
    return option('valves') === 'condition' ? [{ ...pumpUpWorn, unmeasured: hours(every) }] : [hours(every)];
  };
}

/** The first interval where the break-in practice choice is followed. */
export function firstAt({ option }: Circumstances, figure: number): { first?: number | undefined } {
  return option('break-in') === 'break-in' ? { first: figure } : {};
}
