import type { Rect } from '@quarry/core/grid';
import { OUTSIDE, waterCodes, type Relief } from '@quarry/core/terrain';
import { listOf } from '@quarry/core/document';
import { currentContents, tableInStuds } from '@quarry/core/venue';
import type { GroundArt } from './groundArt.ts';
import { spotHeights } from './spotHeights.ts';
import { RULER, SANS, inStuds, visible, type Picture } from './ink.ts';
import { LABEL_RANKS, textLabel, type BoardLabel } from './labels.ts';
import { HATCH_SCALE } from './palette.ts';
import { rectToScreen, toScreen } from './viewport.ts';

/** From this scale on, px a stud, single studs are plain to see and contours follow their edges. */
const NEAR = 9;

/** From these scales on, px a stud, the stud grid shows: lines each 8 studs, each stud, and the studs themselves. */
const GRID = { blocks: 2.5, lines: 8, studs: 14 } as const;

export function drawTables(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette } = picture;
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
  }
}

/** The name of each table with its height: under it, or over it where the scene goes on below. */
export function tableLabels(picture: Picture): BoardLabel[] {
  const { palette, scene, art } = picture;
  return currentContents(scene, 'table').flatMap((table) => {
    const rect = tableInStuds(scene, table);
    const on = visible(picture, rect, 20);
    if (!on || on.w < 110) return [];
    const words = `${table.name} · ${table.height} mm high`;
    const half = TABLE_LETTER * words.length;
    const covered = art && rect.y + rect.d < art.relief.y + art.relief.d;
    const [over, under] = [on.y - 9, on.y + on.d + 10];
    const rows = covered ? [over, under] : [under, over];
    const columns = [Math.max(on.x, RULER) + 4 + half, on.x + on.w / 2, on.x + on.w - half - 4];
    return [
      textLabel(
        picture,
        LABEL_RANKS.table,
        words,
        rows.flatMap((y) => columns.map((x) => ({ x, y }))),
        { font: `11px ${SANS}`, ink: palette.ink2, paper: palette.paper },
      ),
    ];
  });
}
/** Half the usual width of a letter, px. */
const TABLE_LETTER = 2.9;

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
        // Where single studs show, the hatch steps back behind them.
        ctx.globalAlpha = view.scale < GRID.studs ? 1 : 0.6;
        ctx.fillStyle = pattern;
        for (const { hatches } of tiles)
          for (const hatch of hatches) if (hatch.ground === ground) ctx.fill(hatch.path);
        ctx.globalAlpha = 1;
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
  // A cross at the highest ground of each section.
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (const spot of spotHeights(art.relief, listOf(picture.scene, 'section'))) {
    const { x, y } = toScreen(view, spot.x, spot.y);
    ctx.moveTo(x - 3, y);
    ctx.lineTo(x + 3, y);
    ctx.moveTo(x, y - 3);
    ctx.lineTo(x, y + 3);
  }
  ctx.stroke();
}

/** The stud grid over the ground, quiet enough to draw on. */
export function drawStudGrid(ctx: CanvasRenderingContext2D, picture: Picture, art: GroundArt): void {
  const { view, palette } = picture;
  const { x, y, w, d } = art.relief;
  const waters = waterCodes(picture.scene);
  if (view.scale < GRID.blocks || w === 0) return;
  const seen = visibleStuds(picture);
  const [left, top] = [Math.max(x, seen.x), Math.max(y, seen.y)];
  const [right, bottom] = [Math.min(x + w, seen.x + seen.w), Math.min(y + d, seen.y + seen.d)];
  if (left >= right || top >= bottom) return;
  const lines = (step: number, alpha: number, skip: number) => {
    ctx.globalAlpha = alpha;
    ctx.beginPath();
    for (let at = Math.ceil(left / step) * step; at <= right; at += step) {
      if (at % skip === 0) continue;
      ctx.moveTo(at, top);
      ctx.lineTo(at, bottom);
    }
    for (let at = Math.ceil(top / step) * step; at <= bottom; at += step) {
      if (at % skip === 0) continue;
      ctx.moveTo(left, at);
      ctx.lineTo(right, at);
    }
    ctx.stroke();
  };
  inStuds(ctx, picture, () => {
    ctx.strokeStyle = palette.ink;
    ctx.lineWidth = 0.6 / view.scale;
    lines(8, 0.34, Infinity);
    if (view.scale >= GRID.lines) lines(1, 0.15, 8);
    if (view.scale >= GRID.studs) {
      ctx.globalAlpha = 0.34;
      ctx.beginPath();
      for (let row = Math.floor(top); row < bottom; row++)
        for (let column = Math.floor(left); column < right; column++) {
          if (isPlainGround(art.relief, waters, column, row)) {
            ctx.moveTo(column + 0.8, row + 0.5);
            ctx.arc(column + 0.5, row + 0.5, STUD_RADIUS, 0, Math.PI * 2);
          }
        }
      ctx.stroke();
    }
    ctx.globalAlpha = 1;
  });
}
/** Radius of a stud, in studs (from memory: 4.8 mm across of a pitch of 8). */
const STUD_RADIUS = 0.3;

function isPlainGround(
  { x, y, w, d, ground }: Relief,
  waters: Uint8Array,
  column: number,
  row: number,
): boolean {
  if (column < x || row < y || column >= x + w || row >= y + d) return false;
  const code = ground[(row - y) * w + column - x] ?? OUTSIDE;
  return code !== OUTSIDE && waters[code] === 0;
}

/** The studs that are drawn now. */
function visibleStuds({ view, width, height, part }: Picture): Rect {
  const seen = part ?? { x: 0, y: 0, w: width, d: height };
  return {
    x: (seen.x - view.x) / view.scale,
    y: (seen.y - view.y) / view.scale,
    w: seen.w / view.scale,
    d: seen.d / view.scale,
  };
}
