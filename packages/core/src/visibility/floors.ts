import { MM_PER_PLATE } from '../grid/index.ts';
import { builtCorners, roomCorners, storeyLevels, type Plot, type Scene } from '../document/index.ts';
import { OUTSIDE, eachStudOf, levelHeight, type Relief } from '../terrain/index.ts';
import { insideRoom } from '../venue/index.ts';
import { inFrame } from './field.ts';
import type { Eye } from './seen.ts';
import type { Floor } from './targets.ts';

// Floors that one sees into: those of buildings with what is over them taken off, those of tunnels, caves and cellars.

/** So many points of a floor are looked at, at most. */
const MAX_POINTS = { room: 96, cavity: 400 } as const;

/** Of many points so few, scattered evenly over them: those whose turns of the golden ratio are least. */
export function thinned<T>(points: readonly T[], most: number): T[] {
  if (points.length <= most) return [...points];
  const share = most / points.length;
  return points.filter((_, k) => (k * 0.618_033_988_75) % 1 < share);
}

/** The middle of a stud in the frame of lines of sight. @param z mm over the table */
const middleOf = (relief: Relief, column: number, row: number, z: number): Eye =>
  inFrame(relief, { x: column + 0.5, y: row + 0.5 }, z);

/**
 * The floors of a building from the top down, each with all that is over it taken off: its own walls stand round it to
 * the height of that storey. Furniture hides nothing.
 * @param ground what it stands on, plates @param own the studs on which it is uppermost
 * @returns none where it has no room inside its walls
 */
export function roomFloors(relief: Relief, plot: Plot, ground: number, own: readonly number[]): Floor[] {
  const [room, walls] = [roomCorners(plot), builtCorners(plot)];
  if (room.length < 3) return [];
  const studs = own.map((i) => {
    const [column, row] = [relief.x + (i % relief.w), relief.y + Math.trunc(i / relief.w)];
    const middle = { x: column + 0.5, y: row + 0.5 };
    return { i, column, row, isRoom: insideRoom(room, middle), isWall: insideRoom(walls, middle) };
  });
  const levels = storeyLevels(plot);
  const heightOf = (plates: number) => (ground + plates) * MM_PER_PLATE;
  return levels
    .map((level, storey): Floor => {
      const [floor, top] = [
        heightOf(level),
        heightOf(levels[storey + 1] ?? Math.round(plot.eaves ?? plot.height)),
      ];
      return {
        name: levels.length === 1 ? 'floor' : storey === 0 ? 'ground floor' : `floor ${storey + 1}`,
        points: thinned(
          studs.filter(({ isRoom }) => isRoom),
          MAX_POINTS.room,
        ).map(({ column, row }) => middleOf(relief, column, row, floor)),
        lowered: studs.map(({ i, isRoom, isWall }) => ({
          i,
          height: isRoom ? floor : isWall ? top : heightOf(0),
        })),
      };
    })
    .filter(({ points }) => points.length > 0)
    .toReversed();
}

/** The floor of a cavity where something is over it; null where it is open to the sky, or is not there. */
export function cavityFloor(scene: Scene, relief: Relief, id: string): Floor | null {
  const cavity = scene.cavity[id];
  const slab = relief.slabs.find((one) => one.kind === 'cavity' && one.id === id);
  if (!cavity || !slab) return null;
  const z = levelHeight(scene, cavity) * MM_PER_PLATE;
  const points: Eye[] = [];
  eachStudOf(slab, (_, x, y) => {
    const i = (y - relief.y) * relief.w + x - relief.x;
    if (relief.ground[i] !== OUTSIDE) points.push(middleOf(relief, x, y, z));
  });
  return points.length === 0
    ? null
    : { name: cavity.name, points: thinned(points, MAX_POINTS.cavity), lowered: [] };
}
