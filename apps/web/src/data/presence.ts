import type { Whereabouts } from '@quarry/protocol/changes';
import { api } from './api.ts';

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
    api.here(this.displayId, this.client, this.latest).catch(() => {
      this.reported = '';
    });
  }
}
