import { intersection } from '@quarry/core/grid';
import type { Change, Opening, Place, Scene } from '@quarry/core/document';
import {
  distanceTo,
  currentContents,
  lengthOf,
  openingLine,
  sceneInRoom,
  sidesOf,
  type RoomPoint,
} from '@quarry/core/venue';

/** Where an opening comes to be when it is pushed by so many mm: along the wall that is nearest then, within its ends. */
export function slideOpening(
  walls: readonly RoomPoint[],
  opening: Pick<Opening, 'wall' | 'at' | 'width'>,
  by: RoomPoint,
): { wall: number; at: number } | null {
  const line = openingLine(walls, opening);
  if (!line) return null;
  const middle = { x: (line.a.x + line.b.x) / 2 + by.x, y: (line.a.y + line.b.y) / 2 + by.y };
  const sides = sidesOf(walls);
  const away = sides.map((one) => distanceTo(middle, one));
  const wall = away.indexOf(Math.min(...away));
  const side = sides[wall];
  if (!side) return null;
  const length = lengthOf(side);
  const along =
    ((middle.x - side.a.x) * (side.b.x - side.a.x) + (middle.y - side.a.y) * (side.b.y - side.a.y)) /
    (length || 1);
  const at = Math.max(0, Math.min(length - opening.width, along - opening.width / 2));
  return { wall, at: Math.round(at / 10) * 10 };
}

/** A tenth of a millimetre is as fine as a tape or a hand goes. */
export const fine = (value: number) => Math.round(value * 10) / 10;

/** The scene moved in its place by so many mm, with the tables it lies on or without them. */
export function sceneMoved(scene: Scene, place: Place, dx: number, dy: number, together: boolean): Change[] {
  const parts = sceneInRoom(scene);
  const tables = together
    ? currentContents(scene, 'table').filter((table) => parts.some((part) => intersection(part, table)))
    : [];
  return [
    {
      op: 'patch',
      kind: 'place',
      id: place.id,
      v: place.v,
      set: { sceneX: fine(place.sceneX + dx), sceneY: fine(place.sceneY + dy) },
    },
    ...tables.map(({ id, v, x, y }): Change => ({
      op: 'patch',
      kind: 'table',
      id,
      v,
      set: { x: fine(x + dx), y: fine(y + dy) },
    })),
  ];
}
