import { execFile } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { promisify } from 'node:util';
import { createApp } from '@entretien/server';
import { report } from './measure.js';
import { seed } from './seed.js';

/** A fleet and a quarter of it: what a list takes may not grow with it. */
const SIZES = [500, 2000] as const;
const READINGS = 104;
const MOST_DELAY_MS = 50;

const run = promisify(execFile);

/** Reads a list to its end in a process of its own, and says how long it was. */
async function fetched(url: string): Promise<{ bytes: number; ms: number }> {
  const began = performance.now();
  const script = `let bytes = 0; const { body } = await fetch(${JSON.stringify(url)}); for await (const part of body) bytes += part.length; console.log(bytes)`;
  const { stdout } = await run(process.execPath, ['--input-type=module', '-e', script]);
  return { bytes: Number(stdout), ms: performance.now() - began };
}

const lists = ['logbook/export?format=csv', 'logbook/export?format=json', 'readings/export'];

/** Delay of the loop (p99, ms) and growth of memory (MB) while each list of a fleet is written. */
async function written(units: number, dataDir: string, now: number) {
  mkdirSync(dataDir, { recursive: true });
  await seed(dataDir, units, READINGS, now);
  const settings = { host: '127.0.0.1', port: 0, dataDir, timeZone: 'UTC' };
  const app = await createApp({ settings, clock: () => now });
  await app.listen(0, '127.0.0.1');
  const { port } = app.getHttpServer().address() as { port: number };
  const found = [];
  for (const list of lists) {
    // The first of its kind loads what it needs; that is no matter of the data.
    await fetched(`http://127.0.0.1:${port}/api/${list}`);
    globalThis.gc?.();
    const delay = monitorEventLoopDelay({ resolution: 1 });
    const before = process.memoryUsage().rss;
    let most = before;
    const look = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 50);
    delay.enable();
    const { bytes, ms } = await fetched(`http://127.0.0.1:${port}/api/${list}`);
    delay.disable();
    clearInterval(look);
    const grown = (most - before) / 1e6;
    found.push({ list, p99: delay.percentile(99) / 1e6, max: delay.max / 1e6, bytes, ms, grown });
  }
  await app.close();
  return found;
}

/** While the lists of a large fleet are written, nobody else waits, and memory does not grow with the list. */
export async function exportBench(dataDir: string, now: number): Promise<void> {
  const [small, large] = SIZES;
  const few = await written(small, join(dataDir, 'few'), now);
  const many = await written(large, join(dataDir, 'many'), now);
  for (const [index, { list, p99, max, bytes, ms, grown }] of many.entries()) {
    report(
      `delay of the loop (p99) over ${MOST_DELAY_MS} ms while ${list} is written, ${large} units`,
      p99 / MOST_DELAY_MS,
      p99 <= MOST_DELAY_MS,
      '≤ 1',
      `p99 ${p99.toFixed(1)} ms, most ${max.toFixed(0)} ms; ${(bytes / 1e6).toFixed(0)} MB in ${(ms / 1000).toFixed(1)} s; memory grew by ${grown.toFixed(0)} MB,\n` +
        `  with ${small} units (${(few[index]!.bytes / 1e6).toFixed(0)} MB) by ${few[index]!.grown.toFixed(0)} MB.`,
    );
  }
}
