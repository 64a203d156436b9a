import {
  denialReason,
  fromRows,
  toRows,
  versionKeeper,
  type Actor,
  type Change,
  type Scene,
} from '@quarry/core/document';
import {
  committedBatchSchema,
  type CommittedBatch,
  type Present,
  type Whereabouts,
} from '@quarry/protocol/changes';
import { ApiProblem, keys, queryClient } from './api.ts';
import { documentApi, streamUrl } from './documentApi.ts';
import { BatchSender } from './batchSender.ts';
import { patient } from './call.ts';
import { choiceKey, threeWayMerge, type Conflict } from './conflicts.ts';
import { EventStream } from './eventStream.ts';
import { LocalDocument, type DraftStep, type ActOutcome, type ServerDocument } from './localDocument.ts';
import { dropWaiting, keepDocument, keepWaiting, keptDocument, waitingFor } from './outbox.ts';
import { PresenceReporter, PresenceRoster } from './presence.ts';
import { recall, remember } from './remembered.ts';
import { asShown, changesInBase, type ShownVersion } from './shownVersion.ts';

/** Save state of the user's changes. */
export type SaveState =
  | { state: 'saved' }
  | { state: 'saving' }
  | { state: 'waiting'; why: string; count: number };

export interface LinkState {
  /** As it is shown: in a version, or the base. */
  scene: Scene;
  /** The base of all versions. */
  base: Scene;
  /** Null: the base is shown. */
  version: ShownVersion | null;
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
  /** The user lost access to the display, or the session has ended. */
  gone: 'display' | 'session' | null;
  canUndo: string | null;
  canRedo: string | null;
  /** The last change by another user, for a notice. */
  heard: CommittedBatch | null;
}

/** A display is kept for a start without the server when it has rested this long, ms. */
const KEEP_AFTER = 3000;

/**
 * A display as one window has it, connected: the local document, the sender of own batches with its outbox, the stream
 * of all batches, presence, and conflicts to decide.
 */
export class DisplayLink {
  private state: LinkState;
  private readonly listeners = new Set<() => void>();
  private readonly local: LocalDocument;
  private readonly sender: BatchSender;
  private readonly stream: EventStream;
  private readonly presence: PresenceReporter;
  private readonly roster = new PresenceRoster();
  private readonly conflicts: Conflict[] = [];
  private gone: LinkState['gone'] = null;
  private heard: CommittedBatch | null = null;
  private readonly inVersion = versionKeeper();
  private shown: Omit<ShownVersion, 'lost'> | null = null;
  private keeping: ReturnType<typeof setTimeout> | undefined;
  /** Changes on their way into this browser’s store. */
  private storing = 0;

  private constructor(
    readonly id: string,
    private readonly user: string,
    document: ServerDocument,
    private readonly onTrouble: (message: string) => void,
  ) {
    this.local = new LocalDocument(document, () => crypto.randomUUID());
    this.presence = new PresenceReporter(id, crypto.randomUUID());
    this.sender = new BatchSender({
      next: () => this.local.pending[0]?.batch,
      commit: (batch) => documentApi.commit(id, batch),
      onCommitted: async (batch, { seq, changes }) => {
        const isComplete = this.local.acknowledge(batch, seq, changes);
        void dropWaiting(id, batch.id);
        this.keepDocumentSoon();
        // The stream brings the rest, or has been missing it.
        if (!isComplete) await this.catchUp();
      },
      onRefused: (batch, problem) => this.refused(batch.id, problem),
      // Before the page is reloaded without a server, what it stands on is kept.
      onStalled: () => this.keepSoon(0),
      onChange: () => this.update(),
    });
    this.stream = new EventStream({
      url: () => streamUrl(id, this.local.server.epoch, this.local.server.seq, this.client),
      handlers: {
        message: (data) => this.receive(data),
        here: (data) => {
          if (this.roster.set(data)) this.update();
        },
        moved: (data) => {
          if (this.roster.move(data)) this.update();
        },
        behind: () => void this.catchUp(),
        'membership-changed': () => void this.catchUp(),
      },
      // What waits is tried again when the stream is back.
      onOpen: () => {
        this.presence.repeat();
        this.sender.send();
      },
      onLost: async () => {
        await this.catchUp();
        return this.gone === null;
      },
    });
    const version = recall(versionKey(id));
    if (version) this.shown = { id: version, scope: 'version' };
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
    // Its error is taken by whoever waits for it, and may come before.
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
    link.local.restore(waiting);
    link.update();
    link.stream.open();
    window.addEventListener('online', link.sender.send);
    link.sender.send();
    link.keepSoon(0);
    return link;
  }

  close(): void {
    this.stream.close();
    this.sender.close();
    clearTimeout(this.keeping);
    this.presence.close();
    window.removeEventListener('online', this.sender.send);
    this.listeners.clear();
  }

  /** Reports to the others where this window is. */
  reportWhereabouts(where: Whereabouts): void {
    this.presence.report(where);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  getState = (): LinkState => this.state;

  /** Shows a version of the display, or its base. @param scope where changes go from now on */
  showVersion(id: string | null, scope: ShownVersion['scope'] = 'version'): void {
    this.shown = id === null ? null : { id, scope };
    remember(versionKey(this.id), id ?? '');
    this.update();
  }

  /**
   * Makes a change: on the screen at once, then on its way. While a version is shown it is one of that, or of all.
   * @returns whether it fits the scene as it stands
   */
  change(label: string, asShown: Change[]): boolean {
    const made = this.inBase(asShown);
    if (!made.ok) {
      this.onTrouble(made.sentence);
      return false;
    }
    const { changes } = made;
    // What is as in the base again, and was not otherwise, is no change.
    if (changes.length === 0) return true;
    if (!this.local.draft) return this.take(this.local.change(label, changes));
    const refusal = this.local.addToDraft({ label, changes });
    if (refusal) this.onTrouble(refusal.sentence);
    this.update();
    return refusal === null;
  }

  /** Changes of what is shown as changes of the display. */
  private inBase(changes: Change[]): ReturnType<typeof changesInBase> {
    const { version } = this.state;
    const made = changesInBase(this.local.scene, version, changes);
    if (!version || !made.ok || this.local.draft) return made;
    const denied = made.changes
      .filter(({ kind }) => kind === 'difference')
      .map((change) => denialReason(this.local.server.actor, this.local.scene, change))
      .find((sentence) => sentence !== null);
    return denied ? { ok: false, sentence: denied } : made;
  }

  undo(): void {
    this.take(this.local.undo());
  }

  redo(): void {
    this.take(this.local.redo());
  }

  /** Begins a proposal: changes are collected and applied in this window only. */
  beginDraft(): void {
    this.local.beginDraft();
    this.update();
  }

  /** Lets a proposal go, or hands over what was put together. @returns its changes, in order */
  endDraft(): Change[] {
    const changes = this.local.endDraft();
    this.update();
    return changes;
  }

  /** Decides the first conflict: these fields (by `choiceKey`) stay as the others have them, the rest is committed. */
  decide(theirs: ReadonlySet<string>): void {
    const conflict = this.conflicts.shift();
    if (conflict) this.settle(conflict, theirs);
  }

  resolveWithMine(): void {
    this.decide(new Set());
  }

  resolveWithTheirs(): void {
    this.decide(new Set(this.conflicts[0]?.fields.map(choiceKey)));
  }

  /** Sends and keeps what an act made, or says why it made nothing. */
  private take(outcome: ActOutcome | null): boolean {
    if (outcome?.ok) {
      this.storing++;
      void keepWaiting(this.id, this.user, outcome.made)
        .catch(() =>
          this.onTrouble(
            'This browser keeps no copy of unsent changes; do not reload before they are saved.',
          ),
        )
        .finally(() => {
          this.storing--;
          this.update();
        });
      this.sender.send();
    } else if (outcome) this.onTrouble(outcome.sentence);
    this.update();
    return outcome?.ok ?? false;
  }

  private settle(conflict: Conflict, theirs: ReadonlySet<string>): void {
    const left = threeWayMerge(this.local.unsent, conflict, theirs);
    if (!left.ok) this.onTrouble(`Not saved: ${left.sentence}`);
    else if (left.changes.length > 0) this.take(this.local.change(conflict.label, left.changes));
    for (const id of conflict.waiting) void dropWaiting(this.id, id);
    this.update();
  }

  private async refused(id: string, problem: ApiProblem): Promise<void> {
    const refused = this.local.pending.find(({ batch }) => batch.id === id);
    if (!refused) return;
    this.local.discard(refused.batch);
    await this.catchUp();
    const isLate = problem.body.code === 'stale' && refused.batch.changes.some(({ op }) => op === 'patch');
    if (!isLate) {
      void dropWaiting(this.id, id);
      this.onTrouble(`Not saved: ${problem.message}`);
      this.update();
      return;
    }
    const conflict = this.local.takeOutLate(refused, problem.message);
    // Without a field changed by both sides there is nothing to decide.
    if (conflict.fields.some(({ clash }) => clash)) this.conflicts.push(conflict);
    else this.settle(conflict, new Set());
    this.update();
  }

  private receive(data: unknown): void {
    const { data: committed } = committedBatchSchema.safeParse(data);
    const whose = committed ? this.local.receive(committed) : 'gap';
    if (whose === 'known') return;
    if (!committed || whose === 'gap') {
      void this.catchUp();
      return;
    }
    if (whose === 'others') this.heard = committed;
    this.keepDocumentSoon();
    this.update();
  }

  private async catchUp(): Promise<void> {
    try {
      await queryClient.invalidateQueries({ queryKey: keys.display(this.id), refetchType: 'none' });
      if (!this.local.replace(await loadDocument(this.id))) return;
      this.keepDocumentSoon();
      this.update();
    } catch (error) {
      if (error instanceof ApiProblem && (error.status === 404 || error.status === 401))
        this.gone = error.status === 404 ? 'display' : 'session';
      this.sender.trouble = error instanceof Error ? error.message : String(error);
      this.update();
    }
  }

  /** The document is another than before: it goes to the query cache, and to the browser's store once it rests. */
  private keepDocumentSoon(): void {
    queryClient.setQueryData(keys.display(this.id), this.local.server);
    this.keepSoon(KEEP_AFTER);
  }

  /** Keeps the server's scene in the browser. A browser that keeps nothing starts with the server only. */
  private keepSoon(ms: number): void {
    clearTimeout(this.keeping);
    this.keeping = setTimeout(() => {
      const { scene, epoch, seq, actor } = this.local.server;
      void keepDocument(this.id, this.user, { epoch, seq, actor, rows: toRows(scene) }).catch(
        () => undefined,
      );
    }, ms);
  }

  private update(): void {
    this.state = this.derive();
    for (const listener of this.listeners) listener();
  }

  private derive(): LinkState {
    const { local, sender } = this;
    const count = local.pending.length;
    // What waits is in this browser’s store: until it is, it is being saved.
    const save: SaveState =
      sender.trouble && count > 0 && this.storing === 0
        ? { state: 'waiting', why: sender.trouble, count }
        : count > 0
          ? { state: 'saving' }
          : { state: 'saved' };
    return {
      ...asShown(local.scene, this.shown, this.inVersion),
      actor: local.server.actor,
      seq: local.server.seq,
      save,
      conflict: this.conflicts[0] ?? null,
      conflicts: this.conflicts.length,
      draft: local.draft,
      here: this.roster.list,
      gone: this.gone,
      canUndo: local.canUndo,
      canRedo: local.canRedo,
      heard: this.heard,
    };
  }
}

/** The version shown last of a display, kept in this browser. */
const versionKey = (id: string) => `quarry-version-${id}`;

const isOffline = (error: unknown) => error instanceof ApiProblem && error.status === 0;

async function loadDocument(id: string): Promise<ServerDocument> {
  return queryClient.fetchQuery({
    queryKey: keys.display(id),
    staleTime: 0,
    // What was kept in the browser is there at once.
    retry: false,
    queryFn: async () => {
      const { epoch, seq, actor, rows } = await documentApi.display(id);
      return { epoch, seq, actor, scene: fromRows(rows) };
    },
  });
}
