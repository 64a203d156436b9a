import { intersection, type Rect } from '../grid/index.ts';
import { rowLetters } from './partition.ts';

interface Named extends Rect {
  id: string;
  name: string;
}

/**
 * Names for modules by row and column (A1 is the north-west one) that stay when others change: a rectangle that was
 * there before keeps its name; one that is new takes the name of the old module it shares most with, if that name is
 * free, else the least free number of its row.
 * @returns for each rectangle its name, and the id of the module it follows, if any
 */
export function namesFor(
  before: readonly Named[],
  fresh: readonly Rect[],
): { name: string; follows: string | null }[] {
  const taken = new Set<string>();
  const result: ({ name: string; follows: string | null } | null)[] = fresh.map((rect) => {
    const same = before.find(
      ({ x, y, w, d }) => x === rect.x && y === rect.y && w === rect.w && d === rect.d,
    );
    if (!same) return null;
    taken.add(same.name);
    return { name: same.name, follows: same.id };
  });
  // The largest shares first, so that a module split in two lives on in its larger part.
  const shares = fresh
    .flatMap((rect, index) =>
      result[index]
        ? []
        : before.flatMap((old) => {
            const shared = intersection(rect, old);
            return shared ? [{ index, old, area: shared.w * shared.d }] : [];
          }),
    )
    .sort((a, b) => b.area - a.area || (a.old.name < b.old.name ? -1 : 1) || a.index - b.index);
  for (const { index, old } of shares) {
    if (result[index] || taken.has(old.name)) continue;
    taken.add(old.name);
    result[index] = { name: old.name, follows: old.id };
  }
  const norths = [...new Set(fresh.map(({ y }) => y))].sort((a, b) => a - b);
  const order = fresh
    .map((_, index) => index)
    .sort((a, b) => fresh[a].y - fresh[b].y || fresh[a].x - fresh[b].x);
  for (const index of order) {
    if (result[index]) continue;
    const letter = rowLetters(norths.indexOf(fresh[index].y));
    let number = 1;
    while (taken.has(`${letter}${number}`)) number++;
    taken.add(`${letter}${number}`);
    result[index] = { name: `${letter}${number}`, follows: null };
  }
  return result.flatMap((entry) => entry ?? []);
}
