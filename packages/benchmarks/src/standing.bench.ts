import type { DataPlate } from '@entretien/core/machine';
import { defaultPlan, standing, type ServicePlan, type CompressorHistory } from '@entretien/core/plan';
import { readFleet } from './fleet-readings.js';
import { byTurns, report, timed } from './measure.js';
import { DAY } from './seed.js';

const UNITS = 10_000;
const READINGS = 100;
const TASKS = 12;

/** Standing of a large fleet against one ordered read of the same readings. */
export async function standingBench(dataDir: string, now: number): Promise<void> {
  const fleet = await readFleet(dataDir, UNITS, READINGS, now);
  const plate: DataPlate = {
    siteId: '',
    tag: '',
    family: 'screw',
    commissionedOn: '2024-01-01',
    history: 'new',
  };
  const plan: ServicePlan = { tasks: defaultPlan(plate).tasks.slice(0, TASKS) };
  if (plan.tasks.length !== TASKS) throw new Error(`the plan has ${plan.tasks.length} tasks`);

  const services = [40, 300, 520].map((days) => ({
    doneAt: now - days * DAY,
    recordedAt: now - days * DAY,
    tasks: ['oil-filter', 'intake-replace', 'cooling-clean'],
  }));
  const judge = () => {
    let judged = 0;
    for (const readings of fleet.histories) {
      const history: CompressorHistory = {
        timeZone: 'Europe/Zurich',
        commissionedOn: plate.commissionedOn,
        history: 'new',
        readings,
        meterChanges: [],
        services,
      };
      judged += standing(plan, history, now).tasks.length;
    }
    if (judged < UNITS * (TASKS - 1)) throw new Error(`only ${judged} tasks were judged`);
  };

  const {
    first: judging,
    second: reading,
    ratio,
  } = await byTurns(
    5,
    () => timed(judge),
    () => timed(() => void fleet.readIntoArrays()),
  );
  const forming = timed(() => void fleet.form());
  report(
    `Standing of ${UNITS.toLocaleString('en')} compressors × ${TASKS} tasks, ${READINGS} readings each`,
    ratio,
    ratio <= 0.5,
    '≤ 0.5',
    `standing ${judging.toFixed(0)} ms over one ordered read into arrays ${reading.toFixed(0)} ms (medians of 5).\n` +
      `  Forming the readings as objects out of those arrays, counted in neither: ${forming.toFixed(0)} ms; with it the ratio is ${((judging + forming) / reading).toFixed(3)}.\n` +
      `  Query: ${fleet.query}\n  Plan: ${fleet.plan} on reading_by_unit`,
  );
}
