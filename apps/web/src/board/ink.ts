import type { Rect } from '@quarry/core/grid';
import type { EvaluatedFinding } from '@quarry/core/findings';
import type { Scene } from '@quarry/core/document';
import type { CutLine, BoardLayer } from '../data/view.ts';
import type { GroundArt } from './groundArt.ts';
import type { Palette } from './palette.ts';
import { rectToScreen, type Viewport } from './viewport.ts';

/** What a board shows: everything is drawn from this and nothing else. */
export interface Picture {
  scene: Scene;
  art: GroundArt | null;
  findings: readonly EvaluatedFinding[];
  palette: Palette;
  view: Viewport;
  width: number;
  height: number;
  hidden: ReadonlySet<BoardLayer>;
  /** What the tape beside the studs counts. */
  metric: 'mm' | 'in';
  /** The part of the screen that is to be drawn, px; left out: all of it. */
  part?: Rect;
  /** Where the section cut lies; null: none. */
  cut: CutLine | null;
  /** Pictures under the plan that have loaded, by id. */
  images: ReadonlyMap<string, CanvasImageSource>;
}

export const MONO = "'Spline Sans Mono'";

export const SANS = "'Archivo Variable'";

/** Width of the rulers on all four sides, px. */
export const RULER = 20;

/** Where a rectangle of studs is on the screen, if any of it or of its surroundings, px, is to be drawn. */
export function visible({ view, width, height, part }: Picture, rect: Rect, around = 0): Rect | null {
  const on = rectToScreen(view, rect);
  const seen = part ?? { x: 0, y: 0, w: width, d: height };
  return on.x + on.w + around > seen.x &&
    on.x - around < seen.x + seen.w &&
    on.y + on.d + around > seen.y &&
    on.y - around < seen.y + seen.d
    ? on
    : null;
}

/** Goes into stud space; line widths are then divided by the scale. */
export function inStuds(ctx: CanvasRenderingContext2D, { view }: Picture, draw: () => void): void {
  ctx.save();
  ctx.translate(view.x, view.y);
  ctx.scale(view.scale, view.scale);
  draw();
  ctx.restore();
}

export function halo(
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
export function plate(
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

/** 45° hairlines, `apart` px from one to the next, that end exactly on a rectangle's sides. */
export function hatch(ctx: CanvasRenderingContext2D, { x, y, w, d }: Rect, apart = 6): void {
  for (let shift = apart; shift < w + d; shift += apart) {
    ctx.moveTo(x + Math.min(shift, w), y + Math.max(0, shift - w));
    ctx.lineTo(x + Math.max(0, shift - d), y + Math.min(shift, d));
  }
}

/** Breaks a name into lines that fit; what does not fit ends in an ellipsis. */
export function wrap(ctx: CanvasRenderingContext2D, text: string, width: number, most: number): string[] {
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
