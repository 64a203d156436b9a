import { listOf, type Scene } from '../document/index.ts';
import type { Relief } from '../terrain/index.ts';
import { lampsOf } from '../power/index.ts';
import { Lookout, publicEyes, type Watcher } from '../visibility/index.ts';

// How small scenes are seen, and how far light is from them.

/** What visitors see of a small scene. */
export interface SceneSeen {
  id: string;
  /** As on Sight; null: it is not said who looks. */
  free: Record<Watcher, number | null> | null;
  /** What hides most of it; null: nothing. */
  hider: string | null;
  /** From its middle to the nearest lamp whose circuit is fed, studs; null: none is. */
  lamp: number | null;
}

/** How each small scene is seen, by id; its cost grows with eyes × scenes. */
export function scenesSeen(scene: Scene, relief: Relief): SceneSeen[] {
  const eyes = publicEyes(scene, relief);
  const lookout = eyes && new Lookout(scene, relief, eyes);
  const lamps = lampsOf(scene, relief).filter(({ isLit }) => isLit);
  return listOf(scene, 'figure').map(({ id, x, y }) => {
    const seen = lookout?.look('figure', id);
    const away = lamps.map((lamp) => Math.hypot(lamp.x + relief.x - x, lamp.y + relief.y - y));
    return {
      ...{ id, free: seen?.free ?? null, hider: seen?.hiders[0]?.name ?? null },
      lamp: away.length > 0 ? Math.min(...away) : null,
    };
  });
}
