import { randomUUID } from 'node:crypto';
import type { Page } from '@playwright/test';
import { PDFDocument, PDFName, PDFString } from 'pdf-lib';
import { dateAgo, daysAgo, expect, hold, itemsOf, settle, test } from './fixtures.js';
import { violations } from './looks.js';

/** Shut off, both sides open and silent: what the guard asks of a point of use. */
async function isolate(page: Page): Promise<void> {
  const shut = page.getByRole('region', { name: 'Shut it off' });
  await hold(shut, 'Hold: it is so');
  await expect(shut.getByRole('heading', { name: 'Its own valve shut and tagged' })).toBeVisible();
  await hold(shut, 'Hold: it is so');
  await hold(shut, 'Hold: opened, it passes');
  // Silent still after a minute.
  await page.clock.fastForward('01:10');
  await hold(shut, /^Hold: silent/);
  await expect(shut.getByText('Isolated for this.')).toBeVisible();
}

/** What is due is chosen already: here none of it is done. */
async function chooseNothing(page: Page): Promise<void> {
  const due = page.getByRole('region', { name: 'What is due' });
  await expect(due).toBeVisible();
  const chosen = due.getByRole('checkbox', { checked: true });
  while ((await chosen.count()) > 0) await chosen.first().uncheck();
}

async function addPoint(page: Page, unit: string, more: object = {}): Promise<string> {
  const { siteId } = (await (await page.request.get(`/api/compressors/${unit}`)).json()) as {
    siteId: string;
  };
  const id = randomUUID();
  const point = {
    ...{
      id,
      siteId,
      tag: `P-${unit.slice(0, 6)}`,
      compressorIds: [unit],
      vesselIds: [],
      fittedOn: dateAgo(400),
    },
    ...{
      whenAirGoes: 'The clamp lets go',
      isBreathed: false,
      filterMicron: 5,
      bowl: 'plastic',
      hasGuard: true,
    },
    ...more,
  };
  const answer = await page.request.post('/api/points', { data: point });
  expect(answer.status(), await answer.text()).toBe(201);
  return id;
}

test.describe('a point of use', () => {
  test.use({ ownContext: true, expectedErrors: { matching: [/422/] } });

  test(
    'is commissioned, and its element changed while the compressor runs',
    { tag: '@phone' },
    async ({ page, office }, info) => {
      const unit = await office.addScrew(`PT-${info.project.name}`);
      // The minute of silence is not waited for: the page’s clock begins a while ago.
      await page.clock.install({ time: Date.parse(daysAgo(0)) - 300_000 });
      await page.goto(`/units/${unit}?tab=plate`);
      await page.getByRole('link', { name: 'Points of use' }).click();
      await expect(page.getByText('No point of use is on record.')).toBeVisible();
      await page.getByRole('button', { name: 'Add a point' }).click();
      const form = page.getByRole('dialog');
      const tag = `P-${info.project.name}`;
      await form.getByLabel('Tag').fill(tag);
      await form.getByLabel('Where it hangs').fill('Panel saw');
      await form.getByLabel('Fitted on').fill(dateAgo(400));
      await form.getByLabel(/what falls, opens or brakes/).fill('The clamp lifts');
      await form.getByLabel(/somebody breathe/).click();
      await page.getByRole('option', { name: 'no', exact: true }).click();
      await form.getByLabel('Filter, fineness in µm').fill('5');
      await form.getByLabel('Lowest rating behind it').fill('6 bar');
      await form.getByLabel('Regulator, set under flow').fill('8 bar');
      // Its network has no unit: said beside the list, and nothing typed is lost.
      const fed = form.getByRole('checkbox', { name: `PT-${info.project.name}` });
      await expect(fed).toBeChecked();
      await fed.click();
      await form.getByRole('button', { name: 'Add the point' }).click();
      await expect(form.getByText('Its network has no unit: say which compressor feeds it.')).toBeVisible();
      await fed.click();
      await form.getByRole('button', { name: 'Add the point' }).click();
      await expect(form.getByText(/Set for 8 bar, and something behind it is rated for 6 bar/)).toBeVisible();
      await form.getByLabel('Regulator, set under flow').fill('6 bar');
      await settle(page);
      expect(await violations(page)).toEqual([]);
      await form.getByRole('button', { name: 'Add the point' }).click();
      await page
        .getByRole('link')
        .filter({ hasText: `${tag} Panel saw` })
        .click();
      await expect(page.getByRole('heading', { level: 1, name: `${tag} Panel saw` })).toBeVisible();
      await settle(page);
      expect(await violations(page)).toEqual([]);

      for (const other of ['Bowl looked at', 'Bowl drained', 'Regulator under flow'])
        await page.getByRole('checkbox', { name: other }).uncheck();
      await page.getByRole('button', { name: 'Begin: 1 task' }).click();
      const element = page.getByRole('region', { name: 'Filter element', exact: true });
      await expect(element.getByRole('button', { name: 'Done' })).toBeDisabled();
      await isolate(page);
      await element.getByRole('button', { name: 'Done' }).click();
      await page.getByRole('button', { name: 'Element of a line filter' }).click();
      const look = page.getByRole('form', { name: 'Element of a line filter' });
      await look
        .getByRole('radio', { name: 'grey' })
        .or(look.getByRole('button', { name: 'grey' }))
        .first()
        .click();
      await look.getByRole('button', { name: 'Save' }).click();
      await expect(page.getByRole('button', { name: 'Put it on record' })).toBeDisabled();
      const air = page.getByRole('region', { name: 'Its air back' });
      for (const step of await air.getByRole('checkbox').all()) await step.click();
      await air.getByRole('button', { name: 'Its air is back' }).click();
      await settle(page);
      expect(await violations(page)).toEqual([]);
      await page.getByRole('button', { name: 'Put it on record' }).click();
      await expect(page.getByRole('region', { name: 'What was done' })).toContainText(
        'Filter element changed.',
      );
      await expect(page.getByRole('region', { name: 'What was done' })).toContainText('The element is grey');
      const [point] = await itemsOf<{ tasks: { code: string; state: string }[] }>(
        page,
        `/points?compressorId=${unit}`,
      );
      expect(point!.tasks.find(({ code }) => code === 'point-element')!.state).toBe('fresh');
    },
  );

  test('a crazed bowl takes it out of use, and Today says so', async ({ page, office }) => {
    const unit = await office.addScrew('PT-BOWL');
    const id = await addPoint(page, unit, { place: 'Crusher gate' });
    await page.goto(`/points/${id}`);
    await chooseNothing(page);
    await page.getByRole('button', { name: 'Only look at it' }).click();
    await page.getByRole('button', { name: 'Filter and lubricator bowls' }).click();
    const look = page.getByRole('form', { name: 'Filter and lubricator bowls' });
    await look
      .getByRole('radio', { name: 'crazed' })
      .or(look.getByRole('button', { name: 'crazed' }))
      .first()
      .click();
    await look.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('button', { name: 'Put it on record' }).click();
    await expect(page.getByText(/^Out of use:/)).toBeVisible();
    await settle(page);
    expect(await violations(page)).toEqual([]);
    await page.goto('/');
    const row = page.getByRole('link', { name: /Crusher gate/ });
    await expect(row).toContainText('out of use');
    await row.click();
    // Put down wrongly: it goes with its reason.
    await page.getByRole('button', { name: 'Withdraw' }).click();
    await page.getByLabel('The reason').fill('It was the other bowl');
    await page.getByRole('dialog').getByRole('button', { name: 'Withdraw' }).click();
    await expect(page.getByText(/^Out of use:/)).toHaveCount(0);
    await expect(page.getByText('Withdrawn: It was the other bowl')).toBeVisible();
  });
});

test.describe('without a connection', () => {
  test.use({
    ownContext: true,
    serviceWorkers: 'allow',
    expectedErrors: {
      matching: [/ERR_INTERNET_DISCONNECTED|Failed to load resource|Failed to fetch|422/],
    },
  });

  test(
    'what was looked at waits on the device, and is sent once',
    { tag: '@phone' },
    async ({ page, context, office }, info) => {
      const unit = await office.addScrew(`PO-${info.project.name}`);
      const id = await addPoint(page, unit);
      await page.goto(`/points/${id}`);
      await page.evaluate(() => navigator.serviceWorker.ready);
      await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
      await page.reload();
      await expect(page.getByRole('region', { name: 'What is due' })).toBeVisible();
      await settle(page);
      await context.setOffline(true);
      await chooseNothing(page);
      await page.getByRole('checkbox', { name: 'Bowl drained' }).check();
      await page.getByRole('button', { name: 'Begin: 1 task' }).click();
      await page
        .getByRole('region', { name: 'Bowl drained', exact: true })
        .getByRole('button', { name: 'Done' })
        .click();
      await page.reload();
      await page.getByRole('button', { name: 'Put it on record' }).click();
      await expect(page.getByRole('button', { name: /^Outbox: 1 waiting/ })).toBeVisible();
      await context.setOffline(false);
      await expect(page.getByRole('button', { name: /^Outbox/ })).toBeHidden({ timeout: 30_000 });
      await expect(page.getByRole('region', { name: 'What was done' })).toContainText('Bowl drained.');
      expect(await itemsOf(page, `/points/${id}/work`)).toHaveLength(1);
    },
  );

  test(
    'a manual that was opened once is read',
    { tag: '@phone' },
    async ({ page, context, office }, info) => {
      const unit = await office.addScrew(`MA-${info.project.name}`);
      const document = await PDFDocument.create();
      for (const text of ['Contents', 'Torque of the lid: 180 Nm'])
        document.addPage([300, 400]).drawText(text, { x: 20, y: 340, size: 14 });
      const manual = Buffer.from(await document.save());
      document.catalog.set(
        PDFName.of('OpenAction'),
        document.context.obj({ S: 'JavaScript', JS: PDFString.of('app.alert(1)') }),
      );
      const scripted = Buffer.from(await document.save());
      await page.goto(`/units/${unit}?tab=plate`);
      const papers = page.getByRole('region', { name: 'Papers of this machine' });
      await papers.getByRole('button', { name: 'Add a paper or a sound' }).click();
      const form = page.getByRole('dialog');
      const choose = (name: string, buffer: Buffer) =>
        form.getByLabel('PDF', { exact: true }).setInputFiles({ name, mimeType: 'application/pdf', buffer });
      await choose('page.pdf', Buffer.from('<html><script>alert(1)</script>'));
      await expect(form.getByText('That is no PDF')).toBeVisible();
      await expect(form.getByRole('button', { name: 'Add it' })).toBeDisabled();
      await choose('scripted.pdf', scripted);
      await form.getByLabel('Title').fill('Handbook');
      await form.getByRole('button', { name: 'Add it' }).click();
      await expect(form.getByText(/holds a script/)).toBeVisible();
      await choose('handbook.pdf', manual);
      await settle(page);
      expect(await violations(page)).toEqual([]);
      await form.getByRole('button', { name: 'Add it' }).click();
      await papers.getByRole('link', { name: 'Handbook' }).click();
      const drawn = page.getByRole('region', { name: /^Handbook, page/ });
      await expect(drawn.getByText('Contents')).toBeVisible();
      await page.evaluate(() => navigator.serviceWorker.ready);
      await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
      await page.reload();
      await expect(drawn.getByText('Contents')).toBeVisible();
      await context.setOffline(true);
      await page.reload();
      await page.getByRole('button', { name: 'On', exact: true }).click();
      await expect(drawn.getByText('Torque of the lid: 180 Nm')).toBeVisible();
      expect(new URL(page.url()).searchParams.get('page')).toBe('2');
      await settle(page);
      expect(await violations(page)).toEqual([]);
    },
  );
});
