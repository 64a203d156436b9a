import { insideArea, unionArea } from '../grid/index.ts';
import { FIGURE_RATIO, vehicleShare, type SpaceAsked } from '../scale/index.ts';
import { builtArea, builtRect } from './plotAreas.ts';
import { listOf, type Scene } from './scene.ts';

/** The rooms and yards of a display with what their plots leave for building, as the space budget asks for them. */
export function spacesOf(scene: Scene): SpaceAsked[] {
  return listOf(scene, 'space').map(({ id, w, d, wall, plot }) => {
    const given = plot === null ? undefined : scene.plot[plot];
    const area = given ? builtArea(given) : null;
    const room = area && insideArea(area, Math.max(0, Math.round(wall)));
    return { id, w, d, wall, plot: given ? builtRect(given) : null, room };
  });
}

/** The vehicles of a display against its ground and the figures. */
export function vehiclesOf(scene: Scene): ReturnType<typeof vehicleShare> {
  return vehicleShare(listOf(scene, 'vehicle'), unionArea(listOf(scene, 'footprint')), FIGURE_RATIO);
}
