import { Inject, Injectable } from '@nestjs/common';
import type { PaperQuery, PaperView } from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import { fitsKind, paperTypeOf, paperTypes, type PaperType } from '@entretien/core/machine';
import { FileAlbum, sha256 } from '../common/file-album.js';
import { conflict, impossible, notFound, ProblemError } from '../common/problem.js';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import type { Settings } from '../config.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { refuseFullAlbum } from '../persistence/album-room.js';
import { PaperEntity, paperFile } from '../persistence/entities/paper.entity.js';
import { refuseActivePdf } from './pdf-check.js';

/** Nobody looks through more papers of one machine. */
const MOST_PAPERS = 60;

/** The papers of machines. They are kept as they were sent, once it is sure what they are. */
@Injectable()
export class PapersService {
  private readonly album: FileAlbum;
  private readonly mostBytes: number;

  constructor(
    private readonly database: Database,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(SETTINGS) { dataDir, mostPhotoBytes = Infinity }: Settings,
  ) {
    this.album = new FileAlbum(dataDir);
    this.mostBytes = mostPhotoBytes;
  }

  /** Takes a paper in: its content says what it is, whatever it is called. */
  async add(
    compressorId: string,
    { id: sentId, kind, title }: PaperQuery,
    sent: Buffer,
    by: string,
  ): Promise<PaperView> {
    const unit = this.register.require(compressorId);
    const person = this.people.require(by);
    const id = sentId.toLowerCase();
    const stored = sha256(sent);
    const known = this.known(id, unit.id, stored);
    // Sent again although it is on record, its file may be missing or damaged here: then it is written again.
    if (known && this.content(known) !== null) return toView(known);
    const type = typeOf(sent, kind);
    const pages = type === 'pdf' ? (await refuseActivePdf(sent)).pages : null;
    if (!known) this.refuseTooMany(unit.id, sent.length);
    const row: PaperEntity = {
      id,
      compressorId: unit.id,
      kind,
      title: title.trim(),
      type,
      recordedAt: this.clock(),
      by: person,
      stored,
      bytes: sent.length,
      pages,
      asideAt: null,
      asideBy: null,
    };
    return this.album.write(paperFile(row), sent, (moveIn) =>
      this.database.transact(() => {
        const meanwhile = this.known(id, unit.id, stored);
        if (!meanwhile) this.database.insert(PaperEntity, row);
        moveIn();
        return toView(meanwhile ?? row);
      }),
    );
  }

  /** Those that are in use, by what they are. */
  of(compressorId: string): readonly PaperView[] {
    const { id } = this.register.require(compressorId);
    return this.database
      .findAll(
        PaperEntity,
        'WHERE "compressor_id" = ? AND "aside_at" IS NULL ORDER BY "recorded_at" DESC, "id"',
        id,
      )
      .map(toView);
  }

  /** The file of a paper, with what it is. */
  read(compressorId: string, paperId: string): { readonly content: Buffer; readonly paper: PaperEntity } {
    const paper = this.require(compressorId, paperId);
    const content = this.content(paper);
    if (content !== null) return { content, paper };
    throw notFound(
      'paper-damaged',
      'The file of this paper is missing or damaged. Sent again from where it came, it is written again.',
    );
  }

  /** It is shown no longer; it stays on record. */
  putAside(compressorId: string, paperId: string, by: string): readonly PaperView[] {
    const paper = this.require(compressorId, paperId);
    const person = this.people.require(by);
    this.database.run(
      'UPDATE "paper" SET "aside_at" = ?, "aside_by" = ? WHERE "id" = ? AND "aside_at" IS NULL',
      this.clock(),
      person,
      paper.id,
    );
    return this.of(compressorId);
  }

  private require(compressorId: string, paperId: string): PaperEntity {
    const unit = this.register.require(compressorId);
    const paper = this.database.find(PaperEntity, paperId.toLowerCase());
    if (paper?.compressorId !== unit.id)
      throw notFound('no-such-paper', 'There is no such paper of this unit.');
    return paper;
  }

  private content(paper: PaperEntity): Buffer | null {
    return this.album.read(paperFile(paper), paper);
  }

  private known(id: string, compressorId: string, stored: string): PaperEntity | undefined {
    const row = this.database.find(PaperEntity, id);
    if (!row) return undefined;
    if (row.compressorId === compressorId && row.stored === stored) return row;
    throw conflict('id-already-used', 'This id already belongs to another paper.', 'Send it with a new id.');
  }

  private refuseTooMany(compressorId: string, bytes: number): void {
    if (this.of(compressorId).length >= MOST_PAPERS)
      throw impossible({
        code: 'too-many-papers',
        sentence: `A unit has ${MOST_PAPERS} papers at most: put aside what nobody reads.`,
      });
    refuseFullAlbum(this.database, this.mostBytes, bytes);
  }
}

function typeOf(sent: Buffer, kind: PaperQuery['kind']): PaperType {
  const type = paperTypeOf(sent);
  if (type === null || !fitsKind(kind, type)) {
    throw impossible({
      code: 'not-a-paper',
      sentence:
        kind === 'sound'
          ? 'That is no sound that can be played: send MP3, M4A, Ogg, WebM or WAV.'
          : 'That is no PDF: its content says otherwise, whatever it is called.',
    });
  }
  const { mostMB } = paperTypes[type];
  if (sent.length > mostMB * 1_000_000) throw tooLarge(mostMB);
  return type;
}

function tooLarge(mostMB: number): ProblemError {
  return new ProblemError(
    413,
    'paper-too-large',
    'That is too much at once.',
    `Such a file can be ${mostMB} MB large at most.`,
  );
}

function toView({
  id,
  compressorId,
  kind,
  title,
  type,
  bytes,
  pages,
  recordedAt,
  by,
}: PaperEntity): PaperView {
  return { id, compressorId, kind, title, type, bytes, pages, recordedAt: formatInstant(recordedAt), by };
}
