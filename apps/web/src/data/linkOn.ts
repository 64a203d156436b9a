import { reduce, type Actor, type Change, type Scene } from '@quarry/core/document';
import type { DisplayLink } from './displayLink.ts';

/** What a link made of changes: their label and they. */
export interface Act {
  label: string;
  changes: readonly Change[];
}

/**
 * A link for tests of components: it shows a scene, takes changes at once, and sends nothing.
 * @param acts receives what was done
 */
export function linkOn(
  first: Scene,
  acts: Act[] = [],
  actor: Actor = { role: 'owner', person: null },
): DisplayLink {
  let state = { scene: first, base: first, version: null, actor, draft: null };
  const listeners = new Set<() => void>();
  const link = {
    id: 'd',
    getState: () => state,
    subscribe: (listener: () => void) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    close: () => undefined,
    change(label: string, changes: Change[]) {
      const done = reduce(state.scene, changes);
      if (!done.ok) throw new Error(done.refusal.sentence);
      state = { ...state, scene: done.scene, base: done.scene };
      acts.push({ label, changes });
      for (const listener of listeners) listener();
      return true;
    },
  };
  return Object.assign(Object.create(null), link);
}
