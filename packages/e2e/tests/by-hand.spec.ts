import type { Page } from '@playwright/test';
import { expect, isPhone, settle, test } from './fixtures.js';
import { widthOf } from './looks.js';

/** The views of the valley, each with what its title says. */
async function viewsOf(page: Page): Promise<readonly (readonly [string, RegExp])[]> {
  const list = async <Item>(path: string) =>
    ((await (await page.request.get(`/api${path}`)).json()) as { items: Item[] }).items;
  const units = await list<{ id: string; siteId: string; tag: string }>('/compressors?limit=200');
  const unit = units.find(({ tag }) => tag === 'BQ-1')!;
  const [visit] = await list<{ id: string }>('/visits?show=open');
  return [
    ['/', /Today/],
    ['/units', /Units/],
    ['/visits', /Visits/],
    ['/bench/pump-up', /Pump-up/],
    ['/parts', /Parts/],
    ['/logbook', /Logbook/],
    ['/settings', /Workshop/],
    ['/lists', /Lists|Import/],
    [`/units/${unit.id}`, /BQ-1/],
    [`/units/${unit.id}/plan`, /BQ-1/],
    [`/sites/${unit.siteId}/walk`, /hours/],
    [`/visits/${visit!.id}?at=work`, /.+ · Entretien/],
  ];
}

async function openView(page: Page, address: string): Promise<void> {
  await page.goto(address);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await settle(page);
}

/** What has the focus: its name, whether it shows it, and whether it lies in sight and uncovered. */
function focused(page: Page) {
  return page.evaluate(() => {
    const one = document.activeElement;
    if (!(one instanceof HTMLElement) || one === document.body) return null;
    // A field shows it on its frame.
    const shown = [one, one.closest('.MuiInputBase-root'), one.parentElement].filter((part) => part !== null);
    const rings = shown.some((part) => {
      const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(part);
      const frame = part.querySelector('fieldset');
      return (
        (outlineStyle !== 'none' && parseFloat(outlineWidth) >= 1) ||
        boxShadow !== 'none' ||
        (frame !== null && parseFloat(getComputedStyle(frame).borderTopWidth) >= 2)
      );
    });
    const { left, top, width, height } = one.getBoundingClientRect();
    const [x, y] = [left + width / 2, top + height / 2];
    const above = document.elementFromPoint(x, y);
    return {
      name: (one.getAttribute('aria-label') ?? one.textContent ?? one.id).slice(0, 60),
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
  for (const [address] of await viewsOf(page)) {
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
  for (const [address, title] of await viewsOf(page)) {
    await openView(page, address);
    await expect(page, address).toHaveTitle(title);
  }
  await openView(page, '/parts');
  await page.evaluate(() => window.scrollTo(0, 600));
  await page.getByRole('link', { name: 'Logbook' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /Logbook/ })).toBeVisible();
  await expect.poll(() => page.evaluate(() => window.scrollY)).toBe(0);
  expect(await page.evaluate(() => document.activeElement?.closest('main') !== null)).toBe(true);
  await page.goBack();
  await expect.poll(() => page.evaluate(() => window.scrollY)).toBeGreaterThan(300);
});

test('nothing runs off a screen of 320, and no target is under 24', { tag: '@phone' }, async ({ page }) => {
  const { height } = page.viewportSize()!;
  if (isPhone(page)) await page.setViewportSize({ width: 320, height });
  for (const [address] of await viewsOf(page)) {
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
