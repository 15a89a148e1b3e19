import { expect, test, type ApiSeeder } from './fixtures.js';
import type { Page } from '@playwright/test';

const TAGS = ['WA-1', 'WA-2', 'WA-3', 'WA-4', 'WA-5'];
/** After seven weeks at five hours a day. */
const figure = (index: number) => 1245 + index;

async function openWalk(page: Page, siteId: string): Promise<void> {
  await page.goto(`/sites/${siteId}/walk`);
  await expect(page.getByRole('heading', { level: 1, name: /^Read the hours/ })).toBeVisible();
}

const row = (page: Page, tag: string) => page.getByRole('listitem', { name: tag, exact: true });

async function onRecord(office: ApiSeeder, units: readonly string[]): Promise<number[]> {
  const figures = await Promise.all(units.map((unit) => office.figures(unit)));
  return figures.map((all) => all[0]!);
}

test('five meters are read by keyboard alone', async ({ page, office }) => {
  const { siteId, units } = await office.addWalk('The long walk', TAGS);
  await openWalk(page, siteId);
  await expect(page.getByText('0 of 5 read.')).toBeVisible();
  await expect(row(page, 'WA-1')).toContainText(/1,2\d\d to 1,2\d\d h is expected/);
  await page.getByLabel('Figure on WA-1').focus();
  for (const [index, tag] of TAGS.entries()) {
    await expect(page.getByLabel(`Figure on ${tag}`)).toBeFocused();
    await page.keyboard.type(String(figure(index)));
    await expect(row(page, tag)).toContainText(/h a day\./);
    await page.keyboard.press('Enter');
    await expect(row(page, tag)).toContainText('saved');
  }
  await expect(page.getByText('All meters are read.')).toBeVisible();
  await expect.poll(() => onRecord(office, units)).toEqual(TAGS.map((_, index) => figure(index)));
});

test(
  'five meters are read by thumb: every target is large enough',
  { tag: '@phone-only' },
  async ({ page, office }) => {
    const { siteId, units } = await office.addWalk('The long walk', TAGS);
    await openWalk(page, siteId);
    for (const [index, tag] of TAGS.entries()) {
      const field = page.getByLabel(`Figure on ${tag}`);
      const save = row(page, tag).getByRole('button', { name: 'Save' });
      for (const target of [field, save]) {
        const box = (await target.boundingBox())!;
        expect(Math.min(box.width, box.height + 20)).toBeGreaterThanOrEqual(44);
      }
      expect(await field.getAttribute('inputmode')).toBe('decimal');
      await field.click();
      await field.fill(String(figure(index)));
      await save.click();
      await expect(row(page, tag)).toContainText('saved');
    }
    await expect.poll(() => onRecord(office, units)).toEqual(TAGS.map((_, index) => figure(index)));
  },
);

test.describe('without a connection', () => {
  test.use({
    ownContext: true,
    serviceWorkers: 'allow',
    expectedErrors: { matching: [/ERR_INTERNET_DISCONNECTED|Failed to load resource|Failed to fetch/] },
  });

  test(
    'half way the connection is lost: on it goes, through a reload; nothing is lost or doubled',
    { tag: '@phone' },
    async ({ page, context, office }) => {
      const { siteId, units } = await office.addWalk('The long walk', TAGS);
      await openWalk(page, siteId);
      // The worker takes over, and has seen the walk once.
      await page.evaluate(() => navigator.serviceWorker.ready);
      await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
      await page.reload();
      await expect(page.getByText('0 of 5 read.')).toBeVisible();
      const read = async (index: number) => {
        await page.getByLabel(`Figure on ${TAGS[index]}`).fill(String(figure(index)));
        await page.keyboard.press('Enter');
      };
      await read(0);
      await expect(row(page, 'WA-1')).toContainText('saved');
      await read(1);
      await expect(row(page, 'WA-2')).toContainText('saved');

      await context.setOffline(true);
      await read(2);
      await expect(row(page, 'WA-3')).toContainText('kept here, not sent yet');
      await expect(page.getByText('No connection. Read on')).toBeVisible();
      await page.getByLabel('Figure on WA-4').fill('124');

      await page.reload();
      await expect(page.getByText('3 of 5 read.')).toBeVisible();
      await expect(page.getByText('No connection. Read on')).toBeVisible();
      await expect(row(page, 'WA-3')).toContainText('1,247');
      await expect(row(page, 'WA-3')).toContainText('kept here, not sent yet');
      // What was half typed is still there.
      await expect(page.getByLabel('Figure on WA-4')).toHaveValue('124');
      await read(3);
      await read(4);
      await expect(page.getByText('All meters are read.')).toBeVisible();
      await expect(page.getByRole('button', { name: 'Outbox: 3 waiting' })).toBeVisible();
      expect((await onRecord(office, units)).slice(2)).toEqual([1210, 1210, 1210]);

      await context.setOffline(false);
      await expect(page.getByRole('button', { name: /^Outbox/ })).toBeHidden({ timeout: 20_000 });
      await expect(row(page, 'WA-5')).toContainText('saved');
      expect(await onRecord(office, units)).toEqual(TAGS.map((_, index) => figure(index)));
      for (const unit of units) expect(await office.figures(unit)).toHaveLength(8);
      await page.reload();
      await expect(page.getByText('All meters are read.')).toBeVisible();
    },
  );

  test('what the server refuses later goes to the tray, and is mended there', async ({
    page,
    context,
    office,
  }) => {
    const { siteId, units } = await office.addWalk('The long walk', TAGS.slice(0, 2));
    await openWalk(page, siteId);
    await context.setOffline(true);
    await page.getByLabel('Figure on WA-1').fill('1245');
    await page.keyboard.press('Enter');
    await expect(row(page, 'WA-1')).toContainText('kept here, not sent yet');
    // Meanwhile somebody else was there, and read more.
    await office.readHours(units[0]!, 0.05, 1260);
    await context.setOffline(false);
    await page.getByRole('button', { name: 'Outbox: 1 refused' }).click({ timeout: 20_000 });
    const tray = page.getByRole('dialog', { name: 'Outbox' });
    await expect(tray).toContainText('1,245 h is less than the 1,260 h');
    await tray.getByRole('button', { name: 'Correct it' }).click();
    await tray.getByLabel('Figure on WA-1').fill('1261');
    await tray.getByRole('button', { name: 'Send it again' }).click();
    await expect(tray).toContainText('Everything has reached the server.');
    await expect
      .poll(() => office.figures(units[0]!))
      .toEqual([1261, 1260, ...[1210, 1175, 1140, 1105, 1070, 1035, 1000]]);
  });
});

test('a mistyped figure is questioned, and put right after it was saved', async ({ page, office }) => {
  const { siteId, units } = await office.addWalk('The long walk', TAGS.slice(0, 1));
  await openWalk(page, siteId);
  const field = page.getByLabel('Figure on WA-1');
  await field.fill('12450');
  await expect(page.getByText(/No machine runs more than 24 h a day/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save' })).toBeDisabled();
  await field.fill('1345');
  await expect(page.getByText(/Far from its habit/)).toBeVisible();
  await field.press('Enter');
  await expect(page.getByText('Look again.')).toBeVisible();
  expect(await office.figures(units[0]!)).toHaveLength(7);
  await page.getByRole('button', { name: 'Read right' }).click();
  await expect(row(page, 'WA-1')).toContainText('saved');
  await page.getByRole('button', { name: 'Correct' }).click();
  await page.getByLabel('Figure on WA-1').fill('1245');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(row(page, 'WA-1')).toContainText('1,245');
  await expect
    .poll(() => office.figures(units[0]!))
    .toEqual([1245, 1210, 1175, 1140, 1105, 1070, 1035, 1000]);
});

test('a meter found replaced on the walk goes on counting', { tag: '@phone' }, async ({ page, office }) => {
  const { siteId, units } = await office.addWalk('The long walk', TAGS.slice(0, 1));
  await openWalk(page, siteId);
  await page.getByLabel('Figure on WA-1').fill('12');
  await expect(page.getByText(/12 h is less than the 1,210 h/)).toBeVisible();
  await page.getByRole('button', { name: 'A new meter was fitted' }).click();
  await page.getByLabel('Last figure of the old meter').fill('1220');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(row(page, 'WA-1')).toContainText('12');
  await expect(row(page, 'WA-1')).toContainText('saved');
  await expect.poll(() => office.figures(units[0]!)).toContain(12);
  await page.goto(`/units/${units[0]}`);
  await expect(page.getByRole('group', { name: /^Ruler in/ })).toContainText('12 h');
  await expect(page.getByText('12 h on the meter, 1,232 h total')).toBeVisible();
});

test('the walking order is chosen and kept', { tag: '@phone' }, async ({ page, office }) => {
  const { siteId } = await office.addWalk('The long walk', TAGS.slice(0, 3));
  await openWalk(page, siteId);
  await page.getByRole('button', { name: 'Change the order' }).click();
  await page.getByRole('button', { name: 'WA-3 earlier' }).click();
  await page.getByRole('button', { name: 'WA-3 earlier' }).click();
  await page.getByRole('button', { name: 'Keep this order' }).click();
  const order = () =>
    page.getByRole('list', { name: 'Meters in walking order' }).getByRole('listitem').first();
  await expect(order()).toContainText('WA-3');
  await page.reload();
  await expect(order()).toContainText('WA-3');
});
