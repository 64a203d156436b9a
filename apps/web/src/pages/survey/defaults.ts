import { MM_PER_STUD } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import { displayOf, listOf, type Change, type Scene } from '@quarry/core/document';
import { VENUE_KINDS, currentPlace, sceneInRoom } from '@quarry/core/venue';

/** Floor left round the scene in a new room, mm. */
const ROUND = 1500;

/** A room's corners from its size. */
export const rectangle = (w: number, d: number) => [
  { x: 0, y: 0 },
  { x: w, y: 0 },
  { x: w, y: d },
  { x: 0, y: d },
];

/**
 * A new place with a room round the scene. The first one takes in the tables, obstacles and passages of no place,
 * moved so that the room's corner is its origin; later ones begin with copies of no furniture.
 */
export function firstPlace(scene: Scene, id: string): Change[] {
  const bounds = footprintBounds(scene) ?? { x: 0, y: 0, w: 96, d: 48 };
  const first = listOf(scene, 'place').length === 0;
  const loose = VENUE_KINDS.flatMap((kind) =>
    listOf(scene, kind)
      .filter(({ place }) => place === null)
      .map((thing) => ({ kind, thing })),
  );
  const tables = first ? listOf(scene, 'table').filter(({ place }) => place === null) : [];
  const west = Math.min(bounds.x * MM_PER_STUD, ...tables.map(({ x }) => x));
  const north = Math.min(bounds.y * MM_PER_STUD, ...tables.map(({ y }) => y));
  const east = Math.max((bounds.x + bounds.w) * MM_PER_STUD, ...tables.map(({ x, w }) => x + w));
  const south = Math.max((bounds.y + bounds.d) * MM_PER_STUD, ...tables.map(({ y, d }) => y + d));
  const up = (value: number) => Math.ceil(value / 100) * 100;
  const shift = { x: Math.round(ROUND - west), y: Math.round(ROUND - north) };
  const display = displayOf(scene);
  return [
    {
      op: 'add',
      kind: 'place',
      id,
      data: {
        name: first ? 'Home' : `Place ${listOf(scene, 'place').length + 1}`,
        walls: rectangle(up(east - west + 2 * ROUND), up(south - north + 2 * ROUND)),
        sceneX: shift.x,
        sceneY: shift.y,
      },
    },
    ...(first
      ? loose.map(({ kind, thing }): Change => ({
          op: 'patch',
          kind,
          id: thing.id,
          v: thing.v,
          set: {
            place: id,
            ...('x' in thing ? { x: thing.x + shift.x, y: thing.y + shift.y } : {}),
            ...('x1' in thing
              ? {
                  x1: thing.x1 + shift.x,
                  y1: thing.y1 + shift.y,
                  x2: thing.x2 + shift.x,
                  y2: thing.y2 + shift.y,
                }
              : {}),
          },
        }))
      : []),
    ...(first
      ? [{ op: 'patch' as const, kind: 'display' as const, id: display.id, v: display.v, set: { place: id } }]
      : []),
  ];
}

/** The middle of the room, or of the scene where no walls are known: where new things appear, mm. */
export function middleOf(scene: Scene): { x: number; y: number } {
  const walls = currentPlace(scene)?.walls ?? [];
  const points =
    walls.length > 2 ? walls : sceneInRoom(scene).map(({ x, y, w, d }) => ({ x: x + w / 2, y: y + d / 2 }));
  if (points.length === 0) return { x: 0, y: 0 };
  const mean = (values: number[]) => Math.round(values.reduce((a, b) => a + b, 0) / values.length / 10) * 10;
  return { x: mean(points.map(({ x }) => x)), y: mean(points.map(({ y }) => y)) };
}
