import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils';
import { KIND_NAMES, type Kind, type Scene } from '../document/index.ts';

/** Kinds that no piece and no mass hangs on: what is written, agreed, planned or photographed. */
const APART: readonly Kind[] = [
  ...(['task', 'session', 'milestone', 'calendar', 'thread', 'reply', 'report', 'acceptance'] as const),
  ...([
    'promise',
    'loan',
    'order',
    'person',
    'photo',
    'photoSpot',
    'picture',
    'note',
    'marker',
    'dimension',
  ] as const),
];

/**
 * The digest (SHA-256) of all in a scene that how it stands, or what is seen of it, may hang on.
 * @param also kinds of those apart that an answer hangs on too
 */
export function planDigest(scene: Scene, also: readonly Kind[] = []): string {
  const kinds = KIND_NAMES.filter((kind) => !APART.includes(kind) || also.includes(kind)).toSorted();
  const content = kinds.map((kind) => [kind, scene[kind]]);
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(content))));
}
