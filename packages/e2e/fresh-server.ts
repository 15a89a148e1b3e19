import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const packages = resolve(import.meta.dirname, '..');
const template = join(packages, '../node_modules/.cache/entretien/e2e-template');

/** Tells the story of the valley once, for every server of this run to start from. */
export default function makeTemplate(): void {
  rmSync(template, { recursive: true, force: true });
  const { status } = spawnSync(process.execPath, [join(packages, 'demo/dist/main.js'), template], {
    stdio: 'inherit',
  });
  if (status !== 0 || !existsSync(template)) throw new Error('The demonstration data could not be made.');
}

/** A server of its own for one test, on a copy of the demonstration data. */
export class FreshServer {
  private constructor(
    private readonly folder: string,
    private running: Running,
  ) {}

  get url(): string {
    return this.running.url;
  }

  static async start(): Promise<FreshServer> {
    const folder = mkdtempSync(join(tmpdir(), 'entretien-e2e-'));
    const dataDir = join(folder, 'data');
    cpSync(template, dataDir, { recursive: true });
    return new FreshServer(folder, await run(dataDir));
  }

  /** Ends it as a cut cable would. */
  kill(): Promise<void> {
    return end(this.running.process, 'SIGKILL');
  }

  /** Starts it again on the data it left. */
  async restart(): Promise<void> {
    this.running = await run(join(this.folder, 'data'));
  }

  async stop(): Promise<void> {
    await end(this.running.process, 'SIGTERM');
    rmSync(this.folder, { recursive: true, force: true });
  }
}

interface Running {
  readonly url: string;
  readonly process: ChildProcess;
}

async function run(dataDir: string): Promise<Running> {
  const server = spawn(process.execPath, [join(packages, 'server/dist/main.js')], {
    env: { ...process.env, ENTRETIEN_DATA_DIR: dataDir, ENTRETIEN_PORT: '0' },
  });
  const url = await new Promise<string>((ready, fail) => {
    let said = '';
    const listen = (chunk: Buffer) => {
      said += chunk.toString();
      const address = /ready on (http:\S+)/.exec(said)?.[1];
      if (address) ready(address);
    };
    server.stdout.on('data', listen);
    server.stderr.on('data', listen);
    server.on('exit', () => fail(new Error(`The server did not start: ${said}`)));
  });
  return { url, process: server };
}

async function end(server: ChildProcess, signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
  const ended = new Promise((done) => server.once('exit', done));
  server.kill(signal);
  await ended;
}
