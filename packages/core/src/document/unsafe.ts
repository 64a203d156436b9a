// The casts of the document, each with its reason: TypeScript cannot see that a table's own keys are all it has.

/** Keys of a table that is declared in the source, which has no others than its type says. */
export const keysOf = <T extends object>(table: T): readonly (keyof T & string)[] =>
  Object.keys(table) as (keyof T & string)[];

/** A table with the same keys and another value for each. */
export const mapKeys = <K extends string, V>(keys: readonly K[], valueOf: (key: K) => V): Record<K, V> =>
  Object.fromEntries(keys.map((key) => [key, valueOf(key)])) as Record<K, V>;
