import { randomUUID } from 'node:crypto';
import { FAKE_REGISTERS, FakeDevice, type Manner } from '../testing/fake-device.js';
import { firstLead, invited } from '../testing/signed-in.js';
import { DAY, daysAgo, NOW, TestServer } from '../testing/test-server.js';
import { GatewayService } from './gateway.service.js';
import { USUAL_LIMITS } from './read-device.js';

const HOUR = DAY / 24;
/** Where nothing good is waited for. */
const SHORT = { connectMs: 300, answerMs: 300, wholeMs: 600, mostBytes: 16_384 };
let device: FakeDevice;
let server: TestServer;
let unit: string;

beforeEach(async () => {
  device = await FakeDevice.start();
  device.shows(1000);
  server = await TestServer.start({ devicesAt: [{ host: '127.0.0.1', port: null }] });
  unit = await server.addCompressor({ family: 'screw' });
});
afterEach(async () => {
  await server.stop();
  await device.stop();
});

const described = (more: object = {}) => ({
  id: randomUUID(),
  name: 'Controller',
  host: '127.0.0.1',
  port: device.port,
  unitNumber: 1,
  everySeconds: 3600,
  registers: FAKE_REGISTERS,
  isOn: true,
  ...more,
});
const save = (body: object, headers: Record<string, string> = {}) =>
  server.post(`/api/compressors/${unit}/devices`, body, headers);

/** Adds a device, and waits until the first question to it is over. */
async function added(more: object = {}): Promise<string> {
  const body = described(more);
  expect((await save(body)).status).toBe(201);
  await settled(body.id);
  return body.id;
}

async function settled(id: string): Promise<void> {
  for (let tries = 0; tries < 1500; tries++) {
    const { state, problem } = await viewOf(id);
    if (state !== 'waiting' || problem !== null) return;
    await new Promise((done) => setTimeout(done, 10));
  }
}

async function viewOf(id: string) {
  const { body } = await server.read(`/api/compressors/${unit}/devices`);
  return body.items.find((one: { id: string }) => one.id === id);
}

const readings = async () => (await server.read(`/api/compressors/${unit}/readings`)).body.items;

/** Asks at a moment of the tests’ clock. */
async function askAt(id: string, at: number): Promise<void> {
  server.now = at;
  await server.get(GatewayService).ask(id);
}

describe('a unit that reads itself', () => {
  test('its hours are put on record once an hour, judged and marked as typed ones are, and said to come from it', async () => {
    const id = await added();
    for (let minutes = 10; minutes <= 130; minutes += 10) {
      device.shows(1000 + minutes / 60);
      await askAt(id, NOW + minutes * 60_000);
    }
    const found = await readings();
    expect(found.map(({ hours, source }: { hours: number; source: string }) => [hours, source])).toEqual([
      [1002, 'gateway'],
      [1001, 'gateway'],
      [1000, 'gateway'],
    ]);
    expect((await server.standing(unit)).runHours).toBeCloseTo(1002.2, 0);
    const { items } = (await server.read(`/api/logbook?compressorId=${unit}`)).body;
    expect(items.map(({ text }: { text: string }) => text)).toContain(
      'Hours read: 1,002 h, by the machine itself',
    );
    const shown = await viewOf(id);
    expect(shown).toMatchObject({ state: 'answers', problem: null, refused: [] });
    expect(shown.figures).toContainEqual({ name: 'Run hours', text: '1002.2 h' });
    expect(shown.figures).toContainEqual({ name: 'State', text: 'runs under load' });
  });

  test('temperatures under load are measured and judged, once a day', async () => {
    const id = await added();
    device.shows(1001, { outletC: 118 });
    await askAt(id, NOW + HOUR);
    await askAt(id, NOW + 30 * HOUR);
    const { items } = (await server.read(`/api/compressors/${unit}/measurements`)).body;
    expect(items).toHaveLength(2);
    expect(items[0]).toMatchObject({
      check: 'discharge-temperature',
      values: { tempC: 118, ambientC: 20 },
      note: 'Read by Controller.',
    });
    expect(items[0].judgement.verdict).toMatch(/act|stop/);
  });

  test('a start of the server reads nothing twice', async () => {
    await added();
    expect(await readings()).toHaveLength(1);
    server.now = NOW + 10 * 60_000;
    await server.restart();
    const [{ id }] = (await server.read('/api/devices')).body.items;
    await server.get(GatewayService).ask(id);
    await settled(id);
    expect(await readings()).toHaveLength(1);
    expect((await viewOf(id)).state).toBe('answers');
  });
});

describe('a device that lies', () => {
  const lies: readonly (readonly [string, () => void, RegExp])[] = [
    ['hours that fall', () => device.shows(400, { status: 0 }), /is less than the 1,000 h/],
    ['hours that jump', () => device.shows(9000, { status: 0 }), /From 1,000 h .* to 9,000 h/],
    ['65,535', () => [0, 1].forEach((at) => device.holding.set(at, 0xffff)), /holds no figure/],
    ['hours that no machine has', () => device.holding.set(0, 0x7fff), /beyond what is believed/],
  ];
  test.each(lies)('%s: refused with a reason, never on record', async (_name, lie, reason) => {
    const id = await added();
    lie();
    for (const hours of [2, 2.5, 3, 5]) await askAt(id, NOW + hours * HOUR);
    expect((await readings()).map(({ hours }: { hours: number }) => hours)).toEqual([1000]);
    const { refused } = await viewOf(id);
    // The same once, with how often.
    expect(refused).toHaveLength(1);
    expect(refused[0]).toMatchObject({ what: 'hours-total', sentence: expect.stringMatching(reason) });
    expect(refused[0].times).toBeGreaterThan(1);
    // It tells the truth again, and is believed.
    device.shows(1005);
    await askAt(id, NOW + 6 * HOUR);
    expect((await readings())[0].hours).toBe(1005);
  });

  test('no number in a register of floating point', async () => {
    device.holding.set(10, 0x7fc0);
    const id = await added({ registers: 'what,register,type\nhours-total,10,f32\n' });
    expect(await readings()).toEqual([]);
    expect((await viewOf(id)).refused[0].sentence).toMatch(/holds no figure \(NaN\)/);
  });

  test('hours that stand while it says that it runs', async () => {
    const id = await added();
    for (const hours of [1, 2, 3, 4]) await askAt(id, NOW + hours * HOUR);
    expect((await viewOf(id)).refused[0].sentence).toMatch(/says that it runs, and its hours have stood/);
  });

  test('what was seen to leaves the tray, and comes back no sooner than the next day', async () => {
    const id = await added();
    device.shows(400, { status: 0 });
    await askAt(id, NOW + 2 * HOUR);
    const [{ id: refusal }] = (await viewOf(id)).refused;
    const { status, body } = await server.post(`/api/device-refusals/${refusal}/seen`, {});
    expect({ status, refused: body.refused }).toEqual({ status: 200, refused: [] });
    await askAt(id, NOW + 3 * HOUR);
    expect((await viewOf(id)).refused).toEqual([]);
    await askAt(id, NOW + 30 * HOUR);
    expect((await viewOf(id)).refused).toHaveLength(1);
    expect((await server.post(`/api/device-refusals/${randomUUID()}/seen`, {})).status).toBe(404);
  });
});

describe('a device that does not answer', () => {
  const bad: readonly (readonly [Manner, RegExp])[] = [
    ['closes', /closed the connection|could not be read|too long/],
    ['trickles', /too long|longer than/],
    ['floods', /sends without end/],
    ['nonsense', /could not be read|too long/],
    ['mute', /too long|longer than/],
    ['refuses', /refuses \(code 2\): it has no such register/],
  ];
  test.each(bad)(
    '%s: said, nothing on record, and the server answers others meanwhile',
    async (manner, sentence) => {
      device.manner = manner;
      server.get(GatewayService).limits = SHORT;
      const body = described();
      await save(body);
      // While it is being asked, others are answered.
      const asked = server.get(GatewayService).ask(body.id);
      for (let each = 0; each < 5; each++) expect((await server.read('/api/health')).status).toBe(200);
      await asked;
      for (let tries = 0; tries < 3; tries++) await server.get(GatewayService).ask(body.id);
      await settled(body.id);
      const shown = await viewOf(body.id);
      expect(shown.problem).toMatch(sentence);
      expect(shown.figures).toEqual([]);
      expect(await readings()).toEqual([]);
      device.manner = 'answers';
      server.get(GatewayService).limits = USUAL_LIMITS;
      await server.get(GatewayService).ask(body.id);
      expect(await viewOf(body.id)).toMatchObject({ state: 'answers', problem: null });
    },
  );

  test('three answers in a row that do not come, and it is silent, since when it last answered', async () => {
    const id = await added();
    const { answeredAt } = await viewOf(id);
    await device.stop();
    const states: string[] = [];
    for (const minutes of [1, 2, 3]) {
      await askAt(id, NOW + minutes * 60_000);
      states.push((await viewOf(id)).state);
    }
    expect(states).toEqual(['answers', 'answers', 'silent']);
    expect(await viewOf(id)).toMatchObject({ answeredAt, problem: 'Nobody answers at its address.' });
    device = await FakeDevice.start();
  });
});

describe('how it is set up', () => {
  test('off by default: nothing is asked, and that is said', async () => {
    const other = await TestServer.start();
    const of = await other.addCompressor({});
    expect((await other.post(`/api/compressors/${of}/devices`, described())).status).toBe(201);
    await new Promise((done) => setTimeout(done, 100));
    expect(device.questions).toBe(0);
    expect((await other.read('/api/devices')).body).toMatchObject({ isOn: false, items: [{ state: 'off' }] });
    await other.stop();
  });

  test.each([
    ['an address that is not allowed', { host: '192.0.2.9' }, 422, /not among the addresses/],
    ['a name', { host: 'controller.local' }, 400, /by numbers/],
    ['no port', { port: 0 }, 400, /port/],
    ['half a second', { everySeconds: 0.5 }, 400, /1 to 3600 seconds/],
    ['a day', { everySeconds: 86_400 }, 400, /1 to 3600 seconds/],
    ['no registers', { registers: 'what,register\n' }, 422, /names no register/],
    ['another table', { registers: 'a,b\n1,2\n' }, 422, /Line 2/],
    ['a table without end', { registers: 'x'.repeat(8001) }, 400, /8000/],
    ['a blank name', { name: ' ' }, 400, /blank/],
    ['a unit number', { unitNumber: 256 }, 400, /0 to 255/],
  ])('%s is refused', async (_name, more, status, sentence) => {
    const answer = await save(described(more));
    expect(answer.status).toBe(status);
    expect(JSON.stringify(answer.body)).toMatch(sentence);
    expect((await server.read('/api/devices')).body.items).toEqual([]);
  });

  test('sent again it is changed, not doubled; off it is not asked; removed it is gone, and its readings stay', async () => {
    const body = described();
    await save(body);
    await settled(body.id);
    expect((await save({ ...body, name: 'Panel', isOn: false })).body).toMatchObject({
      name: 'Panel',
      state: 'off',
    });
    const before = device.questions;
    await server.get(GatewayService).ask(body.id);
    expect(device.questions).toBe(before);
    const { status, body: left } = await server.post(`/api/devices/${body.id}/removal`, {});
    expect({ status, items: left.items }).toEqual({ status: 200, items: [] });
    expect(await readings()).toHaveLength(1);
    expect((await server.post(`/api/devices/${body.id}/removal`, {})).status).toBe(404);
  });

  test('an id of another unit, and a fifth device, are refused', async () => {
    const body = described({ isOn: false });
    await save(body);
    const other = await server.addCompressor({});
    expect((await server.post(`/api/compressors/${other}/devices`, body)).status).toBe(409);
    for (let each = 0; each < 3; each++) expect((await save(described({ isOn: false }))).status).toBe(201);
    expect((await save(described({ isOn: false }))).body.code).toBe('too-many-devices');
  });

  test('with accounts only a lead says which address is asked; it is noted', async () => {
    const lead = await firstLead(server, 'Lena Orvik');
    const { cookie } = await invited(server, lead, 'technician', { name: 'Mara Vell' });
    expect((await save(described(), cookie)).status).toBe(403);
    const body = described();
    expect((await save(body, lead)).status).toBe(201);
    expect((await server.read('/api/devices', cookie)).body.items).toHaveLength(1);
    const [line] = (await server.read('/api/audit', lead)).body.items;
    expect(line).toMatchObject({ what: 'device changed' });
  });
});

test('a server that is told to end does not wait for a device that says nothing', async () => {
  const other = await TestServer.start({ devicesAt: [{ host: '127.0.0.1', port: null }] });
  const of = await other.addCompressor({});
  device.manner = 'mute';
  await other.post(`/api/compressors/${of}/devices`, described());
  while (device.questions === 0) await new Promise((done) => setTimeout(done, 10));
  const asked = other.get(GatewayService).ask('none');
  // With the usual limits it would be waited for two seconds; hung up on, the device sees it at once.
  const gone = device.nextGone();
  await other.stop();
  await gone;
  await asked;
});

test('many devices that flood and hang at once do not hold up the server', async () => {
  const all = await Promise.all(
    (['floods', 'mute', 'trickles', 'floods'] as const).map(async (manner) => {
      const one = await FakeDevice.start();
      one.manner = manner;
      return one;
    }),
  );
  const gateway = server.get(GatewayService);
  gateway.limits = SHORT;
  const ids: string[] = [];
  for (const one of all) {
    const body = described({ port: one.port });
    ids.push(body.id);
    await save(body);
  }
  const asked = ids.map((id) => gateway.ask(id));
  expect((await server.readHours(unit, daysAgo(1), 5)).status).toBe(201);
  expect((await server.read('/api/standings')).status).toBe(200);
  await Promise.all(asked);
  await Promise.all(all.map((one) => one.stop()));
});
