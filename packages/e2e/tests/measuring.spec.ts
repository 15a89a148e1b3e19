import { randomUUID } from 'node:crypto';
import type { Page } from '@playwright/test';
import { beginCheck, daysAgo, expect, isPhone, openLogbook, openCompressor, test } from './fixtures.js';

const dialog = (page: Page) => page.getByRole('dialog');

test(
  'a measurement in two steps, judged while it is typed, found on its chart and on Today',
  { tag: '@phone' },
  async ({ page, office }, info) => {
    const tag = `MEAS-${info.project.name}`;
    const id = await office.addCompressor(tag, { family: 'screw' });
    await openCompressor(page, id, tag);
    await beginCheck(page, 'Pressure drop of the separator');
    const save = page.getByRole('button', { name: 'Save measurement' });
    await expect(save).toBeDisabled();
    await page.getByLabel('Drop', { exact: true }).fill('0.5');
    await expect(page.getByRole('status', { name: 'Verdict: good' })).toContainText(
      '0.5 bar lost in the element',
    );
    await page.getByLabel('Drop', { exact: true }).fill('16 psi');
    await expect(page.getByRole('status', { name: 'Verdict: act now' })).toContainText('1.1 bar');
    await expect(dialog(page)).toContainText('New separator element');
    await save.click();
    await expect(dialog(page)).toBeHidden();
    await expect(await openLogbook(page)).toContainText('Pressure drop of the separator, act now: ');
    await page.goto('/');
    await page.getByRole('link', { name: new RegExp(`${tag} Pressure drop`) }).click();
    await expect(
      page.getByRole('img', { name: /Pressure drop of the separator over run hours.*1\.1 bar, act now/ }),
    ).toBeVisible();
    await expect(page.getByRole('list', { name: /^Measurements of/ })).toContainText(
      '1.1 bar lost in the element',
    );
    await page.reload();
    await expect(page.getByRole('list', { name: /^Measurements of/ })).toContainText('Limit then: 1 bar');
  },
);

test.describe('without an answer', () => {
  test.use({ expectedErrors: { matching: [/ERR_FAILED/] } });

  test('a lost connection loses nothing', async ({ page, office }, info) => {
    const tag = `LOST-${info.project.name}`;
    const id = await office.addCompressor(tag, { family: 'screw' });
    await openCompressor(page, id, tag);
    await beginCheck(page, 'Pressure drop of the separator');
    await page.getByLabel('Drop', { exact: true }).fill('0.8');
    await page.route('**/measurements', (route) => route.abort('failed'));
    await page.getByRole('button', { name: 'Save measurement' }).click();
    await expect(dialog(page)).toContainText('The server does not answer');
    await expect(page.getByLabel('Drop', { exact: true })).toHaveValue('0.8');
    await page.unroute('**/measurements');
    await page.getByRole('button', { name: 'Save measurement' }).click();
    await expect(dialog(page)).toBeHidden();
  });
});

test('what stays the same is there the next time; a measurement is put right, another withdrawn', async ({
  page,
  office,
}, info) => {
  const tag = `STAY-${info.project.name}`;
  const id = await office.addCompressor(tag);
  await openCompressor(page, id, tag);
  for (const reading of ['0.1', '0.9']) {
    await beginCheck(page, 'Gauge at zero');
    await page.getByLabel('It shows, vented').fill(reading);
    if (reading === '0.1') await page.getByLabel('Full scale').fill('16');
    else await expect(page.getByLabel('Full scale')).toHaveValue('16');
    await page.getByRole('button', { name: 'yes', exact: true }).click();
    await page.getByRole('button', { name: 'Save measurement' }).click();
    await expect(dialog(page)).toBeHidden();
  }
  await page.getByRole('tab', { name: 'Checks' }).click();
  await page.getByRole('button', { name: /^Gauge at zero/ }).click();
  const list = page.getByRole('list', { name: 'Measurements of Gauge at zero' });
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await list.getByRole('button', { name: 'Correct' }).first().click();
  await expect(page.getByLabel('It shows, vented')).toHaveValue('0.9');
  await page.getByLabel('It shows, vented').fill('0.2');
  await page.getByRole('button', { name: 'Correct it' }).click();
  await expect(list).toContainText('Corrected by a later one.');
  await list.getByRole('button', { name: 'Withdraw' }).last().click();
  await page.getByRole('textbox', { name: 'Why' }).fill('Another gauge.');
  await page.getByRole('button', { name: 'Withdraw', exact: true }).last().click();
  await expect(list).toContainText('Withdrawn: Another gauge.');
});

test('the trend of a check, its limit, and what work did to it', async ({ page, office, request }, info) => {
  const tag = `TREND-${info.project.name}`;
  const id = await office.addCompressor(tag, { family: 'screw' });
  for (const [days, hours] of [
    [70, 0],
    [50, 100],
    [30, 200],
    [10, 300],
    [2, 340],
  ] as const) {
    await office.readHours(id, days, hours);
  }
  const measure = (days: number, dropBar: number) =>
    request.post(`/api/compressors/${id}/measurements`, {
      data: { id: randomUUID(), check: 'separator-drop', takenAt: daysAgo(days), values: { dropBar } },
    });
  await measure(60, 0.85);
  await request.post(`/api/compressors/${id}/services`, {
    data: { id: randomUUID(), doneAt: daysAgo(59), tasks: ['separator-replace'] },
  });
  // 0.2 bar and a tenth more for every hundred hours: 0.7 bar lies at about 555 h by the line; wear may quicken.
  for (const [days, drop] of [
    [58, 0.2],
    [40, 0.29],
    [20, 0.39],
    [3, 0.475],
  ] as const) {
    await measure(days, drop);
  }
  await page.goto(`/units/${id}?tab=checks&check=separator-drop`);
  await expect(page.getByText(/Wearing like this it reaches 0.7 bar near 5[1-8]\d h/)).toBeVisible();
  await expect(page.getByText('0.85 bar → 0.2 bar')).toBeVisible();
  await expect(page.getByText('A real change: more than measuring leaves open.')).toBeVisible();
  await expect(page.getByRole('img', { name: /over run hours.*Limit 0.7 bar/ })).toBeVisible();
});

test('only the checks that a unit has are offered, station by station', async ({ page, office }, info) => {
  const tag = `HAVE-${info.project.name}`;
  const id = await office.addCompressor(tag, { family: 'high-pressure', stages: 3 });
  await openCompressor(page, id, tag);
  await page.keyboard.press('m');
  await expect(dialog(page)).toContainText('Cartridge weight');
  await expect(dialog(page)).toContainText('CO monitor');
  await expect(dialog(page)).not.toContainText('Pressure drop of the separator');
  await page.getByLabel('Find a check or a station').fill('tower');
  await expect(dialog(page).getByRole('button', { name: 'Cartridge weight' })).toBeVisible();
  await page.getByLabel('Find a check or a station').fill('phase of the moon');
  await expect(dialog(page)).toContainText('Nothing on this unit is called that.');
  if (!isPhone(page)) await page.keyboard.press('Escape');
});
