import { stationCodes, type DataPlate, type Family } from '../../machine/index.js';
import { chosenOf } from '../practices.js';
import { packagesWithin } from '../packages.js';
import { planParts, type ServicePlan, type ServiceTask } from '../service-plan.js';
import { commonTasks } from './common.js';
import type { Circumstances, DefaultTask } from './default-task.js';
import { highPressureTasks } from './high-pressure.js';
import { oilFreeTasks } from './oil-free.js';
import { pistonTasks } from './piston.js';
import { defaultPractices } from './practices.js';
import { screwTasks } from './screw.js';

const tasksByFamily: Record<Family, readonly DefaultTask[]> = {
  piston: pistonTasks,
  'piston-oil-free': oilFreeTasks,
  screw: screwTasks,
  'high-pressure': highPressureTasks,
};

type Choices = Readonly<Record<string, string>>;

/**
 * The plan a compressor starts with, from its data plate. Every interval is common practice and meant to be
 * replaced by the maker's book where there is one.
 *
 * @param choices the option of each practice choice; those left out take the usual one
 */
export function defaultPlan(plate: DataPlate, choices: Choices = {}): ServicePlan {
  const circumstances = circumstancesOf(plate, choices);
  const tasks = [...tasksByFamily[plate.family], ...commonTasks];
  const settled = tasks
    .filter((task) => task.when?.(circumstances) ?? true)
    .map((task) => settle(task, circumstances));
  const known = new Set(settled.map(({ code }) => code));
  const made = settled.map((task) => ({ ...task, ...coversOf(task, known) }));
  const kept = Object.fromEntries(Object.entries(choices).filter(([code]) => isPractice(code)));
  return { tasks: made, ...(Object.keys(kept).length === 0 ? {} : { choices: kept }) };
}

/** Which tasks a practice choice decides about, on a machine: those that come out differently for one of its ways. */
export function tasksOfPractice(plate: DataPlate, practice: string): readonly string[] {
  const found = defaultPractices.find(({ code }) => code === practice);
  if (!found) return [];
  const plans = found.options.map(({ code }) => defaultPlan(plate, { [practice]: code }));
  const codes = new Set(plans.flatMap(({ tasks }) => tasks.map(({ code }) => code)));
  const written = (code: string) =>
    plans.map(({ tasks }) => JSON.stringify(tasks.find((task) => task.code === code) ?? null));
  return [...codes].filter((code) => new Set(written(code)).size > 1);
}

/**
 * A plan with another option of one practice choice: what that decides about is taken anew from the defaults,
 * everything else stays as it is edited.
 */
export function withPractice(
  plan: ServicePlan,
  plate: DataPlate,
  practice: string,
  option: string,
): ServicePlan {
  const choices = { ...plan.choices, [practice]: option };
  const anew = defaultPlan(plate, choices);
  const decided = new Set(tasksOfPractice(plate, practice));
  const byCode = new Map(anew.tasks.map((task) => [task.code, task]));
  const present = new Set(plan.tasks.map(({ code }) => code));
  const kept = plan.tasks.flatMap((task) => {
    if (!decided.has(task.code)) return [task];
    const fresh = byCode.get(task.code);
    return fresh ? [fresh] : [];
  });
  const added = anew.tasks.filter(({ code }) => decided.has(code) && !present.has(code));
  const tasks = [...kept, ...added];
  const known = new Set(tasks.map(({ code }) => code));
  return planParts({
    ...plan,
    tasks,
    choices,
    packages: plan.packages && packagesWithin(plan.packages, known),
  });
}

function isPractice(code: string): boolean {
  return defaultPractices.some((practice) => practice.code === code);
}

function circumstancesOf(plate: DataPlate, choices: Choices): Circumstances {
  return {
    plate,
    option: (code) => {
      const practice = defaultPractices.find((one) => one.code === code);
      if (!practice) throw new RangeError(`There is no practice choice called ${code}.`);
      return chosenOf(practice, plate, choices);
    },
  };
}

function settle(task: DefaultTask, circumstances: Circumstances): ServiceTask {
  const { when: _when, triggers, how, because, severity, action, station, verifiedBy, opens, ...rest } = task;
  const of = <Value>(value: Value | ((given: Circumstances) => Value)): Value =>
    typeof value === 'function' ? (value as (given: Circumstances) => Value)(circumstances) : value;
  const optional = {
    verifiedBy: of(verifiedBy),
    opens: of(opens),
    how: of(how),
    because: of(because),
    severity: of(severity),
  };
  return {
    ...rest,
    action: of(action),
    station: placeOn(circumstances.plate, of(station)),
    counting: task.counting ?? 'last-done',
    origin: 'practice',
    triggers: of(triggers),
    ...Object.fromEntries(Object.entries(optional).filter(([, value]) => value !== undefined)),
  };
}

/** Only what the plan itself has can be covered in it. */
function coversOf({ covers }: ServiceTask, known: ReadonlySet<string>): Pick<ServiceTask, 'covers'> {
  return covers === undefined ? {} : { covers: covers.filter((code) => known.has(code)) };
}

/** Where common work is done on a high-pressure set, which has neither receiver nor outlet of that name. */
const highPressurePlaces: Readonly<Record<string, string>> = { receiver: 'relief', outlet: 'fill' };

function placeOn(plate: DataPlate, station: string): string {
  if (stationCodes(plate).has(station)) return station;
  return (plate.family === 'high-pressure' ? highPressurePlaces[station] : undefined) ?? station;
}

/** What a task of the default plans opens on a machine; null for what is no such task, or does not say. */
export function usualOpening(code: string, plate: DataPlate): readonly string[] | null {
  const opens = usualTask(code, plate)?.opens;
  return (typeof opens === 'function' ? opens(circumstancesOf(plate, {})) : opens) ?? null;
}

/** The checks that give the result of a test of the default plans, on a machine; none for what is no test. */
export function usualTest(code: string, plate: DataPlate): readonly string[] {
  return usualTask(code, plate)?.testedBy ?? [];
}

function usualTask(code: string, { family }: DataPlate): DefaultTask | undefined {
  return [...tasksByFamily[family], ...commonTasks].find((task) => task.code === code);
}

/** The checks that verify a task of the default plans, on a machine; none for what is no such task. */
export function usualVerification(code: string, plate: DataPlate): readonly string[] {
  const verifiedBy = usualTask(code, plate)?.verifiedBy;
  return (typeof verifiedBy === 'function' ? verifiedBy(circumstancesOf(plate, {})) : verifiedBy) ?? [];
}
