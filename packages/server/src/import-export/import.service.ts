import { createWriteStream, mkdirSync, openSync, readSync, closeSync, rmSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Transform, type Readable } from 'node:stream';
import { Worker } from 'node:worker_threads';
import { Inject, Injectable } from '@nestjs/common';
import type { ImportQuery, ImportResultView } from '@entretien/contracts';
import { parseLocalDate } from '@entretien/core/basics';
import { guessImport, type ImportMapping } from '@entretien/core/hours';
import Papa from 'papaparse';
import { builtWorker } from '../common/built-worker.js';
import { conflict, malformed, ProblemError } from '../common/problem.js';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import type { Settings } from '../config.js';
import { PeopleService } from '../people/people.js';
import type { ImportRun, ImportCompressor } from './import-run.js';
import type { ImportTask } from './import-worker.js';
import { rowRanges } from './row-ranges.js';

/** Largest list taken: some five million rows. */
const MOST_BYTES = 300 * 1024 * 1024;
/** How much of a list is looked at to guess how it is to be read. */
const GUESSED_BYTES = 64 * 1024;
const GUESSED_ROWS = 100;
/** How long a list may stop coming, and take to come at all. */
const [LONGEST_PAUSE_MS, LONGEST_UPLOAD_MS] = [20_000, 600_000];

const DELIMITERS = { comma: ',', semicolon: ';', tab: '\t', auto: '' };

/** Takes lists of readings in: from a stream to a file, and from there by a worker into the database. */
@Injectable()
export class ImportService {
  private isUnderWay = false;

  constructor(
    private readonly register: CompressorRegister,
    private readonly people: PeopleService,
    @Inject(SETTINGS) private readonly settings: Settings,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {
    // What was under way when the server ended was never taken in.
    rmSync(this.folder, { recursive: true, force: true });
  }

  private get folder(): string {
    return join(this.settings.dataDir, 'imports');
  }

  async take(body: Readable, query: ImportQuery, by: string): Promise<ImportResultView> {
    const person = this.people.require(by);
    if (this.isUnderWay) {
      throw conflict(
        'import-under-way',
        'One list at a time.',
        'Another list is being read. Try again in a moment.',
      );
    }
    this.isUnderWay = true;
    mkdirSync(this.folder, { recursive: true, mode: 0o700 });
    const file = join(this.folder, `${randomUUID()}.csv`);
    try {
      await pipeline(body, upTo(MOST_BYTES), inTime(), createWriteStream(file));
      return await this.run(file, query, person);
    } finally {
      this.isUnderWay = false;
      rmSync(file, { force: true });
    }
  }

  private async run(file: string, query: ImportQuery, by: string): Promise<ImportResultView> {
    const { columns, delimiter, guess } = head(file, query);
    const mapping = mappingOf(columns, guess, query, this.settings.timeZone);
    const ran = runWorker({
      file,
      databaseFile: join(this.settings.dataDir, 'entretien.sqlite'),
      delimiter,
      order: {
        mode: query.mode,
        mapping,
        leaveOut: rowRanges(query.leaveOut ?? ''),
        units: this.units(),
        by,
        now: this.clock(),
      },
    });
    const { touched, ...result } = await ran.catch((error: unknown) => {
      // Broken off half way, the chunks before that are on record.
      this.register.forgetAll();
      throw error;
    });
    if (query.mode === 'commit') this.register.factsImported(touched);
    return { ...result, columns, mapping };
  }

  private units(): ImportCompressor[] {
    const now = this.clock();
    return [...this.register.all()].flatMap((record) => {
      const plate = this.register.plateOf(record, now);
      if (this.register.isRetired(plate, now)) return [];
      const commissioned = parseLocalDate(plate.commissionedOn);
      // One whose plate makes no sense takes no list in, and keeps nobody else from it.
      if (!commissioned.ok) return [];
      const commissionedDay = commissioned.value;
      return [{ id: record.id, tag: plate.tag, timeZone: this.register.timeZoneOf(plate), commissionedDay }];
    });
  }
}

/** Lets so many bytes through; what is longer is refused before it fills the disk. */
function upTo(most: number): Transform {
  let passed = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      passed += chunk.length;
      if (passed > most) {
        done(
          new ProblemError(
            413,
            'too-large',
            'That list is too long.',
            'Split it into lists of less than 300 MB.',
          ),
        );
      } else done(null, chunk);
    },
  });
}

/** Breaks off what dribbles: nobody else could send a list while it does. */
function inTime(): Transform {
  const stopped = () =>
    gate.destroy(
      new ProblemError(408, 'too-slow', 'That took too long.', 'The list stopped coming. Send it again.'),
    );
  let timer = setTimeout(stopped, LONGEST_PAUSE_MS);
  const last = setTimeout(stopped, LONGEST_UPLOAD_MS);
  const gate = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      clearTimeout(timer);
      timer = setTimeout(stopped, LONGEST_PAUSE_MS);
      done(null, chunk);
    },
    destroy(error, done) {
      clearTimeout(timer);
      clearTimeout(last);
      done(error);
    },
  });
  return gate;
}

/** The header of a list, how its columns are parted, and a guess at the rest. */
function head(file: string, query: ImportQuery) {
  const buffer = Buffer.alloc(GUESSED_BYTES);
  const descriptor = openSync(file, 'r');
  const length = readSync(descriptor, buffer, 0, GUESSED_BYTES, 0);
  closeSync(descriptor);
  const text = buffer.toString('utf8', 0, length);
  const { data, meta } = Papa.parse<string[]>(text, {
    delimiter: DELIMITERS[query.delimiter ?? 'auto'],
    skipEmptyLines: 'greedy',
    preview: GUESSED_ROWS + 1,
  });
  const [header, ...rows] = data;
  if (!header || text.includes('\0')) {
    throw malformed([{ field: 'file', message: 'This is no list: its first row must name the columns.' }]);
  }
  return {
    columns: header.map((title) => title.slice(0, 80)),
    delimiter: meta.delimiter,
    guess: guessImport(header, rows),
  };
}

function mappingOf(
  columns: readonly string[],
  guess: ReturnType<typeof guessImport>,
  query: ImportQuery,
  timeZone: string,
): ImportMapping {
  const column = (name: keyof ImportQuery, guessed: number | null) => {
    const title = query[name];
    if (title === undefined) return guessed;
    if (title === '') return null;
    const index = columns.indexOf(title);
    if (index < 0)
      throw malformed([{ field: name, message: `The list has no column “${title.slice(0, 40)}”.` }]);
    return index;
  };
  const needed = (name: keyof ImportQuery, guessed: number | null, what: string) => {
    const index = column(name, guessed);
    if (index === null) throw malformed([{ field: name, message: `Say which column holds ${what}.` }]);
    return index;
  };
  return {
    unit: needed('unitColumn', guess.unit, 'the unit'),
    date: needed('dateColumn', guess.date, 'the date'),
    hours: needed('hoursColumn', guess.hours, 'the hours'),
    time: column('timeColumn', guess.time),
    counts: column('countsColumn', guess.counts),
    note: column('noteColumn', guess.note),
    decimal: query.decimal ?? guess.decimal,
    dateOrder: query.dateOrder ?? guess.dateOrder,
    timeZone: query.timeZone ?? timeZone,
  };
}

type RunResult = ReturnType<ImportRun['finish']>;

function runWorker(task: ImportTask): Promise<RunResult> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(builtWorker(import.meta.url, 'import-worker'), { workerData: task });
    worker.once('message', resolve);
    worker.once('error', reject);
    worker.once('exit', (code) => reject(new Error(`the import ended with code ${code}`)));
  });
}
