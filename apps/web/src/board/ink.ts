import type { Rect } from '@quarry/core/grid';
import type { EvaluatedFinding } from '@quarry/core/findings';
import type { Scene } from '@quarry/core/document';
import type { CutLine, BoardLayer, LevelView } from '../data/view.ts';
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
  /** The level it shows; null: all from above. */
  level: LevelView;
  /** What the tape beside the studs counts. */
  metric: 'mm' | 'in';
  /** The part of the screen that is to be drawn, px; left out: all of it. */
  part?: Rect<'px'>;
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
export function visible({ view, width, height, part }: Picture, rect: Rect, around = 0): Rect<'px'> | null {
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

/** 45° hairlines, `apart` px from one to the next, that end exactly on a rectangle's sides. */
export function hatch(ctx: CanvasRenderingContext2D, { x, y, w, d }: Rect<'px'>, apart = 6): void {
  for (let shift = apart; shift < w + d; shift += apart) {
    ctx.moveTo(x + Math.min(shift, w), y + Math.max(0, shift - w));
    ctx.lineTo(x + Math.max(0, shift - d), y + Math.min(shift, d));
  }
}

/** Usual width of a letter of names, px: lines are broken by it, and placed by their true width. */
const LETTER = 5.7;

/** Breaks a name into lines that fit; what does not fit ends in an ellipsis. @param most lines */
export function wrapText(text: string, width: number, most: number): string[] {
  const letters = Math.max(2, Math.floor(width / LETTER));
  const lines: string[] = [];
  for (const word of text.split(' ')) {
    const joined = lines.length > 0 ? `${lines[lines.length - 1]} ${word}` : word;
    if (lines.length > 0 && joined.length <= letters) lines[lines.length - 1] = joined;
    else lines.push(word);
  }
  const kept = lines.slice(0, Math.max(1, most));
  return kept.map((line, i) => {
    const goesOn = i === kept.length - 1 && kept.length < lines.length;
    return line.length + (goesOn ? 1 : 0) > letters
      ? `${line.slice(0, letters - 1)}…`
      : goesOn
        ? `${line}…`
        : line;
  });
}

/** Spots within a rectangle above and below its middle, for a line of text, px. */
export const within = ({ x, y, w, d }: Rect<'px'>): { x: number; y: number }[] =>
  [-14, 14, -28, 28]
    .map((by) => ({ x: x + w / 2, y: y + d / 2 + by }))
    .filter((spot) => spot.y > y + 7 && spot.y < y + d - 7);
