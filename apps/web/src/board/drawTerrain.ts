import { formatPlates, type Rect } from '@quarry/core/grid';
import { atAlong, lengthOfLine } from '@quarry/core/terrain';
import { listOf, trackLine, type Pad, type Side } from '@quarry/core/document';
import { SANS, MONO, halo, hatch, inStuds, visible, wrap, type Picture } from './ink.ts';
import { lineOf, placeOf } from './pick.ts';
import { rectToScreen, toScreen } from './viewport.ts';

// What the ground is drawn with beyond its hatches: pictures under it, edges, names, ways and tracks.

export function drawPictures(ctx: CanvasRenderingContext2D, picture: Picture): void {
  for (const entry of listOf(picture.scene, 'picture')) {
    const image = picture.images.get(entry.id);
    const on = visible(picture, entry);
    if (!image || !on) continue;
    ctx.globalAlpha = entry.shows / 100;
    ctx.imageSmoothingEnabled = true;
    ctx.drawImage(image, on.x, on.y, on.w, on.d);
    ctx.globalAlpha = 1;
  }
}

/** How the sides of pads end: hachures down a slope, steps of a terrace, teeth of a cliff, a heavy line for a wall. */
export function drawEdges(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, view } = picture;
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1;
  for (const pad of listOf(picture.scene, 'pad')) {
    if (pad.shape !== 'rect' || !visible(picture, pad)) continue;
    for (const side of ['n', 'e', 's', 'w'] as const)
      drawEdge(ctx, rectToScreen(view, pad), pad, side, view.scale);
  }
}

function drawEdge(ctx: CanvasRenderingContext2D, on: Rect, pad: Pad, side: Side, scale: number): void {
  const { kind } = pad.edges[side];
  if (kind === 'open') return;
  const along = side === 'n' || side === 's';
  const length = along ? on.w : on.d;
  const fixed = side === 'n' ? on.y : side === 's' ? on.y + on.d : side === 'w' ? on.x : on.x + on.w;
  const outward = side === 'n' || side === 'w' ? -1 : 1;
  const start = along ? on.x : on.y;
  const stroke = (a: number, b: number, c: number, d: number) => {
    ctx.moveTo(along ? a : b, along ? b : a);
    ctx.lineTo(along ? c : d, along ? d : c);
  };
  ctx.beginPath();
  if (kind === 'wall') {
    stroke(start, fixed, start + length, fixed);
    ctx.lineWidth = 3;
  } else if (kind === 'cliff')
    for (let at = start; at < start + length - 4; at += 7) {
      stroke(at, fixed, at + 3.5, fixed + outward * 5);
      stroke(at + 3.5, fixed + outward * 5, at + 7, fixed);
    }
  else if (kind === 'slope')
    for (let i = 0, at = start + 3; at < start + length; i++, at += 6)
      stroke(at, fixed, at, fixed + outward * (i % 2 ? 4 : 8));
  else
    for (const step of [1, 2, 3]) {
      const off = fixed + outward * step * pad.edges[side].run * Math.max(scale, 1);
      stroke(start, off, start + length, off);
    }
  ctx.stroke();
  ctx.lineWidth = 1;
}

/** Names of hills, hollows and water in letters spaced as on a map; of water with its level. */
export function drawTerrainNames(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, scene } = picture;
  const waters = [
    ...listOf(scene, 'water').map(({ id, name, level, offset }) => ({
      kind: 'water' as const,
      id,
      name,
      level,
      offset,
    })),
    ...listOf(scene, 'pad')
      .filter(({ ground }) => ground === 'water')
      .map(({ id, name, level, offset }) => ({ kind: 'pad' as const, id, name, level, offset })),
  ];
  for (const { kind, id, name, level, offset } of waters) {
    const place = placeOf(scene, { kind, id });
    const on = place && visible(picture, place);
    if (!on || on.w < 90 || on.d < 36) continue;
    spacedName(ctx, name, on.x + on.w / 2, on.y + on.d / 2 - 7, palette.tarn, palette.water);
    ctx.font = `11px ${MONO}`;
    const words = `level ${formatPlates((scene.level[level]?.height ?? 0) + offset)}`;
    halo(ctx, words, on.x + on.w / 2, on.y + on.d / 2 + 9, palette.tarn, palette.water);
  }
  for (const kind of ['hill', 'hollow'] as const)
    for (const { name, ridge, ...form } of listOf(scene, kind)) {
      const on = visible(picture, form);
      if (!on || on.w < 110 || on.d < 50) continue;
      const at = {
        x: on.x + ((ridge.x1 + ridge.x2) / 2) * on.w,
        y: on.y + ((ridge.y1 + ridge.y2) / 2) * on.d,
      };
      const [x, y] = inScene(picture, ctx, name, at.x, at.y - 12);
      spacedName(ctx, name, x, y, palette.ink, palette.sheet);
    }
}

/** Brings a name into the scene: a hill may have its top beyond the edge. */
function inScene(
  picture: Picture,
  ctx: CanvasRenderingContext2D,
  name: string,
  x: number,
  y: number,
): [number, number] {
  if (!picture.art) return [x, y];
  const on = rectToScreen(picture.view, picture.art.relief);
  ctx.font = `italic 500 12px ${SANS}`;
  const half = ctx.measureText(name.toUpperCase()).width / 2 + name.length + 8;
  return [
    Math.min(Math.max(x, on.x + half), Math.max(on.x + half, on.x + on.w - half)),
    Math.min(Math.max(y, on.y + 30), on.y + on.d - 12),
  ];
}

function spacedName(
  ctx: CanvasRenderingContext2D,
  name: string,
  x: number,
  y: number,
  ink: string,
  paper: string,
): void {
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.font = `italic 500 12px ${SANS}`;
  ctx.letterSpacing = '2px';
  halo(ctx, name.toUpperCase(), x, y, ink, paper);
  ctx.letterSpacing = '0px';
}

export function drawWays(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, scene, view } = picture;
  inStuds(ctx, picture, () => {
    ctx.strokeStyle = palette.ink;
    ctx.lineWidth = 0.9 / view.scale;
    for (const way of listOf(scene, 'way')) {
      const { points } = way;
      ctx.setLineDash(
        way.use === 'road' ? [8 / view.scale, 6 / view.scale] : [2 / view.scale, 4 / view.scale],
      );
      trace(ctx, points);
      ctx.stroke();
      ctx.setLineDash([]);
      if (way.onSteep === 'steps') sleepers(ctx, points, way.width * 0.35, Math.max(1.5, 4 / view.scale));
    }
    for (const track of listOf(scene, 'track')) drawTrack(ctx, picture, trackLine(track, 0).line, track.bed);
  });
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.font = `500 11px ${SANS}`;
  for (const kind of ['way', 'stream', 'track'] as const)
    for (const { id, name } of listOf(scene, kind)) {
      const line = lineOf(scene, kind, id);
      if (!line) continue;
      const long = lengthOfLine(line.points);
      if (long * view.scale < ctx.measureText(name).width + 60 || line.width * view.scale < 13) continue;
      const at = atAlong(line.points, long * 0.3);
      const on = toScreen(view, at.x, at.y);
      ctx.save();
      ctx.translate(on.x, on.y);
      // Never upside down.
      ctx.rotate(Math.abs(at.angle) > Math.PI / 2 ? at.angle + Math.PI : at.angle);
      const water = kind === 'stream';
      halo(ctx, name, 0, 0, water ? palette.tarn : palette.ink, water ? palette.water : palette.sheet);
      ctx.restore();
    }
}

function drawTrack(
  ctx: CanvasRenderingContext2D,
  { view, palette }: Picture,
  line: readonly { x: number; y: number }[],
  bed: number,
): void {
  const near = view.scale > 2.5;
  ctx.strokeStyle = palette.ink;
  if (!near) {
    ctx.lineWidth = 2.2 / view.scale;
    trace(ctx, line);
    ctx.stroke();
  }
  ctx.lineWidth = (near ? 1.4 : 1) / view.scale;
  sleepers(ctx, line, near ? bed * 0.4 : 4 / view.scale, near ? 2 : 8 / view.scale);
  if (!near) return;
  ctx.lineWidth = 1.2 / view.scale;
  for (const side of [-2.5, 2.5]) {
    ctx.beginPath();
    line.forEach(({ x, y }, i) => {
      const a = line[Math.max(0, i - 1)];
      const b = line[Math.min(line.length - 1, i + 1)];
      const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
      const [ox, oy] = [(-(b.y - a.y) / length) * side, ((b.x - a.x) / length) * side];
      if (i === 0) ctx.moveTo(x + ox, y + oy);
      else ctx.lineTo(x + ox, y + oy);
    });
    ctx.stroke();
  }
}

/** Short strokes across a line, evenly along it. */
function sleepers(
  ctx: CanvasRenderingContext2D,
  line: readonly { x: number; y: number }[],
  half: number,
  step: number,
): void {
  const long = lengthOfLine(line);
  ctx.beginPath();
  for (let along = step / 2; along < long; along += step) {
    const { x, y, angle } = atAlong(line, along);
    const [u, v] = [-Math.sin(angle) * half, Math.cos(angle) * half];
    ctx.moveTo(x - u, y - v);
    ctx.lineTo(x + u, y + v);
  }
  ctx.stroke();
}

function trace(ctx: CanvasRenderingContext2D, points: readonly { x: number; y: number }[]): void {
  ctx.beginPath();
  points.forEach(({ x, y }, i) => (i === 0 ? ctx.moveTo(x, y) : ctx.lineTo(x, y)));
}

/** Ground kept free, hatched wide, with what it is kept for. */
export function drawReserved(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette } = picture;
  for (const { name, ...place } of listOf(picture.scene, 'reserved')) {
    const on = visible(picture, place);
    if (!on) continue;
    ctx.strokeStyle = palette.ochre;
    ctx.lineWidth = 0.8;
    ctx.beginPath();
    hatch(ctx, on, 14);
    ctx.stroke();
    ctx.setLineDash([8, 4]);
    ctx.strokeRect(on.x, on.y, on.w, on.d);
    ctx.setLineDash([]);
    if (on.w < 40 || on.d < 16) continue;
    ctx.font = `500 11px ${SANS}`;
    ctx.textAlign = 'center';
    ctx.textBaseline = 'middle';
    wrap(ctx, name, on.w - 8, Math.trunc(on.d / 13)).forEach((line, i) =>
      halo(ctx, line, on.x + on.w / 2, on.y + on.d / 2 + i * 13, palette.ochre, palette.sheet),
    );
  }
}
