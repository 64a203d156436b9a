import { SIDES, builtRect, isRound, runsEast, type Plot, type Side } from '../document/index.ts';
import { GRAMS_PER_STUD_PLATE, outMass, shellOf, type ListedMass } from '../terrain/index.ts';
import { shareOfJoint } from './joints.ts';

// What stands out over a building's walls, as a cantilever: wings, oriels, jettied storeys, eaves.

/** What stands out over one side in numbers. */
export interface OverhangCard {
  side: Side;
  /** Its mass, grams, and how far its centre is out of the wall's face, studs. */
  grams: number;
  lever: number;
  /** The share of the hold of the wall's studs at its foot that it needs, the wall over them helping; Infinity: nothing holds it. */
  share: number;
  /** How far it may stand out at most, studs, half ones too; 0: not at all. */
  most: number;
}

const NONE: Plot['overhang'] = { n: 0, e: 0, s: 0, w: 0 };
const MAX_OUT = 64;

/**
 * Each side over which a building stands out above its ground: its moment about the wall's face against the pull of the
 * wall's studs at that height and the weight of the wall over them, all at the middle of the wall. What stands under it,
 * ties into its floors and what is behind the wall are left out, so that it is on the safe side.
 * @param hold of one stud, grams
 * @returns none for a building that stands out nowhere, or from its ground up
 */
export function overhangCards(plot: Plot, listed: ListedMass, hold: number): OverhangCard[] {
  if (plot.overhangFrom === 0 || plot.overhangFrom >= plot.height) return [];
  // A list weighs the whole building: its share of the shell weighs as much of the list.
  const own = listed.plots.get(plot.id);
  const scale = own === undefined ? 1 : own / shellOf(plot).grams;
  return SIDES.filter((side) => plot.overhang[side] > 0).map((side) => {
    const at = (by: number) => cantilever(plot, side, by, scale, hold);
    const now = at(plot.overhang[side]);
    let most = plot.overhang[side];
    if (now.share > 1) for (most = 0; most < MAX_OUT && at(most + 0.5).share <= 1;) most += 0.5;
    return { side, ...now, most };
  });
}

function cantilever(
  plot: Plot,
  side: Side,
  by: number,
  scale: number,
  hold: number,
): Pick<OverhangCard, 'grams' | 'lever' | 'share'> {
  // Over a round wall it stands out by whole studs.
  const reach = isRound(plot) ? Math.ceil(by) : by;
  const overhang = { ...NONE, [side]: reach };
  // Each stud of a wall holds what is before it: along a straight side, or spread round a round one.
  const straight = { ...plot, shape: 'box' as const, notches: [], recesses: [], overhang };
  const out = outMass(straight);
  const built = builtRect(plot);
  const isX = !runsEast(side);
  const isFar = side === 'e' || side === 's';
  const [own, foot] = isX
    ? [plot.x + plot.w / 2 + out.x, isFar ? built.x + built.w : built.x]
    : [plot.y + plot.d / 2 + out.y, isFar ? built.y + built.d : built.y];
  const lever = isFar ? own - foot : foot - own;
  const [long, thick] = [isX ? built.d : built.w, Math.min(plot.wall, isX ? built.w : built.d)];
  const above = long * thick * (plot.height - plot.overhangFrom) * GRAMS_PER_STUD_PLATE;
  const round = isRound(plot) ? 1 + (2 * reach) / Math.min(built.w, built.d) : 1;
  const grams = out.grams * scale * round;
  // Across the wall from its face inwards; along it everything is in the middle.
  const weight = {
    grams: grams + above * scale,
    mx: above * scale * (thick / 2) - grams * lever,
    my: (grams + above * scale) * (long / 2),
  };
  const studs = Math.floor(long) * Math.max(1, Math.round(thick));
  const share = shareOfJoint({ x: 0, y: 0, w: thick, d: long, studs }, weight, hold);
  return { grams: outMass({ ...plot, overhang }).grams * scale, lever, share };
}
