import { randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { eq } from 'drizzle-orm';
import { writePagePlan } from '@quarry/core/formats';
import { compileRelief } from '@quarry/core/relief';
import { publicProgress, publicScene, type PublicFigure, type PublicSection } from '@quarry/core/record';
import { displayOf, listOf } from '@quarry/core/scene';
import type { User } from '../accounts/accounts.service.ts';
import { STORE } from '../config.ts';
import { CrewService } from '../crew/crew.service.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { notFound } from '../http/errors.ts';
import type { Store } from '../store/database.ts';
import { shares } from '../store/tables.ts';

export interface ShareState {
  token: string | null;
  names: boolean;
}
/** What the public sees of a display. */
export interface SharePage {
  name: string;
  kind: string;
  ratio: number;
  showName: string;
  showDate: string | null;
  done: number;
  sections: PublicSection[];
  figures: PublicFigure[];
  /** The plan as SVG. */
  plan: string;
  reports: { name: string; at: string | null; text: string }[];
  /** When the display last changed, ms since the epoch. */
  at: number;
}

/** A busy display is drawn anew for the public at most this often, ms: a thousand visitors cost one drawing. */
const FRESH_MS = 10_000;
/** Height of the names on the plan, mm of the drawing. */
const TEXT_MM = 19;
/** The most reports a page shows, the newest first. */
const MOST_REPORTS = 12;

/** The page of a display that anybody with its address may see. */
@Injectable()
export class ShareService {
  private readonly drawn = new Map<
    string,
    { page: string; etag: string; madeAt: number; seq: number; names: boolean }
  >();

  constructor(
    @Inject(STORE) private readonly store: Store,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(CrewService) private readonly crew: CrewService,
  ) {}

  state(displayId: string, user: User): ShareState {
    this.displays.actor(displayId, user);
    const row = this.store.db.select().from(shares).where(eq(shares.displayId, displayId)).get();
    return { token: row?.token ?? null, names: row?.names ?? false };
  }

  /** Switches the page on, or sets whether it names people. @param fresh another address: the old one opens nothing */
  set(displayId: string, user: User, { names, fresh }: { names: boolean; fresh: boolean }): ShareState {
    this.crew.owner(displayId, user, 'share a display with the public');
    const known = this.state(displayId, user).token;
    const token = known && !fresh ? known : randomBytes(18).toString('base64url');
    this.store.db
      .insert(shares)
      .values({ displayId, token, names, createdAt: Date.now() })
      .onConflictDoUpdate({ target: shares.displayId, set: { token, names } })
      .run();
    return { token, names };
  }

  off(displayId: string, user: User): void {
    this.crew.owner(displayId, user, 'switch off the public page');
    this.store.db.delete(shares).where(eq(shares.displayId, displayId)).run();
    this.drawn.delete(displayId);
  }

  /** The page as JSON text with its tag. @throws ApiError 404 for an address that opens nothing */
  page(token: string): { page: string; etag: string } {
    const share = this.store.db.select().from(shares).where(eq(shares.token, token)).get();
    if (!share) throw notFound('shared display');
    const { displayId, names } = share;
    const known = this.drawn.get(displayId);
    const now = Date.now();
    if (known && known.names === names && now - known.madeAt < FRESH_MS) return known;
    const { seq } = this.displays.hold(displayId);
    if (known && known.names === names && known.seq === seq) {
      known.madeAt = now;
      return known;
    }
    const made = {
      page: JSON.stringify(this.draw(displayId, names)),
      etag: `"${seq}-${names ? 'n' : ''}"`,
      ...{ madeAt: now, seq, names },
    };
    this.drawn.set(displayId, made);
    return made;
  }

  private draw(displayId: string, names: boolean): SharePage {
    const { scene, at } = this.displays.hold(displayId);
    const seen = publicScene(scene);
    const { name, kind, ratio, showName, showDate } = displayOf(seen);
    return {
      ...{ name, kind, ratio, showName, showDate, at },
      ...publicProgress(scene, names),
      plan: writePagePlan(seen, compileRelief(seen), { textSize: TEXT_MM }),
      reports: listOf(scene, 'report')
        .filter(({ published }) => published)
        .sort((a, b) => b.upto - a.upto)
        .slice(0, MOST_REPORTS)
        .map((report) => ({ name: report.name, at: report.at, text: report.text })),
    };
  }
}
