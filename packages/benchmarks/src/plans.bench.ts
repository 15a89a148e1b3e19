import { randomUUID } from 'node:crypto';
import type { DataPlate } from '@entretien/core/machine';
import {
  defaultPlan,
  standing,
  triggerKinds,
  type MeasuredFact,
  type Deferral,
  type ServicePlan,
  type ServiceRecord,
  type ServiceTask,
  type StartingPointFact,
  type Trigger,
  type CompressorHistory,
} from '@entretien/core/plan';
import type { HourReading } from '@entretien/core/hours';
import { byTurns, report, timed } from './measure.js';
import { DAY, openDatabase, seed, spineOf } from './seed.js';

const UNITS = 10_000;
const READINGS = 100;
const TASKS = 25;
const MEASUREMENTS = 6;
const MEASURED = JSON.stringify({ figure: { value: 0, uncertainty: 0.05 } });

/** Standing of a large fleet with every kind of trigger against one ordered query of the same facts. */
export async function plansBench(dataDir: string, now: number): Promise<void> {
  await seed(dataDir, UNITS, READINGS, now);
  const facts = new Facts(dataDir, now);
  const plan = planOfAllKinds();
  const kinds = new Set(plan.tasks.flatMap(({ triggers }) => triggers.map(({ kind }) => kind)));
  const missing = triggerKinds.filter((kind) => !kinds.has(kind));
  if (missing.length > 0 || plan.tasks.length !== TASKS) {
    throw new Error(`the plan has ${plan.tasks.length} tasks and lacks ${missing.join()}`);
  }
  let histories = facts.form();
  const judge = () => {
    let judged = 0;
    for (const history of histories) {
      const found = standing(plan, history, now);
      judged += found.tasks.length + found.routine.length;
    }
    if (judged < UNITS * (TASKS - 1)) throw new Error(`only ${judged} tasks were judged`);
  };
  const { first, second, ratio } = await byTurns(
    5,
    () => {
      // Anew each time, so that nothing worked out for a history is kept.
      histories = facts.form();
      return timed(judge);
    },
    () => timed(() => void facts.read()),
  );
  const forming = timed(() => void facts.form());
  report(
    `Standing of ${UNITS.toLocaleString('en')} compressors × ${TASKS} tasks with all ${triggerKinds.length} kinds of trigger`,
    ratio,
    ratio <= 1,
    '≤ 1',
    `standing ${first.toFixed(0)} ms, the fits of their use among it, over one ordered query of the same facts into arrays ${second.toFixed(0)} ms (medians of 5;\n` +
      `  each unit ${READINGS} readings, 5 services, ${MEASUREMENTS} measurements, a starting point and a putting off).\n` +
      `  Forming the facts as objects out of those arrays, counted in neither: ${forming.toFixed(0)} ms.\n  Query: ${facts.plan}`,
  );
  facts.close();
}

/** A plan of so many tasks with every kind of trigger in it. */
function planOfAllKinds(): ServicePlan {
  const plate: DataPlate = {
    siteId: '',
    tag: '',
    family: 'screw',
    motor: 'diesel',
    commissionedOn: '2024-01-01',
    history: 'new',
  };
  const { tasks } = defaultPlan(plate, { separator: 'pressure-drop' });
  const own = (code: string, ...triggers: Trigger[]): ServiceTask => ({
    ...tasks[0]!,
    code,
    name: code,
    triggers,
    once: undefined,
    covers: [],
  });
  const drop = { kind: 'condition', check: 'separator-drop', limit: 0.9 } as const;
  const added = [
    own('milestones', { kind: 'milestone', at: [500, 2000, 8000] }),
    own('by-season', { kind: 'season', warm: 200, cold: 300 }),
    own('by-water', {
      kind: 'water',
      moistureCapacityG: 400,
      fadLpm: 200,
      maintainingValveBar: 150,
      warmC: 30,
      coldC: 15,
    }),
    own('by-drop', drop, { kind: 'hours', every: 6000 }),
    own('held-back', { kind: 'not-before', trigger: drop, floor: { kind: 'hours', every: 2000 } }),
    own('on-grid', { kind: 'hours', every: 1500 }, { kind: 'calendar', every: { months: 9 } }),
  ];
  return { tasks: [...tasks.slice(0, TASKS - added.length), ...added] };
}

const QUERY = `SELECT 0 AS "kind", "compressor_id" AS "unit", "taken_at" AS "at", "hours" AS "figure", "counts" AS "text", "source" AS "more", "recorded_at" AS "recorded" FROM "reading"
  UNION ALL SELECT 1, "compressor_id", "done_at", "hours", "tasks", NULL, "recorded_at" FROM "service"
  UNION ALL SELECT 2, "compressor_id", "taken_at", "figure", "check_code", "discharge_c", "recorded_at" FROM "measurement" WHERE "figure" IS NOT NULL
  UNION ALL SELECT 3, "compressor_id", "put_off_at", "until_hours", "task", "until_on", "recorded_at" FROM "put_off"
  UNION ALL SELECT 4, "compressor_id", "set_at", NULL, "points", "basis", "recorded_at" FROM "starting_point"
  ORDER BY "unit", "at"`;

type Columns = [
  number[],
  string[],
  number[],
  (number | null)[],
  string[],
  (string | number | null)[],
  number[],
];

/** The facts of the fleet: one ordered query for all of them, and the histories formed out of its arrays. */
class Facts {
  private readonly database;
  readonly plan: string;

  constructor(dataDir: string, now: number) {
    this.database = openDatabase(dataDir);
    this.fill(now);
    const steps = this.database.prepare(`EXPLAIN QUERY PLAN ${QUERY}`).all() as { detail: string }[];
    this.plan = steps
      .map(({ detail }) => detail)
      .filter((detail) => detail.includes('INDEX'))
      .join('; ');
  }

  /** Beside the readings and services of the seed; and indexes that hold all that the query asks for. */
  private fill(now: number): void {
    const { database } = this;
    const units = database.prepare('SELECT "id" FROM "compressor"').all() as { id: string }[];
    const fact = spineOf(database);
    const placed = (kind: string, unit: string, at: number) => {
      const factId = randomUUID();
      return [fact(factId, kind, unit, at, kind), factId] as const;
    };
    const measurement = database.prepare(
      `INSERT INTO "measurement" ("seq", "id", "recorded_at", "by", "marks", "compressor_id", "check_code", "taken_at", "figures", "is_baseline", "verdict", "judgement", "figure", "uncertainty", "discharge_c") VALUES (?, ?, ?, 'x', '[]', ?, ?, ?, '{}', 0, 'good', '${MEASURED}', ?, 0.05, ?)`,
    );
    const deferral = database.prepare(
      `INSERT INTO "put_off" ("seq", "id", "recorded_at", "by", "marks", "compressor_id", "task", "put_off_at", "reason", "until_on") VALUES (?, ?, ?, 'x', '[]', ?, 'belt-check', ?, 'Later.', '2027-02-01')`,
    );
    const start = database.prepare(
      `INSERT INTO "starting_point" ("seq", "id", "recorded_at", "by", "marks", "compressor_id", "set_at", "basis", "points") VALUES (?, ?, ?, 'x', '[]', ?, ?, 'inspection', '[{"task":"valves-inspect","hoursUsed":100}]')`,
    );
    database.transaction(() => {
      units.forEach(({ id }, index) => {
        for (let count = 0; count < MEASUREMENTS; count++) {
          const at = now - (MEASUREMENTS - count) * 60 * DAY;
          const isHot = count === MEASUREMENTS - 1;
          const figure = isHot ? 60 : 0.15 + count * (0.04 + (index % 7) * 0.01);
          measurement.run(
            ...placed('measurement', id, at),
            at,
            id,
            isHot ? 'discharge-temperature' : 'separator-drop',
            at,
            figure,
            isHot ? 85 + (index % 20) : null,
          );
        }
        deferral.run(...placed('put-off', id, now - 5 * DAY), now - 5 * DAY, id, now - 5 * DAY);
        start.run(...placed('starting-point', id, now - 300 * DAY), now - 300 * DAY, id, now - 300 * DAY);
      });
      database.exec(
        `CREATE INDEX "bench_service" ON "service" ("compressor_id", "done_at", "hours", "tasks", "recorded_at");
         CREATE INDEX "bench_put_off" ON "put_off" ("compressor_id", "put_off_at", "until_hours", "task", "until_on", "recorded_at");
         CREATE INDEX "bench_starting_point" ON "starting_point" ("compressor_id", "set_at", "points", "basis", "recorded_at");`,
      );
    })();
    database.exec('ANALYZE');
  }

  read(): Columns {
    const columns: Columns = [[], [], [], [], [], [], []];
    for (const row of this.database.prepare(QUERY).raw().iterate() as IterableIterator<never[]>) {
      columns.forEach((column, index) => column.push(row[index]!));
    }
    return columns;
  }

  form(): CompressorHistory[] {
    const [kinds, units, ats, figures, texts, more, recorded] = this.read();
    const histories: CompressorHistory[] = [];
    let unit = '';
    let facts = emptyFacts();
    const close = () => {
      if (unit === '') return;
      histories.push({
        timeZone: 'Europe/Zurich',
        commissionedOn: '2024-01-01',
        history: 'new',
        meterChanges: [],
        place: { dust: 'dusty', humidity: 'damp' },
        ...facts,
      });
    };
    for (let row = 0; row < kinds.length; row++) {
      if (units[row] !== unit) {
        close();
        unit = units[row]!;
        facts = emptyFacts();
      }
      const [at, text, figure, recordedAt] = [ats[row]!, texts[row]!, figures[row]!, recorded[row]!];
      if (kinds[row] === 0) {
        facts.readings.push({
          takenAt: at,
          hours: figure,
          counts: text,
          source: more[row],
          recordedAt,
        } as HourReading);
      } else if (kinds[row] === 1) {
        facts.services.push({
          doneAt: at,
          recordedAt,
          hours: figure ?? undefined,
          tasks: JSON.parse(text) as string[],
        });
      } else if (kinds[row] === 2) {
        const tempC = more[row] as number | null;
        facts.measurements.push({
          check: text,
          takenAt: at,
          recordedAt,
          value: figure,
          uncertainty: 0.05,
          tempC,
        });
      } else if (kinds[row] === 3) {
        facts.deferrals.push({
          task: text,
          deferredAt: at,
          recordedAt,
          untilOn: more[row] as string,
          reason: 'Later.',
        });
      } else {
        const [point] = JSON.parse(text) as [Pick<StartingPointFact, 'task' | 'hoursUsed'>];
        facts.startingPoints.push({ ...point, setAt: at, recordedAt, basis: 'inspection' });
      }
    }
    close();
    return histories;
  }

  close(): void {
    this.database.close();
  }
}

function emptyFacts() {
  return {
    readings: [] as HourReading[],
    services: [] as ServiceRecord[],
    measurements: [] as MeasuredFact[],
    deferrals: [] as Deferral[],
    startingPoints: [] as StartingPointFact[],
  };
}
