import type { Page } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { dateAgo, expect, isPhone, itemsOf, settle, test } from './fixtures.js';
import { smallTargets, violations, widthOf } from './looks.js';

/** What somebody does, counted: refusals and safety confirmations apart. */
const MOST_TOUCHES = 9;

async function setOf(page: Page, tag: string): Promise<string> {
  const units = await itemsOf<{ id: string; tag: string }>(page, '/compressors');
  return units.find((unit) => unit.tag === tag)!.id;
}

/** Cylinders of the place: a sound one, one for another gas, one without papers. */
async function bringCylinders(page: Page, set: string): Promise<void> {
  const unit = (await (await page.request.get(`/api/compressors/${set}`)).json()) as { siteId: string };
  const rescue = { kind: 'cylinder', siteId: unit.siteId, compressorIds: [set], ratedBar: 300, volumeL: 6.8 };
  const papers = { testEveryMonths: 60, lastTestOn: dateAgo(700) };
  for (const more of [
    { tag: 'T-01', ...papers },
    { tag: 'T-07', ...papers },
    { tag: 'T-02', gas: 'nitrox', ...papers },
    { tag: 'T-09' },
  ]) {
    const data = { id: randomUUID(), ...rescue, connectorBar: 300, ...more };
    const answer = await page.request.post('/api/vessels', { data });
    expect(answer.status(), await answer.text()).toBe(201);
  }
}

test('a cylinder is filled with one hand, from the list to the log', { tag: '@phone' }, async ({ page }) => {
  let touches = 0;
  const touch = async (name: string | RegExp) => {
    touches += 1;
    await page.getByRole('button', { name }).first().click();
  };
  const set = await setOf(page, 'SP-1');
  await bringCylinders(page, set);
  await page.goto(`/units/${set}/fill`);
  touches += 1;
  await touch(/^T-07/);
  await page.getByLabel('It shows now').fill('96');
  touches += 1;
  await page.getByLabel('The CO monitor shows, ppm').fill('1');
  touches += 1;
  await settle(page);
  expect(await widthOf(page)).toBe(page.viewportSize()!.width);
  expect(await violations(page)).toEqual([]);
  if (isPhone(page)) expect(await smallTargets(page, 'main')).toEqual([]);
  // Safety, each for itself.
  await expect(page.getByRole('button', { name: 'Air flows' })).toBeDisabled();
  await page.getByRole('button', { name: '300 bar', exact: true }).click();
  for (const name of [/^Cylinder and valve/, /^Secured/, /^Pressure built/])
    await page.getByRole('checkbox', { name }).click();
  await touch('Air flows');
  await expect(page.getByRole('img', { name: /^From 96 bar to 300 bar/ })).toBeVisible();
  await page.reload();
  await expect(page.getByText('Watch the needle')).toBeVisible();
  await touch(/^Full: 300 bar/);
  await expect(page.getByText('Settles at')).toBeVisible();
  await touch('Save');
  await expect(page.getByText(/T-07 is in the log/)).toBeVisible();
  expect(touches).toBeLessThanOrEqual(MOST_TOUCHES);
  await expect(page.getByText('1 filled today.')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: /^T-07/ })).toBeVisible();
  // The code that is fixed to it opens its fill.
  await expect(page.getByRole('link', { name: 'Print a code for each' })).toHaveAttribute(
    'href',
    `/api/compressors/${set}/cylinder-labels.pdf`,
  );
  const known = (await (await page.request.get(`/api/vessels?compressorId=${set}`)).json()) as {
    items: { id: string; tag: string }[];
  };
  const { id } = known.items.find(({ tag }) => tag === 'T-07')!;
  await page.goto(`/units/${set}/fill?cylinder=${id}`);
  await expect(page.getByRole('region', { name: 'Fill T-07' })).toBeVisible();
  await page.goto('/logbook?q=T-07');
  await expect(page.getByText(/T-07 from 96 bar/).first()).toBeVisible();
});

test('one for another gas, and one without papers, are refused before air flows', async ({ page }) => {
  const set = await setOf(page, 'SP-1');
  await bringCylinders(page, set);
  await page.goto(`/units/${set}/fill`);
  await expect(page.getByText(/Do not fill: It is not for air/).first()).toBeVisible();
  await expect(page.getByText(/Do not fill: No test of it is on record/).first()).toBeVisible();
  await page.getByRole('button', { name: /^T-02/ }).click();
  await expect(page.getByRole('alert')).toContainText('It is not for air');
  await page.getByLabel('It shows now').fill('50');
  await page.getByRole('button', { name: '300 bar', exact: true }).click();
  for (const name of [/^Cylinder and valve/, /^Secured/, /^Pressure built/])
    await page.getByRole('checkbox', { name }).click();
  await expect(page.getByRole('button', { name: 'Air flows' })).toBeDisabled();
  // Found empty, a sound one is refused too.
  await page.getByRole('button', { name: 'Another cylinder' }).click();
  await page.getByRole('button', { name: /^T-01/ }).click();
  await page.getByLabel('The CO monitor shows, ppm').fill('6');
  await expect(page.getByRole('alert')).toContainText('above 5 ppm nobody breathes it');
  await page.getByLabel('The CO monitor shows, ppm').fill('1');
  await page.getByLabel('It shows now').fill('0');
  await expect(page.getByRole('alert')).toContainText('found empty');
});
