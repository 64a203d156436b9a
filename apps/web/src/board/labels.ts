import { placeByRank, type LabelBox } from '@quarry/core/grid';
import type { BoardLayer } from '../data/view.ts';
import { SANS, type Picture } from './ink.ts';
import { toScreen } from './viewport.ts';

// Names and marks of the board: collected from all kinds, placed by rank so that none lies on another, then drawn.

/** Who is placed first where two want one place: the smallest. */
export const LABEL_RANKS = {
  finding: 0,
  section: 10,
  cut: 15,
  module: 20,
  figure: 25,
  marker: 30,
  plot: 40,
  rising: 50,
  water: 55,
  line: 60,
  table: 70,
  note: 80,
  measure: 85,
  spot: 90,
  contour: 95,
} as const;

export interface LabelLine {
  text: string;
  font: string;
  ink: string;
  /** Between letters, px. */
  spaced?: number;
}

/** What a label is written on. `halo`: its letters are rimmed; `plate`: a rectangle; `ring` and `flag`: a framed mark. */
export type LabelGround =
  | { as: 'halo' | 'plate'; paper: string }
  | { as: 'ring'; paper: string; ink: string; radius: number; width: number; dash?: readonly number[] }
  | { as: 'flag'; paper: string }
  | { as: 'triangle'; paper: string; rim: string; radius: number };

export interface BoardLabel {
  rank: number;
  /** The layer that hides it. */
  layer?: BoardLayer;
  /** What it may say, the fullest first; each is tried at all spots before the next. */
  says: readonly (readonly LabelLine[])[];
  /** Middles that it may have, px, the best first. */
  spots: readonly { x: number; y: number }[];
  /** Turned about its middle, radians clockwise. */
  angle?: number;
  ground: LabelGround;
  /** Room kept free about it, px. */
  air?: number;
}

/** A label with the words and the place it has been given. */
export interface PlacedBoardLabel {
  label: BoardLabel;
  lines: readonly LabelLine[];
  at: { x: number; y: number };
  width: number;
  height: number;
  boxes: readonly LabelBox[];
}

/** Width of a line, px. */
export type MeasureLine = (line: LabelLine) => number;

const AIR = 2;
const LINE_HEIGHT = 1.2;
export const fontSize = (font: string): number => Number(/([\d.]+)px/.exec(font)?.[1] ?? 11);

/** Size of a label's words with what they are written on, px. */
function sizeOf(ground: LabelGround, lines: readonly LabelLine[], measure: MeasureLine) {
  if (ground.as === 'ring' || ground.as === 'triangle') {
    const side = 2 * ground.radius + 2;
    return { width: side, height: side };
  }
  const width = Math.max(...lines.map(measure));
  const height = lines.reduce((sum, { font }) => sum + LINE_HEIGHT * fontSize(font), 0);
  return ground.as === 'flag' ? { width: width + 8, height: height + 2 } : { width: width + 2, height };
}

/** The boxes that a turned rectangle takes: one, or squares along it where it leans. */
function boxesOf(
  at: { x: number; y: number },
  { width, height }: { width: number; height: number },
  angle: number,
  air: number,
): LabelBox[] {
  const box = (x: number, y: number, w: number, h: number): LabelBox => ({
    minX: x - w / 2 - air,
    minY: y - h / 2 - air,
    maxX: x + w / 2 + air,
    maxY: y + h / 2 + air,
  });
  if (Math.abs(Math.sin(angle)) < 0.01) return [box(at.x, at.y, width, height)];
  if (Math.abs(Math.cos(angle)) < 0.01) return [box(at.x, at.y, height, width)];
  const [u, v] = [Math.cos(angle), Math.sin(angle)];
  const count = Math.max(1, Math.ceil(width / height));
  const long = width / count;
  // Each piece of the leaning strip in the box that holds it.
  const [w, h] = [long * Math.abs(u) + height * Math.abs(v), long * Math.abs(v) + height * Math.abs(u)];
  return Array.from({ length: count }, (_, i) => {
    const along = (i + 0.5) * long - width / 2;
    return box(at.x + along * u, at.y + along * v, w, h);
  });
}

/** Places labels by rank, none on another. @param hidden layers whose labels are left out */
export function placeBoardLabels(
  labels: readonly BoardLabel[],
  measure: MeasureLine,
  hidden: ReadonlySet<BoardLayer>,
): PlacedBoardLabel[] {
  const shown = labels.filter(({ layer }) => !layer || !hidden.has(layer));
  const { placed } = placeByRank(shown, function* ({ says, spots, ground, angle = 0, air = AIR }) {
    for (const lines of says) {
      const size = sizeOf(ground, lines, measure);
      for (const at of spots) yield { lines, at, ...size, boxes: boxesOf(at, size, angle, air) };
    }
  });
  return placed.map(({ thing, place }) => ({ label: thing, ...place }));
}

/** Draws labels where they have been placed. */
export function drawLabels(ctx: CanvasRenderingContext2D, placed: readonly PlacedBoardLabel[]): void {
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.lineJoin = 'round';
  // The first placed are the most important: they are drawn last.
  for (const { label, lines, at, width, height } of placed.toReversed()) {
    ctx.save();
    ctx.translate(at.x, at.y);
    if (label.angle) ctx.rotate(label.angle);
    drawGroundOf(ctx, label.ground, width, height);
    let y = -height / 2;
    if (label.ground.as === 'ring' || label.ground.as === 'triangle')
      y = (label.ground.as === 'ring' ? 0.5 : 1.5) - (LINE_HEIGHT * fontSize(lines[0]?.font ?? '')) / 2;
    else if (label.ground.as === 'flag') y += 1.5;
    for (const { text, font, ink, spaced } of lines) {
      const step = LINE_HEIGHT * fontSize(font);
      ctx.font = font;
      ctx.letterSpacing = `${spaced ?? 0}px`;
      if (label.ground.as === 'halo') {
        ctx.strokeStyle = label.ground.paper;
        ctx.lineWidth = 3;
        ctx.strokeText(text, 0, y + step / 2);
      }
      ctx.fillStyle = ink;
      ctx.fillText(text, 0, y + step / 2);
      ctx.letterSpacing = '0px';
      y += step;
    }
    ctx.restore();
  }
}

function drawGroundOf(
  ctx: CanvasRenderingContext2D,
  ground: LabelGround,
  width: number,
  height: number,
): void {
  if (ground.as === 'halo') return;
  ctx.fillStyle = ground.paper;
  ctx.beginPath();
  if (ground.as === 'ring') ctx.arc(0, 0, ground.radius, 0, Math.PI * 2);
  else if (ground.as === 'triangle') {
    const r = ground.radius;
    ctx.moveTo(0, -r);
    ctx.lineTo(r, 0.75 * r);
    ctx.lineTo(-r, 0.75 * r);
    ctx.closePath();
  } else ctx.rect(-width / 2, -height / 2, width, height);
  ctx.fill();
  if (ground.as !== 'ring' && ground.as !== 'triangle') return;
  ctx.strokeStyle = ground.as === 'ring' ? ground.ink : ground.rim;
  ctx.lineWidth = ground.as === 'ring' ? ground.width : 1.5;
  ctx.setLineDash(ground.as === 'ring' ? [...(ground.dash ?? [])] : []);
  ctx.stroke();
  ctx.setLineDash([]);
}

/** Measures lines on a canvas, each text of a font once. */
export function lineMeasure(): MeasureLine {
  const ctx = document.createElement('canvas').getContext('2d');
  const known = new Map<string, number>();
  return ({ text, font, spaced = 0 }) => {
    const key = `${font} ${spaced} ${text}`;
    let width = known.get(key);
    if (width === undefined) {
      if (ctx) ctx.font = font;
      width = (ctx?.measureText(text).width ?? 0.6 * fontSize(font) * text.length) + spaced * text.length;
      if (known.size > MAX_MEASURED) known.clear();
      known.set(key, width);
    }
    return width;
  };
}
/** Texts whose width is kept. */
const MAX_MEASURED = 5000;

/** A label of one line at one spot, rimmed with the sheet's colour. */
export const textLabel = (
  { palette }: Pick<Picture, 'palette'>,
  rank: number,
  text: string,
  spots: BoardLabel['spots'],
  { font = `500 11px ${SANS}`, ink = palette.ink, paper = palette.sheet, angle = 0 } = {},
): BoardLabel => ({
  rank,
  says: [[{ text, font, ink }]],
  spots,
  angle,
  ground: { as: 'halo', paper },
});

/** Half the usual width of a letter, px. */
const LETTER = 3;

/** Where the name of a small sign may stand: beside it, on the other side where it would run off the scene, below or above. */
export function besideSpots(
  { view, art }: Pick<Picture, 'view' | 'art'>,
  at: { x: number; y: number },
  name: string,
): BoardLabel['spots'] {
  const { x, y } = toScreen(view, at.x, at.y);
  const half = LETTER * name.length;
  const sides = [
    { x: x + 10 + half, y },
    { x: x - 10 - half, y },
  ];
  const east = art ? toScreen(view, art.relief.x + art.relief.w, 0).x : Infinity;
  return [...(x + 14 + 2 * half > east ? sides.toReversed() : sides), { x, y: y + 16 }, { x, y: y - 16 }];
}
