import { randomUUID } from 'node:crypto';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { launchBrowser } from './browser.js';
import { median, report } from './measure.js';
import { BenchServer } from './servers.js';
import { fillCompressors } from './unit-page.bench.js';

const ROUNDS = 3;
/** A phone of some years ago on a poor line: four times slower, 1.6 Mbit/s, 150 ms away. */
const SLOWER = 4;
const LINE = { offline: false, latency: 150, downloadThroughput: 200_000, uploadThroughput: 94_000 };

interface View {
  readonly name: string;
  readonly path: string;
  readonly mostMs: number;
  readonly mostKb: number;
}

interface Loaded {
  readonly ms: number;
  readonly kb: number;
  readonly shift: number;
}

/** Each view as it is first opened on a phone, and a second time: until its content stands there. */
export async function firstLoadBench(dataDir: string, now: number): Promise<void> {
  const { long, siteId } = await fillCompressors(dataDir, now);
  const server = await BenchServer.start('app', dataDir, now);
  const browser = await launchBrowser();
  try {
    const visit = await planVisit(server.address, siteId, long, now);
    const quick = { mostMs: 3000, mostKb: 350 };
    const rich = { mostMs: 4000, mostKb: 480 };
    const views: readonly View[] = [
      { name: 'walk', path: `/sites/${siteId}/walk`, ...quick },
      { name: 'Today', path: '/', ...quick },
      { name: 'visit', path: `/visits/${visit}`, ...quick },
      { name: 'unit', path: `/units/${long}`, mostMs: 3000, mostKb: 480 },
      { name: 'Units', path: '/units', ...rich },
      { name: 'plan', path: `/units/${long}/plan`, ...rich },
      { name: 'bench', path: '/bench', ...rich },
      { name: 'Parts', path: '/parts', ...rich },
      { name: 'Logbook', path: '/logbook', ...rich },
      { name: 'Visits', path: '/visits', ...rich },
    ];
    const empty = median(await rounds(() => bare(browser, `${server.address}/mark.svg`)));
    for (const view of views) await measure(browser, server.address, view, empty);
  } finally {
    await browser.close();
    await server.stop();
  }
}

async function measure(browser: Browser, address: string, view: View, empty: number): Promise<void> {
  const cold: Loaded[] = [];
  const warm: Loaded[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const context = await phone(browser);
    cold.push(await load(context, address + view.path));
    warm.push(await load(context, address + view.path));
    await context.close();
  }
  const [first, second] = [cold, warm].map((times) => median(times.map(({ ms }) => ms))) as [number, number];
  const kb = median(cold.map((one) => one.kb));
  const shift = Math.max(...cold.map((one) => one.shift));
  report(
    `First load of ${view.name} on a slow phone over an empty page of the same server`,
    first / empty,
    first <= view.mostMs && second <= 1000 && kb <= view.mostKb && shift <= 0.05,
    `≤ ${view.mostMs} ms, again ≤ 1000 ms, ≤ ${view.mostKb} kB, shift ≤ 0.05`,
    `${first.toFixed(0)} ms, again ${second.toFixed(0)} ms, ${kb.toFixed(0)} kB with fonts, shift ${shift.toFixed(3)}; the empty page ${empty.toFixed(0)} ms (medians of ${ROUNDS}).`,
  );
}

async function planVisit(address: string, siteId: string, unit: string, now: number): Promise<string> {
  const id = randomUUID();
  const tasks = ['oil-filter', 'intake-replace', 'belt-check'];
  const plannedOn = new Date(now).toISOString().slice(0, 10);
  const answer = await fetch(`${address}/api/visits`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ id, siteId, plannedOn, units: [{ compressorId: unit, tasks }] }),
  });
  if (answer.status !== 201) throw new Error(await answer.text());
  return id;
}

/** Its cache is empty; the notice of the first start was read before, as on every day but the first. */
async function phone(browser: Browser): Promise<BrowserContext> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    isMobile: true,
    hasTouch: true,
  });
  await context.addInitScript(
    "if (location.protocol.startsWith('http')) localStorage.setItem('entretien-notice', 'read')",
  );
  return context;
}

async function slowed(context: BrowserContext) {
  const page = await context.newPage();
  const devtools = await context.newCDPSession(page);
  await devtools.send('Network.enable');
  await devtools.send('Network.emulateNetworkConditions', LINE);
  await devtools.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
  return { page, devtools };
}

async function rounds(one: () => Promise<number>): Promise<number[]> {
  const times: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) times.push(await one());
  return times;
}

/** A picture of a few hundred bytes, opened as a page. */
async function bare(browser: Browser, url: string): Promise<number> {
  const context = await phone(browser);
  const { page } = await slowed(context);
  const start = performance.now();
  await page.goto(url, { waitUntil: 'load' });
  const ms = performance.now() - start;
  await context.close();
  return ms;
}

/** Its heading stands, and nothing stands in for what is still to come. */
const CONTENT = `document.querySelector('main h1') !== null && document.querySelector('main .MuiSkeleton-root') === null`;
const WATCH_SHIFTS = `window.shifted = 0; new PerformanceObserver((list) => {
  for (const one of list.getEntries()) if (!one.hadRecentInput) window.shifted += one.value;
}).observe({ type: 'layout-shift', buffered: true });`;

async function load(context: BrowserContext, url: string): Promise<Loaded> {
  const { page, devtools } = await slowed(context);
  let bytes = 0;
  devtools.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength));
  await page.addInitScript(WATCH_SHIFTS);
  await page.goto(url, { waitUntil: 'commit' });
  const ms: number = await page.evaluate(`new Promise((done, fail) => {
    setTimeout(() => fail(new Error('The page did not come.')), 40_000);
    const look = () => (${CONTENT} ? requestAnimationFrame(() => done(performance.now())) : requestAnimationFrame(look));
    look();
  })`);
  const kb = bytes / 1000;
  await settled(page);
  const shift: number = await page.evaluate('window.shifted');
  await page.close();
  return { ms, kb, shift };
}

/** Until what comes after the content has come too, the service worker’s keeping with it. */
async function settled(page: Page): Promise<void> {
  await page.waitForTimeout(1500);
  await page.evaluate(`navigator.serviceWorker && Promise.race([
    navigator.serviceWorker.ready, new Promise((done) => setTimeout(done, 15_000))])`);
  await page.waitForTimeout(500);
}
