import { ensureBuilt, ensureInstalled, ensurePrograms, bin, start } from './lib.mjs';

/**
 * Days on which programs that hang on the calendar break, each in a zone of its own. The machine's clock is set for
 * the tests alone; they are given theirs all the same, so nothing may change.
 */
const days = [
  { name: 'an ordinary day', at: '2027-06-16 11:20:00', zone: 'America/St_Johns' },
  { name: '29 February', at: '2028-02-29 12:00:00', zone: 'Asia/Kathmandu', small: true },
  { name: '31 December near midnight', at: '2026-12-31 23:52:00', zone: 'Pacific/Kiritimati' },
  { name: 'clocks go forward', at: '2027-03-28 01:50:00', zone: 'Europe/Zurich', interface: true },
  { name: 'clocks go back', at: '2027-10-31 02:40:00', zone: 'Europe/Lisbon' },
];

/** What is tried on another day in every run: where the calendar comes in. */
const small = [
  'packages/core/src/basics',
  'packages/core/src/plan/standing.test.ts',
  'packages/core/src/plan/deferral.test.ts',
  'packages/core/src/hours/forecast.test.ts',
  'packages/server/src/main-job.test.ts',
  'packages/server/src/standings',
  'packages/web/src/data',
  'packages/web/src/components/.*([Dd]ay|[Dd]ue|[Ww]hen|ruler|format)',
  'packages/web/src/features/(today|compressor|visits|walk)/',
];

function onDay({ at, zone }, command, args, environment) {
  return start('/usr/bin/faketime', [at, command, ...args], {
    env: { ...environment, TZ: zone, NODE_OPTIONS: '--experimental-vm-modules --no-warnings' },
  });
}

function jestOn(day, environment, paths = []) {
  return onDay(day, bin('jest'), ['--maxWorkers=100%', '--silent', ...paths], environment);
}

/** A part of the tests, on one such day. */
export function someOtherDay(environment) {
  return jestOn(
    days.find((day) => day.small),
    environment,
    small,
  );
}

/** All of the tests on all of the days, and those of the interface on one. */
async function everyDay() {
  let failed = 0;
  const tell = (name, { status, said }) => {
    failed += status === 0 ? 0 : 1;
    const counts = /^Tests: .*$/m.exec(said)?.[0] ?? /^\s+\d+ (passed|failed).*$/m.exec(said)?.[0] ?? '';
    console.log(`${status === 0 ? 'holds' : 'FAILS'}  ${name}  ${counts.trim()}`);
    if (status !== 0) console.log(said);
  };
  for (const day of days) {
    const environment = { ...process.env, ENTRETIEN_TEST_EVERY_MOMENT: '1' };
    tell(`${day.name}, ${day.at} ${day.zone}`, await jestOn(day, environment));
    if (!day.interface) continue;
    const seen = new Date(`${day.at.replace(' ', 'T')}Z`).toISOString();
    const told = { ...environment, ENTRETIEN_TEST_NOW: seen, ENTRETIEN_TEST_ZONE: day.zone };
    const args = ['test', '--config', 'packages/e2e/playwright.config.ts', '--reporter=line'];
    tell(`the interface, ${day.name}`, await onDay(day, bin('playwright'), args, told));
  }
  process.exitCode = failed > 0 ? 1 : 0;
}

if (process.argv[1] === import.meta.filename) {
  ensureInstalled();
  ensurePrograms();
  await ensureBuilt();
  await everyDay();
}
