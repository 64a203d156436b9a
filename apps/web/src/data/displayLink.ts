import { patient } from './call.ts';
import {
  isAuthored,
  fromRows,
  keyOf,
  reduce,
  takeBack,
  toRows,
  undoable,
  type Actor,
  type Batch,
  type Change,
  type Scene,
  type Undoable,
} from '@quarry/core/document';
import { ApiProblem, api, keys, queryClient, streamUrl } from './api.ts';
import {
  committedBatchSchema,
  movedSchema,
  presentSchema,
  type CommittedBatch,
  type Present,
  type Whereabouts,
} from '@quarry/protocol/changes';
import {
  choiceKey,
  conflictOf,
  threeWayMerge,
  baseValuesOf,
  type Conflict,
  type BaseValues,
} from './conflicts.ts';
import { EventStream } from './eventStream.ts';
import { dropWaiting, keepDocument, keepWaiting, keptDocument, waitingFor } from './outbox.ts';
import { PresenceReporter } from './presence.ts';

/** Save state of the user's changes. */
export type SaveState =
  { state: 'saved' } | { state: 'saving' } | { state: 'waiting'; why: string; count: number };

export interface LinkState {
  scene: Scene;
  actor: Actor;
  /** Number of the last batch of the log that is in the scene. */
  seq: number;
  save: SaveState;
  /** The first of what is to be decided, and how many there are. */
  conflict: Conflict | null;
  conflicts: number;
  /** What is being put together as a proposal; null: changes are made at once. */
  draft: readonly DraftStep[] | null;
  /** Windows that have the display open, this one included. */
  here: readonly Present[];
  /** One may not look at it any longer, or is signed out. */
  gone: 'display' | 'session' | null;
  canUndo: string | null;
  canRedo: string | null;
  /** The last change by another user, for a notice. */
  heard: CommittedBatch | null;
}

interface Document {
  scene: Scene;
  /** Of the server’s database: numbers count within it only. */
  epoch: number;
  seq: number;
  actor: Actor;
}

/** One act of a proposal that is being put together. */
export interface DraftStep {
  label: string;
  changes: Change[];
}

/** A display is kept for a start without the server when it has rested this long, ms. */
const KEEP_AFTER = 3000;

const MAX_UNDO = 200;

/**
 * A display as one browser has it: the server's scene in the query cache, own batches applied on top at once, sent one
 * after the other, and everybody else's from the stream. What the server refuses comes off again and is shown.
 */
export class DisplayLink {
  private pending: Batch[] = [];
  private state: LinkState;
  private readonly listeners = new Set<() => void>();
  private readonly undoStack: Step[] = [];
  private readonly redoStack: Step[] = [];
  private readonly stream: EventStream;
  private sending = false;
  private trouble: string | null = null;
  private retryMs = 1000;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly conflicts: Conflict[] = [];
  private readonly was = new Map<string, BaseValues>();
  private draft: DraftStep[] | null = null;
  private here: readonly Present[] = [];
  private gone: LinkState['gone'] = null;
  private keeping: ReturnType<typeof setTimeout> | undefined;
  private readonly presence: PresenceReporter;
  private heard: CommittedBatch | null = null;
  private readonly onTrouble: (message: string) => void;
  /** What became of a scene by a batch: one that lands leaves the very scene that is on the screen. */
  private readonly outcomes = new WeakMap<Scene, { id: string; scene: Scene }>();

  private constructor(
    readonly id: string,
    private readonly user: string,
    private document: Document,
    onTrouble: (message: string) => void,
  ) {
    this.onTrouble = onTrouble;
    this.presence = new PresenceReporter(id, crypto.randomUUID());
    this.stream = new EventStream({
      url: () => streamUrl(id, this.document.epoch, this.document.seq, this.client),
      handlers: {
        message: (data) => this.receive(data),
        here: (data) => {
          const here = presentSchema.array().safeParse(data);
          if (!here.success) return;
          this.here = here.data;
          this.update();
        },
        moved: (data) => {
          const moved = movedSchema.safeParse(data);
          if (!moved.success) return;
          const { here, gone } = moved.data;
          // Who moves keeps their place among the others; who is new comes last.
          const by = new Map(here.map((one) => [one.client, one]));
          const known = new Set(this.here.map(({ client }) => client));
          this.here = [
            ...this.here
              .filter(({ client }) => !gone.includes(client))
              .map((one) => by.get(one.client) ?? one),
            ...here.filter(({ client }) => !known.has(client)),
          ];
          this.update();
        },
        behind: () => void this.catchUp(),
        'membership-changed': () => void this.catchUp(),
      },
      // What is waiting is tried again when the line is back.
      onOpen: () => {
        this.presence.repeat();
        this.retryNow();
      },
      onLost: async () => {
        await this.catchUp();
        return this.gone === null;
      },
    });
    this.state = this.derive();
  }

  /** The window of this link, as others' pages name it. */
  get client(): string {
    return this.presence.client;
  }

  /**
   * Loads a display, puts what was still waiting back on top and begins to listen. Without the server it opens as it
   * was last seen in this browser.
   */
  static async open(id: string, user: string, onTrouble: (message: string) => void): Promise<DisplayLink> {
    const kept = keptDocument(id, user);
    const asked = loadDocument(id);
    // Whoever waits for it takes its error; it may come before anybody does.
    asked.catch(() => undefined);
    const [document, waiting] = await Promise.all([
      // Where nothing is kept there is nothing but to wait.
      kept
        .then((known) => (known ? patient(asked) : asked))
        .catch(async (error: unknown) => {
          const known = isOffline(error) ? await kept : null;
          if (!known) throw error;
          return { epoch: known.epoch, seq: known.seq, actor: known.actor, scene: fromRows(known.rows) };
        }),
      waitingFor(id, user),
    ]);
    const link = new DisplayLink(id, user, document, onTrouble);
    link.pending = waiting.map(({ batch }) => batch);
    for (const { batch, was } of waiting) link.was.set(batch.id, was);
    link.update();
    link.stream.open();
    window.addEventListener('online', link.retryNow);
    void link.send();
    link.keepSoon(0);
    return link;
  }

  close(): void {
    this.stream.close();
    clearTimeout(this.timer);
    clearTimeout(this.keeping);
    this.presence.close();
    window.removeEventListener('online', this.retryNow);
    this.listeners.clear();
  }

  /** Tells the others where this window is. */
  reportWhereabouts(where: Whereabouts): void {
    this.presence.report(where);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  getState = (): LinkState => this.state;

  /** Makes a change: on the screen at once, then on its way. @returns whether it fits the scene as it stands */
  change(label: string, changes: Change[]): boolean {
    return this.draft ? this.drafted(this.draft, { label, changes }) : this.make(label, changes);
  }

  private make(label: string, changes: Change[]): boolean {
    const landed = this.put(label, changes);
    if (landed) {
      push(this.undoStack, landed);
      this.redoStack.length = 0;
      this.update();
    }
    return landed !== null;
  }

  undo(): void {
    if (this.draft) {
      this.draft = this.draft.slice(0, -1);
      this.update();
    } else this.step(this.undoStack, this.redoStack);
  }

  redo(): void {
    if (!this.draft) this.step(this.redoStack, this.undoStack);
  }

  /** Begins a proposal: changes are collected and applied in this window only. */
  beginDraft(): void {
    this.draft ??= [];
    this.update();
  }

  /** Lets a proposal go, or hands over what was put together. @returns its changes, in order */
  endDraft(): Change[] {
    const changes = (this.draft ?? []).flatMap((step) => step.changes);
    this.draft = null;
    this.update();
    return changes;
  }

  private drafted(draft: readonly DraftStep[], step: DraftStep): boolean {
    const reduction = reduce(this.state.scene, step.changes);
    if (reduction.ok) this.draft = [...draft, step];
    else this.onTrouble(reduction.refusal.sentence);
    this.update();
    return reduction.ok;
  }

  /** Decides the first conflict: these fields (by `choiceKey`) stay as the others have them, the rest lands. */
  decide(theirs: ReadonlySet<string>): void {
    const conflict = this.conflicts.shift();
    if (conflict) this.settleConflict(conflict, theirs);
  }

  private settleConflict(conflict: Conflict, theirs: ReadonlySet<string>): void {
    const left = threeWayMerge(this.unsentScene(), conflict, theirs);
    if (!left.ok) this.onTrouble(`Not saved: ${left.sentence}`);
    else if (left.changes.length > 0) this.make(conflict.label, left.changes);
    for (const id of conflict.waiting) void dropWaiting(this.id, id);
    this.update();
  }

  resolveWithMine(): void {
    this.decide(new Set());
  }

  resolveWithTheirs(): void {
    this.decide(new Set(this.conflicts[0]?.fields.map(choiceKey)));
  }

  private step(from: Step[], to: Step[]): void {
    const entry = from.pop();
    if (!entry) return;
    const back = takeBack(this.unsentScene(), entry);
    const landed = back.ok ? this.put(entry.label, back.changes) : null;
    if (!back.ok) this.onTrouble(back.sentence);
    if (landed) push(to, landed);
    this.update();
  }

  private put(label: string, changes: Change[]): Step | null {
    const before = this.unsentScene();
    const reduction = reduce(before, changes);
    if (!reduction.ok) {
      this.onTrouble(reduction.refusal.sentence);
      return null;
    }
    const batch: Batch = { id: crypto.randomUUID(), label, changes };
    this.pending = [...this.pending, batch];
    const was = baseValuesOf(before, changes);
    this.was.set(batch.id, was);
    void keepWaiting(this.id, this.user, { batch, was }).catch(() =>
      this.onTrouble('This browser keeps no copy of unsent changes; do not reload before they are saved.'),
    );
    void this.send();
    return { ...undoable(label, reduction.inverse, reduction.scene), batch: batch.id };
  }

  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    clearTimeout(this.timer);
    while (this.pending.length > 0) {
      const [batch] = this.pending;
      this.update();
      const late = setTimeout(() => {
        this.trouble = 'The server has not answered yet.';
        this.keepSoon(0);
        this.update();
      }, ANSWER_MS);
      try {
        const { seq, changes } = await api.commit(this.id, batch).finally(() => clearTimeout(late));
        this.trouble = null;
        this.retryMs = 1000;
        this.acknowledge(batch);
        // The committed changes carry the server's stamps.
        if (seq === this.document.seq + 1)
          this.advance(changes ? { id: `${batch.id} as landed`, changes } : batch, seq);
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
          this.pending = this.pending.filter(({ id }) => id !== batch.id);
          await this.catchUp();
          this.refused(batch, error);
          continue;
        }
        // Before the page is reloaded without a server, what it stands on is kept.
        if (this.trouble === null) this.keepSoon(0);
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

  private acknowledge(batch: Batch): void {
    this.pending = this.pending.filter(({ id }) => id !== batch.id);
    this.was.delete(batch.id);
    void dropWaiting(this.id, batch.id);
  }

  private refused(batch: Batch, problem: ApiProblem): void {
    this.forgetUndo(batch);
    const late = problem.body.code === 'stale' && batch.changes.some(({ op }) => op === 'patch');
    if (!late) {
      this.acknowledge(batch);
      this.onTrouble(`Not saved: ${problem.message}`);
      this.update();
      return;
    }
    // Later own changes to the same entities would overwrite the others' unseen: they belong to the conflict.
    const touched = new Set(batch.changes.map(({ kind, id }) => keyOf(kind, id)));
    const also = this.pending.filter(({ changes }) =>
      changes.some(({ kind, id }) => touched.has(keyOf(kind, id))),
    );
    this.pending = this.pending.filter((one) => !also.includes(one));
    also.forEach((one) => this.forgetUndo(one));
    const batches = [batch, ...also];
    // The first thing remembered of a field is what it was before any of them.
    const was: BaseValues = {};
    for (const { id } of batches)
      for (const [key, fields] of Object.entries(this.was.get(id) ?? {}))
        was[key] = { ...fields, ...was[key] };
    const conflict = conflictOf(this.document.scene, batches, was, problem.message);
    // Without a field changed by both sides there is nothing to decide.
    if (conflict.fields.some(({ clash }) => clash)) this.conflicts.push(conflict);
    else this.settleConflict(conflict, new Set());
    this.update();
  }

  /** What never landed can be neither taken back nor brought again. */
  private forgetUndo({ id }: Batch): void {
    for (const stack of [this.undoStack, this.redoStack]) {
      const at = stack.findIndex(({ batch }) => batch === id);
      if (at >= 0) stack.splice(at, 1);
    }
  }

  private receive(data: unknown): void {
    const landed = committedBatchSchema.safeParse(data);
    if (landed.success && landed.data.seq <= this.document.seq) return;
    if (!landed.success || landed.data.seq > this.document.seq + 1) {
      void this.catchUp();
      return;
    }
    if (this.pending.some(({ id }) => id === landed.data.id))
      this.pending = this.pending.filter(({ id }) => id !== landed.data.id);
    else this.heard = landed.data;
    const { id, changes, seq } = landed.data;
    this.advance({ id: changes.some(isAuthored) ? `${id} as landed` : id, changes }, seq);
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
      if (error instanceof ApiProblem && (error.status === 404 || error.status === 401))
        this.gone = error.status === 404 ? 'display' : 'session';
      this.trouble = error instanceof Error ? error.message : String(error);
      this.update();
    }
  }

  private keep(document: Document): void {
    if (document.epoch === this.document.epoch && document.seq < this.document.seq) return;
    this.document = document;
    queryClient.setQueryData(keys.display(this.id), document);
    this.keepSoon(KEEP_AFTER);
    this.update();
  }

  /** Keeps the server's scene in the browser once it rests. A browser that keeps nothing starts with the server only. */
  private keepSoon(ms: number): void {
    clearTimeout(this.keeping);
    this.keeping = setTimeout(() => {
      const { scene, epoch, seq, actor } = this.document;
      void keepDocument(this.id, this.user, { epoch, seq, actor, rows: toRows(scene) }).catch(
        () => undefined,
      );
    }, ms);
  }

  private update(): void {
    this.state = this.derive();
    for (const listener of this.listeners) listener();
  }

  /** The server's scene with own unsent batches, without the proposal being drafted. */
  private unsentScene(): Scene {
    let { scene } = this.document;
    // One that no longer fits is left out here; the server's refusal will say why.
    for (const batch of this.pending) scene = this.after(scene, batch) ?? scene;
    return scene;
  }

  private derive(): LinkState {
    let scene = this.unsentScene();
    for (const step of this.draft ?? []) {
      const reduction = reduce(scene, step.changes);
      if (reduction.ok) scene = reduction.scene;
    }
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
      seq: this.document.seq,
      save,
      conflict: this.conflicts[0] ?? null,
      conflicts: this.conflicts.length,
      draft: this.draft,
      here: this.here,
      gone: this.gone,
      canUndo: (this.draft ?? this.undoStack).at(-1)?.label ?? null,
      canRedo: this.draft ? null : (this.redoStack.at(-1)?.label ?? null),
      heard: this.heard,
    };
  }
}

/** What can be taken back, or brought again, and the batch that made it so. */
interface Step extends Undoable {
  batch: string;
}

function push(stack: Step[], entry: Step): void {
  stack.push(entry);
  if (stack.length > MAX_UNDO) stack.shift();
}

/** Time without an answer after which the server is reported as slow, ms; the request goes on. */
const ANSWER_MS = 5000;
const isOffline = (error: unknown) => error instanceof ApiProblem && error.status === 0;

async function loadDocument(id: string): Promise<Document> {
  return queryClient.fetchQuery({
    queryKey: keys.display(id),
    staleTime: 0,
    // What was kept in the browser is there at once.
    retry: false,
    queryFn: async () => {
      const { epoch, seq, actor, rows } = await api.display(id);
      return { epoch, seq, actor, scene: fromRows(rows) };
    },
  });
}
