import { expect, localText, openLogbook, openUnit, test } from './fixtures.js';

test.describe('a reading that cannot be', () => {
  test('is refused beside the field, and nothing typed is lost', async ({ page, office }, info) => {
    const tag = `BAD-${info.project.name}`;
    const id = await office.addUnit(tag);
    await office.readHours(id, 20, 100);
    await office.readHours(id, 10, 180);
    await openUnit(page, id, tag);
    await page.getByRole('button', { name: 'Read hours' }).click();
    const figure = page.getByLabel('Figure on the meter');
    const save = page.getByRole('button', { name: 'Save reading' });
    await page.getByLabel('Note').fill('Display hard to read.');

    await figure.fill('179');
    await expect(page.getByText(/179 h is less than the 180 h on .* Is it a slip/)).toBeVisible();
    await expect(save).toBeDisabled();

    await figure.fill('900');
    await expect(
      page.getByText(/is 720 h of running in 240 h\. No machine runs more than 24 h a day\./),
    ).toBeVisible();
    await expect(save).toBeDisabled();

    for (const [typed, said] of [
      ['twelve', /“twelve” is not a figure/],
      ['1e308', /is no unit of run hours/],
      ['NaN', /“NaN” is not a figure/],
      ['-5', /at least 0 h/],
      ['99999999', /at most 1,000,000 h/],
      ['9,412', /Is that 9412, or 9\.412\?/],
      ['200 bar', /“bar” is no unit of run hours\. Use h or min\./],
    ] as const) {
      await figure.fill(typed);
      await expect(page.getByText(said)).toBeVisible();
      await expect(figure).toHaveValue(typed);
      await expect(save).toBeDisabled();
    }

    await figure.fill('200');
    await page.getByLabel('Read at').fill(localText(-3));
    await expect(page.getByText(/has not come yet/)).toBeVisible();
    await expect(save).toBeDisabled();
    await page.getByLabel('Read at').fill(localText(0, '00:01'));
    await expect(page.getByLabel('Note')).toHaveValue('Display hard to read.');
    await save.click();
    await expect(page.getByRole('dialog')).toBeHidden();
    await expect(await openLogbook(page)).toContainText('Display hard to read.');
  });

  test.describe('for reasons that the page cannot know', () => {
    test.use({ expectedErrors: { matching: [/status of 422/, /ERR_INTERNET_DISCONNECTED/] } });

    test('what only the server knows is said beside the field too; a lost connection loses nothing', async ({
      page,
      office,
      context,
    }, info) => {
      const tag = `SRV-${info.project.name}`;
      const id = await office.addUnit(tag);
      await office.readHours(id, 20, 100);
      await openUnit(page, id, tag);
      await page.getByRole('button', { name: 'Read hours' }).click();
      const figure = page.getByLabel('Figure on the meter');
      await figure.fill('150');
      // Somebody else reads the machine meanwhile: this page does not know.
      await office.readHours(id, 1, 160);
      await page.getByRole('button', { name: 'Save reading' }).click();
      await expect(page.getByText(/150 h is less than the 160 h/)).toBeVisible();
      await expect(figure).toHaveValue('150');

      await figure.fill('161');
      await context.setOffline(true);
      await page.getByRole('button', { name: 'Save reading' }).click();
      await expect(page.getByText(/The server does not answer\. What you typed is still here/)).toBeVisible();
      await expect(figure).toHaveValue('161');
      await context.setOffline(false);
      await page.getByRole('button', { name: 'Save reading' }).click();
      await expect(page.getByRole('dialog')).toBeHidden();
      await expect((await openLogbook(page)).getByRole('listitem').first()).toContainText('161');
    });
  });
});

test('a data plate out of order is stored and doubted, nonsense is refused', async ({
  page,
  office,
}, info) => {
  const tag = `PLATE-${info.project.name}`;
  const id = await office.addUnit(tag, { cutOutBar: 10 });
  await openUnit(page, id, tag);
  await page.getByRole('tab', { name: 'Plate' }).click();
  await page.getByRole('button', { name: 'Change data plate' }).click();
  const relief = page.getByLabel('Relief setting');
  await relief.fill('12 cfm');
  await expect(page.getByText('“cfm” is no unit of pressure. Use bar, psi, kPa or MPa.')).toBeVisible();
  await page.getByRole('button', { name: 'Save changes' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await expect(relief).toHaveValue('12 cfm');
  await relief.fill('130 psi');
  await expect(page.getByText('= 8.96 bar')).toBeVisible();
  await page.getByRole('button', { name: 'Save changes' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(
    page.getByText(/The relief setting \(8\.96.* bar\) must be above cut-out \(10 bar\)\./),
  ).toBeVisible();
});

test.describe('addresses that lead nowhere', () => {
  test.use({ expectedErrors: { matching: [/status of 404/] } });

  test('say so', async ({ page }) => {
    await page.goto('/unitz');
    await expect(page.getByText('There is nothing at this address.')).toBeVisible();
    await page.goto('/units/not-a-unit');
    await expect(page.getByText('This unit is not in the register.')).toBeVisible();
  });
});
