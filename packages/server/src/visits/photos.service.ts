import { createHash } from 'node:crypto';
import { closeSync, fsyncSync, mkdirSync, openSync, renameSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import type { PhotoView } from '@entretien/contracts';
import { conflict, impossible, notFound, ProblemError } from '../common/problem.js';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import type { Settings } from '../config.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { PhotoEntity } from '../persistence/entities/visit.entity.js';
import { VisitBook } from './visit-book.js';

/** Largest photo taken, as the device sends it. */
export const LARGEST_PHOTO_MB = 15;
/** Longest side that is kept: enough to read a data plate, small enough to keep thousands. */
const LONGEST_SIDE_PX = 2000;
const MOST_PIXELS = 80_000_000;
const TAKEN = new Set(['jpeg', 'png', 'webp']);

/** Photos lie beside the database, made anew from their pixels, so that nothing else comes along with them. */
@Injectable()
export class PhotosService {
  private readonly folder: string;

  constructor(
    private readonly database: Database,
    private readonly people: PeopleService,
    private readonly book: VisitBook,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(SETTINGS) { dataDir }: Settings,
  ) {
    this.folder = join(dataDir, 'photos');
  }

  /** Takes a photo in: its content says what it is, whatever it is called. */
  async add(visitId: string, id: string, sent: Buffer, by: string): Promise<PhotoView> {
    const visit = this.book.require(visitId);
    const person = this.people.require(by);
    const hash = sha256(sent);
    const known = this.known(id, visit.id, hash);
    if (known) return known;
    const { data, info } = await pixelsOf(sent);
    this.write(id.toLowerCase(), data);
    return this.database.transact(() => {
      // Somebody may have sent it twice at once.
      const meanwhile = this.known(id, visit.id, hash);
      if (meanwhile) return meanwhile;
      const row: PhotoEntity = {
        id: id.toLowerCase(),
        visitId: visit.id,
        recordedAt: this.clock(),
        by: person,
        sent: hash,
        stored: sha256(data),
        bytes: data.length,
        widthPx: info.width,
        heightPx: info.height,
      };
      this.database.insert(PhotoEntity, row);
      return toView(row);
    });
  }

  /** Where a photo of a visit lies. */
  pathOf(visitId: string, photoId: string): string {
    const photo = this.database.find(PhotoEntity, photoId.toLowerCase());
    if (photo?.visitId !== this.book.require(visitId).id) {
      throw notFound('no-such-photo', 'There is no such photo in this visit.');
    }
    return this.fileOf(photo.id);
  }

  fileOf(photoId: string): string {
    return join(this.folder, `${photoId}.jpg`);
  }

  private known(id: string, visitId: string, sent: string): PhotoView | undefined {
    const row = this.database.find(PhotoEntity, id.toLowerCase());
    if (!row) return undefined;
    if (row.visitId === visitId && row.sent === sent) return toView(row);
    throw conflict('id-already-used', 'This id already belongs to another photo.', 'Send it with a new id.');
  }

  /** Whole or not at all: written beside its place, then moved there. */
  private write(id: string, data: Buffer): void {
    mkdirSync(this.folder, { recursive: true });
    const file = this.fileOf(id);
    const half = `${file}.${process.pid}.part`;
    const handle = openSync(half, 'w');
    try {
      writeSync(handle, data);
      fsyncSync(handle);
    } finally {
      closeSync(handle);
    }
    renameSync(half, file);
    const folder = openSync(this.folder, 'r');
    fsyncSync(folder);
    closeSync(folder);
  }
}

async function pixelsOf(sent: Buffer) {
  if (sent.length > LARGEST_PHOTO_MB * 1_000_000) {
    throw new ProblemError(
      413,
      'photo-too-large',
      'That is too much at once.',
      `A photo can be ${LARGEST_PHOTO_MB} MB large at most. Take it with fewer pixels.`,
    );
  }
  const notPhoto = () =>
    impossible({
      code: 'not-a-photo',
      sentence: 'That is no photo that can be read: send a JPEG, PNG or WebP.',
    });
  try {
    // Its library is large, and most starts of the server see no photo.
    const { default: sharp } = await import('sharp');
    const picture = sharp(sent, { failOn: 'error', limitInputPixels: MOST_PIXELS });
    const { format } = await picture.metadata();
    if (!TAKEN.has(format ?? '')) throw notPhoto();
    return await picture
      .rotate()
      .resize(LONGEST_SIDE_PX, LONGEST_SIDE_PX, { fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
  } catch (error) {
    if (error instanceof ProblemError) throw error;
    throw notPhoto();
  }
}

function sha256(data: Buffer): string {
  return createHash('sha256').update(data).digest('hex');
}

function toView({ id, widthPx, heightPx, bytes }: PhotoEntity): PhotoView {
  return { id, widthPx, heightPx, bytes };
}
