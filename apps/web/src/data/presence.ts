import { movedSchema, presentSchema, type Present, type Whereabouts } from '@quarry/protocol/changes';
import { documentApi } from './documentApi.ts';

/** Told to the others at most this often, ms. */
const REPORT_EVERY_MS = 400;

/** Tells the others on a display where this window is: the latest only, and not too often. */
export class PresenceReporter {
  private latest: Whereabouts | null = null;
  private reported = '';
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly displayId: string,
    readonly client: string,
  ) {}

  report(where: Whereabouts): void {
    this.latest = where;
    this.timer ??= setTimeout(() => this.send(), REPORT_EVERY_MS);
  }

  /** The stream was reopened: the server has lost this window's whereabouts. */
  repeat(): void {
    this.reported = '';
    if (this.latest) this.report(this.latest);
  }

  close(): void {
    clearTimeout(this.timer);
  }

  private send(): void {
    this.timer = undefined;
    const words = JSON.stringify(this.latest);
    if (!this.latest || words === this.reported) return;
    this.reported = words;
    // A lost report does no harm: the next move reports again.
    documentApi.here(this.displayId, this.client, this.latest).catch(() => {
      this.reported = '';
    });
  }
}

/** The windows that have the display open, this one included. */
export class PresenceRoster {
  private windows: readonly Present[] = [];

  get list(): readonly Present[] {
    return this.windows;
  }

  /** Takes in the whole list. @returns whether it could be read */
  set(data: unknown): boolean {
    const here = presentSchema.array().safeParse(data);
    if (here.success) this.windows = here.data;
    return here.success;
  }

  /** Takes in what changed: a window that moves keeps its place, a new one comes last. @returns whether it could be read */
  move(data: unknown): boolean {
    const moved = movedSchema.safeParse(data);
    if (!moved.success) return false;
    const { here, gone } = moved.data;
    const by = new Map(here.map((one) => [one.client, one]));
    const known = new Set(this.windows.map(({ client }) => client));
    this.windows = [
      ...this.windows.filter(({ client }) => !gone.includes(client)).map((one) => by.get(one.client) ?? one),
      ...here.filter(({ client }) => !known.has(client)),
    ];
    return true;
  }
}
