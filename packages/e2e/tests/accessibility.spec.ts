import type { Page } from '@playwright/test';
import { expect, isPhone, itemsOf, openCompressor, settle, test } from './fixtures.js';
import { smallTargets, violations, widthOf } from './looks.js';

const views = [
  [
    '/',
    '/units',
    '/units/new',
    '/lists',
    'walk',
    '/visits',
    '/parts',
    '/points',
    '/logbook',
    '/faults',
    '/practice',
  ],
  [
    '/bench/pump-up',
    '/bench/leaks?way=hole&diameterMm=3&pressureBar=7',
    '/bench/ladder?stages=3&workingBar=300&intakeTempC=20',
    '/bench/water?intakeTempC=20&humidity=70&fadLpm=200&finalBar=225&separatorTempC=30&cartridgeG=150',
    '/bench/cylinders?banks=50*200&cylinders=12*40*300*2099-05-31',
    '/bench/convert?figure=10',
    'repair',
  ],
  [
    'unit',
    'unit?tab=checks',
    'unit?tab=hours',
    'unit?tab=plate',
    'unit?tab=plan',
    'unit?station=receiver',
    'unit/plan?task=belt-check',
    'unit?tab=repairs',
    'unit/faults',
    'unit/history',
  ],
  [
    'visit?at=prepare',
    'visit?at=before',
    'visit?at=isolate',
    'visit?at=work',
    'visit?at=prove',
    'visit?at=sign',
    'signed',
  ],
];

/** Visits and repairs of the valley, which the views above speak of. */
async function addressesOf(page: Page): Promise<Readonly<Record<'visit' | 'signed' | 'repair', string>>> {
  const visits = await itemsOf<{ id: string; state: string }>(page, '/visits');
  const units = await itemsOf<{ id: string; tag: string }>(page, '/compressors?limit=200');
  const [repair] = await itemsOf<{ id: string }>(
    page,
    `/compressors/${units.find(({ tag }) => tag === 'HC-2')!.id}/repairs`,
  );
  return {
    visit: `/visits/${visits.find(({ state }) => state === 'planned')!.id}`,
    signed: `/visits/${visits.find(({ state }) => state === 'finished')!.id}?at=sign`,
    repair: `/repairs/${repair!.id}?guide=ring-kit`,
  };
}

function addressOf(
  view: string,
  compressorId: string,
  siteId: string,
  answers: Record<string, string>,
): string {
  if (view === 'walk') return `/sites/${siteId}/walk`;
  return view
    .replace(/^unit/, `/units/${compressorId}`)
    .replace(/^(visit|signed|repair)/, (word) => answers[word]!);
}

for (const [part, some] of views.entries()) {
  const title = `views ${part + 1}: within the page, large enough for a thumb, readable and named for everybody, by light and by night`;
  test(title, { tag: '@phone' }, async ({ page, office }, info) => {
    const id = await office.addCompressor(`LOOK-${info.project.name}`, {
      name: 'A very long name of a place that would push a page apart if it were let',
    });
    await office.readHours(id, 5, 123456.7);
    const { siteId } = await office.addWalk(`Walk ${info.project.name}`, ['W-1', 'W-2']);
    const answers = await addressesOf(page);
    for (const view of some) {
      await page.goto(addressOf(view, id, siteId, answers));
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await settle(page);
      expect([view, await widthOf(page)]).toEqual([view, page.viewportSize()!.width]);
      if (isPhone(page)) expect([view, await smallTargets(page)]).toEqual([view, []]);
      expect([view, await violations(page)]).toEqual([view, []]);
      if (isPhone(page)) continue;
      // By night only the colours are others, and they are the same on every device.
      await page.emulateMedia({ colorScheme: 'dark' });
      await expect(page.locator('html')).toHaveAttribute('data-scheme', 'dark');
      await settle(page);
      expect([view, await violations(page, ['color-contrast'])]).toEqual([view, []]);
      await page.emulateMedia({ colorScheme: 'light' });
    }
  });
}

test(
  'every machine of the valley keeps to the width of the page, its dialogs too',
  { tag: '@phone' },
  async ({ page, request }) => {
    const { items } = (await (await request.get('/api/compressors?limit=200')).json()) as {
      items: { id: string; tag: string }[];
    };
    expect(items.length).toBeGreaterThanOrEqual(14);
    for (const { id, tag } of items) {
      await openCompressor(page, id, tag);
      expect([tag, await widthOf(page)]).toEqual([tag, page.viewportSize()!.width]);
      await page.getByRole('button', { name: 'Record service' }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
      expect([tag, await widthOf(page)]).toEqual([tag, page.viewportSize()!.width]);
    }
  },
);

test('waiting is named for everybody too', async ({ page }) => {
  await page.route('**/api/standings?*', () => undefined);
  await page.goto('/units');
  await expect(page.getByRole('status', { name: 'Loading' })).toBeVisible();
});

test('the keys of the desk', async ({ page, office }, info) => {
  const tag = `KEY-${info.project.name}`;
  const id = await office.addCompressor(tag);
  await office.readHours(id, 5, 40);
  await openCompressor(page, id, tag);
  await page.keyboard.press('n');
  await expect(page.getByRole('dialog', { name: /Read the hours/ })).toBeVisible();
  // Letters are letters while somebody types.
  await page.getByLabel('Note').fill('');
  await page.getByLabel('Note').pressSequentially('h?n');
  await expect(page.getByLabel('Note')).toHaveValue('h?n');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByRole('group', { name: /^Ruler in days/ })).toBeVisible();
  await page.keyboard.press('h');
  await expect(page.getByRole('group', { name: /^Ruler in run hours/ })).toBeVisible();
  await page.keyboard.press(']');
  await expect(page.getByRole('heading', { level: 1, name: new RegExp(`^${tag}`) })).toBeHidden();
  await expect(page.getByRole('list', { name: 'What is due' })).toBeVisible();
  await page.keyboard.press('[');
  await expect(page).toHaveURL(new RegExp(id));
  await page.keyboard.press('?');
  await page.getByRole('switch', { name: 'Single letters act as keys' }).uncheck();
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  // Pressed before what the key after it does, a dialog of its own would stand open by then.
  await page.keyboard.press('n');
  await page.keyboard.press('h');
  await page.getByRole('button', { name: 'Read hours' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(1);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByRole('group', { name: /^Ruler in run hours/ })).toBeVisible();
});

test('a unit is found from anywhere', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('tarnholm');
  await expect(page.getByRole('option', { name: /TR-1/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /^TR-1/ })).toBeVisible();
});

test('the ruler is dragged and zoomed, and comes back', async ({ page, office }, info) => {
  const tag = `ZOOM-${info.project.name}`;
  const id = await office.addCompressor(tag);
  await office.readHours(id, 20, 100);
  await office.readHours(id, 10, 180);
  await openCompressor(page, id, tag);
  const ruler = page.getByRole('group', { name: /^Ruler in/ });
  const labels = () => ruler.locator('svg text').allTextContents();
  await expect.poll(async () => (await labels()).length).toBeGreaterThan(2);
  const home = await labels();
  await page.getByRole('button', { name: 'Zoom in' }).click();
  await expect.poll(labels).not.toEqual(home);
  await page.getByRole('button', { name: 'Back to now' }).click();
  await expect.poll(labels).toEqual(home);
  const box = (await ruler.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height - 60);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 120, box.y + box.height - 60, { steps: 5 });
  await page.mouse.up();
  await expect.poll(labels).not.toEqual(home);
  await ruler.focus();
  await page.keyboard.press('Home');
  await expect.poll(labels).toEqual(home);
  await page.keyboard.press('ArrowRight');
  await expect.poll(labels).not.toEqual(home);
});

test('figures are shown in the measure that the person reads in', async ({ page, office }, info) => {
  const tag = `PSI-${info.project.name}`;
  const id = await office.addCompressor(tag, { workingPressureBar: 10, fadLpm: 340 });
  await openCompressor(page, id, tag);
  await expect(page.getByRole('main')).toContainText('10bar');
  await page.getByRole('button', { name: /working/ }).click();
  await page.getByRole('button', { name: 'psi' }).click();
  await page.getByRole('button', { name: 'cfm' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('main')).toContainText('145psi');
  await expect(page.getByRole('main')).toContainText('12cfm');
  await page.reload();
  await expect(page.getByRole('main')).toContainText('145psi');
});

test('the colours are chosen by hand and kept', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /working/ }).click();
  await page.getByRole('button', { name: 'dark', exact: true }).click();
  const ground = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  await expect.poll(ground).toBe('rgb(22, 28, 30)');
  await page.reload();
  await expect.poll(ground).toBe('rgb(22, 28, 30)');
});
