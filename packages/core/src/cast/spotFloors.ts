import {
  builtCorners,
  listOf,
  storeyLevels,
  wallTop,
  type Entity,
  type Scene,
  type SceneSpot,
} from '../document/index.ts';
import { footAt, isInOutline, standsOn, type SurfaceRaster } from '../terrain/index.ts';

/** A floor of a building in which a spot lies. */
export interface SpotFloor {
  /** “Mill house, storey 2”. */
  name: string;
  /** Plates above what the small scene stands on there, as a spot has it. */
  up: number;
}

/**
 * The floors on which one may stand at a spot: those of the buildings that it lies in, and their flat roofs, from the lowest
 * up. One stands on a floor's plates.
 * @returns none where it lies in no building
 */
export function spotFloors(
  scene: Scene,
  relief: SurfaceRaster,
  figure: Entity<'figure'>,
  { dx, dy }: Pick<SceneSpot, 'dx' | 'dy'>,
): SpotFloor[] {
  const at = { x: figure.x + dx, y: figure.y + dy };
  const foot = footAt(scene, relief, figure, at);
  return listOf(scene, 'plot')
    .flatMap((plot): SpotFloor[] => {
      const stands = isInOutline(builtCorners(plot), at) ? standsOn(scene, relief, plot) : null;
      if (stands === null) return [];
      const floors = storeyLevels(plot).map((level, i) => ({ name: `${plot.name}, storey ${i + 1}`, level }));
      const roof = plot.eaves === null ? [{ name: `${plot.name}, roof`, level: wallTop(plot) }] : [];
      return [...floors, ...roof].map(({ name, level }) => ({ name, up: stands + level + 1 - foot }));
    })
    .filter(({ up }) => up >= 0)
    .toSorted((a, b) => a.up - b.up);
}
