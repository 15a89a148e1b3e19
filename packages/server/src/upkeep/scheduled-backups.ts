import { execFile } from 'node:child_process';
import { setPriority } from 'node:os';
import { fileURLToPath } from 'node:url';
import {
  Inject,
  Injectable,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
} from '@nestjs/common';
import type { BackupsView } from '@entretien/contracts';
import { DAY_MS, formatInstant } from '@entretien/core/basics';
import { isBackupDue } from '@entretien/core/upkeep';
import type { Logger } from 'pino';
import { scheduledBackupsIn } from '../backup/scheduled.js';
import { builtWorker } from '../common/built-worker.js';
import { CLOCK, LOGGER, SETTINGS, type Clock } from '../common/tokens.js';
import type { Settings } from '../config.js';

/** A start has more urgent work than a backup; whether one is due is looked at this often. */
const [FIRST_LOOK_MS, LOOK_AGAIN_MS] = [30_000, 15 * 60_000];
/** Longer than this without a good one, and everybody reads it. */
const LATE_MS = 2 * DAY_MS;
/** Behind whatever people wait for. */
const LOW_PRIORITY = 10;

/** Makes a backup a day, in a process of its own, and knows how old the last good one is. */
@Injectable()
export class ScheduledBackups implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly folder: string | null;
  private readonly dataDir: string;
  private problem: string | null = null;
  private underWay: Promise<void> | null = null;
  private stop: (() => void) | null = null;
  private readonly timers: NodeJS.Timeout[] = [];

  constructor(
    @Inject(SETTINGS) { backupDir, dataDir }: Settings,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(LOGGER) private readonly logger: Logger,
  ) {
    this.folder = backupDir ?? null;
    this.dataDir = dataDir;
  }

  onApplicationBootstrap(): void {
    if (this.folder === null) return;
    const look = () => void this.makeIfDue();
    this.timers.push(setTimeout(look, FIRST_LOOK_MS).unref(), setInterval(look, LOOK_AGAIN_MS).unref());
  }

  beforeApplicationShutdown(): void {
    for (const timer of this.timers) clearTimeout(timer);
    this.stop?.();
  }

  /** @param isForStaff whether whoever asks may know what of the machine stands in the way */
  view(isForStaff = true): BackupsView {
    const last = this.lastAt();
    return {
      isOn: this.folder !== null,
      lastAt: last === null ? null : formatInstant(last),
      problem: this.problem === null || isForStaff ? this.problem : 'The last try failed.',
    };
  }

  /** What everybody should read of it; null where all is well. */
  doubt(): string | null {
    if (this.folder === null) return null;
    const last = this.lastAt();
    if (last === null) return this.problem === null ? null : `There is no backup yet. ${this.problem}`;
    const days = Math.floor((this.clock() - last) / DAY_MS);
    if (days * DAY_MS < LATE_MS) return null;
    return `The last good backup is ${days} days old. ${this.problem ?? 'Look at the server.'}`;
  }

  async makeIfDue(): Promise<void> {
    if (this.folder !== null && isBackupDue(scheduledBackupsIn(this.folder), this.clock())) await this.make();
  }

  /** Makes one now; whoever asks while one is under way waits for that. What goes wrong is told by {@link view}. */
  make(): Promise<void> {
    this.underWay ??= this.run().finally(() => (this.underWay = null));
    return this.underWay;
  }

  /** One from a day to come was made by a clock that was wrong: it says nothing of how old the last good one is. */
  private lastAt(): number | null {
    if (this.folder === null) return null;
    const latest = this.clock() + DAY_MS;
    return scheduledBackupsIn(this.folder).findLast((at) => at <= latest) ?? null;
  }

  private async run(): Promise<void> {
    try {
      const said = await this.inItsOwnProcess();
      this.problem = null;
      this.logger.info(said.trim());
    } catch (error) {
      this.problem = (error as Error).message;
      this.logger.error(`The backup failed: ${this.problem}`);
    }
  }

  private inItsOwnProcess(): Promise<string> {
    const script = fileURLToPath(builtWorker(import.meta.url, 'backup-run'));
    const order = [script, this.dataDir, this.folder!, String(this.clock())];
    return new Promise((done, fail) => {
      const child = execFile(process.execPath, order, (error, said, complaint) => {
        this.stop = null;
        if (error) fail(new Error(complaint.trim() || 'It was ended before it was done.'));
        else done(said);
      });
      this.stop = () => child.kill();
      try {
        if (child.pid !== undefined) setPriority(child.pid, LOW_PRIORITY);
      } catch {
        // It may have ended already.
      }
    });
  }
}
