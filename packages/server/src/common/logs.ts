import { mkdirSync } from 'node:fs';
import { pino, type Logger } from 'pino';

/** A file of the log, and how many are kept: half a year of a workshop that has little to complain of. */
const [FILE_SIZE, MOST_FILES] = ['5M', 9] as const;

export interface LogOptions {
  readonly level: string;
  /** Where the files lie; null for none. */
  readonly folder: string | null;
  readonly size?: `${number}${'B' | 'K' | 'M'}`;
  readonly files?: number;
  /** What is printed goes there; default: the console. */
  readonly print?: { write(line: string): unknown };
}

export interface Log {
  readonly log: Logger;
  /** Ends the file, when all is written. */
  close(): Promise<void>;
}

/**
 * A log that is printed and written to files that are changed for new ones when they are full. A disk that takes no
 * more ends the file, never the server.
 */
export async function openLog({
  level,
  folder,
  size = FILE_SIZE,
  files = MOST_FILES,
  print = process.stdout,
}: LogOptions): Promise<Log> {
  if (folder === null || level === 'silent') return { log: pino({ level }), close: () => Promise.resolve() };
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const { createStream } = await import('rotating-file-stream');
  const file = createStream('entretien.log', { path: folder, size, maxFiles: files, mode: 0o600 });
  let isBroken = false;
  file.on('error', (error: Error) => {
    if (!isBroken) process.stderr.write(`The log cannot be written to ${folder}: ${error.message}\n`);
    isBroken = true;
  });
  const toFile = { write: (line: string) => void (isBroken || file.write(line)) };
  const streams = [print, toFile].map((stream) => ({ stream, level: level as 'warn' }));
  return {
    log: pino({ level }, pino.multistream(streams)),
    close: () => new Promise((done) => file.end(() => done())),
  };
}
