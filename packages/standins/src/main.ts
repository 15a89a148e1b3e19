import { readFileSync, renameSync, writeFileSync } from 'node:fs';
import { Controller, readRegisterFile, type ControllerOptions } from './index.js';

/** How often it writes down what its counters show, ms: switched off and on again, they go on from there. */
const KEEPS_MS = 30_000;

/**
 * Starts a controller: `main.js order.json registers.csv`. The order says which machine it stands in for, from what
 * hours on, and on which port; its hours are kept in it.
 */
const [orderFile, registerFile] = process.argv.slice(2);
if (orderFile === undefined || registerFile === undefined) {
  console.error('Say which order and which table of registers.');
  process.exit(2);
}
try {
  const order = JSON.parse(readFileSync(orderFile, 'utf8')) as Omit<ControllerOptions, 'map'>;
  const controller = await Controller.start({ ...order, map: readRegisterFile(registerFile) });
  const keep = () => {
    const figures = controller.figures();
    const hours = { total: figures['hours-total']!, loaded: figures['hours-loaded']! };
    writeFileSync(`${orderFile}.new`, JSON.stringify({ ...order, hours }));
    renameSync(`${orderFile}.new`, orderFile);
  };
  setInterval(keep, KEEPS_MS).unref();
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => {
      keep();
      void controller.stop().then(() => process.exit(0));
    });
  console.log(`A controller answers on 127.0.0.1:${controller.port} (Modbus TCP).`);
} catch (error) {
  console.error(`No controller: ${error instanceof Error ? error.message : String(error)}`);
  process.exitCode = 1;
}
