import { versionKeeper, type Actor, type Change, type Scene } from '@quarry/core/document';
import type { DisplayLink, LinkState } from '../src/data/displayLink.ts';
import { LocalDocument, type ActOutcome } from '../src/data/localDocument.ts';
import { asShown, changesInBase, type ShownVersion } from '../src/data/shownVersion.ts';

/** What a link made of changes: their label and they. */
export interface Act {
  label: string;
  changes: readonly Change[];
}

/**
 * A link for tests of components: it shows a scene, takes changes at once as if a server had, takes them back, and sends
 * nothing.
 * @param acts receives what was done
 */
export function linkOn(
  first: Scene,
  acts: Act[] = [],
  actor: Actor = { role: 'owner', person: null },
): DisplayLink {
  let batches = 0;
  const local = new LocalDocument({ scene: first, epoch: 0, seq: 0, actor }, () => `b${batches++}`);
  const inVersion = versionKeeper();
  let shown: Omit<ShownVersion, 'lost'> | null = null;
  const stateNow = (): LinkState => ({
    ...asShown(local.scene, shown, inVersion),
    ...{ actor, seq: local.server.seq },
    ...{ save: { state: 'saved' }, conflict: null, conflicts: 0, draft: null, here: [], gone: null },
    ...{ canUndo: local.canUndo, canRedo: local.canRedo, heard: null },
  });
  let state = stateNow();
  const listeners = new Set<() => void>();
  const update = () => {
    state = stateNow();
    for (const listener of listeners) listener();
  };
  const take = (outcome: ActOutcome | null): boolean => {
    if (outcome === null) return false;
    if (!outcome.ok) throw new Error(outcome.sentence);
    const { batch } = outcome.made;
    local.acknowledge(batch, local.server.seq + 1, undefined);
    acts.push({ label: batch.label, changes: batch.changes });
    update();
    return true;
  };
  const link = {
    id: 'd',
    getState: () => state,
    subscribe: (listener: () => void) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    close: () => undefined,
    reportWhereabouts: () => undefined,
    showVersion: (id: string | null, scope: ShownVersion['scope'] = 'version') => {
      shown = id === null ? null : { id, scope };
      update();
    },
    change: (label: string, changes: Change[]) => {
      const made = changesInBase(local.scene, state.version, changes);
      if (!made.ok) throw new Error(made.sentence);
      return made.changes.length === 0 || take(local.change(label, made.changes));
    },
    undo: () => take(local.undo()),
    redo: () => take(local.redo()),
  };
  return Object.assign(Object.create(null), link);
}
