import { expect, openLogbook, openCompressor, test } from './fixtures.js';

test.describe('a reading that cannot be', () => {
  test.describe('for reasons that the page cannot know', () => {
    test.use({
      ownContext: true,
      expectedErrors: { matching: [/status of 422/, /ERR_INTERNET_DISCONNECTED/] },
    });

    test('what only the server knows is said beside the field too; a lost connection loses nothing', async ({
      page,
      office,
      context,
    }, info) => {
      const tag = `SRV-${info.project.name}`;
      const id = await office.addCompressor(tag);
      await office.readHours(id, 20, 100);
      await openCompressor(page, id, tag);
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

test('a data plate out of order is stored and doubted', async ({ page, office }, info) => {
  const tag = `PLATE-${info.project.name}`;
  const id = await office.addCompressor(tag, { cutOutBar: 10 });
  await openCompressor(page, id, tag);
  await page.getByRole('tab', { name: 'Plate' }).click();
  await page.getByRole('button', { name: 'Change data plate' }).click();
  await page.getByLabel('Relief setting').fill('130 psi');
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
