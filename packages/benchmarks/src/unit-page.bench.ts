import { randomUUID } from 'node:crypto';
import type { Browser, Page } from 'playwright-core';
import { launchBrowser } from './browser.js';
import {
  createApp,
  CompressorsService,
  MeasurementsService,
  ReadingsService,
  ServicesService,
  SitesService,
  Database,
} from '@entretien/server';
import { byTurns, median, report } from './measure.js';
import { DAY } from './seed.js';
import { BenchServer } from './servers.js';

const YEARS = 10;
const RECORDS = 600;
const ROUNDS = 9;
const BY = '00000000-0000-4000-8000-000000000001';

/** A unit with ten years behind it against one with ten records: until its page answers to a hand. */
export async function compressorPageBench(dataDir: string, now: number): Promise<void> {
  const { long, short } = await fillCompressors(dataDir, now);
  const server = await BenchServer.start('app', dataDir, now);
  const browser = await launchBrowser();
  try {
    const visit = (unit: string) => interactive(browser, `${server.address}/units/${unit}`);
    await visit(long);
    await visit(short);
    const { first, second, ratio } = await byTurns(
      ROUNDS,
      () => visit(long),
      () => visit(short),
    );
    const touched = await interactions(browser, `${server.address}/units/${long}`);
    report(
      `Unit page with ${YEARS} years of weekly readings and ${RECORDS} records over one with 10 records: time to interactive`,
      ratio,
      ratio <= 1.5,
      '≤ 1.5',
      `${first.toFixed(0)} ms over ${second.toFixed(0)} ms (medians of ${ROUNDS} by turns, each in a browser context of its own).\n` +
        `  From a touch to the frame that shows it, median of 9, to be under 100 ms: ${touched.map(([name, ms]) => `${name} ${ms.toFixed(0)}`).join(', ')} ms.`,
    );
  } finally {
    await browser.close();
    await server.stop();
  }
}

/** A site with a unit of ten years on record, and one of a few weeks. */
export async function fillCompressors(
  dataDir: string,
  now: number,
): Promise<{ long: string; short: string; siteId: string }> {
  let clock = now;
  const settings = { host: '127.0.0.1', port: 0, dataDir, timeZone: 'Europe/Zurich' };
  const app = await createApp({ settings, clock: () => clock });
  const [long, short, siteId] = [randomUUID(), randomUUID(), randomUUID()];
  app.get(Database).transact(() => {
    app.get(SitesService).add({ id: siteId, name: 'Odrin Glassworks' }, BY);
    const add = (id: string, tag: string, days: number) => {
      clock = now - days * DAY;
      const commissionedOn = new Date(clock).toISOString().slice(0, 10);
      app.get(CompressorsService).add(
        {
          id,
          siteId,
          tag,
          family: 'screw',
          commissionedOn,
          hasDryer: true,
          drive: 'belt',
          motor: 'three-phase',
        },
        BY,
      );
    };
    const at = (days: number) => new Date((clock = now - days * DAY)).toISOString();
    const live = (id: string, weeks: number, records: number) => {
      const every = Math.max(1, (weeks * 7 - 8) / records);
      const marks = Array.from({ length: records }, (_, index) => weeks * 7 - 4 - index * every);
      const happenings = [
        ...Array.from({ length: weeks }, (_, week) => ({
          days: (weeks - week) * 7,
          kind: 'reading' as const,
          week,
        })),
        ...marks.map((days, index) => ({
          days,
          kind: index % 2 === 0 ? ('service' as const) : ('measurement' as const),
          week: index,
        })),
      ].sort((a, b) => b.days - a.days);
      for (const { days, kind, week } of happenings) {
        if (kind === 'reading') {
          app.get(ReadingsService).record(
            id,
            {
              id: randomUUID(),
              takenAt: at(days),
              hours: week * 60 + (week % 5),
              counts: 'total',
              source: 'typed',
            },
            BY,
          );
        } else if (kind === 'service') {
          app
            .get(ServicesService)
            .record(
              id,
              { id: randomUUID(), doneAt: at(days), tasks: ['fasteners-check', 'cooling-clean'] },
              BY,
            );
        } else {
          app.get(MeasurementsService).record(
            id,
            {
              id: randomUUID(),
              takenAt: at(days),
              check: 'separator-drop',
              values: { dropBar: 0.2 + (week % 40) / 100 },
            },
            BY,
          );
        }
      }
    };
    add(long, 'OG-10', YEARS * 52 * 7 + 1);
    live(long, YEARS * 52, RECORDS);
    add(short, 'OG-2', 8 * 7 + 1);
    live(short, 5, 5);
  });
  await app.close();
  return { long, short, siteId };
}

/** Whether the machine is drawn and what is due stands under it. */
const READY = `document.querySelectorAll('svg[role=group] g[role=button]').length > 10 && document.querySelector('[aria-label="What is due"] button') !== null`;

/** From the beginning of the navigation until the machine is drawn and the page has nothing left to do. */
async function interactive(browser: Browser, url: string): Promise<number> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(url, { waitUntil: 'commit' });
  const ms: number = await page.evaluate(`new Promise((done, fail) => {
    setTimeout(() => fail(new Error('The page did not come.')), 20_000);
    const look = () => (${READY} ? setTimeout(() => setTimeout(() => done(performance.now()))) : requestAnimationFrame(look));
    look();
  })`);
  await context.close();
  return ms;
}

/** Milliseconds from a touch to the frame after it, for what is done most. */
async function interactions(browser: Browser, url: string): Promise<[string, number][]> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(url);
  await page.evaluate(`new Promise((done, fail) => {
    setTimeout(() => fail(new Error('The page did not come.')), 20_000);
    const look = () => (${READY} ? done() : requestAnimationFrame(look));
    look();
  })`);
  const stations = `[...document.querySelectorAll('svg[role=group] g[role=button]')]`;
  const station = await touch(page, (round) => `${stations}[${(round * 3) % 11}]`);
  // A station with work to ask about.
  await page.evaluate(
    `document.querySelector('svg g[aria-label^="Airend"]').dispatchEvent(new MouseEvent('click', { bubbles: true }))`,
  );
  await page.waitForTimeout(300);
  const results: [string, number][] = [
    ['choose a station', station],
    [
      'open the logbook',
      await touch(
        page,
        () => `document.querySelector('#tab-logbook')`,
        `document.querySelector('#tab-due').click()`,
      ),
    ],
    [
      'open the checks',
      await touch(
        page,
        () => `document.querySelector('#tab-checks')`,
        `document.querySelector('#tab-due').click()`,
      ),
    ],
    [
      'turn the ruler',
      await touch(
        page,
        (round) =>
          `[...document.querySelectorAll('button')].find((one) => one.textContent === '${round % 2 === 0 ? 'hours' : 'days'}')`,
      ),
    ],
    [
      'ask why',
      await touch(
        page,
        () => `document.querySelector('[aria-label^="Why:"]')`,
        `[...document.querySelectorAll('[role=dialog] button')].find((one) => one.textContent === 'Close').click()`,
      ),
    ],
  ];
  await context.close();
  return results;
}

async function touch(page: Page, target: (round: number) => string, undo?: string): Promise<number> {
  const times: number[] = [];
  for (let round = 0; round < 9; round++) {
    const ms: number = await page.evaluate(`new Promise((done) => {
      const target = ${target(round)};
      const start = performance.now();
      target.dispatchEvent(new MouseEvent('click', { bubbles: true }));
      requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - start)));
    })`);
    times.push(ms);
    await page.waitForTimeout(250);
    if (undo) {
      await page.evaluate(undo);
      await page.waitForTimeout(350);
    }
  }
  return median(times);
}
