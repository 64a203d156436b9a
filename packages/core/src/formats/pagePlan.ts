import { MM_PER_STUD, type Rect } from '../grid/index.ts';
import { coverFromAbove, type Relief } from '../terrain/index.ts';
import { colourOf, mixedHex } from '../catalogue/index.ts';
import {
  GROUNDS,
  groundName,
  hatchOfGround,
  isFixedGround,
  customGroundOf,
  type FixedGround,
  type Ground,
  type GroundHatch,
  type Scene,
} from '../document/index.ts';
import { placeLabels } from './labels.ts';
import { planDrawing } from './planDrawing.ts';
import { writeSvg } from './svg.ts';

/** Tints of grounds on paper. */
const TINTS: Readonly<Record<FixedGround, string>> = {
  grass: '#e6e8d0',
  rock: '#d6d2c9',
  soil: '#e0d2bb',
  sand: '#f1e7cb',
  paving: '#dbd6cc',
  road: '#c4bfb6',
  ballast: '#cbc3b5',
  water: '#bedbde',
};
/** Marks of the hatches as an SVG path: they repeat each 64 mm of the drawing. */
const MARKS: Readonly<Record<GroundHatch, string>> = {
  ticks: 'M14 20l4 -8l4 8M44 50l4 -8l4 8',
  chevrons: 'M8 24l8 -10l8 10M38 56l8 -10l8 10',
  strokes: 'M12 16h6M42 46h6',
  grains: 'M16 16h1M48 48h1M32 32h1M8 52h1',
  bricks: 'M0 32h64M32 0v32M0 64h64M0 32v32',
  dashes: '',
  stones: 'M10 10l6 6M42 42l6 6M42 10l6 6M10 42l6 6',
  waves: 'M4 16q8 -8 16 0t16 0M28 48q8 -8 16 0t16 0',
  crosses: 'M10 16h12M16 10v12M42 48h12M48 42v12',
  rings: 'M10 16a6 6 0 1 0 12 0a6 6 0 1 0 -12 0M42 48a6 6 0 1 0 12 0a6 6 0 1 0 -12 0',
  diagonals: 'M0 32l32 -32M0 64l64 -64M32 64l32 -32',
  flakes: 'M10 16h12M13 11l6 10M19 11l-6 10M42 48h12M45 43l6 10M51 43l-6 10',
};

const PAPER = '#faf8f3';
/** How much of a ground's own colour its tint has. */
const TINT_SHARE = 0.35;

/** How a ground is drawn: its tint, and marks so that the tint is not the only sign. */
export interface GroundLook {
  ground: Ground;
  word: string;
  tint: string;
  hatch: GroundHatch;
}

/** How each ground of a display is drawn on paper, by its code. */
export const groundLooks = (scene: Pick<Scene, 'customGround'>): GroundLook[] =>
  GROUNDS.map((ground) => ({
    ground,
    word: groundName(scene, ground),
    hatch: hatchOfGround(scene, ground),
    tint: isFixedGround(ground)
      ? TINTS[ground]
      : mixedHex(PAPER, colourOf(customGroundOf(scene, ground)?.colour ?? '')?.hex ?? PAPER, TINT_SHARE),
  }));
const PEN_MM = 1.8;
/** Width of a letter as a share of its height: what draws the picture has its own face. */
const LETTER = 0.75;
/** Of names that have none. */
const LAST_RANK = 9;

/**
 * The plan as a picture for a page or a report: ground in tints with marks, contours, buildings, sections, modules.
 * @param textSize height of the names, mm of the drawing: larger for a smaller picture; null: no names
 * @param cells grounds are looked at so many times along the longer side at most; left out: at each stud
 * @param changed rectangles to point out, studs
 * @returns an SVG document in true millimetres
 */
export function writePagePlan(
  scene: Scene,
  relief: Relief,
  { textSize, changed = [], cells }: { textSize: number | null; changed?: readonly Rect[]; cells?: number },
): string {
  const drawing = planDrawing(scene, relief, { textSize: textSize ?? 1 });
  // The pads show by their grounds and contours; tables belong to the room.
  const shown = drawing.items.filter(({ layer }) => !['PADS', 'TABLES', 'GROUND'].includes(layer));
  // Names by their rank, none on another; a name that finds no room is left out of the picture.
  const names = shown.flatMap((item) =>
    item.kind === 'text' && textSize !== null ? [{ ...item, rank: item.rank ?? LAST_RANK }] : [],
  );
  const { placed } = placeLabels(names, (text, size) => LETTER * size * text.length, drawing.bounds);
  const items = [...shown.filter(({ kind }) => kind === 'line'), ...placed];
  const svg = writeSvg({ ...drawing, items }, PEN_MM);
  const looks = groundLooks(scene);
  const patterns = looks.map(
    ({ ground, tint, hatch }) =>
      `<pattern id="${ground}" width="64" height="64" patternUnits="userSpaceOnUse"><path d="M0 0h64v64h-64z" fill="${tint}"/><path d="${MARKS[hatch]}" fill="none" stroke="#8a8a78" stroke-width="1.6"/></pattern>`,
  );
  const fills = GROUNDS.flatMap((ground, code) => {
    const path = runsOf(relief, code, cells ? Math.ceil(Math.max(relief.w, relief.d) / cells) : 1);
    return path === '' ? [] : [`<path d="${path}" fill="url(#${ground})"/>`];
  });
  const marks = changed.map(
    ({ x, y, w, d }) =>
      `<rect x="${x * MM_PER_STUD}" y="${y * MM_PER_STUD}" width="${w * MM_PER_STUD}" height="${d * MM_PER_STUD}" fill="#a8442a22" stroke="#a8442a" stroke-width="9" stroke-dasharray="28 16"/>`,
  );
  const at = svg.indexOf('</style>') + '</style>'.length;
  return [
    svg.slice(0, at),
    // Names stand on paper, and so do buildings.
    '<style>#PLOTS polygon{fill:#faf8f3cc}text{paint-order:stroke;stroke:#faf8f3;stroke-width:6;stroke-linejoin:round}</style>',
    `<defs>${patterns.join('')}</defs>`,
    ...fills,
    svg.slice(at).replace(/<\/svg>\s*$/, ''),
    ...marks,
    '</svg>\n',
  ].join('\n');
}

/** All studs of one ground as one path: rectangles, mm. */
const runsOf = (relief: Relief, code: number, step: number): string =>
  groundRuns(relief, code, undefined, step)
    .map(({ x, y, w, d }) => {
      const wide = w * MM_PER_STUD;
      return `M${x * MM_PER_STUD} ${y * MM_PER_STUD}h${wide}v${d * MM_PER_STUD}h${-wide}z`;
    })
    .join('');

/**
 * All studs of one ground, as it is seen from above, as rectangles of a row each, studs.
 * @param code index into GROUNDS
 * @param window studs that are looked at; left out: all
 * @param step looks at each so many of them only, for pictures in which a stud is too small to be seen
 */
export function groundRuns(relief: Relief, code: number, window: Rect = relief, step = 1): Rect[] {
  const { x, y, w, d } = relief;
  const ground = coverFromAbove(relief);
  const [left, top] = [Math.max(0, window.x - x), Math.max(0, window.y - y)];
  const right = Math.min(w, window.x + window.w - x);
  const bottom = Math.min(d, window.y + window.d - y);
  const runs: Rect[] = [];
  for (let row = top; row < bottom; row += step)
    for (let column = left; column < right; column += step) {
      const begin = column;
      while (column < right && ground[row * w + column] === code) column += step;
      if (column > begin)
        runs.push({
          ...{ x: x + begin, y: y + row },
          ...{ w: Math.min(column, right) - begin, d: Math.min(step, bottom - row) },
        });
    }
  return runs;
}
