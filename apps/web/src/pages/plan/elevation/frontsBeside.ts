import { listOf, type Entity, type Scene, type Side } from '@quarry/core/document';
import { elevationOf, type Elevation } from '@quarry/core/structures';
import { standsOn, type Relief } from '@quarry/core/terrain';

/** A front stands in one row with another when its line is this near, studs, and it begins within so many studs of it. */
const IN_LINE = 6;
const NEAR = 96;

/** The fronts beside one on the same side: unturned buildings in its row, placed as they stand on the plan. @param relief null: not compiled yet, so that all stand at one height */
export function frontsBeside(
  scene: Scene,
  relief: Relief | null,
  plot: Entity<'plot'>,
  side: Side,
): { id: string; name: string; elevation: Elevation; right: number; up: number }[] {
  const lineOf = ({ x, y, w, d }: Entity<'plot'>) => ({ n: y, s: y + d, w: x, e: x + w })[side];
  const rightOf = (other: Entity<'plot'>) =>
    ({
      s: other.x - plot.x,
      n: plot.x + plot.w - other.x - other.w,
      w: other.y - plot.y,
      e: plot.y + plot.d - other.y - other.d,
    })[side];
  const footOf = (one: Entity<'plot'>) => (relief ? (standsOn(scene, relief, one) ?? 0) : 0);
  return listOf(scene, 'plot')
    .filter(
      (other) =>
        other.id !== plot.id &&
        other.turn === 0 &&
        Math.abs(lineOf(other) - lineOf(plot)) <= IN_LINE &&
        Math.abs(rightOf(other)) <= NEAR,
    )
    .map((other) => ({
      ...{ id: other.id, name: other.name, elevation: elevationOf(other, side) },
      ...{ right: rightOf(other), up: footOf(other) - footOf(plot) },
    }));
}

/** So many studs lie between a front and the same one in another version. */
const GAP = 4;

/**
 * The same front in another version, to the right of it on one ground.
 * @param length of the front itself, studs
 * @returns null where the building does not stand in it
 */
export function inVersion(
  scene: Scene,
  name: string,
  { id }: Pick<Entity<'plot'>, 'id'>,
  side: Side,
  length: number,
): ReturnType<typeof frontsBeside>[number] | null {
  const other = scene.plot[id];
  return other
    ? {
        id: `${id} in ${name}`,
        name: `${other.name}, ${name}`,
        elevation: elevationOf(other, side),
        right: length + GAP,
        up: 0,
      }
    : null;
}
