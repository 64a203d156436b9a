import { HttpStatus } from '@nestjs/common';
import { PAPERS, PLAN_SHEET, keyPlace, planDrawing, planScales } from '@quarry/core/formats';
import { MM_PER_STUD, formatPlates, type Rect, present } from '@quarry/core/grid';
import { compileRelief, footprintBounds } from '@quarry/core/terrain';
import { displayOf, listOf, type Module, type Scene } from '@quarry/core/document';
import { ApiError } from '../http/errors.ts';
import { PdfPage, rectCorners, type Print } from './paper.ts';
import { labelsOf, paintKey, paintNorth, paintPlan } from './planArt.ts';

const { margin: MARGIN, foot: FOOT, keyDeep: KEY_DEEP, keyWide: KEY_WIDE } = PLAN_SHEET;
/** Height of names on paper, mm. */
const TEXT = 2.4;
/** The most pages of one print. */
const MAX_TILES = 600;

const refused = (message: string) => new ApiError(HttpStatus.UNPROCESSABLE_ENTITY, 'invalid', message);

/** The plan on one sheet: at the scale asked for if it fits, else at the largest that does. */
export async function planSheet(scene: Scene, print: Print, asked?: number): Promise<Buffer> {
  const { paper, printed } = print;
  const relief = compileRelief(scene);
  const drawing = planDrawing(scene, relief, { textSize: TEXT });
  const { bounds } = drawing;
  const scales = planScales(bounds, paper);
  if (scales.length === 0 || (asked !== undefined && keyPlace(bounds, asked, paper) === null)) {
    const small = asked ?? 200;
    throw refused(
      `At 1 : ${small} the plan is ${Math.round(bounds.w / small)} × ${Math.round(bounds.d / small)} mm and does not fit ${PAPERS[paper].word}${scales.length === 0 ? '' : `; 1 : ${scales[0]} does`}. For 1 : 1, print tiles.`,
    );
  }
  const scale = asked ?? present(scales[0], 'a scale that fits');
  const beside = keyPlace(bounds, scale, paper) === 'beside';
  const sheet = new PdfPage(print, { title: `Plan of ${drawing.title}` });
  const labels = labelsOf(sheet, scene, drawing, relief, TEXT * scale);
  const area = {
    ...{ x: MARGIN, y: MARGIN, w: sheet.w - 2 * MARGIN - (beside ? KEY_WIDE : 0) },
    d: sheet.d - 2 * MARGIN - FOOT - (beside ? 0 : KEY_DEEP),
  };
  const at = {
    x: area.x + (area.w - bounds.w / scale) / 2,
    y: area.y + (area.d - bounds.d / scale) / 2,
  };
  paintPlan(sheet, { drawing, relief, scale, origin: bounds, at, size: TEXT }, labels);
  const keyRoom = beside
    ? { x: area.x + area.w + 2, y: MARGIN + 4, w: KEY_WIDE - 4, d: area.d - 8 }
    : { x: MARGIN + 4, y: area.y + area.d + 1, w: area.w - 20, d: KEY_DEEP - 2 };
  const more = paintKey(sheet, labels.key, keyRoom);
  if (more.length > 0) sheet.text('Key continued on the next page', MARGIN + 4, sheet.d - 5, { size: 2.4 });
  paintNorth(sheet, sheet.w - MARGIN - 8, sheet.d - MARGIN - FOOT - 3);
  const foot = sheet.d - MARGIN - FOOT;
  const frame = { x: MARGIN, y: MARGIN, w: sheet.w - 2 * MARGIN, d: sheet.d - 2 * MARGIN };
  sheet.line(rectCorners(frame), { closed: true, width: 0.35 });
  sheet.line([
    { x: MARGIN, y: foot },
    { x: sheet.w - MARGIN, y: foot },
  ]);
  sheet.text(displayOf(scene).name, MARGIN + 4, foot + 6.5, { size: 4.6, bold: true, within: 104 });
  sheet.text(`Plan, printed ${printed} from Open Quarry`, MARGIN + 4, foot + 13, { size: 2.4, grey: true });
  const levels = listOf(scene, 'level').map(({ name, height }) => `${name} ${formatPlates(height)}`);
  sheet
    .wrapped(`Levels above datum: ${levels.join(', ')}`, 84, 2.4)
    .slice(0, 3)
    .forEach((line, i) => sheet.text(line, MARGIN + 112, foot + 4.5 + i * 4, { size: 2.4 }));
  sheet.text(`1 : ${scale} on ${PAPERS[paper].word}`, sheet.w - MARGIN - 4, foot + 6.5, {
    size: 4,
    bold: true,
    align: 'right',
  });
  bar(sheet, sheet.w - MARGIN - 4, foot + 13, scale);
  let rest = more;
  while (rest.length > 0) {
    sheet.newPage();
    sheet.head('Key of the plan', displayOf(scene).name, MARGIN);
    const whole = { x: MARGIN, y: MARGIN + 14, w: sheet.w - 2 * MARGIN, d: sheet.d - 2 * MARGIN - 18 };
    rest = paintKey(sheet, rest, whole);
  }
  return sheet.finish();
}

/** A bar of 48 studs (or more), to check the print with a ruler or with a base. */
function bar(sheet: PdfPage, right: number, y: number, scale: number): void {
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
  sheet.text(`${studs} studs, ${(studs * MM_PER_STUD) / 10} cm`, x - 2, y - 0.4, {
    size: 2.4,
    align: 'right',
  });
}

/** What is printed at 1 : 1, and what it is called. */
interface Tiled {
  area: Rect;
  word: string;
}

/** The plan at 1 : 1 on as many pages as it takes, of the whole footprint or of modules, one after the other. */
export async function planTiles(scene: Scene, print: Print, modules?: readonly Module[]): Promise<Buffer> {
  const whole = footprintBounds(scene);
  if (!whole) throw refused('The display has no footprint to print.');
  if (modules?.length === 0) throw refused('The display is not cut yet: there is no module to print.');
  const parts = modules?.map((module): Tiled => ({ area: module, word: `module ${module.name}` })) ?? [
    { area: whole, word: 'the whole plan' },
  ];
  return tiles(scene, print, parts);
}

/**
 * Each page holds whole studs, has a cross at each corner to join it by, and its number.
 * @throws ApiError 422 when it would take too many pages
 */
async function tiles(scene: Scene, print: Print, parts: readonly Tiled[]): Promise<Buffer> {
  const { printed, paper } = print;
  const { w, d } = PAPERS[paper];
  // Upright: the papers are listed lying down.
  const across = Math.floor((d - 2 * MARGIN - 4) / MM_PER_STUD);
  const down = Math.floor((w - 2 * MARGIN - 12) / MM_PER_STUD);
  const split = ({ w, d }: Rect) => ({ columns: Math.ceil(w / across), rows: Math.ceil(d / down) });
  const pages = parts.reduce((sum, { area }) => sum + split(area).columns * split(area).rows, 0);
  if (pages > MAX_TILES)
    throw refused(
      `At 1 : 1 this takes ${pages.toLocaleString('en')} pages; the most is ${MAX_TILES}. Print one module at a time.`,
    );
  const relief = compileRelief(scene);
  const drawing = planDrawing(scene, relief, { textSize: TILE_TEXT });
  const name = displayOf(scene).name;
  const title =
    parts.length === 1 && parts[0] ? `Tiles of ${parts[0].word}, ${name}` : `Tiles of all modules, ${name}`;
  const sheet = new PdfPage(print, { title, upright: true });
  const labels = labelsOf(sheet, scene, drawing, relief, TILE_TEXT);
  const left = (sheet.w - across * MM_PER_STUD) / 2;
  const top = MARGIN + 2;
  let begun = false;
  for (const { area, word } of parts) {
    const { columns, rows } = split(area);
    for (let tile = 0; tile < rows * columns; tile++) {
      const [row, column] = [Math.trunc(tile / columns), tile % columns];
      if (begun) sheet.newPage();
      begun = true;
      const studs = {
        x: area.x + column * across,
        y: area.y + row * down,
        w: Math.min(across, area.w - column * across),
        d: Math.min(down, area.d - row * down),
      };
      const window = {
        x: studs.x * MM_PER_STUD,
        y: studs.y * MM_PER_STUD,
        w: studs.w * MM_PER_STUD,
        d: studs.d * MM_PER_STUD,
      };
      const at = { x: left, y: top };
      const laid = {
        ...{ drawing, relief, scale: 1, origin: window, at, size: TILE_TEXT, plain: true },
        beneath: () => grid(sheet, { x: left, y: top, w: studs.w, d: studs.d }),
      };
      paintPlan(sheet, laid, labels, window);
      for (const x of [left, left + window.w]) for (const y of [top, top + window.d]) cross(sheet, x, y);
      const foot = sheet.d - MARGIN;
      const place = `row ${row + 1} of ${rows}, column ${column + 1} of ${columns}`;
      sheet.text(`${name}, ${word}: ${place}`, MARGIN, foot - 2.6, {
        size: 3.4,
        bold: true,
        within: sheet.w - 2 * MARGIN,
      });
      sheet.text(
        `studs ${studs.x} to ${studs.x + studs.w} east, ${studs.y} to ${studs.y + studs.d} south · 1 : 1, print without scaling · ${printed}`,
        MARGIN,
        foot + 1.2,
        { size: 2.4, grey: true },
      );
    }
  }
  return sheet.finish();
}
/** Height of names at 1 : 1, mm. */
const TILE_TEXT = 4;

/** Stud lines, each eighth stronger, paler than what is drawn. */
function grid(sheet: PdfPage, { x, y, w, d }: Rect): void {
  const upright = (i: number) => [
    { x: x + i * MM_PER_STUD, y },
    { x: x + i * MM_PER_STUD, y: y + d * MM_PER_STUD },
  ];
  const level = (i: number) => [
    { x, y: y + i * MM_PER_STUD },
    { x: x + w * MM_PER_STUD, y: y + i * MM_PER_STUD },
  ];
  const some = (length: number, strong: boolean) =>
    Array.from({ length: length + 1 }, (_, i) => i).filter((i) => (i % 8 === 0) === strong);
  for (const strong of [false, true])
    sheet.lines([...some(w, strong).map(upright), ...some(d, strong).map(level)], {
      width: strong ? 0.1 : 0.05,
      colour: '#b4b1a8',
    });
}

function cross(sheet: PdfPage, x: number, y: number): void {
  sheet.lines(
    [
      [
        { x: x - 5, y },
        { x: x + 5, y },
      ],
      [
        { x, y: y - 5 },
        { x, y: y + 5 },
      ],
    ],
    { width: 0.25 },
  );
}
