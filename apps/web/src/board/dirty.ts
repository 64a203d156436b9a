import { dequal } from 'dequal/lite';
import { intersection, type Rect } from '@quarry/core/grid';
import { mergeOverlapping } from '@quarry/core/terrain';
import {
  deltaOf,
  isPlanKind,
  influenceBounds,
  type Entity,
  type Kind,
  type Scene,
} from '@quarry/core/document';
import type { EvaluatedFinding } from '@quarry/core/findings';
import type { GroundArt } from './groundArt.ts';
import type { Picture } from './ink.ts';
import { rectToScreen, toScreen } from './viewport.ts';

/** What these change is drawn far from them too: names, cables. */
const FAR_REACHING: ReadonlySet<Kind> = new Set<Kind>(['module', 'section', 'device', 'supply']);

/** Marks may stand this far beyond the thing they belong to, px; labels are drawn apart. */
const BEYOND = 28;
/** How far a mark reaches about its place, px. */
const MARK = 34;
/** Changed parts that together are larger than this share of the sheet are not worth their edges. */
const MOST = 0.5;

/**
 * The parts of the screen on which two pictures of the same view can differ; null: everywhere. What is drawn
 * differently is found from what is shown, so that a change in a corner of a large plan costs a corner's drawing.
 */
export function dirtyParts(before: Picture, after: Picture): Rect<'px'>[] | null {
  const same =
    before.palette === after.palette &&
    before.hidden === after.hidden &&
    dequal(before.level, after.level) &&
    dequal(before.cut, after.cut) &&
    before.images === after.images &&
    before.metric === after.metric &&
    before.width === after.width &&
    before.height === after.height;
  if (!same) return null;
  const things = thingParts(before.scene, after.scene, after);
  const ground = groundParts(before.art, after.art, after);
  if (!things || !ground) return null;
  const parts = mergeOverlapping([
    ...things,
    ...ground,
    ...findingParts(before.findings, after.findings, after),
  ]);
  const area = parts.reduce((sum, { w, d }) => sum + w * d, 0);
  return area > MOST * after.width * after.height ? null : parts;
}

const grown = ({ x, y, w, d }: Rect<'px'>, by: number, side = by): Rect<'px'> => ({
  x: x - side,
  y: y - by,
  w: w + 2 * side,
  d: d + 2 * by,
});

function thingParts(before: Scene, after: Scene, { view }: Picture): Rect<'px'>[] | null {
  if (before === after) return [];
  const parts: Rect<'px'>[] = [];
  for (const { kind, id, entity } of deltaOf(before, after)) {
    // What has no place of its own may be written anywhere: levels, the display, furniture of the room.
    if (kind === 'acceptance') continue;
    if (!isPlanKind(kind) || FAR_REACHING.has(kind)) return null;
    const old: Entity<Kind> | undefined = before[kind][id];
    for (const one of [old, entity]) {
      const spread = one && influenceBounds(kind, one);
      if (spread) parts.push(grown(rectToScreen(view, spread), BEYOND));
    }
  }
  return parts;
}

function groundParts(
  before: GroundArt | null,
  after: GroundArt | null,
  { view, scene }: Picture,
): Rect<'px'>[] | null {
  if (before === after) return [];
  if (
    !before ||
    !after ||
    before.palette !== after.palette ||
    before.own !== after.own ||
    before.tiles.length !== after.tiles.length
  )
    return null;
  const known = new Set(before.tiles);
  const tiles = after.tiles.filter((tile) => !known.has(tile));
  // Heights of contours are written on the line, half beyond the tile at most.
  const parts = tiles.map((tile) => grown(rectToScreen(view, tile), 12));
  // A section's spot height is that of its highest ground, wherever that is.
  for (const section of Object.values(scene.section))
    if (tiles.some((tile) => intersection(tile, section)))
      parts.push(grown(rectToScreen(view, section), BEYOND));
  return parts;
}

function findingParts(
  before: readonly EvaluatedFinding[],
  after: readonly EvaluatedFinding[],
  { view }: Picture,
): Rect<'px'>[] {
  if (before === after) return [];
  const keyOf = ({ key, place, accepted }: EvaluatedFinding) =>
    `${key} ${place?.x} ${place?.y} ${accepted === null}`;
  const [old, fresh] = [new Set(before.map(keyOf)), new Set(after.map(keyOf))];
  return [...before, ...after].flatMap((finding) => {
    if (!finding.place || (old.has(keyOf(finding)) && fresh.has(keyOf(finding)))) return [];
    const { x, y } = toScreen(view, finding.place.x, finding.place.y);
    return [{ x: x - MARK, y: y - MARK, w: 2 * MARK, d: 2 * MARK }];
  });
}
