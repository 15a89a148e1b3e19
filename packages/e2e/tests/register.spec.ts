import type { Page } from '@playwright/test';
import { dateAgo, expect, isPhone, openLogbook, openCompressor, test } from './fixtures.js';

const register = (page: Page) =>
  isPhone(page)
    ? page.getByRole('list', { name: 'Register of units' })
    : page.getByRole('grid', { name: 'Register of units' });

test('units are found and filtered, and the address remembers', { tag: '@phone' }, async ({ page }) => {
  await page.goto('/units');
  await expect(register(page)).toContainText('SP-1');
  await page.getByLabel('Find', { exact: true }).fill('tunnel screw');
  await expect(register(page)).toContainText('HT-1');
  await expect(register(page)).not.toContainText('SP-1');
  await page.getByLabel('Status').click();
  await page.getByRole('option', { name: 'unknown' }).click();
  await expect(register(page)).not.toContainText('HT-2');
  await expect(page).toHaveURL(/find=tunnel\+screw&state=unknown/);
  await page.reload();
  await expect(register(page)).toContainText('HT-1');
  await expect(register(page)).not.toContainText('HT-2');
  await page.getByLabel('Find', { exact: true }).fill('zzz');
  await expect(page.getByText('No unit is like that.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all units' }).click();
  await expect(register(page)).toContainText('SP-1');
});

test('the register sorts by its columns', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/units');
  const tags = () => register(page).getByRole('row').locator('[data-field=tag] a').allTextContents();
  await expect.poll(async () => (await tags()).length).toBeGreaterThan(10);
  await page.getByRole('columnheader', { name: 'Unit' }).click();
  await expect.poll(tags).toEqual([...(await tags())].sort());
  await page.getByRole('columnheader', { name: 'Meter' }).click();
  await page.getByRole('columnheader', { name: 'Meter' }).click();
  await expect.poll(async () => (await tags())[0]).toBe('HC-1');
});

test('a site is mended, a unit moved, retired and brought back', async ({ page, office }, info) => {
  const tag = `MV-${info.project.name}`;
  const id = await office.addCompressor(tag);
  await office.readHours(id, 20, 100);
  await page.goto('/units');
  await page.getByRole('button', { name: 'Sites', exact: true }).click();
  await page.getByRole('button', { name: `Edit Site of ${tag}` }).click();
  await page.getByLabel('Name', { exact: true }).fill(`Upper hall of ${tag}`);
  await page.getByLabel('Altitude').fill('3937 ft');
  await page.getByRole('button', { name: 'Save site' }).click();
  await expect(page.getByRole('dialog')).toContainText(`Upper hall of ${tag}`);
  await expect(page.getByRole('dialog')).toContainText('1,200 m');
  await page.getByRole('button', { name: 'Close' }).click();

  await openCompressor(page, id, tag);
  await expect(page.getByRole('heading', { name: new RegExp(`^${tag}`) })).toContainText(
    `Upper hall of ${tag}`,
  );
  await page.getByRole('tab', { name: 'Plate' }).click();
  await page.getByRole('button', { name: 'Move or retire' }).click();
  await page.getByLabel('Site', { exact: true }).click();
  await page.getByRole('option', { name: 'Odrin Glassworks' }).click();
  await page.getByRole('button', { name: 'Move it' }).click();
  await expect(page.getByRole('heading', { name: new RegExp(`^${tag}`) })).toContainText('Odrin Glassworks');

  await page.getByRole('button', { name: 'Move or retire' }).click();
  await page.getByRole('radio', { name: 'It goes out of service' }).check();
  await page.getByRole('button', { name: 'Retire it' }).click();
  await page.getByRole('tab', { name: 'Due' }).click();
  await expect(page.getByText(/Out of service since/)).toBeVisible();
  await page.goto('/units');
  await expect(page.getByRole('heading', { name: 'Retired' })).toBeVisible();
  await page.getByRole('link', { name: tag, exact: true }).click();
  await page.getByRole('tab', { name: 'Plate' }).click();
  await page.getByRole('button', { name: 'Move or retire' }).click();
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await page.getByRole('tab', { name: 'Due' }).click();
  await expect(page.getByRole('list', { name: 'What is due' })).toBeVisible();
});

test('a unit half added survives a reload', async ({ page }) => {
  await page.goto('/units/new');
  await page.getByLabel('Site', { exact: true }).click();
  await page.getByRole('option', { name: 'Brask Quarry' }).click();
  await page.getByLabel('Tag').fill('HALF-1');
  await page.getByLabel('Commissioned on').fill(dateAgo(3));
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByLabel('Maker').fill('Skolmund');
  await page.getByLabel('Free air delivered').fill('12 cfm');
  await page.reload();
  await expect(page.getByLabel('Maker')).toHaveValue('Skolmund');
  await expect(page.getByLabel('Free air delivered')).toHaveValue('339.8');
  await page.getByRole('button', { name: 'Back' }).click();
  await expect(page.getByLabel('Tag')).toHaveValue('HALF-1');
  await page.getByRole('button', { name: 'Discard' }).click();
  await page.goto('/units/new');
  await expect(page.getByLabel('Tag')).toHaveValue('');
});

test('adding a unit shows the plan that its family will begin with', async ({ page }) => {
  await page.goto('/units/new');
  await page.getByLabel('Family').click();
  await page.getByRole('option', { name: 'High pressure' }).click();
  await expect(page.getByRole('complementary')).toContainText('New purifier cartridge');
});

test('who is working is chosen once and stands in the record', async ({ page, office }, info) => {
  const tag = `WHO-${info.project.name}`;
  const id = await office.addCompressor(tag);
  await openCompressor(page, id, tag);
  await page.getByRole('button', { name: /working/ }).click();
  await page.getByLabel('Add a person').fill(`Runa ${info.project.name} Vest`);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(
    page.getByRole('button', { name: `Runa ${info.project.name} Vest is working. Change` }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Read hours' }).click();
  await page.getByLabel('Figure on the meter').fill('12');
  await page.getByRole('button', { name: 'Save reading' }).click();
  await expect((await openLogbook(page)).getByRole('listitem').first()).toContainText(
    `Runa ${info.project.name} Vest`,
  );
  await page.reload();
  await expect(page.getByRole('button', { name: /^Runa .* is working/ })).toBeVisible();
});
