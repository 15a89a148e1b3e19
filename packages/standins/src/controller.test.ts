import { join } from 'node:path';
import { Socket } from 'node:net';
import { readFileSync } from 'node:fs';
import { EXAMPLE_REGISTERS, figuresOf, readsOf } from '@entretien/core/gateway';
import { boardMachines } from '@entretien/core/simulator';
import jsmodbus from 'jsmodbus';
import { Controller, readRegisterFile } from './index.js';

const file = join(import.meta.dirname, '../../../docs/registers/stand-in.csv');
const map = readRegisterFile(file);
const plate = boardMachines.find(({ code }) => code === 'screw')!.plate;

let controller: Controller;
let socket: Socket;
let client: InstanceType<typeof jsmodbus.client.TCP>;
beforeEach(async () => {
  controller = await Controller.start({
    plate,
    map,
    port: 0,
    hours: { total: 12_345.6, loaded: 9_876.5 },
    pace: 0,
  });
  socket = new Socket();
  client = new jsmodbus.client.TCP(socket, 1);
  await new Promise<void>((done) => socket.connect({ host: '127.0.0.1', port: controller.port }, done));
});
afterEach(async () => {
  socket.destroy();
  await controller.stop();
});

/** Reads everything that the table names by a client that is not the server’s own library. */
async function readByOther() {
  const held = new Map<string, number>();
  for (const { table, from, count } of readsOf(map)) {
    const { response } =
      table === 'holding'
        ? await client.readHoldingRegisters(from, count)
        : await client.readInputRegisters(from, count);
    (response.body.valuesAsArray as number[]).forEach((word, at) => held.set(`${table} ${from + at}`, word));
  }
  return figuresOf(map, (table, register) => held.get(`${table} ${register}`));
}

test('the table in the papers is the one that a new device begins with', () => {
  expect(readFileSync(file, 'utf8')).toBe(EXAMPLE_REGISTERS);
});

test('an independent client reads what the panel shows', async () => {
  controller.simulation.advance(600);
  const { values, doubts } = await readByOther();
  const figures = controller.figures();
  expect(doubts).toEqual([]);
  expect(Object.keys(values).sort()).toEqual(Object.keys(figures).sort());
  for (const [what, figure] of Object.entries(figures))
    expect([what, Math.abs(values[what as keyof typeof values]! - figure) < 0.06]).toEqual([what, true]);
  expect(values['hours-total']).toBeCloseTo(12_345.6, 0);
});

test('its hours run with the machine, and a trip is told', async () => {
  const before = (await readByOther()).values;
  controller.simulation.fault('demand', 0.6);
  controller.simulation.advance(7200);
  const after = (await readByOther()).values;
  expect(after['hours-total']! - before['hours-total']!).toBeGreaterThan(1);
  expect(after['hours-total']! - before['hours-total']!).toBeLessThan(2.01);
  expect(after['hours-loaded']).toBeLessThanOrEqual(after['hours-total']!);
  expect(after.alarm).toBe(0);
  for (const [code, size] of [
    ['cooler-dirty', 0.7],
    ['panel-off', 1],
  ] as const)
    controller.simulation.fault(code, size);
  controller.simulation.advance(3600);
  expect((await readByOther()).values).toMatchObject({ status: 3, alarm: 2 });
});

test('a register that it has not is refused by the protocol’s own code', async () => {
  await expect(client.readHoldingRegisters(4000, 1)).rejects.toMatchObject({
    err: 'ModbusException',
    response: { body: { code: 2 } },
  });
  // And it goes on answering.
  expect((await readByOther()).values.status).toBeDefined();
});

test('nobody can write to it', async () => {
  await expect(client.writeSingleRegister(0, 1)).rejects.toMatchObject({ err: 'ModbusException' });
});

test('a port that is taken is said', async () => {
  await expect(
    Controller.start({ plate, map, port: controller.port, hours: { total: 0, loaded: 0 }, pace: 0 }),
  ).rejects.toThrow(/EADDRINUSE/);
});
