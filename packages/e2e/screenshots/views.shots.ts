import { resolve } from 'node:path';
import type { Page } from '@playwright/test';
import { phone } from '../shared.config.js';
import { dateAgo, expect, itemsOf, settle, test } from '../tests/fixtures.js';

const folder = resolve(import.meta.dirname, '../../../docs/screenshots');

async function take(page: Page, name: string): Promise<void> {
  await settle(page);
  await page.screenshot({ path: `${folder}/${name}.png`, animations: 'disabled' });
}

async function openCompressor(page: Page, tag: string): Promise<void> {
  await page.goto('/units');
  await page.getByRole('link', { name: tag, exact: true }).click();
  await expect(page.getByRole('heading', { name: new RegExp(`^${tag}`) })).toBeVisible();
}

/** Whoever works here has said so, as on every day but the first. */
test.beforeEach(async ({ page }) => {
  const people = await itemsOf<{ id: string; name: string }>(page, '/people');
  const personId = people.find(({ name }) => name === 'Mira Kolden')!.id;
  const kept = JSON.stringify({ state: { personId }, version: 0 });
  await page.addInitScript((text) => localStorage.setItem('entretien-preferences', text), kept);
});

test('today', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByText('Coppel Joinery').first()).toBeVisible();
  await take(page, 'today');
});

test('register', async ({ page }) => {
  await page.goto('/units');
  await expect(page.getByText('SP-1').first()).toBeVisible();
  await take(page, 'units');
});

test('unit', async ({ page }) => {
  await page.goto(`/units/${await idOf(page, 'TR-1')}?station=tower`);
  await expect(page.getByRole('list', { name: 'Tasks at Purifier tower' })).toBeVisible();
  await take(page, 'unit');
});

test('a plan with a look ahead', async ({ page }) => {
  await page.goto(`/units/${await idOf(page, 'HC-1')}/plan?task=separator-replace`);
  await page.getByRole('radio', { name: /^By pressure drop/ }).check();
  await expect(page.getByRole('list', { name: 'What changes' })).toBeVisible();
  await take(page, 'plan');
});

test('run hours with their forecast', async ({ page }) => {
  await openCompressor(page, 'BQ-1');
  await page.getByRole('tab', { name: 'Hours' }).click();
  await expect(page.getByRole('img', { name: /^Run hours/ })).toBeVisible();
  await take(page, 'run-hours');
});

test('a list of readings looked through', async ({ page }) => {
  const rows = ['HC-2;764;', 'VB-1;9200;low', 'XX-1;77;', 'TR-1;556,5;'].map((row, index) => {
    const [tag, hours, note] = row.split(';');
    return `${tag};${dateAgo(index + 2)};${hours};${note}`;
  });
  const buffer = Buffer.from(['Unit;Date;Hours;Remarks', ...rows].join('\r\n'));
  await page.goto('/lists');
  await page.getByLabel('List to read').setInputFiles({ name: 'november.csv', mimeType: 'text/csv', buffer });
  await page.getByRole('button', { name: 'Check' }).click();
  await expect(page.getByText(/can be imported/)).toBeVisible();
  await take(page, 'lists');
});

test.describe('without a connection', () => {
  test.use({ ownContext: true, expectedErrors: { matching: [/ERR_INTERNET_DISCONNECTED/] } });

  test('the walk through a site, on a phone without a connection', async ({ page, context }) => {
    await page.setViewportSize(phone);
    await page.goto('/');
    await page.getByRole('link', { name: 'Read the hours at Haldris Creamery' }).click();
    await expect(page.getByLabel('Figure on HC-2')).toBeVisible();
    await settle(page);
    const text = (await page.getByText('is expected').first().textContent())!;
    const expected = Number(/([\d,]+) to/.exec(text)![1]!.replace(',', ''));
    await context.setOffline(true);
    await page.getByLabel('Figure on HC-1').fill(String(expected + 3));
    await page.keyboard.press('Enter');
    await expect(page.getByText('kept here, not sent yet')).toBeVisible();
    await page.getByLabel('Figure on HC-2').fill('880');
    await page.getByLabel('Figure on HC-2').press('Enter');
    await settle(page);
    await page.screenshot({ path: `${folder}/walk-phone.png`, animations: 'disabled' });
  });
});

test('adding a unit', async ({ page }) => {
  await page.goto('/units/new');
  await page.getByLabel('Family').click();
  await page.getByRole('option', { name: 'High pressure' }).click();
  await page.getByLabel('Tag').fill('SP-2');
  await page.getByLabel('Site', { exact: true }).click();
  await page.getByRole('option', { name: 'Skarn Pass Avalanche Centre' }).click();
  await page.getByLabel('Commissioned on').fill(dateAgo(0));
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByLabel('Working pressure').fill('300');
  await page.getByLabel('Relief setting').fill('4000 psi');
  await page.getByRole('status', { name: 'About these figures' }).scrollIntoViewIfNeeded();
  await take(page, 'add-unit');
});

/** The id of a unit of the valley. */
async function idOf(page: Page, tag: string): Promise<string> {
  const { items } = (await (await page.request.get('/api/compressors?limit=200')).json()) as {
    items: { id: string; tag: string }[];
  };
  return items.find((unit) => unit.tag === tag)!.id;
}

test('a visit on a phone, isolated one space a screen', async ({ page }) => {
  await page.setViewportSize(phone);
  await page.goto(`/visits/${await visitOf(page, 'planned')}?at=isolate`);
  for (const hold of [/^Hold: it is so/, /^Hold: it is so/, /^Hold: opened/]) {
    const held = await page.getByRole('status').first().textContent();
    await page.getByRole('button', { name: hold }).click({ delay: 1150 });
    if (String(hold).includes('so')) await expect(page.getByRole('status').first()).not.toHaveText(held!);
  }
  await expect(page.getByRole('button', { name: /^Hold: silent/ })).toBeVisible();
  await page.screenshot({ path: `${folder}/visit-phone.png`, animations: 'disabled' });
});

test('a visit signed for', async ({ page }) => {
  await page.goto(`/visits/${await visitOf(page, 'finished')}?at=sign`);
  await expect(page.getByRole('region', { name: 'Service tag' })).toBeVisible();
  await take(page, 'visit-sign');
});

test('a repair with its guided overhaul, by night', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' });
  const repairs = await page.request.get(`/api/compressors/${await idOf(page, 'HC-2')}/repairs`);
  const [repair] = ((await repairs.json()) as { items: { id: string }[] }).items;
  await page.goto(`/repairs/${repair!.id}?guide=ring-kit`);
  await expect(page.getByRole('checkbox', { name: 'Fan off first' })).toBeVisible();
  await take(page, 'repair');
});

test('the catalogue', async ({ page }) => {
  await page.goto('/parts');
  await expect(page.getByText('Oil filter 92 × 140')).toBeVisible();
  await take(page, 'parts');
});

test('the logbook, searched', async ({ page }) => {
  await page.goto('/logbook?q=separator');
  await expect(page.getByRole('list', { name: 'Entries' })).toBeVisible();
  await take(page, 'logbook');
});

/** The visit of the valley that is in a state. */
async function visitOf(page: Page, state: string): Promise<string> {
  const { items } = (await (await page.request.get('/api/visits')).json()) as {
    items: { id: string; state: string }[];
  };
  return items.find((visit) => visit.state === state)!.id;
}

test('a measurement judged while it is typed', async ({ page }) => {
  await openCompressor(page, 'CJ-1');
  await page.getByRole('button', { name: 'Measure', exact: true }).first().click();
  await page.getByRole('dialog').getByRole('button', { name: 'Pump-up time' }).click();
  await page.getByRole('textbox', { name: 'Time' }).fill('112');
  await expect(page.getByRole('status', { name: /^Verdict/ })).toBeVisible();
  await take(page, 'measure');
});

test('a check over the run hours', async ({ page }) => {
  await page.goto(`/units/${await idOf(page, 'OG-1')}?tab=checks&check=separator-drop`);
  await expect(page.getByRole('img', { name: /^Pressure drop/ })).toBeVisible();
  await take(page, 'check');
});

test('bench: interstage pressures', async ({ page }) => {
  const typed =
    'intakeTempC=17&stage1Bar=5.1&stage1TempC=151&stage2Bar=54&stage2TempC=168&stage3Bar=298&stage3TempC=199';
  await page.goto(`/bench/ladder?unit=${await idOf(page, 'SP-1')}&${typed}`);
  await expect(page.getByRole('img', { name: /^Pressure by stage/ })).toBeVisible();
  await take(page, 'bench-interstage');
});

test('a point of use', async ({ page }) => {
  const points = (await (await page.request.get('/api/points')).json()) as {
    items: { id: string; tag: string }[];
  };
  await page.goto(`/points/${points.items.find(({ tag }) => tag === 'P-21')!.id}`);
  await expect(page.getByRole('img', { name: /^From CJ-1/ })).toBeVisible();
  await expect(
    page.getByRole('region', { name: 'What was done' }).getByRole('listitem').first(),
  ).toBeVisible();
  await take(page, 'point');
});

test('fault finder', async ({ page }) => {
  await page.goto(`/units/${await idOf(page, 'LD-1')}/faults`);
  await page.getByRole('button', { name: 'Runs on, never reaches cut-out' }).click();
  const next = page.getByRole('region', { name: 'Next test' });
  for (const answer of ['Under 80 %', 'All shut and silent']) {
    const button = next.getByRole('button', { name: answer });
    await button.click();
    await expect(button).toBeHidden();
  }
  await expect(next).toBeVisible();
  await take(page, 'faults');
});

test('practice', async ({ page }) => {
  await page.goto('/practice/relief-blows/1');
  await expect(page.getByRole('list', { name: 'The way of the air' })).toBeVisible();
  await page.getByRole('button', { name: 'Halted' }).click();
  await page.getByRole('button', { name: /^Stage pressures/ }).click();
  await expect(page.getByRole('status', { name: 'Latest' })).toHaveText('Stage pressures: One is high');
  await page.getByRole('button', { name: 'Tool box' }).click();
  await page.evaluate(() => window.scrollTo(0, 0));
  await take(page, 'practice');
});
