import { formatPlates, intersection, type Rect } from '@quarry/core/grid';
import { OUTSIDE, type Relief } from '@quarry/core/terrain';
import { listOf } from '@quarry/core/document';
import { currentContents, tableInStuds } from '@quarry/core/venue';
import type { GroundArt } from './groundArt.ts';
import { MONO, RULER, SANS, halo, inStuds, visible, type Picture } from './ink.ts';
import { HATCH_SCALE } from './palette.ts';
import { rectToScreen, toScreen } from './viewport.ts';

/** From this scale on, px a stud, single studs are plain to see and contours follow their edges. */
const NEAR = 9;

export function drawTables(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette } = picture;
  ctx.font = `11px ${SANS}`;
  for (const table of currentContents(picture.scene, 'table')) {
    const rect = tableInStuds(picture.scene, table);
    const on = visible(picture, rect);
    if (!on) continue;
    ctx.fillStyle = palette.line;
    ctx.globalAlpha = 0.35;
    ctx.fillRect(on.x, on.y, on.w, on.d);
    ctx.globalAlpha = 1;
    ctx.strokeStyle = palette.ink2;
    ctx.lineWidth = 1;
    ctx.strokeRect(on.x + 0.5, on.y + 0.5, on.w, on.d);
    ctx.fillStyle = palette.ink2;
    ctx.textBaseline = 'top';
    if (on.w < 110) continue;
    // Under the table, or over it when the scene goes on below.
    const scene = picture.art?.relief;
    const covered = scene && rect.y + rect.d < scene.y + scene.d;
    ctx.textBaseline = covered ? 'bottom' : 'top';
    ctx.textAlign = 'left';
    ctx.fillText(
      `${table.name} · ${table.height} mm high`,
      Math.max(on.x, RULER) + 4,
      covered ? on.y - 2 : on.y + on.d + 3,
    );
  }
}

export function drawGround(ctx: CanvasRenderingContext2D, picture: Picture, art: GroundArt): void {
  const { view, palette, hidden } = picture;
  const { relief, tint } = art;
  if (tint) {
    ctx.imageSmoothingEnabled = false;
    const on = rectToScreen(view, relief);
    ctx.drawImage(tint, on.x, on.y, on.w, on.d);
  }
  const tiles = tilesIn(picture, art);
  inStuds(ctx, picture, () => {
    if (!hidden.has('ground'))
      for (const [ground, pattern] of art.patterns) {
        // The hatch keeps its size on the screen and moves with the ground.
        pattern.setTransform(new DOMMatrix().scale(HATCH_SCALE / view.scale));
        ctx.fillStyle = pattern;
        for (const { hatches } of tiles)
          for (const hatch of hatches) if (hatch.ground === ground) ctx.fill(hatch.path);
      }
    ctx.lineWidth = 0.7 / view.scale;
    ctx.strokeStyle = palette.ink2;
    for (const { borders } of tiles) ctx.stroke(borders);
    ctx.lineWidth = 1.6 / view.scale;
    ctx.strokeStyle = palette.ink;
    for (const { outline } of tiles) ctx.stroke(outline);
  });
}

const tilesIn = (picture: Picture, art: GroundArt) => art.tiles.filter((tile) => visible(picture, tile));

export function drawContours(ctx: CanvasRenderingContext2D, picture: Picture, art: GroundArt): void {
  const { view, palette } = picture;
  inStuds(ctx, picture, () => {
    ctx.strokeStyle = palette.contour;
    for (const { contours } of tilesIn(picture, art))
      for (const { path, exact, index } of contours) {
        ctx.lineWidth = (index ? 1.5 : 0.7) / view.scale;
        ctx.globalAlpha = index ? 0.95 : 0.75;
        ctx.stroke(view.scale < NEAR ? path : exact);
      }
    ctx.globalAlpha = 1;
  });
  ctx.font = `500 11px ${MONO}`;
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  for (const { labels } of tilesIn(picture, art))
    for (const label of labels) {
      const { x, y } = toScreen(view, label.x, label.y);
      halo(ctx, label.text, x, y, palette.contour, palette.sheet);
    }
  ctx.font = `10px ${MONO}`;
  // A spot height at the highest ground of each section.
  ctx.textAlign = 'left';
  for (const section of listOf(picture.scene, 'section')) {
    const spot = highest(art.relief, section);
    if (!spot) continue;
    const { x, y } = toScreen(view, spot.x, spot.y);
    ctx.strokeStyle = palette.ink;
    ctx.lineWidth = 1;
    ctx.beginPath();
    ctx.moveTo(x - 3, y);
    ctx.lineTo(x + 3, y);
    ctx.moveTo(x, y - 3);
    ctx.lineTo(x, y + 3);
    ctx.stroke();
    halo(ctx, formatPlates(spot.height), x + 5, y, palette.ink, palette.sheet);
  }
}

/** The stud of a section's highest ground that is nearest to the middle of all such studs; plates. */
function highest(relief: Relief, section: Rect): { x: number; y: number; height: number } | null {
  const area = intersection(section, relief);
  if (!area) return null;
  let top: { x: number; y: number }[] = [];
  let high = -32_768;
  for (let y = Math.ceil(area.y); y < area.y + area.d; y++)
    for (let x = Math.ceil(area.x); x < area.x + area.w; x++) {
      const i = (y - relief.y) * relief.w + x - relief.x;
      if (relief.ground[i] === OUTSIDE || relief.height[i] < high) continue;
      if (relief.height[i] > high) [high, top] = [relief.height[i], []];
      top.push({ x: x + 0.5, y: y + 0.5 });
    }
  if (top.length === 0) return null;
  const middle = {
    x: top.reduce((sum, { x }) => sum + x, 0) / top.length,
    y: top.reduce((sum, { y }) => sum + y, 0) / top.length,
  };
  const far = ({ x, y }: { x: number; y: number }) => Math.hypot(x - middle.x, y - middle.y);
  const nearest = top.reduce((best, stud) => (far(stud) < far(best) ? stud : best));
  return { ...nearest, height: high };
}
