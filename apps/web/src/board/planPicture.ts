import { displayOf, type Scene } from '@quarry/core/document';
import { MM_PER_STUD } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import { formatMeasure } from '../ui/quantity.ts';
import type { BoardLayer } from '../data/view.ts';
import type { CompiledGround } from '../workers/useDerived.ts';
import { collectLabels } from './collectLabels.ts';
import { drawFrame } from './drawFrame.ts';
import { drawScene } from './drawScene.ts';
import { groundArt } from './groundArt.ts';
import { RULER, SANS } from './ink.ts';
import { drawLabels, lineMeasure, placeBoardLabels } from './labels.ts';
import { SWATCH, legendEntries } from './legendEntries.ts';
import { PALETTES } from './palette.ts';

/** The longest side of the picture, px. */
const MAX_PIXELS = 6000;
/** Pixels of the picture to one of the board, so that its lettering is legible. */
const RATIO = 2;
/** Largest scale, px of the board to a stud. */
const MAX_SCALE = 8;
/** Studs left free around the plan. */
const MARGIN = 7;
/** Narrowest picture, px of the board: the key's columns need it. */
const MIN_WIDTH = 460;
/** Widest column of the key and its lines' height, px of the board. */
const KEY = { column: 230, row: 24, head: 40 };

interface PlanPicture {
  scene: Scene;
  ground: CompiledGround;
  hidden: ReadonlySet<BoardLayer>;
  metric: 'mm' | 'in';
  images: ReadonlyMap<string, CanvasImageSource>;
}

/**
 * The whole plan as a picture that leaves the program: by day, with rulers, scale bar, north, and the key at its foot.
 * @returns null when there is no scene or the browser gives no canvas
 */
export function drawPlanPicture({
  scene,
  ground,
  hidden,
  metric,
  images,
}: PlanPicture): HTMLCanvasElement | null {
  const whole = footprintBounds(scene);
  const canvas = document.createElement('canvas');
  const ctx = canvas.getContext('2d');
  if (!whole || !ctx) return null;
  const palette = PALETTES.day;
  const studs = { w: whole.w + 2 * MARGIN, d: whole.d + 2 * MARGIN };
  const longest = MAX_PIXELS / RATIO - 2 * RULER;
  const scale = Math.min(MAX_SCALE, longest / Math.max(studs.w, studs.d));
  const width = Math.max(MIN_WIDTH, Math.round(studs.w * scale) + 2 * RULER);
  const height = Math.round(studs.d * scale) + 2 * RULER;
  const entries = legendEntries(scene, ground.relief, palette);
  const columns = Math.max(1, Math.floor((width - 2 * RULER) / KEY.column));
  const keyHeight = KEY.head + Math.ceil(entries.length / columns) * KEY.row + RULER / 2;
  canvas.width = width * RATIO;
  canvas.height = (height + keyHeight) * RATIO;
  ctx.scale(RATIO, RATIO);
  ctx.fillStyle = palette.sheet;
  ctx.fillRect(0, 0, width, height + keyHeight);
  const west = (width - studs.w * scale) / 2;
  const picture = {
    scene,
    art: groundArt(ground, scene, palette, null),
    findings: [],
    palette,
    view: { scale, x: west + (MARGIN - whole.x) * scale, y: RULER + (MARGIN - whole.y) * scale },
    width,
    height,
    hidden,
    level: null,
    metric,
    cut: null,
    images,
  };
  ctx.save();
  ctx.beginPath();
  ctx.rect(0, 0, width, height);
  ctx.clip();
  drawScene(ctx, picture);
  drawLabels(ctx, placeBoardLabels(collectLabels(picture), lineMeasure(), hidden));
  drawFrame(ctx, picture);
  ctx.restore();

  const inTape = (studs: number) => formatMeasure(studs * MM_PER_STUD, 'mm', metric);
  ctx.textBaseline = 'middle';
  ctx.textAlign = 'left';
  ctx.fillStyle = palette.ink;
  ctx.font = `600 15px ${SANS}`;
  ctx.fillText(displayOf(scene).name, RULER, height + KEY.head / 2, width - 300);
  ctx.textAlign = 'right';
  ctx.font = `12px ${SANS}`;
  ctx.fillText(
    `${whole.w} × ${whole.d} studs, ${inTape(whole.w)} × ${inTape(whole.d)}`,
    width - RULER,
    height + KEY.head / 2,
  );
  ctx.textAlign = 'left';
  entries.forEach(({ word, draw }, i) => {
    ctx.save();
    ctx.translate(RULER + (i % columns) * KEY.column, height + KEY.head + Math.floor(i / columns) * KEY.row);
    draw(ctx);
    ctx.fillStyle = palette.ink;
    ctx.fillText(word, SWATCH.w + 6, SWATCH.h / 2, KEY.column - SWATCH.w - 14);
    ctx.restore();
  });
  return canvas;
}
