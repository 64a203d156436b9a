import { listOf, type Placeholder, type Scene } from '../document/index.ts';
import { colourPolicyOf, mayStandIn } from './colourPolicy.ts';
import type { Supply } from './supply.ts';

// What was built in a wrong colour: the seen ones first, and whether what replaces them is there.

export interface Waiting {
  placeholder: Placeholder;
  /** Whether visitors look at that side of the display; null: viewed sides unknown. */
  seen: boolean | null;
  /** Whether the rule for colours of its section lets it stay. */
  mayStay: boolean;
  /** Studs from the nearest viewed side; Infinity when unknown. */
  depth: number;
  /** Pieces in the right colour that are here for it: what is there is given once, the first of the list first. */
  here: number;
  /** Pieces of orders that come for it. */
  coming: number;
  /** The day on which the last of those comes; null: none does, or no day is known. */
  comes: string | null;
}

/** Within this many studs of a viewed side a thing is seen (a default of ours: about arm's length). */
const SEEN = 48;

/**
 * Placeholders that are not swapped yet: seen ones first, the nearest to a viewer first.
 * @param supplies what is there and what comes; each piece is given to one placeholder
 */
export function waitingPlaceholders(
  scene: Scene,
  bounds: { x: number; y: number; w: number; d: number } | null,
  sides: readonly string[],
  supplies: readonly Supply[],
): Waiting[] {
  const stock = supplies.map((supply) => ({ supply, left: supply.qty }));
  return listOf(scene, 'placeholder')
    .filter(({ swapped }) => swapped === null)
    .map((placeholder) => {
      const { x, y, colour } = placeholder;
      const depths = bounds
        ? sides.map((side) =>
            side === 'n'
              ? y - bounds.y
              : side === 's'
                ? bounds.y + bounds.d - y
                : side === 'w'
                  ? x - bounds.x
                  : bounds.x + bounds.w - x,
          )
        : [];
      const depth = Math.min(Infinity, ...depths);
      return {
        placeholder,
        seen: depths.length === 0 ? null : depth <= SEEN,
        mayStay: mayStandIn(colourPolicyOf(scene, placeholder.section), colour, placeholder.stands),
        depth,
      };
    })
    .toSorted((a, b) => a.depth - b.depth || (a.placeholder.id < b.placeholder.id ? -1 : 1))
    .map((one) => ({ ...one, ...given(one.placeholder, stock) }));
}

/** Takes from what is left of the supplies what a placeholder needs: first what is here, then the parcels by their day. */
function given(
  { part, colour, qty }: Placeholder,
  stock: { supply: Supply; left: number }[],
): Pick<Waiting, 'here' | 'coming' | 'comes'> {
  const right = stock.filter(({ supply }) => supply.part === part && supply.colour === colour);
  let missing = qty;
  const take = (one: { left: number }) => {
    const taken = Math.min(one.left, missing);
    one.left -= taken;
    missing -= taken;
    return taken;
  };
  for (const one of right) if (one.supply.kind !== 'order') take(one);
  const here = qty - missing;
  const days: (string | null)[] = [];
  // Parcels of no known day come last.
  const parcels = right
    .filter(({ supply }) => supply.kind === 'order')
    .toSorted((a, b) => ((a.supply.from ?? '9') < (b.supply.from ?? '9') ? -1 : 1));
  for (const one of parcels) if (take(one) > 0) days.push(one.supply.from);
  return { here, coming: qty - missing - here, comes: days.at(-1) ?? null };
}
