import { HttpStatus } from '@nestjs/common';
import { planDrawing, type Drawing, type DrawingUnits } from '@quarry/core/formats';
import { MM_PER_STUD, formatPlates, overlap, type Rect } from '@quarry/core/lattice';
import { compileRelief, footprintBounds } from '@quarry/core/relief';
import { displayOf, listOf, type Scene } from '@quarry/core/scene';
import { ApiError } from '../http/errors.ts';
import { PAPERS, Sheet, type Paper } from './paper.ts';

/** Scales a plan may be printed at, the largest first. */
const SCALES = [1, 2, 4, 5, 8, 10, 12, 16, 20, 25, 40, 50, 100, 200] as const;
const MARGIN = 10;
const FOOT = 18;
const TEXT = 2.2;
/** The most pages of one print. */
const MOST_TILES = 400;

interface Print {
  units: DrawingUnits;
  printed: string;
  fonts: string;
}

/** The plan on one sheet: at the scale asked for if it fits, else at the largest that does. */
export async function planSheet(
  scene: Scene,
  { units, printed, fonts }: Print,
  asked?: number,
): Promise<Buffer> {
  const paper: Paper = units === 'in' ? 'letter' : 'a4';
  const relief = compileRelief(scene);
  const { w, d } = PAPERS[paper];
  const { bounds } = planDrawing(scene, relief, { textSize: TEXT });
  const fits = (scale: number) =>
    bounds.w / scale <= w - 2 * MARGIN - 8 && bounds.d / scale <= d - 2 * MARGIN - FOOT - 8;
  const least = SCALES.find(fits) ?? SCALES[SCALES.length - 1];
  if (asked !== undefined && !fits(asked))
    throw new ApiError(
      HttpStatus.UNPROCESSABLE_ENTITY,
      'invalid',
      `At 1 : ${asked} the plan is ${Math.round(bounds.w / asked)} × ${Math.round(bounds.d / asked)} mm and does not fit ${PAPERS[paper].word}; 1 : ${least} does. For 1 : 1, print tiles.`,
    );
  const scale = asked ?? least;
  const drawing = planDrawing(scene, relief, { textSize: TEXT * scale });
  const sheet = new Sheet(fonts, paper, { title: `Plan of ${drawing.title}` });
  const left = MARGIN + (sheet.w - 2 * MARGIN - bounds.w / scale) / 2;
  const top = MARGIN + (sheet.d - 2 * MARGIN - FOOT - bounds.d / scale) / 2;
  draw(
    sheet,
    drawing,
    (point) => ({ x: left + (point.x - bounds.x) / scale, y: top + (point.y - bounds.y) / scale }),
    scale,
  );
  const foot = sheet.d - MARGIN - FOOT;
  frame(sheet, { x: MARGIN, y: MARGIN, w: sheet.w - 2 * MARGIN, d: sheet.d - 2 * MARGIN });
  sheet.line([
    { x: MARGIN, y: foot },
    { x: sheet.w - MARGIN, y: foot },
  ]);
  sheet.text(displayOf(scene).name, MARGIN + 4, foot + 6.5, { size: 4.6, bold: true });
  sheet.text(`Plan, printed ${printed} from Open Quarry`, MARGIN + 4, foot + 13, { size: 2.4, grey: true });
  const levels = listOf(scene, 'level').map(({ name, height }) => `${name} ${formatPlates(height)}`);
  sheet.text(levels.join('   ').slice(0, 90), MARGIN + 84, foot + 6.5, { size: 2.6 });
  sheet.text('Contours each brick, heavier each five', MARGIN + 84, foot + 13, { size: 2.4, grey: true });
  sheet.text(`1 : ${scale} on ${PAPERS[paper].word}`, sheet.w - MARGIN - 4, foot + 6.5, {
    size: 4,
    bold: true,
    align: 'right',
  });
  bar(sheet, sheet.w - MARGIN - 4, foot + 13, scale);
  return sheet.finish();
}

/** A bar of 48 studs (or 16, or 1), to check the print with a ruler or with a base. */
function bar(sheet: Sheet, right: number, y: number, scale: number): void {
  const studs = [48, 96, 192, 480].find((count) => (count * MM_PER_STUD) / scale >= 15) ?? 480;
  const length = (studs * MM_PER_STUD) / scale;
  const x = right - length;
  sheet.line(
    [
      { x, y: y - 1.5 },
      { x, y },
      { x: right, y },
      { x: right, y: y - 1.5 },
    ],
    { width: 0.35 },
  );
  sheet.text(`${studs} studs`, x - 2, y - 0.4, { size: 2.4, align: 'right' });
}

/**
 * The plan at 1 : 1 on as many pages as it takes, to be laid on the table: each page holds whole studs, has a cross
 * at each corner to join it by, and says which it is.
 * @param area what to print, studs; the whole footprint when left out
 */
export async function planTiles(
  scene: Scene,
  { units, printed, fonts }: Print,
  area?: Rect,
): Promise<Buffer> {
  const paper: Paper = units === 'in' ? 'letter' : 'a4';
  const { w, d } = PAPERS[paper];
  // Upright: the papers are listed lying down.
  const across = Math.floor((d - 2 * MARGIN - 4) / MM_PER_STUD);
  const down = Math.floor((w - 2 * MARGIN - 12) / MM_PER_STUD);
  const whole = area ?? footprintBounds(scene);
  if (!whole)
    throw new ApiError(HttpStatus.UNPROCESSABLE_ENTITY, 'invalid', 'The display has no footprint to print.');
  const [columns, rows] = [Math.ceil(whole.w / across), Math.ceil(whole.d / down)];
  if (columns * rows > MOST_TILES)
    throw new ApiError(
      HttpStatus.UNPROCESSABLE_ENTITY,
      'invalid',
      `At 1 : 1 this takes ${columns * rows} pages; the most is ${MOST_TILES}. Print one module at a time.`,
    );
  const drawing = planDrawing(scene, compileRelief(scene), { textSize: 4 });
  const sheet = new Sheet(fonts, paper, { title: `Tiles of ${drawing.title}`, upright: true });
  const left = (sheet.w - across * MM_PER_STUD) / 2;
  const top = MARGIN + 2;
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      if (row + column > 0) sheet.newPage();
      const studs = {
        x: whole.x + column * across,
        y: whole.y + row * down,
        w: Math.min(across, whole.w - column * across),
        d: Math.min(down, whole.d - row * down),
      };
      const tile = {
        x: studs.x * MM_PER_STUD,
        y: studs.y * MM_PER_STUD,
        w: studs.w * MM_PER_STUD,
        d: studs.d * MM_PER_STUD,
      };
      const on = (point: { x: number; y: number }) => ({
        x: left + point.x - tile.x,
        y: top + point.y - tile.y,
      });
      sheet.clipped({ x: left, y: top, w: tile.w, d: tile.d }, () => {
        grid(sheet, { x: left, y: top, w: studs.w, d: studs.d });
        draw(sheet, { ...drawing, items: drawing.items.filter((item) => touches(item, tile)) }, on, 1);
      });
      for (const x of [left, left + tile.w]) for (const y of [top, top + tile.d]) cross(sheet, x, y);
      const name = `${String.fromCharCode(65 + (row % 26))}${row >= 26 ? Math.trunc(row / 26) : ''}${column + 1}`;
      const foot = sheet.d - MARGIN;
      sheet.text(`${displayOf(scene).name} · tile ${name} of ${rows} × ${columns}`, MARGIN, foot, {
        size: 3.4,
        bold: true,
      });
      sheet.text(
        `studs ${studs.x} to ${studs.x + studs.w} east, ${studs.y} to ${studs.y + studs.d} south · 1 : 1, print without scaling · ${printed}`,
        MARGIN,
        foot + 4.4,
        { size: 2.4, grey: true },
      );
    }
  return sheet.finish();
}

function touches(item: Drawing['items'][number], tile: Rect): boolean {
  if (item.kind === 'text') return item.at.x >= tile.x - 40 && item.at.x <= tile.x + tile.w + 40;
  const xs = item.points.map(({ x }) => x);
  const ys = item.points.map(({ y }) => y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  const box = { x: x - 0.1, y: y - 0.1, w: Math.max(...xs) - x + 0.2, d: Math.max(...ys) - y + 0.2 };
  return overlap(box, tile) !== null;
}

/** Stud lines, each eighth stronger. */
function grid(sheet: Sheet, { x, y, w, d }: Rect): void {
  for (let i = 0; i <= w; i++)
    sheet.line(
      [
        { x: x + i * MM_PER_STUD, y },
        { x: x + i * MM_PER_STUD, y: y + d * MM_PER_STUD },
      ],
      { width: i % 8 ? 0.03 : 0.1 },
    );
  for (let i = 0; i <= d; i++)
    sheet.line(
      [
        { x, y: y + i * MM_PER_STUD },
        { x: x + w * MM_PER_STUD, y: y + i * MM_PER_STUD },
      ],
      { width: i % 8 ? 0.03 : 0.1 },
    );
}

function cross(sheet: Sheet, x: number, y: number): void {
  sheet.line(
    [
      { x: x - 5, y },
      { x: x + 5, y },
    ],
    { width: 0.25 },
  );
  sheet.line(
    [
      { x, y: y - 5 },
      { x, y: y + 5 },
    ],
    { width: 0.25 },
  );
}

function frame(sheet: Sheet, { x, y, w, d }: Rect): void {
  sheet.line(
    [
      { x, y },
      { x: x + w, y },
      { x: x + w, y: y + d },
      { x, y: y + d },
    ],
    { closed: true, width: 0.35 },
  );
}

/** Draws a plan as large as it fits into a rectangle of the sheet, mm. @returns how deep it is there, mm */
export function drawPlan(
  sheet: Sheet,
  drawing: Drawing,
  box: { x: number; y: number; w: number; d: number },
): number {
  const { bounds } = drawing;
  const scale = Math.max(bounds.w / box.w, bounds.d / box.d);
  const deep = bounds.d / scale;
  sheet.clipped({ ...box, d: deep }, () =>
    draw(
      sheet,
      drawing,
      ({ x, y }) => ({ x: box.x + (x - bounds.x) / scale, y: box.y + (y - bounds.y) / scale }),
      scale,
    ),
  );
  return deep;
}

function draw(
  sheet: Sheet,
  drawing: Drawing,
  on: (point: { x: number; y: number }) => { x: number; y: number },
  scale: number,
): void {
  for (const item of drawing.items) {
    // Pads are drawn by their contours and grounds; as outlines they are for files only.
    if (item.layer === 'PADS') continue;
    if (item.kind === 'line') {
      const { closed, dashed, weight } = item;
      sheet.line(item.points.map(on), { closed, dashed, width: weight * 0.1 });
    } else {
      const { x, y } = on(item.at);
      sheet.text(item.text, x, y, { size: item.size / scale, align: 'center', turn: item.turn });
    }
  }
}
