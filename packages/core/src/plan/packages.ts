import type { DataPlate, Family } from '../machine/index.js';
import type { TaskStanding } from './task-standing.js';
import { isRoutine, type ServicePackage, type ServicePlan, type ServiceTask } from './service-plan.js';

/** A package of the defaults: by the run hours or the months within which its tasks come round, or task by task. */
interface UsualPackage {
  readonly code: string;
  readonly name: string;
  readonly because: string;
  readonly families: readonly Family[];
  /** Every task that comes round by these run hours, or more often. */
  readonly everyHours?: number;
  /** Every task that comes round by these months, or more often. */
  readonly everyMonths?: number;
  /** Further tasks, by their codes; what a plan does not have is left out. */
  readonly also?: readonly string[];
}

const everyFamily: readonly Family[] = ['piston', 'piston-oil-free', 'screw', 'high-pressure'];
const byHours = (every: number, families: readonly Family[], because: string): UsualPackage => ({
  code: `every-${every}-h`,
  name: `${every.toLocaleString('en')} h service`,
  because,
  families,
  everyHours: every,
});

/** The package of running in. */
const FIRST = 'first';

/** What is done together (common practice): one isolation, one journey. */
const usualPackages: readonly UsualPackage[] = [
  {
    code: FIRST,
    name: 'First service',
    because: 'After running in: filings are in the first oil and its filter; belts and bolts have settled.',
    families: everyFamily,
    also: ['first-service', 'oil-change', 'belt-check', 'fasteners-check', 'leak-survey'],
  },
  byHours(250, ['piston-oil-free'], 'The element wears the rings when it is left.'),
  byHours(500, ['piston', 'piston-oil-free'], 'Oil, belts and what goes with them.'),
  byHours(
    1000,
    ['piston', 'piston-oil-free', 'high-pressure'],
    'The valves are opened, and the rest with them.',
  ),
  byHours(2000, ['screw'], 'Filters, valves, belts and a look at the oil, in one opening.'),
  byHours(4000, ['screw'], 'The 2,000 h service, and what lasts twice as long.'),
  byHours(8000, ['screw'], 'Everything that comes round by hours.'),
  {
    code: 'yearly',
    name: 'Yearly service',
    because: 'What ages by standing, and the tests that keep people safe.',
    families: everyFamily,
    everyMonths: 12,
  },
  {
    code: 'winter',
    name: 'Before winter',
    because: 'Water that stays in a drain or a line freezes; stiff oil and tired belts show in the cold.',
    families: everyFamily,
    also: [
      'drain-receiver',
      'separator-drain',
      'tower-drain',
      'oil-level',
      'belt-check',
      'cooling-clean',
      'fasteners-check',
      'line-lubricator',
      'engine-start-check',
    ],
  },
];

/** Whether a task comes round within so many hours or months, so that it belongs to the bigger service too. */
function comesRound(task: ServiceTask, { everyHours, everyMonths }: UsualPackage): boolean {
  if (task.once || isRoutine(task)) return false;
  return task.triggers.some(
    (trigger) =>
      (everyHours !== undefined && trigger.kind === 'hours' && trigger.every <= everyHours) ||
      (everyMonths !== undefined &&
        trigger.kind === 'calendar' &&
        ('months' in trigger.every
          ? trigger.every.months <= everyMonths
          : trigger.every.days <= everyMonths * 31)),
  );
}

/** Of these, what no other of them does too: the oil change takes the oil filter with it. */
function withoutCovered(codes: readonly string[], plan: Pick<ServicePlan, 'tasks'>): readonly string[] {
  const covered = new Set(
    plan.tasks.flatMap(({ code, covers = [] }) => (codes.includes(code) ? covers : [])),
  );
  return codes.filter((code) => !covered.has(code));
}

/**
 * The packages that come with a family, for a plan as it stands: with its intervals, and only of tasks that it has.
 * A package that holds nothing more than the one before it is left out.
 */
export function usualPackagesFor(
  plan: Pick<ServicePlan, 'tasks'>,
  { family }: Pick<DataPlate, 'family'>,
): readonly ServicePackage[] {
  const made: ServicePackage[] = [];
  for (const usual of usualPackages) {
    if (!usual.families.includes(family)) continue;
    const codes = plan.tasks
      .filter((task) => comesRound(task, usual) || usual.also?.includes(task.code))
      .map(({ code }) => code);
    if (usual.code === FIRST && !plan.tasks.some(isOfRunningIn)) continue;
    const { code, name, because } = usual;
    const tasks = withoutCovered(codes, plan);
    if (tasks.length > 1 && made.at(-1)?.tasks.join() !== tasks.join())
      made.push({ code, name, because, tasks });
  }
  return made;
}

/** Running in: a once-only task, or a first interval shorter than the rest. */
function isOfRunningIn({ once, triggers }: ServiceTask): boolean {
  return once === true || triggers.some((trigger) => trigger.kind === 'hours' && trigger.first !== undefined);
}

/**
 * Packages that a machine can still want: running in is over as soon as something of it counts from anywhere but
 * the day it was new.
 *
 * @param standings of its tasks
 */
export function packagesToOffer(
  packages: readonly ServicePackage[],
  tasks: readonly ServiceTask[],
  standings: readonly Pick<TaskStanding, 'code' | 'startedBy'>[],
): readonly ServicePackage[] {
  const startedBy = new Map(standings.map((standing) => [standing.code, standing.startedBy]));
  const isNew = tasks.every((task) => !isOfRunningIn(task) || startedBy.get(task.code) === 'commissioned');
  return packages.filter(({ code }) => code !== FIRST || isNew);
}

/** What a plan says belongs together; where it says nothing, what usually does. */
export function packagesOf(
  plan: Pick<ServicePlan, 'tasks' | 'packages'>,
  plate: Pick<DataPlate, 'family'>,
): readonly ServicePackage[] {
  return plan.packages ?? usualPackagesFor(plan, plate);
}

/** Packages without what a plan no longer has; one that is left with nothing goes. */
export function packagesWithin(
  packages: readonly ServicePackage[],
  known: ReadonlySet<string>,
): readonly ServicePackage[] {
  return packages
    .map((one) =>
      one.tasks.every((code) => known.has(code))
        ? one
        : { ...one, tasks: one.tasks.filter((code) => known.has(code)) },
    )
    .filter(({ tasks }) => tasks.length > 0);
}
