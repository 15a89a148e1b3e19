import { EXAMPLE_REGISTERS } from '@entretien/core/gateway';
import { boardMachines } from '@entretien/core/simulator';
import { Controller, readRegisterFile } from '@entretien/standins';
import { resolve } from 'node:path';
import { devicePort } from '../test-host.js';
import { expect, isPhone, settle, test } from './fixtures.js';
import { everyRule, violations, widthOf } from './looks.js';

const map = readRegisterFile(resolve(import.meta.dirname, '../../../docs/registers/stand-in.csv'));
const plate = boardMachines.find(({ code }) => code === 'screw')!.plate;

test.use({ expectedErrors: { matching: [/422 \(Unprocessable/] } });

test(
  'a unit that reads itself; its cable is pulled, and Today says since when',
  { tag: '@phone' },
  async ({ page, office }, info) => {
    const tag = `RD-${info.project.name}`;
    const unit = await office.addCompressor(tag, { family: 'screw' });
    const start = () =>
      Controller.start({ plate, map, port: devicePort(), hours: { total: 4711.5, loaded: 3000 }, pace: 1 });
    let controller = await start();
    try {
      await page.goto(`/units/${unit}?tab=hours`);
      const panel = page.getByRole('region', { name: 'Reads itself' });
      await panel.getByRole('button', { name: 'Add a device' }).click();
      const dialog = page.getByRole('dialog', { name: 'Add a device' });
      await expect(dialog.getByLabel('Registers')).toHaveValue(EXAMPLE_REGISTERS);
      await dialog.getByLabel('Address, by numbers').fill('192.0.2.9');
      await dialog.getByLabel('Port').fill(String(devicePort()));
      await dialog.getByLabel(/^Asked every/).fill('1');
      await dialog.getByRole('button', { name: 'Save' }).click();
      // An address that nobody allowed: said, and nothing is lost.
      await expect(dialog.getByRole('alert')).toContainText('is not among the addresses');
      if (!isPhone(page)) expect(await violations(page, everyRule)).toEqual([]);
      await dialog.getByLabel('Address, by numbers').fill('127.0.0.1');
      await dialog.getByRole('button', { name: 'Save' }).click();
      await expect(dialog).toBeHidden();
      const device = panel.getByRole('article', { name: 'Controller' });
      await expect(device).toContainText('Answers, last');
      await expect(device).toContainText(/Run hours4711\.\d h/);
      await page.goto(`/units/${unit}?tab=logbook`);
      await expect(page.getByText(/Hours read: 4,711\.\d h, by the machine itself/)).toBeVisible();

      await controller.stop();
      await page.goto(`/units/${unit}?tab=hours`);
      await expect(device).toContainText('No answer since', { timeout: 30_000 });
      await expect(device.getByRole('alert')).toContainText('Nobody answers at its address.');
      await settle(page);
      expect(await violations(page, everyRule)).toEqual([]);
      expect(await widthOf(page)).toBe(page.viewportSize()!.width);
      await page.goto('/');
      const strip = page.getByRole('region', { name: 'Do not read themselves' });
      await expect(strip).toContainText(`${tag} Controller: no answer since`);
      await strip.getByRole('link', { name: tag }).click();
      await expect(page).toHaveURL(/tab=hours/);

      controller = await start();
      await expect(device).toContainText('Answers, last', { timeout: 30_000 });
      await device.getByRole('button', { name: 'Change it' }).click();
      await page.getByRole('button', { name: /^Remove it/ }).click();
      await expect(device).toBeHidden();
    } finally {
      await controller.stop().catch(() => undefined);
    }
  },
);

test('what a controller tells that cannot be lies in the tray until it was seen', async ({
  page,
  office,
}) => {
  const unit = await office.addCompressor('RD-LIES', { family: 'screw' });
  await office.readHours(unit, 3, 9000);
  const controller = await Controller.start({
    plate,
    map,
    port: devicePort(),
    hours: { total: 12, loaded: 10 },
    pace: 1,
  });
  try {
    await page.goto(`/units/${unit}?tab=hours`);
    const panel = page.getByRole('region', { name: 'Reads itself' });
    await panel.getByRole('button', { name: 'Add a device' }).click();
    const dialog = page.getByRole('dialog', { name: 'Add a device' });
    await dialog.getByLabel('Address, by numbers').fill('127.0.0.1');
    await dialog.getByLabel('Port').fill(String(devicePort()));
    await dialog.getByLabel(/^Asked every/).fill('1');
    await dialog.getByRole('button', { name: 'Save' }).click();
    const tray = panel.getByRole('region', { name: 'Not put on record' });
    await expect(tray).toContainText(/12 h is less than the 9,000 h/);
    await page.goto('/');
    await expect(page.getByRole('region', { name: 'Do not read themselves' })).toContainText(
      'RD-LIES Controller tells what cannot be',
    );
    await page.goto(`/units/${unit}?tab=hours`);
    await tray.getByRole('button', { name: 'Seen' }).first().click();
    await expect(tray).toBeHidden();
  } finally {
    await controller.stop();
  }
});
