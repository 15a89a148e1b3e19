import { randomUUID } from 'node:crypto';
import type { Page } from '@playwright/test';
import { daysAgo, expect, hold, isPhone, itemsOf, settle, test } from './fixtures.js';
import { everyRule, violations, widthOf } from './looks.js';

const next = (page: Page) => page.getByRole('region', { name: 'Next test' });
const ended = (page: Page) => page.getByRole('region', { name: 'Fix it' });

/**
 * Answers what is asked until a repair is proposed: the usual, but for what is named; the machine is locked when that
 * is worth it.
 *
 * @returns the tests that were answered, by their question
 */
async function answerAll(page: Page, wrong: Readonly<Record<string, string>>): Promise<string[]> {
  const asked: string[] = [];
  const lock = page.getByRole('button', { name: /^Hold: off, locked/ });
  await expect(next(page).or(ended(page)).or(lock).first()).toBeVisible();
  while (!(await ended(page).isVisible()) && asked.length < 12) {
    if (!(await next(page).isVisible())) {
      await hold(page, /^Hold: off, locked/);
      await expect(next(page)).toBeVisible();
      continue;
    }
    const question = (await next(page).getByRole('heading').textContent())!;
    const answers = next(page).getByRole('button');
    const bad = Object.entries(wrong).find(([name]) => question.includes(name));
    // “Cannot tell” is the last, and what is usual stands before it.
    await (bad ? answers.filter({ hasText: bad[1] }) : answers.nth((await answers.count()) - 2)).click();
    asked.push(question);
    await expect(next(page).filter({ hasText: question })).toBeHidden();
    await expect(next(page).or(ended(page)).or(lock).first()).toBeVisible();
  }
  return asked;
}

test(
  'will not start: the capacitor in at most six answers, mended, proved and confirmed',
  { tag: '@phone' },
  async ({ page, office }, info) => {
    const unit = await office.addCompressor(`FC-${info.project.name}`, {
      family: 'piston',
      motor: 'single-phase',
      drive: 'belt',
    });
    await page.goto('/faults');
    await page.getByLabel('Tag, name or site').fill(`FC-${info.project.name}`);
    await page.getByRole('link', { name: new RegExp(`^FC-${info.project.name}`) }).click();
    await page.getByRole('button', { name: 'Tries to start, hums, trips' }).click();
    const asked = await answerAll(page, { capacitor: 'Outside the range' });
    expect(asked.length).toBeLessThanOrEqual(6);
    expect(asked.at(-1)).toContain('Discharge the capacitor');
    await expect(page.getByRole('status').filter({ hasText: 'Fix first' })).toContainText(
      'capacitor or start switch',
    );
    await expect(ended(page)).toContainText(
      'Take along: capacitor in the range that the motor’s maker gives',
    );
    await expect(ended(page).getByRole('note')).toContainText('holds its charge without power');
    await ended(page).getByRole('button', { name: 'Open the repair' }).click();
    await expect(page.getByText('Cause: Capacitor or start switch')).toBeVisible();
    await expect(
      page.getByText(/^Tries to start, hums, trips\. .*Capacitor: outside the range/),
    ).toBeVisible();
    await page.getByLabel('Work done').fill('Capacitor renewed, 40 µF');
    await page.getByRole('button', { name: 'Save the work' }).click();
    await page.getByLabel('By this check').selectOption('capacitor');
    const proof = page.getByRole('region', { name: 'Prove it' });
    await proof.getByLabel('Measured', { exact: true }).fill('40');
    await proof.getByLabel('On its label', { exact: true }).fill('40');
    await page.getByRole('button', { name: 'Save as the proof' }).click();
    await page.getByRole('region', { name: 'Was it that?' }).getByRole('button', { name: 'Confirm' }).click();
    await expect(page.getByText('Confirmed: Capacitor or start switch.')).toBeVisible();
    // Next time it counts.
    await page.goto(`/units/${unit}/faults`);
    await page.getByRole('button', { name: 'Tries to start, hums, trips' }).click();
    const odds = page.getByRole('region', { name: 'What it can be' });
    await expect(odds).toContainText('confirmed on this unit before');
    await expect(odds).toContainText(/confirmed in \d+ of \d+ cases here/);
  },
);

test(
  'slow to fill: a drain was left open; answers outlive a reload and are taken back',
  { tag: '@phone' },
  async ({ page, office }, info) => {
    const unit = await office.addCompressor(`FD-${info.project.name}`, {
      family: 'high-pressure',
      stages: 3,
    });
    await page.goto(`/units/${unit}?tab=repairs`);
    await page.getByRole('link', { name: 'Find the cause' }).click();
    await page.getByRole('button', { name: 'Slow to fill' }).click();
    await expect(next(page)).toBeVisible();
    const first = (await next(page).getByRole('heading').textContent())!;
    await next(page)
      .getByRole('button', { name: /^Cannot tell/ })
      .click();
    await expect(next(page).filter({ hasText: first })).toBeHidden();
    const given = page.getByRole('region', { name: 'What was answered' });
    await expect(given).toContainText('Nobody could tell: nothing moves.');
    await page.reload();
    await expect(given).toContainText('Nobody could tell: nothing moves.');
    await given.getByRole('button', { name: /^Undo/ }).click();
    await expect(next(page)).toContainText(first);
    await answerAll(page, {
      'Walk round the drains': 'One is open',
      'watch each stage gauge': 'One falls',
      'All stage pressures': 'One is low',
    });
    await expect(page.getByRole('status').filter({ hasText: 'Fix first' })).toContainText(
      'drain or cock open',
    );
    if (isPhone(page)) expect(await widthOf(page)).toBeLessThanOrEqual(390);
    await settle(page);
    expect(await violations(page, everyRule)).toEqual([]);
    await page.getByRole('button', { name: 'Begin again with what is seen' }).click();
    await expect(page.getByRole('region', { name: 'What is seen' })).toBeVisible();
  },
);

test.describe('without a connection', () => {
  test.use({
    serviceWorkers: 'allow',
    ownContext: true,
    expectedErrors: { matching: [/ERR_INTERNET_DISCONNECTED/, /Failed to load resource/] },
  });

  test(
    'a discharge valve of a high-pressure set is found, and the repair opened once there is one',
    { tag: '@phone' },
    async ({ page, context, office }, info) => {
      const unit = await office.addCompressor(`FV-${info.project.name}`, {
        family: 'high-pressure',
        stages: 4,
        motor: 'three-phase',
      });
      await page.goto(`/units/${unit}/faults`);
      await page.evaluate(() => navigator.serviceWorker.ready);
      await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
      await page.reload();
      await expect(page.getByRole('region', { name: 'What is seen' })).toBeVisible();
      await settle(page);
      await context.setOffline(true);
      await page.reload();
      await page.getByRole('button', { name: 'One stage pressure high, its relief valve blows' }).click();
      // The relief valve does its work: that stands where it is met.
      await expect(page.getByRole('note').first()).toContainText('never screwed in');
      const asked = await answerAll(page, {
        'valve cover': 'A discharge cover',
        'All stage pressures': 'One is high',
        'watch each stage gauge': 'One rises',
      });
      expect(asked.length).toBeLessThanOrEqual(6);
      await expect(ended(page)).toContainText('Discharge valve leaks');
      await ended(page).getByRole('button', { name: 'Open the repair' }).click();
      await expect(page.getByText('Kept on this device')).toBeVisible();
      await expect(page.getByRole('button', { name: /^Outbox: 3 waiting/ })).toBeVisible();
      await context.setOffline(false);
      await expect(page.getByRole('button', { name: /^Outbox/ })).toBeHidden({ timeout: 30_000 });
      const [repair] = await itemsOf<{ id: string; causeCode: string; found: string; search: object }>(
        page,
        `/compressors/${unit}/repairs`,
      );
      expect(repair).toMatchObject({
        causeCode: 'VD',
        found: 'One stage pressure high, its relief valve blows',
        search: { symptom: 'H4' },
      });
      // Into the repair: its valves are opened only isolated, and it is shown by its stage pressures.
      await page.goto(`/repairs/${repair!.id}?guide=valve-service`);
      await expect(page.getByText('Cause: Discharge valve leaks, broken or dirty')).toBeVisible();
      await page.getByRole('checkbox', { name: 'Clean without scratching' }).click();
      await expect(page.getByRole('alert').filter({ hasText: 'Not isolated for that' })).toBeVisible();
      await office.isolate('repairs', repair!.id, unit, ['stages']);
      await page.reload();
      const isolation = page.getByRole('region', { name: 'Isolation' });
      await isolation.getByRole('button', { name: 'Isolate' }).click();
      await hold(page, /^Hold: all four/);
      await expect(isolation).toContainText('Isolated for this.');
      await page.getByRole('checkbox', { name: 'Clean without scratching' }).click();
      await expect(page.getByRole('checkbox', { name: 'Clean without scratching' })).toBeChecked();
      await page.getByLabel('By this check').selectOption('pump-up');
      const proof = page.getByRole('region', { name: 'Prove it' });
      await proof.getByLabel('From', { exact: true }).fill('0');
      await proof.getByLabel('To', { exact: true }).fill('200');
      await proof.getByLabel('Time', { exact: true }).fill('600');
      await expect(page.getByRole('button', { name: 'Save as the proof' })).toBeVisible();
    },
  );
});

test('a head is opened for a test only once it is isolated, as everywhere', async ({
  page,
  office,
}, info) => {
  const unit = await office.addCompressor(`FO-${info.project.name}`, {
    family: 'piston',
    motor: 'three-phase',
  });
  await page.goto(`/units/${unit}/faults`);
  await page.getByRole('button', { name: 'Runs on, never reaches cut-out' }).click();
  // No answer of a test that opens anything is to be had before: it is only worth isolating for.
  const worth = page.getByRole('region', { name: 'Worth isolating for' });
  for (let k = 0; k < 12 && !(await worth.isVisible()); k++) {
    const question = (await next(page).getByRole('heading').textContent())!;
    await expect(next(page)).not.toContainText('isolated, vented and proved');
    await next(page)
      .getByRole('button', { name: /^Cannot tell/ })
      .click();
    await expect(next(page).filter({ hasText: question })).toBeHidden();
  }
  await expect(worth).toContainText('Head off');
  await expect(worth.getByRole('button', { name: 'Valve, plate or reed' })).toBeHidden();
  await page.getByRole('button', { name: 'Open a repair and isolate' }).click();
  await expect(page.getByRole('region', { name: 'Isolation' })).toContainText('Still to do');
  const [repair] = await itemsOf<{ id: string }>(page, `/compressors/${unit}/repairs`);
  await office.isolate('repairs', repair!.id, unit, ['stages']);
  await page.reload();
  // Somebody's lock is on it: nothing is proposed that would have it run.
  await expect(page.getByRole('region', { name: 'The machine now' })).toContainText('A lock is on record');
  await page.getByRole('region', { name: 'Isolation' }).getByRole('button', { name: 'Isolate' }).click();
  await hold(page, /^Hold: all four/);
  await expect(next(page)).toContainText('isolated, vented and proved');
  await expect(next(page)).toContainText('Head off');
});

test('air that is breathed: nobody breathes from it before anything is asked', async ({
  page,
  office,
}, info) => {
  const unit = await office.addCompressor(`FB-${info.project.name}`, {
    family: 'high-pressure',
    stages: 4,
    airUse: 'breathing',
  });
  await page.goto(`/units/${unit}/faults`);
  await page.getByRole('button', { name: 'Bad taste or smell, CO alarm' }).click();
  await expect(page.getByRole('note').first()).toContainText('Who breathes from it? Nobody from now on');
  await expect(next(page)).toBeHidden();
  await hold(page, 'Hold: so it is');
  await expect(next(page)).toBeVisible();
});

test('a check that failed says what is seen, and is an answer already', async ({
  page,
  office,
  request,
}, info) => {
  const unit = await office.addCompressor(`FM-${info.project.name}`, { family: 'piston', drive: 'belt' });
  const leak = {
    id: randomUUID(),
    check: 'leak-down',
    takenAt: daysAgo(1),
    values: { volumeL: 100, fromBar: 10, toBar: 6, seconds: 300, fadLpm: 200 },
  };
  const answer = await request.post(`/api/compressors/${unit}/measurements`, { data: leak });
  expect(answer.status()).toBe(201);
  await page.goto(`/units/${unit}/faults`);
  const lately = page.getByRole('region', { name: 'Measured lately' });
  await lately.getByRole('button', { name: /^Pressure falls while stopped/ }).click();
  await expect(next(page).or(ended(page)).first()).toBeVisible();
});
