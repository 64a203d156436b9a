import { createHash, randomBytes } from 'node:crypto';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { Inject, Injectable } from '@nestjs/common';
import { formatISO } from 'date-fns';
import { eq } from 'drizzle-orm';
import type { ShareState } from '@quarry/protocol/share';
import { CONFIG, STORE, type Config } from '../config.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { notFound } from '../http/errors.ts';
import { PhotosService } from '../photos/photos.service.ts';
import { PressService } from '../sheets/press.service.ts';
import type { Store } from '../store/database.ts';
import { shares } from '../store/tables.ts';
import { nothingHere, readFrame } from './frame.ts';

/** A page as it is sent. */
export interface SentPage {
  html: Buffer;
  /** The same, compressed once for all who ask. */
  gzip: Buffer;
  etag: string;
}
/** A page as it was last made, and of what. */
interface Drawn extends SentPage {
  madeAt: number;
  /** Of the display's last change. */
  seq: number;
  /** Its address and day, and whether it names people. */
  key: string;
}

const compressed = promisify<Buffer, Buffer>(gzip);

/** Shortest time between two renderings of a public page, ms: a thousand visitors cost one. */
const FRESH_MS = 10_000;
/** The page of a display that anybody with its address may see. */
@Injectable()
export class ShareService {
  private readonly drawn = new Map<string, Drawn>();
  private readonly drawing = new Map<string, Promise<Drawn>>();
  private readonly frame: string;

  constructor(
    @Inject(CONFIG) config: Config,
    @Inject(STORE) private readonly store: Store,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(PressService) private readonly press: PressService,
    @Inject(PhotosService) private readonly photos: PhotosService,
  ) {
    this.frame = readFrame(config.web);
  }

  state(displayId: string): ShareState {
    const row = this.store.db.select().from(shares).where(eq(shares.displayId, displayId)).get();
    return { token: row?.token ?? null, names: row?.names ?? false };
  }

  /** Switches the page on, or sets whether it names people. @param fresh another address: the old one opens nothing */
  set(displayId: string, { names, fresh }: { names: boolean; fresh: boolean }): ShareState {
    const known = this.state(displayId).token;
    const token = known && !fresh ? known : randomBytes(18).toString('base64url');
    this.store.db
      .insert(shares)
      .values({ displayId, token, names, createdAt: Date.now() })
      .onConflictDoUpdate({ target: shares.displayId, set: { token, names } })
      .run();
    return { token, names };
  }

  off(displayId: string): void {
    this.store.db.delete(shares).where(eq(shares.displayId, displayId)).run();
    this.drawn.delete(displayId);
  }

  /** A photo of the page. @throws ApiError 404 for an address that opens nothing, or a photo that is not published */
  photo(token: string, digest: string, small: boolean): Buffer {
    const share = this.store.db.select().from(shares).where(eq(shares.token, token)).get();
    if (!share) throw notFound('shared display');
    return this.photos.published(share.displayId, digest, small);
  }

  /** The page as HTML with its tag. @throws ApiError 404 for an address that opens nothing */
  async page(token: string): Promise<SentPage> {
    const share = this.store.db.select().from(shares).where(eq(shares.token, token)).get();
    if (!share) throw notFound('shared display');
    const { displayId, names } = share;
    const known = this.drawn.get(displayId);
    const now = Date.now();
    const today = formatISO(now, { representation: 'date' });
    const key = `${displayId} ${token} ${today} ${names}`;
    if (known?.key === key && now - known.madeAt < FRESH_MS) return known;
    const { seq } = this.displays.load(displayId);
    if (known?.key === key && known.seq === seq) {
      known.madeAt = now;
      return known;
    }
    // However many visitors ask, one drawing is under way.
    const drawing = this.drawing.get(key) ?? this.draw(displayId, { token, names, today, key });
    this.drawing.set(key, drawing);
    try {
      return await drawing;
    } finally {
      this.drawing.delete(key);
    }
  }

  /** The page for an address that shows nothing. @param why a sentence */
  nothing(why: string): string {
    return nothingHere(this.frame, why);
  }

  private async draw(
    displayId: string,
    { token, names, today, key }: { token: string; names: boolean; today: string; key: string },
  ): Promise<Drawn> {
    const { scene, at, seq } = this.displays.load(displayId);
    const setting = { token, today, frame: this.frame };
    const job = { what: 'page' as const, rows: this.press.textOf(scene), at, names, setting };
    const { body } = await this.press.make(`page ${displayId}`, job);
    const html = Buffer.from(body);
    const etag = `"${createHash('sha256').update(html).digest('base64url').slice(0, 22)}"`;
    const made = { html, gzip: await compressed(html), etag, madeAt: Date.now(), seq, key };
    // Switched off, or given another address, while it was drawn: nothing is kept.
    if (this.state(displayId).token === token) this.drawn.set(displayId, made);
    return made;
  }
}
