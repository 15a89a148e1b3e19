import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { dateAgo, expect, isPhone, openCompressor, test, itemsOf } from './fixtures.js';

/** The unit of the demonstration with a tag, by the register. */
async function demoCompressor(page: Page, tag: string): Promise<string> {
  const items = await itemsOf<{ id: string; tag: string }>(page, '/compressors?limit=200');
  return items.find((unit) => unit.tag === tag)!.id;
}

// A refusal by the server stands in the console, too.
test.use({ expectedErrors: { matching: [/status of 4(12|22)/] } });

const airPath = (page: Page) =>
  isPhone(page)
    ? page.getByRole('list', { name: /^Air path/ })
    : page.getByRole('group', { name: /^Air path/ });

test.describe('the air path', () => {
  test(
    'is drawn for every family, and a station opens its tasks, checks and limits',
    { tag: '@phone' },
    async ({ page }) => {
      for (const [tag, station, task] of [
        ['SP-1', 'Purifier tower', 'New purifier cartridge'],
        ['HC-1', 'Separator vessel', 'New separator element'],
        ['VB-1', 'Crankcase oil', 'Oil change'],
        ['LD-1', 'Stage 1', 'Ring and sleeve kit'],
      ] as const) {
        await openCompressor(page, await demoCompressor(page, tag), tag);
        await airPath(page)
          .getByRole('button', { name: new RegExp(`^${station}`) })
          .click();
        await expect(page.getByRole('list', { name: `Tasks at ${station}` })).toContainText(task);
        await expect(page).toHaveURL(/station=/);
      }
      // The address remembers it.
      await page.reload();
      await expect(page.getByRole('list', { name: 'Tasks at Stage 1' })).toBeVisible();
    },
  );

  test('is walked by keyboard in the order of the air', async ({ page }) => {
    await page.setViewportSize({ width: 1280, height: 800 });
    await openCompressor(page, await demoCompressor(page, 'TR-1'), 'TR-1');
    const path = airPath(page);
    const names = await path
      .getByRole('button')
      .evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')));
    // Five stages, four coolers between them, separators after the second to the fourth.
    expect(names.filter((name) => /^Stage \d/.test(name!))).toHaveLength(5);
    expect(names.filter((name) => /^Cooler/.test(name!))).toHaveLength(4);
    expect(names.filter((name) => /^Separator/.test(name!))).toHaveLength(3);
    // One stop of the tab key for the whole machine.
    expect(await path.locator('[role=button][tabindex="0"]').count()).toBe(1);
    await path.getByRole('button', { name: /^Intake filter/ }).focus();
    for (let step = 0; step < 5; step++) await page.keyboard.press('ArrowRight');
    await expect(path.getByRole('button', { name: /^Separator 2/ })).toBeFocused();
    await page.keyboard.press('End');
    await expect(path.getByRole('button', { name: /^Condensate collector/ })).toBeFocused();
    await page.keyboard.press('Home');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('complementary').getByRole('heading', { name: 'Stage 1' })).toBeVisible();
    await expect(path.getByRole('button', { name: /^Stage 1/ })).toHaveAttribute('aria-pressed', 'true');
  });

  test('no label runs into its neighbour on a five-stage set', async ({ page }) => {
    await page.setViewportSize({ width: 1280, height: 800 });
    await openCompressor(page, await demoCompressor(page, 'TR-1'), 'TR-1');
    await expect(airPath(page).getByText('Tower')).toBeVisible();
    const boxes = await airPath(page)
      .locator('text')
      .evaluateAll((all) =>
        all
          .filter((one) => (one.textContent ?? '').length > 2)
          .map((one) => {
            const { left, right, top, bottom } = one.getBoundingClientRect();
            return { text: one.textContent, left, right, top, bottom };
          }),
      );
    const touching = boxes.flatMap((a, index) =>
      boxes
        .slice(index + 1)
        .filter(
          (b) => a.left < b.right && b.left < a.right && a.top + 2 < b.bottom - 2 && b.top + 2 < a.bottom - 2,
        )
        .map((b) => `${a.text} / ${b.text}`),
    );
    expect(touching).toEqual([]);
  });
});

test('why this date: the chain of reasoning, to be read aloud', { tag: '@phone' }, async ({ page }) => {
  const id = await demoCompressor(page, 'OG-1');
  await page.goto(`/units/${id}?station=oil`);
  await page.getByRole('button', { name: 'Why: Oil change' }).click();
  const why = page.getByRole('dialog');
  await expect(why).toContainText(
    'Every 2,000 h or every 24 months, whichever comes first: common practice.',
  );
  await expect(why).toContainText(/Discharge at \d+ °C, the oil rated at 85 °C/);
  await expect(why).toContainText(/Last done on \d+ \w+ 20\d\d, at/);
  await expect(why).toContainText(/The hours come first: due at [\d,]+ h, about/);
  await why.getByRole('button', { name: 'Change its interval' }).click();
  await expect(page).toHaveURL(new RegExp(`/units/${id}/plan\\?task=oil-change`));
  await expect(page.getByLabel('Every, h')).toHaveValue('2000');
});

test('another school is chosen, and the due date moves before and after it is saved', async ({ page }) => {
  const id = await demoCompressor(page, 'HC-1');
  await page.goto(`/units/${id}?station=separator`);
  const task = page
    .getByRole('list', { name: 'Tasks at Separator vessel' })
    .getByRole('listitem')
    .filter({ hasText: 'New separator element' });
  await expect(task).toContainText('New separator element');
  const before = (await task.textContent())!;
  await page.goto(`/units/${id}/plan`);
  await page.getByRole('radio', { name: /^By pressure drop/ }).check();
  const changes = page.getByRole('list', { name: 'What changes' });
  await expect(changes).toContainText(
    'every 4,000 h or when pressure drop reaches 0.8 bar → when pressure drop reaches 1 bar or every 8,000 h',
  );
  await expect(changes).toContainText(/\d+ \w+.* → .*\d+ \w+/);
  // A reload loses nothing of it.
  await page.reload();
  await expect(page.getByRole('radio', { name: /^By pressure drop/ })).toBeChecked();
  await page.getByLabel('Note').fill('The element is dear.');
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(page.getByRole('heading', { name: /^HC-1/ })).toBeVisible();
  await page.goto(`/units/${id}?station=separator`);
  await expect(task).toContainText('New separator element');
  expect(await task.textContent()).not.toBe(before);
  await page.getByRole('button', { name: 'Why: New separator element' }).click();
  await expect(page.getByRole('dialog')).toContainText('When pressure drop reaches 1 bar');
});

test('an interval is changed with its next three points in view; nonsense is refused and nothing lost', async ({
  page,
  office,
}, info) => {
  const tag = `PL-${info.project.name}`;
  const id = await office.addCompressor(tag);
  for (const [days, hours] of [
    [60, 0],
    [1, 118],
  ] as const)
    await office.readHours(id, days, hours);
  await page.goto(`/units/${id}/plan?task=belt-check`);
  await page.getByLabel('Every, h').fill('200');
  await expect(page.getByRole('status').filter({ hasText: 'Next:' })).toContainText(
    /at 200 h, then .* at 400 h, then .* at 600 h/,
  );
  await page.getByLabel('Every, h').fill('often');
  await expect(page.getByText(/“often” is not a figure/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save as version 2' })).toBeDisabled();
  await page.getByLabel('Every, h').fill('250');
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await openCompressor(page, id, tag);
  await page.getByRole('tab', { name: 'Plan' }).click();
  await expect(page.getByText('Version 2')).toBeVisible();
  await expect(page.getByRole('tabpanel')).toContainText('every 250 h');
});

test('a plan that was changed meanwhile is not overwritten unseen', async ({ page, office }, info) => {
  const tag = `PC-${info.project.name}`;
  const id = await office.addCompressor(tag);
  await page.goto(`/units/${id}/plan?task=belt-check`);
  await page.getByLabel('Every, h').fill('300');
  // Somebody else saves first.
  const plan = await (await page.request.get(`/api/compressors/${id}/plan`)).json();
  const tasks = (plan as { tasks: { code: string }[] }).tasks.map((task) =>
    task.code === 'belt-check' ? { ...task, triggers: [{ kind: 'hours', every: 400 }] } : task,
  );
  const saved = await page.request.put(`/api/compressors/${id}/plan`, {
    headers: { 'If-Match': '"1"' },
    data: { id: '01890a5d-ac96-774b-bcce-b302099a8057', tasks },
  });
  expect(saved.status()).toBe(200);
  // What changes stands there, so that nothing moves under the hand.
  await expect(page.getByRole('list', { name: 'What changes' })).toContainText('300 h');
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(page.getByText(/Version 2 was saved meanwhile/)).toBeVisible();
  await expect(page.getByLabel('Every, h')).toHaveValue('300');
  await page.getByRole('button', { name: 'Keep mine' }).click();
  await page.getByRole('button', { name: 'Save as version 3' }).click();
  await expect(page.getByRole('heading', { name: new RegExp(`^${tag}`) })).toBeVisible();
  const now = await (await page.request.get(`/api/compressors/${id}/plan`)).json();
  expect((now as { version: number }).version).toBe(3);
});
test('a plan goes out as a file and comes in again; another file is refused in a sentence', async ({
  page,
}) => {
  await page.goto(`/units/${await demoCompressor(page, 'HC-1')}/plan`);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export' }).click(),
  ]);
  const text = await readFile((await download.path())!, 'utf8');
  const file = JSON.parse(text) as { format: string; tasks: { code: string; triggers: object[] }[] };
  expect(file.format).toBe('entretien-plan');
  const edited = {
    ...file,
    tasks: file.tasks.map((task) =>
      task.code === 'oil-filter' ? { ...task, triggers: [{ kind: 'hours', every: 1500 }] } : task,
    ),
  };
  await page.goto(`/units/${await demoCompressor(page, 'VB-2')}/plan`);
  const input = page.getByLabel('A plan as a file');
  await input.setInputFiles({
    name: 'no.json',
    mimeType: 'application/json',
    buffer: Buffer.from('not json'),
  });
  await expect(page.getByText(/cannot be read as a plan/)).toBeVisible();
  await input.setInputFiles({
    name: 'plan.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(edited)),
  });
  await expect(page.getByRole('list', { name: 'What changes' })).toContainText(
    /New oil filter.*every 1,500 h/,
  );
  // It had no dryer to service.
  await expect(page.getByRole('list', { name: 'What changes' })).not.toContainText('Dryer');
});

test('a plan is copied to a sister machine, with what it changes there', async ({ page }) => {
  await page.goto(`/units/${await demoCompressor(page, 'HT-2')}/plan?task=engine-oil-change`);
  await page.getByLabel('Every, h').fill('400');
  await expect(page.getByRole('list', { name: 'What changes' })).toContainText('every 400 h');
  await page.getByRole('button', { name: 'Copy to others' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('listitem').filter({ hasText: 'every 400 h' }).first()).toBeVisible();
  await dialog.getByRole('checkbox', { name: /^BQ-1/ }).check();
  await dialog.getByRole('button', { name: 'Copy to 1 unit' }).click();
  await expect(dialog).toBeHidden();
  const plan = await (
    await page.request.get(`/api/compressors/${await demoCompressor(page, 'BQ-1')}/plan`)
  ).json();
  expect((plan as { version: number; note: string }).version).toBe(2);
  expect((plan as { note: string }).note).toBe('Copied from HT-2.');
});

test('completing a major resets its minor, of which only the bigger showed', async ({
  page,
  office,
}, info) => {
  const tag = `MM-${info.project.name}`;
  const id = await office.addCompressor(tag, { family: 'high-pressure', stages: 3 });
  await office.readHours(id, 79, 0);
  await office.readHours(id, 1, 1005);
  await page.goto(`/units/${id}?station=stage-2`);
  await expect(page.getByRole('list', { name: 'Tasks at Stage 2' })).toContainText(
    'done with Valves of all stages',
  );
  const due = page.getByRole('list', { name: 'What is due' });
  await expect(due).toContainText('Valves of all stages');
  await expect(due).not.toContainText('Valves above stage 1');
  await due.getByRole('button', { name: /Valves of all stages/ }).click();
  await page.getByRole('button', { name: 'Save service' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByRole('list', { name: 'Tasks at Stage 2' })).toContainText('at 1,500 h');
});

test.describe('putting off', () => {
  test('an ordinary task waits with its reason until its day', async ({ page, office }, info) => {
    const tag = `PO-${info.project.name}`;
    const id = await office.addCompressor(tag, { drive: 'belt' });
    await office.readHours(id, 79, 0);
    await office.readHours(id, 1, 520);
    await page.goto(`/units/${id}?station=drive`);
    await page.getByRole('button', { name: 'Why: Belt check' }).click();
    await page.getByRole('button', { name: 'Put off' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog).toContainText('Put off: Belt check');
    await expect(dialog.getByLabel('The risk of waiting')).toHaveCount(0);
    await dialog.getByLabel('Why it waits').fill('The belt is ordered.');
    await expect(dialog.getByRole('button', { name: 'Put off' })).toBeDisabled();
    await dialog.getByLabel('Until', { exact: true }).fill(dateAgo(5));
    await dialog.getByRole('button', { name: 'Put off' }).click();
    await expect(dialog).toContainText('The limit must lie after the day it is put off.');
    await dialog.getByLabel('Until', { exact: true }).fill(dateAgo(-14));
    await dialog.getByRole('button', { name: 'Put off' }).click();
    await expect(dialog).toBeHidden();
    await expect(page.getByRole('list', { name: 'Tasks at Belt' })).toContainText('put off');
  });

  test(
    'a safety task wants the risk named, and stays in sight',
    { tag: '@phone' },
    async ({ page, office }, info) => {
      const tag = `PS-${info.project.name}`;
      const id = await office.addCompressor(tag, { family: 'high-pressure' });
      await office.readHours(id, 79, 0);
      await office.readHours(id, 1, 60);
      await page.goto(`/units/${id}?station=tower`);
      await page.getByRole('button', { name: 'Why: New purifier cartridge' }).click();
      await page.getByRole('button', { name: 'Put off' }).click();
      const dialog = page.getByRole('dialog');
      await expect(dialog.getByRole('note')).toContainText('Name what can happen while it waits');
      await dialog.getByLabel('Why it waits').fill('No cartridge aboard.');
      await dialog.getByLabel('Until the meter shows').fill('70');
      await expect(dialog.getByRole('button', { name: 'Put off' })).toBeDisabled();
      await dialog.getByLabel('The risk of waiting').fill('Water in the cylinders.');
      await dialog.getByRole('button', { name: 'Put off' }).click();
      await expect(dialog).toBeHidden();
      const due = page.getByRole('list', { name: 'What is due' });
      await expect(due.getByRole('button', { name: /New purifier cartridge/ })).toContainText('put off');
    },
  );
});
test('a machine taken over: its tasks are unknown until somebody has looked', async ({ page }) => {
  const id = await demoCompressor(page, 'HT-1');
  await openCompressor(page, id, 'HT-1');
  await page.getByRole('button', { name: 'Set last done' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('New oil filter').click();
  await page.getByRole('option', { name: 'half used' }).click();
  await dialog.getByRole('button', { name: 'Set 1 task' }).click();
  await expect(dialog).toBeHidden();
  await page.goto(`/units/${id}?station=oil-filter`);
  const tasks = page.getByRole('list', { name: 'Tasks at Oil filter' });
  await expect(tasks).toContainText(/at 3,2\d\d h/);
  await page.getByRole('button', { name: 'Why: New oil filter' }).click();
  await expect(page.getByRole('dialog')).toContainText('A first inspection set it: ');
});

test('a vessel is kept with its dates, which are due like tasks', async ({ page }) => {
  const id = await demoCompressor(page, 'VB-1');
  await page.goto(`/units/${id}?station=receiver`);
  await page.getByRole('button', { name: 'Add its vessel' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Tag').fill('R-VB1');
  await dialog.getByLabel('Rated for').fill('38 bar');
  await dialog.getByLabel('Months between inspections').fill('24');
  await dialog.getByLabel('Last inspection').fill(dateAgo(800));
  await dialog.getByRole('button', { name: 'Add the vessel' }).click();
  await expect(dialog).toBeHidden();
  const tasks = page.getByRole('list', { name: 'Tasks at Receiver' });
  await expect(tasks).toContainText('R-VB1: inspection');
  // 40 bar of relief are more than it is rated for.
  await expect(page.getByText(/R-VB1 is rated for 38 bar, and VB-1 can reach 40 bar/)).toBeVisible();
  // It is no work on the machine: there it is not offered.
  await page.getByRole('button', { name: 'Record service' }).click();
  await expect(dialog.getByRole('checkbox', { name: 'Relief valve lift test' })).toBeVisible();
  await expect(dialog.getByRole('checkbox', { name: /R-VB1/ })).toHaveCount(0);
  await dialog.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Record: R-VB1: inspection' }).click();
  await dialog.getByRole('button', { name: 'Record it' }).click();
  await expect(dialog).toBeHidden();
  await expect(tasks.getByRole('listitem').filter({ hasText: 'R-VB1' })).toContainText('in 2 yr');
});
