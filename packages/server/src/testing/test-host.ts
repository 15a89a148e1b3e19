import { createServer, type RequestListener } from 'node:http';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { Accounts } from '../access/accounts.js';
import { createApp } from '../app.js';

/*
 * A warm process for tests: it opens one application after the other on one port, each on a data folder and at a
 * moment that it is told. Its clock begins there and runs on. Ended like a cut cable, it is a server that was
 * killed.
 */

/** What the host is asked over its channel; every question is answered with its number. */
export interface HostQuestion {
  readonly number: number;
  /** Opens an application, in the place of the one before; left out, that one is closed. */
  readonly open?: {
    readonly dataDir: string;
    readonly now: number;
    readonly webDir?: string;
    /** The one port at this machine at which devices are asked; left out, none is. */
    readonly devicePort?: number;
  };
}

export interface HostAnswer {
  readonly number: number;
  readonly url: string;
  readonly problem?: string;
  /** What makes the first lead of what is open. */
  readonly firstCode?: string | null;
}

let app: NestExpressApplication | null = null;
let answerRequest: RequestListener | null = null;

const door = createServer((request, response) => {
  if (answerRequest) return answerRequest(request, response);
  response.writeHead(503, { 'Content-Type': 'text/plain' }).end('Nothing is open.');
});

function clockFrom(now: number): () => number {
  const started = performance.now();
  return () => Math.round(now + performance.now() - started);
}

async function close(): Promise<void> {
  answerRequest = null;
  await app?.close();
  app = null;
}

async function open({ dataDir, now, webDir, devicePort }: NonNullable<HostQuestion['open']>): Promise<void> {
  await close();
  const settings = {
    host: '127.0.0.1',
    port: 0,
    dataDir,
    timeZone: 'Europe/Zurich',
    ...(webDir === undefined ? {} : { webDir }),
    ...(devicePort === undefined ? {} : { devicesAt: [{ host: '127.0.0.1', port: devicePort }] }),
  };
  app = await createApp({ settings, clock: clockFrom(now) });
  await app.init();
  answerRequest = app.getHttpAdapter().getInstance() as RequestListener;
}

async function act(question: HostQuestion): Promise<void> {
  if (question.open === undefined) await close();
  else await open(question.open);
}

let last = Promise.resolve();

door.listen(0, '127.0.0.1', () => {
  const { port } = door.address() as { port: number };
  const url = `http://127.0.0.1:${port}`;
  const report = (answer: HostAnswer) => process.send?.(answer);
  process.on('message', (question: HostQuestion) => {
    last = last.then(async () => {
      try {
        await act(question);
        const firstCode = app?.get(Accounts).codeOfFirst() ?? null;
        report({ number: question.number, url, firstCode });
      } catch (error) {
        report({ number: question.number, url, problem: (error as Error).stack ?? String(error) });
      }
    });
  });
  report({ number: 0, url });
});
// Whoever tests may die: then nobody stops this host but itself.
process.on('disconnect', () => process.exit());
