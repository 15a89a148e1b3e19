import { randomUUID } from 'node:crypto';
import type { Locator, Page } from '@playwright/test';
import jsqr from 'jsqr';
import { PNG } from 'pngjs';
import { daysAgo, expect, hold, test, type ApiSeeder } from './fixtures.js';

const readCode = jsqr;

/** Counts what a person does: every touch and every figure typed. */
class Technician {
  count = 0;
  constructor(private readonly page: Page) {}

  async press(name: string | RegExp, within: Page | Locator = this.page): Promise<void> {
    const button = within.getByRole('button', { name, exact: typeof name === 'string' }).first();
    // What lies half under the foot of the page is brought into sight first, as anybody would.
    await button.evaluate((one) => one.scrollIntoView({ block: 'center' }));
    await button.click();
    this.count += 1;
  }

  async tick(name: string): Promise<void> {
    await this.page.getByRole('checkbox', { name }).click();
    await expect(this.page.getByRole('checkbox', { name })).toBeChecked();
    this.count += 1;
  }

  async type(label: string, text: string, within: Page | Locator = this.page): Promise<void> {
    await within.getByLabel(label, { exact: true }).fill(text);
    this.count += 1;
  }

  /** A target that is held for a second. */
  async hold(name: string | RegExp, within: Page | Locator = this.page): Promise<void> {
    await hold(within, name);
    this.count += 1;
  }

  /** The spaces were proved beside; this page looks again with one hold, and goes on. */
  async isolated(
    office: ApiSeeder,
    visit: string,
    unit: string,
    opens: readonly string[] | null = null,
  ): Promise<void> {
    // The spaces are told of with moments before this one: what was done running has to be on record by then.
    await expect(this.page.getByRole('button', { name: /waiting/ })).toHaveCount(0);
    await office.isolate('visits', visit, unit, opens);
    await this.page.goto(`/visits/${visit}?at=isolate`);
    await this.hold(/^Hold: all four/);
    await expect(this.page.getByText('Isolated for this.')).toBeVisible();
    await this.press('To the work');
  }

  async restart(): Promise<void> {
    const section = this.page.getByRole('region', { name: 'Restart' });
    await expect(section).toBeVisible();
    for (const step of await section.getByRole('checkbox').all()) {
      await step.click();
      this.count += 1;
    }
    await this.press('It runs again');
  }

  async sign(): Promise<void> {
    await this.type('Name', 'Mira Kolden');
    await this.press(/^Sign for/);
    await expect(this.page.getByText(/^Signed for by Mira Kolden/)).toBeVisible();
  }

  /** Every station that is left, with one touch each. */
  async allAsExpected(): Promise<number> {
    const buttons = this.page.getByRole('button', { name: /one, as expected$/ });
    await expect(buttons.first()).toBeVisible();
    const stations = await buttons.count();
    for (let left = stations; left > 0; left -= 1) {
      await buttons.first().click();
      this.count += 1;
      await expect(buttons).toHaveCount(left - 1);
    }
    return stations;
  }
}

/** A visit of one unit, planned past the page, and opened. */
async function openVisit(page: Page, unit: string, tasks: string[], at = 'prepare'): Promise<string> {
  const { siteId } = (await (await page.request.get(`/api/compressors/${unit}`)).json()) as {
    siteId: string;
  };
  const id = randomUUID();
  const visit = { id, siteId, plannedOn: daysAgo(0).slice(0, 10), units: [{ compressorId: unit, tasks }] };
  expect((await page.request.post('/api/visits', { data: visit })).status()).toBe(201);
  await page.goto(`/visits/${id}?at=${at}`);
  await expect(page.getByRole('navigation', { name: 'Parts of the visit' })).toBeVisible();
  return id;
}

async function lastDone(page: Page, unit: string, code: string): Promise<string | null> {
  const standing = (await (await page.request.get(`/api/compressors/${unit}/standing`)).json()) as {
    tasks: { code: string; lastDoneAt: string | null }[];
  };
  return standing.tasks.find((task) => task.code === code)!.lastDoneAt;
}

async function measureHeat(
  hands: Technician,
  page: Page,
  temp: string,
  more: [string, string][] = [],
): Promise<void> {
  const card = page.getByRole('region', { name: 'Discharge temperature' });
  await hands.type('Discharge', temp, card);
  await hands.type('Room air', '21', card);
  for (const [label, text] of more) await hands.type(label, text, card);
  await hands.press('Save', card);
}

test(
  'a 2,000 h screw service, from Today to the printed tag',
  { tag: '@phone' },
  async ({ page, office }, info) => {
    const tag = `VS-${info.project.name}`;
    const unit = await office.addScrew(tag);
    const hands = new Technician(page);
    await page.goto('/');
    await page.getByRole('link', { name: `Visit Site of ${tag}` }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByRole('checkbox', { name: new RegExp(tag) })).toBeChecked();
    await hands.press('Prepare the visit', dialog);
    await expect(page.getByRole('heading', { level: 1, name: tag })).toBeVisible();

    // Prepare: what is due, in the order of doing, with what it takes.
    await expect(page.getByText('Isolated and vented', { exact: true })).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Take along' })).toBeVisible();
    await hands.type('Figure on the meter', '2010');
    await hands.press('Save');
    await expect(page.getByText('2,010')).toBeVisible();
    await hands.press('To the before readings');

    // Before: what the work should change.
    await measureHeat(hands, page, '92', [['Highest allowed rise (manual)', '75']]);
    await expect(page.getByRole('region', { name: 'Discharge temperature' })).toContainText('before');
    // What is done while it runs is done before it is locked.
    const whileRunning = await hands.allAsExpected();
    await hands.press('Stop it and isolate');
    await expect(page.getByText(/^0 of \d hold\./)).toBeVisible();
    const visit = new URL(page.url()).pathname.split('/').at(-1)!;
    await hands.isolated(office, visit, unit);
    // What was held beside this page is counted, too: two holds a space, one for all else.
    hands.count += 8;

    // Work: a station as expected is one touch.
    const before = hands.count;
    const stations = await hands.allAsExpected();
    expect(hands.count - before).toBe(stations);
    expect(stations + whileRunning).toBeGreaterThanOrEqual(6);
    await hands.press(/^Used: oil filter/);
    await expect(page.getByText('Everything is answered.')).toBeVisible();
    await hands.press('Restart and prove');
    await hands.restart();
    await hands.press('All tight');
    await expect(page.getByText('Tight.', { exact: true })).toBeVisible();
    // What stays is there already: two figures prove it.
    await measureHeat(hands, page, '84');
    await expect(page.getByText('Everything that was done is proved.')).toBeVisible();
    await hands.press('To the signature');
    await expect(page.getByRole('region', { name: 'Summary' })).toContainText('Proved:');
    await page.getByLabel('Name').fill('Mira Kolden');
    await page.getByRole('img', { name: 'Signature' }).hover();
    await page.mouse.down();
    await page.mouse.move(120, 620, { steps: 4 });
    await page.mouse.up();
    await hands.press(`Sign for ${tag}`);
    await expect(page.getByText('Signed for by Mira Kolden.')).toBeVisible();
    info.annotations.push({ type: 'interactions', description: String(hands.count) });
    // Six screens, twelve stations at most: nothing is asked twice.
    expect(hands.count).toBeLessThan(45);

    await expect.poll(() => lastDone(page, unit, 'oil-filter')).not.toBeNull();
    const card = page.getByRole('region', { name: 'Service tag' });
    await expect(card).toContainText('2,010 h');
    const code = PNG.sync.read(await card.getByRole('img', { name: `Code that opens ${tag}` }).screenshot());
    const read = readCode(new Uint8ClampedArray(code.data), code.width, code.height);
    expect(read?.data).toBe(new URL(`/units/${unit}`, page.url()).href);
    const print = page.getByRole('link', { name: 'Print the tag' });
    const tagPdf = await page.request.get((await print.getAttribute('href'))!);
    expect([tagPdf.status(), tagPdf.headers()['content-type']]).toEqual([200, 'application/pdf']);
    const report = await page.request.get(
      (await page.getByRole('link', { name: 'Report as PDF' }).getAttribute('href'))!,
    );
    expect((await report.body()).subarray(0, 5).toString()).toBe('%PDF-');
    await page.goto(read!.data);
    await expect(page.getByRole('heading', { name: new RegExp(`^${tag}`) })).toBeVisible();
  },
);

test('an oil-free ring kit, with the pump-up before and after', async ({ page, office }, info) => {
  const unit = await office.addCompressor(`OF-${info.project.name}`, {
    family: 'piston-oil-free',
    motor: 'single-phase',
    receiverL: 24,
    fadLpm: 60,
    cutOutBar: 8,
  });
  await office.readHours(unit, 5, 700);
  const visit = await openVisit(page, unit, ['ring-kit'], 'before');
  const hands = new Technician(page);
  const pumpUp = page.getByRole('region', { name: /Pump-up/ });
  const measure = async (seconds: string) => {
    await hands.type('From', '0', pumpUp);
    await hands.type('To', '7', pumpUp);
    await hands.type('Time', seconds, pumpUp);
    await hands.press('Save', pumpUp);
  };
  await measure('290');
  await expect(pumpUp.getByText('act now').first()).toBeVisible();
  await hands.press('Stop it and isolate');
  await hands.isolated(office, visit, unit);
  await expect(page.getByText(/lip up, never the sleeve pushed over the ring/)).toBeVisible();
  await hands.allAsExpected();
  await hands.press('Restart and prove');
  await hands.restart();
  await hands.press('All tight');
  await measure('165');
  await expect(page.getByText('Everything that was done is proved.')).toBeVisible();
  // Before and after stand under each other.
  await expect(pumpUp).toContainText('before');
  await expect(pumpUp).toContainText('after');
  await hands.press('To the signature');
  await hands.sign();
  await expect.poll(() => lastDone(page, unit, 'ring-kit')).not.toBeNull();
});

test('a purifier cartridge is changed: weighed with the tower open, proved by what comes out', async ({
  page,
  office,
}, info) => {
  const unit = await office.addCompressor(`HP-${info.project.name}`, {
    family: 'high-pressure',
    stages: 3,
    motor: 'three-phase',
    airUse: 'breathing',
  });
  const visit = await openVisit(page, unit, ['cartridge-replace'], 'isolate');
  const hands = new Technician(page);
  await expect(page.getByRole('heading', { name: 'Off, locked, tried, automatic off' })).toBeVisible();
  await hands.isolated(office, visit, unit);
  await hands.press('Checks here');
  const weight = page.getByRole('region', { name: /Cartridge weight/ });
  await hands.press('Measure', weight);
  await hands.type('It weighs', '1180', weight);
  await hands.type('Dry, as printed', '1000', weight);
  await hands.type('Saturated, as printed', '1200', weight);
  await hands.press('Save', weight);
  await hands.allAsExpected();
  // For breathing air, a cartridge that the catalogue does not name for the unit needs a reason.
  await hands.press('Used: Purifier cartridge, coarse');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('button', { name: 'Used', exact: true })).toBeDisabled();
  await dialog.getByLabel('The reason').fill('Agreed with the lead until Friday');
  await hands.press('Used', dialog);
  await expect(page.getByRole('region', { name: 'Parts' })).toContainText('Agreed with the lead');
  await hands.press('Restart and prove');
  await expect(page.getByRole('checkbox', { name: 'Run to waste before anybody breathes it' })).toBeVisible();
  await hands.restart();
  await hands.press('All tight');
  const monoxide = page.getByRole('region', { name: 'Carbon monoxide' });
  await hands.type('Carbon monoxide', '1', monoxide);
  await hands.press('EN 12021', monoxide);
  await hands.press('Save', monoxide);
  await expect(page.getByText('Everything that was done is proved.')).toBeVisible();
  // What is not its own stays on record as a change of the machine.
  await page.goto(`/units/${unit}?tab=repairs`);
  await expect(
    page.getByText(/^Purifier cartridge, coarse.* in place of its own: Agreed with the lead/),
  ).toBeVisible();
});

test.describe('an interruption', () => {
  test.use({ ownContext: true });

  test('after a time away the isolation is asked for again', async ({ page, office }, info) => {
    const unit = await office.addScrew(`AW-${info.project.name}`);
    const visit = await openVisit(page, unit, ['oil-filter'], 'isolate');
    const hands = new Technician(page);
    await hands.isolated(office, visit, unit);
    const done = page.getByRole('button', { name: 'Done, as expected' });
    await expect(done).toBeEnabled();
    await page.clock.fastForward('25:00');
    await expect(page.getByRole('alert').filter({ hasText: 'There was a pause' })).toBeVisible();
    await expect(done).toBeDisabled();
    // One screen and one hold, not the whole again.
    await hands.press('Look again');
    await expect(page.getByRole('button', { name: /^Hold:/ })).toHaveCount(1);
  });
});

test.describe('an interruption', () => {
  test.use({ expectedErrors: { matching: [/409/] } });

  test(
    'a reload and another person ask for the isolation again, and so does the server',
    { tag: '@phone' },
    async ({ page, office }, info) => {
      const unit = await office.addScrew(`IN-${info.project.name}`);
      const visit = await openVisit(page, unit, ['oil-filter'], 'isolate');
      const hands = new Technician(page);
      await hands.isolated(office, visit, unit);
      const done = page.getByRole('button', { name: 'Done, as expected' });
      await expect(done).toBeEnabled();
      await page.reload();
      await expect(page.getByRole('alert').filter({ hasText: 'the page was reloaded' })).toBeVisible();
      await expect(done).toBeDisabled();
      // The server holds to it, too, whatever a page believes.
      const step = {
        id: randomUUID(),
        compressorId: unit,
        kind: 'task',
        doneAt: daysAgo(0),
        session: 'another',
        details: { task: 'oil-filter', outcome: 'done' },
      };
      const refused = await page.request.post(`/api/visits/${visit}/steps`, { data: step });
      expect(refused.status()).toBe(409);

      // Another person: an own lock, and a look for oneself; the proofs of the spaces are shared.
      await page.getByRole('button', { name: 'Say who is working' }).click();
      await page.getByRole('dialog').getByRole('button', { name: 'Jorun Aske' }).click();
      await page.keyboard.press('Escape');
      await page.goto(`/visits/${visit}?at=isolate`);
      await expect(page.getByText(/is on\. Put on your own/)).toBeVisible();
      await hands.hold(/^Hold: it is so/);
      await hands.hold(/^Hold: all four/);
      await hands.press('To the work');
      await done.click();
      await expect(page.getByText('Everything is answered.')).toBeVisible();
    },
  );
});

/** What is open at a unit. */
async function openRepairs(page: Page, unit: string): Promise<string[]> {
  const repairs = await page.request.get(`/api/compressors/${unit}/repairs?show=open`);
  return ((await repairs.json()) as { items: { found: string }[] }).items.map((one) => one.found);
}

test(
  'one space a screen, held and not tapped; a needle that shows something and one that stood at zero open nothing',
  { tag: '@phone' },
  async ({ page, office }, info) => {
    const unit = await office.addCompressor(`GZ-${info.project.name}`, {
      family: 'piston-oil-free',
      motor: 'single-phase',
      receiverL: 6,
    });
    await openVisit(page, unit, ['gauge-test'], 'isolate');
    const hands = new Technician(page);
    const plug = page.getByRole('region', { name: /^Unplugged/ });
    await expect(plug).toBeVisible();
    // A tap is not a hold.
    await plug.getByRole('button', { name: 'Hold: it is so' }).click();
    await expect(plug).toBeVisible();
    await hands.hold('Hold: it is so', plug);
    await hands.hold('Hold: it is so', page.getByRole('region', { name: /^Hose off/ }));
    const receiver = page.getByRole('region', { name: 'Receiver empty' });
    await hands.hold('Hold: opened, it passes', receiver);
    // Silent sooner than it can be: asked once.
    await hands.hold(/^Hold: silent/, receiver);
    await expect(receiver.getByRole('alert')).toContainText('Did it really go silent?');
    await hands.press('It is otherwise', receiver);
    await receiver.getByLabel('Silent; but it shows').fill('0.4');
    await hands.press('Save', receiver);
    await hands.hold('Hold: yes, it really did', receiver);
    await expect(receiver).toContainText('The needle shows 0.4 bar.');
    await expect(page.getByText('Isolated for this.')).toBeHidden();
    await hands.hold(/a second opening on it is open/, receiver);
    // The space is proved; what is left is to look again in two minutes.
    await expect(page.getByRole('region', { name: /^Second look/ })).toBeVisible();
    await expect(receiver).toBeHidden();
    // A lock that comes off takes the proof with it.
    await hands.press(/^My lock is off/);
    await hands.press('So it is');
    await expect(plug).toBeVisible();
    await hands.hold('Hold: it is so', plug);
    await expect(receiver).toBeVisible();
    await hands.press('It is otherwise', receiver);
    await hands.press(/^Nothing came, and nothing was in it/, receiver);
    await expect(receiver).toContainText('One sign more');
  },
);

test(
  'a blocked drain keeps the tower shut, and becomes a repair',
  { tag: '@phone' },
  async ({ page, office }, info) => {
    const unit = await office.addCompressor(`BD-${info.project.name}`, {
      family: 'high-pressure',
      stages: 3,
      motor: 'three-phase',
      airUse: 'technical',
    });
    const visit = await openVisit(page, unit, ['cartridge-replace'], 'isolate');
    await office.isolate('visits', visit, unit, ['stages']);
    // The tower’s bleed was shut again: it has to be proved again.
    const shut = {
      id: randomUUID(),
      compressorId: unit,
      kind: 'isolate',
      doneAt: daysAgo(0),
      session: 'beside',
      details: { step: 'tower', confirmed: false },
    };
    expect((await page.request.post(`/api/visits/${visit}/steps`, { data: shut })).status()).toBe(201);
    await page.reload();
    const hands = new Technician(page);
    const tower = page.getByRole('region', { name: 'Tower empty' });
    await hands.press('It is otherwise', tower);
    await hands.press('Nothing came at all, though there was pressure', tower);
    await expect(tower).toContainText('it stays shut');
    await expect.poll(() => openRepairs(page, unit)).toEqual(['Tower empty: the vent passes nothing']);
    // Above 15 bar nobody looks through a bore, and it does not stand itself empty.
    await expect(tower.getByRole('button', { name: /bore is seen free|it stood/ })).toHaveCount(0);
    await hands.press('Other work first');
    await expect(page.getByRole('button', { name: 'Done, as expected' })).toBeDisabled();
    await expect(page.getByText(/Still to do: .*Tower empty/)).toBeVisible();
  },
);

test('a point of use is opened while the compressor runs', async ({ page, office }, info) => {
  const unit = await office.addCompressor(`PU-${info.project.name}`, { motor: 'three-phase' });
  const visit = await openVisit(page, unit, ['line-filter-replace'], 'isolate');
  const hands = new Technician(page);
  await expect(page.getByRole('region', { name: 'Its people told, load held' })).toBeVisible();
  await hands.isolated(office, visit, unit, ['point']);
  await hands.allAsExpected();
  await hands.press('Restart and prove');
  // Nothing was locked: only the point of use gets its air back.
  await expect(page.getByRole('region', { name: 'Restart' })).toBeHidden();
  const air = page.getByRole('region', { name: 'Air back' });
  await expect(air).toBeVisible();
  for (const step of await air.getByRole('checkbox').all()) await step.click();
  await hands.press('It has air again', air);
  await hands.press('All tight');
  await expect(page.getByText('Everything that was done is proved.')).toBeVisible();
});

test.describe('a stop', () => {
  test.use({ expectedErrors: { matching: [/409/] } });

  test(
    'goes from the measurement to the red tag, and on to running again',
    { tag: '@phone' },
    async ({ page, office }, info) => {
      const tag = `ST-${info.project.name}`;
      const unit = await office.addScrew(tag);
      const measure = (opens: 'yes' | 'no') =>
        page.request.post(`/api/compressors/${unit}/measurements`, {
          data: {
            id: randomUUID(),
            check: 'relief-valve',
            takenAt: new Date(Date.parse(daysAgo(0)) - (opens === 'no' ? 5000 : 0)).toISOString(),
            values: { opens, reseats: 'tight' },
          },
        });
      expect((await measure('no')).status()).toBe(201);
      await page.goto('/');
      await expect(page.getByRole('region', { name: 'Out of service' })).toContainText(tag);
      await page.goto(`/units/${unit}`);
      const banner = page.getByRole('region', { name: 'Out of service' });
      await expect(banner).toContainText('The relief valve does not open');
      const red = await page.request.get(
        (await banner.getByRole('link', { name: 'Print the red tag' }).getAttribute('href'))!,
      );
      expect((await red.body()).subarray(0, 5).toString()).toBe('%PDF-');
      const hands = new Technician(page);
      await openVisit(page, unit, ['bearing-check'], 'work');
      await hands.allAsExpected();
      await page.goto(page.url().replace('at=work', 'at=sign'));
      await expect(page.getByRole('button', { name: /^Sign for/ })).toBeDisabled();
      await hands.type('Left out of service, told to', 'Shift leader Orvel');
      await hands.sign();
      await page.goto(`/units/${unit}`);
      await hands.press('Back in service', banner);
      const dialog = page.getByRole('dialog');
      await dialog.getByLabel('Or who decides').fill('Jorun Aske');
      await dialog.getByLabel('And why').fill('It is needed');
      await hands.press('It runs again', dialog);
      await expect(dialog.getByRole('alert')).toContainText('only with its own test');
      await dialog.getByRole('button', { name: 'Close' }).click();
      // Measured again, and better: it ends by itself.
      expect((await measure('yes')).status()).toBe(201);
      await page.reload();
      await expect(page.getByRole('heading', { name: new RegExp(`^${tag}`) })).toBeVisible();
      await expect(banner).toBeHidden();
    },
  );
});

test('a failed proof keeps the service open', async ({ page, office }, info) => {
  const unit = await office.addScrew(`FP-${info.project.name}`);
  const visit = await openVisit(page, unit, ['scavenge-clean'], 'isolate');
  const hands = new Technician(page);
  await hands.isolated(office, visit, unit);
  await hands.allAsExpected();
  await hands.press('Restart and prove');
  await hands.restart();
  await hands.press('It leaks');
  await hands.type('Where', 'At the vessel lid');
  await hands.press('Save', page.getByRole('region', { name: 'Tightness' }));
  await expect(page.getByRole('alert').filter({ hasText: 'the proof failed' })).toBeVisible();
  await hands.press('To the signature');
  await expect(page.getByText(/The check failed: Clean the scavenge line/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Sign for/ })).toBeDisabled();
  expect(await lastDone(page, unit, 'scavenge-clean')).toBeNull();
  await hands.press('To the proof');
  await hands.press('Close with a reason');
  await page
    .getByRole('dialog')
    .getByLabel('Or in your own words')
    .fill('Gasket ordered, runs until Friday.');
  await hands.press('Close it', page.getByRole('dialog'));
  await hands.press('To the signature');
  await expect(page.getByText(/Closed without its proof: Clean the scavenge line/)).toBeVisible();
  await hands.sign();
  await expect.poll(() => lastDone(page, unit, 'scavenge-clean')).not.toBeNull();
});

test.describe('without a connection', () => {
  test.use({
    ownContext: true,
    serviceWorkers: 'allow',
    expectedErrors: { matching: [/ERR_INTERNET_DISCONNECTED|Failed to load resource|Failed to fetch/] },
  });

  test(
    'in the middle of a visit: on it goes, through a reload; nothing is lost or doubled',
    { tag: '@phone' },
    async ({ page, context, office }, info) => {
      const unit = await office.addScrew(`NC-${info.project.name}`);
      const visit = await openVisit(page, unit, ['scavenge-clean'], 'isolate');
      await page.evaluate(() => navigator.serviceWorker.ready);
      await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
      await page.reload();
      const hands = new Technician(page);
      await hands.isolated(office, visit, unit);
      await context.setOffline(true);
      await hands.allAsExpected();
      await expect(page.getByText('No connection. Work on')).toBeVisible();
      const notes = page.getByRole('region', { name: 'Notes' });
      await notes.getByLabel('Note', { exact: true }).fill('Hose clip loose');
      await hands.press('Save', notes);
      // The field is emptied once the note is kept on the device: a text that is still in it would be lost.
      await expect(notes.getByLabel('Note', { exact: true })).toHaveValue('');
      await expect(notes.getByRole('paragraph')).toHaveText(['Hose clip loose']);

      await page.reload();
      await expect(page.getByText('No connection. Work on')).toBeVisible();
      // What was done before and after the connection was lost is all there.
      await expect(page.getByText('Everything is answered.')).toBeVisible();
      await expect(notes.getByRole('paragraph')).toHaveText(['Hose clip loose']);
      await hands.press('Restart and prove');
      await hands.restart();
      await hands.press('All tight');
      await hands.press('To the signature');
      await hands.sign();
      await expect(page.getByText(/It waits on this device for a connection/)).toBeVisible();

      await context.setOffline(false);
      await expect(page.getByRole('button', { name: /^Outbox/ })).toBeHidden({ timeout: 30_000 });
      await expect.poll(() => lastDone(page, unit, 'scavenge-clean')).not.toBeNull();
      const seen = (await (await page.request.get(`/api/visits/${visit}`)).json()) as {
        state: string;
        units: { steps: { kind: string; marks: string[] }[] }[];
      };
      const kinds = seen.units[0]!.steps.map(({ kind }) => kind);
      expect(seen.state).toBe('finished');
      expect(kinds.filter((kind) => kind === 'note')).toHaveLength(1);
      expect(kinds.filter((kind) => kind === 'station')).toHaveLength(1);
      expect(kinds.filter((kind) => kind === 'sign')).toHaveLength(1);
      expect(seen.units[0]!.steps.flatMap(({ marks }) => marks)).toEqual([]);
    },
  );
});

test(
  'photos are taken, and what is none is refused with a sentence',
  { tag: '@phone' },
  async ({ page, office }, info) => {
    const unit = await office.addScrew(`PH-${info.project.name}`);
    const visit = await openVisit(page, unit, ['bearing-check'], 'work');
    const input = page.getByLabel('Photo', { exact: true });
    await input.setInputFiles({
      name: 'photo.jpg',
      mimeType: 'image/jpeg',
      buffer: Buffer.from('no photo at all'),
    });
    await expect(page.getByRole('alert').filter({ hasText: 'no photo that can be read' })).toBeVisible();
    const png = new PNG({ width: 64, height: 48 });
    png.data.fill(140);
    await input.setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer: PNG.sync.write(png) });
    await page.getByLabel('What it shows').fill('Oil at the shaft seal');
    await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('button', { name: 'Photo (1)' })).toBeVisible();
    await expect(page.getByRole('img', { name: 'Oil at the shaft seal', exact: true }).first()).toBeVisible();
    const photo = async () => {
      const seen = (await (await page.request.get(`/api/visits/${visit}`)).json()) as {
        units: { steps: { kind: string; details: { photo?: string } }[] }[];
      };
      return seen.units[0]!.steps.find(({ kind }) => kind === 'photo')?.details.photo;
    };
    await expect.poll(photo).toBeDefined();
    // One that is not worth keeping is not kept.
    await input.setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer: PNG.sync.write(png) });
    await expect(page.getByRole('img', { name: 'The photo just taken' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toBeHidden();
    await expect(page.getByRole('button', { name: 'Photo (1)' })).toBeVisible();
    const picture = await page.request.get(`/api/visits/${visit}/photos/${await photo()}`);
    expect(picture.headers()['content-type']).toBe('image/jpeg');
  },
);

test.describe('a repair', () => {
  test.use({ expectedErrors: { matching: [/409/] } });

  test('goes from found to proved, with a guided overhaul', async ({ page, office }, info) => {
    const tag = `RP-${info.project.name}`;
    const unit = await office.addCompressor(tag, {
      family: 'piston-oil-free',
      receiverL: 24,
      fadLpm: 60,
      torques: 'Head 12 Nm',
    });
    await page.goto(`/units/${unit}?tab=repairs`);
    const hands = new Technician(page);
    await hands.press('Record a fault or a change');
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('What is wrong').fill('Does not reach cut-out');
    await hands.press('Open a repair', dialog);
    await page.getByRole('link', { name: 'Does not reach cut-out' }).click();
    await expect(page.getByText('The cause is not known yet.')).toBeVisible();
    await page.getByLabel('What is the cause?').fill('Ring worn');
    await hands.press('Save the cause');
    await expect(page.getByText('Cause: Ring worn')).toBeVisible();
    await hands.press('Ring and sleeve kit');
    await expect(page.getByText(/by the data plate: Head 12 Nm/).first()).toBeVisible();
    // The machine is not isolated: no step of it is taken, on the page or past it.
    const isolation = page.getByRole('region', { name: 'Isolation' });
    await expect(isolation).toContainText('Still to do');
    await page.getByRole('checkbox', { name: 'New ring on, lip up' }).click();
    await expect(page.getByRole('alert').filter({ hasText: 'Not isolated for that' })).toBeVisible();
    const repair = new URL(page.url()).pathname.split('/').at(-1)!;
    await office.isolate('repairs', repair, unit, ['stages']);
    await page.reload();
    await hands.press('Isolate', isolation);
    await hands.hold(/^Hold: all four/);
    await expect(isolation).toContainText('Isolated for this.');
    await hands.tick('New ring on, lip up');
    await page.getByLabel('Work done').fill('Ring, sleeve and gasket renewed');
    await page.getByLabel('Minutes').fill('95');
    await hands.press('Save the work');
    await expect(page.getByText('95 min of work')).toBeVisible();
    const prove = page.getByRole('region', { name: 'Prove it' });
    await expect(prove.getByLabel('By this check')).toHaveValue('pump-up');
    await prove.getByLabel('From', { exact: true }).fill('0');
    await prove.getByLabel('To', { exact: true }).fill('7');
    await prove.getByLabel('Time', { exact: true }).fill('165');
    await hands.press('Save as the proof');
    await expect(page.getByText('proved', { exact: true })).toBeVisible();
    await expect(page.getByLabel('Work done')).toBeHidden();
    await page.reload();
    await expect(page.getByText('proved', { exact: true })).toBeVisible();
  });
});

test('the logbook is searched, filtered and exported; a unit’s history is one page', async ({ page }) => {
  await page.goto('/logbook');
  // It is looked for while it is typed.
  await page.getByLabel('Search').pressSequentially('sticks half');
  const entries = page.getByRole('list', { name: 'Entries' }).getByRole('listitem');
  await expect(entries).toHaveCount(1);
  await expect(entries).toContainText('Drain of the water separator sticks half open');
  await page.reload();
  await expect(entries).toHaveCount(1);
  const csv = await page.request.get((await page.getByRole('link', { name: 'CSV' }).getAttribute('href'))!);
  expect((await csv.text()).trim().split('\r\n')).toHaveLength(2);
  await page.getByRole('link', { name: 'HC-1' }).click();
  await page.getByRole('tab', { name: 'Logbook' }).click();
  await page.getByRole('link', { name: 'Whole history on one page' }).click();
  await expect(page.getByRole('heading', { name: 'History of HC-1' })).toBeVisible();
  expect(await page.getByRole('list', { name: 'Entries' }).getByRole('listitem').count()).toBeGreaterThan(
    150,
  );
});

test('a visit grows by a task and by another machine of the site', { tag: '@phone' }, async ({ page }) => {
  const { items } = (await (await page.request.get('/api/visits')).json()) as {
    items: { id: string; state: string }[];
  };
  await page.goto(`/visits/${items.find(({ state }) => state === 'planned')!.id}?at=prepare`);
  const hands = new Technician(page);
  await expect(page.getByRole('heading', { level: 1, name: 'VB-2' })).toBeVisible();
  // What is planned hangs on the day; one task more is one more, and takes its minutes.
  const planned = page.getByText(/^\d+ tasks?, about \d+ min of work/);
  const figures = async () => (await planned.textContent())!.match(/\d+/g)!.map(Number);
  const [tasks, minutes] = (await figures()) as [number, number];
  expect(tasks).toBeGreaterThan(0);
  const add = page.getByRole('region', { name: 'Add a task' });
  await hands.press('Add a task');
  await hands.press(
    await add
      .getByRole('button')
      .first()
      .textContent()
      .then((name) => name!),
    add,
  );
  await expect(page.getByText(new RegExp(`^${tasks + 1} tasks, about`))).toBeVisible();
  expect((await figures())[1]!).toBeGreaterThan(minutes);
  await hands.press('Another machine of the site');
  await hands.press(/^VB-1/);
  await expect(page.getByRole('heading', { level: 1, name: 'VB-1' })).toBeVisible();
  const units = page.getByRole('navigation', { name: 'Units of the visit' });
  await units.getByRole('button', { name: 'VB-2' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'VB-2' })).toBeVisible();
});

test('a part is added, counted and compared', async ({ page }) => {
  await page.goto('/parts');
  const hands = new Technician(page);
  await hands.press('Add a part');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Intake element, cheap');
  await dialog.getByLabel('Number').fill('HW-9999');
  await dialog.getByLabel('Used for').fill('intake element');
  await dialog.getByLabel('Rated flow, L/min').fill('900');
  await dialog.getByLabel('Fineness, µm').fill('25');
  await hands.press('Add it', dialog);
  await expect(dialog).toBeHidden();
  await page.getByLabel('Find a part').fill('cheap');
  await hands.press('Count Intake element, cheap');
  await page.getByRole('dialog').getByLabel('In the van now').fill('3');
  await hands.press('Save the count', page.getByRole('dialog'));
  await expect(page.getByRole('list', { name: 'Parts' })).toContainText('3');
  await page.getByLabel('Find a part').fill('round');
  await hands.press('Compare Intake element, round');
  await page.getByRole('dialog').getByLabel('The other part').click();
  await page.getByRole('option', { name: /cheap/ }).click();
  await expect(page.getByRole('dialog')).toContainText('Does not fit');
  await expect(page.getByRole('dialog')).toContainText('coarser than 10 µm');
});
