import {
  FIXED_GROUNDS,
  CUSTOM_GROUNDS,
  type FixedGround,
  type Ground,
  type GroundHatch,
} from './vocabulary.ts';
import type { Entity } from './schema.ts';
import type { Scene } from './scene.ts';

// Custom grounds: those that a display describes itself, beside those of every display.

export type CustomGround = Entity<'customGround'>;
type WithCustomGrounds = Pick<Scene, 'customGround'>;

export const isFixedGround = (ground: string): ground is FixedGround =>
  FIXED_GROUNDS.some((one) => one === ground);

/** The description of a ground; null for those of every display. */
export const customGroundOf = ({ customGround }: WithCustomGrounds, ground: string): CustomGround | null =>
  Object.hasOwn(customGround, ground) ? customGround[ground] : null;

/** The ground that one is judged as: itself, or what a custom ground is like. */
export function fixedGround(scene: WithCustomGrounds, ground: Ground): FixedGround {
  return isFixedGround(ground) ? ground : (customGroundOf(scene, ground)?.like ?? 'soil');
}

/** How a ground is called: “grass”, or the name of a custom one. */
export const groundName = (scene: WithCustomGrounds, ground: string): string =>
  customGroundOf(scene, ground)?.name ?? ground;

/** The grounds that a thing of a display may have: those of every display, then custom ones. */
export const groundsOf = (scene: WithCustomGrounds): Ground[] => [
  ...FIXED_GROUNDS,
  ...CUSTOM_GROUNDS.filter((id) => Object.hasOwn(scene.customGround, id)),
];

/** The id for a further custom ground; null where it has as many as it may. */
export const freeGroundId = ({ customGround }: WithCustomGrounds): Ground | null =>
  CUSTOM_GROUNDS.find((id) => !Object.hasOwn(customGround, id)) ?? null;

/** The layers that lie under ground of a height. @param height of its top, plates above the datum */
export const layersAt = ({ layers }: Pick<CustomGround, 'layers'>, height: number): CustomGround['layers'] =>
  layers.filter(({ upTo }) => upTo === null || height <= upTo);

/** How thick all layers of a ground are together, plates. */
export const layersThick = ({ layers }: Pick<CustomGround, 'layers'>): number =>
  layers.reduce((sum, { plates }) => sum + plates, 0);

const FIXED_HATCHES: Readonly<Record<FixedGround, GroundHatch>> = {
  grass: 'ticks',
  rock: 'chevrons',
  soil: 'strokes',
  sand: 'grains',
  paving: 'bricks',
  road: 'dashes',
  ballast: 'stones',
  water: 'waves',
};

/** The hatch by which a ground is told apart on plans and in prints. */
export const hatchOfGround = (scene: WithCustomGrounds, ground: Ground): GroundHatch =>
  isFixedGround(ground) ? FIXED_HATCHES[ground] : (customGroundOf(scene, ground)?.hatch ?? 'crosses');
