import { HttpStatus, Injectable, type OnModuleDestroy } from '@nestjs/common';
import type { CommittedBatch, Present, StreamEvent, Whereabouts } from '@quarry/protocol/changes';
import { ApiError } from '../http/errors.ts';

export interface Listener {
  userId: string;
  /** Digest of the session that opened the stream. */
  session: string;
  /** The window that listens, and who is at it. */
  present: Present;
  /** Sends a piece of the event stream, as it is. */
  send(text: string): void;
  end(): void;
}

/** Windows of one display that one person may have open. */
const MAX_WINDOWS = 20;
/** Shortest time between presence events, ms: not visible to a person, and thirty moving people do not flood the rest. */
const PRESENCE_MS = 250;

const eventText = (event: StreamEvent, data: unknown) => `event: ${event}\ndata: ${JSON.stringify(data)}\n\n`;
/** The event stream's text of a batch: made once for all who hear it. */
export const committedText = (landed: CommittedBatch) =>
  `id: ${landed.seq}\ndata: ${JSON.stringify(landed)}\n\n`;

/** Who listens to which display, and where they are. */
@Injectable()
export class HubService implements OnModuleDestroy {
  private readonly listeners = new Map<string, Set<Listener>>();
  private readonly telling = new Map<string, NodeJS.Timeout>();
  /** Windows with unsent whereabouts, by display; null: closed. */
  private readonly moves = new Map<string, Map<string, Present | null>>();

  /**
   * Tells a window of everything from now on: first who is here, then who comes, moves and goes.
   */
  subscribe(displayId: string, listener: Listener): () => void {
    const set = this.listeners.get(displayId) ?? new Set();
    this.listeners.set(displayId, set.add(listener));
    const { client } = listener.present;
    listener.send(
      eventText(
        'here',
        [...set].map(({ present }) => present),
      ),
    );
    this.tellMove(displayId, client, listener.present);
    return () => {
      set.delete(listener);
      if (set.size === 0) this.listeners.delete(displayId);
      // A window that came back before its old line was known to be cut is here still.
      if (![...set].some(({ present }) => present.client === client)) this.tellMove(displayId, client, null);
    };
  }

  /** @throws ApiError 429 when a user has the largest number of windows of a display open */
  refuseTooMany(displayId: string, userId: string): void {
    const open = [...(this.listeners.get(displayId) ?? [])].filter((one) => one.userId === userId).length;
    if (open >= MAX_WINDOWS)
      throw new ApiError(
        HttpStatus.TOO_MANY_REQUESTS,
        'too-many',
        `You have ${open} windows of this display open; the most is ${MAX_WINDOWS}. Close some of them.`,
      );
  }

  publish(displayId: string, landed: CommittedBatch): void {
    const set = this.listeners.get(displayId);
    if (!set) return;
    const text = committedText(landed);
    for (const { send } of set) send(text);
  }

  /** Notes where a window is. @returns false when no stream of this person has that window */
  moved(displayId: string, userId: string, client: string, where: Whereabouts): boolean {
    const listener = [...(this.listeners.get(displayId) ?? [])].find(
      (one) => one.userId === userId && one.present.client === client,
    );
    if (!listener) return false;
    listener.present = { ...listener.present, ...where };
    this.tellMove(displayId, client, listener.present);
    return true;
  }

  isHere = (displayId: string, userId: string): boolean =>
    [...(this.listeners.get(displayId) ?? [])].some((listener) => listener.userId === userId);

  /** Notifies a user's windows that their role on a display changed, so that they reload. */
  membershipChanged(displayId: string, userId: string): void {
    for (const listener of this.listeners.get(displayId) ?? [])
      if (listener.userId === userId) listener.send(eventText('membership-changed', {}));
  }

  /** Ends the streams of a user who left a display. */
  sendAway(displayId: string, userId: string): void {
    this.endThose((listener, id) => id === displayId && listener.userId === userId);
  }

  /** Ends the streams of everybody on a display that is gone. */
  close(displayId: string): void {
    this.endThose((_listener, id) => id === displayId);
  }

  /** Ends the streams that a session opened; of a user, all but those of one session. */
  endSession(session: string): void {
    this.endThose((listener) => listener.session === session);
  }
  endUser(userId: string, exceptSession: string | null): void {
    this.endThose((listener) => listener.userId === userId && listener.session !== exceptSession);
  }

  onModuleDestroy(): void {
    for (const timer of this.telling.values()) clearTimeout(timer);
    this.telling.clear();
    for (const set of this.listeners.values()) for (const listener of set) listener.end();
  }

  private endThose(which: (listener: Listener, displayId: string) => boolean): void {
    for (const [displayId, set] of this.listeners)
      for (const listener of [...set])
        if (which(listener, displayId)) {
          listener.send(eventText('gone', {}));
          listener.end();
        }
  }

  /** Tells everybody where a window is now: of all that move within a moment at once, and of no others. */
  private tellMove(displayId: string, client: string, present: Present | null): void {
    const moves = this.moves.get(displayId) ?? new Map<string, Present | null>();
    this.moves.set(displayId, moves.set(client, present));
    if (this.telling.has(displayId)) return;
    const timer = setTimeout(() => {
      this.telling.delete(displayId);
      this.moves.delete(displayId);
      const text = eventText('moved', {
        here: [...moves.values()].filter((one) => one !== null),
        gone: [...moves].flatMap(([id, one]) => (one === null ? [id] : [])),
      });
      for (const { send } of this.listeners.get(displayId) ?? []) send(text);
    }, PRESENCE_MS);
    timer.unref();
    this.telling.set(displayId, timer);
  }
}
