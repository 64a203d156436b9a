import { drawFrame } from './drawFrame.ts';
import { drawSheet } from './drawSheet.ts';
import type { Picture } from './ink.ts';
import type { Viewport } from './viewport.ts';

/** How far beyond the screen the kept picture reaches, px. */
const MARGIN = 320;
/** While one moves, a kept picture that no longer covers the screen is drawn anew at most this often, ms. */
const PATIENCE_MS = 160;
/** How long the view must rest before the picture is drawn sharp and centred again, ms. */
const REST_MS = 110;

/**
 * The board's picture, kept as a bitmap with a margin: while the view moves, the bitmap is shifted (and scaled) in a
 * millisecond or two; when it rests, or when what is shown changes, it is drawn anew.
 */
export class Sheet {
  private readonly canvas = document.createElement('canvas');
  private kept: Picture | null = null;
  private drawnAt = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** @param onRest called when the view has come to rest and the board should be drawn once more */
  constructor(private readonly onRest: () => void) {}

  draw(ctx: CanvasRenderingContext2D, picture: Picture, pixelRatio: number): void {
    const { kept } = this;
    clearTimeout(this.timer);
    const same = kept !== null && sameContent(kept, picture);
    const moved =
      kept !== null && (kept.view.scale !== picture.view.scale || shiftOf(kept.view, picture.view) > 0);
    const covers =
      kept !== null && kept.view.scale === picture.view.scale && shiftOf(kept.view, picture.view) <= MARGIN;
    const now = performance.now();
    if (!same || (moved && !covers && now - this.drawnAt > PATIENCE_MS))
      this.render(picture, pixelRatio, now);
    else if (moved)
      this.timer = setTimeout(() => {
        this.kept = null;
        this.onRest();
      }, REST_MS);
    this.blit(ctx, picture);
    drawFrame(ctx, picture);
  }

  dispose(): void {
    clearTimeout(this.timer);
    this.canvas.width = 0;
  }

  private render(picture: Picture, pixelRatio: number, now: number): void {
    const width = picture.width + 2 * MARGIN;
    const height = picture.height + 2 * MARGIN;
    this.canvas.width = width * pixelRatio;
    this.canvas.height = height * pixelRatio;
    const ctx = this.canvas.getContext('2d');
    if (!ctx) return;
    ctx.setTransform(pixelRatio, 0, 0, pixelRatio, 0, 0);
    const { view } = picture;
    drawSheet(ctx, { ...picture, width, height, view: { ...view, x: view.x + MARGIN, y: view.y + MARGIN } });
    this.kept = picture;
    this.drawnAt = now;
  }

  private blit(ctx: CanvasRenderingContext2D, { view, palette, width, height }: Picture): void {
    const { kept } = this;
    ctx.fillStyle = palette.paper;
    ctx.fillRect(0, 0, width, height);
    if (!kept) return;
    const zoom = view.scale / kept.view.scale;
    const x = view.x - kept.view.x * zoom - MARGIN * zoom;
    const y = view.y - kept.view.y * zoom - MARGIN * zoom;
    ctx.drawImage(this.canvas, x, y, (kept.width + 2 * MARGIN) * zoom, (kept.height + 2 * MARGIN) * zoom);
  }
}

const shiftOf = (a: Viewport, b: Viewport) => Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y));

function sameContent(a: Picture, b: Picture): boolean {
  return (
    a.scene === b.scene &&
    a.art === b.art &&
    a.findings === b.findings &&
    a.palette === b.palette &&
    a.hidden === b.hidden &&
    a.cut === b.cut &&
    a.images === b.images &&
    a.width === b.width &&
    a.height === b.height
  );
}
