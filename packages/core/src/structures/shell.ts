import { builtRect } from '../document/index.ts';
import { layFloor, layPillars, pillarsUnder } from './floors.ts';
import { builtSides, openingsOf, wallStuds, type Fronted } from './fronts.ts';
import { gableOf, layGable } from './gable.ts';
import type { LaidPiece } from './piece.ts';
import { storeysOf, wallTop } from './storeys.ts';
import { fillOf, layWalls } from './walls.ts';

// A building in pieces: walls of bonded courses with what is let into them, a floor of plates for each storey that lies
// on the walls and on pillars under its joints, a roof of
// plates or of slopes, and the plates of its pavement. What `shellOf` weighs, laid. Furniture and ornament
// are not in it.

/**
 * The pieces of a building, from the ground up. Sides and walls are whole studs: half ones are rounded.
 * @returns each stud of walls, floors, roof and pavement once; a window deeper than its wall stands out inside
 */
export function buildingPieces(plot: Fronted): LaidPiece[] {
  const { w, d } = builtSides(plot);
  const thick = wallStuds(plot);
  const openings = openingsOf(plot);
  const whole = { x: 0, y: 0, w, d };
  const fills = openings.flatMap((one) => fillOf(one, { w, d, thick }));
  const pillars = pillarsUnder(w, d, thick, fills);
  const pieces = pavementOf(plot, { w, d });
  const gable = gableOf(plot);
  const isPitched = gable !== null && gable.courses > 0;
  const storeys = storeysOf(plot);
  for (const [i, storey] of storeys.entries()) {
    const { level, hasFloor, from, to } = storey;
    if (hasFloor) pieces.push(...layFloor(whole, level, 'floor'));
    const own = openings.filter(({ foot }) => foot >= from && foot < to);
    pieces.push(...layWalls({ w, d, thick, storey, openings: own }));
    // Nothing flat lies over the last storey under a roof of slopes.
    if (!isPitched || i < storeys.length - 1) pieces.push(...layPillars(pillars, storey));
  }
  pieces.push(...fills, ...(isPitched ? layGable(plot, gable) : layFloor(whole, wallTop(plot), 'roof')));
  return pieces;
}

/** The plates of the pavement before a street front, as what is built leaves it in whole studs. */
function pavementOf(plot: Fronted, { w, d }: { w: number; d: number }): LaidPiece[] {
  const built = builtRect(plot);
  const [west, north] = [Math.round(built.x - plot.x), Math.round(built.y - plot.y)];
  const east = Math.round(plot.x + plot.w - built.x - built.w);
  const south = Math.round(plot.y + plot.d - built.y - built.d);
  return [
    { x: -west, y: -north, w: west + w + east, d: north },
    { x: -west, y: d, w: west + w + east, d: south },
    { x: -west, y: 0, w: west, d },
    { x: w, y: 0, w: east, d },
  ].flatMap((strip) => layFloor(strip, 0, 'pavement'));
}

const known = new Map<string, { part: string; qty: number }[]>();
const MAX_KNOWN = 500;

/**
 * The pieces of a building by part: a guess of what it takes at least, the most frequent first. Worked out once for
 * buildings of one size with the same fronts.
 */
export function shellPieces(plot: Fronted): { part: string; qty: number }[] {
  const { w, d, height, storeys, wall, front, streetFront, pavement, bays, cutAt, eaves, slope } = plot;
  const key = JSON.stringify([
    w,
    d,
    height,
    storeys,
    wall,
    front,
    streetFront,
    pavement,
    bays,
    cutAt,
    eaves,
    slope,
  ]);
  const before = known.get(key);
  if (before) return before;
  const counts = new Map<string, number>();
  for (const { part } of buildingPieces(plot)) counts.set(part, (counts.get(part) ?? 0) + 1);
  const pieces = [...counts].map(([part, qty]) => ({ part, qty })).toSorted((a, b) => b.qty - a.qty);
  if (known.size >= MAX_KNOWN) known.clear();
  known.set(key, pieces);
  return pieces;
}
