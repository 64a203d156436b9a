import { dequal } from 'dequal/lite';
import { createContext, use, useEffect, useState, useSyncExternalStore, type ReactNode } from 'react';
import { toast } from 'sonner';
import {
  denialReason,
  entityOf,
  isAtLeast,
  isVersioned,
  unhung,
  type Change,
  type DataOf,
  type Entity,
  type Kind,
  type Scene,
} from '@quarry/core/document';
import { DisplayLink, type LinkState } from './displayLink.ts';

const LinkContext = createContext<DisplayLink | null>(null);

/** Opens a display for the pages inside it. */
export function DisplayProvider({
  id,
  user,
  loading,
  failed,
  children,
}: {
  id: string;
  /** Id of the account that is signed in. */
  user: string;
  loading: ReactNode;
  failed: (error: Error) => ReactNode;
  children: ReactNode;
}) {
  const [link, setLink] = useState<DisplayLink | Error | null>(null);
  useEffect(() => {
    let open: DisplayLink | null = null;
    let gone = false;
    setLink(null);
    DisplayLink.open(id, user, (message) => toast.error(message)).then(
      (fresh) => {
        open = fresh;
        if (gone) fresh.close();
        else setLink(fresh);
      },
      (error: unknown) => {
        if (!gone) setLink(error instanceof Error ? error : new Error(String(error)));
      },
    );
    return () => {
      gone = true;
      open?.close();
    };
  }, [id, user]);
  if (link === null) return loading;
  if (link instanceof Error) return failed(link);
  return <LinkContext value={link}>{children}</LinkContext>;
}

export function useLink(): DisplayLink {
  const link = use(LinkContext);
  if (!link) throw new Error('this part belongs inside a display');
  return link;
}

/** A part of the display's state, like `useView`: the component renders again when that part changes. */
export function useDisplay<T>(select: (state: LinkState) => T): T {
  const link = useLink();
  return useSyncExternalStore(link.subscribe, () => select(link.getState()));
}

/**
 * The scene as far as some kinds go: the component renders again when one of them changes, and not for others.
 * @param kinds what it reads, one at least; the type keeps it from reading more
 */
export function useScene<K extends keyof Scene>(...kinds: readonly [K, ...K[]]): Pick<Scene, K> {
  const [last] = useState<{ scene: Pick<Scene, K> | null }>(() => ({ scene: null }));
  return useDisplay(({ scene }) => {
    const { scene: before } = last;
    if (before && kinds.every((kind) => before[kind] === scene[kind])) return before;
    last.scene = scene;
    return scene;
  });
}

/** One entity, and no other state: null once it is gone. */
export function useEntity({ kind, id }: { kind: Kind; id: string }): Entity<Kind> | null {
  return useDisplay(({ scene }) => entityOf(scene, kind, id) ?? null);
}

/** Writing to the display, in the words of the change log. */
export function useEdit() {
  const link = useLink();
  return {
    change: (label: string, changes: Change[]) => link.change(label, changes),
    patch<K extends Kind>(label: string, kind: K, entity: Entity<K>, set: Partial<DataOf<K>>) {
      const before: Record<string, unknown> = { ...entity };
      const real = Object.fromEntries(
        Object.entries(set).filter(([key, value]) => !dequal(before[key], value)),
      );
      return (
        Object.keys(real).length === 0 ||
        link.change(label, [{ op: 'patch', kind, id: entity.id, v: entity.v, set: real }])
      );
    },
    add<K extends Kind>(label: string, kind: K, id: string, data: Partial<DataOf<K>>) {
      return link.change(label, [{ op: 'add', kind, id, data }]);
    },
    remove(label: string, kind: Kind, id: string, v: number) {
      const freed = unhung(link.getState().scene, [{ kind, id }]);
      return link.change(label, [...freed, { op: 'remove', kind, id, v }]);
    },
  };
}

/** Whether the signed-in person may make a change like this one; the reason when not. A proposal may change anything. */
export function useDenialReason(): (change: Change) => string | null {
  const drafting = useDisplay(({ draft }) => draft !== null);
  const actor = useDisplay(({ actor }) => actor);
  // What a role may do hangs on who builds which section; the rest is read when it is asked.
  useScene('section');
  const link = useLink();
  const isInVersion = useDisplay(({ version }) => version?.scope === 'version');
  return (change) => {
    if (drafting) return null;
    // What is changed in a version only is a difference of it.
    if (isInVersion && isVersioned(change) && !isAtLeast(actor.role, 'planner'))
      return 'Builders may not change a version; ask a planner.';
    return denialReason(actor, link.getState().scene, change);
  };
}

/** True for those who plan: owners and planners. */
export function useIsPlanner(): boolean {
  const { role } = useDisplay(({ actor }) => actor);
  return isAtLeast(role, 'planner');
}

/** An id for a new entity: the kind and a random suffix. */
export function freshId(kind: Kind): string {
  return `${kind.toLowerCase()}-${crypto.randomUUID().slice(0, 13)}`;
}
