import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { accessBench } from './access.bench.js';
import { benchesBench } from './benches.bench.js';
import { calibrationBench } from './calibration.bench.js';
import { datesBench } from './dates.bench.js';
import { runEarlier } from './earlier.js';
import { exportBench } from './export.bench.js';
import { firstLoadBench } from './first-load.bench.js';
import { finderBench } from './finder.bench.js';
import { fleetBench } from './fleet.bench.js';
import { guardBench } from './guard.bench.js';
import { importBench } from './import.bench.js';
import { openVisitsBench } from './open-visits.bench.js';
import { plansBench } from './plans.bench.js';
import { pointsBench } from './points.bench.js';
import { postingBench } from './posting.bench.js';
import { simulatorBench } from './simulator.bench.js';
import { stagesBench } from './stages.bench.js';
import { standingBench } from './standing.bench.js';
import { startBench } from './start.bench.js';
import { todayBench } from './today.bench.js';
import { visitBench } from './visit.bench.js';
import { trendsBench } from './trends.bench.js';
import { compressorPageBench } from './unit-page.bench.js';

/**
 * Prints ratios measured within this one run; `npm run benchmark -- fleet` runs one of them, `-- fleet --beside 0.1.0`
 * the same of an earlier release after it (`npm run earlier-release`).
 */
const benches = {
  start: startBench,
  today: todayBench,
  benches: benchesBench,
  calibration: calibrationBench,
  trends: trendsBench,
  simulator: simulatorBench,
  stages: stagesBench,
  standing: standingBench,
  plans: plansBench,
  points: pointsBench,
  'unit-page': compressorPageBench,
  'first-load': firstLoadBench,
  dates: datesBench,
  import: importBench,
  fleet: fleetBench,
  export: exportBench,
  posting: postingBench,
  visit: visitBench,
  'open-visits': openVisitsBench,
  guard: guardBench,
  finder: finderBench,
  access: accessBench,
};
const { values, positionals: wanted } = parseArgs({
  allowPositionals: true,
  options: { beside: { type: 'string' } },
});
const now = Date.UTC(2026, 10, 24, 9);

for (const [name, bench] of Object.entries<(dataDir: string, now: number) => void | Promise<void>>(benches)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  const folder = mkdtempSync(join(tmpdir(), `entretien-bench-${name}-`));
  try {
    await bench(folder, now);
    if (values.beside !== undefined) runEarlier(values.beside, name);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
