import type { Locator, Page } from '@playwright/test';
import { expect, isPhone, itemsOf, settle, test } from './fixtures.js';
import { everyRule, smallTargets, violations, widthOf } from './looks.js';

const DIALOG = '[role=dialog]';

/** A name that is not the same on a phone stands as both. */
type Touch = string | RegExp | { readonly desk: string; readonly phone: RegExp };

/** Where a dialog is reached, and what is pressed to open it. */
type Way = readonly [at: string, ...touches: Touch[]];

const shell: readonly Way[] = [
  ['/', 'Say who'],
  ['/', 'What the marks mean'],
  ['/', /^Say who is working/],
  ['/', /^Say who is working/, 'Keyboard shortcuts'],
  ['/units', 'Sites'],
  ['/units', 'Sites', /^Edit /],
  ['/units', 'Sites', 'Add a site'],
  ['/visits', 'Plan a visit'],
  ['/parts', 'Add a part'],
  ['/parts', /^Edit /],
  ['/parts', /^Count /],
  ['/parts', /^Compare /],
  ['/points', 'Add a point'],
];
const machine: readonly Way[] = [
  ['unit', 'Read hours'],
  ['unit', 'Measure'],
  ['unit', 'Record service'],
  ['unit', 'Visit'],
  ['unit?do=estimate'],
  ['unit?tab=plate', 'Change data plate'],
  ['unit?tab=plate', 'Move or retire'],
  ['unit?tab=plate', 'Add a paper or a sound'],
  ['taken over', 'Set last done'],
  ['unit?tab=repairs', 'Record a fault or a change'],
  ['unit?tab=repairs', 'Take out of service'],
  ['unit?tab=logbook', /^Withdraw: Hours/],
  ['unit?station=receiver', 'Add its vessel'],
  ['unit?station=receiver', 'Why: Gauge and switch points'],
  ['unit?station=receiver', 'Measure: Relief valve'],
  ['unit', { desk: 'Why: Engine oil and filters', phone: /Engine oil and filters/ }, 'Put off'],
  ['unit/plan', 'Copy to others'],
  ['repair', /^Correct: /],
];
const visit: readonly Way[] = [
  ['visit?at=work', 'Found a fault'],
  ['visit?at=work', /^Not done: /],
  ['visit?at=work', 'Another part'],
];

async function addressesOf(page: Page): Promise<Readonly<Record<string, string>>> {
  const units = await itemsOf<{ id: string; tag: string }>(page, '/compressors?limit=200');
  const visits = await itemsOf<{ id: string }>(page, '/visits?show=open');
  const sets = units.find(({ tag }) => tag === 'HC-2')!;
  const [repair] = await itemsOf<{ id: string }>(page, `/compressors/${sets.id}/repairs?show=open`);
  return {
    repair: `/repairs/${repair!.id}`,
    unit: `/units/${units.find(({ tag }) => tag === 'BQ-1')!.id}`,
    visit: `/visits/${visits[0]!.id}`,
    'taken over': `/units/${units.find(({ tag }) => tag === 'HT-1')!.id}`,
  };
}

function nameFor(touch: Touch, phone: boolean): string | RegExp {
  if (typeof touch === 'string' || touch instanceof RegExp) return touch;
  return phone ? touch.phone : touch.desk;
}

function nameOf(dialog: Locator): Promise<string> {
  return dialog.evaluate((one) => {
    const title = document.getElementById(one.getAttribute('aria-labelledby') ?? '');
    return (title?.textContent ?? one.getAttribute('aria-label'))!;
  });
}

const groups = { 'of the frame and the lists': shell, 'of a machine': machine, 'of a visit': visit };

for (const [which, ways] of Object.entries(groups)) {
  test(
    `dialogs ${which}: named, readable, within the page, and closed by a key`,
    { tag: '@phone' },
    async ({ page }) => {
      // A dozen of dialogs and more, each by light and by night: as long as several tests.
      test.slow();
      const addresses = await addressesOf(page);
      let last = '';
      for (const [at, ...touches] of ways) {
        const way = [at, ...touches.map((touch) => nameFor(touch, isPhone(page)))].join(' › ');
        if (at !== last || touches.length > 1)
          await page.goto(at.replace(/^(unit|visit|taken over|repair)/, (word) => addresses[word]!));
        last = at;
        // What opens by its address alone covers the heading from the first moment on.
        const first = touches.length > 0 ? page.getByRole('heading', { level: 1 }) : page.getByRole('dialog');
        await expect(first).toBeVisible();
        await settle(page);
        for (const touch of touches)
          await page
            .getByRole('button', { name: nameFor(touch, isPhone(page)), exact: typeof touch === 'string' })
            .first()
            .click();
        const dialog = page.getByRole('dialog').last();
        await expect(dialog, way).toBeVisible();
        await settle(page);
        expect([way, await widthOf(page)]).toEqual([way, page.viewportSize()!.width]);
        expect([way, await violations(page, everyRule, DIALOG)]).toEqual([way, []]);
        const isWithin = () =>
          page.evaluate(() => document.activeElement?.closest('[role=dialog]') instanceof Element);
        if (isPhone(page)) {
          expect([way, await smallTargets(page, DIALOG)]).toEqual([way, []]);
        } else {
          await page.emulateMedia({ colorScheme: 'dark' });
          await settle(page);
          expect([way, await violations(page, ['color-contrast'], DIALOG)]).toEqual([way, []]);
          await page.emulateMedia({ colorScheme: 'light' });
          // Round the end of it and back: the keyboard does not fall out behind it.
          for (const key of ['Shift+Tab', 'Shift+Tab', 'Tab', 'Tab', 'Tab']) {
            await page.keyboard.press(key);
            expect([way, await isWithin()]).toEqual([way, true]);
          }
        }
        expect([way, await isWithin()]).toEqual([way, true]);
        const name = await nameOf(dialog);
        await page.keyboard.press('Escape');
        await expect(page.getByRole('dialog', { name, exact: true }), way).toBeHidden();
      }
    },
  );
}
