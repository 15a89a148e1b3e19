import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Axe {
  run(context: object, options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }>;
}

/** The rules of WCAG 2.1, levels A and AA. */
export const everyRule = ['wcag2a', 'wcag2aa', 'wcag21aa'] as const;

/**
 * What breaks the rules of WCAG on the page as it stands.
 *
 * @param within what to look at; where a dialog is open, the page behind it was looked at by itself
 */
export async function violations(
  page: Page,
  rules: readonly string[] = everyRule,
  within = 'html',
): Promise<string[]> {
  // Through the debugger and not a script tag, which the page's own policy would refuse.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axeSource);
  return page.evaluate(
    async ([runOnly, selector]) => {
      const { axe } = window as unknown as { axe: Axe };
      const found = await axe.run({ include: [selector] }, { runOnly, resultTypes: ['violations'] });
      return found.violations.map(({ id, nodes }) => `${id}: ${nodes[0]!.html.slice(0, 160)}`);
    },
    [rules, within] as const,
  );
}

/** How wide the page lays itself out: a phone makes room for whatever runs off its side. */
export function widthOf(page: Page): Promise<number> {
  return page.evaluate(() => Math.max(document.documentElement.scrollWidth, window.innerWidth));
}

/** What nobody could hit with a thumb. */
export function smallTargets(page: Page, within = 'main'): Promise<(string | null)[]> {
  return page
    .locator(`${within} button:visible, ${within} a.MuiButton-root:visible`)
    .evaluateAll((all) =>
      all
        .filter((one) => one.getBoundingClientRect().height < 44)
        .map((one) => one.textContent || one.getAttribute('aria-label')),
    );
}
