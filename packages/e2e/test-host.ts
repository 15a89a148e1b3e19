import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { HostClient } from '@entretien/server/testing';
import { now } from './clock.js';

const packages = resolve(import.meta.dirname, '..');

/** Port at which a worker’s server may ask devices: nobody else’s, and not that of the demonstration. */
export function devicePort(): number {
  return 15_020 + Number(process.env['TEST_PARALLEL_INDEX'] ?? 0);
}

/** A warm server of a worker: an application per test, on one port, so that the browser keeps its files. */
export class TestHost {
  private folder: string | null = null;

  private constructor(private readonly client: HostClient) {}

  static async start(): Promise<TestHost> {
    return new TestHost(await HostClient.start(join(packages, 'server/bundle/test-host.js')));
  }

  /** What makes the first lead of the application that is open. */
  get firstCode(): string {
    return this.client.firstCode!;
  }

  get url(): string {
    return this.client.url;
  }

  /** Opens an application on a fresh copy of a data folder, at this worker's present. */
  async open(template: string): Promise<void> {
    this.forget();
    this.folder = mkdtempSync(join(tmpdir(), 'entretien-e2e-'));
    const dataDir = join(this.folder, 'data');
    cpSync(template, dataDir, { recursive: true });
    await this.client.open({
      dataDir,
      now: now(),
      webDir: join(packages, 'web/dist'),
      devicePort: devicePort(),
    });
  }

  close(): Promise<void> {
    return this.client.close();
  }

  async stop(): Promise<void> {
    await this.client.stop();
    this.forget();
  }

  private forget(): void {
    if (this.folder !== null) rmSync(this.folder, { recursive: true, force: true });
    this.folder = null;
  }
}
