// What several versions of a display need together: each stands by itself, so that of every part the most is enough.

/** So many pieces of a part in a colour. */
export interface CountedPart {
  part: string;
  colour: string;
  qty: number;
}

/** A part in a colour over all versions. */
export interface VersionNeed {
  part: string;
  colour: string;
  /** The most that any version needs. */
  most: number;
  /** What each version needs, in their order. */
  by: number[];
  /** The only version that needs any; null: several do. */
  only: number | null;
}

/**
 * The pieces that all versions take, one standing at a time.
 * @param versions what each needs; a part may be named several times
 * @returns by part and colour; nothing that no version needs
 */
export function needsOverVersions(versions: readonly (readonly CountedPart[])[]): VersionNeed[] {
  const rows = new Map<string, VersionNeed>();
  versions.forEach((needs, i) => {
    for (const { part, colour, qty } of needs) {
      const key = `${part} ${colour}`;
      const row = rows.get(key) ?? { part, colour, most: 0, by: versions.map(() => 0), only: null };
      row.by[i] += qty;
      rows.set(key, row);
    }
  });
  return [...rows.values()]
    .map((row): VersionNeed => {
      const needing = row.by.flatMap((qty, i) => (qty > 0 ? [i] : []));
      return {
        ...row,
        most: row.by.reduce((most, qty) => Math.max(most, qty), 0),
        only: needing.length === 1 ? needing[0] : null,
      };
    })
    .filter(({ most }) => most > 0)
    .sort((a, b) => (a.part < b.part ? -1 : a.part > b.part ? 1 : a.colour < b.colour ? -1 : 1));
}

/** Pieces that lie in the swap box while a version stands. @param at its place in the order */
export const swapBoxOf = (needs: readonly VersionNeed[], at: number): CountedPart[] =>
  needs.flatMap(({ part, colour, most, by }) =>
    most > by[at] ? [{ part, colour, qty: most - by[at] }] : [],
  );
