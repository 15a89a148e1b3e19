import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { Agent } from 'node:http';
import type { NestExpressApplication } from '@nestjs/platform-express';
import Sqlite from 'better-sqlite3';
import request from 'supertest';
import { DataSource } from 'typeorm';
import { createApp, type AppOptions } from '../app.js';
import type { Settings } from '../config.js';
import { Database } from '../persistence/database.js';

/** Where the tests' own clock stands when a server starts. */
export const NOW = Date.UTC(2026, 10, 24, 9);
export const DAY = 86_400_000;

/** A moment so many days before {@link NOW}, as it is written on the wire. */
export function daysAgo(days: number): string {
  return new Date(NOW - days * DAY).toISOString();
}

export interface Answer {
  readonly status: number;
  // The body is whatever the server sent: tests look into it freely.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  readonly body: any;
  readonly headers: Record<string, string>;
}

/** A server on a real SQLite file in a folder of its own, reached over HTTP, with a clock that tests set. */
export class TestServer {
  now = NOW;
  /** What every request sends along that says nothing else: who is signed in. */
  as: Record<string, string> = {};
  private app!: NestExpressApplication;
  /** Connections are kept: a new one for each of thousands of questions takes longer than the answers. */
  private connections!: Agent;
  readonly dataDir: string = mkdtempSync(join(tmpdir(), 'entretien-test-'));

  /** @param build what the server takes itself for: what another build has kept it does not believe */
  static async start(
    more: Partial<Settings> = {},
    build: string | null = null,
    kinds?: AppOptions['kinds'],
    logger?: AppOptions['logger'],
  ): Promise<TestServer> {
    const server = new TestServer(more, build, kinds, logger);
    await server.open();
    return server;
  }

  private constructor(
    private readonly more: Partial<Settings>,
    private build: string | null,
    private readonly kinds: AppOptions['kinds'],
    private readonly logger: AppOptions['logger'],
  ) {
    if (more.dataDir !== undefined) this.dataDir = more.dataDir;
  }

  private async open(): Promise<void> {
    const settings = { host: '127.0.0.1', port: 0, dataDir: this.dataDir, timeZone: 'UTC', ...this.more };
    this.app = await createApp({
      settings,
      clock: () => this.now,
      build: this.build,
      ...(this.kinds ? { kinds: this.kinds } : {}),
      ...(this.logger ? { logger: this.logger } : {}),
    });
    await this.app.listen(0, '127.0.0.1');
    this.connections = new Agent({ keepAlive: true });
  }

  private async close(): Promise<void> {
    this.connections.destroy();
    await this.app.close();
  }

  private asking(method: 'get' | 'post' | 'put' | 'delete', path: string): request.Test {
    return request(this.url)[method](path).agent(this.connections);
  }

  /** Stops the server and starts it again on the same file. */
  async restart(build = this.build): Promise<void> {
    await this.close();
    this.build = build;
    await this.open();
  }

  /** Stops, puts the order back that was kept earlier, as if nobody had told the server to end, and starts again. */
  async stopAndKeep(row: object): Promise<void> {
    await this.close();
    const database = new Sqlite(join(this.dataDir, 'entretien.sqlite'));
    const names = Object.keys(row);
    const sql = `INSERT OR REPLACE INTO "kept_order" (${names.map((name) => `"${name}"`).join(', ')}) VALUES (${names.map(() => '?').join(', ')})`;
    database.prepare(sql).run(...Object.values(row));
    database.close();
    await this.open();
  }

  async stop(): Promise<void> {
    await this.close();
    rmSync(this.dataDir, { recursive: true, force: true });
  }

  /** Where it answers. */
  get url(): string {
    const { port } = this.app.getHttpServer().address() as { port: number };
    return `http://127.0.0.1:${port}`;
  }

  /** A provider of the running application. */
  get<Provider>(token: abstract new (...parts: never[]) => Provider): Provider {
    return this.app.get(token as never);
  }

  async read(path: string, headers: Record<string, string> = {}): Promise<Answer> {
    return toAnswer(await this.asking('get', path).set({ ...this.as, ...headers }));
  }

  async post(path: string, body: object | string, headers: Record<string, string> = {}): Promise<Answer> {
    const call = this.asking('post', path)
      .set('Content-Type', 'application/json')
      .set({ ...this.as, ...headers });
    return toAnswer(await call.send(body));
  }

  /** Sends bytes as they are. */
  async postBytes(path: string, bytes: Buffer, type: string): Promise<Answer> {
    return toAnswer(
      await this.asking('post', path)
        .set({ ...this.as, 'Content-Type': type })
        .send(bytes),
    );
  }

  /** Reads bytes as they come. */
  async readBytes(
    path: string,
    headers: Record<string, string> = {},
  ): Promise<{ status: number; type: string; bytes: Buffer }> {
    const response = await this.asking('get', path)
      .set({ ...this.as, ...headers })
      .buffer(true)
      .parse(collect as never);
    return { status: response.status, type: response.type, bytes: response.body as Buffer };
  }

  async ask(
    method: 'get' | 'post' | 'put' | 'delete',
    path: string,
    headers: Record<string, string>,
    body = {},
  ): Promise<Answer> {
    const call = this.asking(method, path).set(headers);
    return toAnswer(await (method === 'get' || method === 'delete' ? call : call.send(body)));
  }

  async put(path: string, body: object, headers: Record<string, string> = {}): Promise<Answer> {
    const call = this.asking('put', path).set('Content-Type', 'application/json');
    return toAnswer(await call.set({ ...this.as, ...headers }).send(body));
  }

  /** Takes something out of the file behind the server's back. */
  async forget(sql: string): Promise<void> {
    await this.app.get(DataSource).query(sql);
  }

  /** Rows as they stand in the file. */
  rows<Row>(sql: string): Row[] {
    return this.app.get(Database).all<Row>(sql);
  }

  async addSite(more: object = {}): Promise<string> {
    const id = randomUUID();
    expectStatus(201, await this.post('/api/sites', { id, name: 'Coppel Joinery', ...more }));
    return id;
  }

  /** A piston set commissioned on the first of the year, on a site of its own unless one is given. */
  async addCompressor(more: object = {}): Promise<string> {
    const id = randomUUID();
    const siteId = (more as { siteId?: string }).siteId ?? (await this.addSite());
    const unit = { id, tag: 'CJ-1', family: 'piston', commissionedOn: '2026-01-01', ...more, siteId };
    expectStatus(201, await this.post('/api/compressors', unit));
    return id;
  }

  readHours(unit: string, takenAt: string, hours: number, more: object = {}): Promise<Answer> {
    const reading = { id: randomUUID(), takenAt, hours, counts: 'total', source: 'typed', ...more };
    return this.post(`/api/compressors/${unit}/readings`, reading);
  }

  recordService(unit: string, doneAt: string, tasks: string[], more: object = {}): Promise<Answer> {
    return this.post(`/api/compressors/${unit}/services`, { id: randomUUID(), doneAt, tasks, ...more });
  }

  async standing(unit: string, query = ''): Promise<Answer['body']> {
    return (await this.read(`/api/compressors/${unit}/standing${query}`)).body;
  }

  async task(unit: string, code: string, query = ''): Promise<Answer['body']> {
    const { tasks } = await this.standing(unit, query);
    return tasks.find((task: { code: string }) => task.code === code);
  }
}

function collect(response: NodeJS.ReadableStream, done: (error: Error | null, body: Buffer) => void): void {
  const parts: Buffer[] = [];
  response.on('data', (part: Buffer | string) => parts.push(Buffer.from(part as string, 'binary')));
  response.on('end', () => done(null, Buffer.concat(parts)));
}

function toAnswer(response: request.Response): Answer {
  const isJson = /json/.test(response.type);
  return {
    status: response.status,
    body: isJson ? (JSON.parse(response.text) as unknown) : response.text,
    headers: response.headers as Record<string, string>,
  };
}

export function expectStatus(status: number, answer: Answer): void {
  if (answer.status !== status) {
    throw new Error(`expected ${status}, got ${answer.status}: ${JSON.stringify(answer.body)}`);
  }
}
