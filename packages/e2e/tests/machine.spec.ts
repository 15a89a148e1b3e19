import { expect, settle, test } from './fixtures.js';
import { violations } from './looks.js';

test(
  'a drain left open is seen, heard and mended at a simulated machine',
  { tag: '@phone' },
  async ({ page }) => {
    await page.goto('/bench/machine?machine=piston&pace=60');
    const machine = page.getByRole('region', { name: 'The machine' });
    await expect(page.getByRole('note').first()).toContainText(
      'nothing that it shows proves anything at yours',
    );
    await expect(machine.getByRole('img', { name: /^Receiver: (10|9\.9\d?) bar$/ })).toBeVisible();
    const drain = machine.getByRole('button', { name: /^Drain of the receiver/ });
    await expect(drain).toHaveAttribute('aria-pressed', 'false');
    await drain.click();
    await expect(drain).toHaveAttribute('aria-pressed', 'true');
    await expect(machine.getByRole('region', { name: 'Heard, smelt and seen' })).toContainText(
      'Drain of the receiver: air hisses out',
    );
    // It starts by itself at its lower point, and never gets full.
    await expect(machine.getByRole('status')).toHaveText('Runs under load');
    await drain.click();
    await expect(machine.getByRole('status')).toHaveText('Stands', { timeout: 30_000 });
    await machine.getByRole('button', { name: 'Power off' }).click();
    await expect(machine.getByRole('status')).toHaveText('Stands, power off');
  },
);

test('faults stand in the address, trip it, and are mended', async ({ page }) => {
  await page.goto(
    '/bench/machine?machine=oil-free&pace=60&faults=capacitor*1;nonsense*7;gauge-receiver-sticks*2',
  );
  const machine = page.getByRole('region', { name: 'The machine' });
  const wrong = page.getByRole('region', { name: 'What is wrong with it' });
  await expect(wrong.getByRole('group')).toHaveCount(1);
  await machine.getByRole('button', { name: /^Trigger/ }).click();
  await expect(machine.getByRole('alert')).toContainText('It stopped by itself: overload.', {
    timeout: 30_000,
  });
  await wrong.getByRole('button', { name: 'Mend' }).click();
  await expect(wrong.getByRole('group')).toHaveCount(0);
  await machine.getByRole('button', { name: 'Reset' }).click();
  await expect(machine.getByRole('status')).toHaveText('Runs under load', { timeout: 30_000 });
  await page.getByLabel('Add a fault').click();
  await page.getByRole('option', { name: 'Final relief valve weeps' }).click();
  await expect(page).toHaveURL(/faults=relief-weeps\*0\.3/);
  await page.reload();
  await expect(wrong.getByRole('button', { name: 'plain' })).toHaveAttribute('aria-pressed', 'true');
});

test('a unit that is looked after stands on the board by its plate', async ({ page, office }, info) => {
  const tag = `SIM-${info.project.name}`;
  const id = await office.addCompressor(tag, { stages: 2, receiverL: 500, cutInBar: 6, cutOutBar: 8 });
  await page.goto(`/bench/machine?unit=${id}`);
  const machine = page.getByRole('region', { name: 'The machine' });
  await expect(machine.getByRole('img', { name: 'Receiver: 8 bar' })).toBeVisible();
  await expect(machine.getByRole('img', { name: /^Intercooler/ })).toBeVisible();
  await settle(page);
  expect(await violations(page)).toEqual([]);
});
