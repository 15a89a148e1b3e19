import { execFile } from 'node:child_process';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { promisify } from 'node:util';
import { createApp } from '@entretien/server';
import { report } from './measure.js';
import { seed } from './seed.js';

const UNITS = 2000;
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

/** While the lists of a large fleet are written, nobody else waits, and memory does not grow with the list. */
export async function exportBench(dataDir: string, now: number): Promise<void> {
  await seed(dataDir, UNITS, READINGS, now);
  const settings = { host: '127.0.0.1', port: 0, dataDir, timeZone: 'UTC' };
  const app = await createApp({ settings, clock: () => now });
  await app.listen(0, '127.0.0.1');
  const { port } = app.getHttpServer().address() as { port: number };
  const lists = ['logbook/export?format=csv', 'logbook/export?format=json', 'readings/export'];
  for (const list of lists) {
    const delay = monitorEventLoopDelay({ resolution: 1 });
    const before = process.memoryUsage().rss;
    let most = before;
    const look = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 50);
    delay.enable();
    const { bytes, ms } = await fetched(`http://127.0.0.1:${port}/api/${list}`);
    delay.disable();
    clearInterval(look);
    const p99 = delay.percentile(99) / 1e6;
    const [megabytes, grown] = [bytes / 1e6, (most - before) / 1e6];
    report(
      `delay of the loop (p99) over ${MOST_DELAY_MS} ms while ${list} is written, ${UNITS} units`,
      p99 / MOST_DELAY_MS,
      p99 <= MOST_DELAY_MS,
      '≤ 1',
      `p99 ${p99.toFixed(1)} ms, most ${(delay.max / 1e6).toFixed(0)} ms; ${megabytes.toFixed(0)} MB in ${(ms / 1000).toFixed(1)} s; memory grew by ${grown.toFixed(0)} MB.`,
    );
  }
  await app.close();
}
