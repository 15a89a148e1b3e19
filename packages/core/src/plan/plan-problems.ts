import type { Problem } from '../basics/index.js';
import { stationCodes, type DataPlate } from '../machine/index.js';
import { practicesFor } from './practices.js';
import { packagesWithin } from './packages.js';
import { planParts, type ServicePlan, type ServiceTask } from './service-plan.js';
import { triggerProblem } from './triggers/index.js';

/**
 * What cannot be in a plan for a machine, in sentences; empty when there is nothing to refuse. The shape of the
 * plan, its bounds and lengths are the schema's affair.
 */
export function planProblems(plan: ServicePlan, plate: DataPlate): readonly Problem[] {
  const problems: Problem[] = [];
  const format = (task: ServiceTask, code: string, sentence: string) =>
    problems.push({ code, field: `tasks.${task.code}`, sentence: `${task.name}: ${sentence}` });
  const codes = new Map<string, ServiceTask>();
  const stations = stationCodes(plate);
  for (const task of plan.tasks) {
    if (codes.has(task.code)) format(task, 'task-twice', `there are two tasks called ${task.code}.`);
    codes.set(task.code, task);
    if (!stations.has(task.station)) {
      format(task, 'no-such-station', `this machine has no station called ${task.station}.`);
    }
    if (task.safety && task.triggers.length === 0) {
      format(task, 'safety-without-interval', 'a safety task needs an interval or a limit.');
    }
    const hasRun = task.triggers.some(({ kind }) => kind === 'run');
    if (hasRun && task.triggers.some(({ kind }) => kind !== 'run')) {
      format(task, 'run-and-date', 'what belongs to every run has no due date; make two tasks of it.');
    }
    const origins = [task.origin, ...(task.others ?? []).map(({ origin }) => origin)];
    if (new Set(origins).size < origins.length) {
      format(task, 'source-twice', 'each source gives one figure: two come from the same.');
    }
    if (task.others?.length && !(task.choice && task.choice.because.trim() && task.choice.by.trim())) {
      format(task, 'choice-unexplained', 'several sources give a figure: say why this one, and who decided.');
    }
    for (const trigger of [...task.triggers, ...(task.others ?? []).flatMap((other) => other.triggers)]) {
      const wrong = triggerProblem(trigger);
      if (wrong) format(task, 'trigger', wrong);
    }
  }
  for (const task of plan.tasks) {
    for (const code of task.covers ?? []) {
      if (!codes.has(code)) format(task, 'covers-nothing', `it covers ${code}, which is not in the plan.`);
    }
    if (coversItself(task, codes)) format(task, 'covers-itself', 'what it covers covers it again.');
  }
  for (const code of Object.keys(plan.overrides ?? {})) {
    if (!codes.has(code)) {
      problems.push({
        code: 'override-of-nothing',
        field: 'overrides',
        sentence: `A factor is decided for ${code}, which is not in the plan.`,
      });
    }
  }
  return [...problems, ...packageProblems(plan, codes), ...choiceProblems(plan, plate)];
}

function coversItself(task: ServiceTask, codes: ReadonlyMap<string, ServiceTask>): boolean {
  const seen = new Set<string>();
  const ahead = [...(task.covers ?? [])];
  for (let code = ahead.pop(); code !== undefined; code = ahead.pop()) {
    if (code === task.code) return true;
    if (seen.has(code)) continue;
    seen.add(code);
    ahead.push(...(codes.get(code)?.covers ?? []));
  }
  return false;
}

function packageProblems(
  { packages = [] }: ServicePlan,
  codes: ReadonlyMap<string, ServiceTask>,
): readonly Problem[] {
  const seen = new Set<string>();
  return packages.flatMap(({ code, name, tasks }) => {
    const found: Problem[] = [];
    const field = 'packages';
    if (seen.has(code))
      found.push({ code: 'package-twice', field, sentence: `There are two packages called ${code}.` });
    seen.add(code);
    for (const task of tasks) {
      if (codes.has(task)) continue;
      const sentence = `${name}: it holds ${task}, which is not in the plan.`;
      found.push({ code: 'package-of-nothing', field, sentence });
    }
    return found;
  });
}

function choiceProblems({ choices = {} }: ServicePlan, plate: DataPlate): Problem[] {
  const practices = new Map(practicesFor(plate).map((practice) => [practice.code, practice]));
  return Object.entries(choices).flatMap(([code, chosen]) => {
    const practice = practices.get(code);
    if (!practice) {
      return [
        { code: 'no-such-school', field: 'choices', sentence: `“${code}” is no question for this machine.` },
      ];
    }
    if (practice.options.some((option) => option.code === chosen)) return [];
    return [
      {
        code: 'no-such-way',
        field: 'choices',
        sentence: `${practice.name}: “${chosen}” is none of its ways.`,
      },
    ];
  });
}

/** A plan cut down to what a machine has; names what was left out. */
export function fitPlan(
  plan: ServicePlan,
  plate: DataPlate,
): { readonly plan: ServicePlan; readonly leftOut: readonly string[] } {
  const stations = stationCodes(plate);
  const fitting = plan.tasks.filter(({ station }) => stations.has(station));
  const known = new Set(fitting.map(({ code }) => code));
  const tasks = fitting.map((task) =>
    task.covers?.every((code) => known.has(code)) === false
      ? { ...task, covers: task.covers.filter((code) => known.has(code)) }
      : task,
  );
  const keep = <Value>(
    values: Readonly<Record<string, Value>> | undefined,
    isKept: (code: string) => boolean,
  ) => values && Object.fromEntries(Object.entries(values).filter(([code]) => isKept(code)));
  const asked = new Set(practicesFor(plate).map(({ code }) => code));
  const choices = keep(plan.choices, (code) => asked.has(code));
  const overrides = keep(plan.overrides, (code) => known.has(code));
  const packages = plan.packages && packagesWithin(plan.packages, known);
  return {
    plan: planParts({ tasks, packages, choices, overrides }),
    leftOut: plan.tasks.filter(({ station }) => !stations.has(station)).map(({ name }) => name),
  };
}
