import { randomUUID } from 'node:crypto';
import type { Locator, Page } from '@playwright/test';
import { daysAgo, dateAgo, expect, test, type ApiSeeder } from './fixtures.js';

/**
 * Counts what a person does. One is a tap or click, a field filled, a key outside a field. What isolating, proving and
 * the results of tests ask for is counted apart: it is never made less.
 */
class Counted {
  ordinary = 0;
  apart = 0;
  constructor(readonly page: Page) {}

  private count(isApart: boolean): void {
    if (isApart) this.apart += 1;
    else this.ordinary += 1;
  }

  async tap(target: Locator, isApart = false): Promise<void> {
    await target.evaluate((one) => one.scrollIntoView({ block: 'center' }));
    await target.click();
    this.count(isApart);
  }

  button(name: string | RegExp, within: Page | Locator = this.page): Locator {
    return within.getByRole('button', { name, exact: typeof name === 'string' }).first();
  }

  async press(name: string | RegExp, within: Page | Locator = this.page, isApart = false): Promise<void> {
    await this.tap(this.button(name, within), isApart);
  }

  async fill(
    label: string,
    text: string,
    within: Page | Locator = this.page,
    isApart = false,
  ): Promise<void> {
    await within.getByLabel(label, { exact: true }).fill(text);
    this.count(isApart);
  }

  async choose(label: string, option: string | RegExp, within: Page | Locator = this.page): Promise<void> {
    await this.tap(within.getByLabel(label, { exact: true }));
    await this.tap(this.page.getByRole('option', { name: option }).first());
  }

  /** A check with its figures, saved: a result. */
  async measure(name: string, figures: readonly (readonly [string, string])[]): Promise<void> {
    const card = this.page.getByRole('region', { name, exact: true });
    for (const [label, text] of figures) await this.fill(label, text, card, true);
    await this.press('Save', card, true);
  }

  async hold(name: RegExp): Promise<void> {
    const button = this.button(name);
    await button.evaluate((one) => one.scrollIntoView({ block: 'center' }));
    await button.click({ delay: 1150 });
    this.apart += 1;
  }

  /** Every station that is left, with a touch each. */
  async allAsExpected(): Promise<void> {
    const buttons = this.page.getByRole('button', { name: /one, as expected$/ });
    await expect(buttons.first()).toBeVisible();
    for (let left = await buttons.count(); left > 0; left -= 1) {
      await this.tap(buttons.first());
      await expect(buttons).toHaveCount(left - 1);
    }
  }

  /** The spaces are proved beside, as in the tests of isolation; the touches that it takes are counted apart. */
  async isolate(office: ApiSeeder, unit: string, opens: readonly string[] | null = null): Promise<void> {
    const url = new URL(this.page.url());
    const visit = url.pathname.split('/').at(-1)!;
    const people = (await (await this.page.request.get('/api/people')).json()) as {
      items: { id: string; name: string }[];
    };
    const mira = people.items.find(({ name }) => name === 'Mira Kolden')!.id;
    this.apart += await office.isolate('visits', visit, unit, opens, mira);
    await this.page.goto(`${url.pathname}?unit=${unit}&at=isolate`);
    const isolated = this.page.getByText('Isolated for this.');
    // What this page looks at for itself: a needle after a pause, an oil that is not hot.
    const hold = this.page.getByRole('button', { name: /^Hold: (all four|it is so)/ }).first();
    await expect(isolated.or(hold).first()).toBeVisible();
    while (!(await isolated.isVisible())) {
      await this.hold(/^Hold: (all four|it is so)/);
      await expect(isolated.or(hold).first()).toBeVisible();
    }
    await expect(isolated).toBeVisible();
  }

  async restart(): Promise<void> {
    const section = this.page.getByRole('region', { name: 'Restart' });
    await expect(section).toBeVisible();
    for (const step of await section.getByRole('checkbox').all()) await this.tap(step, true);
    await this.press('It runs again', this.page, true);
  }

  async sign(tag: string): Promise<void> {
    await this.press('To the signature');
    await this.press(`Sign for ${tag}`);
    await expect(this.page.getByText('Signed for by Mira Kolden.')).toBeVisible();
  }

  done(what: string, most: number): void {
    console.log(
      `Interactions, ${what}: ${this.ordinary} of ${most}; isolation, proof and results: ${this.apart}.`,
    );
    expect(this.ordinary).toBeLessThanOrEqual(most);
  }
}

/** Whoever works at this device has said so: that is asked once on each device. */
async function asMira(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Say who', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Mira Kolden' }).click();
  await expect(page.getByText('Who works here?')).toBeHidden();
}

const heat = (tempC: string, isFirst: boolean) =>
  [
    ['Discharge', tempC],
    ['Room air', '21'],
    ...(isFirst ? [['Highest allowed rise (manual)', '75'] as const] : []),
  ] as const;

test(
  'the 2,000 h service of a healthy screw, from Today to its tag',
  { tag: '@phone' },
  async ({ page, office }, info) => {
    const tag = `IS-${info.project.name}`;
    const unit = await office.addScrew(tag);
    await asMira(page);
    const hands = new Counted(page);
    await hands.tap(page.getByRole('link', { name: `Visit Site of ${tag}` }));
    await hands.press('Prepare the visit', page.getByRole('dialog'));
    await hands.press('A whole service');
    await hands.press(/^2,000 h service/);
    // One of its tasks is not for today.
    await hands.press('Not for this visit: Relief valve lift test');
    await expect(page.getByText('Relief valve lift test')).toHaveCount(0);
    await hands.fill('Figure on the meter', '2010');
    await hands.press('Save');
    await hands.press('To the before readings');
    await hands.measure('Discharge temperature', heat('92', true));
    await hands.allAsExpected();
    await hands.press('Stop it and isolate');
    await hands.isolate(office, unit);
    await hands.press('To the work');
    await hands.allAsExpected();
    await hands.press('All used');
    await expect(page.getByText('Everything is answered.')).toBeVisible();
    await hands.press('Restart and prove');
    await hands.restart();
    await hands.press('All tight', page, true);
    await hands.measure('Discharge temperature', heat('84', false));
    await expect(page.getByText('Everything that was done is proved.')).toBeVisible();
    await hands.sign(tag);
    await expect(page.getByRole('region', { name: 'Service tag' })).toBeVisible();
    hands.done('2,000 h service', 30);
  },
);

test('three due tasks, on the phone', { tag: '@phone-only' }, async ({ page, office }, info) => {
  const tag = `ID-${info.project.name}`;
  const unit = await office.addCompressor(tag, { commissionedOn: daysAgo(90).slice(0, 10) });
  await office.readHours(unit, 80, 0);
  await office.readHours(unit, 1, 90);
  await asMira(page);
  const hands = new Counted(page);
  await hands.tap(page.getByRole('link', { name: `Visit Site of ${tag}` }));
  await hands.press('Prepare the visit', page.getByRole('dialog'));
  await hands.press('To the before readings');
  await hands.press(/^(Stop it and isolate|To the work)$/);
  await hands.isolate(office, unit);
  await hands.press('To the work');
  await hands.allAsExpected();
  await hands.press('Restart and prove');
  await hands.restart();
  await hands.press('All tight', page, true);
  await hands.sign(tag);
  hands.done('three due tasks on the phone', 18);
});

test('a repair with its verification', async ({ page, office }, info) => {
  const tag = `IR-${info.project.name}`;
  const unit = await office.addCompressor(tag, { family: 'screw', drive: 'direct' });
  await office.readHours(unit, 20, 900);
  await asMira(page);
  await page.goto(`/units/${unit}`);
  const hands = new Counted(page);
  await hands.tap(page.getByRole('tab', { name: 'Repairs' }));
  await hands.press('Record a fault or a change');
  await hands.fill('What is wrong', 'Cooler blocked');
  await hands.press('Open a repair', page.getByRole('dialog'));
  await hands.tap(page.getByRole('link', { name: 'Cooler blocked' }).last());
  await hands.fill('What is the cause?', 'Dust');
  await hands.press('Save the cause');
  await hands.fill('Work done', 'Blown out from inside');
  await hands.press('Save the work');
  await expect(page.getByText('Blown out from inside')).toBeVisible();
  await page.getByLabel('By this check').selectOption('discharge-temperature');
  hands.ordinary += 1;
  const proof = page.getByRole('region', { name: 'Prove it' });
  for (const [label, text] of heat('84', true)) await hands.fill(label, text, proof, true);
  await hands.press('Save as the proof', proof, true);
  await expect(page.getByText('proved', { exact: true }).first()).toBeVisible();
  hands.done('repair with verification', 14);
});

test('a used machine with a sticker of four dates', async ({ page, office }, info) => {
  const site = `Site of sticker ${info.project.name}`;
  await office.addSite(site);
  await asMira(page);
  const hands = new Counted(page);
  await hands.tap(page.getByRole('link', { name: 'Add a unit' }));
  await hands.choose('Site', site);
  await hands.fill('Tag', `IU-${info.project.name}`);
  await hands.choose('Family', /^Rotary screw/);
  await hands.choose('Its service history is', /taken over/);
  for (let step = 0; step < 3; step += 1) await hands.press('Next');
  await hands.fill('Figure on the meter now', '6120');
  await hands.press('Add to the register');
  await hands.press('What the sticker says');
  const dialog = page.getByRole('dialog');
  for (const [task, day, hours] of [
    ['Oil change', 200, '5100'],
    ['New oil filter', 200, '5100'],
    ['New intake element', 200, '5100'],
    ['Relief valve lift test', 120, ''],
  ] as const) {
    const line = dialog.getByRole('group', { name: task, exact: true });
    await hands.fill('Done on', dateAgo(day), line);
    if (hours !== '') await hands.fill('At, on the meter', hours, line);
  }
  await hands.press('Set 4 tasks', dialog);
  await expect(dialog).toBeHidden();
  await hands.press('Open its page');
  await expect(page.getByRole('heading', { name: /^IU-/ })).toBeVisible();
  hands.done('used machine with a sticker of four dates', 30);
});

test('a list from a source that was read before', async ({ page, office }) => {
  const { units } = await office.addWalk('The listed round', ['IC-1', 'IC-2']);
  const list = (ago: number, hours: number) => ({
    name: 'round.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `Tag;Date;Hours\r\nIC-1;${dateAgo(ago)};${hours}\r\nIC-2;${dateAgo(ago)};${hours}\r\n`,
    ),
  });
  await asMira(page);
  await page.goto('/lists');
  await page.getByLabel('List to read').setInputFiles(list(5, 1220));
  await page.getByRole('button', { name: 'Check' }).click();
  await page.getByRole('button', { name: 'Import 2 readings' }).click();
  await expect(page.getByText('Done. Reading the same list again adds nothing.')).toBeVisible();
  await page.reload();
  const hands = new Counted(page);
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), hands.press('Choose a file')]);
  await chooser.setFiles(list(3, 1230));
  hands.ordinary += 1;
  await hands.press('Import 2 readings');
  await expect(page.getByText('Done. Reading the same list again adds nothing.')).toBeVisible();
  expect((await office.figures(units[0]!))[0]).toBe(1230);
  hands.done('list from a source seen before', 4);
});

test('two meters by keyboard', async ({ page, office }) => {
  const { siteId } = await office.addWalk('The short walk', ['IK-1', 'IK-2']);
  await asMira(page);
  await page.goto(`/sites/${siteId}/walk`);
  const hands = new Counted(page);
  await hands.tap(page.getByLabel('Figure on IK-1'));
  for (const tag of ['IK-1', 'IK-2']) {
    await expect(page.getByLabel(`Figure on ${tag}`)).toBeFocused();
    await page.keyboard.type('1246');
    hands.ordinary += 1;
    await page.keyboard.press('Enter');
    await expect(page.getByRole('listitem', { name: tag, exact: true })).toContainText('saved');
  }
  await expect(page.getByText('All meters are read.')).toBeVisible();
  hands.done('two meters by keyboard', 5);
});

test('a cartridge is changed', async ({ page, office }, info) => {
  const tag = `IX-${info.project.name}`;
  const unit = await office.addCompressor(tag, {
    family: 'high-pressure',
    stages: 3,
    airUse: 'technical',
    workingPressureBar: 225,
    commissionedOn: daysAgo(300).slice(0, 10),
  });
  await office.readHours(unit, 200, 0);
  await office.readHours(unit, 1, 20);
  const { siteId } = (await (await page.request.get(`/api/compressors/${unit}`)).json()) as {
    siteId: string;
  };
  const id = randomUUID();
  const visit = {
    id,
    siteId,
    plannedOn: dateAgo(0),
    units: [{ compressorId: unit, tasks: ['cartridge-replace'] }],
  };
  expect((await page.request.post('/api/visits', { data: visit })).status()).toBe(201);
  await asMira(page);
  await page.goto(`/visits/${id}?at=prepare`);
  const hands = new Counted(page);
  await hands.press('To the before readings');
  // Where nothing is measured before the work, that is left out with its reason.
  for (;;) {
    const skip = page.getByRole('button', { name: 'Skip', exact: true }).first();
    if (!(await skip.isVisible())) break;
    await hands.tap(skip, true);
    await hands.press('No instrument at hand', page.getByRole('dialog'), true);
  }
  await hands.press('Stop it and isolate');
  await hands.isolate(office, unit);
  await hands.press('To the work');
  await hands.allAsExpected();
  await hands.press(/^Used:/);
  await hands.press('Restart and prove');
  await hands.restart();
  await hands.press('All tight', page, true);
  await hands.sign(tag);
  hands.done('cartridge visit', 18);
});
