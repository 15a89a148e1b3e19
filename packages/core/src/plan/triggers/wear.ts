import type { StartingPoint } from '../due-point.js';
import {
  judgeHoursPoint,
  withoutPoint,
  type AnyTrigger,
  type JudgedTrigger,
  type Moment,
  type TaskTerms,
} from '../judged.js';
import { formatHours } from '../format-figures.js';
import { cartridgeHoursAt, USUAL_WARM_MONTHS, wornPoint, type SeasonLives } from '../season-wear.js';
import { roundHours, triggerKind, triggerLimits, type TriggerField } from './trigger-kind.js';

const [leastHours, mostHours] = triggerLimits.hours;

const warmMonths: TriggerField = {
  name: 'warmMonths',
  as: 'months',
  isOptional: true,
  about: 'First and last month of the warm season, 1 January to 12 December.',
};

/** Judges a life that passes at two speeds; null where it cannot be reckoned. */
function judgeLives(
  trigger: AnyTrigger,
  lives: SeasonLives | null,
  task: TaskTerms,
  start: StartingPoint | null,
  moment: Moment,
): JudgedTrigger {
  if (start === null) return withoutPoint(trigger, 'no-start');
  const { hours } = start;
  if (hours === null || moment.hours === null) return withoutPoint(trigger, 'hours-unknown');
  if (!lives) return withoutPoint(trigger, 'cannot-be-reckoned');
  const now = { at: moment.at, hours: moment.hours };
  const worn = wornPoint(lives, { at: start.at, hours }, now, moment.clock, moment.history.timeZone);
  const span = worn.due - hours;
  const window = Math.min(Math.max(span * 0.1, 1), span / 2);
  return { ...judgeHoursPoint(trigger, task, start, { ...worn, span, window }, moment), lives };
}

/**
 * Due after hours that pass more quickly in one season than in the other: of an hour run in the warm season
 * 1/warm of the life is used, of one in the cold season 1/cold.
 */
export interface SeasonTrigger {
  readonly kind: 'season';
  readonly warm: number;
  readonly cold: number;
  /** First and last month of the warm season, 1 January to 12 December; default May to September. */
  readonly warmMonths?: readonly [number, number] | undefined;
}

const lasts = (name: string, label: string, about: string): TriggerField => ({
  name,
  as: 'figure',
  label,
  unit: 'h',
  min: leastHours,
  max: mostHours,
  about,
});

const season = triggerKind<SeasonTrigger>({
  kind: 'season',
  name: 'Hours by season',
  fields: [
    lasts('warm', 'In the warm season', 'Hours that it lasts in the warm season.'),
    lasts('cold', 'In the cold season', 'Hours that it lasts in the cold season.'),
    warmMonths,
  ],
  usual: () => ({ warm: 20, cold: 30 }),
  text: ({ warm, cold }) => `${formatHours(warm)} warm, ${formatHours(cold)} cold`,
  judge(trigger, task, start, moment) {
    const { warm, cold, warmMonths: months = USUAL_WARM_MONTHS } = trigger;
    return judgeLives(trigger, { warm, cold, warmMonths: months }, task, start, moment);
  },
  scaled: (trigger, { hours }) => ({
    ...trigger,
    warm: roundHours(trigger.warm * hours),
    cold: roundHours(trigger.cold * hours),
  }),
});

/** Due when a cartridge has taken up the water that it can, calculated from what reaches it. */
export interface WaterTrigger {
  readonly kind: 'water';
  /** Water that the cartridge holds, g. */
  readonly moistureCapacityG: number;
  /** Free air delivered, L/min. */
  readonly fadLpm: number;
  /** Pressure at the last separator: what the holding valve keeps, bar gauge. */
  readonly maintainingValveBar: number;
  /** Temperature of the last separator in the warm season and in the cold one, °C. */
  readonly warmC: number;
  readonly coldC: number;
  readonly warmMonths?: readonly [number, number] | undefined;
}

const reckoned = new WeakMap<WaterTrigger, SeasonLives | null>();

function livesOf(trigger: WaterTrigger): SeasonLives | null {
  let lives = reckoned.get(trigger);
  if (lives === undefined) {
    const [warm, cold] = [cartridgeHoursAt(trigger, trigger.warmC), cartridgeHoursAt(trigger, trigger.coldC)];
    const { warmMonths: months = USUAL_WARM_MONTHS } = trigger;
    lives = warm === null || cold === null ? null : { warm, cold, warmMonths: months };
    reckoned.set(trigger, lives);
  }
  return lives;
}

const water = triggerKind<WaterTrigger>({
  kind: 'water',
  name: 'Water taken up',
  fields: [
    {
      name: 'moistureCapacityG',
      as: 'figure',
      label: 'The cartridge holds',
      unit: 'g',
      min: 0.1,
      max: 100_000,
      about: 'Water that the cartridge holds, g.',
    },
    {
      name: 'fadLpm',
      as: 'figure',
      label: 'Free air delivered',
      unit: 'L/min',
      min: 1,
      max: 200_000,
      about: 'Free air delivered, L/min.',
    },
    {
      name: 'maintainingValveBar',
      as: 'figure',
      label: 'Holding pressure',
      unit: 'bar',
      min: 1,
      max: 600,
      about: 'Pressure at the last separator, bar gauge.',
    },
    {
      name: 'warmC',
      as: 'figure',
      label: 'Last separator, warm season',
      unit: '°C',
      min: -30,
      max: 80,
      about: 'Its temperature in the warm season, °C.',
    },
    {
      name: 'coldC',
      as: 'figure',
      label: 'Last separator, cold season',
      unit: '°C',
      min: -30,
      max: 80,
      about: 'Its temperature in the cold season, °C.',
    },
    warmMonths,
  ],
  usual: ({ fadLpm, maintainingValveBar, moistureCapacityG: moistureCapacityG }) => ({
    fadLpm,
    maintainingValveBar,
    moistureCapacityG,
    warmC: 32,
    coldC: 18,
  }),
  text: ({ moistureCapacityG }, format) => `when ${format(moistureCapacityG, 'mass')} of water are taken up`,
  judge: (trigger, task, start, moment) => judgeLives(trigger, livesOf(trigger), task, start, moment),
});

export const wearTriggers = [season, water] as const;
