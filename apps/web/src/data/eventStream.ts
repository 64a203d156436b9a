const LISTEN_AGAIN_MS = 3000;
/** Delay before a hidden window closes its stream: a browser allows six connections to a server over all windows. */
const REST_AFTER_MS = 60_000;

interface EventStreamOptions {
  /** The address to listen at, from the last number heard. */
  url: () => string;
  /** What is done with an event of each name. */
  handlers: Readonly<Record<string, (data: unknown) => void>>;
  onOpen: () => void;
  /** The line ended with an answer that was no stream, or with `gone`. @returns whether to listen again */
  onLost: () => Promise<boolean>;
}

/**
 * A line of server-sent events that looks after itself: the browser reconnects a dropped one, this one also comes back
 * after an answer that was no stream (a proxy without its server), and rests while its page is out of sight.
 */
export class EventStream {
  private stream: EventSource | null = null;
  private retryTimer: ReturnType<typeof setTimeout> | undefined;
  private pauseTimer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly options: EventStreamOptions) {}

  open(): void {
    this.listen();
    window.addEventListener('pagehide', this.pause);
    window.addEventListener('pageshow', this.resume);
    document.addEventListener('visibilitychange', this.onVisibilityChange);
  }

  close(): void {
    this.pause();
    this.stream = null;
    window.removeEventListener('pagehide', this.pause);
    window.removeEventListener('pageshow', this.resume);
    document.removeEventListener('visibilitychange', this.onVisibilityChange);
  }

  private listen(): void {
    this.pause();
    const { url, handlers, onOpen, onLost } = this.options;
    const stream = new EventSource(url());
    this.stream = stream;
    for (const [name, handle] of Object.entries(handlers))
      stream.addEventListener(name, ({ data }: MessageEvent<unknown>) => handle(JSON.parse(String(data))));
    const lost = async () => {
      const wanted = await onLost();
      if (wanted && this.stream === stream)
        this.retryTimer = setTimeout(() => this.listen(), LISTEN_AGAIN_MS);
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
  private pause = (): void => {
    clearTimeout(this.retryTimer);
    clearTimeout(this.pauseTimer);
    this.stream?.close();
  };

  private resume = (): void => {
    clearTimeout(this.pauseTimer);
    if (this.stream?.readyState === EventSource.CLOSED) this.listen();
  };

  private onVisibilityChange = (): void => {
    if (document.visibilityState === 'visible') this.resume();
    else this.pauseTimer = setTimeout(this.pause, REST_AFTER_MS);
  };
}
