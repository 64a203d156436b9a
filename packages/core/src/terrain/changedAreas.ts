import { boundsOf, intersection, type CoordinateFrame, type Rect } from '../grid/index.ts';
import {
  CUSTOM_GROUNDS,
  fixedGround,
  influenceBounds,
  kindsOfRelief,
  type Entity,
  type Ground,
  type Kind,
  type Scene,
} from '../document/index.ts';

// Which parts of a relief a change of the scene can touch.

/** Areas in studs, by the stage of the relief they change first. */
export interface Changed {
  land: Rect[];
  ways: Rect[];
  tops: Rect[];
}

/** How far a thing lays or stands, studs; null when it is not there. */
export function influenceOf(scene: Scene, kind: Kind, id: string): Rect | null {
  const entity: Entity<Kind> | undefined = scene[kind][id];
  return entity ? influenceBounds(kind, entity) : null;
}

/** What changed from one scene to the next; null when the footprint did, or what is water, so that nothing stays. */
export function changedAreas(before: Scene, after: Scene): Changed | null {
  if (before.footprint !== after.footprint) return null;
  // Banks end at water: where another ground is judged as that, any of them may end elsewhere.
  const isWater = (scene: Scene, id: Ground) => fixedGround(scene, id) === 'water';
  if (CUSTOM_GROUNDS.some((id) => isWater(before, id) !== isWater(after, id))) return null;
  const moved = new Set(
    before.level === after.level
      ? []
      : Object.keys({ ...before.level, ...after.level }).filter(
          (id) => before.level[id]?.height !== after.level[id]?.height,
        ),
  );
  const touched = (kind: Kind): Rect[] => {
    const [old, fresh]: Readonly<Record<string, Entity<Kind>>>[] = [before[kind], after[kind]];
    if (old === fresh && moved.size === 0) return [];
    const ids = Object.keys(old === fresh ? fresh : { ...old, ...fresh });
    return ids.flatMap((id) =>
      old[id] === fresh[id] && !onLevel(fresh[id], moved)
        ? []
        : [influenceOf(before, kind, id), influenceOf(after, kind, id)].filter((rect) => rect !== null),
    );
  };
  const tops = kindsOfRelief('top').flatMap(touched);
  // Members that keep off seams or are so many to a base move with the modules.
  if (before.module !== after.module)
    for (const { id, keepOff, spacing } of Object.values(after.repeat)) {
      const reach = keepOff > 0 || spacing === 'base' ? influenceOf(after, 'repeat', id) : null;
      if (reach) tops.push(reach);
    }
  return { land: kindsOfRelief('land').flatMap(touched), ways: kindsOfRelief('way').flatMap(touched), tops };
}

const onLevel = (thing: Entity<Kind> | undefined, levels: ReadonlySet<string>): boolean =>
  thing !== undefined && 'level' in thing && typeof thing.level === 'string' && levels.has(thing.level);

/** Rectangles that overlap as one, until none do: no stud is laid twice. */
export function mergeOverlapping<F extends CoordinateFrame = 'studs'>(rects: readonly Rect<F>[]): Rect<F>[] {
  const apart: Rect<F>[] = [];
  for (const rect of rects) {
    let whole = rect;
    for (let i = 0; i < apart.length;)
      if (intersection(apart[i], whole)) {
        whole = boundsOf([apart[i], whole]);
        apart.splice(i, 1);
        i = 0;
      } else i++;
    apart.push(whole);
  }
  return apart;
}
