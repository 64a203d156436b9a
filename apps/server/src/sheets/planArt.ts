import {
  groundLooks,
  groundRuns,
  placeLabels,
  type Drawing,
  type DrawingLayer,
  type GroundLook,
  type Label,
  type PlacedLabel,
} from '@quarry/core/formats';
import { MM_PER_STUD, roundOut, type Rect, present } from '@quarry/core/grid';
import { coverFromAbove, type Relief } from '@quarry/core/terrain';
import type { Scene } from '@quarry/core/document';
import type { LineStyle, PdfPage } from './paper.ts';

// A plan as it is drawn on paper: grounds by tint and hatch, each kind of line by its weight and dash, no name on another.

const HATCH_INK = '#8f8d80';
const CONTOUR_INK = '#8a6f52';

/** Lines of each layer, the lowest first; layers that are not here are left to files. */
const STYLES = {
  CONTOURS: {
    word: 'Contour, each brick; heavier and with its height each five',
    width: 0.09,
    colour: CONTOUR_INK,
  },
  FOOTPRINT: { word: 'Edge of the display', width: 0.55 },
  WAYS: { word: 'Way or stream, its middle', width: 0.15, dash: [2, 1] },
  TRACKS: { word: 'Track, its middle', width: 0.4, dash: [0.5, 0.5] },
  DRESSING: { word: 'Plant, wall or repeat', width: 0.12 },
  PLOTS: { word: 'Building', width: 0.3 },
  TABLES: { word: 'Table', width: 0.25, dash: [0.3, 0.9], colour: '#5b646a' },
  SECTIONS: { word: 'Section', width: 0.35, dash: [1.3, 1.1], colour: '#1f6670' },
  MODULES: { word: 'Module', width: 0.5, dash: [5, 1.4], colour: '#8f3a22' },
  DECKS: { word: 'Deck over the ground', width: 0.5 },
  CAVITIES: { word: 'Cavity under the ground', width: 0.3, dash: [1, 0.8] },
  CABLES: { word: 'Cable of light and power', width: 0.2, dash: [1.6, 0.5], colour: '#1f6670' },
  DIMENSIONS: { word: 'Dimension', width: 0.2 },
} as const satisfies Partial<Record<DrawingLayer, LineStyle & { word: string }>>;
type PlanLayer = keyof typeof STYLES;
const LAYERS: readonly PlanLayer[] = [
  'CONTOURS',
  'FOOTPRINT',
  'WAYS',
  'TRACKS',
  'DRESSING',
  'PLOTS',
  'TABLES',
  'SECTIONS',
  'MODULES',
  'DECKS',
  'CAVITIES',
  'CABLES',
  'DIMENSIONS',
];
const INDEX_WIDTH = 0.22;
/** Smallest ground detail drawn, mm of the sheet. */
const MIN_STUD = 0.25;
/** Size of contour heights against that of names. */
const SMALL = 0.8;

/** A plan where it lies on a sheet: `scale` to one, its point `origin` (mm of the drawing) at `at` (mm of the sheet). */
interface Laid {
  drawing: Drawing;
  relief: Relief;
  scale: number;
  origin: { x: number; y: number };
  at: { x: number; y: number };
  /** Size of names, mm of the sheet. */
  size: number;
  /** Hatches without tints, which take much ink on many pages. */
  plain?: boolean;
  /** Draws between the grounds and the lines. */
  beneath?: () => void;
}

/** One line of a plan's key. */
export type KeyEntry =
  | { as: 'ground'; look: GroundLook; word: string }
  | { as: 'line'; layer: PlanLayer; word: string }
  | { as: 'number'; mark: string; word: string };

/** Where the names of a plan stand, and the key it needs. */
export interface PlanLabels {
  placed: PlacedLabel<PlanLabel>[];
  key: KeyEntry[];
  /** How grounds are drawn, by their code. */
  looks: readonly GroundLook[];
}
type PlanLabel = Label & { kind: LabelKind };
type LabelKind = 'module' | 'section' | 'plot' | 'mark' | 'height';
const RANKS: Readonly<Record<LabelKind, number>> = { module: 1, section: 2, plot: 3, mark: 4, height: 9 };
const KINDS: Readonly<Record<number, LabelKind>> = { 1: 'module', 2: 'section', 3: 'plot', 4: 'mark' };

/**
 * Finds a place for each name, in mm of the drawing. A name that finds none is written as a number; what a number
 * means stands in the key.
 * @param size height of names, mm of the drawing
 */
export function labelsOf(
  sheet: PdfPage,
  scene: Scene,
  drawing: Drawing,
  relief: Relief,
  size: number,
): PlanLabels {
  const names: PlanLabel[] = drawing.items.flatMap((item) => {
    const kind = item.kind === 'text' && item.rank !== undefined ? KINDS[item.rank] : undefined;
    if (item.kind !== 'text' || !kind) return [];
    return [{ ...{ at: item.at, text: item.text, size, rank: RANKS[kind] }, kind }];
  });
  for (const item of drawing.items) {
    if (item.kind !== 'line' || item.layer !== 'CONTOURS' || item.weight < 2) continue;
    if (item.points.length < 8) continue;
    const at = present(item.points[Math.trunc(item.points.length / 2)], 'the middle of a contour');
    names.push({ at, text: item.name ?? '', size: size * SMALL, rank: RANKS.height, kind: 'height' });
  }
  const widthOf = (text: string, height: number) => sheet.widthOf(text, height);
  const first = placeLabels(names, widthOf, drawing.bounds);
  const numbered = first.left
    .filter(({ kind }) => kind !== 'height')
    .map((label, i) => ({ name: label.text, label: { ...label, text: String(i + 1) } }));
  const second = placeLabels(
    numbered.map(({ label }) => label),
    widthOf,
    drawing.bounds,
    first.placed.map(({ at, width, size: height }) => ({
      ...{ x: at.x - width / 2, y: at.y - height / 2, w: width, d: height },
    })),
  );
  const drawn = new Set(second.placed.map(({ text }) => text));
  const cover = coverFromAbove(relief);
  const looks = groundLooks(scene);
  const grounds = looks.filter((_, code) => cover.includes(code));
  const layers = LAYERS.filter((layer) => drawing.items.some((item) => item.layer === layer));
  return {
    looks,
    placed: [...first.placed, ...second.placed],
    key: [
      ...layers.map((layer): KeyEntry => ({ as: 'line', layer, word: STYLES[layer].word })),
      ...grounds.map((look): KeyEntry => ({
        ...{ as: 'ground', look },
        word: `${look.word.charAt(0).toUpperCase()}${look.word.slice(1)}`,
      })),
      ...numbered.map(({ name, label }): KeyEntry => ({
        as: 'number',
        mark: drawn.has(label.text) ? label.text : '–',
        word: drawn.has(label.text) ? name : `${name} (no room at this scale)`,
      })),
    ],
  };
}

/** Draws a plan: what of it lies in a window of the drawing, mm. */
export function paintPlan(
  sheet: PdfPage,
  laid: Laid,
  labels: PlanLabels,
  window: Rect<'mm'> = laid.drawing.bounds,
): void {
  const { drawing, relief, scale, origin, at, size, plain = false, beneath } = laid;
  const on = ({ x, y }: { x: number; y: number }) => ({
    x: at.x + (x - origin.x) / scale,
    y: at.y + (y - origin.y) / scale,
  });
  const box = ({ x, y, w, d }: Rect<'mm'>): Rect<'mm'> => ({ ...on({ x, y }), w: w / scale, d: d / scale });
  const step = Math.max(1, Math.floor((MIN_STUD * scale) / MM_PER_STUD));
  const studs = roundOut({
    ...{ x: window.x / MM_PER_STUD, y: window.y / MM_PER_STUD },
    ...{ w: window.w / MM_PER_STUD, d: window.d / MM_PER_STUD },
  });
  sheet.clipped(box(window), () => {
    labels.looks.forEach(({ tint, hatch }, code) => {
      const rects = groundRuns(relief, code, studs, step).map(({ x, y, w, d }) =>
        box({
          ...{ x: x * MM_PER_STUD, y: y * MM_PER_STUD, w: w * MM_PER_STUD },
          // A hair of overlap, so that no light shows between the rows.
          d: d * MM_PER_STUD + 0.05 * scale,
        }),
      );
      if (!plain) sheet.fills(rects, tint);
      // A road is smooth: on paper its tint is enough.
      if (hatch !== 'dashes') sheet.hatch(rects, hatch, HATCH_INK);
    });
    beneath?.();
    for (const layer of LAYERS) {
      const style: LineStyle = STYLES[layer];
      const shown = drawing.items.flatMap((item) =>
        item.kind === 'line' && item.layer === layer && meets(boundsOf(item.points), window) ? [item] : [],
      );
      if (layer === 'PLOTS') for (const { points } of shown) sheet.fillShape(points.map(on), '#ffffff');
      for (const closed of [false, true]) {
        const same = shown.filter((item) => item.closed === closed);
        const heavy = layer === 'CONTOURS' ? same.filter(({ weight }) => weight > 1) : [];
        const light = same.filter((item) => !heavy.includes(item));
        const pointsOf = (items: typeof same) => items.map(({ points }) => points.map(on));
        sheet.lines(pointsOf(light), { ...style, closed });
        sheet.lines(pointsOf(heavy), { ...style, closed, width: INDEX_WIDTH });
      }
    }
    for (const label of labels.placed) {
      if (!meets(labelBox(label), window)) continue;
      paintLabel(sheet, label, on(label.at), label.kind === 'height' ? size * SMALL : size);
    }
  });
}

function paintLabel(
  sheet: PdfPage,
  { text, kind }: PlanLabels['placed'][number],
  { x, y }: { x: number; y: number },
  size: number,
) {
  if (kind === 'section') {
    const radius = Math.max(size * 0.85, sheet.widthOf(text, size) / 2 + size * 0.25);
    const circle = Array.from({ length: 32 }, (_, i) => ({
      x: x + radius * Math.cos((i * Math.PI) / 16),
      y: y + radius * Math.sin((i * Math.PI) / 16),
    }));
    sheet.fillShape(circle, '#ffffff');
    sheet.line(circle, { closed: true, width: 0.2, colour: STYLES.SECTIONS.colour });
    sheet.text(text, x, y, { size, align: 'center' });
  } else if (kind === 'height')
    sheet.text(text, x, y, { size, align: 'center', colour: CONTOUR_INK, halo: '#ffffff' });
  else {
    const colour = kind === 'module' ? { colour: STYLES.MODULES.colour, bold: true } : {};
    sheet.text(text, x, y, { size, align: 'center', halo: '#ffffff', ...colour });
  }
}

const labelBox = ({ at, width, size }: PlacedLabel): Rect<'mm'> => ({
  ...{ x: at.x - width / 2 - size, y: at.y - size, w: width + 2 * size, d: 2 * size },
});

function boundsOf(points: readonly { x: number; y: number }[]): Rect<'mm'> {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y } of points) {
    [x0, y0] = [Math.min(x0, x), Math.min(y0, y)];
    [x1, y1] = [Math.max(x1, x), Math.max(y1, y)];
  }
  return { x: x0, y: y0, w: x1 - x0, d: y1 - y0 };
}

/** Whether two rectangles meet; a line that has no width meets too. */
const meets = (a: Rect<'mm'>, b: Rect<'mm'>) =>
  a.x <= b.x + b.w && a.x + a.w >= b.x && a.y <= b.y + b.d && a.y + a.d >= b.y;

const KEY_ROW = 4;
/** Width of a column of the key, and of its samples, mm. */
const KEY_COLUMN = 62;
const SAMPLE = 9;
const KEY_TEXT = 2.3;

/**
 * Writes a key in columns. @returns the entries for which there was no room
 */
export function paintKey(sheet: PdfPage, key: readonly KeyEntry[], room: Rect<'mm'>): KeyEntry[] {
  const columns = Math.max(1, Math.floor(room.w / KEY_COLUMN));
  const width = room.w / columns;
  let [column, y] = [0, room.y];
  for (const [i, entry] of key.entries()) {
    const words = sheet.wrapped(entry.word, width - SAMPLE - 5, KEY_TEXT);
    const deep = KEY_ROW + (words.length - 1) * 3;
    if (y + deep > room.y + room.d) {
      [column, y] = [column + 1, room.y];
      if (column >= columns) return key.slice(i);
    }
    const x = room.x + column * width;
    const middle = y + KEY_ROW / 2;
    if (entry.as === 'ground') {
      const swatch = { x, y: y + 0.5, w: SAMPLE, d: KEY_ROW - 1 };
      const { tint, hatch } = entry.look;
      sheet.fills([swatch], tint);
      if (hatch !== 'dashes') sheet.hatch([swatch], hatch, HATCH_INK);
    } else if (entry.as === 'line')
      sheet.line(
        [
          { x, y: middle },
          { x: x + SAMPLE, y: middle },
        ],
        STYLES[entry.layer],
      );
    else sheet.text(entry.mark, x + SAMPLE, middle, { size: KEY_TEXT, align: 'right', bold: true });
    words.forEach((text, row) => sheet.text(text, x + SAMPLE + 2, middle + row * 3, { size: KEY_TEXT }));
    y += deep;
  }
  return [];
}

/** An arrow to the north, its foot at a point. */
export function paintNorth(sheet: PdfPage, x: number, y: number): void {
  sheet.line(
    [
      { x, y },
      { x, y: y - 9 },
    ],
    { width: 0.3 },
  );
  sheet.fillShape(
    [
      { x, y: y - 11 },
      { x: x - 1.6, y: y - 6.5 },
      { x: x + 1.6, y: y - 6.5 },
    ],
    '#22292e',
  );
  sheet.text('N', x, y - 13, { size: 2.6, bold: true, align: 'center' });
}
