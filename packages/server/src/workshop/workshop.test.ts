import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { openPdf } from '../testing/open-pdf.js';
import { firstLead, invited } from '../testing/signed-in.js';
import { expectStatus, TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeEach(async () => {
  server = await TestServer.start();
});
afterEach(() => server.stop());

const drawn = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#1e6a5a' } });
const putLogo = (bytes: Buffer, type = 'image/png', cookie: Record<string, string> = {}) =>
  server.ask('put', '/api/settings/logo', { ...cookie, 'Content-Type': type }, bytes as never);

async function repairReport(headers: Record<string, string> = {}) {
  const unit = await server.addCompressor();
  const id = randomUUID();
  const repair = { id, kind: 'fault', foundAt: '2026-03-04T10:00:00Z', found: 'Weeps' };
  expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, repair));
  return openPdf((await server.readBytes(`/api/repairs/${id}/report.pdf`, headers)).bytes);
}

test('a logo is drawn again, made to fit, and stands on papers until it is taken off', async () => {
  expect((await server.read('/api/settings/logo')).status).toBe(404);
  const sent = await drawn(3000, 1500)
    .withMetadata({ exif: { IFD0: { Copyright: 'somebody' } } })
    .jpeg()
    .toBuffer();
  expect(await putLogo(sent, 'image/jpeg')).toMatchObject({
    status: 200,
    body: { logo: { widthPx: 600, heightPx: 300 } },
  });
  const { bytes, type } = await server.readBytes('/api/settings/logo');
  expect(type).toBe('image/png');
  expect(await sharp(bytes).metadata()).toMatchObject({ format: 'png', width: 600, height: 300 });
  expect((await sharp(bytes).metadata()).exif).toBeUndefined();
  await server.restart();
  const { pictures } = await repairReport();
  expect(pictures).toMatchObject([{ width: 600, height: 300 }]);
  expect((await server.ask('delete', '/api/settings/logo', {})).status).toBe(204);
  expect((await server.read('/api/settings')).body.logo).toBeNull();
  expect((await repairReport()).pictures).toEqual([]);
});

test('what is no picture, too large, or sent by somebody else than a lead, is refused', async () => {
  expect(await putLogo(Buffer.from('<svg onload="alert(1)"/>'), 'image/svg+xml')).toMatchObject({
    status: 422,
    body: { code: 'not-a-logo' },
  });
  expect((await putLogo(Buffer.alloc(5_000_001))).status).toBe(413);
  expect((await putLogo(Buffer.from('{}'), 'application/json')).status).toBe(415);
  const lead = await firstLead(server);
  const { cookie } = await invited(server, lead, 'technician');
  const picture = await drawn(30, 30).png().toBuffer();
  expect((await putLogo(picture, 'image/png', cookie)).status).toBe(403);
  expect((await putLogo(picture, 'image/png', lead)).status).toBe(200);
});

test('formats of the workshop hold where a device says nothing, and not where it does', async () => {
  expectStatus(200, await server.put('/api/settings', { formats: 'month-day.comma' }));
  expect((await repairReport()).text).toContain('Mar 4');
  expect((await repairReport({ Cookie: 'entretien-formats=day-month.point' })).text).toContain('4 Mar');
});

test('units and formats are told to every device before anybody has signed in; prices are not', async () => {
  const units = { pressure: 'psi', temperature: '°F', 'temperature-rise': '°F rise' };
  expectStatus(200, await server.put('/api/settings', { units, taxPercent: 8 }));
  await firstLead(server);
  const { workshop } = (await server.read('/api/me')).body;
  expect(workshop).toEqual({ units, formats: 'day-month.point' });
});

test.each([
  [{ units: { pressure: 'stone' } }, 'units'],
  [{ units: { speed: 'km/h' } }, 'units'],
  [{ units: ['psi'] }, 'units'],
  [{ formats: 'sideways' }, 'formats'],
  [{ formats: 'day-month' }, 'formats'],
  [{ holidays: ['24.12.2026'] }, 'holidays'],
  [{ holidays: ['2027-01-03/2026-12-24'] }, 'holidays'],
  [{ holidays: Array.from({ length: 61 }, () => '2026-12-24/2026-12-24') }, 'holidays'],
  [{ logo: null }, 'logo'],
])('%j is refused beside its field', async (body, field) => {
  const answer = await server.put('/api/settings', body);
  expect(answer).toMatchObject({ status: 400, body: { errors: [{ field }] } });
});
