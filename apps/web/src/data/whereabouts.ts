import { api, type Whereabouts } from './api.ts';

/** Told to the others at most this often, ms. */
const TELL_MS = 400;

/** Tells the others on a display where this window is: the latest only, and not too often. */
export class Teller {
  private latest: Whereabouts | null = null;
  private told = '';
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly displayId: string,
    readonly client: string,
  ) {}

  tell(where: Whereabouts): void {
    this.latest = where;
    this.timer ??= setTimeout(() => this.send(), TELL_MS);
  }

  /** The stream has opened anew: the server knows nothing of this window. */
  again(): void {
    this.told = '';
    if (this.latest) this.tell(this.latest);
  }

  close(): void {
    clearTimeout(this.timer);
  }

  private send(): void {
    this.timer = undefined;
    const words = JSON.stringify(this.latest);
    if (!this.latest || words === this.told) return;
    this.told = words;
    // Nobody misses it when it does not arrive: the next move tells again.
    api.here(this.displayId, this.client, this.latest).catch(() => {
      this.told = '';
    });
  }
}
