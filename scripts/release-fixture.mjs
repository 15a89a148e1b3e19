import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';
import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import { honestCourse, restartSteps } from '../packages/core/dist/isolation/index.js';
import { makeBackup } from '../packages/server/dist/backup/backup.js';
import { createApp } from '../packages/server/dist/index.js';
import { releaseAnswers } from '../packages/server/dist/testing/release-answers.js';
import {
  CHROMIUM,
  CHROMIUM_FLAGS,
  ensureBuilt,
  ensurePrograms,
  ensureInstalled,
  giveUp,
  root,
} from './lib.mjs';

/* global navigator, indexedDB, btoa -- for what runs in the page */

/*
 * Keeps what this release leaves behind on a server and on a device: one fact of every kind, so that a later
 * release is tried on them. Run once when the version is raised: `npm run release-fixture`.
 */

const NOW = Date.UTC(2026, 10, 24, 9);
const DAY = 86_400_000;

ensureInstalled();
ensurePrograms();
await ensureBuilt();
const { version } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'));
const folder = join(root, 'releases', version);
if (existsSync(folder))
  giveUp(`releases/${version} is there already: what a release left behind never changes.`);

let now = NOW;
const work = mkdtempSync(join(tmpdir(), 'entretien-release-'));
const dataDir = join(work, 'data');
const settings = { host: '127.0.0.1', port: 0, dataDir, timeZone: 'Europe/Zurich' };
const app = await createApp({
  settings: { ...settings, webDir: join(root, 'packages/web/dist') },
  clock: () => now,
});
await app.listen(0, '127.0.0.1');
const url = `http://127.0.0.1:${app.getHttpServer().address().port}`;

async function call(method, path, body, headers = {}) {
  const isText = typeof body === 'string';
  const isBytes = Buffer.isBuffer(body);
  const response = await fetch(`${url}/api${path}`, {
    method,
    headers: {
      ...(body && !isBytes ? { 'Content-Type': isText ? 'text/csv' : 'application/json' } : {}),
      ...headers,
    },
    ...(body ? { body: isText || isBytes ? body : JSON.stringify(body) } : {}),
  });
  const text = await response.text();
  if (!response.ok) throw new Error(`${method} ${path} ${JSON.stringify(body)}: ${response.status} ${text}`);
  return text === '' ? null : JSON.parse(text);
}
const post = (path, body, headers) => call('POST', path, body, headers);
const get = (path) => call('GET', path);

let made = 0;
/** The same ids at every making. */
function id() {
  made += 1;
  const hex = createHash('sha256').update(`release ${made}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
const ago = (days) => new Date(NOW - days * DAY).toISOString();
const day = (days) => ago(days).slice(0, 10);

const mira = { id: id(), name: 'Mira Kolden', initials: 'MK' };
const jorun = { id: id(), name: 'Jorun Aske' };
for (const person of [mira, jorun]) await post('/people', person);
const by = { 'Entretien-Person': mira.id };

const site = id();
await post('/sites', { id: site, name: 'Coppel Joinery', timeZone: 'Europe/Zurich', altitudeM: 640 }, by);
await post(`/sites/${site}/changes`, { id: id(), contact: 'Office, upper floor' }, by);

const units = [
  { tag: 'RL-1', family: 'screw', drive: 'direct', motor: 'three-phase', fadLpm: 3200, cutOutBar: 8 },
  { tag: 'RL-2', family: 'high-pressure', stages: 3, workingPressureBar: 300, airUse: 'breathing' },
  { tag: 'RL-3', family: 'piston', hasHourMeter: false, declaredHoursPerWeek: 20, fadLpm: 400 },
  { tag: 'RL-4', family: 'piston-oil-free', receiverL: 24, fadLpm: 60, cutOutBar: 8 },
  {
    ...{ tag: 'RL-5', family: 'high-pressure', stages: 3, workingPressureBar: 300, airUse: 'technical' },
    ...{ fadLpm: 235, maker: 'Tarskeld', model: 'H3', network: 'Shots', turn: 'lead' },
  },
].map((plate) => ({ id: id(), siteId: site, commissionedOn: day(400), ...plate }));
for (const unit of units) await post('/compressors', unit, by);
const [screw, high, meterless, oilFree] = units.map((unit) => `/compressors/${unit.id}`);
await post(`${screw}/plate`, { id: id(), changedAt: ago(90), oilGrade: 'VG 46', serial: '1234' }, by);

const reading = (days, hours, more = {}) => ({
  id: id(),
  takenAt: ago(days),
  hours,
  counts: 'total',
  source: 'typed',
  ...more,
});
for (let week = 12; week >= 2; week--) {
  await post(`${screw}/readings`, reading(week * 7, 4000 + (12 - week) * 40), by);
  await post(`${screw}/readings`, reading(week * 7, 3000 + (12 - week) * 30, { counts: 'loaded' }), by);
}
await post(
  `${screw}/meter-changes`,
  { id: id(), changedAt: ago(12), oldFinalHours: 4410, newStartHours: 0, reason: 'replaced' },
  by,
);
const slip = reading(6, 130);
await post(`${screw}/readings`, slip, by);
await post(`${screw}/readings`, reading(6, 13, { corrects: slip.id, note: 'A digit misread.' }), by);
await post('/readings/batch', {
  readings: [
    { compressorId: units[1].id, ...reading(80, 100) },
    { compressorId: units[1].id, ...reading(3, 128.5) },
    { compressorId: units[3].id, ...reading(30, 700) },
  ],
});
const list = `Unit;Date;Hours\r\nRL-4;${day(20)};712\r\nRL-4;${day(9)};718,5\r\n`;
await call('POST', '/readings/import?mode=commit', list, by);
await post(`${meterless}/readings`, reading(10, 40, { source: 'estimated' }), by);
const wrong = reading(1, 720);
await post(`${oilFree}/readings`, wrong, by);
await post(`${oilFree}/readings/${wrong.id}/withdrawal`, { id: id(), reason: 'Read off another.' }, by);

const service = { id: id(), doneAt: ago(40), tasks: ['oil-filter', 'oil-change'], note: 'Clear, no metal.' };
await post(`${screw}/services`, service, by);
const undone = { id: id(), doneAt: ago(39), tasks: ['intake-replace'] };
await post(`${screw}/services`, undone, by);
await post(`${screw}/services/${undone.id}/withdrawal`, { id: id(), reason: 'Not on this one.' }, by);

const weight = { dryG: 1000, saturatedG: 1200 };
const checks = [
  [screw, 'discharge-temperature', { tempC: 84, ambientC: 21, mostRiseK: 75 }, { baseline: true }],
  [screw, 'discharge-temperature', { tempC: 92, ambientC: 22, mostRiseK: 75 }, {}],
  [high, 'cartridge-weight', { weightG: 1150, ...weight }, {}],
  [oilFree, 'pump-up', { fromBar: 0, toBar: 7, seconds: 190 }, {}],
];
for (const [index, [unit, check, values, more]] of checks.entries())
  await post(`${unit}/measurements`, { id: id(), check, takenAt: ago(30 - index), values, ...more }, by);
const misread = {
  id: id(),
  check: 'pump-up',
  takenAt: ago(2),
  values: { fromBar: 0, toBar: 7, seconds: 160 },
};
await post(`${oilFree}/measurements`, misread, by);
await post(`${oilFree}/measurements/${misread.id}/withdrawal`, { id: id(), reason: 'Seconds lost.' }, by);

const points = [
  { task: 'oil-change', hoursUsed: 30, countsFromOn: day(60) },
  { task: 'belt-check', hoursUsed: 520, countsFromOn: day(200) },
];
await post(`${meterless}/starting-points`, { id: id(), setAt: ago(50), basis: 'inspection', points }, by);
const deferral = { id: id(), task: 'belt-check', deferredAt: ago(8), reason: 'Ordered.', untilOn: day(-30) };
await post(`${meterless}/deferrals`, deferral, by);

const { latest, tasks } = await get(`${high}/plan`);
const plan = { id: id(), tasks, note: 'As the default.' };
await call('PUT', `${high}/plan`, plan, { ...by, 'If-Match': `"${latest}"` });

const vessel = id();
await post(
  '/vessels',
  {
    id: vessel,
    siteId: site,
    tag: 'R-RL',
    kind: 'receiver',
    compressorIds: [units[0].id],
    ratedBar: 11,
    volumeL: 500,
    inspectEveryMonths: 60,
    lastInspectionOn: day(1500),
  },
  by,
);
await post(`/vessels/${vessel}/changes`, { id: id(), maker: 'Skolmund' }, by);
await post(
  `/vessels/${vessel}/examinations`,
  { id: id(), kind: 'inspection', doneOn: day(100), passed: true },
  by,
);

// Filling, second looks, what stood, what is known of a model, points of use, papers.
const technical = `/compressors/${units[4].id}`;
for (const days of [200, 20])
  await post(
    `${technical}/readings`,
    { id: id(), takenAt: ago(days), hours: 120, counts: 'total', source: 'typed' },
    by,
  );
const { steps: toSeeTo } = await get(`${technical}/bring-back`);
const seenTo = toSeeTo.map(({ code }) => code);
await post(`${technical}/brought-back`, { id: id(), doneAt: ago(15), steps: seenTo }, by);
await post(
  `${technical}/model-notes`,
  { id: id(), about: 'trick', text: 'Its drain sits behind the fan.' },
  by,
);
const cylinder = id();
await post(
  '/vessels',
  {
    ...{ id: cylinder, siteId: site, tag: 'C-RL', kind: 'cylinder', compressorIds: [units[4].id] },
    ...{ ratedBar: 300, volumeL: 6.8, connectorBar: 300, testEveryMonths: 60, lastTestOn: day(300) },
  },
  by,
);
await post(
  `${technical}/fills`,
  {
    ...{
      id: id(),
      vesselId: cylinder,
      startedAt: ago(10),
      endedAt: ago(10 - 10 / 1440),
      fromBar: 96,
      toBar: 300,
    },
    ...{
      connectorBar: 300,
      looked: ['valve', 'connector', 'secured', 'built-up'],
      outcome: 'full',
      coPpm: 1,
    },
  },
  by,
);
await post(`${screw}/services`, { id: id(), doneAt: ago(8), tasks: ['oil-change'] }, by);
await post(`${screw}/follow-ups`, { id: id(), lookedAt: ago(4), of: 'joint', found: 'sound' }, by);
const point = id();
const pointPlate = {
  ...{ id: point, siteId: site, tag: 'P-RL', compressorIds: [units[0].id], vesselIds: [vessel] },
  ...{ fittedOn: day(300), whenAirGoes: 'The clamp lets go', isBreathed: false, filterMicron: 5 },
};
await post('/points', pointPlate, by);
await post(`/points/${point}/changes`, { id: id(), regulatorBar: 6 }, by);
const looked = { check: 'bowl', values: { bowl: 'sound' }, at: ago(9) };
const atPoint = { doneAt: ago(9), tasks: [{ code: 'point-drain', at: ago(9) }], looks: [looked], steps: [] };
await post(`/points/${point}/work`, { id: id(), ...atPoint }, by);
const slipped = id();
await post(`/points/${point}/work`, { id: slipped, ...atPoint }, by);
await post(`/points/${point}/withdrawals`, { id: id(), workId: slipped, reason: 'Put down twice.' }, by);
const leaf = await PDFDocument.create({ updateMetadata: false });
leaf.addPage([200, 200]);
await call('POST', `${screw}/papers?id=${id()}&kind=manual&title=Handbook`, Buffer.from(await leaf.save()), {
  ...by,
  'Content-Type': 'application/pdf',
});

const filter = id();
await post(
  '/parts',
  {
    id: filter,
    number: 'RL-F1',
    name: 'Oil filter 92',
    class: 'element',
    answers: 'oil filter',
    fits: [units[0].id],
    figures: { micron: 10 },
    priceCents: 2150,
    inVan: 2,
  },
  by,
);
await post(`/parts/${filter}/moves`, { id: id(), movedAt: ago(5), count: 3 }, by);

const repair = id();
const found = { id: repair, kind: 'fault', foundAt: ago(7), found: 'Slow to fill', station: 'stage-1' };
await post(`${oilFree}/repairs`, found, by);
const entry = (kind, text, more = {}) =>
  post(`/repairs/${repair}/entries`, { id: id(), kind, at: ago(6 - made / 1000), text, ...more }, by);
await entry('cause', 'Ring worn');
await entry('work', 'Ring and sleeve renewed', { minutes: 95 });
await entry('part', 'Ring kit', { count: 1 });
await entry('note', 'The old ring is in the van.');
const change = { id: id(), kind: 'improvement', foundAt: ago(7), found: 'Drain brought to the front' };
await post(`${high}/repairs`, change, by);

const told = (at, kind, details) =>
  post(`/repairs/${repair}/steps`, { id: id(), kind, doneAt: ago(at), session: 'one', details }, by);
await told(5, 'isolate', { step: 'lock-out', confirmed: true, answer: 'holds' });
await told(4.99, 'restart', { steps: restartSteps({ family: 'piston-oil-free' }).map(({ code }) => code) });
const out = id();
await post(
  `${high}/out-of-service`,
  { id: out, since: ago(4), scope: 'side', place: '300 bar', ground: 'other', why: 'Hose past its date' },
  by,
);
const back = { id: id(), at: ago(3), ends: out, decidedBy: 'Jorun Aske', reason: 'New hose fitted' };
await post(`${high}/return-to-service`, back, by);
await call('PUT', '/settings', {
  isolationMinutes: 15,
  isolationMinutesHighPressure: 8,
  workshopName: 'Haldris Air',
  units: { pressure: 'psi' },
  holidays: ['2026-12-24/2027-01-03'],
});
const customer = id();
await post('/customers', { id: customer, name: 'Coppel Joinery Ltd' }, by);
await post(`/sites/${site}/customer`, { id: id(), customerId: customer }, by);

async function planVisit(unit, tasks) {
  const visit = id();
  const planned = { id: visit, siteId: site, plannedOn: day(0), units: [{ compressorId: unit, tasks }] };
  await post('/visits', planned, by);
  let at = NOW - 2 * DAY;
  const step = async (kind, details, seconds = 60) => {
    at += seconds * 1000;
    now = at;
    const doneAt = new Date(at).toISOString();
    const body = { id: id(), compressorId: unit, kind, doneAt, session: 'one', details };
    await post(`/visits/${visit}/steps`, body, by);
    now = NOW;
  };
  return { visit, step };
}
const plates = Object.fromEntries(
  await Promise.all(units.map(async (unit) => [unit.id, await get(`/compressors/${unit.id}`)])),
);
async function isolate(unit, step) {
  let before = 0;
  for (const { seconds, body } of honestCourse(plates[unit], null)) {
    const { kind, ...details } = body;
    await step(kind, details, seconds - before);
    before = seconds;
  }
}

// A visit with a step of every kind, signed for.
const picture = await sharp({ create: { width: 64, height: 48, channels: 3, background: '#886' } })
  .jpeg()
  .toBuffer();
const done = await planVisit(units[0].id, ['bearing-check', 'scavenge-clean', 'fasteners-check']);
const photo = id();
await done.step('hours', { hours: 35 });
await done.step('skip', { check: 'separator-drop', reason: 'No gauge on it.' });
await done.step('plan', { tasks: ['oil-level'] });
await done.step('task', { task: 'bearing-check', outcome: 'done' });
await isolate(units[0].id, done.step);
await done.step('task', { task: 'fasteners-check', outcome: 'not-done', reason: 'No key.' });
await done.step('station', { station: 'separator', tasks: ['scavenge-clean'] });
await done.step('task', { task: 'oil-level', outcome: 'done' });
await done.step('note', { text: 'Bring a drain float next time.' });
await done.step('fault', { found: 'Drain sticks half open', station: 'water-separator' });
await done.step('part', { part: filter, name: 'Oil filter 92', count: 1 });
await call('POST', `/visits/${done.visit}/photos?id=${photo}`, picture, {
  ...by,
  'Content-Type': 'image/jpeg',
});
await done.step('photo', { photo, caption: 'The drain' });
await done.step('restart', { steps: restartSteps(plates[units[0].id]).map(({ code }) => code) });
await done.step('tight', { tight: true });
await done.step('measure', { phase: 'work', check: 'vibration-sound', values: { compared: 'same' } });
await done.step('close', { task: 'scavenge-clean', reason: 'Measured next time.' });
await done.step('sign', { name: 'Mira Kolden', strokes: '20,70 40,30 60,72' });
// One that was left, and one that somebody is in the middle of.
const left = await planVisit(units[1].id, ['cartridge-replace']);
await left.step('leave', { reason: 'The bank is in use.' });
const open = await planVisit(units[3].id, ['ring-kit', 'intake-replace']);
await open.step('hours', { hours: 719.5 });

const answers = await releaseAnswers(get);

/** What waits on a device without a connection: readings, a meter change, steps of a visit, a photo. */
async function outbox() {
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Zurich',
    locale: 'en-GB',
    serviceWorkers: 'allow',
  });
  const page = await context.newPage();
  await page.clock.install({ time: NOW });
  await page.addInitScript(() => globalThis.localStorage.setItem('entretien-notice', 'read'));
  await page.goto(`${url}/sites/${site}/walk`);
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.reload();
  await page.getByLabel('Figure on RL-2').waitFor();
  await page.goto(`${url}/visits/${open.visit}?at=prepare`);
  await page.getByRole('heading', { level: 1, name: 'RL-4' }).waitFor();
  await page.goto(`${url}/sites/${site}/walk`);
  await page.getByLabel('Figure on RL-2').waitFor();
  await context.setOffline(true);
  await page.getByLabel('Figure on RL-2').fill('129');
  await page.keyboard.press('Enter');
  await page.getByText('kept here, not sent yet').first().waitFor();
  await page.getByLabel('Figure on RL-1').fill('12');
  await page.getByRole('button', { name: 'A new meter was fitted' }).click();
  await page.getByLabel('Last figure of the old meter').fill('45');
  const row = page.getByRole('listitem', { name: 'RL-1', exact: true });
  await row.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('button', { name: 'Outbox: 3 waiting' }).waitFor();
  await page.goto(`${url}/visits/${open.visit}?at=work`);
  await page.getByLabel('Note', { exact: true }).first().fill('Hose clip loose');
  await page.getByRole('region', { name: 'Notes' }).getByRole('button', { name: 'Save' }).click();
  await page.getByText('Hose clip loose').first().waitFor();
  await page
    .getByLabel('Photo', { exact: true })
    .first()
    .setInputFiles({ name: 'photo.jpg', mimeType: 'image/jpeg', buffer: picture });
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
  await page.getByRole('button', { name: 'Photo (1)' }).waitFor();
  const items = await page.evaluate(async () => {
    const opened = await new Promise((done, fail) => {
      const asked = indexedDB.open('entretien');
      asked.onsuccess = () => done(asked.result);
      asked.onerror = () => fail(asked.error);
    });
    const all = await new Promise((done) => {
      const asked = opened.transaction('items').objectStore('items').getAll();
      asked.onsuccess = () => done(asked.result);
    });
    const told = [];
    for (const item of all) {
      if (item.photo === undefined) told.push(item);
      else {
        const bytes = new Uint8Array(await item.photo.arrayBuffer());
        const base64 = btoa(String.fromCharCode(...bytes));
        told.push({ ...item, photo: { type: item.photo.type, base64 } });
      }
    }
    return { version: opened.version, items: told };
  });
  await browser.close();
  return items;
}

const waiting = await outbox();
await app.close();
mkdirSync(folder, { recursive: true });
await makeBackup(dataDir, join(folder, 'backup.tar.gz'), new Date(NOW));
copyFileSync(join(dataDir, 'entretien.sqlite'), join(work, 'entretien.sqlite'));
writeFileSync(
  join(folder, 'entretien.sqlite.gz'),
  gzipSync(readFileSync(join(work, 'entretien.sqlite')), { level: 9 }),
);
writeFileSync(join(folder, 'answers.json'), `${JSON.stringify(answers, null, 2)}\n`);
writeFileSync(join(folder, 'outbox.json'), `${JSON.stringify(waiting, null, 2)}\n`);
rmSync(work, { recursive: true, force: true });
console.log(
  `releases/${version}: what it leaves behind, ${waiting.items.length} items of an outbox among it.`,
);
