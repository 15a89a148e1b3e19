import type { Page } from '@playwright/test';
import { expect, isPhone, settle, test } from './fixtures.js';
import { everyRule, violations, widthOf } from './looks.js';

const ended = (page: Page) => page.getByRole('region', { name: 'How it ended' });
const latest = (page: Page) => page.getByRole('status', { name: 'Latest' });

/** Does something at the machine and waits until it is done. */
async function does(page: Page, name: string | RegExp, group?: string): Promise<void> {
  if (group !== undefined) await page.getByRole('button', { name: group, exact: true }).click();
  const button = page.getByRole('button', { name }).first();
  await expect(button).toBeEnabled();
  await button.click();
  await expect(page.locator('[aria-busy=true]')).toHaveCount(0);
}

test(
  'an exercise to its safe end: begun, broken off by a reload, gone on with, mended and proved',
  { tag: '@phone' },
  async ({ page }) => {
    await page.goto('/practice');
    await page.getByRole('link', { name: /Full by noon/ }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('2 · Full by noon');
    await expect(page.getByRole('list', { name: 'The way of the air' })).toBeVisible();
    await page.getByRole('button', { name: 'Halted' }).click();
    await expect(page.getByRole('region', { name: 'Heard, smelt and seen' })).toContainText(
      'Drain of the receiver: air hisses out',
    );
    await expect(page.getByRole('region', { name: 'By thermometer' })).toContainText('in its box');
    await does(page, /^Drains and hand valves/);
    await expect(latest(page)).toHaveText('Drains and hand valves: One is open or passes');
    if (!isPhone(page)) expect(await violations(page, everyRule)).toEqual([]);
    await page.reload();
    await expect(latest(page)).toHaveText('Drains and hand valves: One is open or passes');
    await page.getByRole('button', { name: 'Halted' }).click();
    await does(page, /^Drain or cock open/, 'Mend');
    await expect(latest(page)).toContainText('found, and mended');
    await does(page, 'Try and prove it');
    await expect(ended(page).getByRole('status')).toContainText(/Mended and proved after \d min/);
    await expect(ended(page)).toContainText('It was: Drain or cock open, or its seat passes.');
    await expect(ended(page).getByRole('region', { name: 'The fault finder' })).toContainText('Mend');
    await settle(page);
    expect(await violations(page, everyRule)).toEqual([]);
    expect(await widthOf(page)).toBe(page.viewportSize()!.width);
    // It stays on the device, and is counted once however often it is looked at.
    await page.reload();
    await expect(ended(page)).toBeVisible();
    await page.getByRole('link', { name: 'Practice' }).first().click();
    await expect(page.getByRole('link', { name: /Full by noon/ })).toContainText(/Mended, best \d+/);
    const kept = await page.evaluate(
      () =>
        (JSON.parse(localStorage.getItem('entretien-practice')!) as { state: { results: unknown[] } }).state,
    );
    expect(kept.results).toHaveLength(1);
  },
);

test(
  'an exercise to an accident: a tower that filled again, and the step that was left out',
  { tag: '@phone' },
  async ({ page }) => {
    await page.goto('/practice/relief-blows/1');
    await page.getByRole('button', { name: 'Halted' }).click();
    await does(page, /^Stage pressures/);
    await does(page, 'Stop, and lock it');
    await expect(page.getByText('Your lock is on it.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Power on' })).toHaveCount(0);
    for (const handle of [/^Valve of bottle 1/, /^Valve of bottle 2/]) await does(page, handle);
    for (const handle of [/^Drain of separator of stage 1/, /^Drain of separator of stage 2/])
      await does(page, handle);
    await does(page, /^Discharge valve leaks/, 'Mend');
    const alert = ended(page).getByRole('alert');
    await expect(alert).toContainText('Somebody would be hurt now');
    await expect(alert).toContainText(/with \d+ bar in it \(Last separator and tower\)/);
    await expect(alert).toContainText('The bleed of the tower was never opened');
    await settle(page);
    expect(await violations(page, everyRule)).toEqual([]);
    await page.getByRole('button', { name: 'Again, the same' }).click();
    await expect(page.getByRole('list', { name: 'The way of the air' })).toBeVisible();
    await expect(latest(page)).toContainText('Look round first');
    await page.goto('/practice');
    await expect(page.getByRole('link', { name: /A relief valve blows/ })).toContainText('Somebody was hurt');
  },
);

test('time runs faster when it is asked to, advice costs ten minutes, and giving up is asked twice', async ({
  page,
}) => {
  await page.goto('/practice/afternoon/1');
  await page.getByRole('button', { name: '60 ×' }).click();
  const minutes = async () => Number.parseInt((await page.getByLabel('Clock').textContent())!, 10);
  await expect.poll(minutes).toBeGreaterThan(2);
  await page.getByRole('button', { name: 'Halted' }).click();
  await does(page, /^Stop, and lock it/);
  const before = await minutes();
  await does(page, /^Ask the fault finder/);
  await expect(page.getByRole('region', { name: 'Fault finder' })).toContainText(/\d+ %\./);
  expect(await minutes()).toBeGreaterThanOrEqual(before + 10);
  await page.getByRole('button', { name: 'Give up', exact: true }).click();
  await page.getByRole('button', { name: 'Keep trying' }).click();
  await page.getByRole('button', { name: 'Give up', exact: true }).click();
  await page.getByRole('button', { name: 'Give up, show what it was' }).click();
  await expect(ended(page)).toContainText('It was: Cooling');
  await expect(ended(page)).toContainText('1 × advice');
});

test('an exercise that is none says so; one drawn by lot begins', async ({ page }) => {
  for (const address of ['/practice/nothing/1', '/practice/noon/%3Cb%3E', '/practice/free/__proto__']) {
    await page.goto(address);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('No such exercise');
  }
  await page.getByRole('link', { name: 'All exercises' }).click();
  await page.getByRole('link', { name: /drawn by lot/ }).click();
  await expect(page.getByRole('list', { name: 'The way of the air' })).toBeVisible();
});
