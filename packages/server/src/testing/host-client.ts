import { fork, type ChildProcess } from 'node:child_process';
import type { HostAnswer, HostQuestion } from './test-host.js';

/** Asks a test host in a process of its own; see test-host.ts. */
export class HostClient {
  /** What makes the first lead of what is open; null where there are accounts. */
  firstCode: string | null = null;
  private asked = 0;
  private readonly waiting = new Map<number, (answer: HostAnswer) => void>();

  private constructor(
    private readonly process: ChildProcess,
    /** Where whatever is open answers; the same for as long as the host lives. */
    readonly url: string,
  ) {
    process.on('message', (answer: HostAnswer) => {
      this.waiting.get(answer.number)?.(answer);
      this.waiting.delete(answer.number);
    });
  }

  /** @param script the built test-host.js */
  static async start(script: string): Promise<HostClient> {
    // A test runner's own flags are none of the host's.
    const env = { ...process.env, NODE_OPTIONS: '' };
    const child = fork(script, { execArgv: ['--enable-source-maps'], env });
    const url = await new Promise<string>((ready, fail) => {
      child.once('message', (answer: HostAnswer) => ready(answer.url));
      child.once('exit', () => fail(new Error('The test host did not start.')));
    });
    return new HostClient(child, url);
  }

  /** Opens an application in the place of the one before. */
  async open(order: NonNullable<HostQuestion['open']>): Promise<void> {
    this.firstCode = (await this.ask({ open: order })).firstCode ?? null;
  }

  async close(): Promise<void> {
    await this.ask({});
  }

  /** Ends it as a cut cable would. */
  kill(): Promise<void> {
    return this.end(() => this.process.kill('SIGKILL'));
  }

  stop(): Promise<void> {
    return this.end(() => this.process.disconnect());
  }

  private async end(how: () => void): Promise<void> {
    if (this.process.exitCode !== null || this.process.signalCode !== null) return;
    const ended = new Promise((done) => this.process.once('exit', done));
    how();
    await ended;
  }

  private async ask(question: Omit<HostQuestion, 'number'>): Promise<HostAnswer> {
    this.asked += 1;
    const number = this.asked;
    const answered = new Promise<HostAnswer>((done) => this.waiting.set(number, done));
    this.process.send({ number, ...question });
    const answer = await answered;
    if (answer.problem !== undefined) throw new Error(answer.problem);
    return answer;
  }
}
