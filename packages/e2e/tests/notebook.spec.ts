import { randomUUID } from 'node:crypto';
import { dateAgo, daysAgo, expect, settle, test } from './fixtures.js';
import { violations } from './looks.js';

test(
  'an oil plug that was opened is asked for on Today, found weeping, and leads to its repair',
  { tag: '@phone' },
  async ({ page, office }) => {
    const unit = await office.addScrew('FU-1');
    const service = { id: randomUUID(), doneAt: daysAgo(5), tasks: ['oil-change'] };
    const done = await page.request.post(`/api/compressors/${unit}/services`, { data: service });
    expect(done.status(), await done.text()).toBe(201);
    await page.goto('/');
    const onToday = page.getByRole('region', { name: 'Look again' });
    await expect(onToday).toContainText('FU-1');
    await settle(page);
    expect(await violations(page)).toEqual([]);
    await onToday.getByRole('link', { name: 'FU-1' }).click();
    const here = page.getByRole('region', { name: 'Look again' });
    await expect(here).toContainText('dry and tight?');
    await here.getByRole('button', { name: 'Not tight' }).click();
    await expect(here).toContainText('Nothing is tightened or loosened under pressure');
    await settle(page);
    expect(await violations(page)).toEqual([]);
    await here.getByRole('link', { name: 'Record it as a fault' }).click();
    await expect(page.getByRole('button', { name: 'Record a fault or a change' })).toBeVisible();
    // On record, and not asked for again.
    await page.reload();
    await expect(page.getByRole('tab', { name: 'Repairs' })).toBeVisible();
    await expect(page.getByRole('region', { name: 'Look again' })).toHaveCount(0);
    await page.getByRole('tab', { name: 'Logbook' }).click();
    await expect(page.getByText('What was opened, looked at again: not tight')).toBeVisible();
  },
);

test('what is learned at one machine stands at its sister', async ({ page, office }) => {
  const one = await office.addCompressor('MN-1', { maker: 'Brimvarg', model: 'Tow 50' });
  const sister = await office.addCompressor('MN-2', { maker: 'Brimvarg', model: 'TOW-50' });
  await page.goto(`/units/${one}?tab=plate`);
  const known = page.getByRole('region', { name: 'Known of this model' });
  await known.getByRole('button', { name: 'Add to it' }).click();
  await page.getByLabel('What is known').fill('The drain sits behind the left panel.');
  await page.getByRole('button', { name: 'Save for all of this model' }).click();
  await expect(known).toContainText('What helps: The drain sits behind the left panel.');
  await page.goto(`/units/${sister}?tab=plate`);
  await expect(page.getByRole('region', { name: 'Known of this model' })).toContainText('told at MN-1');
  await settle(page);
  expect(await violations(page)).toEqual([]);
});

test(
  'a machine that stood for six months is brought back point by point',
  { tag: '@phone' },
  async ({ page, office }) => {
    const unit = await office.addCompressor('ST-1', {
      family: 'screw',
      motor: 'diesel',
      commissionedOn: dateAgo(400),
    });
    for (const [days, hours] of [
      [390, 1000],
      [250, 1400],
      [183, 1600],
      [120, 1600],
      [60, 1600],
      [2, 1600],
    ] as const)
      await office.readHours(unit, days, hours);
    await page.goto(`/units/${unit}`);
    const stood = page.getByRole('region', { name: 'It has stood' });
    await stood.getByRole('button', { name: 'Bring it back' }).click();
    await settle(page);
    expect(await violations(page)).toEqual([]);
    const boxes = page.getByRole('dialog').getByRole('checkbox');
    const points = await boxes.count();
    expect(points).toBeGreaterThan(8);
    const submit = page.getByRole('dialog').getByRole('button', { name: /see to|It is back/ });
    for (let index = 0; index < points; index += 1) {
      await expect(submit).toBeDisabled();
      await boxes.nth(index).check();
    }
    await submit.click();
    await expect(stood).toHaveCount(0);
    await page.getByRole('tab', { name: 'Logbook' }).click();
    await expect(page.getByText(`Brought back after standing: ${points} points seen to`)).toBeVisible();
  },
);
