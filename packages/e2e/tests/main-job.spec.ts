import { dateAgo, expect, isPhone, localText, openLogbook, taskRow, test } from './fixtures.js';

test(
  'add a unit, read its hours twice, see a task come due, record the service, see it move',
  { tag: '@phone' },
  async ({ page }, info) => {
    const tag = `MJ-${info.project.name}`;
    await page.goto('/units');
    await page.getByRole('link', { name: 'Add a unit' }).click();

    // A site of its own, added on the way.
    await page.getByRole('button', { name: 'New site' }).click();
    await page.getByLabel('Name', { exact: true }).fill(`Mill of ${tag}`);
    await page.getByRole('button', { name: 'Save site' }).click();
    await expect(page.getByLabel('Site', { exact: true })).toContainText(`Mill of ${tag}`);
    await page.getByLabel('Tag').fill(tag);
    await page.getByLabel('Commissioned on').fill(dateAgo(70));
    await page.getByRole('button', { name: 'Next' }).click();

    await page.getByLabel('Working pressure').fill('145 psi');
    await expect(page.getByText('= 10 bar')).toBeVisible();
    for (const step of ['Checked', 'Direction of rotation', 'Figure on the meter now']) {
      await page.getByRole('button', { name: 'Next' }).click();
      await expect(page.getByText(step).first()).toBeVisible();
    }
    await page.getByRole('button', { name: 'Add to the register' }).click();
    await page.getByRole('button', { name: 'Open its page' }).click();
    await expect(page.getByRole('heading', { name: new RegExp(`^${tag}`) })).toBeVisible();
    await expect(page.getByText('never read')).toBeVisible();

    const readHours = async (figure: string, days: number) => {
      await page.getByRole('button', { name: 'Read hours' }).click();
      await page.getByLabel('Figure on the meter').fill(figure);
      await page.getByLabel('Read at').fill(localText(days));
      await page.getByRole('button', { name: 'Save reading' }).click();
      await expect(page.getByRole('dialog')).toBeHidden();
    };
    await readHours('1', 60);
    await readHours('37', 15);
    // 36 h in 45 days: 0.8 h a day; the first oil change stands at 50 h, 1 h ahead after 15 days more.
    await expect(taskRow(page, 'Oil change')).toContainText(/h left/);
    await expect(taskRow(page, 'Oil change').getByRole('img')).toHaveAccessibleName(/^nearing/);
    await readHours('51', 1);
    await expect(taskRow(page, 'Oil change')).toContainText(/h late|due now/);
    await expect(taskRow(page, 'Oil change').getByRole('img')).toHaveAccessibleName(
      /^(due|late), 10\d % used/,
    );

    await taskRow(page, 'Oil change').click();
    // On a phone a tap asks first: why it is due, with the ways to put it off and to record it.
    if (isPhone(page)) {
      const why = page.getByRole('dialog', { name: 'Why: Oil change' });
      await expect(why.getByRole('button', { name: 'Put off' })).toBeVisible();
      await why.getByRole('button', { name: 'Done' }).click();
    }
    await expect(page.getByRole('checkbox', { name: 'Oil change' })).toBeChecked();
    await expect(page.getByRole('note')).toContainText('Drain warm');
    await page.getByLabel('Figure on the meter').fill('52');
    await page.getByLabel('Note').fill('Clear, no metal.');
    await page.getByRole('button', { name: 'Save service' }).click();
    await expect(page.getByRole('dialog')).toBeHidden();

    const oil = page.getByRole('list', { name: 'Tasks at Crankcase oil' }).getByRole('listitem').first();
    const compressorPage = page.url().split('?')[0]!;
    await page.goto(`${compressorPage}?station=crankcase`);
    await expect(oil).toContainText('Oil change');
    await expect(oil).toContainText('at 552 h');
    // By the calendar the day itself counts: late in it a hundredth of three months is used.
    await expect(oil.getByRole('img')).toHaveAccessibleName(/^OK, [01] % used$/);
    const logbook = await openLogbook(page);
    await expect(logbook.getByRole('listitem').first()).toContainText('Oil change');
    await expect(logbook.getByRole('listitem').first()).toContainText('Clear, no metal.');

    // It is all there after a reload, and on the other pages.
    await page.reload();
    await expect(oil).toContainText('at 552 h');
    await page.getByRole('link', { name: 'Today' }).click();
    await expect(page.getByRole('link', { name: new RegExp(`^${tag},`) })).toBeVisible();
  },
);

test('the pin on the ruler moves when the service is recorded', async ({ page, office }, info) => {
  const tag = `PIN-${info.project.name}`;
  const id = await office.addCompressor(tag, { family: 'high-pressure' });
  await office.readHours(id, 20, 100);
  await office.readHours(id, 10, 115);
  await page.goto(`/units/${id}`);
  const ruler = page.getByRole('group', { name: /^Ruler in/ });
  const pins = () =>
    ruler
      .locator('svg g[style*="translate"]')
      .evaluateAll((all) => all.map((pin) => pin.getAttribute('style')));
  await expect.poll(async () => (await pins()).length).toBeGreaterThan(1);
  const before = await pins();
  await taskRow(page, 'New purifier cartridge').click();
  await page.getByRole('button', { name: 'Save service' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect.poll(pins).not.toEqual(before);
  await expect(taskRow(page, 'New purifier cartridge')).toContainText(/\d\d h left/);
});

test('a lower figure is asked about; with a new meter the hours go on', async ({ page, office }, info) => {
  const tag = `METER-${info.project.name}`;
  const id = await office.addCompressor(tag, { family: 'screw' });
  await office.readHours(id, 30, 9400);
  await office.readHours(id, 10, 9500);
  await page.goto(`/units/${id}`);
  await page.getByRole('button', { name: 'Read hours' }).click();
  await page.getByLabel('Figure on the meter').fill('40');
  await expect(page.getByText(/40 h is less than the 9,500 h/)).toBeVisible();
  await page.getByRole('button', { name: 'A new meter was fitted' }).click();
  await expect(page.getByLabel('Last figure of the old meter')).toHaveValue('9500');
  await page.getByLabel('Last figure of the old meter').fill('9490');
  await expect(page.getByText(/9,490 h is less than the 9,500 h/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save reading' })).toBeDisabled();
  await page.getByLabel('Last figure of the old meter').fill('9500');
  await page.getByRole('button', { name: 'Save reading' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  const logbook = await openLogbook(page);
  await expect(logbook).toContainText('Meter replaced at 9,500 h, goes on from 0 h');
  await expect(logbook.getByRole('listitem').first()).toContainText('Hours read: 40 h');
  // 9,500 h on the old meter and 40 h on the new: what is read at the machine first, the total beside it.
  await expect(page.getByRole('group', { name: /^Ruler in/ })).toContainText('40 h');
  await expect(page.getByText('40 h on the meter, 9,540 h total')).toBeVisible();
});
