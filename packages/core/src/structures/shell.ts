import { ANY_COLOUR } from '../catalogue/index.ts';
import { builtRect, type PartLine } from '../document/index.ts';
import type { BuildingUse } from '../masonry/index.ts';
import { layFloor, layPillars, pillarsUnder } from './floors.ts';
import { builtSides, openingsOf, wallStuds, type Fronted } from './fronts.ts';
import { gableOf, layGable } from './gable.ts';
import type { BuildingPiece, LaidPiece } from './piece.ts';
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
export function buildingPieces(plot: Fronted): BuildingPiece[] {
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
  return pieces.map((piece) => ({ ...piece, colour: colourOf(plot, piece.use) }));
}

/** The colour of what shows; what is hidden or has a rule of its own takes any. */
const colourOf = ({ wallColour, roofColour, letInColour }: Fronted, use: BuildingUse): string =>
  use === 'wall' ? wallColour : use === 'roof' ? roofColour : use === 'opening' ? letInColour : ANY_COLOUR;

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

const known = new Map<string, PartLine[]>();
const MAX_KNOWN = 500;

/**
 * The pieces of a building by part and colour: a guess of what it takes at least, the most frequent first. Worked out
 * once for buildings that are alike.
 */
export function shellPieces(plot: Fronted): PartLine[] {
  const { w, d, height, storeys, storeyHeights, wall, front, streetFront, pavement } = plot;
  const { bays, cutAt, eaves, slope, wallColour, roofColour, letInColour } = plot;
  const size = [w, d, height, storeys, wall, front, streetFront, pavement, eaves, slope];
  const key = JSON.stringify([size, storeyHeights, bays, cutAt, wallColour, roofColour, letInColour]);
  const before = known.get(key);
  if (before) return before;
  const counts = new Map<string, PartLine>();
  for (const { part, colour } of buildingPieces(plot)) {
    const line = counts.get(`${part} ${colour}`) ?? { part, colour, qty: 0 };
    counts.set(`${part} ${colour}`, line);
    line.qty++;
  }
  const pieces = [...counts.values()].toSorted((a, b) => b.qty - a.qty);
  if (known.size >= MAX_KNOWN) known.clear();
  known.set(key, pieces);
  return pieces;
}
