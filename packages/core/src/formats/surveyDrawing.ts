import { MM, MM_PER_STUD, boundsOf, formatInches, formatMm, type Rect, quadOf } from '../grid/index.ts';
import { displayOf, listOf, type Scene } from '../document/index.ts';
import {
  clearances,
  currentPlace,
  frameOf,
  currentContents,
  lengthOf,
  openingFloor,
  openingLine,
  rectToRoom,
  sceneInRoom,
  sidesOf,
  signedArea,
  type RoomPoint,
} from '../venue/index.ts';
import type { Drawing, DrawingLayer, DrawnLine, DrawnText } from './drawing.ts';

/** Height of the texts where only outlines are wanted, mm of the drawing. */
export const OUTLINE_TEXT = 60;

/** The units lengths are written in on a drawing. */
export type DrawingUnits = 'mm' | 'in';

/**
 * The room and the scene of the current place as outlines, with the lengths of the walls, the scene's own size and
 * its clear distances to the walls.
 * @param textSize height of the texts in mm of the drawing: 2.4 mm on paper at 1 : n is 2.4 n
 */
export function surveyDrawing(
  scene: Scene,
  { units, textSize }: { units: DrawingUnits; textSize: number },
): Drawing {
  const place = currentPlace(scene);
  const walls = place?.walls ?? [];
  const items: Drawing['items'] = [];
  const say = (mm: number) =>
    units === 'in' ? formatInches(Math.round(mm * MM)) : formatMm(Math.round(mm) * MM);
  const line = (layer: DrawingLayer, points: RoomPoint[], set: Partial<DrawnLine> = {}) =>
    items.push({ kind: 'line', layer, points, closed: false, dashed: false, weight: 1, ...set });
  const write = (layer: DrawingLayer, at: RoomPoint, text: string, set: Partial<DrawnText> = {}) =>
    items.push({ kind: 'text', layer, at, text, size: textSize, turn: 0, ...set });
  const box = (layer: DrawingLayer, rect: Rect<'mm'>, set: Partial<DrawnLine> = {}) =>
    line(layer, quadOf(rect), { closed: true, ...set });
  const middleX = walls.reduce((sum, { x }) => sum + x, 0) / (walls.length || 1);
  const middle = ({ x, y, w, d }: Rect<'mm'>) => ({ x: x + w / 2, y: y + d / 2 });

  for (const [a, b] of wallPieces(scene)) line('WALLS', [a, b], { weight: 4 });
  for (const opening of currentContents(scene, 'opening')) {
    const at = openingLine(walls, opening);
    if (!at) continue;
    const floor = openingFloor(walls, at, opening.use === 'door' ? opening.width : textSize * 2);
    const label = `${opening.name} ${say(opening.width)}`;
    const inside = { x: (floor[0].x + floor[2].x) / 2, y: (floor[0].y + floor[2].y) / 2 };
    if (opening.use === 'door') line('OPENINGS', swing(floor), { dashed: true });
    // The glass is a fine line on either side of the wall's own.
    if (opening.use === 'window')
      for (const side of [1, -1]) {
        const pane = openingFloor(walls, at, side * textSize * 0.35);
        line('OPENINGS', [pane[3], pane[2]]);
      }
    write('OPENINGS', inside, label, opening.use === 'door' ? {} : { turn: uprightTurn(at.a, at.b) });
  }
  for (const obstacle of currentContents(scene, 'obstacle')) {
    const [a, b, c, d] = quadOf(obstacle);
    box('OBSTACLES', obstacle, { weight: 2 });
    line('OBSTACLES', [a, c]);
    line('OBSTACLES', [b, d]);
    write('OBSTACLES', { x: obstacle.x + obstacle.w / 2, y: obstacle.y - textSize }, obstacle.name);
  }
  for (const table of currentContents(scene, 'table')) {
    box('TABLES', table, { weight: 2, dashed: table.kind !== 'table' });
    const { x, y } = middle(table);
    write('TABLES', { x, y: y - textSize * 0.7 }, table.name);
    write(
      'TABLES',
      { x, y: y + textSize * 0.7 },
      `${say(table.w)} × ${say(table.d)}, ${say(table.height)} high`,
      {
        size: textSize * 0.8,
      },
    );
  }
  const frame = frameOf(scene);
  for (const part of sceneInRoom(scene)) box('SCENE', part, { weight: 4 });
  for (const section of listOf(scene, 'section')) {
    const rect = rectToRoom(frame, section);
    box('SECTIONS', rect, { dashed: true });
    write('SECTIONS', { x: rect.x + textSize, y: rect.y + textSize }, section.letter, {
      size: textSize * 1.2,
    });
  }
  for (const { x, y, name } of currentContents(scene, 'socket')) {
    box('SOCKETS', { x: x - textSize / 2, y: y - textSize / 2, w: textSize, d: textSize });
    // The name leans towards the room's middle, off the wall and its dimension.
    const lean = Math.sign(middleX - x) * name.length * textSize * 0.28;
    write('SOCKETS', { x: x + lean, y: y + textSize * 1.3 }, name, { size: textSize * 0.8 });
  }
  for (const { x, y, name } of currentContents(scene, 'extension')) {
    box('SOCKETS', { x: x - textSize, y: y - textSize / 2, w: 2 * textSize, d: textSize });
    write('SOCKETS', { x, y: y + textSize * 1.3 }, name, { size: textSize * 0.8 });
  }
  for (const { x1, y1, x2, y2, name } of currentContents(scene, 'barrier')) {
    line(
      'BARRIERS',
      [
        { x: x1, y: y1 },
        { x: x2, y: y2 },
      ],
      { weight: 2, dashed: true },
    );
    write('BARRIERS', { x: (x1 + x2) / 2, y: (y1 + y2) / 2 + textSize }, name);
  }
  measure();
  return {
    title: `${displayOf(scene).name}${place ? `, ${place.name}` : ''}`,
    bounds: extentOf(items),
    items,
  };

  /** Walls outside, the scene's own size, and its clear distances. */
  function measure(): void {
    const out = signedArea(walls) >= 0 ? -1 : 1;
    for (const { a, b } of sidesOf(walls)) dimension(a, b, out * textSize * 2);
    const parts = sceneInRoom(scene);
    if (parts.length === 0) return;
    const all = boundsOf(parts);
    dimension({ x: all.x, y: all.y + all.d }, { x: all.x + all.w, y: all.y + all.d }, textSize * 2);
    dimension({ x: all.x + all.w, y: all.y + all.d }, { x: all.x + all.w, y: all.y }, textSize * 2);
    const clear = clearances(all, currentContents(scene, 'obstacle'), sidesOf(walls));
    const { x, y } = middle(all);
    const runs: [number | null, RoomPoint, RoomPoint][] = [
      [clear.n, { x, y: all.y }, { x, y: all.y - (clear.n ?? 0) }],
      [
        clear.s,
        { x: x + textSize * 4, y: all.y + all.d },
        { x: x + textSize * 4, y: all.y + all.d + (clear.s ?? 0) },
      ],
      [clear.w, { x: all.x, y }, { x: all.x - (clear.w ?? 0), y }],
      [clear.e, { x: all.x + all.w, y }, { x: all.x + all.w + (clear.e ?? 0), y }],
    ];
    for (const [free, from, to] of runs) if (free !== null && free > textSize * 5) dimension(from, to, 0);
  }

  /** A dimension line beside two points, with ticks and the length in its middle. */
  function dimension(a: RoomPoint, b: RoomPoint, away: number): void {
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    if (length < textSize * 2) return;
    const along = { x: (b.x - a.x) / length, y: (b.y - a.y) / length };
    const normal = { x: -along.y, y: along.x };
    const shift = ({ x, y }: RoomPoint, by: number) => ({ x: x + normal.x * by, y: y + normal.y * by });
    const [p, q] = [shift(a, away), shift(b, away)];
    const tick = textSize * 0.5;
    line('DIMENSIONS', [p, q]);
    for (const end of [p, q]) line('DIMENSIONS', [shift(end, -tick), shift(end, tick)]);
    const beside = away === 0 ? textSize * 0.9 : Math.sign(away) * textSize;
    const text = shift({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 }, beside);
    write('DIMENSIONS', text, say(length), { turn: uprightTurn(a, b) });
  }
}

/** The walls without their doors and open ways: straight pieces, in order. */
function wallPieces(scene: Scene): [RoomPoint, RoomPoint][] {
  const walls = currentPlace(scene)?.walls ?? [];
  const openings = currentContents(scene, 'opening').filter(({ use }) => use !== 'window');
  return sidesOf(walls).flatMap((side, wall): [RoomPoint, RoomPoint][] => {
    const length = lengthOf(side);
    const point = (t: number) => ({
      x: side.a.x + ((side.b.x - side.a.x) * t) / length,
      y: side.a.y + ((side.b.y - side.a.y) * t) / length,
    });
    const pieces: [RoomPoint, RoomPoint][] = [];
    let from = 0;
    for (const { at, width } of openings.filter((one) => one.wall === wall).sort((a, b) => a.at - b.at)) {
      if (at > from) pieces.push([point(from), point(Math.min(at, length))]);
      from = Math.max(from, at + width);
    }
    if (from < length) pieces.push([point(from), side.b]);
    return pieces;
  });
}

/** The turn of a text along a line, degrees clockwise from 0, never upside down. */
function uprightTurn(a: RoomPoint, b: RoomPoint): number {
  const turn = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
  return (((turn > 90 || turn <= -90 ? turn + 180 : turn) % 360) + 360) % 360;
}

/** A quarter circle from the second jamb to the open leaf, and the leaf. */
function swing([hinge, jamb, , leaf]: RoomPoint[]): RoomPoint[] {
  const from = Math.atan2(jamb.y - hinge.y, jamb.x - hinge.x);
  let by = Math.atan2(leaf.y - hinge.y, leaf.x - hinge.x) - from;
  if (by > Math.PI) by -= 2 * Math.PI;
  if (by < -Math.PI) by += 2 * Math.PI;
  const radius = Math.hypot(jamb.x - hinge.x, jamb.y - hinge.y);
  const arc = Array.from({ length: 13 }, (_, i) => ({
    x: hinge.x + radius * Math.cos(from + (by * i) / 12),
    y: hinge.y + radius * Math.sin(from + (by * i) / 12),
  }));
  return [...arc, hinge];
}

/** What all items take in: texts with their height and a guess of their length. */
function extentOf(items: Drawing['items']): Rect<'mm'> {
  const rects = items.flatMap((item): Rect<'mm'>[] => {
    if (item.kind === 'line') return item.points.map(({ x, y }) => ({ x, y, w: 0, d: 0 }));
    const { at, size, text, turn } = item;
    const half = (text.length * size * 0.6) / 2;
    const upright = Math.abs(Math.sin((turn * Math.PI) / 180)) > 0.7;
    const [w, d] = upright ? [size, 2 * half] : [2 * half, size];
    return [{ x: at.x - w / 2, y: at.y - d / 2, w, d }];
  });
  return rects.length === 0 ? { x: 0, y: 0, w: MM_PER_STUD, d: MM_PER_STUD } : boundsOf(rects);
}
