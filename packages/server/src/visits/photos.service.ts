import { Inject, Injectable } from '@nestjs/common';
import type { CompressorPhotoView, PhotoView } from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import { FileAlbum, sha256 } from '../common/file-album.js';
import { pixelsOf } from '../common/pixels-of.js';
import { conflict, impossible, notFound, ProblemError } from '../common/problem.js';
import { refuseFullAlbum } from '../persistence/album-room.js';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import type { Settings } from '../config.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { PhotoEntity } from '../persistence/entities/visit.entity.js';
import { VisitRepository } from './visit-repository.js';

/** Largest photo taken, as the device sends it. */
export const LARGEST_PHOTO_MB = 15;
/** Longest side that is kept: enough to read a data plate, small enough to keep thousands. */
const LONGEST_SIDE_PX = 2000;

/** What a photo belongs to. */
export interface PhotoOwner {
  readonly of: 'visit' | 'compressor';
  readonly id: string;
}

interface PhotoAs {
  readonly id: string;
  readonly caption?: string | null | undefined;
}

type Album = Pick<PhotoEntity, 'visitId' | 'compressorId'>;

function isOf({ visitId, compressorId }: Album, album: Album): boolean {
  return visitId === album.visitId && compressorId === album.compressorId;
}

/** Photos lie beside the database, made anew from their pixels, so that nothing else comes along with them. */
@Injectable()
export class PhotosService {
  private readonly album: FileAlbum;
  private readonly mostBytes: number;

  constructor(
    private readonly database: Database,
    private readonly people: PeopleService,
    private readonly book: VisitRepository,
    private readonly register: CompressorRegister,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(SETTINGS) { dataDir, mostPhotoBytes = Infinity }: Settings,
  ) {
    this.mostBytes = mostPhotoBytes;
    this.album = new FileAlbum(dataDir);
    this.album.sweep();
  }

  /** Takes a photo in: its content says what it is, whatever it is called. */
  async add(
    owner: PhotoOwner,
    { id, caption = null }: PhotoAs,
    sent: Buffer,
    by: string,
  ): Promise<PhotoView> {
    const album = this.require(owner);
    const person = this.people.require(by);
    const hash = sha256(sent);
    const known = this.known(id, album, hash);
    // Sent again although it is on record, it may be what is missing or damaged here: then it is written again.
    if (known && this.picture(known) !== null) return toView(known);
    const { data, info } = await photoFrom(sent);
    if (!known) refuseFullAlbum(this.database, this.mostBytes, data.length);
    const row: PhotoEntity = {
      id: id.toLowerCase(),
      ...album,
      caption,
      recordedAt: this.clock(),
      by: person,
      sent: hash,
      stored: sha256(data),
      bytes: data.length,
      widthPx: info.width,
      heightPx: info.height,
    };
    return this.album.write(fileOf(row.id), data, (moveIn) =>
      this.database.transact(() => {
        // Whose picture it is decides here, for somebody may have sent the same id at once; only then it takes its place.
        const meanwhile = this.known(id, album, hash);
        if (meanwhile && this.picture(meanwhile) !== null) return toView(meanwhile);
        if (meanwhile) {
          const { stored, bytes } = row;
          this.database.run(
            'UPDATE "photo" SET "stored" = ?, "bytes" = ? WHERE "id" = ?',
            stored,
            bytes,
            row.id,
          );
        } else this.database.insert(PhotoEntity, row);
        moveIn();
        return toView(row);
      }),
    );
  }

  /** A photo as it was stored; a problem where it is not there, or not as it was. */
  read(owner: PhotoOwner, photoId: string): Buffer {
    const album = this.require(owner);
    const photo = this.database.find(PhotoEntity, photoId.toLowerCase());
    if (!photo || !isOf(photo, album)) {
      throw notFound(
        'no-such-photo',
        `There is no such photo ${owner.of === 'visit' ? 'in this visit' : 'of this unit'}.`,
      );
    }
    const picture = this.picture(photo);
    if (picture !== null) return picture;
    throw notFound(
      'photo-damaged',
      'The file of this photo is missing or damaged. Sent again from the device that took it, it is written again.',
    );
  }

  /** What is stored of a photo, or null where its file is missing or is not what was stored. */
  picture({ id, bytes, stored }: PhotoEntity): Buffer | null {
    return this.album.read(fileOf(id), { bytes, stored });
  }

  /** The photos of a machine, the latest first. */
  ofCompressor(compressorId: string): readonly CompressorPhotoView[] {
    const { id } = this.register.require(compressorId);
    const rows = this.database.findAll(
      PhotoEntity,
      'WHERE "compressor_id" = ? ORDER BY "recorded_at" DESC, "id"',
      id,
    );
    return rows.map((row) => ({
      ...toView(row),
      ...(row.caption === null ? {} : { caption: row.caption }),
      recordedAt: formatInstant(row.recordedAt),
      by: row.by,
    }));
  }

  private require({ of, id }: PhotoOwner): Album {
    return of === 'visit'
      ? { visitId: this.book.require(id).id, compressorId: null }
      : { visitId: null, compressorId: this.register.require(id).id };
  }

  private known(id: string, album: Album, sent: string): PhotoEntity | undefined {
    const row = this.database.find(PhotoEntity, id.toLowerCase());
    if (!row) return undefined;
    if (isOf(row, album) && row.sent === sent) return row;
    throw conflict('id-already-used', 'This id already belongs to another photo.', 'Send it with a new id.');
  }
}

function fileOf(photoId: string): string {
  return `${photoId}.jpg`;
}

async function photoFrom(sent: Buffer) {
  if (sent.length > LARGEST_PHOTO_MB * 1_000_000) {
    throw new ProblemError(
      413,
      'photo-too-large',
      'That is too much at once.',
      `A photo can be ${LARGEST_PHOTO_MB} MB large at most. Take it with fewer pixels.`,
    );
  }
  return pixelsOf(sent, {
    draw: (picture) =>
      picture
        .resize(LONGEST_SIDE_PX, LONGEST_SIDE_PX, { fit: 'inside', withoutEnlargement: true })
        .flatten({ background: '#ffffff' })
        .jpeg({ quality: 82 }),
    refuse: () =>
      impossible({
        code: 'not-a-photo',
        sentence: 'That is no photo that can be read: send a JPEG, PNG or WebP.',
      }),
  });
}

function toView({ id, widthPx, heightPx, bytes }: PhotoView): PhotoView {
  return { id, widthPx, heightPx, bytes };
}
