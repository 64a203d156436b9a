// Incremental computation: a result remembers which inputs and other results it read, and is computed again only when one
// of those is another object (as build systems and incremental compilers do). Reads are recorded while a computation
// runs, so that nothing has to be declared and nothing can be forgotten.

interface Source {
  /** The value as it holds now, brought up to date if need be. */
  current(): unknown;
}

/** What nodes share: the revision of the inputs, and the computation that is running. */
export class Tracker {
  /** Grows with every change of an input. */
  revision = 0;
  /** Reads of the running computation; null: none runs. */
  reading: Map<Source, unknown> | null = null;
}

/** A value from outside, compared by identity. */
export class Input<T> {
  constructor(
    private readonly tracker: Tracker,
    private value: T,
  ) {}

  set(value: T): void {
    if (value === this.value) return;
    this.value = value;
    this.tracker.revision++;
  }

  current(): T {
    return this.value;
  }

  read(): T {
    this.tracker.reading?.set(this, this.value);
    return this.value;
  }
}

/** A value computed from inputs and other computations: a pure function of what it reads. */
export class Computation<T> {
  private result: { value: T; reads: ReadonlyMap<Source, unknown>; checked: number; made: number } | null =
    null;

  constructor(
    private readonly tracker: Tracker,
    private readonly compute: () => T,
  ) {}

  /** The revision in which it was computed last; −1: never. */
  get made(): number {
    return this.result?.made ?? -1;
  }

  /** What it was when it was computed last, whether or not that still holds; null: it never was. */
  get known(): { value: T } | null {
    return this.result;
  }

  /** Whether it read a source when it was computed last. */
  didRead(source: Source): boolean {
    return this.result?.reads.has(source) === true;
  }

  read(): T {
    const value = this.current();
    this.tracker.reading?.set(this, value);
    return value;
  }

  current(): T {
    const { tracker, result } = this;
    if (result && (result.checked === tracker.revision || holds(result.reads))) {
      result.checked = tracker.revision;
      return result.value;
    }
    const outer = tracker.reading;
    const reads = new Map<Source, unknown>();
    tracker.reading = reads;
    try {
      const value = this.compute();
      this.result = { value, reads, checked: tracker.revision, made: tracker.revision };
      return value;
    } finally {
      tracker.reading = outer;
    }
  }
}

/** Whether all reads still give the same. In order: what was read later may depend on what was read before. */
function holds(reads: ReadonlyMap<Source, unknown>): boolean {
  for (const [source, value] of reads) if (source.current() !== value) return false;
  return true;
}
