import {
  MM_PER_STUD,
  centreOf,
  formatPlates,
  lengthOfLine,
  type Rect,
  boundsOfPoints,
  quadOf,
} from '../grid/index.ts';
import {
  OUTSIDE,
  atAlong,
  contoursOf,
  cornersOfOutline,
  footprintBounds,
  membersOf,
  plantsOf,
  type Point,
  type Relief,
} from '../terrain/index.ts';
import {
  GROUNDS,
  fixedGround,
  groundName,
  groundsOf,
  KIND_NAMES,
  specOf,
  isOverhanging,
  outerCorners,
  wallCorners,
  displayOf,
  listOf,
  padsInOrder,
  trackLine,
  type Area,
  type FixedGround,
  type Scene,
  wallLine,
} from '../document/index.ts';
import { cablesOf } from '../power/index.ts';
import { currentContents, tableInStuds } from '../venue/index.ts';
import type { Drawing, DrawingLayer, DrawnLine, DrawnText } from './drawing.ts';

/** Grounds whose areas are outlined; the others are what lies between. */
const OUTLINED: readonly FixedGround[] = ['water', 'road', 'paving', 'ballast'];

/**
 * The plan as outlines in true millimetres (a stud is 8): pads as they were drawn, the ground as it was compiled,
 * contours each brick, ways, track, buildings, walls, plants, sections, modules and tables.
 * @param textSize height of the texts, mm of the drawing
 */
export function planDrawing(scene: Scene, relief: Relief, { textSize }: { textSize: number }): Drawing {
  const items: Drawing['items'] = [];
  const mm = ({ x, y }: Point): Point => ({ x: x * MM_PER_STUD, y: y * MM_PER_STUD });
  const line = (layer: DrawingLayer, points: readonly Point[], set: Partial<DrawnLine> = {}) =>
    items.push({
      kind: 'line',
      layer,
      points: points.map(mm),
      closed: false,
      dashed: false,
      weight: 1,
      ...set,
    });
  const write = (layer: DrawingLayer, at: Point, text: string, set: Partial<DrawnText> = {}) =>
    items.push({ kind: 'text', layer, at: mm(at), text, size: textSize, turn: 0, ...set });
  const box = (layer: DrawingLayer, rect: Rect, set: Partial<DrawnLine> = {}) =>
    line(layer, quadOf(rect), { closed: true, ...set });
  const middle = ({ x, y, w, d }: Rect) => ({ x: x + w / 2, y: y + d / 2 });

  for (const part of listOf(scene, 'footprint')) box('FOOTPRINT', part, { weight: 4, name: part.name });
  for (const { id: _id, v: _v, ...pad } of padsInOrder(scene))
    line('PADS', outlineOf(pad), { closed: true, name: pad.name, thing: pad });
  for (const ground of groundsOf(scene).filter((one) => OUTLINED.includes(fixedGround(scene, one)))) {
    // The outline of an area is the contour of a plateau that stands on it.
    const code = GROUNDS.indexOf(ground);
    const plateau = relief.ground.map((own) => (own === OUTSIDE ? OUTSIDE : 0));
    const height = Int16Array.from(relief.ground, (own) => (own === code ? 3 : 0));
    for (const { lines } of contoursOf({ ...relief, ground: plateau, height }))
      for (const points of lines) line('GROUND', pairsOf(points), { name: groundName(scene, ground) });
  }
  for (const { lines, index, height } of contoursOf(relief))
    for (const points of lines)
      line('CONTOURS', pairsOf(points), { weight: index ? 2 : 1, name: formatPlates(height) });
  for (const way of listOf(scene, 'way')) line('WAYS', way.points, { dashed: true, name: way.name });
  for (const stream of listOf(scene, 'stream'))
    line('WAYS', stream.points, { dashed: true, name: stream.name });
  for (const track of listOf(scene, 'track'))
    line('TRACKS', trackLine(track, 0).line, { weight: 2, name: track.name });
  for (const plot of listOf(scene, 'plot')) {
    line('PLOTS', wallCorners(plot), { closed: true, weight: 2, name: plot.name });
    if (isOverhanging(plot))
      line('PLOTS', outerCorners(plot), { closed: true, dashed: true, name: `${plot.name}, stands out` });
    write('NAMES', middle(plot), plot.name, { rank: 3 });
  }
  for (const run of listOf(scene, 'run')) line('DRESSING', wallLine(run), { weight: 2, name: run.name });
  const modules = listOf(scene, 'module');
  for (const repeat of listOf(scene, 'repeat'))
    for (const { x, y } of membersOf(repeat, modules).members)
      box('DRESSING', { x: x - 0.5, y: y - 0.5, w: 1, d: 1 }, { name: repeat.name });
  for (const { x, y, crown } of [
    ...listOf(scene, 'tree'),
    ...listOf(scene, 'planting').flatMap((planting) => plantsOf(planting)),
  ])
    line('DRESSING', circle(x, y, crown / 2), { closed: true });
  for (const section of listOf(scene, 'section')) {
    box('SECTIONS', section, { dashed: true, name: section.name });
    write('NAMES', { x: section.x + section.w - 4, y: section.y + 4 }, section.letter, { rank: 2 });
  }
  for (const module of modules) {
    box('MODULES', module, { weight: 2, dashed: true, name: module.name });
    write('NAMES', { x: module.x + 4, y: module.y + 4 }, module.name, { rank: 1 });
  }
  for (const { circuit, lines } of cablesOf(scene))
    for (const points of lines) line('CABLES', points, { name: circuit.name });
  for (const kind of KIND_NAMES) {
    const { marks } = specOf(kind);
    if (!marks) continue;
    for (const { points, words, outlines } of listOf(scene, kind).flatMap((thing) => marks(thing))) {
      const layer = outlines === undefined ? 'DIMENSIONS' : outlines === 'deck' ? 'DECKS' : 'CAVITIES';
      line(layer, points, { name: words, dashed: outlines === 'cavity' });
      const middle = outlines === undefined ? halfWay(points) : centreOf(boundsOfPoints(points));
      write('NAMES', middle, words, { rank: 4 });
    }
  }
  for (const table of currentContents(scene, 'table'))
    box('TABLES', tableInStuds(scene, table), { name: table.name });
  const whole = footprintBounds(scene) ?? { x: 0, y: 0, w: 1, d: 1 };
  const bounds = { ...mm(whole), w: whole.w * MM_PER_STUD, d: whole.d * MM_PER_STUD };
  return { title: displayOf(scene).name, bounds, items };
}

/** The point of a line that is as far from its beginning as from its end. */
function halfWay(points: readonly Point[]): Point {
  const { x, y } = atAlong(points, lengthOfLine(points) / 2);
  return { x, y };
}

/** Corners of an area, studs; of an oval 48 of them. */
export function outlineOf(area: Area): Point[] {
  if (area.shape === 'outline') return cornersOfOutline(area);
  if (area.shape === 'rect') return quadOf(area);
  const { x, y, w, d } = area;
  return circle(0, 0, 1).map((point) => ({
    x: x + w / 2 + (point.x * w) / 2,
    y: y + d / 2 + (point.y * d) / 2,
  }));
}

/** A circle as 48 chords. */
const circle = (x: number, y: number, radius: number): Point[] =>
  Array.from({ length: 48 }, (_, i) => ({
    x: x + radius * Math.cos((i * Math.PI) / 24),
    y: y + radius * Math.sin((i * Math.PI) / 24),
  }));

function pairsOf(points: Float64Array): Point[] {
  return Array.from({ length: points.length / 2 }, (_, i) => ({ x: points[2 * i], y: points[2 * i + 1] }));
}
