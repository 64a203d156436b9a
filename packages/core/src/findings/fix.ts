import type { CoordinateFrame, Rect } from '../grid/index.ts';
import {
  entityOf,
  labelOf,
  moveAll,
  type Change,
  type Entity,
  type EntityRef,
  type Kind,
  type Scene,
} from '../document/index.ts';
import type { Finding } from './finding.ts';

// What remedies are made of.

/** One way to do away with a finding. */
export interface Fix {
  /** What it does, as an imperative. */
  words: string;
  changes: Change[];
}

/** A finding that a fix may be looked for: what a rule may read of it. */
export type Case = Pick<Finding, 'things' | 'numbers'>;
/** The fixes of a finding that are worth trying, in that order. */
export type FixesOf = (scene: Scene, finding: Case) => Fix[];

export const patch = (
  kind: Kind,
  { id, v }: { id: string; v: number },
  set: Record<string, unknown>,
): Change => ({
  op: 'patch',
  kind,
  id,
  v,
  set,
});

/** The first thing of a kind that a finding names. */
export function namedThing<K extends Kind>(
  scene: Scene,
  { things }: Case,
  kind: K,
  nth = 0,
): Entity<K> | null {
  const ref = things.filter((thing) => thing.kind === kind).at(nth);
  return ref ? (entityOf(scene, kind, ref.id) ?? null) : null;
}

export const COMPASS = { west: [-1, 0], east: [1, 0], north: [0, -1], south: [0, 1] } as const;
type CompassWay = keyof typeof COMPASS;
export const COMPASS_WAYS: readonly CompassWay[] = ['west', 'east', 'north', 'south'];

/** Moves a thing, worded. */
export const moveFix = (scene: Scene, ref: EntityRef, by: number, way: CompassWay): Fix => ({
  words: `Move ${labelOf(scene, ref.kind, ref.id)} ${by} ${by === 1 ? 'stud' : 'studs'} ${way}`,
  changes: moveAll(scene, [ref], by * COMPASS[way][0], by * COMPASS[way][1]),
});

/** Moves of a thing by each of some steps, studs, to all four sides. */
export const moveFixes = (scene: Scene, ref: EntityRef, steps: readonly number[]): Fix[] =>
  steps.flatMap((by) => COMPASS_WAYS.map((way) => moveFix(scene, ref, by, way)));

/** Quarter turns of a building. */
export const turnFixes = (plot: Entity<'plot'>): Fix[] =>
  [90, 180, 270].map((by) => ({
    words: `Turn ${plot.name} by ${by}°`,
    changes: [patch('plot', plot, { turn: (plot.turn + by) % 360 })],
  }));

/** Ways to bring two rectangles apart by moving the second, the shortest first. @param step multiples it moves by */
export function apart<F extends CoordinateFrame = 'studs'>(
  fixed: Rect<F>,
  loose: Rect<F>,
  step: number,
): { by: number; way: CompassWay }[] {
  const up = (by: number) => Math.ceil(by / step) * step;
  return [
    { by: up(loose.x + loose.w - fixed.x), way: 'west' as const },
    { by: up(fixed.x + fixed.w - loose.x), way: 'east' as const },
    { by: up(loose.y + loose.d - fixed.y), way: 'north' as const },
    { by: up(fixed.y + fixed.d - loose.y), way: 'south' as const },
  ]
    .filter(({ by }) => by > 0)
    .sort((a, b) => a.by - b.by);
}
