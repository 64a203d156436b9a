import { MM_PER_PLATE, MM_PER_STUD, formatPlates, type Rect } from '../grid/index.ts';
import { OUTSIDE, indexAt, type Relief } from '../terrain/index.ts';
import { groundName, type Scene, type Seam, type SeamSide } from '../document/index.ts';
import { SEAM_WORDS, type SeamRemedy, type SeamSheet, type SeamState } from '../cut/index.ts';
import { writeCsv } from './csv.ts';
import type { Drawing } from './drawing.ts';

// What leaves with a builder: the seam sheet as CSV and JSON, a strip to lay along the edge, the neighbour's edge.

/** RFC 4180: a row a stud with the height (plates) and ground of both sides, studs counted from 1. */
export function seamCsv(
  scene: Pick<Scene, 'customGround'>,
  { neighbours: { a, b }, studs }: SeamSheet,
): string {
  const wordOf = (ground: string) => groundName(scene, ground);
  const rows = studs.flatMap((pair, at) =>
    pair ? [[at + 1, pair.a.height, wordOf(pair.a.ground), pair.b.height, wordOf(pair.b.ground)]] : [],
  );
  const head = ['stud', `${a.name} plates`, `${a.name} ground`, `${b.name} plates`, `${b.name} ground`];
  return writeCsv([head, ...rows]);
}

/** The sheet for programs: lengths in studs, heights in plates. */
export function seamJson(
  sheet: SeamSheet,
  seam: Seam | undefined,
  state: SeamState,
  mends: readonly SeamRemedy[],
): string {
  const { neighbours, studs, crossings, connectors, standard, water, over } = sheet;
  const { a, b, line } = neighbours;
  const module = ({ name, x, y, w, d }: typeof a) => ({ name, x, y, w, d });
  return `${JSON.stringify(
    {
      seam: `${a.name}–${b.name}`,
      state: state.state,
      signs: seam?.signs ?? [],
      a: module(a),
      b: module(b),
      ...{ line, studs, crossings, connectors, standard, water, over, mends },
    },
    null,
    2,
  )}\n`;
}

/** How wide a strip is on each side of the seam's line, mm. */
const HALF = 24;
/** Height of its figures, mm. */
const TEXT = 2.6;
const TICK = 1.5;

/**
 * A strip at 1 : 1 to lay along the seam: stud lines, the height of each stretch on both sides, where ways and tracks
 * cross and where connectors go. It lies along x from the seam's beginning; side a is above the line.
 */
export function seamStrip(sheet: SeamSheet): Drawing {
  const { neighbours, studs, crossings, connectors } = sheet;
  const { a, b, line } = neighbours;
  const length = line.length * MM_PER_STUD;
  const items: Drawing['items'] = [];
  const drawn = (
    points: [number, number][],
    weight: number,
    more: { dashed?: boolean; closed?: boolean } = {},
  ) =>
    items.push({
      kind: 'line',
      layer: 'MODULES',
      points: points.map(([x, y]) => ({ x, y })),
      closed: more.closed ?? false,
      dashed: more.dashed ?? false,
      weight,
    });
  const text = (words: string, x: number, y: number, size = TEXT) =>
    items.push({ kind: 'text', layer: 'NAMES', at: { x, y }, text: words, size, turn: 0 });
  drawn(
    [
      [0, -HALF],
      [length, -HALF],
      [length, HALF],
      [0, HALF],
    ],
    2,
    { closed: true },
  );
  drawn(
    [
      [0, 0],
      [length, 0],
    ],
    4,
  );
  for (let stud = 1; stud < line.length; stud++) {
    const long = stud % 8 === 0 ? 3 * TICK : TICK;
    drawn(
      [
        [stud * MM_PER_STUD, -long],
        [stud * MM_PER_STUD, long],
      ],
      1,
    );
    if (stud % 8 === 0) text(String(stud), stud * MM_PER_STUD, -HALF + TEXT);
  }
  for (const side of ['a', 'b'] as const) {
    const sign = side === 'a' ? -1 : 1;
    for (const { from, to, height } of stretches(studs, side)) {
      text(
        formatPlates(height),
        ((from + to) / 2) * MM_PER_STUD,
        sign * 8,
        to - from > 1 ? TEXT : TEXT * 0.7,
      );
      if (to < line.length)
        drawn(
          [
            [to * MM_PER_STUD, sign * 3 * TICK],
            [to * MM_PER_STUD, sign * 11],
          ],
          1,
        );
    }
    text((side === 'a' ? a : b).name, 8, sign * (HALF - TEXT), TEXT * 1.4);
  }
  for (const { name, centre, width } of crossings) {
    const [from, to] = [(centre - width / 2) * MM_PER_STUD, (centre + width / 2) * MM_PER_STUD];
    for (const x of [from, to])
      drawn(
        [
          [x, -HALF + 6],
          [x, HALF - 6],
        ],
        2,
        { dashed: true },
      );
    text(name, centre * MM_PER_STUD, 16);
  }
  for (const { from, to } of connectors)
    drawn(
      [
        [from * MM_PER_STUD, -2],
        [to * MM_PER_STUD, -2],
        [to * MM_PER_STUD, 2],
        [from * MM_PER_STUD, 2],
      ],
      4,
      { closed: true },
    );
  return {
    title: `Seam ${a.name}–${b.name}`,
    bounds: { x: -4, y: -HALF - 4, w: length + 8, d: 2 * HALF + 8 },
    items,
  };
}

/** Studs in a row of one height. */
function stretches(
  studs: SeamSheet['studs'],
  side: SeamSide,
): { from: number; to: number; height: number }[] {
  const found: { from: number; to: number; height: number }[] = [];
  studs.forEach((pair, at) => {
    if (!pair) return;
    const { height } = pair[side];
    const last = found.at(-1);
    if (last?.to === at && last.height === height) last.to++;
    else found.push({ from: at, to: at + 1, height });
  });
  return found;
}

/** Studs of a neighbour's edge that are handed on. */
export const EDGE_DEPTH = 8;

/** The first 8 studs of one side of a seam as a relief of their own: what the builder of the other side has to meet. */
export function edgeRelief(relief: Relief, { neighbours: { line } }: SeamSheet, side: SeamSide): Relief {
  const near = side === 'a' ? -EDGE_DEPTH : 0;
  const area: Rect = line.upright
    ? { x: line.x + near, y: line.y, w: EDGE_DEPTH, d: line.length }
    : { x: line.x, y: line.y + near, w: line.length, d: EDGE_DEPTH };
  // Beside a narrow module the edge may reach beyond the display: that is outside.
  const pick = <T extends Int16Array | Uint8Array | Uint16Array>(from: T, to: T, beyond = 0): T => {
    for (let row = 0; row < area.d; row++)
      for (let column = 0; column < area.w; column++) {
        const at = indexAt(relief, area.x + column, area.y + row);
        to[row * area.w + column] = at < 0 ? beyond : from[at];
      }
    return to;
  };
  const size = area.w * area.d;
  return {
    ...area,
    height: pick(relief.height, new Int16Array(size)),
    ground: pick(relief.ground, new Uint8Array(size), OUTSIDE),
    top: pick(relief.top, new Int16Array(size)),
    owner: pick(relief.owner, new Uint16Array(size)),
    things: relief.things,
    surface: pick(relief.surface, new Int16Array(size)),
    slabs: [],
  };
}

/** One line for each thing a seam sheet lists under its profile: a label and its text. */
export function seamLines(sheet: SeamSheet): [string, string][] {
  const { crossings, connectors, standard, water, over, neighbours } = sheet;
  const levels = (list: readonly number[]) => list.map((level) => formatPlates(level)).join(', ') || 'none';
  return [
    ...crossings.map(({ name, centre, width, angle, height }): [string, string] => [
      name,
      `middle at stud ${centre.toFixed(1)}, ${width.toFixed(1)} studs wide, ${angle.toFixed(0)}° from square${height === null ? '' : `, at ${formatPlates(Math.round(height))} (${(Math.round(height) * MM_PER_PLATE).toFixed(1)} mm)`}`,
    ]),
    [
      'Connectors',
      `${standard === 'street' ? 'street standard' : 'two studs in the middle of each 16'}: studs ${connectors.map(({ from, to }) => `${from + 1}–${to}`).join(', ') || 'none'}; seen from ${neighbours.b.name}: ${connectors.map(({ mirrored }) => `${mirrored.from + 1}–${mirrored.to}`).join(', ') || 'none'}`,
    ],
    ['Water', `${neighbours.a.name}: ${levels(water.a)}; ${neighbours.b.name}: ${levels(water.b)}`],
    ['Lies over', over.map(({ over: what, studs }) => `${studs} studs ${SEAM_WORDS[what]}`).join(', ')],
  ];
}
