import type { Page } from '@playwright/test';
import { expect, itemsOf, test } from './fixtures.js';

/** Asked by the page's own scripts as well as before them, an answer would come twice over a poor line. */
async function askedTwice(page: Page, address: string): Promise<readonly string[]> {
  const asked: string[] = [];
  const note = (request: { url(): string }) => {
    const { pathname, search } = new URL(request.url());
    if (pathname.startsWith('/api/')) asked.push(pathname + search);
  };
  page.on('request', note);
  await page.goto(address);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.locator('main .MuiSkeleton-root')).toHaveCount(0);
  const untaken = () =>
    page.evaluate(() => Object.keys((window as { entretienEarly?: object }).entretienEarly ?? {}));
  await expect.poll(untaken, `${address}: nobody took them`).toEqual([]);
  page.off('request', note);
  expect(asked.length).toBeGreaterThan(1);
  const twice = asked.filter((one, index) => asked.indexOf(one) !== index);
  return twice;
}

test('what a view asks before its scripts are read is what it wants, and is asked once', async ({ page }) => {
  const [unit] = await itemsOf<{ id: string; siteId: string }>(page, '/compressors?limit=1');
  const [visit] = await itemsOf<{ id: string }>(page, '/visits?show=open');
  const addresses = [
    '/',
    '/units',
    '/units/new',
    `/units/${unit!.id}`,
    `/units/${unit!.id}/plan`,
    `/sites/${unit!.siteId}/walk`,
    '/visits',
    `/visits/${visit!.id}`,
    '/parts',
    '/logbook',
    '/bench',
  ];
  for (const address of addresses) expect([address, await askedTwice(page, address)]).toEqual([address, []]);
});

test('keys pressed before the list of units is there are not lost', async ({ page }) => {
  let release: () => void = () => undefined;
  const held = new Promise<void>((resolve) => (release = resolve));
  await page.route('**/assets/FindBox-*.js', async (route) => {
    await held;
    await route.continue();
  });
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('tarnholm');
  release();
  await expect(page.getByRole('option', { name: /TR-1/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /^TR-1/ })).toBeVisible();
});
