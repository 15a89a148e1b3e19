import { stationsOf, type DataPlate } from '../machine/index.js';
import {
  isolationStates,
  kitOf,
  type IsolationState,
  type KitItem,
  type ServiceTask,
  type TaskStanding,
} from '../plan/index.js';

/** The order in which states come in a visit: what wants it running first, then opened only once. */
const STATE_ORDER: readonly IsolationState[] = isolationStates;

/** Work on one station in one state of the machine. */
export interface StationWork {
  readonly station: string;
  readonly isolation: IsolationState;
  readonly tasks: readonly ServiceTask[];
}

/** What a visit to one unit takes. */
export interface Preparation {
  /** In the order of working: by state of the machine, then along the air path. */
  readonly work: readonly StationWork[];
  readonly kit: readonly KitItem[];
  readonly tools: readonly string[];
  readonly minutes: number;
}

/** Tasks worth planning for a visit: due, nearing, or not known; not those that a bigger one covers. */
export function worthPlanning(
  standings: readonly Pick<TaskStanding, 'code' | 'state' | 'coveredBy' | 'vessel' | 'startedBy'>[],
): readonly string[] {
  return standings
    .filter(
      (task) =>
        task.coveredBy === null &&
        task.vessel === null &&
        (['overdue', 'due', 'nearing'].includes(task.state) || wantsLook(task)),
    )
    .map(({ code }) => code);
}

/** Whether nobody knows the history of a task: it is looked at first. */
export function wantsLook({
  state,
  startedBy,
  vessel,
}: Pick<TaskStanding, 'state' | 'startedBy' | 'vessel'>): boolean {
  return state === 'unknown' && startedBy === null && vessel === null;
}

/** Orders the work so that the machine is stopped, opened and started once, and says what is taken along. */
export function prepare(tasks: readonly ServiceTask[], plate: DataPlate): Preparation {
  const { path, beside } = stationsOf(plate);
  const places = [...path, ...beside].map(({ code }) => code);
  const placeOf = (code: string) => {
    const index = places.indexOf(code);
    return index < 0 ? places.length : index;
  };
  const groups = new Map<string, StationWork & { tasks: ServiceTask[] }>();
  for (const task of tasks) {
    const key = `${task.isolation} ${task.station}`;
    const group = groups.get(key);
    if (group) group.tasks.push(task);
    else groups.set(key, { station: task.station, isolation: task.isolation, tasks: [task] });
  }
  const work = [...groups.values()].sort(
    (a, b) =>
      STATE_ORDER.indexOf(a.isolation) - STATE_ORDER.indexOf(b.isolation) ||
      Number(drainsOil(b)) - Number(drainsOil(a)) ||
      placeOf(a.station) - placeOf(b.station),
  );
  return {
    work,
    kit: kitOf(tasks),
    tools: [...new Set(tasks.flatMap(({ tools }) => tools ?? []))],
    minutes: tasks.reduce((sum, { minutes }) => sum + minutes, 0),
  };
}

/** Oil runs out while it is warm, and the rest is done while it runs. */
function drainsOil({ tasks }: StationWork): boolean {
  return tasks.some(({ code }) => code === 'oil-change' || code === 'engine-oil-change');
}
