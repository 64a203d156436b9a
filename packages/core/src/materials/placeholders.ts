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
  /** Pieces of the right colour that are there. */
  here: number;
  /** The day the rest comes; null: none is on its way. */
  comes: string | null;
}

/** Within this many studs of a viewed side a thing is seen (a default of ours: about arm's length). */
const SEEN = 48;

/** Placeholders that are not swapped yet: seen ones first, the nearest to a viewer first. */
export function waitingPlaceholders(
  scene: Scene,
  bounds: { x: number; y: number; w: number; d: number } | null,
  sides: readonly string[],
  supplies: readonly Supply[],
): Waiting[] {
  return listOf(scene, 'placeholder')
    .filter(({ swapped }) => swapped === null)
    .map((placeholder) => {
      const { x, y, part, colour } = placeholder;
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
      const right = supplies.filter((one) => one.part === part && one.colour === colour);
      const here = right.reduce((sum, one) => sum + (one.kind === 'order' ? 0 : one.qty), 0);
      const dates = right
        .flatMap(({ kind, from }) => (kind === 'order' && from !== null ? [from] : []))
        .sort();
      return {
        placeholder,
        seen: depths.length === 0 ? null : depth <= SEEN,
        mayStay: mayStandIn(colourPolicyOf(scene, placeholder.section), colour, placeholder.stands),
        depth,
        here,
        comes: dates[0] ?? null,
      };
    })
    .toSorted((a, b) => a.depth - b.depth || (a.placeholder.id < b.placeholder.id ? -1 : 1));
}
