import type { Change } from './change.ts';
import { KINDS, type Kind } from './schema.ts';
import type { Scene } from './scene.ts';

// Authorship stamps (author and time): fields that only the server sets.

/** Fields that hold the author (a person of the display, or a free name) and the time of creation. */
const AUTHORED: Partial<Record<Kind, { by: 'person' | 'name'; at: boolean }>> = {
  thread: { by: 'person', at: true },
  reply: { by: 'person', at: true },
  report: { by: 'person', at: true },
  photo: { by: 'person', at: false },
  acceptance: { by: 'name', at: true },
};

export const isAuthored = ({ kind }: { kind: Kind }): boolean => kind in AUTHORED;

/** Who changes something, and when: ISO, UTC. */
export interface Author {
  person: string | null;
  name: string;
  at: string;
}

/** The author and the moment of an entity, as it was first written. */
export interface Stamp {
  by: string | null;
  at: string | null;
}

/** The stamp of an entity that stands in a scene; null for kinds that have none, or where it is not there. */
export function authorOf(scene: Scene, kind: Kind, id: string): Stamp | null {
  if (kind === 'thread' || kind === 'reply' || kind === 'report' || kind === 'acceptance') {
    const entity = scene[kind][id];
    return entity ? { by: entity.by, at: entity.at } : null;
  }
  const photo = kind === 'photo' ? scene.photo[id] : undefined;
  return photo ? { by: photo.by, at: null } : null;
}

/**
 * A change with the fields that say who and when set as they are, whatever was sent.
 * @param former the stamp of what was removed and now comes back: the original author is kept
 */
export function stamped(change: Change, author: Author, former: Stamp | null): Change {
  const fields = AUTHORED[change.kind];
  if (!fields || change.op === 'remove') return change;
  const by = fields.by === 'person' ? author.person : author.name;
  if (change.op === 'add') {
    const stamp = former ?? { by, at: author.at };
    return { ...change, data: { ...change.data, by: stamp.by, ...(fields.at ? { at: stamp.at } : {}) } };
  }
  // Accepting a finding again, or answering advice, takes the stamp of the present author.
  if (change.kind === 'acceptance') return { ...change, set: { ...change.set, by, at: author.at } };
  const { answeredBy } = change.set;
  return change.kind === 'thread' && answeredBy !== undefined && answeredBy !== null
    ? { ...change, set: { ...change.set, answeredBy: author.person } }
    : change;
}

/** Reason to refuse a patch that forges an author or a time; null when it forges neither. */
export function forgery(scene: Scene, change: Change): string | null {
  const fields = AUTHORED[change.kind];
  if (!fields || change.op !== 'patch' || change.kind === 'acceptance') return null;
  const stamp = authorOf(scene, change.kind, change.id);
  const forged =
    stamp !== null &&
    ((change.set.by !== undefined && change.set.by !== stamp.by) ||
      (fields.at && change.set.at !== undefined && change.set.at !== stamp.at));
  return forged ? `Who made this ${KINDS[change.kind].word}, and when, cannot be changed.` : null;
}
