import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import seedrandom from 'seedrandom';
import { HostClient } from '../packages/server/dist/testing/host-client.js';
import { bundled, ensureBuilt, ensureInstalled, run } from './lib.mjs';

/*
 * Sends nonsense to every operation of the interface for programs: `npm run fuzz -- --requests 50000 --seed 7`. Whatever comes,
 * nothing may answer with 500 or take longer than two seconds. What an operation takes stands in the tables below
 * until it can be derived from the contracts.
 */
const { values } = parseArgs({
  options: {
    requests: { type: 'string', default: '50000' },
    seed: { type: 'string', default: '1' },
    slow: { type: 'string', default: '2000' },
  },
});
const MOST = Number(values.requests);
/** From here on an answer is too slow, ms; on a busy machine only what hangs is told from what waits its turn. */
const SLOW_MS = Number(values.slow);
const NOW = Date.UTC(2026, 10, 24, 9);

ensureInstalled();
await ensureBuilt();
const random = seedrandom(`fuzz ${values.seed}`);
/** As it can stand in an address or a header: half a letter cannot. */
const encoded = (value) =>
  encodeURIComponent(
    (typeof value === 'object' ? JSON.stringify(value) : String(value)).replace(/[\ud800-\udfff]/g, ''),
  );
const pick = (list) => list[Math.floor(random() * list.length)];
const uuid = () => {
  const hex = Array.from({ length: 32 }, () => Math.floor(random() * 16).toString(16)).join('');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20)}`;
};

const folder = mkdtempSync(join(tmpdir(), 'entretien-fuzz-'));
const told = join(folder, 'told');
run(process.execPath, [bundled('demo'), told, '--at', new Date(NOW).toISOString()], { stdio: 'ignore' });
cpSync(told, join(folder, 'data'), { recursive: true });
const host = await HostClient.start(bundled('test-host'));
await host.open({ dataDir: join(folder, 'data'), now: NOW });

const get = async (path) => (await (await fetch(`${host.url}/api${path}`)).json()).items ?? [];
const units = (await get('/compressors?limit=200')).map(({ id }) => id);
const pool = {
  unit: units,
  site: (await get('/sites')).map(({ id }) => id),
  visit: (await get('/visits')).map(({ id }) => id),
  part: (await get('/parts')).map(({ id }) => id),
  vessel: (await get('/vessels')).map(({ id }) => id),
  person: (await get('/people')).map(({ id }) => id),
  repair: (await Promise.all(units.map((unit) => get(`/compressors/${unit}/repairs`))))
    .flat()
    .map(({ id }) => id),
  fact: (await Promise.all(units.map((unit) => get(`/compressors/${unit}/readings`))))
    .flat()
    .map(({ id }) => id),
};
const ago = (days) => new Date(NOW - days * 86_400_000).toISOString();
const day = (days) => ago(days).slice(0, 10);
const when = () => ago(random() * 30);
const unit = () => pick(pool.unit);

const details = {
  isolate: { step: 'vessel', confirmed: true, answer: 'silent', needle: 'off', pressureBar: 0.1 },
  task: { task: 'oil-filter', outcome: 'done', reason: 'x' },
  station: { station: 'separator', tasks: ['scavenge-clean'] },
  measure: { phase: 'work', check: 'separator-drop', values: { dropBar: 0.5 } },
  skip: { check: 'separator-drop', reason: 'x' },
  part: { name: 'x', count: 1, task: 'oil-filter' },
  photo: { photo: uuid(), caption: 'x' },
  note: { text: 'x' },
  fault: { found: 'x', station: 'separator' },
  restart: { steps: ['guards'] },
  tight: { tight: true, text: 'x' },
  close: { task: 'oil-filter', reason: 'x' },
  plan: { tasks: ['oil-filter'] },
  hours: { hours: 10 },
  sign: { name: 'x', strokes: '1,2 3,4' },
  leave: { reason: 'x' },
};
const reading = () => ({
  id: uuid(),
  takenAt: when(),
  hours: random() * 1e4,
  counts: 'total',
  source: 'typed',
});

/** What each sending operation takes, as it should be. */
const bodies = {
  '/settings': () => ({ isolationMinutes: 20, isolationMinutesHighPressure: 10 }),
  '/repairs/{repair}/steps': () => ({
    id: uuid(),
    kind: 'isolate',
    doneAt: when(),
    session: 'x',
    details: details.isolate,
  }),
  '/compressors/{unit}/out-of-service': () => ({
    id: uuid(),
    since: when(),
    scope: pick(['unit', 'breathing', 'point', 'side']),
    place: 'x',
    ground: pick(['finding', 'relief', 'vessel', 'breathing-air', 'other']),
    why: 'x',
    toShow: 'x',
    informed: 'x',
  }),
  '/compressors/{unit}/return-to-service': () => ({
    id: uuid(),
    at: when(),
    ends: pick(pool.fact),
    shownBy: pick(pool.fact),
    decidedBy: 'x',
    reason: 'x',
  }),
  '/people': () => ({ id: uuid(), name: 'Runa Vest', initials: 'RV' }),
  '/sites': () => ({ id: uuid(), name: 'x', timeZone: 'Europe/Zurich', altitudeM: 600, note: 'x' }),
  '/sites/{site}/changes': () => ({ id: uuid(), name: 'x', timeZone: 'UTC', walk: [unit()] }),
  '/compressors': () => ({
    id: uuid(),
    siteId: pick(pool.site),
    tag: `F-${Math.floor(random() * 1e6)}`,
    family: pick(['screw', 'piston', 'piston-oil-free', 'high-pressure']),
    commissionedOn: day(500),
    stages: 2,
    workingPressureBar: 10,
    closures: ['2026-12-24/2027-01-06'],
    closedWeekdays: [0],
  }),
  '/compressors/{unit}/plate': () => ({ id: uuid(), changedAt: when(), fadLpm: 400, oilGrade: 'VG 46' }),
  '/compressors/{unit}/readings': reading,
  '/compressors/{unit}/meter-changes': () => ({
    id: uuid(),
    changedAt: when(),
    oldFinalHours: 5000,
    newStartHours: 0,
    reason: 'replaced',
  }),
  '/compressors/{unit}/services': () => ({ id: uuid(), doneAt: when(), tasks: ['oil-change'], hours: 100 }),
  '/compressors/{unit}/measurements': () => ({
    id: uuid(),
    check: pick(['separator-drop', 'pump-up', 'stage-pressures', 'cartridge-weight']),
    takenAt: when(),
    values: { dropBar: 0.5, fromBar: 0, toBar: 7, seconds: 100, weightG: 100, dryG: 90, saturatedG: 120 },
  }),
  '/compressors/{unit}/put-offs': () => ({
    id: uuid(),
    task: 'belt-check',
    deferredAt: when(),
    reason: 'x',
    untilOn: day(-20),
    risk: 'x',
  }),
  '/compressors/{unit}/starting-points': () => ({
    id: uuid(),
    setAt: when(),
    basis: 'inspection',
    points: [{ task: 'oil-change', hoursUsed: 10, countsFromOn: day(40) }],
  }),
  '/compressors/{unit}/plan-preview': () => ({
    tasks: [{ code: 'x-y', name: 'x', station: 'oil', triggers: [{ kind: 'hours', every: 10 }] }],
    choices: {},
    overrides: {},
  }),
  '/compressors/{unit}/repairs': () => ({ id: uuid(), kind: 'fault', foundAt: when(), found: 'x' }),
  '/compressors/{unit}/readings/{fact}/withdrawal': () => ({ id: uuid(), reason: 'x' }),
  '/compressors/{unit}/services/{fact}/withdrawal': () => ({ id: uuid(), reason: 'x' }),
  '/compressors/{unit}/measurements/{fact}/withdrawal': () => ({ id: uuid(), reason: 'x' }),
  '/compressors/{unit}/meter-changes/{fact}/withdrawal': () => ({ id: uuid(), reason: 'x' }),
  '/compressors/{unit}/put-offs/{fact}/withdrawal': () => ({ id: uuid(), reason: 'x' }),
  '/compressors/{unit}/starting-points/{fact}/withdrawal': () => ({ id: uuid(), reason: 'x' }),
  '/repairs/{repair}/entries': () => ({
    id: uuid(),
    kind: pick(['cause', 'work', 'part', 'step', 'proof', 'close', 'note']),
    at: when(),
    text: 'x',
    minutes: 5,
    count: 1,
    check: 'pump-up',
    values: { fromBar: 0, toBar: 7, seconds: 100 },
  }),
  '/readings/batch': () => ({
    readings: [
      { compressorId: unit(), ...reading() },
      { compressorId: unit(), ...reading() },
    ],
  }),
  '/vessels': () => ({
    id: uuid(),
    siteId: pick(pool.site),
    tag: 'V',
    kind: 'receiver',
    compressorIds: [unit()],
    ratedBar: 11,
    inspectEveryMonths: 60,
    lastInspectionOn: day(100),
  }),
  '/vessels/{vessel}/changes': () => ({ id: uuid(), ratedBar: 10, retiredOn: day(-100) }),
  '/vessels/{vessel}/examinations': () => ({ id: uuid(), kind: 'test', doneOn: day(10), passed: true }),
  '/parts': () => ({
    id: uuid(),
    number: uuid(),
    name: 'x',
    class: 'element',
    answers: 'x',
    fits: [unit()],
    figures: { micron: 10 },
    inVan: 2,
  }),
  '/parts/{part}/moves': () => ({ id: uuid(), movedAt: when(), count: 1 }),
  '/parts/compare': () => ({ compressorId: unit(), original: pick(pool.part), offered: pick(pool.part) }),
  '/judgements': () => ({ compressorId: unit(), check: 'separator-drop', values: { dropBar: 0.4 } }),
  '/visits': () => ({
    id: uuid(),
    siteId: pick(pool.site),
    plannedOn: day(0),
    units: [{ compressorId: unit(), tasks: ['oil-filter'] }],
  }),
  '/visits/{visit}/steps': () => {
    const kind = pick(Object.keys(details));
    return {
      id: uuid(),
      compressorId: unit(),
      kind,
      doneAt: when(),
      session: 's',
      details: { ...details[kind] },
    };
  },
};

/** What is asked, and with which questions. */
const page = { limit: '5', cursor: Buffer.from('[1,"x"]').toString('base64url') };
const questions = {
  '/people': {},
  '/sites': {},
  '/compressors': { ...page, show: 'all' },
  '/compressors/{unit}': {},
  '/compressors/{unit}/plan': { version: '1' },
  '/plan-library': { family: 'screw' },
  '/compressors/{unit}/standing': { at: ago(3), knownAt: ago(2), explain: 'yes' },
  '/compressors/{unit}/readings': page,
  '/compressors/{unit}/meter-changes': page,
  '/compressors/{unit}/services': page,
  '/compressors/{unit}/measurements': { ...page, check: 'pump-up', from: ago(90), to: ago(1) },
  '/compressors/{unit}/put-offs': page,
  '/compressors/{unit}/starting-points': page,
  '/compressors/{unit}/repairs': { show: 'open' },
  '/compressors/{unit}/hours': { from: ago(90), to: ago(1), at: ago(1) },
  '/compressors/{unit}/forecast': { hours: '5000', at: ago(1) },
  '/compressors/{unit}/tag.pdf': {},
  '/repairs/{repair}': {},
  '/sites/{site}/meters': {},
  '/standings': { ...page, at: ago(1) },
  '/vessels': { compressorId: units[0], show: 'all' },
  '/parts': {},
  '/check-library': { compressorId: units[0] },
  '/findings': { verdict: 'act' },
  '/visits': { ...page, show: 'open', siteId: pool.site[0], compressorId: units[0] },
  '/visits/{visit}': {},
  '/visits/{visit}/photos/{fact}': {},
  '/visits/{visit}/report.pdf': {},
  '/logbook': { ...page, q: 'oil', kind: 'service', from: ago(90), to: ago(1), siteId: pool.site[0] },
  '/logbook/export': { format: 'csv', q: 'oil' },
  '/readings/export': { compressorId: units[0], siteId: pool.site[0] },
  '/health': {},
};

const hostile = [
  () => null,
  () => true,
  () => -1,
  () => 0,
  () => -0,
  () => 1e308,
  () => 5e-324,
  () => 2 ** 53,
  () => Math.floor(random() * 1e6),
  () => '',
  () => ' ',
  () => '\u0000',
  () => '\u200b\u202e\ufeff',
  () => '\ud800',
  () => '𝕳'.repeat(50),
  () => 'x'.repeat(5000),
  () => pick(['constructor', '__proto__', 'toString', 'valueOf']),
  () =>
    pick(["' OR 1=1 --", '"; DROP TABLE "reading"; --', '%', '*', '"', '\\', '../../etc/passwd', '{{7*7}}']),
  () => pick(['2026-02-30', '0000-00-00', '9999-12-31', '1582-10-10', '-000001-01-01', '275760-09-14']),
  () => pick(['0000-01-01T00:00:00Z', '9999-12-31T23:59:59.999Z', '2026-11-24T24:00:00Z', '2026-11-24']),
  () => pick(['1970-01-01T00:00:00Z', '2016-12-31T23:59:60Z', '+275760-09-13T00:00:00Z', ago(-400)]),
  () => pick(['Europe/Zurich', 'Etc/GMT+14', '+25:00', 'europe/zurich', 'Factory', 'UTC']),
  () => pick(['NaN', 'Infinity', '1e999', '0x10', '1_000', '٣', '½']),
  () => [],
  () => ({}),
  () => [[[[]]]],
  () => ({ a: { b: { c: [] } } }),
  () => Array.from({ length: 300 }, (_, index) => index),
  () => uuid(),
  () => uuid().toUpperCase(),
  () => pick(pool.unit),
  () => pick(pool.fact),
  () =>
    Buffer.from(pick(['[1e999,"x"]', '[]', '[null,null]', '["x",-1]', '[1,2,3]', '{"a":1}'])).toString(
      'base64url',
    ),
];

/** Changes a thing somewhere: another value, one left out, one more, one twice. */
function spoil(thing) {
  const paths = [];
  const walk = (part, path) => {
    if (typeof part !== 'object' || part === null) return;
    for (const key of Object.keys(part)) {
      paths.push([part, key]);
      walk(part[key], [...path, key]);
    }
  };
  walk(thing, []);
  for (let times = 1 + Math.floor(random() * 2); times > 0 && paths.length > 0; times -= 1) {
    const [part, key] = pick(paths);
    const how = random();
    if (how < 0.75) part[key] = pick(hostile)();
    else if (how < 0.88) delete part[key];
    else part[pick(['more', 'constructor', 'by', 'note', 'corrects', ''])] = pick(hostile)();
  }
  return thing;
}

function fill(path) {
  return path.replace(/\{(\w+)\}/g, (_all, kind) =>
    random() < 0.8 ? (pick(pool[kind]) ?? uuid()) : encoded(pick(hostile)()).slice(0, 200),
  );
}

function question() {
  const path = pick(Object.keys(questions));
  const asked = Object.entries(questions[path]).filter(() => random() < 0.6);
  const query = asked.map(([name, value]) => [name, random() < 0.5 ? value : pick(hostile)()]);
  if (random() < 0.1) query.push([pick(['more', 'limit', 'cursor', 'constructor']), pick(hostile)()]);
  const text = query.map(([name, value]) => `${name}=${encoded(value)}`).join('&');
  return { method: 'GET', path: `${fill(path)}${text === '' ? '' : `?${text}`}`, of: `GET ${path}` };
}

function sending() {
  const path = pick(Object.keys(bodies));
  const body = random() < 0.15 ? bodies[path]() : spoil(bodies[path]());
  let text = JSON.stringify(random() < 0.02 ? pick(hostile)() : body) ?? 'null';
  if (random() < 0.03) text = text.replace(/[\d.]+/, '1e999');
  if (random() < 0.02) text = text.slice(0, -1 - Math.floor(random() * 9));
  if (random() < 0.02) text = text.replace('{', `{"${pick(['__proto__', 'constructor'])}":{"a":1},`);
  if (random() < 0.01) text = '['.repeat(2000) + ']'.repeat(2000);
  return { method: 'POST', path: fill(path), of: `POST ${path}`, text };
}

const broken = new Map();
const counts = {};
let slow = 0;
let done = 0;
async function send({ method, path, of, text }) {
  const began = performance.now();
  const person = random() < 0.1 ? { 'Entretien-Person': encoded(pick(hostile)()) } : {};
  const headers = { ...(method === 'POST' ? { 'Content-Type': 'application/json' } : {}), ...person };
  let status;
  try {
    const response = await fetch(`${host.url}/api${path}`, {
      method,
      headers,
      ...(text === undefined ? {} : { body: text }),
    });
    await response.arrayBuffer();
    status = response.status;
  } catch (error) {
    status = `no answer: ${error.cause?.code ?? error.message}`;
  }
  const ms = performance.now() - began;
  counts[status] = (counts[status] ?? 0) + 1;
  done += 1;
  const isBroken = typeof status === 'string' || status >= 500;
  if (ms > SLOW_MS) slow += 1;
  if ((isBroken || ms > SLOW_MS) && !broken.has(`${of} ${status}`)) {
    broken.set(
      `${of} ${status}`,
      `${of} → ${status}, ${ms.toFixed(0)} ms\n   ${path.slice(0, 300)}\n   ${(text ?? '').slice(0, 600)}`,
    );
  }
}

for (let sent = 0; sent < MOST;) {
  const some = Array.from({ length: Math.min(8, MOST - sent) }, () =>
    random() < 0.6 ? sending() : question(),
  );
  await Promise.all(some.map(send));
  sent += some.length;
}
// After all of it everybody is still shown what there is.
for (const path of [
  '/standings',
  '/visits',
  '/logbook',
  '/parts',
  '/vessels',
  '/sites',
  '/compressors',
  '/findings',
  ...pool.site.map((site) => `/sites/${site}/meters`),
]) {
  await send({ method: 'GET', path, of: `GET ${path} afterwards` });
}
await host.stop();
rmSync(folder, { recursive: true, force: true });
for (const words of broken.values()) console.log(words);
console.log(
  `${done} requests, seed ${values.seed}: ${JSON.stringify(counts)}; ${slow} slower than ${SLOW_MS / 1000} s; ${broken.size} kinds of fault.`,
);
process.exitCode = broken.size > 0 ? 1 : 0;
