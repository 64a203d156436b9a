import {
  isAuthored,
  keyOf,
  reduce,
  takeBack,
  undoable,
  type Actor,
  type Batch,
  type Change,
  type Refusal,
  type Scene,
  type Undoable,
} from '@quarry/core/document';
import type { CommittedBatch } from '@quarry/protocol/changes';
import { baseValuesOf, conflictOf, type BaseValues, type Conflict } from './conflicts.ts';

// A display's document as one window has it, without the browser: what the server has, own batches on top, what can be
// taken back, and a proposal being put together. It sends nothing and keeps nothing; see displayLink.ts.

/** A display as the server has it. */
export interface ServerDocument {
  scene: Scene;
  /** Of the server’s database: sequence numbers count within it only. */
  epoch: number;
  seq: number;
  actor: Actor;
}

/** One act of a proposal that is being put together. */
export interface DraftStep {
  label: string;
  changes: Change[];
}

/** An own batch that waits for the server, with the values of its fields when it was made. */
export interface PendingBatch {
  batch: Batch;
  was: BaseValues;
}

/** What became of an act: a batch to send; or it fits the scene no longer, with the sentence. */
export type ActOutcome = { ok: true; made: PendingBatch } | { ok: false; sentence: string };

/** What can be taken back, or brought again, and the batch that made it so. */
interface Step extends Undoable {
  batch: string;
}

const MAX_UNDO = 200;

export class LocalDocument {
  private waiting: PendingBatch[] = [];
  private readonly undoStack: Step[] = [];
  private readonly redoStack: Step[] = [];
  private drafted: DraftStep[] | null = null;
  /** The scene after a batch: the same object each time, so that a committed batch leaves the scene on the screen. */
  private readonly outcomes = new WeakMap<Scene, { id: string; scene: Scene }>();

  /** @param newId makes the id of a batch */
  constructor(
    private document: ServerDocument,
    private readonly newId: () => string,
  ) {}

  get server(): ServerDocument {
    return this.document;
  }
  /** Own batches in the order in which they are sent. */
  get pending(): readonly PendingBatch[] {
    return this.waiting;
  }
  /** The proposal being put together; null: changes are made at once. */
  get draft(): readonly DraftStep[] | null {
    return this.drafted;
  }
  /** Label of what undo takes back; null: nothing. */
  get canUndo(): string | null {
    return (this.drafted ?? this.undoStack).at(-1)?.label ?? null;
  }
  get canRedo(): string | null {
    return this.drafted ? null : (this.redoStack.at(-1)?.label ?? null);
  }

  /** The server's scene with own unsent batches, without the proposal being drafted. */
  get unsent(): Scene {
    let { scene } = this.document;
    // One that no longer fits is left out here; the server's refusal will say why.
    for (const { batch } of this.waiting) scene = this.after(scene, batch) ?? scene;
    return scene;
  }

  /** The scene on the screen. */
  get scene(): Scene {
    let scene = this.unsent;
    for (const step of this.drafted ?? []) {
      const reduction = reduce(scene, step.changes);
      if (reduction.ok) scene = reduction.scene;
    }
    return scene;
  }

  /** Puts back batches that an earlier page of this window left unsent. */
  restore(waiting: readonly PendingBatch[]): void {
    this.waiting = [...waiting];
  }

  /** Applies a change that can be taken back. */
  change(label: string, changes: Change[]): ActOutcome {
    const done = this.apply(label, changes);
    if (!done.ok) return done;
    push(this.undoStack, done.step);
    this.redoStack.length = 0;
    return { ok: true, made: done.made };
  }

  /** Takes the last own act back; null: there is none. Of a proposal it lets the last step go and makes no batch. */
  undo(): ActOutcome | null {
    if (!this.drafted) return this.step(this.undoStack, this.redoStack);
    this.drafted = this.drafted.slice(0, -1);
    return null;
  }

  redo(): ActOutcome | null {
    return this.drafted ? null : this.step(this.redoStack, this.undoStack);
  }

  /** Begins a proposal: changes are collected and applied here only. */
  beginDraft(): void {
    this.drafted ??= [];
  }

  /** Adds an act to the proposal. @returns null, or why it does not fit */
  addToDraft(step: DraftStep): Refusal | null {
    const reduction = reduce(this.scene, step.changes);
    if (!reduction.ok) return reduction.refusal;
    this.drafted = [...(this.drafted ?? []), step];
    return null;
  }

  /** Ends the proposal. @returns its changes, in order */
  endDraft(): Change[] {
    const changes = (this.drafted ?? []).flatMap((step) => step.changes);
    this.drafted = null;
    return changes;
  }

  /** Takes in the whole document of the server. @returns false when it is older than what is here */
  replace(document: ServerDocument): boolean {
    if (document.epoch === this.document.epoch && document.seq < this.document.seq) return false;
    this.document = document;
    return true;
  }

  /**
   * Takes in the server's answer to an own batch.
   * @param stamped its changes where the server set authorship stamps
   * @returns whether the document is complete; false: batches in between are missing
   */
  acknowledge(batch: Batch, seq: number, stamped: Change[] | undefined): boolean {
    this.drop(batch.id);
    if (seq !== this.document.seq + 1) return seq <= this.document.seq;
    return this.advance(stamped ? { id: stampedId(batch.id), changes: stamped } : batch, seq);
  }

  /**
   * Takes in a batch of the stream.
   * @returns whose it is; `known` when it is here already, `gap` when batches before it are missing
   */
  receive(committed: CommittedBatch): 'known' | 'gap' | 'mine' | 'others' {
    const { id, changes, seq } = committed;
    if (seq <= this.document.seq) return 'known';
    if (seq > this.document.seq + 1) return 'gap';
    const isMine = this.waiting.some(({ batch }) => batch.id === id);
    if (isMine) this.drop(id);
    if (!this.advance({ id: changes.some(isAuthored) ? stampedId(id) : id, changes }, seq)) return 'gap';
    return isMine ? 'mine' : 'others';
  }

  /** Lets an own batch go that the server refused for good. */
  discard({ id }: Batch): void {
    this.drop(id);
    this.forgetUndo(id);
  }

  /**
   * Lets a batch go that came too late, with later own ones on the same entities, which would overwrite the others'
   * unseen.
   * @returns the conflict that they make
   */
  takeOutLate(late: PendingBatch, sentence: string): Conflict {
    this.discard(late.batch);
    const touched = new Set(late.batch.changes.map(({ kind, id }) => keyOf(kind, id)));
    const also = this.waiting.filter(({ batch }) =>
      batch.changes.some(({ kind, id }) => touched.has(keyOf(kind, id))),
    );
    for (const { batch } of also) this.discard(batch);
    const all = [late, ...also];
    // The first value remembered of a field is the one before any of them.
    const was: BaseValues = {};
    for (const one of all)
      for (const [key, fields] of Object.entries(one.was)) was[key] = { ...fields, ...was[key] };
    return conflictOf(
      this.document.scene,
      all.map(({ batch }) => batch),
      was,
      sentence,
    );
  }

  private step(from: Step[], to: Step[]): ActOutcome | null {
    const entry = from.pop();
    if (!entry) return null;
    const back = takeBack(this.unsent, entry);
    if (!back.ok) return back;
    const done = this.apply(entry.label, back.changes);
    if (!done.ok) return done;
    push(to, done.step);
    return { ok: true, made: done.made };
  }

  private apply(
    label: string,
    changes: Change[],
  ): { ok: true; made: PendingBatch; step: Step } | { ok: false; sentence: string } {
    const before = this.unsent;
    const reduction = reduce(before, changes);
    if (!reduction.ok) return { ok: false, sentence: reduction.refusal.sentence };
    const batch: Batch = { id: this.newId(), label, changes };
    const made = { batch, was: baseValuesOf(before, changes) };
    this.waiting = [...this.waiting, made];
    const step = { ...undoable(label, reduction.inverse, reduction.scene), batch: batch.id };
    return { ok: true, made, step };
  }

  private drop(id: string): void {
    this.waiting = this.waiting.filter(({ batch }) => batch.id !== id);
  }

  /** What was never committed can be neither taken back nor brought again. */
  private forgetUndo(id: string): void {
    for (const stack of [this.undoStack, this.redoStack]) {
      const at = stack.findIndex(({ batch }) => batch === id);
      if (at >= 0) stack.splice(at, 1);
    }
  }

  private advance(batch: Pick<Batch, 'id' | 'changes'>, seq: number): boolean {
    const scene = this.after(this.document.scene, batch);
    if (!scene) return false;
    this.document = { ...this.document, scene, seq };
    return true;
  }

  /** The scene after a batch; null when the batch does not fit. */
  private after(before: Scene, { id, changes }: Pick<Batch, 'id' | 'changes'>): Scene | null {
    const known = this.outcomes.get(before);
    if (known?.id === id) return known.scene;
    const reduction = reduce(before, changes);
    if (!reduction.ok) return null;
    this.outcomes.set(before, { id, scene: reduction.scene });
    return reduction.scene;
  }
}

/** A batch with the server's stamps is another than the one that was applied here. */
const stampedId = (id: string) => `${id} with stamps`;

function push(stack: Step[], entry: Step): void {
  stack.push(entry);
  if (stack.length > MAX_UNDO) stack.shift();
}
