import { HttpStatus } from '@nestjs/common';
import { ANY_COLOUR, colourName, colourOf, gramsOfLines, partName } from '@quarry/core/catalogue';
import { MM_PER_STUD, countOf, formatPlates, type Rect, present } from '@quarry/core/grid';
import {
  buildSteps,
  builtBlocks,
  countMasonry,
  laidBelow,
  markOf,
  stepCounts,
  type CountingBlock,
  type BuildSteps,
  type Built,
  type StepLine,
  type StepPiece,
} from '@quarry/core/masonry';
import { buildingSteps } from '@quarry/core/structures';
import { compile } from '@quarry/core/terrain';
import { displayOf, listOf, type Entity, type Scene } from '@quarry/core/document';
import { ApiError } from '../http/errors.ts';
import { PdfPage, rectCorners, type Hatch, type PaperPoint, type Print } from './paper.ts';

// Build sheets: a summary of each module, then a page for each step, with the pieces from above and what they are.

const MARGIN = 14;
const ROW = 4;
/** Width of the list beside the picture, and of its columns elsewhere, mm. */
const LIST = 76;
/** The most studs of a picture, so that a mark is legible on a 1×1. */
const PART_W = 64;
const PART_D = 54;
/** The most pages of one print. */
const MAX_PAGES = 1000;

/** Build sheets of all modules, or of the one asked for, in one file. */
export async function buildSheets(scene: Scene, module: string | undefined, print: Print): Promise<Buffer> {
  // A module, then its decks, bridges and roofs, which are built apart.
  const wanted = (block: CountingBlock) =>
    block.part
      ? module === undefined || block.part.module === module
      : !block.rest && (module === undefined || block.id === module);
  const name = displayOf(scene).name;
  const one = module === undefined ? undefined : scene.module[module]?.name;
  const { sheet, page, isBegun } = begin(scene, print, one === undefined ? name : `module ${one}, ${name}`);
  for (const built of builtBlocks(scene, compile(scene), wanted)) moduleSheets(sheet, scene, built, page);
  if (!isBegun()) {
    page('Build sheets');
    sheet.text('Not cut yet: there is no module to build.', MARGIN, MARGIN + 12, { size: 3.4 });
  }
  return sheet.finish();
}

/** Build sheets of one building: unturned, from its ground up. */
export async function buildingSheets(scene: Scene, plot: Entity<'plot'>, print: Print): Promise<Buffer> {
  const { sheet, page } = begin(scene, print, `${plot.name}, ${displayOf(scene).name}`);
  const steps = buildingSteps(plot, displayOf(scene));
  const looks = looksOf(steps.lines);
  const pieces = steps.lines.reduce((sum, { qty }) => sum + qty, 0);
  const grams = gramsOfLines(steps.lines, scene.partType);
  page(`${plot.name}, summary`);
  const bottom = factRows(sheet, [
    ['Size', `${steps.w} × ${steps.d} studs, ${steps.w * MM_PER_STUD} × ${steps.d * MM_PER_STUD} mm`],
    ['Height', `${formatPlates(steps.high)} with its roof, ${countOf(plot.storeys, 'storey')}`],
    ['Pieces', `${pieces.toLocaleString('en')}, ${(grams / 1000).toFixed(2)} kg`],
    ['Turned', plot.turn === 0 ? 'no' : `${plot.turn}° clockwise; drawn unturned`],
    ['Steps', String(steps.steps.length)],
    ['Not in it', 'furniture, ornament and what lies over its roof'],
  ]);
  lineList(sheet, plot.name, steps.lines, looks, bottom + 10, page);
  const from = 'its ground';
  stepPages(sheet, { title: plot.name, corner: 'the building’s', from, floor: 0, ...steps }, looks, page);
  return sheet.finish();
}

type NewPage = (title: string) => void;

/** An empty print; its pages have a head and the day of printing. @throws ApiError 422 past MAX_PAGES pages */
function begin(scene: Scene, print: Print, of: string) {
  const sheet = new PdfPage(print, { title: `Build sheets of ${of}` });
  let begun = false;
  const page: NewPage = (title) => {
    if (begun) sheet.newPage();
    begun = true;
    if (sheet.pages > MAX_PAGES)
      throw new ApiError(
        HttpStatus.UNPROCESSABLE_ENTITY,
        'invalid',
        `These build sheets take more than ${MAX_PAGES.toLocaleString('en')} pages. Print one module at a time.`,
      );
    sheet.head(title, displayOf(scene).name, MARGIN);
    sheet.text(`North is up. Printed ${print.printed} from Open Quarry.`, MARGIN, sheet.d - 8, {
      size: 2.4,
      grey: true,
    });
  };
  return { sheet, page, isBegun: () => begun };
}

const titleOf = ({ name, part }: CountingBlock) => (part ? capital(name) : `Module ${name}`);
const capital = (words: string) => `${words.charAt(0).toUpperCase()}${words.slice(1)}`;

/** How a line is shown: its mark, its paint (null: any colour) and its hatch (null: none). */
interface Look {
  mark: string;
  paint: string | null;
  hatch: Hatch | null;
  /** Ink that shows on the paint. */
  ink: string;
}

/** Hatches of colours, in turn. */
const HATCHES: readonly Hatch[] = ['rise', 'fall', 'across', 'along', 'diamonds', 'squares', 'dashes'];

function looksOf(lines: readonly StepLine[]): Look[] {
  const hatches = new Map<string, Hatch>();
  return lines.map(({ colour }, line) => {
    const paint = colour === ANY_COLOUR ? null : (colourOf(colour)?.hex ?? '#ffffff');
    if (colour !== ANY_COLOUR && !hatches.has(colour))
      hatches.set(colour, present(HATCHES[hatches.size % HATCHES.length], 'a hatch'));
    return {
      mark: markOf(line),
      paint,
      hatch: hatches.get(colour) ?? null,
      ink: paint !== null && luma(paint) < 125 ? '#ffffff' : '#22292e',
    };
  });
}

/** Luma of a colour (ITU-R BT.709), 0 to 255. */
function luma(hex: string): number {
  const part = (at: number) => Number.parseInt(hex.slice(at, at + 2), 16);
  return 0.2126 * part(1) + 0.7152 * part(3) + 0.0722 * part(5);
}

function moduleSheets(sheet: PdfPage, scene: Scene, built: Built, page: NewPage): void {
  const { block, floor } = built.ground;
  const steps = buildSteps(built);
  const looks = looksOf(steps.lines);
  const title = titleOf(block);
  page(`${title}, summary`);
  summary(sheet, scene, built, { steps, looks, page });
  const { w, d } = block;
  stepPages(sheet, { title, corner: 'the module’s', from: 'datum', floor, w, d, ...steps }, looks, page);
}

/** What is built step by step. */
interface Stepped extends BuildSteps {
  title: string;
  /** Whose corner studs are counted from. */
  corner: string;
  /** What heights are counted from, and how far below its floor that lies, plates. */
  from: string;
  floor: number;
  w: number;
  d: number;
}

/** A page or more for each step: its pieces from above, and what they are. */
function stepPages(sheet: PdfPage, of: Stepped, looks: readonly Look[], page: NewPage): void {
  const { title, corner, from, floor, w, d, steps } = of;
  const parts = partsOf({ x: 0, y: 0, w, d });
  steps.forEach(({ z, pieces }, step) => {
    const below = laidBelow(of, step);
    const place =
      z === null ? 'scattered on the finished ground' : `${formatPlates(z + floor)} above ${from}`;
    for (const part of parts) {
      // A piece over the edge of a part is drawn on both and counted where its north-west stud lies.
      const own = pieces.filter(({ x, y }) => holds(part, x, y));
      if (own.length === 0) continue;
      const which = parts.length > 1 ? `, ${part.word}` : '';
      const head = `${title}, step ${step + 1} of ${steps.length}${which}`;
      page(head);
      const studs = `studs ${part.x} to ${part.x + part.w} east and ${part.y} to ${part.y + part.d} south of ${corner} corner`;
      sheet.text(`${place}${parts.length > 1 ? `; ${studs}` : ''}`, MARGIN, MARGIN + 10, { size: 3.2 });
      const shown = pieces.filter((piece) => touches(part, piece));
      const seen = below.filter((piece) => touches(part, piece));
      const bottom = picture(sheet, part, { shown, below: seen, looks });
      const right = sheet.w - MARGIN;
      const deep = sheet.d - 2 * MARGIN;
      const columns: Rect<'mm'>[] = [{ x: right - LIST, y: MARGIN + 16, w: LIST, d: deep - 16 }];
      const under = { y: bottom + 8, d: sheet.d - MARGIN - bottom - 8 };
      if (under.d > 4 * ROW)
        for (let x = MARGIN; x + LIST <= right - LIST - 4; x += LIST + 4)
          columns.push({ x, w: LIST, ...under });
      list(sheet, stepCounts(of.lines, own), looks, columns, () => page(`${head}, list continued`));
    }
  });
}

interface Part extends Rect {
  word: string;
}

/** A block in parts that a page can show; one where it is small enough. */
function partsOf({ w, d }: Rect): Part[] {
  const [columns, rows] = [Math.ceil(w / PART_W), Math.ceil(d / PART_D)];
  const cut = (length: number, of: number, i: number) => Math.round((length * i) / of);
  return Array.from({ length: rows * columns }, (_, i) => {
    const [row, column] = [Math.trunc(i / columns), i % columns];
    const [x, y] = [cut(w, columns, column), cut(d, rows, row)];
    return {
      ...{ x, y, w: cut(w, columns, column + 1) - x, d: cut(d, rows, row + 1) - y },
      word: `part ${i + 1} of ${rows * columns}`,
    };
  });
}

const holds = ({ x, y, w, d }: Rect, px: number, py: number) =>
  px >= x && px < x + w && py >= y && py < y + d;
const touches = (part: Rect, { x, y, w, d }: Rect) =>
  x < part.x + part.w && x + w > part.x && y < part.y + part.d && y + d > part.y;

/** The pieces of a step from above. @returns how far down the sheet the picture goes, mm */
function picture(
  sheet: PdfPage,
  part: Rect,
  {
    shown,
    below,
    looks,
  }: { shown: readonly StepPiece[]; below: readonly StepPiece[]; looks: readonly Look[] },
): number {
  const room = {
    x: MARGIN + 6,
    y: MARGIN + 20,
    w: sheet.w - 2 * MARGIN - LIST - 12,
    d: sheet.d - 2 * MARGIN - 22,
  };
  const scale = Math.min(room.w / part.w, room.d / part.d, 8);
  const on = ({ x, y, w, d }: Rect): Rect<'mm'> => ({
    ...{ x: room.x + (x - part.x) * scale, y: room.y + (y - part.y) * scale, w: w * scale, d: d * scale },
  });
  const frame = on(part);
  sheet.clipped(frame, () => {
    sheet.fills(below.map(on), '#e9e8e4');
    sheet.lines(
      below.map((piece) => rectCorners(on(piece))),
      { closed: true, width: 0.08, colour: '#c3c1ba' },
    );
    studLines(sheet, frame, part, scale);
    const byLine = new Map<number, Rect<'mm'>[]>();
    for (const piece of shown) {
      const rects = byLine.get(piece.line) ?? [];
      rects.push(on(piece));
      byLine.set(piece.line, rects);
    }
    for (const [line, rects] of byLine) {
      const { paint, hatch, ink } = present(looks[line], 'the look of a line');
      sheet.fills(rects, paint ?? '#ffffff');
      if (hatch !== null) sheet.hatch(rects, hatch, ink);
    }
    sheet.lines(
      shown.map((piece) => rectCorners(on(piece))),
      { closed: true, width: 0.16 },
    );
    for (const piece of shown) {
      const { mark, paint, ink } = present(looks[piece.line], 'the look of a line');
      const { x, y, w, d } = on(piece);
      const size = Math.max(1.5, Math.min(2.8, 0.6 * Math.min(w, d)));
      const turn = d > w * 1.2 && sheet.widthOf(mark, size) > w * 0.9 ? 90 : 0;
      const style = { size, turn, align: 'center' as const, colour: ink, halo: paint ?? '#ffffff' };
      sheet.text(mark, x + w / 2, y + d / 2, style);
      if (piece.falls !== undefined) arrow(sheet, { x, y, w, d }, piece.falls, ink);
    }
  });
  sheet.line(rectCorners(frame), { closed: true, width: 0.4 });
  for (let stud = 0; stud <= part.w; stud++)
    if ((part.x + stud) % 8 === 0 || stud === part.w)
      sheet.text(String(part.x + stud), frame.x + stud * scale, frame.y - 2.6, {
        size: 2.2,
        align: 'center',
      });
  for (let stud = 0; stud <= part.d; stud++)
    if ((part.y + stud) % 8 === 0 || stud === part.d)
      sheet.text(String(part.y + stud), frame.x - 1.4, frame.y + stud * scale, { size: 2.2, align: 'right' });
  return frame.y + frame.d;
}

/** Stud lines, each eighth of the module stronger. */
function studLines(sheet: PdfPage, { x, y, w, d }: Rect<'mm'>, part: Rect, scale: number): void {
  const fine: PaperPoint[][] = [];
  const strong: PaperPoint[][] = [];
  for (let i = 1; i < part.w; i++)
    ((part.x + i) % 8 === 0 ? strong : fine).push([
      { x: x + i * scale, y },
      { x: x + i * scale, y: y + d },
    ]);
  for (let i = 1; i < part.d; i++)
    ((part.y + i) % 8 === 0 ? strong : fine).push([
      { x, y: y + i * scale },
      { x: x + w, y: y + i * scale },
    ]);
  sheet.lines(fine, { width: 0.05, colour: '#b9b6ae' });
  sheet.lines(strong, { width: 0.12, colour: '#96938b' });
}

/** A small point at the side to which a slope falls. */
function arrow(sheet: PdfPage, { x, y, w, d }: Rect<'mm'>, falls: number, colour: string): void {
  const turn = (falls * Math.PI) / 2;
  const [dx, dy] = [Math.round(Math.cos(turn)), Math.round(Math.sin(turn))];
  const tip = { x: x + w / 2 + (dx * w) / 2, y: y + d / 2 + (dy * d) / 2 };
  const size = 0.28 * Math.min(w, d);
  const side = (sign: number) => ({
    x: tip.x - dx * size + sign * dy * size * 0.6,
    y: tip.y - dy * size + sign * dx * size * 0.6,
  });
  sheet.line([side(1), tip, side(-1)], { width: 0.18, colour });
}

/** Lists lines in columns; where they are full it goes on to pages of their own, in three columns. Nothing is dropped. */
function list(
  sheet: PdfPage,
  rows: readonly (StepLine & { line: number })[],
  looks: readonly Look[],
  columns: readonly Rect<'mm'>[],
  next: () => void,
): void {
  let [left, column] = [[...columns], 0];
  const columnNow = () => present(left[column], 'a column of the page');
  let { y } = columnNow();
  for (const { part, colour, qty, line } of rows) {
    const words = sheet.wrapped(`${partName(part)} in ${colourName(colour)}`, LIST - 26, 3);
    const deep = ROW * words.length;
    while (y + deep > columnNow().y + columnNow().d) {
      column++;
      if (column === left.length) {
        next();
        left = pageColumns(sheet);
        column = 0;
      }
      ({ y } = columnNow());
    }
    const { x } = columnNow();
    const { mark, paint, hatch, ink } = present(looks[line], 'the look of a line');
    const box = { x: x + 8, y: y - 1.6, w: 4.4, d: 3.2 };
    sheet.text(mark, x + 6.4, y, { size: 3, bold: true, align: 'right' });
    sheet.fills([box], paint ?? '#ffffff');
    if (hatch !== null) sheet.hatch([box], hatch, ink);
    sheet.line(rectCorners(box), { closed: true, width: 0.12 });
    sheet.text(qty.toLocaleString('en'), x + 22.5, y, { size: 3, bold: true, align: 'right' });
    words.forEach((text, i) => sheet.text(text, x + 25, y + i * ROW, { size: 3 }));
    y += deep;
  }
}

/** The columns of a page that holds nothing but a list, below `from`. */
function pageColumns(sheet: PdfPage, from = MARGIN + 16): Rect<'mm'>[] {
  const gap = (sheet.w - 2 * MARGIN - 3 * LIST) / 2;
  return [0, 1, 2].map((i) => ({
    ...{ x: MARGIN + i * (LIST + gap), y: from, w: LIST },
    d: sheet.d - MARGIN - from,
  }));
}

/** What a module is, where it lies and all it takes. */
function summary(
  sheet: PdfPage,
  scene: Scene,
  built: Built,
  { steps, looks, page }: { steps: BuildSteps; looks: readonly Look[]; page: NewPage },
): void {
  const { block, fill, floor } = built.ground;
  const { pieces, grams } = countMasonry(fill, built, () => 0, scene.partType);
  const top = built.masonry.built.reduce((most, height) => Math.max(most, height), 0);
  const bases = new Map<string, number>();
  for (const { w, d } of scene.module[block.id]?.bases ?? [])
    bases.set(`${w}×${d}`, (bases.get(`${w}×${d}`) ?? 0) + 1);
  const facts: readonly [string, string][] = [
    ['Size', `${block.w} × ${block.d} studs, ${block.w * MM_PER_STUD} × ${block.d * MM_PER_STUD} mm`],
    ['Place', `${block.x} studs east and ${block.y} south of the display’s origin`],
    ['Bases', [...bases].map(([size, count]) => `${count} of ${size}`).join(', ') || 'none named'],
    ['Highest', `${formatPlates(top + floor)} above datum`],
    ['Ground', `${pieces.toLocaleString('en')} pieces, ${(grams / 1000).toFixed(2)} kg without its bases`],
    ['Steps', String(steps.steps.length)],
  ];
  const room = { x: sheet.w - MARGIN - LIST, y: FACTS_AT - 2, w: LIST, d: 32 };
  const from = Math.max(factRows(sheet, facts), keyPlan(sheet, scene, block, room)) + 10;
  lineList(sheet, titleOf(block), steps.lines, looks, from, page);
  if (steps.lines.length === 0) sheet.text('Nothing is to be built here.', MARGIN, from, { size: 3.4 });
}

/** Where facts begin on a summary, mm. */
const FACTS_AT = MARGIN + 14;

/** Rows of what something is. @returns how far down they go, mm */
function factRows(sheet: PdfPage, facts: readonly (readonly [string, string])[]): number {
  facts.forEach(([label, value], i) => {
    sheet.text(label, MARGIN, FACTS_AT + i * 5, { size: 3, grey: true });
    sheet.text(value, MARGIN + 22, FACTS_AT + i * 5, { size: 3, within: 150 });
  });
  return FACTS_AT + facts.length * 5;
}

/** All lines of what is built, with the words that explain the pictures. */
function lineList(
  sheet: PdfPage,
  title: string,
  lines: readonly StepLine[],
  looks: readonly Look[],
  from: number,
  page: NewPage,
): void {
  sheet.text(
    'Grey: what stands already. White: any colour. A point on a slope shows where it falls to.',
    MARGIN,
    from - 7,
    {
      size: 2.6,
      grey: true,
    },
  );
  list(
    sheet,
    lines.map((line, i) => ({ ...line, line: i })),
    looks,
    pageColumns(sheet, from),
    () => page(`${title}, summary continued`),
  );
}

/** All modules as boxes, one of them filled. @returns its lower edge on the sheet, mm */
function keyPlan(sheet: PdfPage, scene: Scene, { id }: CountingBlock, room: Rect<'mm'>): number {
  const modules = listOf(scene, 'module');
  const [x0, y0] = [Math.min(...modules.map(({ x }) => x)), Math.min(...modules.map(({ y }) => y))];
  const w = Math.max(...modules.map((one) => one.x + one.w)) - x0;
  const d = Math.max(...modules.map((one) => one.y + one.d)) - y0;
  const scale = Math.min(room.w / w, room.d / d);
  const left = room.x + room.w - w * scale;
  for (const module of modules) {
    const box = {
      ...{ x: left + (module.x - x0) * scale, y: room.y + (module.y - y0) * scale },
      ...{ w: module.w * scale, d: module.d * scale },
    };
    const own = module.id === id;
    if (own) sheet.fills([box], '#22292e');
    sheet.line(rectCorners(box), { closed: true, width: 0.15 });
    const size = Math.min(2.6, box.d * 0.6);
    if (size > 1.2)
      sheet.text(module.name, box.x + box.w / 2, box.y + box.d / 2, {
        ...{ size, align: 'center', within: box.w },
        ...(own ? { colour: '#ffffff' } : {}),
      });
  }
  return room.y + d * scale;
}
