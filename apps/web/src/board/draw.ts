import { formatPlates, overlap, type Rect } from '@quarry/core/lattice';
import { tableInStuds, type Judged } from '@quarry/core/check';
import { OUTSIDE, type Relief } from '@quarry/core/relief';
import { listOf, type Scene } from '@quarry/core/scene';
import type { Layer } from '../data/view.ts';
import type { GroundArt } from './groundArt.ts';
import { HATCH_SCALE, type Palette } from './palette.ts';
import { rectToScreen, toScreen, toStuds, type Viewport } from './viewport.ts';

/** What a board shows: everything is drawn from this and nothing else. */
export interface Picture {
  scene: Scene;
  art: GroundArt | null;
  findings: readonly Judged[];
  palette: Palette;
  view: Viewport;
  width: number;
  height: number;
  hidden: ReadonlySet<Layer>;
  /** Row of the section cut, studs; null: none. */
  cutRow: number | null;
}

const MONO = "'Spline Sans Mono'";
const SANS = "'Archivo Variable'";
/** From this scale on, px a stud, single studs are plain to see and contours follow their edges. */
const NEAR = 9;
/** Width of the rulers at the top and the left, px. */
export const RULER = 20;

/** Draws all that moves with the ground, on a 2D context whose unit is a CSS pixel. */
export function drawSheet(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, width, height, hidden } = picture;
  ctx.save();
  ctx.fillStyle = palette.paper;
  ctx.fillRect(0, 0, width, height);
  ctx.lineJoin = 'round';
  if (!hidden.has('tables')) drawTables(ctx, picture);
  if (picture.art) {
    drawGround(ctx, picture, picture.art);
    if (!hidden.has('contours')) drawContours(ctx, picture, picture.art);
  }
  drawWaterNames(ctx, picture);
  if (!hidden.has('plots')) drawPlots(ctx, picture);
  if (!hidden.has('modules')) drawModules(ctx, picture);
  if (!hidden.has('sections')) drawSections(ctx, picture);
  if (!hidden.has('findings')) drawFindings(ctx, picture);
  if (picture.cutRow !== null) drawCutRow(ctx, picture, picture.cutRow);
  ctx.restore();
}

/** Draws what stays where it is on the screen: rulers, scale bar and north. */
export function drawFrame(ctx: CanvasRenderingContext2D, picture: Picture): void {
  ctx.save();
  drawRulers(ctx, picture);
  drawScale(ctx, picture);
  ctx.restore();
}

/** Whether any of a rectangle of studs is on the screen. */
function visible({ view, width, height }: Picture, rect: Rect): Rect | null {
  const on = rectToScreen(view, rect);
  return overlap(on, { x: 0, y: 0, w: width, d: height }) ? on : null;
}

function drawTables(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette } = picture;
  ctx.font = `11px ${SANS}`;
  for (const table of listOf(picture.scene, 'table')) {
    const on = visible(picture, tableInStuds(table));
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
    const covered = scene && table.y + table.d < (scene.y + scene.d) * 8;
    ctx.textBaseline = covered ? 'bottom' : 'top';
    ctx.textAlign = 'left';
    ctx.fillText(
      `${table.name} · ${table.height} mm high`,
      Math.max(on.x, RULER) + 4,
      covered ? on.y - 2 : on.y + on.d + 3,
    );
  }
}

/** Goes into stud space; line widths are then divided by the scale. */
function inStuds(ctx: CanvasRenderingContext2D, { view }: Picture, draw: () => void): void {
  ctx.save();
  ctx.translate(view.x, view.y);
  ctx.scale(view.scale, view.scale);
  draw();
  ctx.restore();
}

function drawGround(ctx: CanvasRenderingContext2D, picture: Picture, art: GroundArt): void {
  const { view, palette, hidden } = picture;
  const { relief, tint } = art;
  if (tint) {
    ctx.imageSmoothingEnabled = false;
    const on = rectToScreen(view, relief);
    ctx.drawImage(tint, on.x, on.y, on.w, on.d);
  }
  inStuds(ctx, picture, () => {
    if (!hidden.has('ground'))
      for (const { path, pattern } of art.hatches) {
        // The hatch keeps its size on the screen and moves with the ground.
        pattern.setTransform(new DOMMatrix().scale(HATCH_SCALE / view.scale));
        ctx.fillStyle = pattern;
        ctx.fill(path);
      }
    ctx.lineWidth = 0.7 / view.scale;
    ctx.strokeStyle = palette.ink2;
    ctx.stroke(art.borders);
    ctx.lineWidth = 1.6 / view.scale;
    ctx.strokeStyle = palette.ink;
    ctx.stroke(art.outline);
  });
}

function drawContours(ctx: CanvasRenderingContext2D, picture: Picture, art: GroundArt): void {
  const { view, palette } = picture;
  inStuds(ctx, picture, () => {
    ctx.strokeStyle = palette.contour;
    for (const { path, exact, index } of art.contours) {
      ctx.lineWidth = (index ? 1.5 : 0.7) / view.scale;
      ctx.globalAlpha = index ? 0.95 : 0.75;
      ctx.stroke(view.scale < NEAR ? path : exact);
    }
    ctx.globalAlpha = 1;
  });
  ctx.font = `10px ${MONO}`;
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  for (const { label } of art.contours) {
    if (!label) continue;
    const { x, y } = toScreen(view, label.x, label.y);
    halo(ctx, label.text, x, y, palette.contour, palette.sheet);
  }
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
  const area = overlap(section, relief);
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

function halo(
  ctx: CanvasRenderingContext2D,
  text: string,
  x: number,
  y: number,
  ink: string,
  sheet: string,
): void {
  ctx.strokeStyle = sheet;
  ctx.lineWidth = 3;
  ctx.strokeText(text, x, y);
  ctx.fillStyle = ink;
  ctx.fillText(text, x, y);
}

/** A centred text on a plate of the sheet's colour: quicker than a halo where there are hundreds. */
function plate(
  ctx: CanvasRenderingContext2D,
  text: string,
  x: number,
  y: number,
  ink: string,
  sheet: string,
): void {
  const width = ctx.measureText(text).width + 4;
  ctx.fillStyle = sheet;
  ctx.fillRect(x - width / 2, y - 6, width, 12);
  ctx.fillStyle = ink;
  ctx.fillText(text, x, y);
}

function drawWaterNames(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, scene } = picture;
  for (const pad of listOf(scene, 'pad')) {
    if (pad.ground !== 'water') continue;
    const on = visible(picture, pad);
    if (!on || on.w < 90 || on.d < 36) continue;
    ctx.textAlign = 'center';
    ctx.textBaseline = 'middle';
    ctx.font = `italic 500 12px ${SANS}`;
    ctx.letterSpacing = '2px';
    halo(ctx, pad.name.toUpperCase(), on.x + on.w / 2, on.y + on.d / 2 - 7, palette.tarn, palette.water);
    ctx.letterSpacing = '0px';
    ctx.font = `11px ${MONO}`;
    const height = (scene.level[pad.level]?.height ?? 0) + pad.offset;
    halo(
      ctx,
      `level ${formatPlates(height)}`,
      on.x + on.w / 2,
      on.y + on.d / 2 + 9,
      palette.tarn,
      palette.water,
    );
  }
}

function drawPlots(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, view } = picture;
  const fills = new Path2D();
  const walls = new Path2D();
  const labelled: { name: string; on: Rect; note: string }[] = [];
  // Walls are one stud thick; too thin to see, they are left out.
  const wall = view.scale > 1.2 ? view.scale : 0;
  for (const plot of listOf(picture.scene, 'plot')) {
    const on = visible(picture, plot);
    if (!on) continue;
    fills.rect(on.x, on.y, on.w, on.d);
    if (wall > 0 && on.w > 4 * wall && on.d > 4 * wall)
      walls.rect(on.x + wall, on.y + wall, on.w - 2 * wall, on.d - 2 * wall);
    if (on.w > 26 && on.d > 12)
      labelled.push({ name: plot.name, on, note: `${formatPlates(plot.height)} tall` });
  }
  ctx.fillStyle = palette.sheet;
  ctx.fill(fills);
  ctx.strokeStyle = palette.line;
  ctx.lineWidth = 0.7;
  ctx.beginPath();
  for (const { on } of labelled)
    hatch(ctx, { x: on.x + wall, y: on.y + wall, w: on.w - 2 * wall, d: on.d - 2 * wall });
  ctx.stroke();
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1.2;
  ctx.stroke(fills);
  ctx.lineWidth = 0.6;
  ctx.stroke(walls);
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  for (const { name, on, note } of labelled) {
    ctx.font = `500 11px ${SANS}`;
    const lines = wrap(ctx, name, on.w - 8, Math.trunc((on.d - 4) / 13));
    const tall = on.d > lines.length * 13 + 22 && on.w > 56;
    const top = on.y + on.d / 2 - ((lines.length - 1) * 13) / 2 - (tall ? 6 : 0);
    lines.forEach((line, i) => plate(ctx, line, on.x + on.w / 2, top + i * 13, palette.ink, palette.sheet));
    if (!tall) continue;
    ctx.font = `10px ${MONO}`;
    plate(ctx, note, on.x + on.w / 2, top + lines.length * 13, palette.ink2, palette.sheet);
  }
}

/** 45° hairlines that end exactly on a rectangle's sides. */
function hatch(ctx: CanvasRenderingContext2D, { x, y, w, d }: Rect): void {
  for (let shift = 6; shift < w + d; shift += 6) {
    ctx.moveTo(x + Math.min(shift, w), y + Math.max(0, shift - w));
    ctx.lineTo(x + Math.max(0, shift - d), y + Math.min(shift, d));
  }
}

/** Breaks a name into lines that fit; what does not fit ends in an ellipsis. */
function wrap(ctx: CanvasRenderingContext2D, text: string, width: number, most: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(' ')) {
    const joined = lines.length > 0 ? `${lines[lines.length - 1]} ${word}` : word;
    if (lines.length > 0 && ctx.measureText(joined).width <= width) lines[lines.length - 1] = joined;
    else lines.push(word);
  }
  const kept = lines.slice(0, Math.max(1, most));
  return kept.map((line, i) => {
    let cut = i === kept.length - 1 && kept.length < lines.length ? `${line}…` : line;
    while (cut.length > 2 && ctx.measureText(cut).width > width) cut = `${cut.slice(0, -2)}…`;
    return cut;
  });
}

function drawModules(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette } = picture;
  const modules = listOf(picture.scene, 'module').flatMap((module) => {
    const on = visible(picture, module);
    return on ? [{ name: module.name, on }] : [];
  });
  ctx.strokeStyle = palette.iron;
  ctx.lineWidth = 1.3;
  ctx.setLineDash([12, 4, 2, 4]);
  ctx.beginPath();
  for (const { on } of modules) ctx.rect(on.x, on.y, on.w, on.d);
  ctx.stroke();
  ctx.setLineDash([]);
  ctx.font = `500 10.5px ${MONO}`;
  ctx.textAlign = 'left';
  ctx.textBaseline = 'middle';
  for (const { name, on } of modules) {
    if (on.w < 30 || on.d < 22) continue;
    const width = ctx.measureText(name).width + 8;
    ctx.fillStyle = palette.iron;
    ctx.fillRect(on.x + 5, on.y + 5, width, 14);
    ctx.fillStyle = palette.onIron;
    ctx.fillText(name, on.x + 9, on.y + 12.5);
  }
}

function drawSections(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette } = picture;
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  for (const section of listOf(picture.scene, 'section')) {
    const on = visible(picture, section);
    if (!on) continue;
    ctx.strokeStyle = palette.ink;
    ctx.lineWidth = 0.9;
    ctx.setLineDash([2, 3]);
    ctx.strokeRect(on.x, on.y, on.w, on.d);
    ctx.setLineDash([]);
    const { x, y } = sectionMark(on);
    ctx.beginPath();
    ctx.arc(x, y, 10, 0, Math.PI * 2);
    ctx.fillStyle = palette.sheet;
    ctx.fill();
    ctx.lineWidth = 1.4;
    ctx.stroke();
    ctx.fillStyle = palette.ink;
    ctx.font = `600 11px ${SANS}`;
    ctx.fillText(section.letter, x, y + 0.5);
  }
}

/** Where a section's letter stands on the screen: in the far corner that the module flags leave free. */
export const sectionMark = (on: Rect) => ({
  x: on.x + on.w - Math.min(18, on.w / 2),
  y: on.y + Math.min(18, on.d / 2),
});

/** Marks closer than this are drawn as one with their count, px. */
const CROWD = 24;

function drawFindings(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, view } = picture;
  const marks = new Map<string, { x: number; y: number; grave: boolean; count: number }>();
  for (const { place, severity, accepted } of picture.findings) {
    if (!place || accepted || severity === 'note') continue;
    const { x, y } = toScreen(view, place.x, place.y);
    const grave = severity === 'error';
    // Errors and warnings of one place stand side by side.
    const key = `${Math.round(x / CROWD)} ${Math.round(y / CROWD)} ${grave}`;
    const mark = marks.get(key);
    if (mark) mark.count++;
    else
      marks.set(key, {
        x: grave || !marks.has(key.replace('false', 'true')) ? x : x + 18,
        y,
        grave,
        count: 1,
      });
  }
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.font = `700 11px ${SANS}`;
  for (const { x, y, grave, count } of marks.values()) {
    ctx.beginPath();
    if (grave) ctx.arc(x, y, 8, 0, Math.PI * 2);
    else {
      ctx.moveTo(x, y - 9);
      ctx.lineTo(x + 9, y + 6.5);
      ctx.lineTo(x - 9, y + 6.5);
      ctx.closePath();
    }
    ctx.fillStyle = grave ? palette.iron : palette.ochre;
    ctx.fill();
    ctx.strokeStyle = palette.sheet;
    ctx.lineWidth = 1.5;
    ctx.stroke();
    ctx.fillStyle = palette.onIron;
    ctx.fillText(count === 1 ? '!' : String(Math.min(count, 99)), x, y + (grave ? 0.5 : 1.5));
  }
}

function drawCutRow(
  ctx: CanvasRenderingContext2D,
  { palette, view, width, art }: Picture,
  row: number,
): void {
  if (!art) return;
  const { y } = toScreen(view, 0, row + 0.5);
  const from = Math.max(RULER, toScreen(view, art.relief.x, 0).x - 12);
  const to = Math.min(width - 8, toScreen(view, art.relief.x + art.relief.w, 0).x + 12);
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1;
  ctx.setLineDash([6, 4]);
  ctx.beginPath();
  ctx.moveTo(from, y);
  ctx.lineTo(to, y);
  ctx.stroke();
  ctx.setLineDash([]);
  ctx.font = `600 11px ${SANS}`;
  ctx.textAlign = 'center';
  ctx.textBaseline = 'bottom';
  halo(ctx, 'S', from + 5, y - 1, palette.ink, palette.paper);
  halo(ctx, 'S′', to - 5, y - 1, palette.ink, palette.paper);
}

/** A step of 8 × 1, 2, 3, 6, 12 … studs whose ticks are far enough apart to be labelled. */
function tickStep(scale: number): number {
  return [1, 4, 8, 16, 48, 96, 192, 384, 768].find((step) => step * scale >= 44) ?? 1536;
}

function drawRulers(ctx: CanvasRenderingContext2D, { palette, view, width, height }: Picture): void {
  ctx.fillStyle = palette.sheet;
  ctx.fillRect(0, 0, width, RULER);
  ctx.fillRect(0, 0, RULER, height);
  ctx.strokeStyle = palette.line;
  ctx.lineWidth = 1;
  ctx.beginPath();
  ctx.moveTo(0, RULER + 0.5);
  ctx.lineTo(width, RULER + 0.5);
  ctx.moveTo(RULER + 0.5, 0);
  ctx.lineTo(RULER + 0.5, height);
  ctx.stroke();
  const step = tickStep(view.scale);
  ctx.fillStyle = palette.ink2;
  ctx.strokeStyle = palette.ink2;
  ctx.font = `10px ${MONO}`;
  const from = toStuds(view, RULER, RULER);
  const to = toStuds(view, width, height);
  ctx.beginPath();
  ctx.textBaseline = 'middle';
  ctx.textAlign = 'left';
  for (let stud = Math.ceil(from.x / step) * step; stud <= to.x; stud += step) {
    const { x } = toScreen(view, stud, 0);
    ctx.moveTo(x + 0.5, RULER - 6);
    ctx.lineTo(x + 0.5, RULER);
    ctx.fillText(String(stud), x + 3, 9);
  }
  for (let stud = Math.ceil(from.y / step) * step; stud <= to.y; stud += step) {
    const { y } = toScreen(view, 0, stud);
    ctx.moveTo(RULER - 6, y + 0.5);
    ctx.lineTo(RULER, y + 0.5);
    ctx.save();
    ctx.translate(9, y + 3);
    ctx.rotate(Math.PI / 2);
    ctx.fillText(String(stud), 0, 0);
    ctx.restore();
  }
  ctx.stroke();
  ctx.fillStyle = palette.sheet;
  ctx.fillRect(0, 0, RULER, RULER);
}

function drawScale(ctx: CanvasRenderingContext2D, { palette, view, width, height }: Picture): void {
  const step = tickStep(view.scale / 2);
  const length = step * view.scale;
  const right = width - 14;
  const y = height - 22;
  ctx.fillStyle = palette.sheet;
  ctx.strokeStyle = palette.line;
  ctx.lineWidth = 1;
  ctx.fillRect(right - length - 46, y - 14, length + 54, 31);
  ctx.strokeRect(right - length - 45.5, y - 13.5, length + 54, 31);
  ctx.fillStyle = palette.ink;
  ctx.strokeStyle = palette.ink;
  ctx.fillRect(right - length, y - 6, length / 2, 4);
  ctx.strokeRect(right - length, y - 6, length, 4);
  ctx.font = `10px ${MONO}`;
  ctx.textBaseline = 'top';
  ctx.textAlign = 'right';
  ctx.fillText(`${step} st · ${((step * 8) / 10).toFixed(1)} cm`, right, y + 2);
  // North: the far edge is at the top of the sheet.
  const n = right - length - 30;
  ctx.beginPath();
  ctx.moveTo(n, y + 12);
  ctx.lineTo(n, y - 8);
  ctx.moveTo(n - 4, y - 3);
  ctx.lineTo(n, y - 9);
  ctx.lineTo(n + 4, y - 3);
  ctx.stroke();
  ctx.textAlign = 'left';
  ctx.font = `600 10px ${SANS}`;
  ctx.fillText('N', n + 6, y);
}
