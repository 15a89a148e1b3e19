import type { Page } from '@playwright/test';
import { expect, isPhone, itemsOf, settle, test } from './fixtures.js';
import { widthOf } from './looks.js';

/** The views of the valley. */
async function viewsOf(page: Page): Promise<readonly string[]> {
  const units = await itemsOf<{ id: string; siteId: string; tag: string }>(page, '/compressors?limit=200');
  const unit = units.find(({ tag }) => tag === 'BQ-1')!;
  const [visit] = await itemsOf<{ id: string }>(page, '/visits?show=open');
  return [
    '/',
    '/units',
    '/visits',
    '/bench/pump-up',
    '/parts',
    '/points',
    '/faults',
    '/practice',
    '/practice/noon/1',
    '/logbook',
    '/settings',
    '/lists',
    `/units/${unit.id}`,
    `/units/${unit.id}/plan`,
    `/sites/${unit.siteId}/walk`,
    `/visits/${visit!.id}?at=work`,
  ];
}

async function openView(page: Page, address: string): Promise<void> {
  await page.goto(address);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await settle(page);
}

/** What has the focus: its name, whether it shows it, and whether it lies in sight and uncovered. */
function focused(page: Page) {
  return page.evaluate(async () => {
    // The box that finds a unit gives its place to another once it has the focus.
    if (document.activeElement?.id === 'find-a-unit')
      while (!document.querySelector('#find-a-unit.MuiInputBase-input'))
        await new Promise(requestAnimationFrame);
    const one = document.activeElement;
    if (!(one instanceof HTMLElement) || one === document.body) return null;
    const isRinged = (part: Element) => {
      const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(part);
      const frame = part.querySelector('fieldset');
      return (
        (outlineStyle !== 'none' && parseFloat(outlineWidth) >= 1) ||
        boxShadow !== 'none' ||
        (frame !== null && parseFloat(getComputedStyle(frame).borderTopWidth) >= 2)
      );
    };
    // A field shows it on its frame, and what the focus changes is drawn with one of the next pictures.
    const shown = [one, one.closest('.MuiInputBase-root'), one.parentElement].filter((part) => part !== null);
    let rings = false;
    for (let pictures = 0; !rings && pictures < 30; pictures += 1) {
      await new Promise(requestAnimationFrame);
      rings = shown.some(isRinged);
    }
    const { left, top, width, height } = one.getBoundingClientRect();
    const [x, y] = [left + width / 2, top + height / 2];
    const above = document.elementFromPoint(x, y);
    return {
      name: (one.getAttribute('aria-label') || one.textContent || one.id).slice(0, 60),
      rings,
      isClear:
        y >= 0 &&
        y <= window.innerHeight &&
        (above === null || one.contains(above) || above.contains(one) || above.closest('label') !== null),
    };
  });
}

test('the keyboard reaches what a view offers: the focus shows, and nothing lies over it', async ({
  page,
}) => {
  for (const address of await viewsOf(page)) {
    await openView(page, address);
    const poor: string[] = [];
    let stops = 0;
    for (; stops < 45; stops += 1) {
      await page.keyboard.press('Tab');
      const now = await focused(page);
      if (now === null) break;
      if (!now.rings) poor.push(`no focus seen on ${now.name}`);
      if (!now.isClear) poor.push(`out of sight or covered: ${now.name}`);
    }
    expect([address, poor]).toEqual([address, []]);
    expect(stops).toBeGreaterThan(8);
  }
});

test('every place has its title; going there moves the focus to it and begins at its top', async ({
  page,
}) => {
  const titles = new Set<string>();
  const views = await viewsOf(page);
  for (const address of views) {
    await openView(page, address);
    await expect(page, address).toHaveTitle(/^.+ · Entretien$/);
    titles.add(await page.title());
  }
  expect(titles.size).toBe(views.length);
  await openView(page, '/logbook');
  const far = page
    .locator('main')
    .getByRole('link', { name: /^[A-Z]{2}-\d$/ })
    .nth(25);
  await far.scrollIntoViewIfNeeded();
  const stood = await page.evaluate(() => window.scrollY);
  expect(stood).toBeGreaterThan(200);
  await far.click();
  await expect(page.getByRole('heading', { level: 1, name: /^[A-Z]{2}-\d/ })).toBeVisible();
  expect(await page.evaluate(() => window.scrollY)).toBe(0);
  expect(await page.evaluate(() => document.activeElement?.closest('main') !== null)).toBe(true);
  await page.goBack();
  await expect.poll(() => page.evaluate(() => window.scrollY)).toBe(stood);
});

test('nothing runs off a screen of 320, and no target is under 24', { tag: '@phone' }, async ({ page }) => {
  const { height } = page.viewportSize()!;
  if (isPhone(page)) await page.setViewportSize({ width: 320, height });
  for (const address of await viewsOf(page)) {
    await openView(page, address);
    expect([address, await widthOf(page)]).toEqual([address, page.viewportSize()!.width]);
    const small = await page
      .locator('main :is(a, button, input, [role=button], [role=tab], [role=checkbox]):visible')
      .evaluateAll((all) =>
        all
          .filter((one) => {
            const target =
              one instanceof HTMLInputElement ? (one.closest('label, .MuiInputBase-root') ?? one) : one;
            const { width, height: tall } = target.getBoundingClientRect();
            // A link within a sentence is as tall as its line.
            return Math.min(width, tall) < 24 && !(one.matches('a') && one.closest('p') !== null);
          })
          .map((one) => (one.getAttribute('aria-label') ?? one.textContent ?? one.outerHTML).slice(0, 60)),
      );
    expect([address, small]).toEqual([address, []]);
  }
});
