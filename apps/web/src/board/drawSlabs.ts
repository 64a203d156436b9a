import type { Rect } from '@quarry/core/grid';
import { GROUNDS, listOf, type Ground, type Scene, type StandFields } from '@quarry/core/document';
import {
  ARCH,
  NO_SLAB,
  cornersOfOutline,
  eachStripStud,
  eachStudOf,
  heightOfStud,
  laidOn,
  laidStrips,
  shapesOf,
  wholePlates,
  type Relief,
  type Slab,
} from '@quarry/core/terrain';
import { inStuds, visible, type Picture } from './ink.ts';
import { HATCH_SCALE, groundTint, hatchOf, type Palette } from './palette.ts';

type Ctx = CanvasRenderingContext2D;

/** A slab as paths in studs: what covers it, its rim, and what carries it. */
interface SlabPaths {
  covers: ReadonlyMap<number, Path2D>;
  rim: Path2D;
  pillars: Path2D;
}

/** Slabs are made again when something about them changes, never written to. */
const paths = new WeakMap<Slab, SlabPaths>();

function pathsOf(slab: Slab): SlabPaths {
  const known = paths.get(slab);
  if (known) return known;
  const covers = new Map<number, Path2D>();
  const [rim, pillars] = [new Path2D(), new Path2D()];
  const isOn = (x: number, y: number) =>
    x >= 0 && y >= 0 && x < slab.w && y < slab.d && slab.top[y * slab.w + x] !== NO_SLAB;
  eachStudOf(slab, (k, x, y) => {
    const number = slab.ground[k] ?? 0;
    const path = covers.get(number) ?? new Path2D();
    covers.set(number, path);
    path.rect(x, y, 1, 1);
    if (slab.arch[k] !== ARCH.none) pillars.rect(x + 0.4, y + 0.4, 0.2, 0.2);
    else if (slab.foot[k] !== NO_SLAB) pillars.rect(x + 0.1, y + 0.1, 0.8, 0.8);
    const [column, row] = [x - slab.x, y - slab.y];
    const side = (open: boolean, x1: number, y1: number, x2: number, y2: number) => {
      if (!open) return;
      rim.moveTo(x1, y1);
      rim.lineTo(x2, y2);
    };
    side(!isOn(column, row - 1), x, y, x + 1, y);
    side(!isOn(column, row + 1), x, y + 1, x + 1, y + 1);
    side(!isOn(column - 1, row), x, y, x, y + 1);
    side(!isOn(column + 1, row), x + 1, y, x + 1, y + 1);
  });
  const made = { covers, rim, pillars };
  paths.set(slab, made);
  return made;
}

/** Hatches are drawn once for each palette and description of custom grounds. */
const hatches = new WeakMap<
  Palette,
  { own: Scene['customGround']; patterns: Map<Ground, CanvasPattern | null> }
>();

/** Fills a path in studs with a ground's hatch, which keeps its size on the screen. */
function fillHatch(ctx: Ctx, { palette, scene, view }: Picture, ground: Ground, path: Path2D): void {
  let known = hatches.get(palette);
  if (known?.own !== scene.customGround) {
    known = { own: scene.customGround, patterns: new Map() };
    hatches.set(palette, known);
  }
  const pattern = known.patterns.get(ground) ?? hatchOf(ground, scene, palette);
  known.patterns.set(ground, pattern);
  if (!pattern) return;
  pattern.setTransform(new DOMMatrix().scale(HATCH_SCALE / view.scale));
  ctx.fillStyle = pattern;
  ctx.fill(path);
}

/** From this scale on, px a stud, pillars under a deck show. */
const PILLARS_FROM = 2.5;

/** Decks and bridges over the ground: what covers them, their rims, and dotted what carries them, arches as points. */
export function drawDecks(ctx: Ctx, picture: Picture): void {
  const { art, level, view, palette } = picture;
  const isHidden = level?.kind === 'ground' || level?.kind === 'cavity';
  for (const slab of art?.relief.slabs ?? []) {
    if (slab.kind === 'cavity' || !visible(picture, slab)) continue;
    const { covers, rim, pillars } = pathsOf(slab);
    inStuds(ctx, picture, () => {
      if (!isHidden)
        for (const [number, path] of covers) {
          const ground = GROUNDS[number];
          if (!ground) continue;
          ctx.fillStyle = palette.sheet;
          ctx.fill(path);
          ctx.fillStyle = groundTint(palette, picture.scene, ground) ?? palette.tints[1];
          ctx.fill(path);
          fillHatch(ctx, picture, ground, path);
        }
      ctx.strokeStyle = palette.ink;
      if (view.scale >= PILLARS_FROM) {
        ctx.lineWidth = 0.7 / view.scale;
        ctx.setLineDash([2 / view.scale, 2 / view.scale]);
        ctx.stroke(pillars);
      }
      ctx.setLineDash(isHidden ? [6 / view.scale, 4 / view.scale] : []);
      ctx.lineWidth = 1.8 / view.scale;
      ctx.stroke(rim);
      ctx.setLineDash([]);
    });
  }
}

/** Cavities, which lie under what one sees: a dashed border with ticks inwards; laid open when their level is shown. */
export function drawCavities(ctx: Ctx, picture: Picture): void {
  const { scene, view, palette, level } = picture;
  for (const cavity of listOf(scene, 'cavity')) {
    if (!visible(picture, cavity)) continue;
    const shape = shapePath(cavity);
    inStuds(ctx, picture, () => {
      if (level?.kind === 'cavity' && level.id === cavity.id) {
        ctx.fillStyle = palette.sheet;
        ctx.fill(shape);
        ctx.fillStyle = groundTint(palette, scene, cavity.ground) ?? palette.tints[0];
        ctx.fill(shape);
        fillHatch(ctx, picture, cavity.ground, shape);
      }
      ctx.strokeStyle = palette.ink;
      ctx.lineWidth = 1.4 / view.scale;
      ctx.setLineDash([3 / view.scale, 3 / view.scale]);
      ctx.stroke(shape);
      ctx.setLineDash([]);
    });
  }
}

/** Fades everything but the deck or cavity whose level is shown. */
export function drawFade(ctx: Ctx, picture: Picture): void {
  const { scene, level, palette, width, height } = picture;
  const shown = level && level.kind !== 'ground' ? scene[level.kind][level.id] : undefined;
  if (!shown) return;
  const whole = new Path2D();
  whole.rect(0, 0, width, height);
  const { view } = picture;
  whole.addPath(shapePath(shown), new DOMMatrix([view.scale, 0, 0, view.scale, view.x, view.y]));
  ctx.save();
  ctx.globalAlpha = 0.6;
  ctx.fillStyle = palette.paper;
  ctx.fill(whole, 'evenodd');
  ctx.restore();
}

/** An area of the plan as a path in studs. */
export function shapePath(area: Rect & Pick<Scene['deck'][string], 'shape' | 'outline'>): Path2D {
  const path = new Path2D();
  const { x, y, w, d, shape } = area;
  if (shape === 'oval') path.ellipse(x + w / 2, y + d / 2, w / 2, d / 2, 0, 0, 2 * Math.PI);
  else if (shape === 'outline' && area.outline.length > 2) {
    cornersOfOutline(area).forEach((corner, i) =>
      i === 0 ? path.moveTo(corner.x, corner.y) : path.lineTo(corner.x, corner.y),
    );
    path.closePath();
  } else path.rect(x, y, w, d);
  return path;
}

/** Things that name what they stand on, less those that the level shown leaves out: what is in a cavity is not seen from above. */
export const ofLevel = <T extends StandFields>({ level }: Picture, things: readonly T[]): readonly T[] =>
  things.filter(({ onGround, onDeck, inCavity }) => {
    if (level === null) return inCavity === null;
    if (level.kind === 'ground') return onDeck === null && inCavity === null;
    return level.kind === 'deck' ? !onGround && inCavity === null : inCavity === level.id;
  });

/** Studs at which a way or track runs under the ground, by its kind and id; worked out once for each relief. */
const tunnels = new WeakMap<Relief, ReadonlyMap<string, Path2D>>();

function tunnelsOf(scene: Scene, relief: Relief): ReadonlyMap<string, Path2D> {
  const known = tunnels.get(relief);
  if (known) return known;
  const found = new Map<string, Path2D>();
  tunnels.set(relief, found);
  if (!relief.slabs.some(({ kind }) => kind === 'cavity')) return found;
  const shapes = shapesOf(scene, relief);
  for (const strip of laidStrips(scene, relief)) {
    const path = new Path2D();
    let any = false;
    eachStripStud(strip.points, strip.width / 2, relief, (x, y, along) => {
      const ground = heightOfStud(relief, x, y);
      if (ground === null) return;
      if (laidOn(shapes, strip, x, y, wholePlates(strip.heightAt(along)), ground).on !== 'cavity') return;
      path.rect(x, y, 1, 1);
      any = true;
    });
    if (any) found.set(`${strip.kind} ${strip.id}`, path);
  }
  return found;
}

/**
 * Draws a way or track in stud space, less what of it runs under the ground: there its line alone is dotted, unless the
 * level shown is that cavity.
 */
export function drawAbove(
  ctx: Ctx,
  { scene, art, level, view }: Picture,
  kind: 'way' | 'track',
  id: string,
  line: readonly { x: number; y: number }[],
  draw: () => void,
): void {
  const under =
    art && level?.kind !== 'cavity' ? tunnelsOf(scene, art.relief).get(`${kind} ${id}`) : undefined;
  if (!under || !art) return draw();
  const { x, y, w, d } = art.relief;
  const open = new Path2D();
  open.rect(x - w, y - d, 3 * w, 3 * d);
  open.addPath(under);
  ctx.save();
  ctx.clip(open, 'evenodd');
  draw();
  ctx.restore();
  ctx.save();
  ctx.clip(under);
  ctx.setLineDash([1 / view.scale, 5 / view.scale]);
  ctx.lineWidth = 1.6 / view.scale;
  ctx.beginPath();
  line.forEach((point, i) => (i === 0 ? ctx.moveTo(point.x, point.y) : ctx.lineTo(point.x, point.y)));
  ctx.stroke();
  ctx.restore();
}
