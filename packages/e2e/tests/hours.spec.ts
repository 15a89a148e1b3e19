import { dateAgo, expect, openLogbook, openCompressor, test } from './fixtures.js';

test('a list with good, bad and repeated rows is looked through and taken in, once', async ({
  page,
  office,
}) => {
  const { units } = await office.addWalk('The listed site', ['LI-1', 'LI-2']);
  const day = (ago: number) => {
    const [year, month, date] = dateAgo(ago).split('-');
    return `${date}.${month}.${year}`;
  };
  const text = [
    'Tag;Date;Hours;Remarks',
    `LI-1;${day(5)};1220,5;by hand`,
    `LI-1;${day(4)};1225;`,
    `LI-1;${day(4)};1225;`,
    `LI-1;${day(3)};900;too low`,
    `LI-9;${day(3)};900;`,
    `LI-2;30.02.2026;1225;`,
    `LI-2;${day(2)};1235;`,
  ].join('\r\n');
  const file = { name: 'round.csv', mimeType: 'text/csv', buffer: Buffer.from(text) };
  await page.goto('/lists');
  await page.getByLabel('List to read').setInputFiles(file);
  await expect(page.getByLabel('Decimal sign')).toContainText('comma');
  await expect(page.getByText(/The first row reads: LI-1, 1,220.5 h/)).toBeVisible();
  await page.getByRole('button', { name: 'Check' }).click();
  await expect(page.getByText('3 can be imported, for 2 units; 1 known already; 3 refused.')).toBeVisible();
  const rows = page.getByRole('list', { name: 'Rows of the list' });
  await expect(rows).toContainText('900 h is less than the 1,225 h');
  await expect(rows).toContainText('No unit in the register carries the tag “LI-9”.');
  await expect(rows).toContainText('There is no such day as 2026-02-30.');
  expect(await office.figures(units[0]!)).toHaveLength(7);
  await page.getByLabel('Import row 8').uncheck();
  await page.getByRole('button', { name: 'Import 2 readings' }).click();
  await expect(page.getByText('Done. Reading the same list again adds nothing.')).toBeVisible();
  expect(await office.figures(units[0]!)).toEqual([1225, 1220.5, 1210, 1175, 1140, 1105, 1070, 1035, 1000]);
  expect(await office.figures(units[1]!)).toHaveLength(7);
  // From a source that was read before, it is checked at once.
  await page.getByLabel('List to read').setInputFiles(file);
  await expect(page.getByText('1 can be imported, for 1 unit; 3 known already; 3 refused.')).toBeVisible();
});

test('what is no list is said to be none, and the columns that are missing are asked for', async ({
  page,
}) => {
  await page.goto('/lists');
  const choose = (name: string, text: string) =>
    page.getByLabel('List to read').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await choose('picture.csv', '\u0000\u0001PNG');
  await expect(page.getByText(/“picture.csv” is no list/)).toBeVisible();
  await choose('odd.csv', 'a,b,c\nHC-1,2026-11-01,1\n');
  await expect(page.getByText('Say which column holds the unit, the date, the hours.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Check' })).toBeDisabled();
});

test('all readings are saved as a list', async ({ page }) => {
  await page.goto('/lists');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save all readings' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('readings.csv');
});

test('the run hours are drawn with what the forecast rests on, and by week', async ({ page, office }) => {
  const { units } = await office.addWalk('The drawn site', ['DR-1']);
  await page.goto(`/units/${units[0]}?tab=hours`);
  await expect(page.getByRole('img', { name: /^Run hours from .*, now 1,24\d/ })).toBeVisible();
  await expect(page.getByText(/h a day now, from/)).toBeVisible();
  await page.getByRole('button', { name: 'Use per week' }).click();
  await expect(
    page.getByRole('img', { name: /^Use per week over 7 weeks, 35 h on the average/ }),
  ).toBeVisible();
});

test('a machine without a meter has its hours estimated, and says so', async ({ page, office }) => {
  const id = await office.addCompressor('EST-1', {
    hasHourMeter: false,
    family: 'high-pressure',
    fadLpm: 200,
  });
  await openCompressor(page, id, 'EST-1');
  await page.getByRole('button', { name: 'Estimate hours' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Free air delivered', { exact: true }).fill('60 m3');
  await expect(dialog).toContainText('5 h more: about 5 h est.');
  await dialog.getByRole('button', { name: 'Cycles counted' }).click();
  await dialog.getByLabel('Cycles counted').fill('240');
  await dialog.getByLabel('Minutes of one pump-up').fill('2.5');
  await expect(dialog).toContainText('10 h more: about 10 h est.');
  await dialog.getByRole('button', { name: 'Save estimate' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByRole('group', { name: /^Ruler in/ })).toContainText('10 h est.');
  await expect(await openLogbook(page)).toContainText('240 cycles × 2.5 min');
});

test('a reading is put right, and another withdrawn; both stay in the logbook', async ({ page, office }) => {
  const id = await office.addCompressor('FIX-1');
  await office.readHours(id, 20, 100);
  await office.readHours(id, 10, 310);
  await openCompressor(page, id, 'FIX-1');
  const logbook = await openLogbook(page);
  await logbook.getByRole('button', { name: 'Withdraw: Hours read: 310 h' }).click();
  await page.getByRole('button', { name: 'Correct the figure instead' }).click();
  await page.getByLabel('Figure on the meter').fill('130');
  await page.getByRole('button', { name: 'Save reading' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(logbook).toContainText('Corrected by a later record.');
  expect(await office.figures(id)).toEqual([130, 100]);
  await logbook.getByRole('button', { name: 'Withdraw: Hours read: 130 h' }).click();
  await expect(page.getByRole('button', { name: 'Withdraw', exact: true })).toBeDisabled();
  await page.getByRole('textbox', { name: 'Why' }).fill('Read off the machine beside it.');
  await page.getByRole('button', { name: 'Withdraw', exact: true }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(logbook).toContainText('Read off the machine beside it.');
  expect(await office.figures(id)).toEqual([100]);
});

test('closed days are put on the data plate', async ({ page, office }) => {
  const id = await office.addCompressor('SHUT-1', { hasHourMeter: false, declaredHoursPerWeek: 35 });
  await page.goto(`/units/${id}?tab=plate`);
  await page
    .getByRole('button', { name: /Edit|Change/ })
    .first()
    .click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Add a closure' }).click();
  await dialog.getByLabel('First day').fill('24 Dec 2026');
  await dialog.getByLabel('Last day').fill('6.1.2027');
  await dialog.getByLabel('Closed on').click();
  await page.getByRole('option', { name: 'Sun' }).click();
  await page.keyboard.press('Escape');
  await dialog.getByRole('button', { name: 'Save changes' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByText('24 Dec 2026 to 6 Jan 2027')).toBeVisible();
});
