import { randomUUID } from 'node:crypto';
import {
  expect,
  test as base,
  type APIRequestContext,
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  type Page,
  type Locator,
} from '@playwright/test';
import { honestCourse } from '@entretien/core/isolation';
import { now } from '../clock.js';
import { template } from '../template.js';
import { TestHost } from '../test-host.js';

const DAY_MS = 86_400_000;

/** A moment so many days ago, as the wire writes it. */
export function daysAgo(days: number): string {
  return new Date(now() - days * DAY_MS).toISOString();
}

/** A local date so many days ago. */
export function dateAgo(days: number): string {
  return daysAgo(days).slice(0, 10);
}

/** A moment as a field of date and time takes it, in the zone of the tests. */
export function localText(days: number, hour = '08:30'): string {
  return `${dateAgo(days)}T${hour}`;
}

/** Writes facts past the page, to begin a test from. */
export class ApiSeeder {
  constructor(private readonly request: APIRequestContext) {}

  private async post(path: string, body: object): Promise<void> {
    const response = await this.request.post(`/api${path}`, { data: body });
    expect(response.status(), await response.text()).toBe(201);
  }

  async addSite(name: string): Promise<string> {
    const id = randomUUID();
    await this.post('/sites', { id, name, timeZone: 'Europe/Zurich' });
    return id;
  }

  async addCompressor(tag: string, more: object = {}): Promise<string> {
    const id = randomUUID();
    const siteId = await this.addSite(`Site of ${tag}`);
    await this.post('/compressors', {
      id,
      siteId,
      tag,
      family: 'piston',
      commissionedOn: dateAgo(80),
      ...more,
    });
    return id;
  }

  /** A screw with its 2,000 h service before it, and its relief valve tested half way. */
  async addScrew(tag: string): Promise<string> {
    const unit = await this.addCompressor(tag, {
      family: 'screw',
      motor: 'three-phase',
      drive: 'direct',
      separatorElement: 'vessel',
      commissionedOn: daysAgo(300).slice(0, 10),
    });
    await this.readHours(unit, 200, 0);
    await this.readHours(unit, 2, 1990);
    await this.testRelief(unit, 100);
    return unit;
  }

  /**
   * A unit isolated for what is to be opened, a minute ago, on another page: told of a visit or of a repair.
   *
   * @returns how many touches that took
   */
  async isolate(
    of: 'visits' | 'repairs',
    id: string,
    unit: string,
    opens: readonly string[] | null = null,
    by?: string,
  ): Promise<number> {
    const plate = (await (await this.request.get(`/api/compressors/${unit}`)).json()) as Parameters<
      typeof honestCourse
    >[0];
    const course = honestCourse(plate, opens);
    const start = now() - 60_000 - course.at(-1)!.seconds * 1000;
    for (const { seconds, body } of course) {
      const { kind, ...details } = body;
      await this.post(`/${of}/${id}/steps`, {
        id: randomUUID(),
        ...(of === 'visits' ? { compressorId: unit } : {}),
        kind,
        doneAt: new Date(start + seconds * 1000).toISOString(),
        session: 'beside',
        details,
        ...(by === undefined ? {} : { by }),
      });
    }
    return course.length;
  }

  /** A site with units that have been read every week, five hours a day. */
  async addWalk(name: string, tags: readonly string[]): Promise<{ siteId: string; units: string[] }> {
    const siteId = await this.addSite(name);
    const units: string[] = [];
    for (const tag of tags) {
      const id = randomUUID();
      await this.post('/compressors', { id, siteId, tag, family: 'screw', commissionedOn: dateAgo(80) });
      for (let days = 49; days >= 7; days -= 7) await this.readHours(id, days, 1000 + (49 - days) * 5);
      units.push(id);
    }
    return { siteId, units };
  }

  /** The figures on record for a unit, the latest first. */
  async figures(unit: string): Promise<number[]> {
    const response = await this.request.get(`/api/compressors/${unit}/readings?limit=200`);
    const { items } = (await response.json()) as { items: { hours: number; voided?: object }[] };
    return items.filter(({ voided }) => voided === undefined).map(({ hours }) => hours);
  }

  /** The relief valve lifted, and the test on record. */
  async testRelief(unit: string, days: number): Promise<void> {
    const values = { opens: 'yes', reseats: 'tight', by: 'lift' };
    const result = { id: randomUUID(), check: 'relief-valve', takenAt: daysAgo(days), values };
    await this.post(`/compressors/${unit}/measurements`, result);
    await this.post(`/compressors/${unit}/services`, {
      id: randomUUID(),
      doneAt: daysAgo(days),
      tasks: ['relief-test'],
    });
  }

  readHours(unit: string, days: number, hours: number): Promise<void> {
    const reading = { id: randomUUID(), takenAt: daysAgo(days), hours, counts: 'total', source: 'typed' };
    return this.post(`/compressors/${unit}/readings`, reading);
  }
}

interface Fixtures {
  /** Console errors that a test means to cause. */
  readonly expectedErrors: { readonly matching: readonly RegExp[] };
  /**
   * Whether a test has a browser context to itself: what sets the clock, cuts the connection or lets the service
   * worker in would be felt by the tests after it.
   */
  readonly ownContext: boolean;
  /** Folder of the data that the test starts from. */
  readonly dataFrom: string;
  /** The application of this test alone, on a fresh copy of the data. */
  readonly app: TestHost;
  readonly office: ApiSeeder;
}

interface WorkerFixtures {
  readonly host: TestHost;
  /** One context for all tests of a worker: it keeps the files of the page, and nothing else. */
  readonly keptContext: BrowserContext;
}

/** On all days but the first, whoever opens a page has read what comes before it. */
export async function hasReadNotice(context: BrowserContext): Promise<void> {
  await context.addInitScript(() => {
    if (location.protocol.startsWith('http')) localStorage.setItem('entretien-notice', 'read');
  });
}

/** A context whose pages live at this worker's present, with a clock that runs on. */
async function openContext(browser: Browser, options: BrowserContextOptions): Promise<BrowserContext> {
  const context = await browser.newContext(options);
  await context.clock.install({ time: now() });
  await hasReadNotice(context);
  return context;
}

/** What a project of the configuration says of its contexts. */
function contextOptions(use: object): BrowserContextOptions {
  const { viewport, hasTouch, isMobile, locale, timezoneId, colorScheme, serviceWorkers, ...more } =
    use as BrowserContextOptions & { contextOptions?: BrowserContextOptions };
  const answers = { viewport, hasTouch, isMobile, locale, timezoneId, colorScheme, serviceWorkers };
  const given = Object.entries(answers).filter(([, value]) => value !== undefined);
  return { ...Object.fromEntries(given), ...more.contextOptions };
}

/** Takes everything from a page's origin that the test before may have left there, but for its files. */
async function forget(page: Page, origin: string): Promise<void> {
  const session = await page.context().newCDPSession(page);
  await session.send('Storage.clearDataForOrigin', {
    origin,
    storageTypes: 'cookies,local_storage,indexeddb,cache_storage,service_workers',
  });
  await session.detach();
}

/** Every test fails on an error in the console that it did not mean to cause. */
export const test = base.extend<Fixtures, WorkerFixtures>({
  expectedErrors: [{ matching: [] }, { option: true }],
  ownContext: [false, { option: true }],
  dataFrom: [template, { option: true }],
  host: [
    // eslint-disable-next-line no-empty-pattern -- a fixture that needs no other
    async ({}, use) => {
      const host = await TestHost.start();
      await use(host);
      await host.stop();
    },
    { scope: 'worker' },
  ],
  keptContext: [
    async ({ browser, host }, use, { project }) => {
      const context = await openContext(browser, { ...contextOptions(project.use), baseURL: host.url });
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  app: async ({ host, dataFrom }, use) => {
    await host.open(dataFrom);
    await use(host);
    await host.close();
  },
  baseURL: async ({ app }, use) => use(app.url),
  context: async ({ browser, keptContext, ownContext, serviceWorkers, baseURL }, use, { project }) => {
    if (!ownContext) {
      await use(keptContext);
      for (const page of keptContext.pages()) await page.close();
      return;
    }
    const options = { ...contextOptions(project.use), serviceWorkers, baseURL: baseURL! };
    const context = await openContext(browser, options);
    await use(context);
    await context.close();
  },
  office: async ({ request }, use) => use(new ApiSeeder(request)),
  page: async ({ context, app, ownContext, expectedErrors }, use) => {
    const page = await context.newPage();
    if (!ownContext) await forget(page, app.url);
    const errors: string[] = [];
    page.on('console', (message) => {
      if (message.type() === 'error') errors.push(message.text());
    });
    page.on('pageerror', (error) => errors.push(error.message));
    await use(page);
    expect(
      errors.filter((error) => !expectedErrors.matching.some((expected) => expected.test(error))),
    ).toEqual([]);
  },
});

export { expect };

export function isPhone(page: Page): boolean {
  return (page.viewportSize()?.width ?? 0) < 600;
}

/** Until nothing is loading, nothing moves and the faces are there: what a person would see after a moment. */
export async function settle(page: Page): Promise<void> {
  await expect(page.getByRole('status', { name: 'Loading' })).toHaveCount(0);
  await page.evaluate(() => document.fonts.ready);
  // A change of colours begins with the next frame, and ends when nothing runs any more.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  await page.waitForFunction(() =>
    document.getAnimations().every(({ playState }) => playState !== 'running'),
  );
}

/** What the server lists under an address. */
export async function itemsOf<Item>(page: Page, path: string): Promise<Item[]> {
  return ((await (await page.request.get(`/api${path}`)).json()) as { items: Item[] }).items;
}

/** Opens a unit's page and waits for it. */
export async function openCompressor(page: Page, id: string, tag: string): Promise<void> {
  await page.goto(`/units/${id}`);
  await expect(page.getByRole('heading', { name: new RegExp(`^${tag}`) })).toBeVisible();
}

/** The logbook of the unit that is open. */
/** Opens the form of a check from the unit's page: what first, then the figures. */
export async function beginCheck(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Measure', exact: true }).first().click();
  await page.getByLabel('Find a check or a station').fill(name);
  await page.getByRole('dialog').getByRole('button', { name, exact: true }).click();
}

export async function openLogbook(page: Page) {
  await page.getByRole('tab', { name: 'Logbook' }).click();
  return page.getByRole('list', { name: 'Logbook' });
}

/** The row of a task in what is due. */
export function taskRow(page: Page, name: string) {
  return page.getByRole('list', { name: 'What is due' }).getByRole('button', { name: new RegExp(name) });
}

/** Holds a target for a second, as a glove does; brought into sight first. */
export async function hold(within: Page | Locator, name: string | RegExp): Promise<void> {
  const button = within.getByRole('button', { name }).first();
  await button.evaluate((one) => one.scrollIntoView({ block: 'center' }));
  await button.click({ delay: 1150 });
}
