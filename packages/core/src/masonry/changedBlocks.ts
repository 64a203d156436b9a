import { grown, intersection, type Rect } from '../grid/index.ts';
import type { Kind } from '../document/index.ts';
import { changedAreas, type Compiled, type Relief } from '../terrain/index.ts';
import { LOOKS_OUT, type CountingBlock } from './blocks.ts';
import { SURF } from './dress.ts';

// Which blocks of ground are counted from the same data after a change as before it.

/**
 * Kinds that a block's ground is read from beside the relief. What lies, stands or is dug in places is not among them:
 * it is looked at by where it reaches.
 */
export const KINDS_OF_WHOLE_GROUND = [
  'display',
  'level',
  'module',
  'section',
  'recipe',
  'customGround',
  'partType',
  'plain',
] as const satisfies readonly Kind[];

/** How far outside a block its ground is read, studs. */
const MARGIN = Math.max(LOOKS_OUT, SURF);

/**
 * Compares two compiled scenes for counting.
 * @returns a test of a block of ground that both have: true where it is sure to be counted from the same data. Null
 * when everything may differ. Blocks over air and over cavities never pass. Linear in studs.
 */
export function unchangedBlocks(
  before: Compiled,
  after: Compiled,
): ((block: CountingBlock) => boolean) | null {
  if (KINDS_OF_WHOLE_GROUND.some((kind) => before.scene[kind] !== after.scene[kind])) return null;
  const [a, b] = [before.relief, after.relief];
  if (a.x !== b.x || a.y !== b.y || a.w !== b.w || a.d !== b.d) return null;
  const shared = Math.min(a.things.length, b.things.length);
  // Owners are numbers: they are the same things only as long as both lists begin alike.
  for (let i = 0; i < shared; i++)
    if (a.things[i].kind !== b.things[i].kind || a.things[i].id !== b.things[i].id) return null;
  const areas = changedAreas(before.scene, after.scene);
  if (!areas) return null;
  const touched = [...areas.land, ...areas.ways, ...areas.tops];
  const cavities = [...a.slabs, ...b.slabs].filter(({ kind }) => kind === 'cavity');
  return (block) => {
    if (block.part) return false;
    const window = intersection(grown(block, MARGIN), b);
    return (
      window !== null &&
      !touched.some((area) => intersection(area, window)) &&
      !cavities.some((area) => intersection(area, window)) &&
      isSameRelief(before, after, window)
    );
  };
}

/** Whether two compiled scenes have the same ground, owners and surface in a window that lies in both. */
function isSameRelief(before: Compiled, after: Compiled, window: Rect): boolean {
  const pairs: [ArrayLike<number>, ArrayLike<number>][] = [
    [before.relief.height, after.relief.height],
    [before.relief.ground, after.relief.ground],
    [before.relief.surface, after.relief.surface],
    [before.land.owner, after.land.owner],
  ];
  return pairs.every(([old, fresh]) => old === fresh || isSameWindow(old, fresh, after.relief, window));
}

function isSameWindow(
  a: ArrayLike<number>,
  b: ArrayLike<number>,
  relief: Pick<Relief, 'x' | 'y' | 'w'>,
  { x, y, w, d }: Rect,
): boolean {
  for (let row = y - relief.y; row < y - relief.y + d; row++) {
    const from = row * relief.w + x - relief.x;
    for (let i = from; i < from + w; i++) if (a[i] !== b[i]) return false;
  }
  return true;
}
