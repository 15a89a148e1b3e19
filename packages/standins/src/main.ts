import { readFileSync } from 'node:fs';
import { Controller, readRegisterFile, type ControllerOptions } from './index.js';

/** Starts a controller: `main.js order.json registers.csv`; the order says which machine, from what hours, on which port. */
const [orderFile, registerFile] = process.argv.slice(2);
if (orderFile === undefined || registerFile === undefined) {
  console.error('Say which order and which table of registers.');
  process.exit(2);
}
try {
  const order = JSON.parse(readFileSync(orderFile, 'utf8')) as Omit<ControllerOptions, 'map'>;
  const controller = await Controller.start({ ...order, map: readRegisterFile(registerFile) });
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => void controller.stop().then(() => process.exit(0)));
  console.log(`A controller answers on 127.0.0.1:${controller.port} (Modbus TCP).`);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
}
