import { randomUUID } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { openPdf, readCode } from '../testing/open-pdf.js';
import { daysAgo, expectStatus, NOW, TestServer } from '../testing/test-server.js';
import { VisitAtWork } from '../testing/visit-steps.js';
import { strokesOf } from './visit-report.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start({ publicUrl: 'https://service.example/' });
});
afterAll(() => server.stop());

function photo(): Promise<Buffer> {
  const picture = sharp({ create: { width: 640, height: 480, channels: 3, background: '#5a666a' } });
  return picture
    .withExif({ IFD0: { Make: 'Camera' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '46/1 30/1 0/1' } })
    .jpeg()
    .toBuffer();
}

async function screw(): Promise<string> {
  const unit = await server.addCompressor({ family: 'screw', motor: 'three-phase', tag: 'HC-1' });
  await server.readHours(unit, daysAgo(100), 0);
  await server.readHours(unit, daysAgo(1), 2100);
  return unit;
}

describe('the service tag', () => {
  test('its code opens the unit, read by another library; its text says what was done and what comes', async () => {
    const unit = await screw();
    expectStatus(201, await server.recordService(unit, daysAgo(0), ['oil-change'], { hours: 2110 }));
    const { status, type, bytes } = await server.readBytes(`/api/compressors/${unit}/tag.pdf`);
    expect([status, type]).toEqual([200, 'application/pdf']);
    const { text, pages, pictures } = await openPdf(bytes);
    expect(pages).toBe(1);
    expect(text).toMatch(/HC-1/);
    expect(text).toMatch(/24 Nov 2026 · 2,110 h · Technician/);
    expect(text).toMatch(/Oil change/);
    // What was opened is looked at again before anything else is due.
    expect(text).toMatch(/Next due Joints opened: look again from 27 Nov 2026/);
    expect(text).toMatch(await nextInOrder(unit, 3));
    const [code] = pictures;
    expect(readCode(code!)).toBe(`https://service.example/units/${unit}`);
  });

  test('of a unit with a replaced meter it says the figures of the meter that is there, and the total named', async () => {
    const unit = await server.addCompressor({
      family: 'screw',
      motor: 'three-phase',
      tag: 'HC-9',
      commissionedOn: '2024-03-01',
    } as object);
    await server.readHours(unit, daysAgo(900), 0);
    await server.readHours(unit, daysAgo(200), 5865);
    const change = { changedAt: daysAgo(199), oldFinalHours: 5865, newStartHours: 0, reason: 'replaced' };
    const fact = { id: randomUUID(), ...change };
    expectStatus(201, await server.post(`/api/compressors/${unit}/meter-changes`, fact));
    // Read at 2,110 h, which are 7,975 h in all: the filter is due 2,000 h later, at 4,110 on this meter.
    expectStatus(201, await server.recordService(unit, daysAgo(0), ['oil-filter'], { hours: 2110 }));
    const tag = (await openPdf((await server.readBytes(`/api/compressors/${unit}/tag.pdf`)).bytes)).text;
    expect(tag).toMatch(/24 Nov 2026 · 2,110 h on the meter, 7,975 h total · Technician/);
    expect(tag).not.toContain('9,975');
    const { body } = await server.read(`/api/compressors/${unit}/standing`);
    const filter = body.tasks.find(({ code }: { code: string }) => code === 'oil-filter');
    expect([filter.dueAtHours, filter.dueAtHours - body.meter.offset]).toEqual([9975, 4110]);

    // Signed without reading the meter: the report says that it is an estimate.
    const visit = await VisitAtWork.plan(server, unit, ['bearing-check']);
    expectStatus(
      201,
      await visit.step('task', { task: 'bearing-check', outcome: 'not-done', reason: 'no time' }),
    );
    server.now += 1;
    expectStatus(201, await visit.step('sign', { name: 'Mira Kolden' }));
    const report = (await openPdf((await server.readBytes(`/api/visits/${visit.id}/report.pdf`)).bytes)).text;
    expect(report).toMatch(/2,110 h on the meter, 7,975 h total/);
    const later = await VisitAtWork.plan(server, unit, ['bearing-check']);
    server.now += 9 * 86_400_000;
    expectStatus(
      201,
      await later.step('task', { task: 'bearing-check', outcome: 'not-done', reason: 'no time' }),
    );
    server.now += 1;
    expectStatus(201, await later.step('sign', { name: 'Mira Kolden' }));
    const estimated = (await openPdf((await server.readBytes(`/api/visits/${later.id}/report.pdf`)).bytes))
      .text;
    expect(estimated).toMatch(/about 2,2\d\d h on the meter, 8,0\d\d h total \(estimated\)/);
  });

  test('of what must not be used it is red, and says why, since when, who was told and what must be shown', async () => {
    const unit = await server.addCompressor({ tag: 'RED-1' });
    const out = {
      id: randomUUID(),
      since: daysAgo(0),
      scope: 'unit',
      ground: 'vessel',
      why: 'The receiver weeps at a weld. '.repeat(16).trim(),
      toShow: 'Retest by a licensed firm',
      informed: 'Shift leader Orvel',
    };
    expectStatus(201, await server.post(`/api/compressors/${unit}/out-of-service`, out));
    const { text, pages } = await openPdf((await server.readBytes(`/api/compressors/${unit}/tag.pdf`)).bytes);
    expect(pages).toBe(1);
    for (const one of [
      'DO NOT USE',
      'RED-1',
      'Out of service',
      'weeps at a weld',
      'Orvel',
      'Retest by a licensed',
    ])
      expect(text).toContain(one);
    expect(text).not.toContain('Next due');
  });

  test('a machine without any record has a tag, too', async () => {
    const unit = await server.addCompressor({ tag: 'Łódź-1' });
    const { text } = await openPdf((await server.readBytes(`/api/compressors/${unit}/tag.pdf`)).bytes);
    expect(text).toMatch(/Łódź-1/);
    expect(text).toMatch(/No service on record yet/);
    expect((await server.read(`/api/compressors/${randomUUID()}/tag.pdf`)).status).toBe(404);
  });
});

/** What comes next by the standing, as it must follow each other on paper. */
async function nextInOrder(unit: string, count: number): Promise<RegExp> {
  type Due = { name: string; likelyOn: string | null; coveredBy: string | null; dueAtHours: number | null };
  const tasks = (await server.standing(unit)).tasks as Due[];
  const next = tasks
    .filter(({ likelyOn, coveredBy }) => likelyOn !== null && coveredBy === null)
    .sort((a, b) => a.likelyOn!.localeCompare(b.likelyOn!))
    .slice(0, count);
  expect(next).toHaveLength(count);
  const text = next.map(({ name, dueAtHours }) =>
    dueAtHours === null ? name : `${name} (late: due )?at ${Math.round(dueAtHours).toLocaleString('en')} h`,
  );
  return new RegExp(`Next due.*${text.join('.*')}`);
}

describe('photos', () => {
  test('are made anew from their pixels: nothing of where and with what they were taken stays', async () => {
    const visit = await VisitAtWork.plan(server, await screw(), []);
    const sent = await photo();
    expect((await sharp(sent).metadata()).exif).toBeDefined();
    const id = randomUUID();
    const path = `/api/visits/${visit.id}/photos`;
    const first = await server.postBytes(`${path}?id=${id}`, sent, 'image/jpeg');
    expect(first).toMatchObject({ status: 201, body: { id, widthPx: 640, heightPx: 480 } });
    expect((await server.postBytes(`${path}?id=${id}`, sent, 'image/jpeg')).status).toBe(201);
    const other = await sharp(sent).resize(100).png().toBuffer();
    expect((await server.postBytes(`${path}?id=${id}`, other, 'image/png')).body.code).toBe(
      'id-already-used',
    );
    const stored = readFileSync(join(server.dataDir, 'photos', `${id}.jpg`));
    expect((await sharp(stored).metadata()).exif).toBeUndefined();
    expect(stored.includes(Buffer.from('GPS'))).toBe(false);
    const { bytes, type } = await server.readBytes(`${path}/${id}`);
    expect([type, bytes.equals(stored)]).toEqual(['image/jpeg', true]);
    expectStatus(201, await visit.step('photo', { photo: id, caption: 'The glass' }));
  });

  test('a unit has photos of its own, like its sticker; an id belongs to one picture of one owner', async () => {
    const unit = await screw();
    const visit = await VisitAtWork.plan(server, unit, []);
    const [id, sent] = [randomUUID(), await photo()];
    const path = `/api/compressors/${unit}/photos`;
    const first = await server.postBytes(`${path}?id=${id}&caption=Sticker`, sent, 'image/jpeg');
    expect(first).toMatchObject({ status: 201, body: { id, widthPx: 640, heightPx: 480 } });
    expect((await server.postBytes(`${path}?id=${id}`, sent, 'image/jpeg')).status).toBe(201);
    expect(
      (await server.postBytes(`/api/visits/${visit.id}/photos?id=${id}`, sent, 'image/jpeg')).body.code,
    ).toBe('id-already-used');
    const { items } = (await server.read(path)).body;
    expect(items).toEqual([expect.objectContaining({ id, caption: 'Sticker', widthPx: 640 })]);
    const stored = readFileSync(join(server.dataDir, 'photos', `${id}.jpg`));
    expect((await server.readBytes(`${path}/${id}`)).bytes.equals(stored)).toBe(true);
    // Not of the visit, nor of another unit.
    expect((await server.readBytes(`/api/visits/${visit.id}/photos/${id}`)).status).toBe(404);
    const other = await server.addCompressor({ tag: 'HC-9' });
    expect((await server.readBytes(`/api/compressors/${other}/photos/${id}`)).status).toBe(404);
    expect(
      (await server.postBytes(`${path}?id=${randomUUID()}`, Buffer.from('no'), 'image/png')).body.code,
    ).toBe('not-a-photo');
    expect(
      (await server.postBytes(`${path}?id=${randomUUID()}&caption=${'x'.repeat(121)}`, sent, 'image/jpeg'))
        .status,
    ).toBe(400);
    expect(
      (
        await server.postBytes(
          `/api/compressors/${randomUUID()}/photos?id=${randomUUID()}`,
          sent,
          'image/jpeg',
        )
      ).status,
    ).toBe(404);
  });

  test('two that are sent at once under one id: one is taken, the other refused, and what is taken is stored', async () => {
    const visit = await VisitAtWork.plan(server, await screw(), []);
    const path = `/api/visits/${visit.id}/photos`;
    const plain = (background: string) =>
      sharp({ create: { width: 60, height: 40, channels: 3, background } })
        .jpeg()
        .toBuffer();
    for (let round = 0; round < 6; round += 1) {
      const id = randomUUID();
      const sent = await Promise.all(['#f00', '#0f0'].map(plain));
      const answers = await Promise.all(
        sent.map((one) => server.postBytes(`${path}?id=${id}`, one, 'image/jpeg')),
      );
      expect(answers.map(({ status }) => status).sort()).toEqual([201, 409]);
      const taken = answers.findIndex(({ status }) => status === 201);
      const { bytes } = await server.readBytes(`${path}/${id}`);
      const { dominant } = await sharp(bytes).stats();
      expect(dominant.r > dominant.g).toBe(taken === 0);
      // Another one under that id is refused, and changes nothing either.
      const other = await plain('#00f');
      expect((await server.postBytes(`${path}?id=${id}`, other, 'image/jpeg')).status).toBe(409);
      expect((await server.readBytes(`${path}/${id}`)).bytes.equals(bytes)).toBe(true);
    }
    expect(readdirSync(join(server.dataDir, 'photos')).filter((name) => !name.endsWith('.jpg'))).toEqual([]);
  });

  test('one whose file is missing or damaged is said to be, ends no report, and is healed by sending it again', async () => {
    const visit = await VisitAtWork.plan(server, await screw(), []);
    const path = `/api/visits/${visit.id}/photos`;
    const [id, sent] = [randomUUID(), await photo()];
    expectStatus(201, await server.postBytes(`${path}?id=${id}`, sent, 'image/jpeg'));
    expectStatus(201, await visit.step('photo', { photo: id, caption: 'The glass' }));
    const file = join(server.dataDir, 'photos', `${id}.jpg`);
    const whole = readFileSync(file);
    const harm = {
      missing: () => rmSync(file),
      'cut off': () => writeFileSync(file, whole.subarray(0, whole.length / 2)),
      damaged: () => writeFileSync(file, Buffer.from(whole).fill(0, 100, 200)),
    };
    for (const [how, harms] of Object.entries(harm)) {
      harms();
      expect([how, (await server.readBytes(`${path}/${id}`)).status]).toEqual([how, 404]);
      const { text } = await openPdf((await server.readBytes(`/api/visits/${visit.id}/report.pdf`)).bytes);
      expect([how, text]).toEqual([how, expect.stringContaining('Photo missing or damaged. The glass')]);
      expectStatus(201, await server.postBytes(`${path}?id=${id}`, sent, 'image/jpeg'));
      expect([how, readFileSync(file).equals(whole)]).toEqual([how, true]);
    }
  });

  test('what a start finds half written is swept away', async () => {
    const visit = await VisitAtWork.plan(server, await screw(), []);
    const id = randomUUID();
    expectStatus(
      201,
      await server.postBytes(`/api/visits/${visit.id}/photos?id=${id}`, await photo(), 'image/jpeg'),
    );
    const half = join(server.dataDir, 'photos', `${randomUUID()}.jpg.x.part`);
    writeFileSync(half, 'half');
    await server.restart();
    expect(existsSync(half)).toBe(false);
    expect((await server.readBytes(`/api/visits/${visit.id}/photos/${id}`)).status).toBe(200);
  });

  test('what is no photo is refused by its content, whatever it is called; so is one too large', async () => {
    const visit = await VisitAtWork.plan(server, await screw(), []);
    const path = `/api/visits/${visit.id}/photos?id=`;
    const send = async (bytes: Buffer) => {
      const id = randomUUID();
      const answer = await server.postBytes(path + id, bytes, 'image/jpeg');
      expect(existsSync(join(server.dataDir, 'photos', `${id}.jpg`))).toBe(false);
      return answer;
    };
    expect((await send(Buffer.from('hello, I am a jpeg'))).body.code).toBe('not-a-photo');
    expect(
      (await send(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'))).body.code,
    ).toBe('not-a-photo');
    expect((await send((await photo()).subarray(0, 900))).body.code).toBe('not-a-photo');
    expect(await send(Buffer.alloc(15_000_001))).toMatchObject({
      status: 413,
      body: { code: 'photo-too-large' },
    });
    expect((await server.post(`${path}${randomUUID()}`, {})).status).toBe(415);
    expect((await server.postBytes(`${path}nonsense`, await photo(), 'image/jpeg')).status).toBe(400);
  });
});

test('the report tells the visit: work, measurements, parts, photos, signature and what comes next', async () => {
  server.now = NOW;
  const unit = await screw();
  const visit = await VisitAtWork.plan(server, unit, ['oil-change', 'bearing-check', 'intake-replace']);
  await visit.step('hours', { hours: 2110 });
  await visit.done('bearing-check');
  await visit.isolate();
  await visit.done('oil-change');
  await visit.step('task', {
    task: 'intake-replace',
    outcome: 'not-done',
    reason: 'Element not in the van.',
  });
  await visit.step('part', { name: 'Oil filter', count: 1 });
  await visit.step('fault', { found: 'Cooler face dirty' });
  await visit.step('note', { text: 'Ключ у сторожа' });
  const id = randomUUID();
  await server.postBytes(`/api/visits/${visit.id}/photos?id=${id}`, await photo(), 'image/jpeg');
  await visit.step('photo', { photo: id, caption: 'Cooler before cleaning' });
  await visit.restart();
  await visit.step('tight', { tight: true });
  const values = { tempC: 78, ambientC: 20, mostRiseK: 70 };
  await visit.step('measure', { phase: 'proof', check: 'discharge-temperature', values });
  expectStatus(
    201,
    await visit.step('sign', { name: 'Mara Vell', strokes: '10,50 60,20 120,80;140,50 200,50' }),
  );
  const { status, bytes } = await server.readBytes(`/api/visits/${visit.id}/report.pdf`);
  expect(status).toBe(200);
  const { text, pictures } = await openPdf(bytes);
  for (const one of [
    'Service report',
    'Coppel Joinery · 24 Nov 2026',
    'HC-1 · screw',
    'Done: Oil change, Bearings and coolant condition.',
    'Not done: New intake element. Element not in the van.',
    'Discharge temperature – good: ',
    'Used: 1 × Oil filter.',
    'Cooler face dirty',
    'Ключ у сторожа',
    'Cooler before cleaning',
    'Signed by Mara Vell',
    '1 of 1',
  ]) {
    expect(text).toContain(one);
  }
  expect(text).toMatch(await nextInOrder(unit, 3));
  expect(pictures).toHaveLength(1);
  expect((await server.read(`/api/visits/${randomUUID()}/report.pdf`)).status).toBe(404);
});

test('a report to be handed over: plate, address, before beside after, labour and tax, both signatures', async () => {
  server.now = NOW;
  const papers = { workshopName: 'Haldris Air', currency: 'CHF', taxPercent: 10, labourCentsPerHour: 12_000 };
  expectStatus(200, await server.put('/api/settings', papers));
  const site = await server.addSite({ name: 'Dairy', address: 'Mill lane 2', contact: 'Ada, 555 0100' });
  const plate = { maker: 'Orbell', model: 'K 7', serial: '4471', siteId: site, family: 'screw', tag: 'HC-7' };
  const unit = await server.addCompressor({ ...plate, motor: 'three-phase' });
  await server.readHours(unit, daysAgo(100), 0);
  const filter = {
    number: 'F-77',
    name: 'Oil filter',
    class: 'element',
    answers: 'oil filter',
    fits: [],
    figures: {},
  };
  const part = randomUUID();
  expectStatus(201, await server.post('/api/parts', { ...filter, id: part, priceCents: 2550, inVan: 4 }));
  const visit = await VisitAtWork.plan(server, unit, ['oil-change']);
  const measure = (phase: string, tempC: number) =>
    visit.step('measure', {
      phase,
      check: 'discharge-temperature',
      values: { tempC, ambientC: 20, mostRiseK: 70 },
    });
  await measure('before', 88);
  await visit.isolate();
  expectStatus(201, await visit.done('oil-change'));
  await visit.step('part', { part, name: 'Oil filter', count: 2 });
  await visit.step('part', { name: 'Rag', count: 1 });
  await visit.restart();
  await visit.step('tight', { tight: true });
  await measure('proof', 78);
  const strokes = '10,50 60,20';
  const customer = { customer: 'Ada Brenn', customerStrokes: strokes };
  expectStatus(201, await visit.step('sign', { name: 'Mara Vell', strokes, ...customer }));
  const { bytes } = await server.readBytes(`/api/visits/${visit.id}/report.pdf`);
  const { text, pages } = await openPdf(bytes);
  // 60 min of the plan at 120.00 an hour, two filters at 25.50, a tenth of tax: 171.00 and 17.10.
  for (const one of [
    'Haldris Air',
    'Mill lane 2 · Ada, 555 0100',
    'Orbell K 7 · serial number 4471',
    'Labour, by the plan: 60 min',
    'Parts 51.00 CHF',
    'Labour 120.00 CHF',
    'Tax, 10 % 17.10 CHF',
    'Total 188.10 CHF',
    'Without one part that has no price in the catalogue.',
    'Taken over by Ada Brenn',
  ])
    expect(text).toContain(one);
  expect(text).toMatch(/Discharge temperature \w+: .*88.*\w+: .*78/);
  expect(pages).toBe(1);
  const raw = bytes.toString('latin1');
  for (const tag of ['/StructTreeRoot', '/Marked true', '/H1', '/TR', '/Lang (en)'])
    expect(raw).toContain(tag);
  expectStatus(
    200,
    await server.put('/api/settings', { labourCentsPerHour: 0, taxPercent: 0, workshopName: null }),
  );
});

test('strokes of a signature outside their box are left out', () => {
  expect(strokesOf('1,2 3,4;5,6 900,1')).toEqual([
    [
      [1, 2],
      [3, 4],
    ],
    [[5, 6]],
  ]);
  expect(strokesOf('nonsense;;')).toEqual([]);
});
