import type { CalendarStep } from '../../basics/index.js';
import type { DataPlate, Family } from '../../machine/index.js';
import type { ServicePlan, ServiceTask, Trigger } from '../service-plan.js';
import { commonTasks } from './common.js';
import type { DefaultTask } from './default-task.js';
import { highPressureTasks } from './high-pressure.js';
import { oilFreeTasks } from './oil-free.js';
import { pistonTasks } from './piston.js';
import { screwTasks } from './screw.js';

const tasksByFamily: Record<Family, readonly DefaultTask[]> = {
  piston: pistonTasks,
  'piston-oil-free': oilFreeTasks,
  screw: screwTasks,
  'high-pressure': highPressureTasks,
};

/**
 * The plan a compressor starts with, from its data plate. Every interval is common practice and meant to be
 * replaced by the maker's book where there is one.
 */
export function defaultPlan(plate: DataPlate): ServicePlan {
  const tasks = [...tasksByFamily[plate.family], ...commonTasks];
  return {
    tasks: tasks.filter((task) => task.when?.(plate) ?? true).map((task) => settle(task, plate)),
  };
}

function settle(task: DefaultTask, plate: DataPlate): ServiceTask {
  const { when: _when, inDust, triggers, ...rest } = task;
  const plain = typeof triggers === 'function' ? triggers(plate) : triggers;
  const dusty = plate.dust === 'dusty' ? inDust : undefined;
  return {
    ...rest,
    station: stationFor(task, plate),
    counting: task.counting ?? 'last-done',
    origin: 'practice',
    triggers: dusty ? plain.map((trigger) => scale(trigger, dusty.factor)) : plain,
    ...(dusty ? { because: dusty.because } : {}),
  };
}

/** Where common work is done on a high-pressure set, which has neither receiver nor outlet of that name. */
const highPressurePlaces: Readonly<Record<string, string>> = { receiver: 'relief', outlet: 'fill' };

function stationFor(task: DefaultTask, plate: DataPlate): string {
  const place = plate.family === 'high-pressure' ? highPressurePlaces[task.station] : undefined;
  return place ?? task.station;
}

function scale(trigger: Trigger, factor: number): Trigger {
  return trigger.kind === 'hours'
    ? { ...trigger, every: trigger.every * factor }
    : { ...trigger, every: scaleStep(trigger.every, factor) };
}

/** Half a month has no end of month to keep to: below one whole month the step is counted in days. */
function scaleStep(step: CalendarStep, factor: number): CalendarStep {
  if ('days' in step) return { days: Math.max(1, Math.round(step.days * factor)) };
  const months = step.months * factor;
  return Number.isInteger(Math.round(months * 1e6) / 1e6)
    ? { months: Math.round(months) }
    : { days: Math.max(1, Math.round(months * 30)) };
}
