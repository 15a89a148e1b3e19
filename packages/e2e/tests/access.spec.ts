import type { Browser, Page } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { daysAgo, expect, isPhone, settle, test, hasReadNotice } from './fixtures.js';
import { smallTargets, violations, widthOf } from './looks.js';

const PASSWORD = 'drain the old tank';

// A refusal that is meant stands in the console too; whoever is signed out is told so by each question.
test.use({ ownContext: true, expectedErrors: { matching: [/40[0139]|422|429/] } });

async function signIn(page: Page, login: string, password = PASSWORD): Promise<void> {
  await page.getByLabel('Name to sign in with').fill(login);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

/** Makes the first lead by the address that the server prints. */
async function firstLead(page: Page, code: string, name = 'Lena Orvik', at = ''): Promise<void> {
  await page.goto(`${at}/welcome#${code}`);
  await page.getByLabel('Who you are').click();
  await page.getByRole('option', { name: 'Somebody new' }).click();
  await page.getByLabel('Your name').fill(name);
  await page.getByLabel('Name to sign in with').fill('lena');
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByRole('button', { name: `Signed in as ${name}` })).toBeVisible();
}

/** Invites somebody by the page. @returns the address that leads in */
async function invite(page: Page, role: string, name: string): Promise<string> {
  await page.goto('/people');
  await page.getByRole('button', { name: 'Invite somebody' }).click();
  await page.getByLabel('As', { exact: true }).click();
  await page.getByRole('option', { name: role }).click();
  const who = page.getByLabel('Who', { exact: true });
  if (role !== 'Customer' && (await who.isVisible())) {
    await who.click();
    await page.getByRole('option', { name: 'Somebody new' }).click();
  }
  await page.getByLabel('Their name').fill(name);
  await page.getByRole('button', { name: 'Make the invitation' }).click();
  await expect(page.getByRole('img', { name: 'Code of the invitation' })).toBeVisible();
  const address = await page.getByLabel('Address').inputValue();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('list', { name: 'Accounts' })).toBeVisible();
  return address;
}

/** Takes an invitation in a browser of their own. */
async function join(browser: Browser, address: string, login: string): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await hasReadNotice(context);
  const page = await context.newPage();
  await page.goto(address);
  await page.getByLabel('Name to sign in with').fill(login);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('button', { name: /^Signed in as/ })).toBeVisible();
  return page;
}

test(
  'the first lead turns rights on; what was asked for comes after signing in',
  { tag: '@phone' },
  async ({ page, app }) => {
    await page.goto(`/welcome#${app.firstCode}`);
    await page.getByLabel('Who you are').click();
    await page.getByRole('option', { name: 'Mira Kolden' }).click();
    await page.getByLabel('Name to sign in with').fill('mira');
    await page.getByLabel('Password').fill('mira');
    await page.getByRole('button', { name: 'Make the account' }).click();
    await expect(page.getByText('A password has at least 10 letters.')).toBeVisible();
    expect(await page.getByLabel('Name to sign in with').inputValue()).toBe('mira');
    await page.getByLabel('Password').fill(PASSWORD);
    await page.getByRole('button', { name: 'Make the account' }).click();
    await expect(page.getByRole('button', { name: 'Signed in as Mira Kolden' })).toBeVisible();
    await expect(page.getByText('Who works here?')).toBeHidden();

    await page.getByRole('button', { name: /^Signed in as/ }).click();
    await page.getByRole('button', { name: 'Sign out', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    await page.goto('/parts');
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    expect(await widthOf(page)).toBe(page.viewportSize()!.width);
    expect(await violations(page)).toEqual([]);
    if (isPhone(page)) expect(await smallTargets(page, 'main')).toEqual([]);
    await signIn(page, 'mira', 'not the right one');
    await expect(page.getByText('The name or the password is not right.')).toBeVisible();
    await signIn(page, 'MIRA');
    await expect(page.getByRole('heading', { name: 'Parts' })).toBeVisible();
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Parts' })).toBeVisible();
    // The address of the beginning leads nowhere any more.
    await page.goto(`/welcome#${app.firstCode}`);
    await expect(page.getByText('Ask a lead for an invitation.')).toBeVisible();
  },
);

test('a passkey is added, and opens the door without a password', async ({ page, app, context }) => {
  const session = await context.newCDPSession(page);
  await session.send('WebAuthn.enable');
  const options = {
    protocol: 'ctap2' as const,
    transport: 'internal' as const,
    hasResidentKey: true,
    hasUserVerification: true,
    isUserVerified: true,
    automaticPresenceSimulation: true,
  };
  const { authenticatorId } = await session.send('WebAuthn.addVirtualAuthenticator', { options });
  // A passkey belongs to a name: at the bare address there is none.
  await firstLead(page, app.firstCode);
  await page.goto('/account');
  await expect(page.getByText(/this is a bare address/)).toBeVisible();
  const named = app.url.replace('127.0.0.1', 'localhost');
  await page.goto(`${named}/account`);
  await signIn(page, 'lena');
  await page.getByLabel('What you call it').fill('Desk');
  await page.getByRole('button', { name: 'Add a passkey' }).click();
  await expect(page.getByRole('button', { name: 'Delete passkey Desk' })).toBeVisible();
  await page.getByRole('button', { name: /^Signed in as/ }).click();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(page.getByRole('heading', { name: 'Your account' })).toBeVisible();
  // Taken away, it opens nothing.
  await page.getByRole('button', { name: 'Delete passkey Desk' }).click();
  await expect(page.getByRole('button', { name: 'Delete passkey Desk' })).toBeHidden();
  await page.getByRole('button', { name: /^Signed in as/ }).click();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(page.getByText('This passkey is not known here.')).toBeVisible();
  // Nor does an authenticator that asks nobody who they are.
  await session.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: false });
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(page.getByText(/no passkey for here, or it was stopped/)).toBeVisible();
});

test('a customer sees their own machines and reports, and nothing of others', async ({
  page,
  app,
  browser,
}) => {
  await firstLead(page, app.firstCode);
  await page.goto('/people');
  await page.getByRole('button', { name: 'Add a customer' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Creamery of the valley');
  await page.getByLabel('Haldris Creamery', { exact: true }).check();
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  const customer = await join(browser, await invite(page, 'Customer', 'Ada Brenn'), 'ada');
  await expect(customer.getByRole('heading', { name: 'Your machines' })).toBeVisible();
  await expect(customer.getByText('HC-1').first()).toBeVisible();
  await expect(customer.getByText('OG-1')).toHaveCount(0);
  for (const path of ['/units', '/settings', '/people', '/logbook']) {
    await customer.goto(path);
    await expect(customer.getByRole('heading', { name: 'Your machines' })).toBeVisible();
  }
  const href = (await customer
    .getByRole('region', { name: 'Service reports' })
    .getByRole('link')
    .first()
    .getAttribute('href'))!;
  const report = await customer.request.get(new URL(href, app.url).href);
  expect([report.status(), report.headers()['content-type']]).toEqual([200, 'application/pdf']);
  const units = (await (await page.request.get('/api/compressors?limit=200')).json()) as {
    items: { id: string; tag: string }[];
  };
  const far = units.items.find(({ tag }) => tag === 'OG-1')!.id;
  expect((await customer.request.get(`${app.url}/api/compressors/${far}/tag.pdf`)).status()).toBe(404);
  expect((await customer.request.get(`${app.url}/api/compressors/${far}`)).status()).toBe(403);
  await settle(customer);
  expect(await violations(customer)).toEqual([]);
  await customer.context().close();
});

test('a trainee goes through a visit, and a technician signs for it with their own name', async ({
  page,
  app,
  browser,
  office,
}) => {
  const unit = await office.addScrew('TRN-1');
  await firstLead(page, app.firstCode);
  const trainee = await join(browser, await invite(page, 'Trainee', 'Ola Ferd'), 'ola');
  const compressor = (await (await page.request.get(`/api/compressors/${unit}`)).json()) as {
    siteId: string;
  };
  const visit = randomUUID();
  const plan = {
    id: visit,
    siteId: compressor.siteId,
    plannedOn: daysAgo(0).slice(0, 10),
    units: [{ compressorId: unit, tasks: ['fasteners-check'] }],
  };
  const planned = await trainee.request.post(`${app.url}/api/visits`, { data: plan });
  expect(planned.status(), await planned.text()).toBe(201);
  await trainee.goto(`${app.url}/visits/${visit}?unit=${unit}&at=sign`);
  await expect(trainee.getByText('A technician signs for it')).toBeVisible();
  await expect(trainee.getByRole('button', { name: 'Sign for TRN-1' })).toBeDisabled();
  await trainee.goto(`${app.url}/units/${unit}`);
  await expect(trainee.getByRole('button', { name: 'Measure', exact: true })).toBeVisible();
  await expect(trainee.getByRole('button', { name: 'Record service' })).toBeHidden();
  await trainee.context().close();
  await page.goto(`/visits/${visit}?unit=${unit}&at=sign`);
  await expect(page.getByText('A technician signs for it')).toBeHidden();
});

test('everything of a person is saved, and their name goes from what they recorded', async ({
  page,
  app,
  browser,
  office,
}) => {
  const unit = await office.addScrew('REC-1');
  await firstLead(page, app.firstCode);
  const theirs = await join(browser, await invite(page, 'Technician', 'Nils Orvald'), 'nils');
  const repair = { id: randomUUID(), kind: 'fault', foundAt: daysAgo(1), found: 'Weeps' };
  const path = `${app.url}/api/compressors/${unit}/repairs`;
  expect((await theirs.request.post(path, { data: repair })).status()).toBe(201);
  await theirs.context().close();
  await page.goto('/people');
  await page.getByRole('button', { name: 'Change: Nils Orvald' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save everything of Nils Orvald' }).click(),
  ]);
  const file = JSON.parse(readFileSync(await download.path(), 'utf8')) as { facts: { repair: object[] } };
  expect(file.facts.repair).toHaveLength(1);
  await page.getByRole('button', { name: 'Remove the name' }).click();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(page.getByText(/Nils Orvald is called “Name removed/)).toBeVisible();
  await page.goto('/logbook');
  await expect(page.getByText(/Name removed/).first()).toBeVisible();
  await expect(page.getByText('Nils Orvald')).toHaveCount(0);
});

test('a lost phone is signed out from elsewhere, and finds the way in with what it asked for', async ({
  page,
  app,
  browser,
}) => {
  await firstLead(page, app.firstCode);
  const phone = await join(browser, await invite(page, 'Technician', 'Tom Brask'), 'tom');
  await phone.goto(`${app.url}/units`);
  await expect(phone.getByRole('heading', { name: /^Units/ })).toBeVisible();
  await page.goto('/people');
  await page.getByRole('button', { name: 'Change: Tom Brask' }).click();
  await page.getByRole('button', { name: /^Sign out A/ }).click();
  await expect(page.getByText('Nowhere.')).toBeVisible();
  await phone.getByRole('link', { name: 'Parts' }).click();
  await expect(phone.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await signIn(phone, 'tom');
  await expect(phone.getByRole('heading', { name: 'Parts' })).toBeVisible();
  // Closed, the account lets nobody in.
  await page.getByRole('button', { name: 'Close the account' }).click();
  await page.getByRole('button', { name: 'Close it' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByText('closed', { exact: true })).toBeVisible();
  await phone.reload();
  await signIn(phone, 'tom');
  await expect(phone.getByText('The name or the password is not right.')).toBeVisible();
  await phone.context().close();
});

test(
  'people, their account and the invitation, by day and by night',
  { tag: '@phone' },
  async ({ page, app }) => {
    await firstLead(page, app.firstCode);
    for (const path of ['/people', '/account']) {
      await page.goto(path);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await settle(page);
      expect(await widthOf(page)).toBe(page.viewportSize()!.width);
      for (const colorScheme of ['light', 'dark'] as const) {
        await page.emulateMedia({ colorScheme });
        await settle(page);
        expect([path, colorScheme, await violations(page)]).toEqual([path, colorScheme, []]);
      }
      if (isPhone(page)) expect([path, await smallTargets(page, 'main')]).toEqual([path, []]);
    }
  },
);
