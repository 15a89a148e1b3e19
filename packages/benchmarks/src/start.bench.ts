import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { median, report } from './measure.js';

const ROUNDS = 7;
/** What release 0.1.0 took, started from single modules: printed beside, measured on the machine of its time. */
const OF_0_1_0 = { 'until it answers': 'half of 19', processor: 'half of 27' } as const;
/** Ticks of a second in what the kernel says of a process. */
const TICKS = 100;

interface Start {
  readonly wallMs: number;
  /** Null where the kernel does not tell. */
  readonly processorMs: number | null;
}

function processorOf(pid: number): number | null {
  const file = `/proc/${pid}/stat`;
  if (!existsSync(file)) return null;
  const text = readFileSync(file, 'utf8');
  const fields = text.slice(text.lastIndexOf(')') + 2).split(' ');
  return ((Number(fields[11]) + Number(fields[12])) * 1000) / TICKS;
}

/** From the command to the moment at which it says that it is there. */
function start(args: readonly string[], dataDir: string): Promise<Start> {
  const began = performance.now();
  const child = spawn(process.execPath, args, {
    env: { ...process.env, ENTRETIEN_DATA_DIR: dataDir, ENTRETIEN_PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((done, fail) => {
    let started: Start | null = null;
    child.stdout.on('data', (chunk: Buffer) => {
      if (started !== null || !chunk.toString().includes('ready')) return;
      started = { wallMs: performance.now() - began, processorMs: processorOf(child.pid!) };
      child.kill('SIGTERM');
    });
    child.on('exit', () => (started ? done(started) : fail(new Error(`${args.join(' ')} did not start.`))));
  });
}

/** How long the server takes to be there, over a program that does nothing. */
export async function startBench(dataDir: string): Promise<void> {
  const server = (file: string) => fileURLToPath(new URL(`../../server/${file}`, import.meta.url));
  const kinds = {
    nothing: ['-e', 'process.stdout.write("ready"); setTimeout(() => undefined, 1000)'],
    bundle: [server('bundle/main.js')],
    modules: [server('dist/main.js')],
  };
  const starts: Record<keyof typeof kinds, Start[]> = { nothing: [], bundle: [], modules: [] };
  for (let round = 0; round <= ROUNDS; round += 1) {
    for (const kind of Object.keys(kinds) as (keyof typeof kinds)[]) {
      const folder = join(dataDir, kind);
      mkdirSync(folder, { recursive: true });
      const one = await start(kinds[kind], folder);
      // The first finds cold files and empty tables.
      if (round > 0) starts[kind].push(one);
    }
  }
  const wall = (kind: keyof typeof kinds) => median(starts[kind].map(({ wallMs }) => wallMs));
  const processor = (kind: keyof typeof kinds) =>
    median(starts[kind].map(({ processorMs }) => processorMs ?? 0));
  const format = (what: keyof typeof OF_0_1_0, of: typeof wall) => {
    const [nothing, bundle, modules] = [of('nothing'), of('bundle'), of('modules')];
    const figures = `${bundle.toFixed(0)} ms, node that does nothing ${nothing.toFixed(0)} ms, from single modules ${modules.toFixed(0)} ms`;
    const ratio = bundle / Math.max(nothing, 1);
    report(`start of the server over node that does nothing, ${what}`, ratio, null, OF_0_1_0[what], figures);
  };
  format('until it answers', wall);
  format('processor', processor);
}
