import {
  fromRows,
  keyOf,
  reduce,
  takeBack,
  undoable,
  type Actor,
  type Batch,
  type Change,
  type Entity,
  type Kind,
  type Scene,
  type Undoable,
} from '@quarry/core/scene';
import { ApiProblem, api, keys, landedSchema, queryClient, streamUrl, type Landed } from './api.ts';
import { dropWaiting, keepWaiting, waitingFor } from './outbox.ts';

/** A patch of one's own that came too late: the fields as one wanted them, and the entity as it stands. */
export interface Conflict {
  batch: Batch;
  sentence: string;
  patches: {
    kind: Kind;
    id: string;
    mine: Record<string, unknown>;
    theirs: Record<string, unknown>;
    v: number;
  }[];
}

/** How far one's changes have got. */
export type SaveState =
  { state: 'saved' } | { state: 'saving' } | { state: 'waiting'; why: string; count: number };

export interface LinkState {
  scene: Scene;
  actor: Actor;
  save: SaveState;
  conflict: Conflict | null;
  canUndo: string | null;
  canRedo: string | null;
  /** The last change somebody else made, for a quiet word. */
  heard: Landed | null;
}

interface Document {
  scene: Scene;
  seq: number;
  actor: Actor;
}

const MOST_UNDO = 200;

/**
 * A display as one browser has it: the server's scene in the query cache, one's own batches on top at once, sent one
 * after the other, and everybody else's from the stream. What the server refuses comes off again and is shown.
 */
export class DisplayLink {
  private pending: Batch[] = [];
  private state: LinkState;
  private readonly listeners = new Set<() => void>();
  private readonly undoStack: Undoable[] = [];
  private readonly redoStack: Undoable[] = [];
  private stream: EventSource | null = null;
  private sending = false;
  private trouble: string | null = null;
  private retryMs = 1000;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private conflict: Conflict | null = null;
  private heard: Landed | null = null;
  private readonly onTrouble: (message: string) => void;
  /** What became of a scene by a batch: one that lands leaves the very scene that is on the screen. */
  private readonly outcomes = new WeakMap<Scene, { id: string; scene: Scene }>();

  private constructor(
    readonly id: string,
    private document: Document,
    onTrouble: (message: string) => void,
  ) {
    this.onTrouble = onTrouble;
    this.state = this.derive();
  }

  /** Loads a display, puts what was still waiting back on top and begins to listen. */
  static async open(id: string, onTrouble: (message: string) => void): Promise<DisplayLink> {
    const [document, waiting] = await Promise.all([loadDocument(id), waitingFor(id)]);
    const link = new DisplayLink(id, document, onTrouble);
    link.pending = waiting;
    link.update();
    link.listen();
    window.addEventListener('online', link.retryNow);
    void link.send();
    return link;
  }

  close(): void {
    this.stream?.close();
    this.stream = null;
    clearTimeout(this.timer);
    window.removeEventListener('online', this.retryNow);
    this.listeners.clear();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  getState = (): LinkState => this.state;

  /** Makes a change: on the screen at once, then on its way. @returns whether it fits the scene as it stands */
  change(label: string, changes: Change[]): boolean {
    const landed = this.put(label, changes);
    if (landed) {
      push(this.undoStack, landed);
      this.redoStack.length = 0;
      this.update();
    }
    return landed !== null;
  }

  undo(): void {
    this.step(this.undoStack, this.redoStack);
  }

  redo(): void {
    this.step(this.redoStack, this.undoStack);
  }

  /** Sends a refused patch again, against the entity as it stands now. */
  putMineOnTop(): void {
    const { conflict } = this;
    this.conflict = null;
    if (conflict)
      this.change(
        conflict.batch.label,
        conflict.patches.map(({ kind, id, mine }) => ({
          op: 'patch',
          kind,
          id,
          v: this.state.scene[kind][id]?.v ?? 1,
          set: mine,
        })),
      );
    this.update();
  }

  keepTheirs(): void {
    this.conflict = null;
    this.update();
  }

  private step(from: Undoable[], to: Undoable[]): void {
    const entry = from.pop();
    if (!entry) return;
    const back = takeBack(this.state.scene, entry);
    const landed = back.ok ? this.put(entry.label, back.changes) : null;
    if (!back.ok) this.onTrouble(back.sentence);
    if (landed) push(to, landed);
    this.update();
  }

  private put(label: string, changes: Change[]): Undoable | null {
    const reduction = reduce(this.state.scene, changes);
    if (!reduction.ok) {
      this.onTrouble(reduction.refusal.sentence);
      return null;
    }
    const batch: Batch = { id: crypto.randomUUID(), label, changes };
    this.pending = [...this.pending, batch];
    void keepWaiting(this.id, batch).catch(() =>
      this.onTrouble('This browser keeps no copy of unsent changes; do not reload before they are saved.'),
    );
    void this.send();
    return undoable(label, reduction.inverse, reduction.scene);
  }

  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    clearTimeout(this.timer);
    while (this.pending.length > 0) {
      const [batch] = this.pending;
      this.update();
      try {
        const { seq } = await api.land(this.id, batch);
        this.trouble = null;
        this.retryMs = 1000;
        this.settle(batch);
        if (seq === this.document.seq + 1) this.advance(batch, seq);
        // Otherwise the stream brings it, with what came before it.
        else if (seq > this.document.seq) await this.catchUp();
      } catch (error) {
        if (
          error instanceof ApiProblem &&
          error.status >= 400 &&
          error.status < 500 &&
          error.status !== 429 &&
          error.status !== 401
        ) {
          this.settle(batch);
          await this.catchUp();
          this.refused(batch, error);
          continue;
        }
        this.trouble = error instanceof Error ? error.message : String(error);
        this.timer = setTimeout(this.retryNow, this.retryMs);
        this.retryMs = Math.min(this.retryMs * 2, 15_000);
        break;
      }
    }
    this.sending = false;
    this.update();
  }

  private readonly retryNow = () => {
    void this.send();
  };

  private settle(batch: Batch): void {
    this.pending = this.pending.filter(({ id }) => id !== batch.id);
    void dropWaiting(this.id, batch.id);
  }

  private refused(batch: Batch, problem: ApiProblem): void {
    const patches = batch.changes.flatMap((change) => {
      const current: Entity<Kind> | undefined = this.state.scene[change.kind][change.id];
      return change.op === 'patch' && current && current.v !== change.v
        ? [{ kind: change.kind, id: change.id, mine: change.set, theirs: { ...current }, v: current.v }]
        : [];
    });
    if (
      problem.body.code === 'stale' &&
      patches.length > 0 &&
      batch.changes.every(({ op }) => op === 'patch')
    )
      this.conflict = { batch, sentence: problem.message, patches };
    else this.onTrouble(`Not saved: ${problem.message}`);
    this.forgetUndo(batch);
    this.update();
  }

  /** What never landed cannot be taken back. */
  private forgetUndo(batch: Batch): void {
    const touched = new Set(batch.changes.map(({ kind, id }) => keyOf(kind, id)));
    const at = this.undoStack.findLastIndex(
      ({ label, after }) => label === batch.label && Object.keys(after).every((key) => touched.has(key)),
    );
    if (at >= 0) this.undoStack.splice(at, 1);
  }

  private listen(): void {
    this.stream?.close();
    this.stream = new EventSource(streamUrl(this.id, this.document.seq));
    this.stream.addEventListener('message', ({ data }) => {
      const landed = landedSchema.safeParse(JSON.parse(String(data)));
      if (!landed.success || landed.data.seq <= this.document.seq) return;
      if (landed.data.seq > this.document.seq + 1) {
        void this.catchUp();
        return;
      }
      if (this.pending.some(({ id }) => id === landed.data.id))
        this.pending = this.pending.filter(({ id }) => id !== landed.data.id);
      else this.heard = landed.data;
      this.advance(landed.data, landed.data.seq);
    });
    // The browser reconnects by itself, with the last number it heard; what is waiting is tried again then.
    this.stream.addEventListener('open', this.retryNow);
  }

  /** Takes a landed batch into the server's scene. */
  private advance(batch: Pick<Batch, 'id' | 'changes'>, seq: number): void {
    const scene = this.after(this.document.scene, batch);
    if (scene) this.keep({ ...this.document, scene, seq });
    else void this.catchUp();
  }

  /** The scene after a batch, the same object each time one asks; null when the batch does not fit. */
  private after(before: Scene, { id, changes }: Pick<Batch, 'id' | 'changes'>): Scene | null {
    const known = this.outcomes.get(before);
    if (known?.id === id) return known.scene;
    const reduction = reduce(before, changes);
    if (!reduction.ok) return null;
    this.outcomes.set(before, { id, scene: reduction.scene });
    return reduction.scene;
  }

  private async catchUp(): Promise<void> {
    try {
      await queryClient.invalidateQueries({ queryKey: keys.display(this.id), refetchType: 'none' });
      this.keep(await loadDocument(this.id));
    } catch (error) {
      this.trouble = error instanceof Error ? error.message : String(error);
      this.update();
    }
  }

  private keep(document: Document): void {
    if (document.seq < this.document.seq) return;
    this.document = document;
    queryClient.setQueryData(keys.display(this.id), document);
    this.update();
  }

  private update(): void {
    this.state = this.derive();
    for (const listener of this.listeners) listener();
  }

  private derive(): LinkState {
    let { scene } = this.document;
    // One that no longer fits is left out here; the server's refusal will say why.
    for (const batch of this.pending) scene = this.after(scene, batch) ?? scene;
    const count = this.pending.length;
    const save: SaveState =
      this.trouble && count > 0
        ? { state: 'waiting', why: this.trouble, count }
        : count > 0
          ? { state: 'saving' }
          : { state: 'saved' };
    return {
      scene,
      actor: this.document.actor,
      save,
      conflict: this.conflict,
      canUndo: this.undoStack.at(-1)?.label ?? null,
      canRedo: this.redoStack.at(-1)?.label ?? null,
      heard: this.heard,
    };
  }
}

function push(stack: Undoable[], entry: Undoable): void {
  stack.push(entry);
  if (stack.length > MOST_UNDO) stack.shift();
}

async function loadDocument(id: string): Promise<Document> {
  return queryClient.fetchQuery({
    queryKey: keys.display(id),
    staleTime: 0,
    queryFn: async () => {
      const { seq, actor, rows } = await api.display(id);
      return { seq, actor, scene: fromRows(rows) };
    },
  });
}
