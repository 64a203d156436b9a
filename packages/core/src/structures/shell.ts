import { ANY_COLOUR } from '../catalogue/index.ts';
import { isRound, roundRoom, roundRows, wallStuds, wallTop, type PartLine } from '../document/index.ts';
import type { BuildingUse } from '../masonry/index.ts';
import { roundRoofOf } from '../terrain/index.ts';
import { layFloor, layPillars, pillarsIn, pillarsUnder } from './floors.ts';
import { builtSides, openingsOf, type Fronted } from './fronts.ts';
import { laySlopedRoof, slopedRoofOf } from './slopedRoof.ts';
import { layPavement, type StreetRules } from './pavement.ts';
import type { BuildingPiece, LaidPiece } from './piece.ts';
import { layDisc, layRoundRoof } from './round.ts';
import { coursesOf, partJoints, storeysOf } from './storeys.ts';
import { fillOf, layWalls } from './walls.ts';

// A building in pieces: walls of bonded courses with what is let into them, a floor of plates for each storey that lies
// on the walls and on pillars under its joints, a roof of plates or of slopes, and the tiles of its pavement. What
// `shellOf` weighs, laid. Furniture and ornament are not in it.

/**
 * The pieces of a building, from the ground up. Sides and walls are whole studs: half ones are rounded.
 * @param street the colours of pavements
 * @returns each stud of walls, floors, roof and pavement once; a window deeper than its wall stands out inside
 */
export function buildingPieces(plot: Fronted, street: StreetRules): BuildingPiece[] {
  const { w, d } = builtSides(plot);
  // A building is no thinner than its walls.
  const thick = Math.min(wallStuds(plot), w, d);
  const openings = openingsOf(plot);
  const rows = isRound(plot) ? roundRows(plot) : null;
  const layWhole = (z: number, use: BuildingUse) =>
    rows ? layDisc(rows, w, z, use) : layFloor({ x: 0, y: 0, w, d }, z, use);
  const fills = openings.flatMap((one) => fillOf(one, { w, d, thick }));
  const pillars = rows
    ? pillarsIn(roundRoom(plot), layWhole(0, 'floor'), fills)
    : pillarsUnder(w, d, thick, fills);
  const pieces: LaidPiece[] = [];
  const sloped = slopedRoofOf(plot);
  const round = roundRoofOf(plot);
  const isPitched = sloped !== null && sloped.courses > 0;
  const isOpen = isPitched || (round !== null && !round.hasFloor);
  const storeys = storeysOf(plot);
  const joints = partJoints(plot);
  for (const [i, storey] of storeys.entries()) {
    const { level, hasFloor, from, to } = storey;
    if (hasFloor) pieces.push(...layWhole(level, 'floor'));
    const own = openings.filter(({ foot }) => foot >= from && foot < to);
    pieces.push(...layWalls({ w, d, thick, rows, storey, openings: own, joints }));
    // Nothing flat lies over the last storey under a roof that is open inside.
    if (!isOpen || i < storeys.length - 1) pieces.push(...layPillars(pillars, coursesOf(storey, joints)));
  }
  pieces.push(
    ...fills,
    ...(isPitched
      ? laySlopedRoof(plot, sloped)
      : round
        ? layRoundRoof(plot, round)
        : layWhole(wallTop(plot), 'roof')),
  );
  return [
    ...layPavement(plot, street),
    ...pieces.map((piece) => ({ ...piece, colour: colourOf(plot, piece.use) })),
  ];
}

/** The colour of what shows; what is hidden takes any. */
const colourOf = ({ wallColour, roofColour, letInColour }: Fronted, use: BuildingUse): string =>
  use === 'wall' ? wallColour : use === 'roof' ? roofColour : use === 'opening' ? letInColour : ANY_COLOUR;

const known = new Map<string, PartLine[]>();
const MAX_KNOWN = 500;

/**
 * The pieces of a building by part and colour: a guess of what it takes at least, the most frequent first. Worked out
 * once for buildings that are alike.
 */
export function shellPieces(plot: Fronted, street: StreetRules): PartLine[] {
  const { w, d, height, storeys, storeyHeights, wall, front, streetFront, pavement } = plot;
  const {
    shape,
    roundRoof,
    bays,
    cutAt,
    parts,
    roofForm,
    eaves,
    slope,
    wallColour,
    roofColour,
    letInColour,
  } = plot;
  const size = [
    w,
    d,
    shape,
    roundRoof,
    height,
    storeys,
    wall,
    front,
    streetFront,
    pavement,
    eaves,
    roofForm,
    slope,
  ];
  const key = JSON.stringify([
    size,
    storeyHeights,
    bays,
    cutAt,
    parts.map((part) => part.height),
    [wallColour, roofColour, letInColour],
    street.pavementLight,
    street.pavementDark,
  ]);
  const before = known.get(key);
  if (before) return before;
  const counts = new Map<string, PartLine>();
  for (const { part, colour } of buildingPieces(plot, street)) {
    const line = counts.get(`${part} ${colour}`) ?? { part, colour, qty: 0 };
    counts.set(`${part} ${colour}`, line);
    line.qty++;
  }
  const pieces = [...counts.values()].toSorted((a, b) => b.qty - a.qty);
  if (known.size >= MAX_KNOWN) known.clear();
  known.set(key, pieces);
  return pieces;
}
