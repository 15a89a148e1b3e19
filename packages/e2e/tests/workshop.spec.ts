import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { randomUUID, X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { PNG } from 'pngjs';
import { expect, hasReadNotice, isPhone, settle, test } from './fixtures.js';
import { violations } from './looks.js';

// Something that is no picture is refused, and once there is no logo.
test.use({ ownContext: true, expectedErrors: { matching: [/422/] } });

const picture = () => PNG.sync.write(new PNG({ width: 300, height: 90, colorType: 2 }));

/** Whether a PDF holds a picture. */
const hasPicture = (paper: Buffer) => paper.toString('latin1').includes('/Subtype /Image');

test('what the workshop has set stands on its papers, and holds on devices that chose nothing', async ({
  page,
  office,
}) => {
  const unit = await office.addScrew('SET-1');
  await page.goto('/settings');
  await page.getByLabel('Name of the workshop').fill('Haldris Air');
  await page.getByLabel('Picture of the logo').setInputFiles({
    name: 'logo.png',
    mimeType: 'image/png',
    buffer: picture(),
  });
  await expect(page.getByRole('img', { name: 'Logo on papers' })).toBeVisible();
  await page.getByLabel('Tax, %').fill('8,1');
  await page.getByRole('group', { name: 'Pressure' }).getByRole('button', { name: 'psi' }).click();
  await page.getByRole('group', { name: 'Days' }).getByRole('button', { name: 'Dec 5' }).click();
  await page.getByRole('button', { name: 'Add closed days' }).click();
  await page.getByLabel('First day').fill('24.12.2026');
  await page.getByLabel('Last day').fill('2.1.2027');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await settle(page);
  expect(await violations(page)).toEqual([]);
  await page.reload();
  await expect(page.getByLabel('Tax, %')).toHaveValue('8.1');
  await expect(page.getByLabel('Last day')).toHaveValue('Jan 2, 2027');

  const repair = { id: randomUUID(), kind: 'fault', foundAt: '2026-03-04T10:00:00Z', found: 'Weeps' };
  const posted = await page.request.post(`/api/compressors/${unit}/repairs`, { data: repair });
  expect(posted.status(), await posted.text()).toBe(201);
  const paper = async () => (await page.request.get(`/api/repairs/${repair.id}/report.pdf`)).body();
  expect(hasPicture(await paper())).toBe(true);

  // What is no picture is refused in words, and the logo stays.
  await page.goto('/settings');
  await page.getByLabel('Picture of the logo').setInputFiles({
    name: 'logo.png',
    mimeType: 'image/png',
    buffer: Buffer.from('not a picture'),
  });
  await expect(page.getByText('That is no picture that can be read')).toBeVisible();
  await expect(page.getByRole('img', { name: 'Logo on papers' })).toBeVisible();
  await page.getByRole('button', { name: 'Take it off' }).click();
  await expect(page.getByRole('img', { name: 'Logo on papers' })).toBeHidden();
  expect(hasPicture(await paper())).toBe(false);
});

test('whoever plans a visit on a day on which the workshop is closed is told', async ({ page, office }) => {
  await office.addScrew('HOL-1');
  const saved = await page.request.put('/api/settings', { data: { holidays: ['2026-12-24/2027-01-03'] } });
  expect(saved.status()).toBe(200);
  await page.goto('/visits');
  await page.getByRole('button', { name: 'Plan a visit' }).click();
  await page.getByLabel('On').fill('28.12.2026');
  await expect(page.getByText('The workshop is closed on that day.')).toBeVisible();
});

test(
  'before the first page on a device stands what comes first, once',
  { tag: '@phone' },
  async ({ browser, app }) => {
    const context = await browser.newContext();
    const page = await context.newPage();
    await page.goto(app.url);
    await expect(page.getByRole('dialog', { name: 'Before you begin' })).toBeVisible();
    await settle(page);
    expect(await violations(page)).toEqual([]);
    await page.getByRole('button', { name: 'Understood' }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
    await page.reload();
    await expect(page.getByRole('link', { name: 'Units' })).toBeVisible();
    await expect(page.getByRole('dialog')).toBeHidden();
    // At the foot of every page: the release, and what others have given to it.
    const foot = page.getByRole('contentinfo');
    await expect(foot).toContainText(/Entretien \d+\.\d+\.\d+/);
    const licences = await page.request.get(`${app.url}/third-party-notices.txt`);
    expect(await licences.text()).toMatch(/\nreact \d/);
    await context.close();
  },
);

test.describe('over TLS', () => {
  let folder: string;
  let server: ChildProcess;
  let url: string;
  const bundle = resolve(import.meta.dirname, '../../server/bundle');
  const HOST = 'compressors.workshop.home';

  test.beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'entretien-tls-'));
    const port = await freePort();
    const files = (name: string) => join(folder, 'data/certificates', name);
    const environment = { ...process.env, NODE_OPTIONS: '', ENTRETIEN_DATA_DIR: join(folder, 'data') };
    execFileSync(process.execPath, [join(bundle, 'certificate.js'), HOST], { env: environment });
    server = spawn(process.execPath, [join(bundle, 'main.js')], {
      env: {
        ...environment,
        ENTRETIEN_PORT: String(port),
        ENTRETIEN_PUBLIC_URL: `https://${HOST}:${port}`,
        ENTRETIEN_CERTIFICATE: files('server.crt'),
        ENTRETIEN_KEY: files('server.key'),
        ENTRETIEN_BACKUPS: 'no',
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await new Promise<void>((ready, fail) => {
      server.stdout!.on('data', (said: Buffer) => {
        if (/is ready on/.test(String(said))) ready();
      });
      server.on('exit', () => fail(new Error('The server did not start.')));
    });
    url = `https://127.0.0.1:${port}`;
  });
  test.afterAll(async () => {
    server.removeAllListeners('exit');
    const ended = new Promise((done) => server.once('exit', done));
    server.kill();
    await ended;
    rmSync(folder, { recursive: true, force: true });
  });

  test(
    'the page shows the authority to trust and the address to scan, and the browser can take it in',
    { tag: '@phone' },
    async ({ browser, page: anyPage }) => {
      const context = await browser.newContext({
        ignoreHTTPSErrors: true,
        viewport: anyPage.viewportSize(),
        hasTouch: isPhone(anyPage),
      });
      await hasReadNotice(context);
      const page = await context.newPage();
      await page.goto(`${url}/phone`);
      const authority = readFileSync(join(folder, 'data/certificates/authority.crt'), 'utf8');
      const { fingerprint256 } = new X509Certificate(authority);
      await expect(page.getByRole('group', { name: 'Fingerprint' })).toHaveText(
        fingerprint256.replaceAll(':', ' '),
      );
      const { port } = new URL(url);
      await expect(page.getByRole('img', { name: `Code that opens https://${HOST}:${port}` })).toBeVisible();
      const [download] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('link', { name: 'The certificate' }).click(),
      ]);
      expect(download.suggestedFilename()).toBe('entretien-authority.crt');
      expect(readFileSync(await download.path(), 'utf8')).toBe(authority);
      // The key never leaves.
      expect(
        await page.request.get(`${url}/certificates/authority.key`).then((one) => one.text()),
      ).not.toContain('PRIVATE');
      await settle(page);
      expect(await violations(page)).toEqual([]);
      const session = await context.newCDPSession(page);
      const manifest = await session.send('Page.getAppManifest');
      expect(manifest.errors).toEqual([]);
      expect(JSON.parse(manifest.data!)).toMatchObject({ start_url: '/', display: 'standalone' });
      for (const { src, sizes } of (JSON.parse(manifest.data!) as { icons: { src: string; sizes: string }[] })
        .icons) {
        const { width, height } = PNG.sync.read(await (await page.request.get(url + src)).body());
        expect(`${width}x${height}`).toBe(sizes);
      }
      await context.close();
    },
  );
});

test('with nobody but this computer to reach it, the page says what to do', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /who is working|is working. Change/ }).click();
  await page.getByRole('link', { name: 'Put it on your phone' }).click();
  await expect(page.getByText('So far only this computer reaches it.')).toBeVisible();
  await expect(page.getByText('npm run certificate -- compressors.workshop.home')).toBeVisible();
});

function freePort(): Promise<number> {
  return new Promise((found) => {
    const server = createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => found(port));
    });
  });
}
