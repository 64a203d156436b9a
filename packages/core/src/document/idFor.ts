const FNV_OFFSET = 0xcbf29ce484222325n;
const FNV_PRIME = 0x100000001b3n;

/**
 * The id of the one entity about something that has a key of its own: whoever writes it first gives it the same.
 * Source: FNV-1a, 64 bits (Fowler, Noll, Vo; RFC 9923).
 * @param prefix small letters, at most 20
 * @example idFor('chore', 'module module-a1') // 'chore-1x9…'
 */
export function idFor(prefix: string, key: string): string {
  let hash = FNV_OFFSET;
  for (const letter of key)
    hash = BigInt.asUintN(64, (hash ^ BigInt(letter.codePointAt(0) ?? 0)) * FNV_PRIME);
  return `${prefix}-${hash.toString(36)}`;
}
