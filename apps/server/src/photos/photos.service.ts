import { createHash } from 'node:crypto';
import { HttpStatus, Inject, Injectable } from '@nestjs/common';
import { and, count, eq } from 'drizzle-orm';
import { ARCHIVED_DISPLAY, archivedPhoto, fileName } from '@quarry/core/formats';
import { displayOf, listOf, writeFile, type Scene } from '@quarry/core/document';
import type { User } from '@quarry/protocol/accounts';
import type { KeptPhoto } from '@quarry/protocol/photos';
import { STORE } from '../config.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { ApiError, notFound } from '../http/errors.ts';
import type { Store } from '../store/database.ts';
import { photoFiles } from '../store/tables.ts';
import { textParts, type ArchiveFile } from './archive.ts';
import { reencode } from './picture.ts';

/** The largest picture that is taken in, bytes as sent. */
export const MAX_PHOTO_BYTES = 15_000_000;
/** The most photos of one display: about 150 MB. */
const MAX_PHOTOS = 400;

/** Photos of displays: re-encoded on arrival, so that no metadata of the sent file is kept. */
@Injectable()
export class PhotosService {
  constructor(
    @Inject(STORE) private readonly store: Store,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
  ) {}

  /**
   * Keeps a picture. The same one sent again is kept once.
   * @param sent null: what was sent is no picture by its own word
   * @throws ApiError 400 for what is no picture, 403, 409
   */
  async keep(displayId: string, user: User, sent: Uint8Array | null): Promise<KeptPhoto> {
    if (sent === null || sent.length === 0)
      throw new ApiError(
        HttpStatus.BAD_REQUEST,
        'no-picture',
        'Send the picture itself as the body, as image/jpeg.',
      );
    const kept = await reencode(sent);
    const digest = createHash('sha256').update(kept.bytes).digest('hex');
    const { db } = this.store;
    const of = and(eq(photoFiles.displayId, displayId), eq(photoFiles.digest, digest));
    const known = db.select({ at: photoFiles.at }).from(photoFiles).where(of).get();
    const total = db
      .select({ total: count() })
      .from(photoFiles)
      .where(eq(photoFiles.displayId, displayId))
      .get();
    if (!known && (total?.total ?? 0) >= MAX_PHOTOS)
      throw new ApiError(
        HttpStatus.CONFLICT,
        'too-many',
        `This display has ${MAX_PHOTOS} photos, which is the most it may have.`,
      );
    db.insert(photoFiles)
      .values({ displayId, digest, userId: user.id, at: Date.now(), ...kept })
      .onConflictDoNothing()
      .run();
    return { file: digest, width: kept.width, height: kept.height };
  }

  /** The JPEG of a photo. @throws ApiError 404 */
  bytes(displayId: string, digest: string, small: boolean): Buffer {
    return this.kept(displayId, digest, small);
  }

  /** A display's file and its photos, for an archive. */
  archive(displayId: string): { name: string; files: Iterable<ArchiveFile> } {
    const { scene } = this.displays.load(displayId);
    return {
      name: fileName([displayOf(scene).name], 'quarry.zip'),
      files: [
        { name: ARCHIVED_DISPLAY, parts: textParts(writeFile(scene)) },
        ...this.archived(displayId, scene),
      ],
    };
  }

  /** The photos of a display, as files of an archive; each is read when its turn comes. */
  archived(displayId: string, scene: Scene): ArchiveFile[] {
    const bytesOf = (digest: string) =>
      this.store.db
        .select({ bytes: photoFiles.bytes })
        .from(photoFiles)
        .where(and(eq(photoFiles.displayId, displayId), eq(photoFiles.digest, digest)))
        .get()?.bytes;
    const kept = new Set(
      this.store.db
        .select({ digest: photoFiles.digest })
        .from(photoFiles)
        .where(eq(photoFiles.displayId, displayId))
        .all()
        .map(({ digest }) => digest),
    );
    const listed = new Set(listOf(scene, 'photo').map(({ file }) => file));
    return [...listed]
      .filter((digest) => kept.has(digest))
      .map((digest) => ({
        name: archivedPhoto(digest),
        *parts() {
          const bytes = bytesOf(digest);
          if (bytes) yield bytes;
        },
      }));
  }

  /** The JPEG of a photo for the public. @throws ApiError 404 for one that its owner has not published */
  published(displayId: string, digest: string, small: boolean): Buffer {
    const { scene } = this.displays.load(displayId);
    if (!listOf(scene, 'photo').some(({ file, published }) => file === digest && published))
      throw notFound('photo');
    return this.kept(displayId, digest, small);
  }

  /** @throws ApiError 404 */
  private kept(displayId: string, digest: string, small: boolean): Buffer {
    const row = this.store.db
      .select({ bytes: small ? photoFiles.small : photoFiles.bytes })
      .from(photoFiles)
      .where(and(eq(photoFiles.displayId, displayId), eq(photoFiles.digest, digest)))
      .get();
    if (!row) throw notFound('photo');
    return row.bytes;
  }
}
