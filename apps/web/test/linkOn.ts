import type { Actor, Change, Scene } from '@quarry/core/document';
import type { DisplayLink, LinkState } from '../src/data/displayLink.ts';
import { LocalDocument, type ActOutcome } from '../src/data/localDocument.ts';

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
  const stateNow = (): LinkState => ({
    ...{ scene: local.scene, base: local.scene, version: null, actor, seq: local.server.seq },
    ...{ save: { state: 'saved' }, conflict: null, conflicts: 0, draft: null, here: [], gone: null },
    ...{ canUndo: local.canUndo, canRedo: local.canRedo, heard: null },
  });
  let state = stateNow();
  const listeners = new Set<() => void>();
  const take = (outcome: ActOutcome | null): boolean => {
    if (outcome === null) return false;
    if (!outcome.ok) throw new Error(outcome.sentence);
    const { batch } = outcome.made;
    local.acknowledge(batch, local.server.seq + 1, undefined);
    acts.push({ label: batch.label, changes: batch.changes });
    state = stateNow();
    for (const listener of listeners) listener();
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
    change: (label: string, changes: Change[]) => take(local.change(label, changes)),
    undo: () => take(local.undo()),
    redo: () => take(local.redo()),
  };
  return Object.assign(Object.create(null), link);
}
