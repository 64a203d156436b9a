import type { CountCache, SceneCount } from '../masonry/index.ts';
import type { Compiled } from '../terrain/index.ts';
import type { Scene } from '../document/index.ts';
import { demandsOf, needsOf, type Need } from './needs.ts';
import { netNeeds, type Netting } from './net.ts';
import { suppliesOf, type Supply } from './supply.ts';

/** What a scene needs and what there is of it: the one chain from counted ground to what is short. */
export interface MaterialsCount extends Netting {
  count: SceneCount;
  needs: Need[];
  supplies: Supply[];
}

/**
 * Counts a scene's ground, adds what stands on the plan and what is listed, and nets it against stock and orders.
 * @param book keeps the counts of blocks that did not change
 * @param onBlock receives progress (blocks done, blocks in all); returning false ends the count
 * @returns null when it was ended
 */
export function materialsOf(
  scene: Scene,
  compiled: Compiled,
  book: CountCache,
  onBlock?: (done: number, of: number) => boolean,
): MaterialsCount | null {
  const count = book.count(scene, compiled, onBlock);
  if (!count) return null;
  const lines = count.blocks.flatMap(({ block, lines: own }) =>
    own.map((line) => ({ ...line, block: block.name })),
  );
  const needs = needsOf(scene, lines);
  const supplies = suppliesOf(scene);
  return { count, needs, supplies, ...netNeeds(scene, demandsOf(scene, needs), supplies) };
}
