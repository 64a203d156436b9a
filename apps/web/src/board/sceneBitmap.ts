import type { Rect } from '@quarry/core/grid';
import { collectLabels } from './collectLabels.ts';
import { dirtyParts } from './dirty.ts';
import { drawFrame } from './drawFrame.ts';
import { drawScene } from './drawScene.ts';
import type { Picture } from './ink.ts';
import { drawLabels, lineMeasure, placeBoardLabels } from './labels.ts';
import type { Viewport } from './viewport.ts';

/** How far beyond the screen the kept picture reaches, px. */
const MARGIN = 320;
/** Shortest time between redraws while the view moves, ms. */
const PATIENCE_MS = 160;
/** How long names wait after a change of a part, ms: a thing that is moved is drawn first. */
const LETTER_MS = 30;
/** How long the view must rest before the picture is drawn sharp and centred again, ms. */
const REST_MS = 110;

/**
 * The board's picture, kept as a bitmap with a margin: while the view moves, the bitmap is shifted (and scaled) in a
 * millisecond or two; when it rests, or when the contents change, it is redrawn.
 */
export class SceneBitmap {
  private readonly canvas = document.createElement('canvas');
  /** Names and marks, on a canvas of their own: a change in a corner may move them anywhere. */
  private readonly labels = document.createElement('canvas');
  /** Both in one, so that a moving view costs one picture a frame; while names wait it is not whole. */
  private readonly whole = document.createElement('canvas');
  private isWhole = false;
  private lettering: ReturnType<typeof setTimeout> | undefined;
  private readonly measure = lineMeasure();
  private kept: Picture | null = null;
  private drawnAt = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** @param onRest called when the view has come to rest and the board should be drawn once more */
  constructor(private readonly onRest: () => void) {}

  draw(ctx: CanvasRenderingContext2D, picture: Picture, pixelRatio: number): void {
    const { kept } = this;
    clearTimeout(this.timer);
    const scaled = kept !== null && kept.view.scale !== picture.view.scale;
    const shift = kept === null ? 0 : shiftOf(kept.view, picture.view);
    const moved = scaled || shift > 0;
    const now = performance.now();
    // What differs is looked for in the view the kept picture has.
    const parts = kept && dirtyParts(kept, { ...picture, view: kept.view });
    if (!kept || !parts || ((scaled || shift > MARGIN) && now - this.drawnAt > PATIENCE_MS))
      this.render(picture, pixelRatio, now);
    else {
      if (parts.length > 0) this.mend({ ...picture, view: kept.view }, parts, pixelRatio);
      if (moved)
        this.timer = setTimeout(() => {
          this.kept = null;
          this.onRest();
        }, REST_MS);
    }
    this.blit(ctx, picture);
    drawFrame(ctx, picture);
    if (kept?.scene !== picture.scene) note('things drawn');
    if (kept?.art !== picture.art) note('ground drawn');
  }

  dispose(): void {
    clearTimeout(this.timer);
    this.canvas.width = 0;
    this.labels.width = 0;
    this.whole.width = 0;
    clearTimeout(this.lettering);
  }

  private render(picture: Picture, pixelRatio: number, now: number): void {
    const { width, height } = withMargin(picture);
    this.canvas.width = width * pixelRatio;
    this.canvas.height = height * pixelRatio;
    const ctx = this.canvas.getContext('2d');
    if (!ctx) return;
    ctx.setTransform(pixelRatio, 0, 0, pixelRatio, 0, 0);
    drawScene(ctx, withMargin(picture));
    for (const canvas of [this.labels, this.whole]) {
      canvas.width = this.canvas.width;
      canvas.height = this.canvas.height;
    }
    clearTimeout(this.lettering);
    this.letter(picture, pixelRatio);
    this.kept = picture;
    this.drawnAt = now;
  }

  /** Places all names and marks again. */
  private letter(picture: Picture, pixelRatio: number): void {
    const ctx = this.labels.getContext('2d');
    if (!ctx) return;
    ctx.setTransform(pixelRatio, 0, 0, pixelRatio, 0, 0);
    ctx.clearRect(0, 0, this.labels.width, this.labels.height);
    const whole = withMargin(picture);
    drawLabels(ctx, placeBoardLabels(collectLabels(whole), this.measure, whole.hidden));
    const both = this.whole.getContext('2d');
    if (!both) return;
    for (const canvas of [this.canvas, this.labels]) both.drawImage(canvas, 0, 0);
    this.isWhole = true;
  }

  /** Redraws only some parts, in the view of the kept picture. */
  private mend(picture: Picture, parts: readonly Rect<'px'>[], pixelRatio: number): void {
    const ctx = this.canvas.getContext('2d');
    if (!ctx) return;
    const whole = withMargin(picture);
    for (const { x, y, w, d } of parts) {
      // On whole pixels, so that no hairline of the old picture stays at the edges.
      const [west, north] = [Math.floor(x + MARGIN), Math.floor(y + MARGIN)];
      const part = {
        x: west,
        y: north,
        w: Math.ceil(x + w + MARGIN) - west,
        d: Math.ceil(y + d + MARGIN) - north,
      };
      ctx.save();
      ctx.beginPath();
      ctx.rect(part.x, part.y, part.w, part.d);
      ctx.clip();
      drawScene(ctx, { ...whole, part });
      ctx.restore();
    }
    this.isWhole = false;
    clearTimeout(this.lettering);
    this.lettering = setTimeout(() => {
      this.letter(picture, pixelRatio);
      this.onRest();
    }, LETTER_MS);
    this.kept = picture;
  }

  private blit(ctx: CanvasRenderingContext2D, { view, palette, width, height }: Picture): void {
    const { kept } = this;
    ctx.fillStyle = palette.paper;
    ctx.fillRect(0, 0, width, height);
    if (!kept) return;
    const zoom = view.scale / kept.view.scale;
    const x = view.x - kept.view.x * zoom - MARGIN * zoom;
    const y = view.y - kept.view.y * zoom - MARGIN * zoom;
    const [wide, high] = [(kept.width + 2 * MARGIN) * zoom, (kept.height + 2 * MARGIN) * zoom];
    for (const canvas of this.isWhole ? [this.whole] : [this.canvas, this.labels])
      ctx.drawImage(canvas, x, y, wide, high);
  }
}

/** Marks a frame for measuring the time from a key to the board; nothing is kept. */
function note(what: 'things drawn' | 'ground drawn'): void {
  performance.mark(what);
  performance.clearMarks(what);
}

/** The picture with the margin that is kept beyond the screen. */
const withMargin = (picture: Picture): Picture => ({
  ...picture,
  width: picture.width + 2 * MARGIN,
  height: picture.height + 2 * MARGIN,
  view: { ...picture.view, x: picture.view.x + MARGIN, y: picture.view.y + MARGIN },
});

const shiftOf = (a: Viewport, b: Viewport) => Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y));
