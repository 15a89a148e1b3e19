import { fork, type ChildProcess } from 'node:child_process';
import { Agent, request } from 'node:http';
import { fileURLToPath } from 'node:url';

/** A server in a process of its own, so that it and whoever asks it do not share a thread. */
export class BenchServer {
  private readonly agent = new Agent({ keepAlive: true, maxSockets: 1 });

  private constructor(
    private readonly process: ChildProcess,
    private readonly port: number,
  ) {}

  static async start(kind: 'app' | 'bare', dataDir: string, now: number): Promise<BenchServer> {
    const script = fileURLToPath(new URL('./serve.js', import.meta.url));
    const child = fork(script, [kind, dataDir, String(now)]);
    const port = await new Promise<number>((ready) =>
      child.once('message', (message) => ready(message as number)),
    );
    return new BenchServer(child, port);
  }

  get pid(): number {
    return this.process.pid!;
  }

  get address(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Sends a request over the one open connection; the body that comes back, and how long it took. */
  call(
    method: 'GET' | 'POST',
    path: string,
    body?: object,
    more: Readonly<Record<string, string>> = {},
  ): Promise<{ ms: number; status: number; text: string }> {
    const start = performance.now();
    const payload = body === undefined ? undefined : JSON.stringify(body);
    return new Promise((resolve, reject) => {
      const headers =
        payload === undefined
          ? more
          : { ...more, 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(payload) };
      const call = request(
        { host: '127.0.0.1', port: this.port, agent: this.agent, method, path, headers },
        (response) => {
          const parts: Buffer[] = [];
          response.on('data', (part: Buffer) => parts.push(part));
          response.on('end', () =>
            resolve({
              ms: performance.now() - start,
              status: response.statusCode ?? 0,
              text: Buffer.concat(parts).toString(),
            }),
          );
        },
      );
      call.on('error', reject);
      call.end(payload);
    });
  }

  async stop(): Promise<void> {
    this.agent.destroy();
    const ended = new Promise((done) => this.process.once('exit', done));
    this.process.kill('SIGTERM');
    await ended;
  }
}
