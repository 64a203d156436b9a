import { ANY_COLOUR, partId } from '../catalogue/index.ts';
import {
  MIXED,
  SIDES,
  halfOff,
  isOnHalf,
  isRound,
  runsEast,
  wallStuds,
  wallTop,
  type PartLine,
  type Side,
  builtArea,
  builtSides,
} from '../document/index.ts';
import type { BuildingUse } from '../masonry/index.ts';
import { ringRoofOf, slopedRoofOf } from '../terrain/index.ts';
import { connectorBricks } from './connectors.ts';
import { floorLayers } from './floorLayers.ts';
import { layFloor, layPillars } from './floors.ts';
import { wallStretches, type Fronted, type WallStretch } from './fronts.ts';
import { laySlopedRoof } from './slopedRoof.ts';
import { jumpersUnderWalls } from './jumpers.ts';
import { mixed } from './mixes.ts';
import { layPavement, type StreetRules } from './pavement.ts';
import type { BuildingPiece, LaidPiece } from './piece.ts';
import { layMask, layRingRoof } from './round.ts';
import { coursesOf, partJoints } from './storeys.ts';
import { fillOf, layWalls, wallStudsOf } from './walls.ts';

// A building in pieces: walls of bonded courses with what is let into them, a floor of plates for each storey that lies
// on the walls and on pillars under its joints, a roof of plates or of slopes, and the tiles of its pavement. What
// `shellOf` weighs, laid. Furniture and ornament are not in it.

/**
 * The pieces of a building, from the ground up; the jumpers under it lie below that. Sides and walls are whole studs: half ones are rounded.
 * @param street the colours of pavements
 * @returns each stud of walls, floors, roof and pavement once; a window deeper than its wall stands out inside
 */
export function buildingPieces(plot: Fronted, street: StreetRules): BuildingPiece[] {
  const { w, d } = builtSides(plot);
  // A building is no thinner than its walls.
  const thick = Math.min(wallStuds(plot), w, d);
  const area = builtArea(plot);
  const joints = partJoints(plot);
  const layers = floorLayers(plot);
  const connectors = connectorBricks(plot, layers[0]?.openings ?? []);
  const pieces = layers.flatMap(({ storey, plates, jumpers, pillars, openings }, i) => [
    ...plates,
    ...jumpers,
    ...layWalls({
      ...{ w, d, thick, area, storey, joints, wallBrick: plot.wallBrick },
      openings: i === 0 ? [...openings, ...connectors] : openings,
    }),
    ...layPillars(pillars, coursesOf(storey, joints)),
  ]);
  pieces.push(
    ...layers.flatMap(({ fills }) => fills),
    ...connectors.flatMap((one) => fillOf(one, { w, d, thick }).map(asWall)),
    ...layRoof(plot),
  );
  const off = halfOff(plot);
  if (off) pieces.unshift(...jumpersUnderWalls(wallStudsOf({ w, d }, thick, area), w, off));
  return [...layPavement(plot, street), ...coloured(plot, textured(plot, pieces))];
}

/** What a wall's texture is made of: of the smooth bricks 1 × 2 some are others. */
const SMOOTH = partId('brick', 1, 2);
const ROUGH = { scored: partId('scored-brick', 1, 2), sideStudded: partId('side-stud-brick', 1, 2) };

/**
 * Of the bricks 1 × 2 of walls as many scored and with studs on their side as are asked for, in the scatter of mixed colours;
 * none where nobody sees. Where both are more than all, each has its share.
 */
function textured(plot: Fronted, pieces: readonly LaidPiece[]): readonly LaidPiece[] {
  const { scored, sideStudded } = plot;
  const asked = scored + sideStudded;
  if (asked === 0) return pieces;
  const isBare = bareIn(plot);
  const own = pieces.filter((piece) => piece.use === 'wall' && piece.part === SMOOTH && !isBare(piece));
  const share = (percent: number) => (percent * 100) / Math.max(100, asked);
  const parts = mixed(own, SMOOTH, [
    { value: ROUGH.scored, percent: share(scored) },
    { value: ROUGH.sideStudded, percent: share(sideStudded) },
  ]);
  const rough = new Map(own.map((piece, i) => [piece, parts[i]]));
  return pieces.map((piece) => ({ ...piece, part: rough.get(piece) ?? piece.part }));
}

/** Pieces in their colours, walls and roof mixed as they are asked to be; walls that nobody sees are of any. */
function coloured(plot: Fronted, pieces: readonly LaidPiece[]): BuildingPiece[] {
  const colours = new Map<LaidPiece, string>();
  const isBare = bareIn(plot);
  if (plot.bareSides.length > 0)
    for (const piece of pieces) if (isBare(piece)) colours.set(piece, ANY_COLOUR);
  for (const use of MIXED) {
    const own = pieces.filter((piece) => piece.use === use && !colours.has(piece));
    const mixes = plot.mixes.filter((mix) => mix.of === use);
    if (mixes.length === 0) continue;
    mixed(
      own,
      colourOf(plot, use),
      mixes.map(({ colour, percent }) => ({ value: colour, percent })),
    ).forEach((colour, i) => colours.set(own[i], colour));
  }
  return pieces.map((piece) => {
    const { part, use, x, y, w, d, z, h, turn } = piece;
    // Field by field: to spread a hundred thousand of them takes four times as long.
    return { part, use, x, y, w, d, z, h, turn, colour: colours.get(piece) ?? colourOf(plot, use) };
  });
}

/** Tells of a piece of a building whether it is of a wall and shows on sides that nobody sees, and on no other. */
function bareIn(plot: Fronted): (piece: LaidPiece) => boolean {
  if (plot.bareSides.length === 0 || isRound(plot)) return () => false;
  const size = builtSides(plot);
  const faces: Record<Side, readonly WallStretch[]> = {
    n: wallStretches(plot, 'n'),
    e: wallStretches(plot, 'e'),
    s: wallStretches(plot, 's'),
    w: wallStretches(plot, 'w'),
  };
  return ({ use, x, y, w, d }) => {
    if (use !== 'wall') return false;
    const off = { n: y, w: x, s: size.d - y - d, e: size.w - x - w };
    const on = SIDES.filter((side) => {
      const [from, to] = runsEast(side) ? [x, x + w] : [y, y + d];
      return faces[side].some((wall) => wall.from < to && from < wall.to && off[side] <= wall.back);
    });
    return on.length > 0 && on.every((side) => plot.bareSides.includes(side));
  };
}

/** A brick with a hole is of the wall and has its colour. */
const asWall = (piece: LaidPiece): LaidPiece => ({ ...piece, use: 'wall', turn: 0 });

/** The roof: of slopes, of rings, or of one layer of plates. */
function layRoof(plot: Fronted): LaidPiece[] {
  const { w, d } = builtSides(plot);
  const sloped = slopedRoofOf(plot);
  if (sloped !== null && sloped.courses > 0) return laySlopedRoof(plot, sloped);
  const rings = ringRoofOf(plot);
  if (rings) return layRingRoof(plot, rings);
  const top = wallTop(plot);
  const area = builtArea(plot);
  return area ? layMask(area, top, 'roof') : layFloor({ x: 0, y: 0, w, d }, top, 'roof');
}

/** The colour of what shows; what is hidden takes any. */
const colourOf = ({ wallColour, roofColour, letInColour }: Fronted, use: BuildingUse): string =>
  use === 'wall' ? wallColour : use === 'roof' ? roofColour : use === 'opening' ? letInColour : ANY_COLOUR;

/** How many of each part in each colour, in the order in which they come. */
function linesOf(pieces: readonly BuildingPiece[]): PartLine[] {
  const lines: PartLine[] = [];
  const byPart = new Map<string, Map<string, PartLine>>();
  for (const { part, colour } of pieces) {
    const byColour = byPart.get(part) ?? new Map<string, PartLine>();
    const line = byColour.get(colour) ?? { part, colour, qty: 0 };
    if (line.qty === 0) {
      byPart.set(part, byColour.set(colour, line));
      lines.push(line);
    }
    line.qty++;
  }
  return lines;
}

const known = new Map<string, PartLine[]>();
const MAX_KNOWN = 500;

/**
 * The pieces of a building by part and colour: a guess of what it takes at least, the most frequent first. Worked out
 * once for buildings that are alike.
 */
export function shellPieces(plot: Fronted, street: StreetRules): PartLine[] {
  const { w, d, height, storeys, storeyHeights, wall, front, streetFront, pavement, connectors } = plot;
  const {
    shape,
    notches,
    recesses,
    roundRoof,
    bays,
    cutAt,
    parts,
    roofForm,
    eaves,
    slope,
    lowerSlope,
    lowerCourses,
    wallColour,
    roofColour,
    letInColour,
    mixes,
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
    connectors,
    pavement,
    eaves,
    roofForm,
    [slope, lowerSlope, lowerCourses],
  ];
  const key = JSON.stringify([
    size,
    storeyHeights,
    bays,
    cutAt,
    parts.map((part) => part.height),
    plot.fittings.map(({ use, place, on, climbsTo }) =>
      use === 'stair' || isOnHalf(place) ? [place, on, use, climbsTo] : 0,
    ),
    [wallColour, roofColour, letInColour, mixes],
    [plot.bareSides, notches, recesses, halfOff(plot), [plot.wallBrick, plot.scored, plot.sideStudded]],
    street.pavementLight,
    street.pavementDark,
  ]);
  const before = known.get(key);
  if (before) return before;
  const pieces = linesOf(buildingPieces(plot, street)).toSorted((a, b) => b.qty - a.qty);
  if (known.size >= MAX_KNOWN) known.clear();
  known.set(key, pieces);
  return pieces;
}
