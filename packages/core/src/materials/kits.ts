import { ANY_COLOUR } from '../catalogue/index.ts';
import { priceOfLines, type Knowledge } from '../masonry/index.ts';
import { mergeLines, type PartLine } from '../document/index.ts';

// “Only from these kits”: what so many copies give, what is missing, and what is left over to trade.

export interface KitFit {
  /** Pieces that the kits give, of how many. */
  fits: number;
  needed: number;
  missing: PartLine[];
  leftover: PartLine[];
  /** What the leftovers would fetch at known prices or guesses, in money. */
  trade: number;
}

/**
 * @param need lines to be built; any colour takes what the exact ones leave
 * @param kits lines of one copy each, and how many copies
 */
export function fitKits(
  need: readonly PartLine[],
  kits: readonly { lines: readonly PartLine[]; copies: number }[],
  known: Knowledge = {},
): KitFit {
  const have = mergeLines(
    kits.flatMap(({ lines, copies }) => lines.map((line) => ({ ...line, qty: line.qty * copies }))),
  );
  let [fits, needed] = [0, 0];
  const missing: PartLine[] = [];
  const ordered = need.toSorted((a, b) => Number(a.colour === ANY_COLOUR) - Number(b.colour === ANY_COLOUR));
  for (const line of ordered) {
    let open = line.qty;
    needed += line.qty;
    for (const entry of have) {
      if (open === 0) break;
      if (entry.part !== line.part || (line.colour !== ANY_COLOUR && entry.colour !== line.colour)) continue;
      const taken = Math.min(open, entry.qty);
      entry.qty -= taken;
      open -= taken;
      fits += taken;
    }
    if (open > 0) missing.push({ ...line, qty: open });
  }
  const leftover = have.filter(({ qty }) => qty > 0);
  const trade = priceOfLines(leftover, known);
  return { fits, needed, missing, leftover, trade };
}

/** The fewest copies of one kit that give everything a list needs of it; null when no number does, or above `most`. */
export function copiesNeeded(
  need: readonly PartLine[],
  lines: readonly PartLine[],
  most = 1000,
): number | null {
  for (let copies = 1; copies <= most; copies = copies < 16 ? copies + 1 : copies * 2)
    if (fitKits(need, [{ lines, copies }]).missing.length === 0) {
      let [low, high] = [copies < 16 ? copies - 1 : copies / 2, copies];
      while (high - low > 1) {
        const middle = Math.floor((low + high) / 2);
        if (fitKits(need, [{ lines, copies: middle }]).missing.length === 0) high = middle;
        else low = middle;
      }
      return high;
    }
  return null;
}
