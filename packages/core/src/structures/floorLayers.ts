import { contains, intersection, isInArea, type Rect } from '../grid/index.ts';
import { builtArea, builtSides, roomArea, wallStuds } from '../document/index.ts';
import { ringRoofOf, slopedRoofOf } from '../terrain/index.ts';
import { layFloor, pillarsBeside, pillarsIn, pillarsUnder, type PillarSpot } from './floors.ts';
import { openingsOf, type Fronted, type WallOpening } from './fronts.ts';
import type { LaidPiece } from './piece.ts';
import { layMask } from './round.ts';
import { jumpersUnder } from './jumpers.ts';
import { stairHoles, type StairHole } from './stairs.ts';
import { storeysOf, type Storey } from './storeys.ts';
import { fillOf } from './walls.ts';

// The storeys of a building as layers: the plates of each floor, open over stairs, and the pillars that carry the next.

export interface FloorLayer {
  storey: Storey;
  /** Plates of its floor; none where it has no floor. */
  plates: LaidPiece[];
  /** On its floor, under what stands on half studs. */
  jumpers: LaidPiece[];
  /** Where its floor is open over the stair below. */
  holes: StairHole[];
  /** The pillars in it, studs from the north-west corner of what is built. */
  pillars: readonly PillarSpot[];
  /** What is let into its walls by their bays, and what fills that. */
  openings: WallOpening[];
  fills: LaidPiece[];
}

/** The storeys of a building from the ground up. */
export function floorLayers(plot: Fronted): FloorLayer[] {
  const { w, d } = builtSides(plot);
  // A building is no thinner than its walls.
  const thick = Math.min(wallStuds(plot), w, d);
  const openings = openingsOf(plot);
  const fillsOf = (these: readonly WallOpening[]) => these.flatMap((one) => fillOf(one, { w, d, thick }));
  const taken = fillsOf(openings);
  const area = builtArea(plot);
  const room = roomArea(plot);
  const layWhole = (z: number): LaidPiece[] =>
    area ? layMask(area, z, 'floor') : layFloor({ x: 0, y: 0, w, d }, z, 'floor');
  const spots = room ? pillarsIn(room, layWhole(0), taken) : pillarsUnder(w, d, thick, taken);
  const inside = { x: thick, y: thick, w: w - 2 * thick, d: d - 2 * thick };
  const isInRoom = (rect: Rect) => contains(inside, rect) && (room === null || isInArea(room, rect));
  const holes = stairHoles(plot).flatMap((hole) => {
    // A stair that stands in a round wall opens no floor: that wall goes on above.
    const open = intersection(hole, inside);
    return open && isInRoom(open) ? [{ ...hole, ...open }] : [];
  });
  const storeys = storeysOf(plot);
  const rings = ringRoofOf(plot);
  const sloped = slopedRoofOf(plot);
  const isOpenAbove = rings ? !rings.hasFloor : sloped !== null && sloped.courses > 0;
  return storeys.map((storey, i) => {
    const own = openings.filter(({ foot }) => foot >= storey.from && foot < storey.to);
    const above = holes.filter((hole) => hole.storey === i + 1);
    const cut = holes.filter((hole) => hole.storey === i);
    // Pillars stand under no hole and in none. Nothing flat lies over the last storey under a roof that is open inside.
    const isOpen = i === storeys.length - 1 && isOpenAbove;
    const pillars = isOpen
      ? []
      : above.length + cut.length === 0
        ? spots
        : pillarsBeside({
            plates: openOver(layWhole(0), above).filter(isInRoom),
            spots: spots.filter(
              (spot) =>
                !above.some((hole) => contains(hole, spot)) && !cut.some((hole) => intersection(hole, spot)),
            ),
            isInRoom,
            taken: [...taken, ...cut, ...above.map(({ stair }) => stair)],
          });
    const blocked: Rect[] = [...pillars, ...cut, ...taken];
    const jumpers = plot.fittings.flatMap(({ place, on }) => {
      if (!place || on !== storey.level || !storey.hasFloor) return [];
      const thing = { ...place, x: place.x + thick, y: place.y + thick };
      const laid = jumpersUnder(
        thing,
        storey.from,
        (rect) => isInRoom(rect) && !blocked.some((one) => intersection(one, rect)),
      );
      blocked.push(...laid);
      return laid;
    });
    return {
      ...{ storey, jumpers, holes: cut, pillars, openings: own, fills: fillsOf(own) },
      plates: storey.hasFloor ? openOver(layWhole(storey.level), cut) : [],
    };
  });
}

/** Plates with holes cut out: those that reach into one are laid again beside it. */
function openOver(plates: readonly LaidPiece[], holes: readonly Rect[]): LaidPiece[] {
  let laid = [...plates];
  for (const hole of holes)
    laid = laid.flatMap((plate) => {
      const open = intersection(plate, hole);
      return open ? besides(plate, open).flatMap((rest) => layFloor(rest, plate.z, plate.use)) : [plate];
    });
  return laid;
}

/** What is left of a rectangle without a part of it: whole rows to the north and south, and what is beside it. */
function besides(whole: Rect, part: Rect): Rect[] {
  const { x, y, w, d } = whole;
  const [east, south] = [part.x + part.w, part.y + part.d];
  return [
    { x, y, w, d: part.y - y },
    { x, y: part.y, w: part.x - x, d: part.d },
    { x: east, y: part.y, w: x + w - east, d: part.d },
    { x, y: south, w, d: y + d - south },
  ].filter((rest) => rest.w > 0 && rest.d > 0);
}
