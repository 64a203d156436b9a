const LISTEN_AGAIN_MS = 3000;
/** A window nobody looks at gives its line back after this long: a browser has six to one server, for all windows. */
const REST_AFTER_MS = 60_000;

interface Ends {
  /** The address to listen at, from the last number heard. */
  url: () => string;
  /** What is done with an event of each name. */
  hears: Readonly<Record<string, (data: unknown) => void>>;
  onOpen: () => void;
  /** The line ended with an answer that was no stream, or with `gone`. @returns whether to listen again */
  onLost: () => Promise<boolean>;
}

/**
 * A line of server-sent events that looks after itself: the browser reconnects a dropped one, this one also comes back
 * after an answer that was no stream (a proxy without its server), and rests while its page is out of sight.
 */
export class Line {
  private stream: EventSource | null = null;
  private again: ReturnType<typeof setTimeout> | undefined;
  private resting: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly ends: Ends) {}

  open(): void {
    this.listen();
    window.addEventListener('pagehide', this.rest);
    window.addEventListener('pageshow', this.wake);
    document.addEventListener('visibilitychange', this.onSight);
  }

  close(): void {
    this.rest();
    this.stream = null;
    window.removeEventListener('pagehide', this.rest);
    window.removeEventListener('pageshow', this.wake);
    document.removeEventListener('visibilitychange', this.onSight);
  }

  private listen(): void {
    this.rest();
    const { url, hears, onOpen, onLost } = this.ends;
    const stream = new EventSource(url());
    this.stream = stream;
    for (const [name, hear] of Object.entries(hears))
      stream.addEventListener(name, ({ data }: MessageEvent<unknown>) => hear(JSON.parse(String(data))));
    const lost = async () => {
      const wanted = await onLost();
      if (wanted && this.stream === stream) this.again = setTimeout(() => this.listen(), LISTEN_AGAIN_MS);
    };
    stream.addEventListener('gone', () => {
      stream.close();
      void lost();
    });
    stream.addEventListener('open', onOpen);
    stream.addEventListener('error', () => {
      if (stream.readyState === EventSource.CLOSED) void lost();
    });
  }

  /** A page that was left may live on in the browser's memory: with its line, other pages would soon get none. */
  private rest = (): void => {
    clearTimeout(this.again);
    clearTimeout(this.resting);
    this.stream?.close();
  };

  private wake = (): void => {
    clearTimeout(this.resting);
    if (this.stream?.readyState === EventSource.CLOSED) this.listen();
  };

  private onSight = (): void => {
    if (document.visibilityState === 'visible') this.wake();
    else this.resting = setTimeout(this.rest, REST_AFTER_MS);
  };
}
